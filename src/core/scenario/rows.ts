import { assertNever } from '@/core/assertNever';
import {
  fromDayNumber,
  indexOfId,
  partsOf,
  toDayNumber,
  type Day,
  type FiscalCalendar,
  type PeriodIndex,
} from '@/core/calendar';
import type { Budget, RowField, RowOf, ScheduleRow, SegmentId } from '@/core/model';
import { minor, roundRatio, multiplyRatio, addRatio, ratio, type Minor } from '@/core/money';
import { monthDay } from '@/core/schedule';
import { isOn, type Assumed, type Assumption, type AssumptionOf } from './assumed';
import { percentOfSize, ratioOfSize, sizeOfPercent } from './sizes';
import { periodsOfWhen } from './when';

/* What assumptions make of the rows of a budget's schedules. */

/** Where a case looks: the calendar, and the last closed period. */
export type CaseGround = {
  readonly calendar: FiscalCalendar;
  readonly closedThrough: PeriodIndex | null;
};

type RowChange = AssumptionOf<'rowMoved' | 'rowAdded' | 'rowGone' | 'rowField' | 'pay' | 'oncosts' | 'rate'>;
const isRowChange = (a: Assumption): a is RowChange =>
  isOn(a, 'rowMoved', 'rowAdded', 'rowGone', 'rowField', 'pay', 'oncosts', 'rate');

/** A budget's rows as a case assumes them; the same list where it changes none. */
export function rowsIn(
  budget: Pick<Budget, 'schedules' | 'axis' | 'segments' | 'first' | 'length'>,
  assumed: Assumed,
  ground: CaseGround,
): readonly ScheduleRow[] {
  let rows: readonly ScheduleRow[] = budget.schedules;
  for (const a of assumed) if (isRowChange(a)) rows = after(rows, a, budget, ground);
  return rows;
}

function after(
  rows: readonly ScheduleRow[],
  { adjustment, size }: RowChange,
  budget: Pick<Budget, 'axis' | 'segments' | 'first' | 'length'>,
  ground: CaseGround,
): readonly ScheduleRow[] {
  const { what, when, id } = adjustment;
  const { calendar } = ground;
  const each = (change: (row: ScheduleRow) => ScheduleRow): readonly ScheduleRow[] => {
    const next = rows.map(change);
    return next.every((r, i) => r === rows[i]) ? rows : next;
  };
  const one = (row: string, change: (row: ScheduleRow) => ScheduleRow) =>
    each((r) => (r.id === row ? change(r) : r));
  switch (what.on) {
    case 'rowMoved':
      return one(what.row, (r) => movedRow(r, size, calendar));
    case 'rowGone':
      return rows.some((r) => r.id === what.row) ? rows.filter((r) => r.id !== what.row) : rows;
    case 'rowField':
      return one(what.row, (r) => withField(r, what.field, what.by, size));
    case 'rowAdded': {
      const row = addedRow(what.row, what.by === 'day' ? size : null, calendar);
      if (isOver(row, ground)) return rows;
      return [...rows, fitted({ ...row, id: addedId(id) }, budget)];
    }
    case 'pay': {
      const days = turnsOf(when, budget, ground);
      const only = new Set(what.accounts);
      return each((r) =>
        r.kind !== 'staff' || (only.size > 0 && !only.has(r.account))
          ? r
          : {
              ...r,
              raises: [
                ...r.raises,
                ...days
                  .filter((d) => r.until === null || d <= r.until)
                  .map((from) => ({
                    from,
                    change: { of: 'percent' as const, percent: percentOfSize(size) },
                  })),
              ],
            },
      );
    }
    case 'oncosts': {
      const [from, until] = spanOf(when, calendar);
      return each((r) =>
        r.kind === 'staff'
          ? {
              ...r,
              oncosts: [
                ...r.oncosts,
                {
                  name: adjustment.name,
                  percent: percentOfSize(size),
                  cap: null,
                  year: 'fiscal',
                  from,
                  until,
                },
              ],
            }
          : r,
      );
    }
    case 'rate': {
      const [from, until] = spanOf(when, calendar);
      const value = (was: string) =>
        percentOfSize(Math.max(0, what.by === 'value' ? size : sizeOfPercent(was) + size));
      if (what.of === 'incomeTax')
        return each((r) =>
          r.kind === 'incomeTax'
            ? { ...r, rates: dated(r.rates ?? [], r.rate, value, when.from, periodAfter(when, calendar)) }
            : r,
        );
      if (what.of === 'interest')
        return each((r) =>
          r.kind === 'loan'
            ? { ...r, rates: dated(r.rates, r.rate, value, from, until && dayAfter(until)) }
            : r,
        );
      return rows;
    }
    default:
      return assertNever(what);
  }
}

