import type { Adjusts, Book, Budget } from '@/core/model';
import { account } from '@/core/test/build';
import { assume, lines } from '@/core/test/cases';
import { loanRow, staffRow } from '@/core/test/schedule';
import { touching, touchingRows, triedOver } from '.';

const accounts = [
  account('sales', 'income'),
  account('rent', 'expense'),
  account('wages', 'expense'),
  account('bank', 'bank'),
];
const staff = staffRow({
  account: 'wages',
  oncosts: [],
  once: [],
  split: [{ segment: 'north', percent: '100' as never }],
});
const loan = loanRow({ interest: 'interest', segment: null });
const named = (what: Adjusts, of: string | null | 'any' = 'any') =>
  [...touching([assume(what, 1).adjustment], { schedules: [staff, loan] }, accounts, of).keys()].sort();

test('lines that it names, and lines that its rows make', () => {
  expect(named({ on: 'amounts', reach: lines('rent', 'gone'), way: { as: 'percent' } })).toEqual(['rent']);
  expect(named({ on: 'termsDays', reach: { lines: [{ of: 'costs' }] } })).toEqual(['rent', 'wages']);
  // An account of the balance sheet is no line of the plan that amounts are tried on.
  expect(named({ on: 'amounts', reach: lines('bank'), way: { as: 'percent' } })).toEqual([]);
  expect(named({ on: 'rowMoved', row: staff.id })).toEqual(['wages']);
  expect(named({ on: 'rowAdded', row: loanRow({ id: 'r9', interest: 'other' }), by: 'yes' })).toEqual([
    'other',
  ]);
  expect(named({ on: 'pay', accounts: [] })).toEqual(['wages']);
  expect(named({ on: 'pay', accounts: ['rent'] })).toEqual([]);
  expect(named({ on: 'oncosts' })).toEqual(['wages']);
  expect(named({ on: 'rate', of: 'interest', by: 'more' })).toEqual(['interest']);
  expect(named({ on: 'rate', of: 'incomeTax', by: 'value' })).toEqual([]);
  expect(named({ on: 'rate', of: 'floor', by: 'value' })).toEqual([]);
});

test('in one segment', () => {
  const reach = { ...lines('rent'), segment: 'north' };
  expect(named({ on: 'linesMoved', reach }, 'north')).toEqual(['rent']);
  expect(named({ on: 'linesMoved', reach }, null)).toEqual([]);
  expect(named({ on: 'rowGone', row: staff.id }, 'north')).toEqual(['wages']);
  expect(named({ on: 'rowGone', row: staff.id }, null)).toEqual([]);
  expect(named({ on: 'rowGone', row: loan.id }, null)).toEqual(['interest']);
});

test('each once, in the order of the list', () => {
  const two = [
    assume({ on: 'amounts', reach: lines('rent', 'rent'), way: { as: 'percent' } }, 1, {}, 'j1').adjustment,
    assume({ on: 'termsLost', reach: lines('rent') }, 1, {}, 'j2').adjustment,
  ];
  expect(touching(two, { schedules: [] }, accounts, 'any').get('rent')).toEqual(two);
});

test('the rows that it names', () => {
  const all = [
    assume({ on: 'rowMoved', row: loan.id }, 1, {}, 'j1').adjustment,
    assume({ on: 'pay', accounts: [] }, 1, {}, 'j2').adjustment,
    assume({ on: 'oncosts' }, 1, {}, 'j3').adjustment,
    // Adds a row that the budget has not.
    assume({ on: 'rowAdded', row: staffRow({ id: 'r9' }), by: 'yes' }, 1, {}, 'j4').adjustment,
  ];
  const rows = touchingRows(all, [staff, loan]);
  expect([...rows].map(([id, own]) => [id, own.map((a) => a.id)])).toEqual([
    [staff.id, ['j2', 'j3']],
    [loan.id, ['j1']],
  ]);
});

test('what cases try: on, of a size in one of them, and not taken in already', () => {
  const adjustments = ['j1', 'j2', 'j3', 'j4'].map((id) => ({
    ...assume({ on: 'oncosts' }, 1, {}, id).adjustment,
    off: id === 'j2',
  }));
  const size = { size: 1, low: null, high: null };
  const cases = [
    { id: 'k1', name: 'K', by: '', at: '', sizes: { j1: size, j2: size, j3: size } },
  ] as unknown as Book['cases'];
  const applied = [{ adjustment: adjustments[2]!, size: 1 }] as unknown as Budget['applied'];
  expect(triedOver({ adjustments, cases }, { applied }).map((a) => a.id)).toEqual(['j1']);
});
