import { civilOf, toDayNumber, type DayNumber } from '@/core/calendar';
import type { TermsOf } from '@/core/model';
import { monthDay, WHAT } from '@/core/schedule';

import { swap, swapTaxed, type TermsRuleOf } from '../rule';

/** Paid (or received) in lumps for the months up to the next lump; the line takes its part each month. */
export const inAdvance: TermsRuleOf<'inAdvance'> = {
  post(rule, c) {
    const { roles } = c;
    c.money.forEach((money, m) => {
      swap(c, c.ends[m]!, roles.advance, roles.line, money, m, WHAT.accrual);
    });
    for (const { day, from, to, beyond } of lumps(rule, c.starts, c.ends)) {
      // After the plan's end its last month repeats.
      const sum = (all: readonly number[]) =>
        all.slice(from, to).reduce((a, b) => a + b, 0) + beyond * all.at(-1)!;
      const paid = c.days.moved(day, rule.moved);
      const [money, tax] = [sum(c.money), sum(c.tax)];
      swapTaxed(c, paid, roles.bank, roles.advance, money, tax, from, WHAT.advance, day);
      c.owe(paid, tax);
    }
  },
};

type Lump = {
  readonly day: DayNumber;
  readonly from: number;
  readonly to: number;
  /** Months after the plan's end that it pays for. */
  readonly beyond: number;
};

/** The lumps that fall into the plan, each for the periods from its own up to before the next lump's. */
export function lumps(
  { first, every }: Pick<TermsOf<'inAdvance'>, 'first' | 'every'>,
  starts: Int32Array,
  ends: Int32Array,
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
  const placeOf = (day: DayNumber) => ends.findIndex((e) => day <= e);
  return days.map((day, i) => {
    const next = days[i + 1];
    const [from, to] = [placeOf(day), next === undefined ? starts.length : placeOf(next)];
    return { day, from, to, beyond: next === undefined ? Math.max(0, every - (to - from)) : 0 };
  });
}
