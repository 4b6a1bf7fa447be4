import {
  civilOf,
  dayNumberOf,
  daysInMonth,
  toDayNumber,
  type DayNumber,
  type Period,
  type PeriodIndex,
} from '@/core/calendar';
import type { RowOf } from '@/core/model';
import {
  divideRounded,
  evenPart,
  minor,
  multiplyRatio,
  percentOf,
  ratio,
  roundRatio,
  uplift,
} from '@/core/money';
import { occurrenceNumbers } from './occurrences';
import { splitByPercents } from './parts';
import { NEEDS_NOTHING, RowBook, type RowGround, type RowIssue, type RowRuleOf } from './rule';
import { accountFor } from './standIns';

/*
 * Pay of a position. A month's pay is the twelfth part of a year's (what is left over goes to the first months of the fiscal
 * year, a unit each); a month worked in part counts by its calendar days (common practice).
 */

type Staff = RowOf<'staff'>;

const NEVER_ENDS = 1e9;

/** First and last day of work. */
const worked = ({ from, until }: Staff): readonly [DayNumber, DayNumber] => [
  from === null ? -NEVER_ENDS : toDayNumber(from),
  until === null ? NEVER_ENDS : toDayNumber(until),
];

/** The rate that pay is reckoned by on a day: raises one after another, each rounded once. */
export function rateOn({ pay, raises }: Pick<Staff, 'pay' | 'raises'>, day: DayNumber): number {
  let rate: number = pay.amount;
  for (const { from, change } of [...raises].sort((a, b) => (a.from < b.from ? -1 : 1))) {
    if (toDayNumber(from) > day) break;
    rate = change.of === 'percent' ? uplift(minor(rate), change.percent) : Math.max(0, rate + change.amount);
  }
  return rate;
}

/** Spells of days of one rate between two days, both inside. */
function spells(
  row: Staff,
  from: DayNumber,
  to: DayNumber,
): { from: DayNumber; to: DayNumber; rate: number }[] {
  const [begins, ends] = worked(row);
  const [a, b] = [Math.max(from, begins), Math.min(to, ends)];
  if (a > b) return [];
  const turns = row.raises.map((r) => toDayNumber(r.from)).filter((d) => d > a && d <= b);
  const starts = [a, ...[...new Set(turns)].sort((x, y) => x - y)];
  return starts.map((start, i) => ({
    from: start,
    to: (starts[i + 1] ?? b + 1) - 1,
    rate: rateOn(row, start),
  }));
}

/** The calendar months that a period reaches into, with its first and last day in each. */
function* monthsOf(
  period: Period,
): Generator<{ year: number; month: number; from: DayNumber; to: DayNumber }> {
  const [first, last] = [toDayNumber(period.start), toDayNumber(period.end)];
  for (let from = first; from <= last;) {
    const { year, month } = civilOf(from);
    const to = Math.min(last, dayNumberOf(year, month, daysInMonth(year, month)));
    yield { year, month, from, to };
    from = to + 1;
  }
}

/** Gross pay of all its positions in a period, in minor units; null where a driver is missing. */
export function grossOf(row: Staff, period: Period, ground: RowGround): number | null {
  const { pay, count } = row;
  let sum = 0;
  switch (pay.per) {
    case 'year':
    case 'month': {
      const { calendar } = ground;
      const firstMonth = civilOf(toDayNumber(calendar.period(calendar.firstOfYear(period.year)).start)).month;
      for (const { year, month, from, to } of monthsOf(period)) {
        const length = daysInMonth(year, month);
        let days = 0;
        for (const s of spells(row, from, to)) {
          const monthly = pay.per === 'month' ? s.rate : evenPart(s.rate, 12, (month - firstMonth + 12) % 12);
          days += monthly * (s.to - s.from + 1);
        }
        sum += divideRounded(days, count, length * 100, 'halfAwayFromZero');
      }
      return sum;
    }
    case 'payday': {
      const [begins, ends] = worked(row);
      for (const day of occurrenceNumbers(period, row.paydays, ground.workWeek))
        if (day >= begins && day <= ends)
          sum += divideRounded(rateOn(row, day), count, 100, 'halfAwayFromZero');
      return sum;
    }
    case 'hour': {
      const said =
        pay.hours.of === 'month'
          ? ratio(pay.hours.hours, 100)
          : ground.driver(pay.hours.driver, period.index);
      if (said === undefined) return null;
      if (said === null) return 0;
      const [first, last] = [toDayNumber(period.start), toDayNumber(period.end)];
      for (const s of spells(row, first, last)) {
        const share = ratio((s.to - s.from + 1) * count, (last - first + 1) * 100);
        sum += roundRatio(multiplyRatio(multiplyRatio(ratio(s.rate), said), share));
      }
      return sum;
    }
  }
}

