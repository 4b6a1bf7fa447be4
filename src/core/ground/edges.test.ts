import { toDayNumber, type Day } from '@/core/calendar';
import { percent } from '@/core/money';
import { account, bookWith, budgetOf, byMonth, calendar, line } from '@/core/test/build';
import { daysOf } from '@/core/schedule';
import { comparisonFor, createMemory, makeGround } from '.';
import { sharesOfItem } from './itemTerms';

const on = (text: string) => toDayNumber(text as Day);

test('of two plans of a month the one that plans profit goes before one of balances alone, whichever was made later', () => {
  const accounts = [account('sales', 'income'), account('bank', 'bank')];
  const profit = budgetOf([line('sales', byMonth())], 'b1', { covers: 'profitAndLoss' });
  const balances = budgetOf([line('bank', byMonth())], 'b2', { covers: 'balanceSheet' });
  const first = calendar.firstOfYear(2026);
  const chosen = (...budgets: (typeof profit)[]) =>
    comparisonFor(makeGround(bookWith(accounts, { budgets }), new Map(), createMemory()), first, null)!.id;
  expect(chosen(profit, balances)).toBe('b1');
  expect(chosen(balances, profit)).toBe('b1');
});

test('an invoice by terms in several parts comes in shares of its amount and of its tax, which come to both', () => {
  const part = (p: string, days: number) => ({
    percent: percent(p),
    moved: 'stays' as const,
    badDebt: null,
    shares: [{ percent: percent('100'), due: { of: 'days' as const, days } }],
  });
  const shares = sharesOfItem(
    { dated: on('2026-01-10'), amount: 1_190 as never, open: 1_190 as never },
    190,
    [part('30', 10), part('20', 20), part('50', 30)],
    { days: daysOf({ weekdays: [1, 2, 3, 4, 5], holidays: [] }), onPayment: true, delay: 5 },
  );
  expect(shares.map((s) => [s.day - on('2026-01-10'), s.amount, s.owes])).toEqual([
    [15, 357, 57],
    [25, 238, 38],
    [35, 595, 95],
  ]);
});
