import { indexOfId, toDayNumber, type DayNumber, type PeriodIndex } from '@/core/calendar';
import type { AccountId, RowOf, ScheduleKind, ScheduleRow, SegmentId } from '@/core/model';
import { evenPart } from '@/core/money';
import { assetAt } from './asset';
import { taxedPeriods } from './incomeTax';
import { loanTable, principalAt } from './loanTable';
import { splitByPercents } from './parts';
import { leftInAdvance } from './release';
import type { RowGround, RowPosting } from './rule';
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
    const begins = { day: toDayNumber(row.begins.day), amount: row.begins.amount };
    const paid = (what: 'interest' | 'principal') =>
      table.payments.map((p) => ({ day: p.day, amount: p[what] }));
    return [
      ...(row.begins.of === 'drawn' ? [line('drawn', byPeriod([begins], ground))] : []),
      line(
        'interest',
        byPeriod(row.accrued === null ? paid('interest') : table.payments.flatMap((p) => p.accrued), ground),
      ),
      line('principal', byPeriod(paid('principal'), ground)),
      line(
        'owed',
        periods(ground).map((p) => principalAt(row, table, toDayNumber(calendar.period(p).end))),
        true,
      ),
    ];
  },
  asset(row, ground) {
    const { postings } = makeRow(row, ground);
    return [
      line('bought', byPeriod([{ day: toDayNumber(row.bought), amount: row.cost }], ground)),
      line('writtenOff', byPeriod(moved(postings, row.expense, 1), ground)),
      ...(row.sold?.gain ? [line('gain', byPeriod(moved(postings, row.sold.gain, -1), ground))] : []),
      line(
        'book',
        periods(ground).map((p) => assetAt(row, ground.calendar, p).book),
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
    return [
      line('part', of.map(part)),
      line(
        'left',
        of.map((p) => leftInAdvance(row, ground.calendar, p)),
        true,
      ),
    ];
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
    return [line('owners', byPeriod(moved(postings, row.account, -1), ground))];
  },
};

const periods = ({ range }: Pick<RowGround, 'range'>): PeriodIndex[] =>
  Array.from({ length: range.last - range.first + 1 }, (_, i) => range.first + i);

type OnDay = { readonly day: DayNumber; readonly amount: number };

/** What falls into each period of the range. */
function byPeriod(list: readonly OnDay[], { calendar, range }: RowGround): number[] {
  const out = periods({ range }).map(() => 0);
  for (const { day, amount } of list) {
    const at = calendar.indexOfDay(day) - range.first;
    if (at in out) out[at]! += amount;
  }
  return out;
}

/** What an account moves by the days of the events. */
const moved = (postings: readonly RowPosting[], account: AccountId, sign: 1 | -1): OnDay[] =>
  postings.flatMap((p) => (p.account === account ? [{ day: p.of, amount: sign * p.amount }] : []));

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
