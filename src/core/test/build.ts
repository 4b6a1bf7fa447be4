import { setAutoFreeze } from 'immer';
import { minor, percent, unitOf, type Minor } from '@/core/money';
import { monthCalendar, toDayNumber, yearRange, day, type PeriodId } from '@/core/calendar';
import type { GuessContext } from '@/core/intake';
import { balancesOf, BlockBuilder, type Balances, type LedgerBlock } from '@/core/ledger';
import {
  applyCommand,
  type Command,
  blankLine,
  naturalSign,
  newAccount,
  newBook,
  type Account,
  type AccountKind,
  type Axis,
  type Book,
  type Budget,
  type Driver,
  type Line,
  type Method,
  type MethodOf,
  type SegmentId,
  type Series,
  type Source,
} from '@/core/model';
import { asLastYear, draftBudget, factsFor, type FactsInput } from '@/core/plan';

// What the types forbid must fail in a test too.
setAutoFreeze(true);

/** Small books for tests: what a test is about is said in the test, the rest is here. */

export const account = (id: string, kind: AccountKind, name = id, code = ''): Account =>
  newAccount(id, code, name, kind);

/** A source of entries that ties. */
export const sourceOf = (change: Partial<Source> = {}): Source => ({
  id: 's1',
  fileName: 'x.csv',
  fingerprint: 'a'.repeat(64),
  sheet: null,
  takenAt: '2026-01-01T00:00:00Z',
  shape: 'entries',
  format: 'delimited',
  mapping: {},
  heads: '',
  cursor: null,
  untied: null,
  block: 'l1',
  rows: { read: 2, used: 2, leftOut: [] },
  entries: 2,
  openings: 0,
  closings: 0,
  controls: 0,
  debit: minor(100),
  credit: minor(100),
  firstDay: day('2025-01-01'),
  lastDay: day('2025-12-31'),
  ...change,
});

/** A book in dollars whose fiscal year begins in January, with these accounts. */
export const bookWith = (accounts: readonly Account[], change: Partial<Book> = {}): Book => ({
  ...newBook({ id: 'book', name: 'Test', currency: 'USD', locale: 'en-US', firstMonth: 1 }),
  accounts: [...accounts],
  nextId: 100,
  ...change,
});

/** A ledger block of [day, account, natural amount in cents]. */
export function blockOf(
  accounts: readonly Account[],
  entries: readonly (readonly [string, string, number])[],
  id = 'l1',
): LedgerBlock {
  const builder = new BlockBuilder(entries.length);
  entries.forEach(([d, a, amount], i) => {
    const place = accounts.findIndex((x) => x.id === a);
    builder.add(
      toDayNumber(day(d)),
      place,
      amount * naturalSign(accounts[place]!.kind),
      i + 2,
      builder.text(`party ${i % 3}`),
      builder.text(`r${i}`),
      builder.text(`memo ${i}`),
    );
  });
  return builder.build(
    id,
    accounts.map((a) => a.id),
  );
}

/** A book after commands that it takes. Throws the code of the first that it refuses. */
export const didAll = (before: Book, ...commands: Command[]): Book =>
  commands.reduce((b, command) => {
    const done = applyCommand(b, command);
    if (!done.ok) throw new Error(done.refusal.code);
    return done.book;
  }, before);

/** Why a book refuses a command; null where it does not. */
export const refusalOf = (book: Book, command: Command): string | null => {
  const done = applyCommand(book, command);
  return done.ok ? null : done.refusal.code;
};

/** The book's sites: North, to which these accounts are assigned, and what is unassigned. */
export const siteAxis = (byAccount: Axis['byAccount'] = {}): Axis => ({
  id: 'x',
  name: 'Site',
  columns: [],
  values: [{ id: 'n', name: 'North', from: [] }],
  byAccount,
});

export const calendar = monthCalendar(1);
export const months = (year: number) => yearRange(calendar, year);
export const periodIds = (year: number): PeriodId[] =>
  Array.from({ length: 12 }, (_, i) => calendar.period(calendar.firstOfYear(year) + i).id);

