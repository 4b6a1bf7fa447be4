import { minor, splitEven, splitLike, sum, uplift, ZERO, type Minor, type Percent } from '@/core/money';
import type { PeriodIndex } from '@/core/calendar';
import type { AccountId, EvenBasis, Line } from '@/core/model';
import type { Facts } from './facts';
import { evenBase } from './methods';
import type { LineResult } from './reckon';

/** One step of how a month came about; the screen puts it in words. */
export type Reason =
  | { readonly step: 'typed'; readonly value: Minor | null; readonly instead: Minor | null }
  | { readonly step: 'lastYearMonth'; readonly period: PeriodIndex; readonly value: Minor | null }
  | {
      readonly step: 'annual';
      readonly basis: EvenBasis['of'] | 'pattern';
      readonly value: Minor;
      readonly months: number;
    }
  | { readonly step: 'uplift'; readonly percent: Percent; readonly value: Minor }
  | { readonly step: 'evenPart'; readonly value: Minor }
  | { readonly step: 'patternPart'; readonly part: Minor; readonly of: Minor; readonly value: Minor }
  | { readonly step: 'rounding'; readonly difference: Minor }
  | {
      readonly step: 'share';
      readonly of: AccountId;
      readonly percent: Percent;
      readonly value: Minor | null;
    }
  | { readonly step: 'result'; readonly value: Minor | null };

/** The steps that lead to the i-th month of a line; the last is what the sheet shows, to the cent. */
export function explainMonth(
  line: Line,
  result: LineResult,
  facts: Facts,
  i: number,
  lineAmounts: (account: AccountId) => readonly (Minor | null)[] | null,
): Reason[] {
  const out = methodSteps(line, result, facts, i, lineAmounts);
  if (result.typed[i]) out.push({ step: 'typed', value: result.amounts[i]!, instead: result.method[i]! });
  else if (line.method.kind === 'byMonth')
    out.push({ step: 'typed', value: result.amounts[i]!, instead: null });
  out.push({ step: 'result', value: result.amounts[i]! });
  return out;
}

function methodSteps(
  line: Line,
  result: LineResult,
  facts: Facts,
  i: number,
  lineAmounts: (account: AccountId) => readonly (Minor | null)[] | null,
): Reason[] {
  const { method } = line;
  const past = facts.past(line.account);
  const made = result.method[i]!;
  const steps: Reason[] = [];
  const roundedFrom = (exact: Minor) => {
    if (made !== null && made !== exact) steps.push({ step: 'rounding', difference: minor(made - exact) });
  };
  const lifted = (base: Minor, p: Percent): Minor => {
    const value = uplift(base, p);
    if (p !== '0') steps.push({ step: 'uplift', percent: p, value });
    return value;
  };
  switch (method.kind) {
    case 'byMonth':
      return steps;
    case 'lastYear': {
      const value = past.lastYear[i] ?? null;
      const span = facts.periods[i]!.index - facts.periods.length;
      steps.push({ step: 'lastYearMonth', period: span, value });
      if (value !== null) roundedFrom(lifted(value, method.uplift));
      return steps;
    }
    case 'even': {
      if (made === null) return steps;
      const base = evenBase(method.basis, past.lastYear, past.known, facts.periods.length) ?? ZERO;
      steps.push({
        step: 'annual',
        basis: method.basis.of,
        value: base,
        months: method.basis.of === 'average' ? past.known.length : facts.periods.length,
      });
      const part = splitEven(lifted(base, method.uplift), facts.periods.length)[i]!;
      steps.push({ step: 'evenPart', value: part });
      roundedFrom(part);
      return steps;
    }
    case 'pattern': {
      if (made === null) return steps;
      const shape = past.lastYear.map((a) => a ?? ZERO);
      const of = sum(shape);
      const base = method.annual ?? of;
      steps.push({
        step: 'annual',
        basis: method.annual === null ? 'lastYear' : 'pattern',
        value: base,
        months: facts.periods.length,
      });
      const total = lifted(base, method.uplift);
      const parts = splitLike(total, shape);
      const exact = (parts ?? splitEven(total, facts.periods.length))[i]!;
      steps.push(
        parts
          ? { step: 'patternPart', part: shape[i]!, of, value: exact }
          : { step: 'evenPart', value: exact },
      );
      roundedFrom(exact);
      return steps;
    }
    case 'share':
      steps.push({
        step: 'share',
        of: method.of,
        percent: method.percent,
        value: lineAmounts(method.of)?.[i] ?? null,
      });
      return steps;
  }
}