/** The first period of the year that a cap counts in. */
function capStart(
  year: Staff['oncosts'][number]['year'],
  period: Period,
  { calendar }: RowGround,
): PeriodIndex {
  if (year === 'fiscal') return calendar.firstOfYear(period.year);
  const { year: y, month } = civilOf(toDayNumber(period.start));
  return calendar.indexOfDay(dayNumberOf(month >= year ? y : y - 1, year, 1));
}

/** What a position costs in a period: pay, and each on-cost in the order in which they are said. */
export type StaffCost = {
  readonly period: PeriodIndex;
  readonly gross: number;
  readonly oncosts: readonly number[];
};

/** The cost of a row by period. A cap is of each full position, and counts from its year's start, also before the budget. */
export function staffCosts(
  row: Staff,
  ground: RowGround,
): { readonly costs: readonly StaffCost[]; readonly issue: RowIssue | null } {
  const { calendar, range } = ground;
  let issue: RowIssue | null = null;
  const known = new Map<PeriodIndex, number>();
  const gross = (p: PeriodIndex): number => {
    let sum = known.get(p);
    if (sum === undefined) {
      const made = grossOf(row, calendar.period(p), ground);
      if (made === null) issue = 'driverMissing';
      else if (!Number.isSafeInteger(made)) issue = 'tooLarge';
      known.set(p, (sum = Number.isSafeInteger(made) ? made! : 0));
    }
    return sum;
  };
  const caps = row.oncosts.map(({ cap }) =>
    cap === null ? null : divideRounded(cap, row.count, 100, 'halfAwayFromZero'),
  );
  const costs: StaffCost[] = [];
  for (let p = range.first; p <= range.last; p++) {
    const own = gross(p);
    const { start, end } = calendar.period(p);
    const oncosts = row.oncosts.map(({ percent, year, from, until }, k) => {
      if ((from && end < from) || (until && start > until)) return 0;
      const cap = caps[k]!;
      if (cap === null) return percentOf(minor(own), percent);
      let before = 0;
      for (let q = capStart(year, calendar.period(p), ground); q < p; q++) before += gross(q);
      // Of what has gathered, so that a year comes to the percentage of its cap, to the cent.
      const upTo = (sum: number) => percentOf(minor(Math.min(sum, cap)), percent);
      return upTo(before + own) - upTo(before);
    });
    costs.push({ period: p, gross: own, oncosts });
  }
  return { costs, issue };
}

/** The days on which a period's pay is paid: its paydays while she works, else the last of its days that she works. */
function paydaysOf(row: Staff, period: Period, { workWeek }: RowGround): readonly DayNumber[] {
  const [begins, ends] = worked(row);
  const days = occurrenceNumbers(period, row.paydays, workWeek).filter((d) => d >= begins && d <= ends);
  return days.length > 0
    ? days
    : [Math.min(toDayNumber(period.end), Math.max(ends, toDayNumber(period.start)))];
}

export const staff: RowRuleOf<'staff'> = {
  needs: ({ pay }) =>
    pay.per === 'hour' && pay.hours.of === 'driver'
      ? { drivers: [pay.hours.driver], profit: false }
      : NEEDS_NOTHING,
  make(row, ground) {
    const { calendar, days, range } = ground;
    const book = new RowBook();
    const { costs, issue } = staffCosts(row, ground);
    const bank = [row.bank ?? ground.bank, null] as const;
    const owed = [row.through ?? accountFor(ground.accounts, 'withheld'), null] as const;
    const percents = row.split.map((s) => s.percent);
    const spread = (day: DayNumber, account: string, amount: number) =>
      splitByPercents(amount, percents).parts.forEach((part, i) =>
        book.pair(day, [account, row.split[i]!.segment], owed, part, 'accrual'),
      );
    for (const { period, gross, oncosts } of costs) {
      const all = oncosts.reduce((t, c) => t + c, 0);
      if (gross === 0 && all === 0) continue;
      const paydays = paydaysOf(row, calendar.period(period), ground);
      paydays.forEach((day, i) => {
        const pay = evenPart(gross, paydays.length, i);
        const oncost = evenPart(all, paydays.length, i);
        const withheld = percentOf(minor(pay), row.withheld);
        const paid = days.moved(day, row.moved);
        const due = Math.max(paid, days.due(day, row.remitted, row.moved));
        spread(day, row.account, pay);
        spread(day, row.oncostAccount ?? row.account, oncost);
        book.pair(paid, owed, bank, pay - withheld, 'payment', day);
        book.pair(due, owed, bank, withheld + oncost, 'remittance', day);
      });
    }
    const [begins] = worked(row);
    const hired = row.from === null ? null : calendar.indexOfDay(begins);
    if (hired !== null && hired >= range.first && hired <= range.last)
      for (const { account, amount } of row.once)
        splitByPercents(amount, percents).parts.forEach((part, i) =>
          book.pair(begins, [account, row.split[i]!.segment], bank, part, 'payment'),
        );
    return { postings: book.postings, issue };
  },
};
