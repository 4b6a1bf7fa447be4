import { minor } from '@/core/money';
import type { Driver, Line, OverMonths } from '@/core/model';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  driver,
  line,
  periodIds,
  share,
  sourceOf,
} from '@/core/test/build';
import { countedOf, flexibleOf } from './flexible';
import { makeGround } from './ground';
import { reckoned } from './reckoned';

/* A budget at what was counted, line by line, where two things meet: unlike units, typed months, lags, segments, blanks. */

const ids = periodIds(2026);
const first = calendar.firstOfYear(2026);
const accounts = [
  account('s', 'income', 'Sales'),
  account('t', 'income', 'Tickets'),
  account('c', 'costOfSales', 'Goods'),
  account('f', 'expense', 'Fees'),
  account('b', 'bank', 'Bank'),
];
const fixed = (id: string, value: number, change: Partial<Driver> = {}): Driver => ({
  ...driver(id, { kind: 'typed', values: Object.fromEntries(ids.map((p) => [p, value])) }),
  ...change,
});
const DRIVERS = [
  fixed('members', 100, { name: 'Members', unit: 'person' }),
  fixed('visitors', 300, { name: 'Visitors', unit: 'Person' }),
  fixed('hours', 1000, { name: 'Hours', unit: 'h', decimals: 1 }),
  fixed('boats', 100, { name: 'Boats', unit: 'boat' }),
  fixed('fee', 20),
];
const by = (...factors: string[]): Line['method'] => ({ kind: 'driver', factors, round: 0 });
/** 100 members and 300 visitors at 20.00 each; both closed months have actuals of 1,800.00. */
function read(
  lines: readonly Line[],
  counted: Readonly<Record<string, { decimals?: number; values: Record<string, number>; over?: OverMonths }>>,
  through = 1,
  more: readonly Driver[] = [],
) {
  const entries = ids
    .slice(0, through + 1)
    .flatMap((p) => [
      [`${p}-10`, 's', 1800_00] as const,
      [`${p}-11`, 'f', 70_00] as const,
      [`${p}-12`, 'b', 1] as const,
    ]);
  const block = blockOf(accounts, entries);
  const budget = budgetOf(lines, 'b1', { drivers: [...DRIVERS, ...more] });
  const ground = makeGround(
    bookWith(accounts, {
      sources: [sourceOf()],
      closedThrough: ids[through]!,
      budgets: [budget],
      quantities: Object.entries(counted).map(([name, q]) => ({ name, unit: '', decimals: 0, ...q })),
    }),
    new Map([[block.id, block]]),
  );
  const flexible = flexibleOf(ground, reckoned(ground, budget));
  return {
    ground,
    at: (a: string, month = 0) => flexible.at(a, null, first + month),
    mix: (a: string, month = 0) => flexible.mix(a, null, first + month),
  };
}
const members = (value: number) => ({ Members: { values: { [ids[0]!]: value } } });
const sales = line('s', by('members', 'fee'));

test('quantities are counted under the driver’s name, in its decimals', () => {
  const { ground } = read([sales], {
    ' hours ': { decimals: 2, values: { [ids[0]!]: 12_345 } },
  });
  const counted = countedOf(ground);
  expect(counted('Hours', 2, first)).toBe(12_345);
  expect(counted('Hours', 3, first)).toBe(123_450);
  // 123.45 in tenths, half away from zero.
  expect(counted('Hours', 1, first)).toBe(1_235);
  expect([counted('Hours', 2, first + 1), counted('Hours', 2, first + 2), counted('Days', 0, first)]).toEqual(
    [null, null, null],
  );
});

describe('a line made by drivers', () => {
  test('stands at what was counted; its price stays as planned', () => {
    expect(read([sales], members(90)).at('s')).toBe(1800_00);
    expect(read([sales], members(0)).at('s')).toBe(0);
  });
  test('a counted quantity has its own decimals', () => {
    const lines = [line('s', by('hours', 'fee'))];
    expect(read(lines, { Hours: { decimals: 0, values: { [ids[0]!]: 80 } } }).at('s')).toBe(1600_00);
    expect(read(lines, {}).at('s')).toBe(2000_00);
  });
  test('where nothing was counted, or the month is not closed or typed over, it stands as planned', () => {
    expect(read([sales], {}).at('s')).toBe(2000_00);
    const later = { Members: { values: { [ids[2]!]: 90 } } };
    expect(read([sales], later).at('s', 2)).toBe(2000_00);
    const typed = { ...sales, overrides: { [ids[0]!]: minor(5) } };
    expect(read([typed], members(90)).at('s')).toBe(5);
    // One counted factor is enough.
    expect(read([sales], { fee: { values: { [ids[0]!]: 21 } } }).at('s')).toBe(2100_00);
  });
  test('another price than was planned is no other activity, by what is said of it or by its unit', () => {
    const fee = { values: { [ids[0]!]: 21 } };
    expect(read([sales], { fee: { ...fee, over: 'none' } }).at('s')).toBe(2000_00);
    expect(read([sales], { fee: { ...fee, over: 'none' }, ...members(90) }).at('s')).toBe(1800_00);
    const paid = (unit: string) =>
      read([line('s', by('members', 'dues'))], { Dues: fee }, 1, [
        fixed('dues', 20, { name: 'Dues', unit }),
      ]).at('s');
    expect(['$ a year', 'USD/month', 'usd', 'hours'].map(paid)).toEqual([2000_00, 2000_00, 2100_00, 2100_00]);
  });
});

