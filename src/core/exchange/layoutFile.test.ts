import { SHIPPED } from '@/core/report';
import type { Layout } from '@/core/model';
import { account, bookWith, budgetOf, siteAxis } from '../test/build';
import { layoutFile, readLayouts } from './layoutFile';

const own: Layout = {
  ...SHIPPED[0]!,
  id: 'y1',
  name: 'Ours',
  against: { first: 'b7', second: 'lastYear' },
  segments: { axis: 'x', place: 'across', values: ['n', null] },
  rows: {
    ...SHIPPED[0]!.rows,
    own: [
      { row: 'heading', name: 'Trade' },
      { row: 'account', account: 'a1' },
      { row: 'account', account: 'a2' },
    ],
  },
};
const from = bookWith([account('a1', 'income', 'Sales', '4000'), account('a2', 'income', 'Fees', '4100')], {
  axes: [siteAxis()],
  budgets: [budgetOf([], 'b7', { name: 'Plan' })],
});
const file = layoutFile(from, [own]);

test('into its own book it comes back as it went out', () =>
  expect(readLayouts(file, from)).toEqual({ layouts: [own], issues: [] }));

test('into another book by code, then name; segments and budget by name', () => {
  const to = bookWith([account('k9', 'income', 'Turnover', '4000'), account('k8', 'income', 'fees ')], {
    axes: [{ ...siteAxis(), id: 'z', values: [{ id: 'v1', name: 'north', from: [] }] }],
    budgets: [budgetOf([], 'b1', { name: 'plan' })],
  });
  const { layouts, issues } = readLayouts(file, to);
  expect(issues).toEqual([]);
  expect(layouts[0]).toMatchObject({
    against: { first: 'b1', second: 'lastYear' },
    segments: { axis: 'z', place: 'across', values: ['v1', null] },
  });
  expect(layouts[0]!.rows.own.map((r) => (r.row === 'account' ? r.account : r.row))).toEqual([
    'heading',
    'k9',
    'k8',
  ]);
});

test('what the book has not is left out and told by name', () => {
  const { layouts, issues } = readLayouts(file, bookWith([account('k', 'income', 'Sales')]));
  expect(issues).toEqual([
    { code: 'noSuchAccount', layout: 'Ours', name: 'Fees' },
    { code: 'noSuchSegments', layout: 'Ours', name: 'Site' },
    { code: 'noSuchBudget', layout: 'Ours', name: 'Plan' },
  ]);
  expect(layouts[0]).toMatchObject({
    against: { first: 'inForce' },
    segments: { axis: null, place: 'none', values: [] },
  });
});

test('names that every object has are nobody’s: not found among what the file names, and no ids', () => {
  const against = { first: 'constructor', second: 'toString' };
  const { layouts, issues } = readLayouts(layoutFile(from, [{ ...own, against }]), from);
  expect(layouts[0]!.against).toEqual({ first: 'inForce', second: 'inForce' });
  expect(issues.map((i) => 'name' in i && i.name)).toEqual(['constructor', 'toString']);
  for (const word of Object.getOwnPropertyNames(Object.prototype))
    for (const id of ['a1', 'x', 'n', 'y1']) {
      const read = readLayouts(file.replaceAll(`"${id}"`, `"${word}"`), from);
      expect([word, id, read.layouts.length, read.issues[0]?.code]).toEqual([word, id, 0, 'invalid']);
    }
});

test.each<[string, string, object]>([
  ['no JSON', file.slice(0, 80), { code: 'notJson' }],
  ['another file', '{"format":"tellan.book"}', { code: 'notALayout' }],
  ['null', 'null', { code: 'notALayout' }],
  ['a newer version', file.replace('"version": 1', '"version": 9'), { code: 'newerVersion' }],
  ['no such column', file.replace('"actual"', '"magic"'), { code: 'invalid' }],
  [
    'too many columns',
    JSON.stringify({
      ...JSON.parse(file),
      layouts: [{ ...own, columns: Array.from({ length: 61 }, () => own.columns[0]) }],
    }),
    { code: 'invalid' },
  ],
])('%s is refused, and nothing is read', (_n, text, issue) => {
  const read = readLayouts(text, from);
  expect(read.layouts).toEqual([]);
  expect(read.issues[0]).toMatchObject(issue);
});
