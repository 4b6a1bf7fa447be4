import { civilOf, toDayNumber, type DayNumber } from '@/core/calendar';
import type { TermsOf } from '@/core/model';
import { monthDay, WHAT } from '@/core/schedule';

import { swap, swapTaxed, type TermsRuleOf } from '../rule';

/**
 * Paid (or received) in lumps for the months up to the next lump; the line takes its part each month. A lump falls in the
 * months that the line's budget plans, and is for months after them too: those that nobody plans are as a year earlier.
 */
export const inAdvance: TermsRuleOf<'inAdvance'> = {
  post(rule, c) {
    const { roles, first } = c;
    for (let m = c.from; m < c.until; m++)
      swap(c, c.ends[m]!, roles.advance, roles.line, c.money[m]!, m, WHAT.accrual);
    if (c.until <= first) return;
    // The lump of a closed month may be paid after it, one of a month ahead before the start.
    const begin = rule.moved === 'stays' ? first : Math.max(0, first - 1);
    const [starts, ends] = [c.starts.subarray(begin), c.ends.subarray(begin)];
    for (const { day, from, to, beyond } of lumps(rule, starts, ends, c.inYear(first))) {
      const paid = c.days.moved(day, rule.moved);
      const place = begin + from;
      if (!c.plans(place) || paid <= c.start) continue;
      let money = 0;
      for (let m = place; m < begin + to + beyond; m++) money += c.ahead(m);
      const tax = c.taxOf(money);
      const month = Math.max(first, place);
      swapTaxed(c, paid, roles.bank, roles.advance, money, tax, month, WHAT.advance, day);
      c.owe(paid, tax, month);
    }
  },
};

type Lump = {
  readonly day: DayNumber;
  readonly from: number;
  readonly to: number;
  /** Periods after the plan's end that it pays for. */
  readonly beyond: number;
};

/** The lumps that fall into the plan, each for the periods from its own up to before the next lump's. */
export function lumps(
  { first, every }: Pick<TermsOf<'inAdvance'>, 'first' | 'every'>,
  starts: Int32Array,
  ends: Int32Array,
  inYear: number,
): Lump[] {
  if (starts.length === 0) return [];
  const { year, month, date } = civilOf(toDayNumber(first));
  const begin = starts[0]!;
  const end = ends.at(-1)!;
  const back = civilOf(begin);
  // Lumps recur both ways from the one that is said.
  const behind = Math.ceil(((year - back.year) * 12 + month - back.month) / every) + 1;
  const days: DayNumber[] = [];
  for (let n = -behind; ; n++) {
    const day = monthDay(year, month + n * every, date);
    if (day > end) break;
    if (day >= begin) days.push(day);
  }
  const periods = Math.round((every * inYear) / 12);
  const placeOf = (day: DayNumber) => ends.findIndex((e) => day <= e);
  return days.map((day, i) => {
    const next = days[i + 1];
    const [from, to] = [placeOf(day), next === undefined ? starts.length : placeOf(next)];
    return { day, from, to, beyond: next === undefined ? Math.max(0, periods - (to - from)) : 0 };
  });
}
