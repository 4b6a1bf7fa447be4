import {
  calendarFrom,
  toDayNumber,
  type CalendarSpec,
  type DayNumber,
  type FiscalCalendar,
} from '@/core/calendar';
import { ACTIVITY, BlockBuilder, CLOSING, OPENING, type Balances, type LedgerBlock } from '@/core/ledger';
import { isProfitAndLoss, type Account, type AccountKind } from '@/core/model';
import type { AccountChoice } from './match';

/** What a file says of one day: what each account stands at, debits positive, with the row that it came from. */
export type Trial = {
  readonly day: DayNumber;
  readonly cells: readonly { readonly place: number; readonly value: number; readonly row: number }[];
};

/** What the book has before the first trial balance of a file. */
export type Bases = {
  /** By the file's accounts: profit and loss of the fiscal year so far, balances otherwise; null where it has nothing. */
  readonly had: readonly (number | null)[];
  /** Results of the fiscal years before that nothing has closed yet; null where there are none. */
  readonly unclosed: readonly (number | null)[];
  /** Accounts of the book that the file does not list, but that stand at something: as a rule they are at nothing now. */
  readonly gone: readonly {
    readonly id: string;
    readonly kind: AccountKind;
    readonly had: number;
    readonly unclosed: number;
  }[];
};

const lastDayBefore = (calendar: FiscalCalendar, day: DayNumber): DayNumber => {
  const { year } = calendar.period(calendar.indexOfDay(day));
  return toDayNumber(calendar.period(calendar.firstOfYear(year)).start) - 1;
};

/** Reads the bases off the book's balances for the accounts that the draft was matched with. */
export function basesOf(
  baseline: DayNumber | null,
  choices: readonly AccountChoice[],
  balances: Balances,
  calendar: FiscalCalendar,
  accounts: readonly Account[],
): Bases | null {
  if (baseline === null || !balances.range) return null;
  const at = calendar.indexOfDay(baseline);
  const first = calendar.firstOfYear(calendar.period(at).year);
  const before = at - 1;
  if (balances.range.first > before) return null;
  const soFar = (id: string): number | null => {
    let total: number | null = null;
    for (let p = first; p <= before; p++) {
      const m = balances.movement(id, p);
      if (m !== null) total = (total ?? 0) + m;
    }
    return total;
  };
  const left = (id: string): number => balances.balance(id, first - 1, true);
  const listed = new Set(choices.flatMap((c) => c.existing ?? []));
  return {
    had: choices.map(({ existing, kind }) =>
      !existing ? null : isProfitAndLoss(kind) ? soFar(existing) : balances.balance(existing, before, true),
    ),
    unclosed: choices.map(({ existing, kind }) =>
      existing && isProfitAndLoss(kind) ? left(existing) || null : null,
    ),
    gone: accounts.flatMap(({ id, kind }) => {
      if (listed.has(id)) return [];
      const flow = isProfitAndLoss(kind);
      const had = flow ? (soFar(id) ?? 0) : balances.balance(id, before, true);
      const unclosed = flow ? left(id) : 0;
      return had === 0 && unclosed === 0 ? [] : [{ id, kind, had, unclosed }];
    }),
  };
}

/** The account of an entry that a block of trial balances makes: a place in the file's list, or beyond it one of `gone`. */
type Side = { readonly flow: boolean; readonly equity: boolean; readonly retained: boolean };

const RETAINED =
  /retained|accumulated|brought forward|carried forward|profit and loss|surplus|reserves?\b|result/i;

/**
 * The activity that cumulative trial balances tell of, debits positive: the difference to the trial balance before, within
 * the fiscal year for profit and loss, which begins each year at nothing; ever for the balance sheet, whose first balance
 * is its opening unless the book knows what came before.
 *
 * Over a year's end the old year's result moves into equity. That is no activity: it is told as closing entries on the old
 * year's last day, of every account of profit and loss and of the equity account that took it in. So at every month's end
 * debits meet credits, as they do in the file (that closing entries empty profit and loss into equity is common practice of
 * double-entry bookkeeping).
 */
