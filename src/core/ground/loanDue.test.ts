import { indexOfId, type Day } from '@/core/calendar';
import { minor, percent } from '@/core/money';
import type { CreditLine } from '@/core/model';
import { account, calendar, periodIds } from '@/core/test/build';
import { loanRow } from '@/core/test/schedule';
import { debtsOf, dueInAll, dueOf, type Debts } from '.';

const accounts = [account('loan', 'loan', 'Term loan'), account('od', 'loan', 'Bank overdraft')];
const balances = {
  balance: (id: string) => minor(id === 'loan' ? -1_200_000 : id === 'od' ? -30_000 : 0),
};
const line = (change: Partial<CreditLine> = {}): CreditLine => ({
  account: 'od',
  interest: null,
  limit: minor(50_000),
  rate: percent('8'),
  step: minor(1_000),
  ...change,
});
const debts = (change: Partial<Debts> = {}): Debts => ({
  rows: [
    loanRow({
      account: 'loan',
      begins: { of: 'stands', day: '2026-12-31' as Day, amount: minor(1_200_000) },
      first: '2027-01-31' as Day,
      payments: 24,
      repay: { of: 'principal' },
    }),
  ],
  creditLine: line(),
  calendar,
  accounts,
  ...change,
});
const december = indexOfId(calendar, periodIds(2026)[11]!)!;
const february = december + 2;

test('a loan’s next twelve payments and all that is drawn of a credit line are due within a year', () => {
  expect(dueOf(debts(), balances, 'loan', december)).toBe(600_000);
  expect(dueOf(debts(), balances, 'od', december)).toBe(30_000);
  expect(dueInAll(debts(), balances, december)).toBe(630_000);
  expect([...debtsOf(debts())]).toEqual(['loan', 'od']);
  expect([...debtsOf(debts({ creditLine: null }))]).toEqual(['loan']);
});

test('never more than it stands at, and nothing of what stands the other way', () => {
  const at = (amount: number) => ({ balance: () => minor(-amount) });
  expect(dueOf(debts(), at(250_000), 'loan', december)).toBe(250_000);
  expect(dueOf(debts(), at(-5), 'od', december)).toBe(0);
});

test.each<[string, Day | null, number]>([
  ['can be called', null, 30_000],
  ['ends within the year', '2027-12-31' as Day, 30_000],
  ['is granted for longer', '2028-01-01' as Day, 0],
])('a credit line that %s', (_, until, due) => {
  expect(dueOf(debts({ creditLine: line({ until }) }), balances, 'od', december)).toBe(due);
});

test('twelve months after the end of February 2027 are the end of February 2028, which has a day more', () => {
  const until = (day: string) =>
    dueOf(debts({ creditLine: line({ until: day as Day }) }), balances, 'od', february);
  expect([until('2028-02-29'), until('2028-03-01')]).toEqual([30_000, 0]);
});

test('a period that ends before its month does is twelve months before the same day', () => {
  const weeks = { ...calendar, period: () => ({ ...calendar.period(february), end: '2027-02-27' as Day }) };
  const until = (day: string) =>
    dueOf(
      debts({ calendar: weeks as typeof calendar, creditLine: line({ until: day as Day }) }),
      balances,
      'od',
      february,
    );
  expect([until('2028-02-27'), until('2028-02-28')]).toEqual([30_000, 0]);
});

test('a line whose account nobody named is drawn on the one that its name tells', () => {
  expect(dueOf(debts({ creditLine: line({ account: null }) }), balances, 'od', december)).toBe(30_000);
});
