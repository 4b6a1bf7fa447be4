import type { Line } from '@/core/model';
import { explainMethod } from './methods/table';
import type { LineResult, Reckoning } from './results';
import type { Reason } from './rule';

/** The steps that lead to the i-th month of a line; the last is what the sheet shows, to the cent. */
export function explainMonth(line: Line, result: LineResult, reckoning: Reckoning, i: number): Reason[] {
  const made = result.method[i] ?? null;
  const value = result.amounts[i] ?? null;
  const out =
    result.issue === 'cycle' ? [] : explainMethod(line, reckoning.contextOf(line), i, made, result.amounts);
  if (result.typed[i]) out.push({ step: 'typed', value, instead: made });
  out.push({ step: 'result', value });
  return out;
}
