import { day, periodsOf } from '@/core/calendar';
import { makeGround, reckoned } from '@/core/ground';
import { applyCommand, type Budget, type Line, type ScheduleRow } from '@/core/model';
import { minor, percent } from '@/core/money';
import { SCHEDULE_KINDS, usualAccount } from '@/core/schedule';
import { account, bookWith, budgetOf, byMonth, calendar, line, months, periodIds } from '@/core/test/build';
import { assetRow, SCHEDULE_ACCOUNTS, staffRow } from '@/core/test/schedule';
import { columnsOf, pasted, payBy, repaidAs, wayAs } from './columns';
import { accountsOfKind, NEEDS, newRow } from '@/store/newRow';
import { loanFor, putRows, raised } from './scheduleEdits';

const ids = periodIds(2026);
const hundred = (account: string): Line =>
  line(account, byMonth(Object.fromEntries(ids.map((p) => [p, minor(100)]))));
const budgetWith = (change: Partial<Budget> = {}): Budget =>
  budgetOf([hundred('wages'), line('oncosts', { kind: 'schedule', beside: {} })], 'b1', change);
function setOf(budget: Budget, accounts = SCHEDULE_ACCOUNTS) {
  const book = bookWith(accounts, { budgets: [budget], closedThrough: ids[1]! });
  return { book, whole: reckoned(makeGround(book, new Map()), budget) };
}

describe('a new row', () => {
  it.each(SCHEDULE_KINDS)('of %s is one that the book takes, from the first open month on', (kind) => {
    const { book, whole } = setOf(budgetWith());
    // The chart of the test says no more of its taxes than their ids.
    const row = newRow(kind, 'r9', whole, { ...accountsOfKind(book, kind), tax: 'tax' });
    const done = applyCommand(book, putRows(whole.budget, whole, [row]));
    expect(done.ok).toBe(true);
    if (kind !== 'incomeTax') expect(JSON.stringify(row)).toMatch(/2026-03/);
  });
  it('takes paydays and on-costs of the last one of its kind', () => {
    const like = staffRow({
      paydays: { of: 'weeks', every: 1, from: day('2026-01-02') },
      withheld: percent('31'),
    });
    const { book, whole } = setOf(budgetWith({ schedules: [like] }));
    expect(newRow('staff', 'r9', whole, accountsOfKind(book, 'staff'))).toMatchObject({
      paydays: like.paydays,
      withheld: '31',
    });
  });
  it('of a loan for an asset is of what it costs, from the day it is bought', () => {
    const { book, whole } = setOf(budgetWith());
    const loan = loanFor(assetRow(), 'r9', whole, accountsOfKind(book, 'loan'));
    expect(loan).toMatchObject({
      name: 'Launch, loan',
      begins: { of: 'drawn', day: '2026-03-15', amount: 1_000_000 },
      first: '2026-04-15',
    });
  });
});

test('accounts are proposed by their kinds and names, and none where none fits', () => {
  const chart = [
    account('a', 'expense', 'Payroll tax expense'),
    account('b', 'expense', 'Salaries and wages'),
    account('c', 'fixedAsset', 'Accumulated depreciation'),
    account('d', 'fixedAsset', 'Van'),
    account('e', 'taxPayable', 'Sales tax'),
  ];
  expect(
    ['wages', 'oncosts', 'asset', 'accumulated', 'taxOwed', 'loan'].map((p) =>
      usualAccount(chart, p as 'loan'),
    ),
  ).toEqual(['b', 'a', 'd', 'c', null, null]);
  const bare = accountsOfKind({ accounts: chart }, 'loan');
  expect(NEEDS.loan.must.every((p) => bare[p] === null)).toBe(true);
});

