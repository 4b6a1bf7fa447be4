import { minor } from '@/core/money';
import { account, calendar } from '@/core/test/build';
import { groundWith } from '@/core/test/variance';
import { comparedWith } from '@/core/report';
import { moneyFormat } from './format';
import { draftMessage, traced } from './messageWords';
import { monthFacts } from './monthFacts';

const first = calendar.firstOfYear(2026);
const accounts = [
  account('s', 'income', 'Sales'),
  account('r', 'expense', 'Rent'),
  account('w', 'expense', 'Wages'),
];
function draft(
  actual: Record<string, number>,
  budget: Record<string, number>,
  block: 'month' | 'toDate' = 'month',
) {
  const of = (amounts: Record<string, number>) => (a: { id: string }) =>
    amounts[a.id] === undefined ? null : minor(amounts[a.id]! * 100);
  const ground = groundWith({ accounts, actual: of(actual), budget: of(budget), through: first + 1 });
  const facts = monthFacts(
    ground,
    first + 1,
    comparedWith(ground, first + 1, { against: { first: 'inForce', second: '' }, rows: {} as never }, null),
  );
  return draftMessage(
    facts,
    ground.book.accounts,
    block,
    block === 'month' ? 'Feb 2026' : 'Year to Feb 2026',
    moneyFormat(ground.book),
    'budgeted',
  );
}

test('a month in a line: what was made, what was to be, and what moved it most the way it went', () => {
  const told = draft({ s: 900, r: 100, w: 500 }, { s: 1500, r: 300, w: 500 });
  expect(told.text).toBe('Feb 2026: a profit of 300, where 700 was budgeted; most by Sales, −600 U.');
  expect(told.figures.map((f) => f.row)).toEqual(['netProfit', 'netProfit', 's']);
});
test('a loss reads as a loss, over the year as over the month', () =>
  expect(draft({ s: 100, r: 400 }, { s: 500, r: 300 }, 'toDate').text).toBe(
    'Year to Feb 2026: a loss of 600, where a profit of 400 was budgeted; most by Sales, −800 U.',
  ));
test('where nothing differs nothing moved it', () =>
  expect(draft({ s: 500, r: 300 }, { s: 500, r: 300 }).text).toBe(
    'Feb 2026: a profit of 200, where 200 was budgeted.',
  ));

test('figures of a text lead to their rows; one within a longer figure does not', () => {
  const figures = [
    { text: '300', row: 'net' },
    { text: '−600 U', row: 's' },
  ];
  expect(traced('A profit of 300, by 1,300 and −600 U.', figures)).toEqual([
    { text: 'A profit of ', row: null },
    { text: '300', row: 'net' },
    { text: ', by 1,300 and ', row: null },
    { text: '−600 U', row: 's' },
    { text: '.', row: null },
  ]);
  expect(traced('3000 or 300', figures).at(-1)).toEqual({ text: '300', row: 'net' });
  expect(traced('', figures)).toEqual([]);
});
