import { minor, percent, unitOf, type Minor } from '@/core/money';
import { monthCalendar, toDayNumber, yearRange, day, type PeriodId } from '@/core/calendar';
import type { GuessContext } from '@/core/intake';
import { balancesOf, BlockBuilder, type LedgerBlock } from '@/core/ledger';
import {
  naturalSign,
  newAccount,
  newBook,
  type Account,
  type AccountKind,
  type Book,
  type Budget,
  type Line,
  type Method,
  type Source,
} from '@/core/model';
import { draftBudget, factsFor } from '@/core/plan';

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

export const calendar = monthCalendar(1);
export const months = (year: number) => yearRange(calendar, year);
export const periodIds = (year: number): PeriodId[] =>
  Array.from({ length: 12 }, (_, i) => calendar.period(calendar.firstOfYear(year) + i).id);

/** Last year's natural amounts by account, in 2025, for a budget of 2026. */
export function factsWith(
  accounts: readonly Account[],
  lastYear: Readonly<Record<string, readonly (number | null)[]>>,
) {
  const entries = Object.entries(lastYear).flatMap(([id, values]) =>
    values.flatMap((v, i) =>
      v === null ? [] : [[`2025-${String(i + 1).padStart(2, '0')}-15`, id, v] as const],
    ),
  );
  const balances = balancesOf([blockOf(accounts, entries)], calendar);
  const first = calendar.firstOfYear(2026);
  const periods = Array.from({ length: 12 }, (_, i) => calendar.period(first + i));
  return factsFor(calendar, periods, accounts, balances, first - 1, unitOf('USD'));
}

export const line = (id: string, method: Method, overrides: Line['overrides'] = {}): Line => ({
  account: id,
  method,
  overrides,
  note: '',
});

export const budgetOf = (lines: readonly Line[], id = 'b1'): Budget =>
  draftBudget(id, 'Budget', periodIds(2026)[0]!, 12, Object.fromEntries(lines.map((l) => [l.account, l])));

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
