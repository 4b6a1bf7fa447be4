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
  if (result.typed[i]) out.push({ step: 'typed', value, instead: made });
  out.push({ step: 'result', value });
  return out;
}