/** Last year's natural amounts by account, in 2025, for a budget of 2026. */
export function factsWith(
  accounts: readonly Account[],
  lastYear: Readonly<Record<string, readonly (number | null)[]>>,
  change: Partial<FactsInput> = {},
) {
  const entries = Object.entries(lastYear).flatMap(([id, values]) =>
    values.flatMap((v, i) =>
      v === null ? [] : [[`2025-${String(i + 1).padStart(2, '0')}-15`, id, v] as const],
    ),
  );
  return factsOver(accounts, balancesOf([blockOf(accounts, entries)], calendar), 12, change);
}

/** Facts for a budget of so many months from January 2026, over these balances. */
export function factsOver(
  accounts: readonly Account[],
  balances: Balances,
  length: number,
  change: Partial<FactsInput> = {},
) {
  const first = calendar.firstOfYear(2026);
  return factsFor({
    calendar,
    periods: Array.from({ length }, (_, i) => calendar.period(first + i)),
    accounts,
    bank: null,
    balances,
    ofSegment: () => balances,
    closedThrough: first - 1,
    unit: unitOf('USD'),
    weights: [],
    workWeek: { weekdays: [1, 2, 3, 4, 5], holidays: [] },
    others: new Map(),
    ...change,
  });
}

export const line = (
  id: string,
  method: Method,
  overrides: Line['overrides'] = {},
  segment: SegmentId = null,
): Line => ({ ...blankLine({ account: id, segment }), method, overrides });

/** Methods by what a test says of them; the rest is plain. */
export const lastYear = (change: Partial<MethodOf<'lastYear'>> = {}): MethodOf<'lastYear'> => ({
  ...(asLastYear() as MethodOf<'lastYear'>),
  ...change,
});
export const runRate = (change: Partial<MethodOf<'runRate'>> = {}): MethodOf<'runRate'> => ({
  kind: 'runRate',
  over: { of: 'all' },
  add: minor(0),
  uplift: percent('0'),
  round: 0,
  ...change,
});
export const phased = (
  annual: number | null,
  change: Partial<MethodOf<'phased'>> = {},
): MethodOf<'phased'> => ({
  kind: 'phased',
  amounts: annual === null ? null : yearly(annual),
  by: { by: 'even' },
  uplift: percent('0'),
  round: 0,
  ...change,
});
/** A driver in whole numbers of 10^−decimals. */
export const driver = (id: string, series: Series, decimals = 0, opening: number | null = null): Driver => ({
  id,
  name: id,
  unit: '',
  decimals,
  opening,
  series,
  note: '',
});
export const unphased = (...annual: number[]): MethodOf<'unphased'> => ({
  kind: 'unphased',
  amounts: yearly(...annual),
});
export const pattern = (
  annual: number | null,
  change: Partial<MethodOf<'pattern'>> = {},
): MethodOf<'pattern'> => ({
  kind: 'pattern',
  amounts: annual === null ? null : yearly(annual),
  like: null,
  years: [1],
  uplift: percent('0'),
  round: 0,
  ...change,
});
export const share = (
  of: string,
  of100: string,
  change: Partial<MethodOf<'share'>> = {},
): MethodOf<'share'> => ({
  kind: 'share',
  of: { of: 'account', account: of },
  percent: percent(of100),
  lag: 0,
  round: 0,
  ...change,
});
export const byMonth = (amounts: MethodOf<'byMonth'>['amounts'] = {}): MethodOf<'byMonth'> => ({
  kind: 'byMonth',
  amounts,
});
export const formula = (text: string): MethodOf<'formula'> => ({ kind: 'formula', formula: text, round: 0 });

/** Amounts of fiscal years. */
export const yearly = (...amounts: number[]) => ({ per: 'year' as const, amounts: amounts.map(minor) });

/** The lines as a plan without drivers. */
export const planOf = (...lines: Line[]) => ({ lines, drivers: [] });

/** Whose line it is, in a budget of the whole company. */
export const of = (account: string) => ({ account, segment: null });

export const budgetOf = (lines: readonly Line[], id = 'b1', change: Partial<Budget> = {}): Budget =>
  draftBudget({ id, name: 'Budget', first: periodIds(2026)[0]!, length: 12, lines: [...lines], ...change });

export const cents = (...values: number[]): Minor[] => values.map(minor);
export const pct = percent;

/** How a file of the year 2025 is guessed at in a US book. */
export const guessing: GuessContext = {
  numbers: { decimal: '.', group: ',' },
  dates: 'mdy',
  calendar: { kind: 'months', firstMonth: 1 },
  year: 2025,
  fileName: 'ledger.csv',
  kept: [],
};