describe('keeping rows', () => {
  it('lays the row on top of what its line had, and leaves a line that is made by schedule alone', () => {
    const { whole } = setOf(budgetWith());
    const { lines } = putRows(whole.budget, whole, [
      staffRow({
        oncostAccount: 'oncosts',
        oncosts: [{ name: 'P', percent: percent('9'), cap: null, year: 'fiscal' }],
      }),
    ]);
    expect(lines).toEqual([
      {
        account: 'wages',
        segment: null,
        method: { kind: 'schedule', beside: Object.fromEntries(ids.map((p) => [p, 100])) },
      },
    ]);
  });
  it('does not touch the line of a row that made it already, but that of an account it makes anew', () => {
    const { whole } = setOf(budgetWith({ schedules: [staffRow()] }));
    expect(putRows(whole.budget, whole, [staffRow({ count: 200 })]).lines).toEqual([]);
    expect(
      putRows(whole.budget, whole, [staffRow({ account: 'tools' })]).lines.map((l) => l.account),
    ).toEqual(['tools']);
  });
  it('takes the lines alone where a list is all there is', () => {
    const { whole } = setOf(budgetWith());
    expect(putRows(whole.budget, whole, [staffRow()], { alone: true }).lines).toEqual([
      { account: 'wages', segment: null, method: { kind: 'schedule', beside: {} } },
    ]);
  });
  it('raises all who work on the day, each once for it', () => {
    const rows = [
      staffRow({ id: 'a' }),
      staffRow({ id: 'b', until: day('2026-01-31') }),
      staffRow({ id: 'later', from: day('2026-06-02') }),
      staffRow({
        id: 'c',
        raises: [{ from: day('2026-06-01'), change: { of: 'amount', amount: minor(5) } }],
      }),
    ];
    const made = raised(rows, day('2026-06-01'), percent('3'));
    expect(made.map((r) => [r.id, r.kind === 'staff' && r.raises.length])).toEqual([
      ['a', 1],
      ['c', 1],
    ]);
  });
});

describe('a pasted block', () => {
  const rows: readonly ScheduleRow[] = [staffRow()];
  const { book } = setOf(budgetWith());
  const columns = columnsOf('staff', { book, periods: periodsOf(calendar, months(2026)), comesTo: () => '' });
  const lay = (block: string[][], at = { row: 0, column: 0 }) =>
    pasted(columns, rows, at, block, book, (i) => staffRow({ id: `n${i}` }));

  it('is laid over rows, and adds those that it has more', () => {
    const laid = lay([
      ['Ada', '1.5', '2,000', 'a month', '3/1/2026', '', 'wages'],
      ['', '', '', '', '', '', ''],
      ['Bo', '1', '20', 'hour'],
    ]);
    expect(laid).toMatchObject({
      leftOut: 0,
      rows: [
        { id: 'r1', name: 'Ada', count: 150, pay: { per: 'month', amount: 200_000 }, from: '2026-03-01' },
        { id: 'n1', name: 'Bo', pay: { per: 'hour', amount: 2000 } },
      ],
    });
  });
  it.each([
    ['a text that is no number', [['Ada', 'many']], '“many” does not go under “How many”'],
    [
      'a day that there is not',
      [['Ada', '1', '1', 'year', '2/30/2026']],
      '“2/30/2026” does not go under “From”',
    ],
    ['pay below zero', [['Ada', '1', '-5']], '“-5” does not go under “Pay”'],
  ])('%s stops it and is named', (_, block, expected) => {
    expect(lay(block)).toMatchObject({ trouble: expect.stringContaining(expected) });
  });
  it('counts what reaches beyond the columns', () => {
    expect(lay([['wages', 'x', 'y']], { row: 0, column: 6 })).toMatchObject({ leftOut: 2 });
  });
});

test('another measure keeps what it can', () => {
  expect(payBy(staffRow(), 'hour')).toEqual({
    per: 'hour',
    amount: 300_000,
    hours: { of: 'month', hours: 16_000 },
  });
  expect(payBy(staffRow(), 'month')).toEqual({ per: 'month', amount: 300_000 });
  const asset = assetRow();
  expect([wayAs(asset, 'straight'), wayAs(asset, 'declining'), wayAs(asset, 'none')]).toEqual([
    asset.way,
    { of: 'declining', rate: '20' },
    { of: 'none' },
  ]);
  const { book, whole } = setOf(budgetWith());
  const loan = loanFor(asset, 'r9', whole, accountsOfKind(book, 'loan'));
  expect(repaidAs(loan, 'typed')).toEqual({
    of: 'typed',
    amounts: [{ day: '2026-04-15', amount: 1_000_000 }],
  });
  expect([repaidAs(loan, 'level'), repaidAs(loan, 'principal')]).toEqual([loan.repay, { of: 'principal' }]);
});
