import { minor, uplift, ZERO, type Minor } from '@/core/money';
import { yearsBefore, type PeriodIndex } from '@/core/calendar';
import type { MethodOf } from '@/core/model';
import { beforeOf, type Before } from '../before';
import { outlookOf } from '../outlook';
import {
  blanks,
  byYears,
  roundingStep,
  unitOfRound,
  upliftStep,
  type Computed,
  type Context,
  type Reason,
  type Rule,
} from '../rule';

type LastYear = MethodOf<'lastYear'>;
type Base =
  Before | { readonly of: 'budget' | 'own'; readonly period: PeriodIndex; readonly value: Minor | null };

/**
 * What the i-th month is taken from. A budget of more than a year follows itself where what it is taken from has no
 * such month: neither the ledger nor the other budget has come that far.
 */
function baseOf(
  { from, rest }: LastYear,
  { line, facts }: Context,
  i: number,
  own: (i: number) => Minor | null,
): Base | null {
  const period = yearsBefore(facts.calendar, facts.periods[i]!.index, from.years);
  if (period === null) return null;
  const { account, segment } = line;
  const inside = from.years > 0 ? period - facts.periods[0]!.index : -1;
  const itself = (): Base => ({ of: 'own', period, value: own(inside) });
  if (from.of === 'actuals') return inside >= 0 ? itself() : beforeOf(facts, account, segment, period, rest);
  const other = facts.other(from.budget);
  const amount = other?.amount(account, segment, period) ?? null;
  if (from.of === 'budget' || !facts.isActual(period)) {
    if (other?.has(period)) return { of: 'budget', period, value: amount };
    if (inside >= 0) return itself();
    return rest === undefined || from.of === 'budget'
      ? { of: 'budget', period, value: null }
      : beforeOf(facts, account, segment, period, rest);
  }
  const planned = { amount, line: other?.plans(account, segment) ?? false };
  return { of: 'actual', period, value: outlookOf(facts, account, segment, period, planned) };
}

/** What is left of a month's basis after its lump is taken out. */
function afterSkip({ skip }: LastYear, id: string, base: Minor | null): Minor | null {
  if (base === null || !Object.hasOwn(skip, id)) return base;
  const out = skip[id] ?? null;
  return out === null ? null : minor(base - out);
}

/** Whether it takes the year before as it is, but for the percentage. */
function isPlain({ from, add, skip, rest }: LastYear): boolean {
  if (from.of !== 'actuals' || from.years !== 1 || add !== 0 || rest !== undefined) return false;
  for (const _ in skip) return false;
  return true;
}

/** The common case at full speed: the year before, as it is but for the percentage. */
function plainly(method: LastYear, context: Context): Computed {
  const { facts, line } = context;
  const { lastYear } = facts.past(line.account, line.segment);
  let met = false;
  const amounts = byYears(context, unitOfRound(method, facts), ({ from, to }, months, shown) => {
    for (let i = from; i < to; i++) {
      const back = facts.yearBack[i] ?? -1;
      const base = back >= 0 ? shown(back) : lastYear[i]!;
      if (base === null) continue;
      met = true;
      months[i] = uplift(base, method.uplift);
    }
  });
  return met ? { amounts, issue: null } : { amounts: blanks(facts), issue: 'noLastYear' };
}

const stepOf = (base: Base): Reason =>
  base.of === 'average'
    ? { step: 'average', months: base.months, value: base.value ?? ZERO }
    : { step: 'basis', of: base.of, period: base.period, value: base.value };

/** Each month is the same month of an earlier year (actual, outlook or another budget), with the uplift. */
export const lastYear: Rule<'lastYear'> = {
  by: 'line',
  balances: true,
  compute(method, context) {
    const { facts } = context;
    const { from } = method;
    if (from.of !== 'actuals' && !facts.other(from.budget))
      return { amounts: blanks(facts), issue: 'budgetMissing' };
    if (isPlain(method)) return plainly(method, context);
    let met = false;
    const amounts = byYears(context, unitOfRound(method, facts), ({ from: start, to }, months, shown) => {
      for (let i = start; i < to; i++) {
        const base = baseOf(method, context, i, shown)?.value ?? null;
        if (base !== null) met = true;
        const left = afterSkip(method, facts.periods[i]!.id, base);
        months[i] = left === null ? null : uplift(minor(left + method.add), method.uplift);
      }
    });
    return met ? { amounts, issue: null } : { amounts: blanks(facts), issue: 'noLastYear' };
  },
  explain(method, context, i, made, own) {
    const base = baseOf(method, context, i, (k) => own[k] ?? null);
    if (!base) return [];
    const steps: Reason[] = [stepOf(base)];
    if (base.value === null) return steps;
    const { id } = context.facts.periods[i]!;
    const left = afterSkip(method, id, base.value);
    if (left !== base.value) steps.push({ step: 'skipped', value: method.skip[id] ?? null });
    if (left === null) return steps;
    const added = minor(left + method.add);
    if (method.add !== 0) steps.push({ step: 'added', value: method.add });
    const exact = uplift(added, method.uplift);
    return [...steps, ...upliftStep(method.uplift, exact), ...roundingStep(made, exact)];
  },
};
