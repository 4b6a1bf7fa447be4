import {
  civilOf,
  fromDayNumber,
  toDayNumber,
  type Day,
  type Period,
  type PeriodIndex,
} from '@/core/calendar';
import type { Reckoned } from '@/core/ground';
import type { AccountId, Book, RowOf, ScheduleKind } from '@/core/model';
import { minor, percent } from '@/core/money';
import { monthDay, usualAccount, type Purpose } from '@/core/schedule';

/* A row of a schedule as one begins with. */

/** What a kind of row cannot be without, and what it uses where the book has it. */
export const NEEDS: Record<
  ScheduleKind,
  { readonly must: readonly Purpose[]; readonly may: readonly Purpose[] }
> = {
  staff: { must: ['wages'], may: ['oncosts', 'withheld'] },
  loan: { must: ['loan', 'interest'], may: ['accrued'] },
  asset: { must: ['asset', 'depreciation'], may: ['accumulated'] },
  release: { must: ['prepaid'], may: [] },
  incomeTax: { must: ['tax'], may: ['taxOwed'] },
  equity: { must: ['equity'], may: [] },
};

export type Accounts = Partial<Record<Purpose, AccountId | null>>;

/** The accounts that a kind of row likely uses. */
export const accountsOfKind = (book: Pick<Book, 'accounts'>, kind: ScheduleKind): Accounts =>
  Object.fromEntries(
    [...NEEDS[kind].must, ...NEEDS[kind].may].map((p) => [p, usualAccount(book.accounts, p)]),
  );

const NEW_NAMES: Record<ScheduleKind, string> = {
  staff: 'New position',
  loan: 'New loan',
  asset: 'New asset',
  release: 'Paid in advance',
  incomeTax: 'Income tax',
  equity: 'Paid in by owners',
};

/** The first day that a row of a budget may begin on: of the first month that is not closed. */
export function firstOpenDay(periods: readonly Period[], closed: PeriodIndex | null): Day {
  const open = periods.find((p) => closed === null || p.index > closed) ?? periods[0]!;
  return open.start;
}

/** A row as one begins with: what rows of its kind say already, else what is usual. */
export function newRow<K extends ScheduleKind>(
  kind: K,
  id: string,
  { budget, facts }: Pick<Reckoned, 'budget' | 'facts'>,
  accounts: Accounts,
): RowOf<K> {
  const start = firstOpenDay(facts.periods, facts.closedThrough);
  const open = facts.periods.find((p) => p.start === start)!;
  const segment = budget.segments[0] ?? null;
  const base = { id, name: NEW_NAMES[kind], note: '' };
  const like = budget.schedules.findLast((r): r is RowOf<K> => r.kind === kind);
  const must = (p: Purpose): AccountId => accounts[p]!;
  const may = (p: Purpose): AccountId | null => accounts[p] ?? null;
  switch (kind as ScheduleKind) {
    case 'staff': {
      const same = like as RowOf<'staff'> | undefined;
      const row: RowOf<'staff'> = {
        kind: 'staff',
        ...base,
        account: must('wages'),
        oncostAccount: may('oncosts'),
        through: may('withheld'),
        bank: null,
        count: 100,
        pay: { per: 'year', amount: minor(0) },
        from: start,
        until: null,
        raises: [],
        paydays: same?.paydays ?? { of: 'monthDays', days: [31] },
        moved: same?.moved ?? 'previous',
        oncosts: same?.oncosts ?? [
          { name: 'Employer’s part', percent: percent('8'), cap: null, year: 'fiscal' },
        ],
        withheld: same?.withheld ?? percent('20'),
        remitted: same?.remitted ?? { of: 'months', months: 1, day: 15 },
        once: [],
        split: [{ segment, percent: percent('100') }],
      };
      return row as RowOf<K>;
    }
    case 'loan': {
      const row: RowOf<'loan'> = {
        kind: 'loan',
        ...base,
        account: must('loan'),
        interest: must('interest'),
        accrued: may('accrued'),
        bank: null,
        segment,
        begins: { of: 'drawn', day: start, amount: minor(0) },
        rate: percent('6'),
        rates: [],
        repay: { of: 'level', payment: null },
        first: monthAfter(start),
        every: 1,
        payments: 60,
        grace: 0,
        days: '30/360',
        extra: [],
        afterExtra: 'shorter',
      };
      return row as RowOf<K>;
    }
    case 'asset': {
      const row: RowOf<'asset'> = {
        kind: 'asset',
        ...base,
        account: must('asset'),
        expense: must('depreciation'),
        accumulated: may('accumulated'),
        segment,
        bought: start,
        cost: minor(0),
        standing: null,
        residual: minor(0),
        way: { of: 'straight', months: 60 },
        paid: { due: { of: 'days', days: 0 }, through: null, bank: null },
        tax: null,
        sold: null,
      };
      return row as RowOf<K>;
    }
    case 'release': {
      const expense = facts.accounts.find(
        (a) => a.active && a.kind === 'expense' && /insur|lease|rent/i.test(a.name),
      );
      const row: RowOf<'release'> = {
        kind: 'release',
        ...base,
        account: (expense ?? facts.accounts.find((a) => a.kind === 'expense') ?? facts.accounts[0]!).id,
        against: must('prepaid'),
        segment,
        amount: minor(0),
        from: open.id,
        months: 12,
      };
      return row as RowOf<K>;
    }
    case 'incomeTax': {
      const row: RowOf<'incomeTax'> = {
        kind: 'incomeTax',
        ...base,
        account: must('tax'),
        payable: may('taxOwed'),
        bank: null,
        segment,
        rate: percent('21'),
        losses: minor(0),
        installments: [],
        due: { of: 'months', months: 4, day: 15 },
      };
      return row as RowOf<K>;
    }
    case 'equity': {
      const row: RowOf<'equity'> = {
        kind: 'equity',
        ...base,
        account: must('equity'),
        bank: null,
        what: 'paidIn',
        amount: minor(0),
        first: start,
        repeat: null,
      };
      return row as RowOf<K>;
    }
  }
}

/** The same date a month later; the month's last where it has none such. */
export function monthAfter(day: Day): Day {
  const { year, month, date } = civilOf(toDayNumber(day));
  return fromDayNumber(monthDay(year, month + 1, date));
}