describe('a line that is a share of another', () => {
  const goods = line('c', share('s', '40'));
  test('follows the activity of what it is a share of, not its price', () => {
    expect(read([sales, goods], members(90)).at('c')).toBe(720_00);
  });
  test('where no activity is counted it follows what the ledger has; nothing there is nothing', () => {
    // Actual sales 1,800.00 of 2,000.00 planned.
    expect(read([sales, goods], {}).at('c')).toBe(720_00);
    expect(read([line('t', by('visitors')), line('c', share('t', '40'))], {}).at('c')).toBe(0);
  });
  test('with a lag it follows the month so far before; one that is not closed changes nothing', () => {
    const lagged = line('c', share('s', '40', { lag: 1 }));
    const { at } = read([sales, lagged], members(50));
    expect([at('c', 1), at('c', 2)]).toEqual([400_00, 800_00]);
    // The month before the budget has no plan to follow.
    expect(at('c', 0)).toBeNull();
  });
  test('is reckoned from its percentage, not from what was rounded of it', () => {
    // 0.01 % of 2,000.00 is 0.20, planned as 0; of 90 members' 1,800.00 it is 0.18.
    const rounded = line('c', share('s', '0.01', { round: 1 }));
    expect(read([sales, rounded], members(90)).at('c')).toBe(0);
    expect(read([sales, line('c', share('s', '0.01'))], members(90)).at('c')).toBe(18);
    // A third to six places: of 1,800.00 it is 599.99994, of the 666.67 planned nine tenths were 600.00.
    expect(read([sales, line('c', share('s', '33.333333'))], members(90)).at('c')).toBe(600_00);
    // 12.5 % of 2,000.00 in whole hundreds is 300; of 1,800.00 it is 225, in hundreds 200 and not nine tenths of 300.
    expect(read([sales, line('c', share('s', '12.5', { round: 100 }))], members(90)).at('c')).toBe(200_00);
  });
  test('typed months stand as planned; a share of what was not planned is one of what there is', () => {
    const typed = { ...goods, overrides: { [ids[0]!]: minor(7) } };
    expect(read([sales, typed], members(90)).at('c')).toBe(7);
    const none = line('s', byMonth({ [ids[0]!]: minor(0) }));
    expect(read([none, goods], {}).at('c')).toBe(720_00);
  });
});

describe('mix among drivers of one unit', () => {
  const both = [line('s', by('members', 'fee')), line('t', by('visitors', 'fee'))];
  const counted = { Members: { values: { [ids[0]!]: 150 } }, Visitors: { values: { [ids[0]!]: 250 } } };
  test('planned price × (counted − all that was counted × planned share)', () => {
    // As many people as planned, 400: 50 more members at 20, 50 fewer visitors at 20.
    const { mix } = read(both, counted);
    expect([mix('s'), mix('t')]).toEqual([1000_00, -1000_00]);
  });
  test('none alone, of another unit, of another kind of account, uncounted, or in a month that is not closed', () => {
    expect(read([both[0]!], counted).mix('s')).toBeNull();
    const hours = line('t', by('hours', 'fee'));
    expect(read([both[0]!, hours], { ...counted, Hours: { values: { [ids[0]!]: 10 } } }).mix('s')).toBeNull();
    const boats = line('t', by('boats', 'fee'));
    expect(read([both[0]!, boats], { ...counted, Boats: { values: { [ids[0]!]: 90 } } }).mix('s')).toBeNull();
    const cost = line('c', by('visitors', 'fee'));
    expect(read([both[0]!, cost], counted).mix('s')).toBeNull();
    expect(read(both, { Members: counted.Members }).mix('s')).toBeNull();
    expect(
      read(both, { Members: { values: { [ids[2]!]: 1 } }, Visitors: { values: { [ids[2]!]: 1 } } }).mix(
        's',
        2,
      ),
    ).toBeNull();
    expect(read(both, counted).mix('f')).toBeNull();
  });
  test('a line of another segment is no part of it', () => {
    const other = [both[0]!, { ...both[1]!, segment: 'n' }];
    expect(read(other, counted).mix('s')).toBeNull();
  });
});
