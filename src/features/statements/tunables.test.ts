import { aheadOf, makeGround, triedOf } from '@/core/ground';
import { causesOn } from '@/core/cash';
import { day, toDayNumber } from '@/core/calendar';
import { applyCommand, type Budget } from '@/core/model';
import { minor, percent } from '@/core/money';
import { blockOf, bookWith, budgetOf, byMonth, calendar, line, periodIds, sourceOf } from '@/core/test/build';
import { onAccount, terms } from '@/core/test/cash';
import { loanRow, SCHEDULE_ACCOUNTS as accounts, staffRow } from '@/core/test/schedule';
import { tunablesOf, type Tunable } from './tunables';

const ids = periodIds(2026);
const block = blockOf(accounts, [['2025-12-01', 'bank', 900_000_00]]);
const BUDGET = budgetOf(
  [
    line('sales', byMonth(Object.fromEntries(ids.map((p) => [p, minor(100_000)])))),
    line('wages', { kind: 'schedule', beside: {} }),
    line('interest', { kind: 'schedule', beside: {} }),
  ],
  'b1',
  {
    schedules: [staffRow(), loanRow()],
    terms: [
      terms('sales', [
        '100',
        onAccount([
          ['60', { days: 20 }],
          ['40', { days: 45 }],
        ]),
      ]),
    ],
  },
);
const groundOf = (budget: Budget = BUDGET) =>
  makeGround(
    bookWith(accounts, {
      sources: [sourceOf({ lastDay: day('2025-12-31') })],
      closedThrough: periodIds(2025)[11]!,
      budgets: [budget],
    }),
    new Map([[block.id, block]]),
  );
const march = calendar.firstOfYear(2026) + 2;
function tunables(of: string, budget?: Budget): readonly Tunable[] {
  const ground = groundOf(budget);
  const ahead = aheadOf(ground, ground.book.budgets[0]!)!;
  const { start, end } = calendar.period(march);
  const causes = causesOn(
    ahead.view.projected,
    of,
    { from: toDayNumber(start), to: toDayNumber(end) },
    ahead.view.bearers.borneBy,
  );
  const account = accounts.find((a) => a.id === of)!;
  return tunablesOf(ground, ahead, account, of === 'sales' ? march : null, causes);
}

test.each([
  ['sales', ['sales in Mar 2026', 'sales: days until paid (60%)']],
  ['wages', ['Rigger: pay', 'Rigger: how many']],
  ['loan', ['Launch loan: rate', 'Launch loan: amount']],
])('what %s can be tried otherwise by', (of, expected) => {
  expect(tunables(of).map((t) => t.label)).toEqual(expected);
});

test('of an approved budget nothing can be tried', () => {
  const approved = { at: 't', by: '', fingerprint: '', cash: null, lines: [] };
  expect(tunables('wages', { ...BUDGET, state: 'approved', approved })).toEqual([]);
});

/** What a tried value moves in March: profit and the bank. */
function moved(of: string, label: string, value: unknown) {
  const ground = groundOf();
  const own = tunables(of).find((t) => t.label === label)!;
  const command = (own.command as (v: unknown) => ReturnType<Tunable['command']>)(value);
  expect(applyCommand(ground.book, command).ok).toBe(true);
  const tried = triedOf(ground, own.budget, command, { first: march, last: march });
  if (!tried.ok) throw new Error(tried.code);
  const [m] = tried.moves;
  return m ? [m.profit, m.bank] : [];
}

test.each<[string, string, unknown, number[]]>([
  // 1,000 more a month: less profit in March, and less in the bank by then for three paydays.
  ['wages', 'Rigger: pay', minor(400_000), [-100_000, -300_000]],
  ['wages', 'Rigger: how many', 200, [-300_000, -900_000]],
  // 60 % come 20 days after the month's end: with no days at all March's own 600 are there by its end.
  ['sales', 'sales: days until paid (60%)', 0, [0, 60_000]],
  ['sales', 'sales in Mar 2026', minor(150_000), [50_000, 0]],
])('%s by “%s”: what it moves', (of, label, value, expected) => {
  expect(moved(of, label, value)).toEqual(expected);
});

test('a rate moves interest and the principal that the same payments repay', () => {
  const [profit, bank] = moved('loan', 'Launch loan: rate', percent('12'));
  expect(profit!).toBeLessThan(0);
  expect(bank!).toBeLessThan(0);
});