/** A row that an adjustment adds goes under a name that no row of the book has. */
export const addedId = (adjustment: string): string => `added-${adjustment}`;

/** Rates that hold from a day or period on, with another between two of them: what was said for later days stays said. */
function dated<From extends string>(
  rates: readonly { readonly from: From; readonly rate: RowOf<'loan'>['rate'] }[],
  first: RowOf<'loan'>['rate'],
  value: (was: string) => RowOf<'loan'>['rate'],
  from: From,
  end: From | null,
): { from: From; rate: RowOf<'loan'>['rate'] }[] {
  const sorted = [...rates].sort((a, b) => (a.from < b.from ? -1 : a.from > b.from ? 1 : 0));
  const at = (when: From) => sorted.findLast((r) => r.from <= when)?.rate ?? first;
  return [
    ...sorted.filter((r) => r.from < from),
    { from, rate: value(at(from)) },
    ...sorted
      .filter((r) => r.from > from && (end === null || r.from < end))
      .map((r) => ({ ...r, rate: value(r.rate) })),
    ...(end === null ? [] : [{ from: end, rate: at(end) }, ...sorted.filter((r) => r.from > end)]),
  ];
}

type WhenOf = RowChange['adjustment']['when'];

/** The first day on which it holds, and the last; null for no end. */
function spanOf({ from, until }: WhenOf, calendar: FiscalCalendar): readonly [Day, Day | null] {
  const [first, last] = [from, until].map((p) => (p === null ? null : indexOfId(calendar, p)));
  return [
    first == null ? fromDayNumber(0) : calendar.period(first).start,
    last == null ? null : calendar.period(last).end,
  ];
}

const dayAfter = (day: Day): Day => fromDayNumber(toDayNumber(day) + 1);

/** The period after its last one. */
function periodAfter({ until }: WhenOf, calendar: FiscalCalendar): WhenOf['from'] | null {
  const last = until === null ? null : indexOfId(calendar, until);
  return last === null ? null : calendar.period(last + 1).id;
}

/** First days of the periods in which it comes, once where it holds from one on. */
function turnsOf(
  when: WhenOf,
  { first, length }: Pick<Budget, 'first' | 'length'>,
  { calendar }: CaseGround,
): Day[] {
  const start = indexOfId(calendar, when.from);
  const begins = indexOfId(calendar, first);
  if (start === null || begins === null) return [];
  if (when.every === 1 && when.times === null) return [calendar.period(start).start];
  return periodsOfWhen(calendar, when, { first: start, last: begins + length - 1 }).map(
    (p) => calendar.period(p).start,
  );
}

/** The same date so many months later; the month's last where it has none such. */
export const plusMonths = (day: Day, months: number): Day => {
  const { year, month, date } = partsOf(day);
  return fromDayNumber(monthDay(year, month + months, date));
};

/** A row so many months later: all its days. What stands in the ledger is of the day that it is of. */
export function movedRow(row: ScheduleRow, months: number, calendar: FiscalCalendar): ScheduleRow {
  const on = <T extends Day | null>(day: T): T => (day === null ? day : (plusMonths(day, months) as T));
  switch (row.kind) {
    case 'staff':
      return {
        ...row,
        from: on(row.from),
        until: on(row.until),
        raises: row.raises.map((r) => ({ ...r, from: on(r.from) })),
      };
    case 'loan':
      return {
        ...row,
        begins: row.begins.of === 'drawn' ? { ...row.begins, day: on(row.begins.day) } : row.begins,
        rates: row.rates.map((r) => ({ ...r, from: on(r.from) })),
        repay:
          row.repay.of === 'typed'
            ? { ...row.repay, amounts: row.repay.amounts.map((a) => ({ ...a, day: on(a.day) })) }
            : row.repay,
        first: on(row.first),
        extra: row.extra.map((a) => ({ ...a, day: on(a.day) })),
      };
    case 'asset':
      return {
        ...row,
        bought: row.standing === null ? on(row.bought) : row.bought,
        sold: row.sold && { ...row.sold, day: on(row.sold.day) },
      };
    case 'release': {
      const at = indexOfId(calendar, row.from);
      return at === null ? row : { ...row, from: calendar.period(at + months).id };
    }
    case 'incomeTax':
      return row;
    case 'equity':
      return {
        ...row,
        first: on(row.first),
        repeat: row.repeat && { ...row.repeat, until: on(row.repeat.until) },
      };
    default:
      return assertNever(row);
  }
}

/** The day with which a row begins; null where it has none. */
export function firstDay(row: ScheduleRow, calendar: FiscalCalendar): Day | null {
  switch (row.kind) {
    case 'staff':
      return row.from;
    case 'loan':
      return row.begins.day;
    case 'asset':
      return row.bought;
    case 'release': {
      const at = indexOfId(calendar, row.from);
      return at === null ? null : calendar.period(at).start;
    }
    case 'incomeTax':
      return null;
    case 'equity':
      return row.first;
    default:
      return assertNever(row);
  }
}

