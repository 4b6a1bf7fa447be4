import type { Line } from '@/core/model';
import { explainMethod } from './methods/table';
import type { LineResult, Reckoning } from './results';
import type { LineIssue, Reason } from './rule';

/** What stops a whole line: there are no steps that would lead to its blank months. */
const NO_WAY: ReadonlySet<LineIssue> = new Set(['cycle', 'notForBalances', 'tooLarge']);

/** The steps that lead to the i-th month of a line; the last is what the sheet shows, to the cent. */
export function explainMonth(line: Line, result: LineResult, reckoning: Reckoning, i: number): Reason[] {
  const made = result.method[i] ?? null;
  const value = result.amounts[i] ?? null;
  const out =
    result.issue !== null && NO_WAY.has(result.issue)
      ? []
      : explainMethod(line, reckoning.contextOf(line), i, made, result.amounts);
  const told = (steps: ReturnType<Reckoning['stepsOf']>): void => {
    for (const { change, after } of steps) {
      const made = after[i] ?? null;
      if (change.as === 'approved') out.push({ step: 'asApproved', value: made });
      else out.push({ step: 'adjusted', adjustment: change.id, value: made });
    }
  };
  const first = reckoning.stepsOf(line, result.method, 'first');
  told(first);
  const { periods } = reckoning.contextOf(line).facts;
  const begun = first.at(-1)?.after ?? result.method;
  const typed = (k: number) => line.overrides[periods[k]!.id] ?? null;
  if (result.typed[i]) out.push({ step: 'typed', value: typed(i), instead: begun[i] ?? null });
  told(
    reckoning.stepsOf(
      line,
      begun.map((a, k) => (result.typed[k] ? typed(k) : a)),
      'case',
    ),
  );
  out.push({ step: 'result', value });
  return out;
}
