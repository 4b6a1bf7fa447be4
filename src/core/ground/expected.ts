import { divideRounded, sum, ZERO, type Minor } from '@/core/money';
import { yearsBefore, yearToDate, type PeriodIndex } from '@/core/calendar';
import type { AccountId, OutlookWay } from '@/core/model';
import type { Facts } from '@/core/plan';

/** So many months back months with actuals are looked for. */
const FARTHEST = 60;

/**
 * What an account is expected to come to in a month that has no actuals yet, where someone said that it is not as planned;
 * null where it is. Of the whole company.
 */
export function expectedIn(
  facts: Facts,
  account: AccountId,
  way: OutlookWay,
  period: PeriodIndex,
): Minor | null {
  const actual = (p: PeriodIndex): Minor => facts.actual(account, null, p) ?? ZERO;
  switch (way.kind) {
    case 'typed':
      return way.amounts[facts.calendar.period(period).id] ?? null;
    case 'runRate': {
      const last: Minor[] = [];
      for (let p = period - 1; p >= period - FARTHEST && last.length < way.months; p--)
        if (facts.isActual(p)) last.push(actual(p));
      return last.length === 0 ? null : divideRounded(sum(last), 1, last.length, 'halfAwayFromZero');
    }
    case 'lastYear': {
      const before = yearsBefore(facts.calendar, period);
      if (before === null || !facts.isActual(before)) return null;
      // Months of this year so far that last year has too: the two levels.
      let now = 0;
      let then = 0;
      const soFar = yearToDate(facts.calendar, period);
      for (let p = soFar.first; p < soFar.last; p++) {
        const q = yearsBefore(facts.calendar, p);
        if (q === null || !facts.isActual(p) || !facts.isActual(q)) continue;
        now += actual(p);
        then += actual(q);
      }
      if (then === 0 || !Number.isSafeInteger(now) || !Number.isSafeInteger(then)) return null;
      return divideRounded(actual(before), now, then, 'halfAwayFromZero');
    }
  }
}
