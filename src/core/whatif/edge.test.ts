import { minor } from '@/core/money';
import { range, smallPlan } from '@/core/test/smallPlan';
import { edgeOf, edgesOf, type Edge } from '.';

const edge = (income: number, variable: number, fixed: number, other = 0): Edge =>
  edgeOf({ income: minor(income), variable: minor(variable), fixed: minor(fixed), other: minor(other) });

describe('the edge', () => {
  test('as a handbook has it', () => {
    // R. Garrison, E. Noreen, P. Brewer, "Managerial Accounting", cost-volume-profit relationships, the maker of speakers:
    // 400 sold at 250, variable costs 150 each, fixed costs 35,000. Break-even at 350 of them, a margin of safety of 12,500
    // or 12.5 %, and a degree of operating leverage of 8. Figures from memory.
    expect(edge(100_000, 60_000, 35_000)).toMatchObject({
      operations: 87_500,
      safety: { amount: 12_500, percent: 12_500 },
      leverage: 8000,
    });
  });

  test('leverage says how a change of income ends in the profit', () => {
    // 10 % more income makes 80 % more profit: 5,000 becomes 9,000.
    const more = edge(110_000, 66_000, 35_000);
    expect(more.income - more.variable - more.fixed).toBe(9_000);
  });

  test('before tax, other costs are to be earned too, and other income need not be', () => {
    expect(edge(100_000, 60_000, 35_000, 1_000)).toMatchObject({ operations: 87_500, beforeTax: 90_000 });
    expect(edge(100_000, 60_000, 35_000, -1_000).beforeTax).toBe(85_000);
  });

  test('there is none where no sale leaves anything over, and no leverage without a profit', () => {
    expect(edge(100, 100, 50)).toMatchObject({
      operations: null,
      beforeTax: null,
      safety: null,
      leverage: null,
    });
    expect(edge(100, 120, 50)).toMatchObject({ operations: null, safety: null, leverage: null });
    expect(edge(0, -10, 50)).toMatchObject({ operations: null, safety: null });
    // A loss is beneath the edge: income would have to rise by half of it.
    expect(edge(100, 40, 90)).toMatchObject({
      operations: 150,
      safety: { amount: -50, percent: -50_000 },
      leverage: null,
    });
    expect(edge(100, 40, 60)).toMatchObject({ operations: 100, leverage: null });
  });
});

test('of a plan: cost of sales rises with sales, other costs do not, unless it is said', () => {
  const plain = edgesOf(smallPlan(), null, range)!;
  expect(plain.whole).toMatchObject({ income: 4_000, variable: 1_300, fixed: 1_800, other: 0 });
  // 1,800 × 4,000 ÷ 2,700.
  expect(plain.whole.operations).toBe(2_667);
  // January: 600 × 2,000 ÷ 1,200; in March nothing is sold.
  expect(plain.months.map((m) => m.operations)).toEqual([1_000, 800, null]);
  expect(plain.costs).toEqual([
    { account: 'goods', cost: 1_300, variable: 1_300 },
    { account: 'rent', cost: 1_800, variable: 0 },
  ]);
  const said = smallPlan({}, { variableShares: { rent: 25, goods: 0 } });
  expect(edgesOf(said, null, range)!.whole).toMatchObject({ variable: 450, fixed: 2_650 });
});

test('other costs count before tax, and a tax on profit does not', () => {
  const ground = smallPlan({}, {}, [
    ['fees', 'otherExpense', 'Bank fees', 100],
    ['tax', 'otherExpense', 'Income tax', 500],
    ['gift', 'otherIncome', 'Gifts', 30],
  ]);
  const { whole } = edgesOf(ground, null, { first: range.first, last: range.first })!;
  expect(whole).toMatchObject({ income: 2_000, variable: 800, fixed: 600, other: 70 });
  // 670 × 2,000 ÷ 1,200.
  expect(whole.beforeTax).toBe(1_117);
});