/** A row that begins on a day: all its days so many months later, the first on the day itself. */
function addedRow(row: ScheduleRow, day: number | null, calendar: FiscalCalendar): ScheduleRow {
  const begins = day === null ? null : firstDay(row, calendar);
  if (begins === null) return row;
  const first = fromDayNumber(day!);
  const [was, now] = [partsOf(begins), partsOf(first)];
  const moved = movedRow(row, (now.year - was.year) * 12 + now.month - was.month, calendar);
  switch (moved.kind) {
    case 'staff':
      return { ...moved, from: first };
    case 'loan':
      return { ...moved, begins: { ...moved.begins, day: first } };
    case 'asset':
      return { ...moved, bought: first };
    case 'equity':
      return { ...moved, first };
    case 'release':
    case 'incomeTax':
      return moved;
    default:
      return assertNever(moved);
  }
}

/**
 * Whether what a row begins with would have been in a closed month, which no case changes: a loan that was not drawn is not
 * repaid. Whoever works goes on working.
 */
export function isOver(row: ScheduleRow, { calendar, closedThrough }: CaseGround): boolean {
  if (closedThrough === null || (row.kind !== 'loan' && row.kind !== 'asset')) return false;
  const begins = firstDay(row, calendar);
  return begins !== null && begins <= calendar.period(closedThrough).end;
}

/** A row in a budget of other segments: what it says of segments that the budget has not is unassigned, or of its first. */
function fitted(row: ScheduleRow, { segments }: Pick<Budget, 'segments'>): ScheduleRow {
  const fit = (s: SegmentId): SegmentId =>
    segments.includes(s) ? s : segments.includes(null) ? null : (segments[0] ?? null);
  switch (row.kind) {
    case 'staff':
      return { ...row, split: row.split.map((s) => ({ ...s, segment: fit(s.segment) })) };
    case 'equity':
      return row;
    default:
      return { ...row, segment: fit(row.segment) };
  }
}

/** The fields of each kind of row that may be others, with the value that each has as a size. */
export function fieldOf(row: ScheduleRow, field: RowField): number | null {
  const day = (d: Day | null) => (d === null ? null : toDayNumber(d));
  switch (row.kind) {
    case 'staff':
      return field === 'pay'
        ? row.pay.amount
        : field === 'count'
          ? row.count
          : field === 'from'
            ? day(row.from)
            : field === 'until'
              ? day(row.until)
              : null;
    case 'loan':
      return field === 'rate'
        ? sizeOfPercent(row.rate)
        : field === 'amount'
          ? row.begins.amount
          : field === 'payments'
            ? row.payments
            : null;
    case 'asset':
      return field === 'cost'
        ? row.cost
        : field === 'bought'
          ? day(row.bought)
          : field === 'price'
            ? (row.sold?.price ?? null)
            : null;
    case 'release':
    case 'equity':
      return field === 'amount' ? row.amount : null;
    case 'incomeTax':
      return field === 'rate' ? sizeOfPercent(row.rate) : null;
    default:
      return assertNever(row);
  }
}

/** A row with another value of a field, or so many percent more of it; the same row where it has no such field. */
function withField(row: ScheduleRow, field: RowField, by: 'value' | 'percent', size: number): ScheduleRow {
  const was = fieldOf(row, field);
  if (was === null && !(row.kind === 'staff' && (field === 'from' || field === 'until'))) return row;
  const next =
    by === 'value' ? size : roundRatio(multiplyRatio(ratio(was ?? 0), addRatio(ratio(1), ratioOfSize(size))));
  const amount: Minor = minor(Math.max(0, next));
  switch (row.kind) {
    case 'staff':
      if (field === 'pay') return { ...row, pay: { ...row.pay, amount } };
      if (field === 'count') return { ...row, count: amount };
      return { ...row, [field]: fromDayNumber(next) };
    case 'loan':
      if (field === 'rate') return { ...row, rate: percentOfSize(Math.max(0, next)) };
      if (field === 'payments') return { ...row, payments: Math.max(1, next) };
      return { ...row, begins: { ...row.begins, amount } };
    case 'asset':
      if (field === 'cost') return { ...row, cost: amount, residual: minor(Math.min(row.residual, amount)) };
      if (field === 'bought') return { ...row, bought: fromDayNumber(next) };
      return { ...row, sold: row.sold && { ...row.sold, price: amount } };
    case 'release':
    case 'equity':
      return { ...row, amount };
    case 'incomeTax':
      return { ...row, rate: percentOfSize(Math.max(0, next)) };
    default:
      return assertNever(row);
  }
}
