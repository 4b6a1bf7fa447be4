import { indexOfId, toDayNumber, type PeriodIndex } from '@/core/calendar';
import type { RowOf, ScheduleKind, ScheduleRow, SegmentId } from '@/core/model';
import { evenPart } from '@/core/money';
import { assetAt } from './asset';
import { taxedPeriods } from './incomeTax';
import { loanTable, principalAt } from './loanTable';
import { splitByPercents } from './parts';
import type { RowGround } from './rule';
import { staffCosts } from './staff';
import { makeRow } from './table';

/** What a line of a row's months tells. */
export type RowLineKey =
  | 'pay'
  | 'oncost'
  | 'once'
  | 'cost'
  | 'drawn'
  | 'interest'
  | 'principal'
  | 'owed'
  | 'bought'
  | 'writtenOff'
  | 'gain'
  | 'book'
  | 'part'
  | 'left'
  | 'profit'
  | 'losses'
  | 'tax'
  | 'owners';

/** A row's months, line by line, natural amounts; `stands` where an amount is what it stands at, not what it comes to. */
export type RowLine = {
  readonly key: RowLineKey;
  /** What an on-cost is called. */
  readonly name: string;
  readonly amounts: readonly number[];
  readonly stands: boolean;
};

const line = (key: RowLineKey, amounts: readonly number[], stands = false, name = ''): RowLine => ({
  key,
  name,
  amounts,
  stands,
});

const LINES: { readonly [K in ScheduleKind]: (row: RowOf<K>, ground: RowGround) => readonly RowLine[] } = {
  staff(row, ground) {
    const { costs } = staffCosts(row, ground);
    const pay = costs.map((c) => c.gross);
    const oncosts = row.oncosts.map((o, k) =>
      line(
        'oncost',
        costs.map((c) => c.oncosts[k]!),
        false,
        o.name,
      ),
    );
    const hired =
      row.from === null ? -1 : ground.calendar.indexOfDay(toDayNumber(row.from)) - ground.range.first;
    const all = row.once.reduce((t, o) => t + o.amount, 0);
    const once = pay.map((_, i) => (i === hired ? all : 0));
    return [
      line('pay', pay),
      ...oncosts,
      ...(all > 0 ? [line('once', once)] : []),
      line(
        'cost',
        pay.map((p, i) => p + oncosts.reduce((t, o) => t + o.amounts[i]!, 0) + once[i]!),
      ),
    ];
  },
  loan(row, ground) {
    const { calendar } = ground;
    const table = loanTable(row, calendar);
    const of = periods(ground);
    const begins = calendar.indexOfDay(toDayNumber(row.begins.day));
    const paid = (period: PeriodIndex, what: 'interest' | 'principal') =>
      table.payments.reduce((t, p) => (calendar.indexOfDay(p.day) === period ? t + p[what] : t), 0);
    const accrued = (period: PeriodIndex) =>
      table.payments
        .flatMap((p) => p.accrued)
        .reduce((t, a) => (calendar.indexOfDay(a.day) === period ? t + a.amount : t), 0);
    return [
      ...(row.begins.of === 'drawn'
        ? [
            line(
              'drawn',
              of.map((p) => (p === begins ? row.begins.amount : 0)),
            ),
          ]
        : []),
      line(
        'interest',
        of.map((p) => (row.accrued === null ? paid(p, 'interest') : accrued(p))),
      ),
      line(
        'principal',
        of.map((p) => paid(p, 'principal')),
      ),
      line(
        'owed',
        of.map((p) => principalAt(row, table, toDayNumber(calendar.period(p).end))),
        true,
      ),
    ];
  },
  asset(row, ground) {
    const of = periods(ground);
    const bought = ground.calendar.indexOfDay(toDayNumber(row.bought));
    const { postings } = makeRow(row, ground);
    const moved = (account: string | null, sign: 1 | -1) =>
      of.map((p) =>
        postings.reduce(
          (t, x) =>
            x.account === account && ground.calendar.indexOfDay(x.of) === p ? t + sign * x.amount : t,
          0,
        ),
      );
    return [
      line(
        'bought',
        of.map((p) => (p === bought ? row.cost : 0)),
      ),
      line('writtenOff', moved(row.expense, 1)),
      ...(row.sold?.gain ? [line('gain', moved(row.sold.gain, -1))] : []),
      line(
        'book',
        of.map((p) => assetAt(row, ground.calendar, p).book),
        true,
      ),
    ];
  },
  release(row, ground) {
    const first = indexOfId(ground.calendar, row.from);
    const part = (p: PeriodIndex) =>
      first !== null && p >= first && p < first + row.months
        ? evenPart(row.amount, row.months, p - first)
        : 0;
    const of = periods(ground);
    const left = (p: PeriodIndex) => {
      let sum: number = row.amount;
      for (let q = first ?? p; q <= p && q < (first ?? p) + row.months; q++) sum -= part(q);
      return sum;
    };
    return [line('part', of.map(part)), line('left', of.map(left), true)];
  },
  incomeTax(row, ground) {
    const made = taxedPeriods(row, ground);
    return [
      line(
        'profit',
        made.map((t) => t.profit),
        true,
      ),
      line(
        'losses',
        made.map((t) => t.losses),
        true,
      ),
      line(
        'tax',
        made.map((t) => t.amount),
      ),
    ];
  },
  equity(row, ground) {
    const { postings } = makeRow(row, ground);
    return [
      line(
        'owners',
        periods(ground).map((p) =>
          postings.reduce(
            (t, x) =>
              x.account === row.account && ground.calendar.indexOfDay(x.day) === p ? t - x.amount : t,
            0,
          ),
        ),
      ),
    ];
  },
};

const periods = ({ range }: RowGround): PeriodIndex[] =>
  Array.from({ length: range.last - range.first + 1 }, (_, i) => range.first + i);

/** A row's months, line by line; the last is what the row comes to. */
export const monthsOfRow = (row: ScheduleRow, ground: RowGround): readonly RowLine[] =>
  (LINES[row.kind] as (row: ScheduleRow, ground: RowGround) => readonly RowLine[])(row, ground);

/** Which line of a row's months says what it costs: what is added up over rows. */
export const COST_LINE: Record<ScheduleKind, RowLineKey> = {
  staff: 'cost',
  loan: 'interest',
  asset: 'writtenOff',
  release: 'part',
  incomeTax: 'tax',
  equity: 'owners',
};

/** A row's months by segment, largest remainder month by month. */
export function monthsBySegment(
  row: ScheduleRow,
  amounts: readonly number[],
): ReadonlyMap<SegmentId, readonly number[]> {
  if (row.kind !== 'staff') return new Map([[row.kind === 'equity' ? null : row.segment, amounts]]);
  const parts = amounts.map(
    (a) =>
      splitByPercents(
        a,
        row.split.map((s) => s.percent),
      ).parts,
  );
  const out = new Map<SegmentId, number[]>();
  row.split.forEach(({ segment }, k) => {
    const there = out.get(segment);
    out.set(
      segment,
      parts.map((p, i) => p[k]! + (there?.[i] ?? 0)),
    );
  });
  return out;
}
