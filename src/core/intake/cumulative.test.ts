import { randomOf } from '../test/random';
import { cumulativeByArithmetic } from './cumulative';

/* Twelve months of a small company, as balances since the year's start and as what moved in each: common practice of trial balances. */

const NAMES = [
  'Bank',
  'Receivables',
  'Boats',
  'Depreciated',
  'Payables',
  'Loan',
  'Capital',
  'Sales',
  'Result of lettings',
  'Exchange',
  'Wages',
  'Rent',
];
const FLOW = NAMES.map((_, i) => i >= 7);
type Figures = readonly (readonly number[])[];

/** `loss`: months in which accounts of profit and loss take back more than they bring. */
function company(seed: number, loss: boolean): { readonly balances: Figures; readonly movements: Figures } {
  const r = randomOf(seed);
  const between = (a: number, b: number) => Math.round(a + (b - a) * r.next());
  const opening = [between(5e3, 6e4), between(0, 4e4), 150e3, -between(1e4, 6e4), -between(0, 3e4), -60e3];
  const at = NAMES.map((_, i) => opening[i] ?? 0);
  at[6] = -at.reduce((t, v) => t + v, 0);
  const months = Array.from({ length: 12 }, () => {
    const moved = NAMES.map(() => 0);
    const post = (debit: string, credit: string, amount: number) => {
      moved[NAMES.indexOf(debit)]! += amount;
      moved[NAMES.indexOf(credit)]! -= amount;
    };
    post('Receivables', 'Sales', between(4e3, 4e4));
    post('Bank', 'Receivables', between(4e3, 4e4));
    post('Wages', 'Bank', between(8e3, 12e3));
    post('Rent', 'Payables', 2e3);
    post('Payables', 'Bank', between(1e3, 3e3));
    post('Loan', 'Bank', 800);
    post('Rent', 'Depreciated', 1e3);
    if (loss) {
      post('Sales', 'Receivables', between(0, 5e4));
      post('Result of lettings', 'Bank', between(-9e3, 9e3));
      post('Exchange', 'Bank', between(-4e3, 4e3));
      post('Payables', 'Wages', between(0, 9e3));
    }
    return moved;
  });
  return {
    movements: months,
    balances: months.map((moved) => at.map((_, i) => (at[i]! += moved[i]!))).map((row) => [...row]),
  };
}
const told = (figures: Figures, flow = FLOW) =>
  cumulativeByArithmetic(
    figures.map((row, t) => ({
      day: 20_000 + 30 * t,
      values: new Map(row.map((value, i) => [i, { value }])),
    })),
    flow,
    () => 2026,
  );
const seeds = Array.from({ length: 60 }, (_, i) => i);

test.each([false, true])('months with losses (%s): balances are balances', (loss) => {
  expect(seeds.filter((s) => told(company(s, loss).balances) !== true)).toEqual([]);
});
test.each([false, true])('months with losses (%s): movements are never taken for balances', (loss) => {
  expect(seeds.filter((s) => told(company(s, loss).movements) === true)).toEqual([]);
});
test('two months say something only where both statements agree', () => {
  const sheet = [100, 50, -20, -130];
  const flow = [false, false, false, false, true, true, true, true];
  const two = (then: readonly number[]) =>
    told(
      [
        [...sheet, -9, 4, 3, 2],
        [...sheet, ...then],
      ],
      flow,
    );
  expect([two([-18, 9, 5, 4]), two([-2, 1, 1, 0]), two([-18, 9, 1, 0])]).toEqual([true, null, null]);
});
test('without a balance sheet, growth alone says it', () => {
  const rows = [1, 2, 3, 4].map((m) => [-100 * m, 30 * m, 10 * m, 5 * m]);
  expect(told(rows, [true, true, true, true])).toBe(true);
  expect(
    told(
      [
        [-5, 3],
        [-9, 1],
        [-4, 6],
        [-8, 2],
      ],
      [true, true],
    ),
  ).toBe(false);
});