export function activityOf(
  trials: readonly Trial[],
  choices: readonly AccountChoice[],
  names: readonly string[],
  spec: CalendarSpec,
  bases: Bases | null,
): LedgerBlock {
  const calendar = calendarFrom(spec);
  const sides = choices.map(({ kind }, i): Side => ({
    flow: isProfitAndLoss(kind),
    equity: kind === 'equity',
    retained: kind === 'equity' && RETAINED.test(names[i] ?? ''),
  }));
  // A file that does not balance may list a part of the accounts only: of what it leaves out nothing is known.
  const whole = (trials[0]?.cells ?? []).reduce((t, c) => t + c.value, 0) === 0;
  const gone = whole ? (bases?.gone ?? []) : [];
  const all: Side[] = [
    ...sides,
    ...gone.map(({ kind }) => ({
      flow: isProfitAndLoss(kind),
      equity: kind === 'equity',
      retained: kind === 'equity',
    })),
  ];
  const places = [...choices.map((_, i) => String(i)), ...gone.map((g) => g.id)];
  const builder = new BlockBuilder(trials.length * Math.max(1, all.length));
  const yearOf = (day: DayNumber) => calendar.period(calendar.indexOfDay(day)).year;
  const add = (day: DayNumber, place: number, value: number, row: number, mark: number): void =>
    builder.add(day, place, value, row, 0, 0, 0, mark);

  // A book that has a balance sheet had nothing of an account that it does not know; else all came before.
  const knows =
    gone.some((g) => !isProfitAndLoss(g.kind)) ||
    (bases?.had ?? []).some((v, i) => v !== null && !sides[i]!.flow);

  let before: { readonly day: DayNumber | null; readonly at: ReadonlyMap<number, number> } = bases
    ? {
        day: null,
        at: new Map([
          ...bases.had.flatMap((v, i) => (v === null ? [] : [[i, v] as const])),
          ...gone.map((g, i) => [sides.length + i, g.had] as const),
        ]),
      }
    : { day: null, at: new Map() };

  trials.forEach(({ day, cells }, t) => {
    const rows = new Map(cells.map((c) => [c.place, c]));
    const sameYear = t === 0 || yearOf(before.day!) === yearOf(day);
    const value = (place: number) => rows.get(place)?.value ?? 0;
    const row = (place: number) => rows.get(place)?.row ?? cells[0]?.row ?? 1;
    // What an account of profit and loss had in years before this one, and nothing has closed.
    const left = (place: number): number => {
      if (!all[place]!.flow) return 0;
      if (t === 0)
        return place < sides.length
          ? (bases?.unclosed[place] ?? 0)
          : (gone[place - sides.length]?.unclosed ?? 0);
      return sameYear ? 0 : (before.at.get(place) ?? 0);
    };
    const moved = new Map<number, number>();
    all.forEach(({ flow }, place) => {
      const was = before.at.get(place);
      if (!rows.has(place) && was === undefined) return;
      const base = flow && !sameYear ? 0 : (was ?? 0);
      moved.set(place, value(place) - base);
    });
    const taker = closedInto(all, moved, left);
    if (taker) {
      const on = lastDayBefore(calendar, day);
      all.forEach((_, place) => {
        const amount = left(place);
        if (amount !== 0) add(on, place, -amount, row(place), CLOSING);
      });
      add(on, taker.place, taker.amount, row(taker.place), CLOSING);
      moved.set(taker.place, moved.get(taker.place)! - taker.amount);
    }
    // All of profit and loss at nothing on a day of the same year, where it was not: the books were closed on that day.
    const closed =
      sameYear &&
      all.some((s, p) => s.flow && (before.at.get(p) ?? 0) !== 0) &&
      all.every((s, p) => !s.flow || value(p) === 0);
    for (const [place, amount] of moved) {
      const known = t > 0 || knows || before.at.has(place);
      if (amount === 0 && known && !rows.has(place)) continue;
      const { flow } = all[place]!;
      add(day, place, amount, row(place), closed && flow ? CLOSING : flow || known ? ACTIVITY : OPENING);
    }
    before = { day, at: new Map(cells.map((c) => [c.place, c.value])) };
  });
  return builder.build('draft', places);
}

/**
 * The equity account that took in the results of years before, and how much: the one that moved by just that, else the one
 * whose name says so, else the one that moved the most the same way. Null where there is nothing to close, or no equity
 * account moved.
 */
function closedInto(
  sides: readonly Side[],
  moved: ReadonlyMap<number, number>,
  left: (place: number) => number,
): { readonly place: number; readonly amount: number } | null {
  const amount = sides.reduce((t, _, place) => t + left(place), 0);
  if (amount === 0) return null;
  const equity = sides.flatMap((s, place) => (s.equity && moved.get(place) ? [place] : []));
  const way = equity.filter((p) => Math.sign(moved.get(p)!) === Math.sign(amount));
  const place =
    equity.find((p) => moved.get(p) === amount) ??
    equity.find((p) => sides[p]!.retained) ??
    way.sort((a, b) => Math.abs(moved.get(b)!) - Math.abs(moved.get(a)!))[0];
  return place === undefined ? null : { place, amount };
}
