import { minor } from '@/core/money';
import { applyCommand, type Driver, type Series } from '@/core/model';
import { account, bookWith, budgetOf, driver, formula, line, periodIds, phased } from '@/core/test/build';
import { readScaled, scaledText } from '@/components/readScaled';
import { pastedValues, rescaled, shapedBy, usersOf } from './driverEdits';

const ids = periodIds(2026);
const typed = (values: Record<string, number> = {}): Series => ({ kind: 'typed', values }) as Series;
const drivers = [
  driver('berths', typed({ [ids[0]!]: 40 })),
  driver('price', typed(), 2),
  driver('members', { kind: 'formula', formula: '"driver:berths" * 2' }),
];

describe('a block pasted over drivers', () => {
  test('lands from the cell it is pasted at, each driver in its own decimals; blank makes blank', () => {
    const pasted = pastedValues(
      drivers,
      ids,
      { driver: 0, month: 1 },
      [
        ['41', '', '1,043'],
        ['9.5', '10', '−0.25'],
      ],
      'en-US',
    );
    expect(pasted).toEqual({
      leftOut: 0,
      values: [
        { driver: 'berths', period: ids[1], value: 41 },
        { driver: 'berths', period: ids[2], value: null },
        { driver: 'berths', period: ids[3], value: 1043 },
        { driver: 'price', period: ids[1], value: 950 },
        { driver: 'price', period: ids[2], value: 1000 },
        { driver: 'price', period: ids[3], value: -25 },
      ],
    });
  });
  test('numbers are read and written as the book writes them', () => {
    const at = { driver: 1, month: 0 };
    expect(pastedValues(drivers, ids, at, [['1.043,5']], 'de-DE')).toMatchObject({
      values: [{ value: 104_350 }],
    });
    expect(scaledText(104_350, 2, 'de-DE')).toBe('1043,50');
    expect(readScaled(scaledText(-7, 2, 'de-DE'), 2, 'de-DE')).toEqual({ value: -7 });
    expect(readScaled('5%', 2, 'en-US')).toBeNull();
  });
  test('what is reckoned, beyond the months or beyond the drivers is counted and left out', () => {
    const block = [['1', '2'], ['3', '4'], ['5', '6'], ['7']];
    expect(pastedValues(drivers, ids, { driver: 1, month: 11 }, block, 'en-US')).toEqual({
      leftOut: 6,
      values: [{ driver: 'price', period: ids[11], value: 100 }],
    });
  });
  test.each([
    ['a word', 'many'],
    ['more decimals than the driver has', '1.234'],
  ])('%s stops the whole paste', (_, text) =>
    expect(pastedValues(drivers, ids, { driver: 0, month: 0 }, [['1'], [text]], 'en-US')).toEqual({
      trouble: `“${text}” is no number of price. Nothing was pasted.`,
    }),
  );
  test('all of it is one change of the book, and no reckoned driver is touched', () => {
    const book = bookWith([], { budgets: [{ ...budgetOf([]), drivers }] });
    const { id } = book.budgets[0]!;
    const done = applyCommand(book, {
      type: 'setDriverValues',
      budget: id,
      values: [
        { driver: 'berths', period: ids[0]!, value: null },
        { driver: 'price', period: ids[2]!, value: 5 },
        { driver: 'members', period: ids[2]!, value: 5 },
        { driver: 'gone', period: ids[2]!, value: 5 },
      ],
    });
    if (!done.ok) throw new Error(done.refusal.code);
    expect(done.book.budgets[0]!.drivers.map((d) => d.series)).toEqual([
      typed(),
      typed({ [ids[2]!]: 5 }),
      drivers[2]!.series,
    ]);
  });
});

test('who follows a driver: lines that multiply it or name it, and drivers reckoned from it', () => {
  const accounts = [account('s', 'income'), account('f', 'income'), account('r', 'expense')];
  const budget = {
    ...budgetOf([
      line('s', { kind: 'driver', factors: ['berths', 'price'], round: 0 }),
      line('f', formula('"driver:berths" + 1')),
      line('r', formula('"account:s" * 10%')),
    ]),
    drivers,
  };
  expect(bookWith(accounts, { budgets: [budget] }).budgets).toHaveLength(1);
  expect(usersOf(budget, 'berths')).toEqual([{ account: 's' }, { account: 'f' }, { driver: 'members' }]);
  expect(usersOf(budget, 'price')).toEqual([{ account: 's' }]);
});

test('whom weights shape: phased lines and seasonal drivers of any budget', () => {
  const by = (weights: string) => phased(1200, { by: { by: 'weights', weights } });
  const seasonal: Driver = {
    ...drivers[0]!,
    name: 'Moorings',
    series: { kind: 'seasonal', level: 1, weights: 'w1' },
  };
  const book = bookWith([account('s', 'income', 'Sales'), account('f', 'income', 'Fees')], {
    budgets: [
      budgetOf([line('s', by('w1')), line('f', by('w2'))], 'b1', { name: 'This year' }),
      budgetOf([line('f', by('w1')), line('s', phased(5))], 'b2', { name: 'Next', drivers: [seasonal] }),
    ],
  });
  expect(shapedBy(book, 'w1')).toEqual([
    { name: 'Sales', budget: 'This year' },
    { name: 'Fees', budget: 'Next' },
    { name: 'Moorings', budget: 'Next' },
  ]);
  expect(shapedBy(book, 'w3')).toEqual([]);
});

test.each<[string, Series, Series]>([
  ['typed', typed({ [ids[0]!]: 1250 }), typed({ [ids[0]!]: 13 })],
  [
    'stepped',
    { kind: 'step', start: 1000, first: ids[1]!, every: 1, change: { of: 'amount', amount: 150 } },
    { kind: 'step', start: 10, first: ids[1]!, every: 1, change: { of: 'amount', amount: 2 } },
  ],
  [
    'seasonal',
    { kind: 'seasonal', level: 149, weights: 'w1' },
    { kind: 'seasonal', level: 1, weights: 'w1' },
  ],
])('fewer decimals round a %s driver, and more bring nothing back', (_, fine, coarse) => {
  const d = { ...driver('d', fine, 2), opening: minor(99) };
  const less = rescaled(d, 0);
  expect(less).toEqual({ ...d, decimals: 0, opening: 1, series: coarse });
  expect(rescaled(less, 2).opening).toBe(100);
});
