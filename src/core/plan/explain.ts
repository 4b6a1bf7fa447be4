import type { Line } from '@/core/model';
import { explainMethod } from './methods/table';
import type { LineResult, Reckoning } from './results';
import type { LineIssue, Reason } from './rule';

/** What stops a whole line: there are no steps that would lead to its blank months. */
const NO_WAY: ReadonlySet<LineIssue> = new Set(['cycle', 'notForBalances', 'tooLarge']);

/** What changes a line, each with the months that it leaves. */
function changesAt(line: Line, { method, typed }: LineResult, reckoning: Reckoning) {
  const own = method.map((a, i) => (typed[i] ? (line.overrides[idAt(reckoning, line, i)] ?? null) : a));
  return reckoning.stepsOf(line, own);
}
const idAt = (reckoning: Reckoning, line: Line, i: number) => reckoning.contextOf(line).facts.periods[i]!.id;

/** The steps that lead to the i-th month of a line; the last is what the sheet shows, to the cent. */
export function explainMonth(line: Line, result: LineResult, reckoning: Reckoning, i: number): Reason[] {
  const made = result.method[i] ?? null;
  const value = result.amounts[i] ?? null;
  const out =
    result.issue !== null && NO_WAY.has(result.issue)
      ? []
      : explainMethod(line, reckoning.contextOf(line), i, made, result.amounts);
  if (result.typed[i]) out.push({ step: 'typed', value, instead: made });
  for (const { change, after } of changesAt(line, result, reckoning)) {
    const made = after[i] ?? null;
    if (change.as === 'approved') out.push({ step: 'asApproved', value: made });
    else out.push({ step: 'adjusted', adjustment: change.id, value: made });
  }
  out.push({ step: 'result', value });
  return out;
}
