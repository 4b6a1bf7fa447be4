import type { Adjusts } from '@/core/model';
import { percent } from '@/core/money';
import { lines, assume } from '@/core/test/cases';
import { smallPlan } from '@/core/test/smallPlan';
import { assetRow, loanRow, staffRow } from '@/core/test/schedule';
import { formOf, whatOf } from './form';

/* What the dialog is opened with is what it keeps, as long as nothing of it is changed. */

const reach = lines('sales');
const ALL: readonly Adjusts[] = [
  { on: 'amounts', reach, way: { as: 'percent' } },
  { on: 'amounts', reach: { ...reach, segment: 'north' }, way: { as: 'amount' } },
  { on: 'amounts', reach: { ...reach, segment: null }, way: { as: 'new' } },
  { on: 'amounts', reach, way: { as: 'growth', compounding: false, stays: true } },
  { on: 'amounts', reach, way: { as: 'onBefore' } },
  { on: 'amounts', reach, way: { as: 'formula', formula: 'max("base", 5)' } },
  { on: 'driver', driver: 'd7', way: { as: 'percent' } },
  { on: 'driver', driver: 'd7', way: { as: 'new' } },
  { on: 'driver', driver: 'd7', way: { as: 'growth', compounding: true, stays: false } },
  { on: 'driver', driver: 'd7', way: { as: 'formula', formula: '"base" * 2' } },
  { on: 'linesMoved', reach },
  { on: 'rowMoved', row: 'r1' },
  { on: 'datedMoved', item: 'x1' },
  { on: 'rowAdded', row: staffRow(), by: 'day' },
  { on: 'rowAdded', row: loanRow(), by: 'yes' },
  { on: 'rowAdded', row: assetRow(), by: 'yes' },
  { on: 'rowGone', row: 'r1' },
  { on: 'rowField', row: 'r1', field: 'count', by: 'percent' },
  { on: 'pay', accounts: ['wages'] },
  { on: 'oncosts' },
  { on: 'termsDays', reach },
  { on: 'termsLost', reach: { ...reach, segment: 'north' } },
  {
    on: 'termsNew',
    reach,
    rule: {
      kind: 'onAccount',
      invoiced: { of: 'monthDay', day: 3 },
      shares: [{ percent: percent('40'), due: { of: 'days', days: 9 } }],
      moved: 'previous',
      badDebt: 'rent',
      through: null,
    },
  },
  { on: 'items', side: 'out', counterparty: 'Sailmaker', item: 'l0:4', as: 'later' },
  { on: 'items', side: 'in', counterparty: null, item: null, as: 'never' },
  { on: 'rate', of: 'incomeTax', by: 'more' },
  { on: 'rate', of: 'interest', by: 'value' },
  { on: 'rate', of: 'floor', by: 'more' },
];

test.each(ALL.map((what) => [JSON.stringify(what).slice(0, 70), what] as const))('%s', (_, what) => {
  const ground = smallPlan();
  const { adjustment } = assume(what, 1);
  const form = formOf(adjustment, ground, adjustment.when.from, null);
  expect(form.when).toEqual(adjustment.when);
  expect(whatOf(form, form.added, what)).toEqual(what);
});

test('another counterparty has no item of the first', () => {
  const what: Adjusts = { on: 'items', side: 'out', counterparty: 'Sailmaker', item: 'l0:4', as: 'paid' };
  const form = formOf(assume(what, 1).adjustment, smallPlan(), '2026-01' as never, null);
  expect(whatOf({ ...form, counterparty: '', item: '' }, null, what)).toMatchObject({
    counterparty: null,
    item: null,
  });
});

test('a formula that says nothing is no adjustment yet', () => {
  const form = formOf(null, smallPlan(), '2026-01' as never, { of: { line: 'sales' }, from: null });
  expect(whatOf({ ...form, tried: 'formula' }, null, null)).toBeNull();
  expect(whatOf({ ...form, tried: 'formula', formula: '"base" + 1' }, null, null)).toEqual({
    on: 'amounts',
    reach,
    way: { as: 'formula', formula: '"base" + 1' },
  });
});
