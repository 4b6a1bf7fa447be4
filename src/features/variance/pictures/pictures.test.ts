import { minor } from '@/core/money';
import { comparedWith } from '@/core/report';
import { account, calendar } from '@/core/test/build';
import { groundWith, STANDARD } from '@/core/test/variance';
import { drawing, type WaterfallStep } from '@/components/waterfallDrawing';
import { marksOf } from './marks';
import { cumulated, yearSeries } from './series';

const first = calendar.firstOfYear(2026);
const token = (name: string) => name;
const ground = groundWith({
  accounts: [account('s', 'income', 'Sales', '4000')],
  actual: (_, p) => (p <= first + 2 ? minor(110 + p - first) : null),
  budget: (_, p) => minor(100 + p - first),
  through: first + 2,
});
const series = yearSeries(ground, comparedWith(ground, first + 2, STANDARD, null), first + 2);
const sales = series.rows.find((r) => r.account === 's')!;

test('a line’s months: what was, what was planned, what is expected after it', () => {
  expect(series.labels).toHaveLength(12);
  const { actual, budget, outlook, lastYear } = series.of(sales);
  expect(actual.slice(0, 4)).toEqual([110, 111, 112, null]);
  expect(budget.slice(0, 4)).toEqual([100, 101, 102, 103]);
  expect(outlook.slice(0, 4)).toEqual([110, 111, 112, 103]);
  expect(lastYear.every((m) => m === null)).toBe(true);
});

test('sums from the first month on end with the last month that says anything', () => {
  expect(cumulated([minor(1), null, minor(2), null])).toEqual([1, 1, 3, null]);
  expect(cumulated([null, null])).toEqual([null, null]);
});

/*
 * The notation of business reports (ISO 24896, after the IBCS standards; from memory): time runs from left to right;
 * what was is solid and dark, what is planned outlined and empty, what is expected hatched, the year before lighter;
 * good and bad differences are told apart, and by more than color: the text says F or U.
 */
describe('the notation of what is actual, planned, expected and before', () => {
  const [before, planned, expected, was] = marksOf(series, sales, token, { xaxis: 'x', yaxis: 'y' }, 1) as {
    x: number[];
    y: (number | null)[];
    marker: { color: string; line?: { color: string }; pattern?: { shape: string }; opacity?: number };
  }[];
  test('in a line’s months', () => {
    expect(was!.marker).toEqual({ color: '--ink' });
    expect(planned!.marker).toMatchObject({ color: 'rgba(0,0,0,0)', line: { color: '--plan-line' } });
    expect(expected!.marker.pattern).toMatchObject({ shape: '/' });
    expect(before!.marker.opacity).toBeLessThan(1);
    // Expected are the months to come alone: what was stands by itself.
    expect(expected!.y.slice(0, 4)).toEqual([null, null, null, 103]);
    for (const { x } of [before!, planned!, expected!, was!]) expect(x).toEqual(x.toSorted((a, b) => a - b));
  });
  const steps: WaterfallStep[] = [
    { label: 'Budget', value: 100, text: '100', kind: 'budget' },
    { label: 'Sales', value: 30, text: '+30 F', kind: 'good' },
    { label: 'Wages', value: -50, text: '+50 U', kind: 'bad' },
    { label: 'Actual', value: 80, text: '80', kind: 'actual' },
    { label: 'Outlook', value: -20, text: '(20)', kind: 'outlook' },
  ];
  type Bars = ReturnType<typeof read>[number];
  const read = (of: readonly WaterfallStep[]) =>
    drawing(of, token).data as {
      x: number[];
      y: number[];
      base: number[];
      marker: { color: string[]; pattern?: { shape: string } };
    }[];
  const shapesOf = (of: readonly WaterfallStep[]) =>
    (drawing(of, token).layout as { shapes: object[] }).shapes;
  test('in a way from one result to another, whose steps begin where the last one ended', () => {
    const [{ y, base, marker }, over] = read(steps) as [Bars, Bars];
    expect(base.map((b, i) => [b, b + y[i]!])).toEqual([
      [0, 100],
      [100, 130],
      [130, 80],
      [0, 80],
      [0, -20],
    ]);
    expect(marker.color).toEqual(['rgba(0,0,0,0)', '--good', '--bad', '--ink', '--sheet']);
    // Hatched is the outlook alone, over its plain bar.
    expect([over.x, over.y, over.marker.pattern?.shape]).toEqual([[4], [-20], '/']);
  });
  test('small steps beside large results: the axis begins near them, and every bar still ends where it should', () => {
    const large = [
      { ...steps[0]!, value: 100_000 },
      { ...steps[1]!, value: 300 },
      { ...steps[3]!, value: 100_300 },
    ];
    const [{ y, base }] = read(large) as [Bars, Bars];
    expect(base[0]).toBeGreaterThan(90_000);
    expect(base.map((b, i) => b + y[i]!)).toEqual([100_000, 100_300, 100_300]);
    // The whole bars alone are cut, and say so above where they begin.
    const marks = shapesOf(large) as { x0: number; x1: number; y0: number; y1: number }[];
    expect([...new Set(marks.map((m) => (m.x0 + m.x1) / 2))]).toEqual([0, 2]);
    for (const m of marks) expect(Math.min(m.y0, m.y1)).toBeGreaterThan(base[0]!);
  });
  test('bars from zero on have no such mark; below zero there is the line that they hang from', () => {
    expect(shapesOf(steps)).toMatchObject([{ y0: 0, y1: 0 }]);
    const above = [steps[0]!, { ...steps[1]!, value: 900 }, { ...steps[3]!, value: 1_000 }];
    expect(shapesOf(above)).toEqual([]);
  });
  test('what is too large to be told draws nothing and breaks nothing', () => {
    expect(read([{ ...steps[0]!, value: Number.NaN }, steps[3]!])[0]!.y[0]).toBe(0);
  });
});
