import {
  addRatio,
  divideRounded,
  multiplyRatio,
  negateRatio,
  ratio,
  ratioOfPercent,
  roundRatio,
  roundTo,
  sumBlank,
  ZERO,
  type Minor,
  type Ratio,
} from '@/core/money';
import type { PeriodIndex } from '@/core/calendar';
import {
  lineKey,
  nameKey,
  sameName,
  type Account,
  type AccountId,
  type Driver,
  type Line,
  type SegmentId,
} from '@/core/model';
import { driverRatio } from '@/core/plan';
import { actualsOf } from './actuals';
import type { Ground } from './ground';
import { plannedAt } from './outlook';
import type { Reckoned } from './reckoned';

/**
 * A budget at the activity that there was: what lines would have come to by their own methods if the quantities had been
 * planned as they were counted. Beside it the mix: what of the change of activity comes from a shift among drivers of one
 * unit. (Flexible budget, sales-quantity and sales-mix variances: C. Horngren, S. Datar, M. Rajan, "Cost Accounting".)
 */
export type Flexible = {
  /** Natural amounts; as planned in months without actuals, and of lines that follow no activity. */
  readonly at: (account: AccountId, segment: SegmentId, period: PeriodIndex) => Minor | null;
  /** The part of flexible − planned that is mix; the rest of it is quantity. */
  readonly mix: (account: AccountId, segment: SegmentId, period: PeriodIndex) => Minor | null;
};

/** A quantity counted in a period, in whole numbers of 10^−decimals; null where nothing was counted. */
type Counted = (driver: string, decimals: number, period: PeriodIndex) => number | null;

/** What the book has counted, by the driver's name. */
export function countedOf({ book, calendar }: Ground): Counted {
  const byName = new Map(book.quantities.map((q) => [nameKey(q.name), q]));
  return (driver, decimals, period) => {
    const q = byName.get(nameKey(driver));
    const value = q?.values[calendar.period(period).id];
    if (value === undefined || value === null) return null;
    const more = decimals - q!.decimals;
    return more >= 0 ? value * 10 ** more : divideRounded(value, 1, 10 ** -more, 'halfAwayFromZero');
  };
}

/**
 * Whether a driver is the price of something and no quantity of it: it makes nothing of several months, or where nobody has
 * said how it goes over them, its unit is money.
 */
function isPrice({ book }: Ground, { name, unit }: Pick<Driver, 'name' | 'unit'>): boolean {
  const over = book.quantities.find((q) => sameName(q.name, name))?.over;
  return over === undefined
    ? /\p{Sc}/u.test(unit) || unit.split(/[^\p{L}]+/u).includes(book.currency)
    : over === 'none';
}

/** The flexible budget of a reckoned one. */
export function flexibleOf(ground: Ground, whole: Reckoned): Flexible {
  const { budget, facts, reckoning } = whole;
  const lines = new Map(reckoning.lines.lines.map((l) => [lineKey(l), l]));
  const accounts = new Map(ground.book.accounts.map((a) => [a.id, a]));
  const counted = countedOf(ground);
  const first = facts.periods[0]?.index ?? 0;
  const planned = (account: AccountId, segment: SegmentId, p: PeriodIndex) =>
    plannedAt(whole, account, segment, p).amount;
  const actual = (account: Account, segment: SegmentId, p: PeriodIndex): Minor | null =>
    actualsOf(ground, budget.axis, budget.axis === null ? 'all' : segment).shown(account, p);
  const driverOf = (id: string) => reckoning.drivers.get(id) ?? null;
  const typedOver = (line: Line, p: PeriodIndex): boolean =>
    Object.hasOwn(line.overrides, ground.calendar.period(p).id);

  /** A driver's line at what was counted; null where nothing of it was. */
  const byDrivers = (line: Line, p: PeriodIndex): Minor | null => {
    if (line.method.kind !== 'driver' || typedOver(line, p)) return null;
    let value: Ratio = ratio(facts.unit);
    let any = false;
    for (const id of line.method.factors) {
      const made = driverOf(id);
      if (!made) return null;
      // Another price than was planned is no other activity: it is in the rate.
      const now = isPrice(ground, made.driver) ? null : counted(made.driver.name, made.driver.decimals, p);
      const quantity = now ?? made.values[p - first] ?? null;
      if (quantity === null) return null;
      any ||= now !== null;
      value = multiplyRatio(value, driverRatio(made.driver, quantity));
    }
    if (!any) return null;
    const exact = roundRatio(value);
    return roundTo(exact, line.method.round === 0 ? 1 : line.method.round * facts.unit);
  };

  const at: Flexible['at'] = (account, segment, p) => {
    const plan = planned(account, segment, p);
    const line = lines.get(lineKey({ account, segment }));
    if (plan === null || !line || !facts.isActual(p) || typedOver(line, p)) return plan;
    if (line.method.kind === 'driver') return byDrivers(line, p) ?? plan;
    if (line.method.kind !== 'share') return plan;
    const { of, lag } = line.method;
    const q = p - lag;
    if (!facts.isActual(q)) return plan;
    const members = facts.members(of);
    const base = sumBlank(members.map((id) => planned(id, segment, q)));
    // What follows sales follows their activity, not their price, where the two can be told apart.
    const now = sumBlank(
      members.map((id) => {
        const own = lines.get(lineKey({ account: id, segment }));
        const account = accounts.get(id);
        return (own && byDrivers(own, q)) ?? (account ? actual(account, segment, q) : null);
      }),
    );
    const { percent, round } = line.method;
    if (percent === null) return base ? divideRounded(plan, now ?? ZERO, base, 'halfAwayFromZero') : plan;
    // Of the percentage itself: what was planned of it is rounded, and may be nothing where there was nothing to have a share of.
    const exact = roundRatio(multiplyRatio(ratioOfPercent(percent), ratio(now ?? ZERO)));
    return roundTo(exact, round === 0 ? 1 : round * facts.unit);
  };

  /** The driver of a line that was counted and has a unit, with its quantities. */
  const volumeOf = (line: Line, p: PeriodIndex) => {
    if (line.method.kind !== 'driver' || typedOver(line, p)) return null;
    for (const id of line.method.factors) {
      const made = driverOf(id);
      if (!made || made.driver.unit.trim() === '' || isPrice(ground, made.driver)) continue;
      const now = counted(made.driver.name, made.driver.decimals, p);
      const then = made.values[p - first] ?? null;
      if (now !== null && then !== null)
        return { unit: nameKey(made.driver.unit), decimals: made.driver.decimals, now, then };
    }
    return null;
  };

  const mix: Flexible['mix'] = (account, segment, p) => {
    const line = lines.get(lineKey({ account, segment }));
    const kind = accounts.get(account)?.kind;
    if (!line || !facts.isActual(p)) return null;
    const own = volumeOf(line, p);
    const plan = planned(account, segment, p);
    if (!own || plan === null || own.then === 0) return null;
    const alike = budget.lines.flatMap((l) => {
      const volume = l.segment === segment && accounts.get(l.account)?.kind === kind ? volumeOf(l, p) : null;
      return volume && volume.unit === own.unit && volume.decimals === own.decimals ? [volume] : [];
    });
    if (alike.length < 2) return null;
    const then = alike.reduce((t, v) => t + v.then, 0);
    const now = alike.reduce((t, v) => t + v.now, 0);
    if (then === 0) return null;
    // planned price × (counted − all that was counted × planned share of it)
    const shift = addRatio(ratio(own.now, own.then), negateRatio(ratio(now, then)));
    return roundRatio(multiplyRatio(ratio(plan), shift));
  };
  return { at, mix };
}
