import fc from 'fast-check';
import { MOST_SIZES, sizesAcross } from '.';
import { tableOf } from './table';

describe('sizes of a table', () => {
  test('go from end to end in even parts, whole steps, the present one among them', () => {
    expect(sizesAcross([-10, 10], 5, 1, 0)).toEqual([-10, -5, 0, 5, 10]);
    expect(sizesAcross([-10, 10], 5, 1, 3)).toEqual([-10, -5, 0, 3, 5, 10]);
    expect(sizesAcross([0, 1000], 4, 100, null)).toEqual([0, 300, 700, 1000]);
    // No more steps than there are; a present size outside of the range is still there.
    expect(sizesAcross([0, 2], 11, 1, 9)).toEqual([0, 1, 2, 9]);
    // Of the most there may be, the nearest gives way.
    expect(sizesAcross([0, 200], 21, 1, 52)).toEqual(
      Array.from({ length: 21 }, (_, i) => (i === 5 ? 52 : 10 * i)),
    );
  });

  test('are in order, never too many, and within the ends but for the present one', () => {
    const asked = fc.record({
      low: fc.integer({ min: -5000, max: 5000 }),
      more: fc.integer({ min: 0, max: 5000 }),
      count: fc.integer({ min: -3, max: 50 }),
      step: fc.constantFrom(1, 10, 100),
      present: fc.option(fc.integer({ min: -9000, max: 9000 })),
    });
    fc.assert(
      fc.property(asked, ({ low, more, count, step, present }) => {
        const all = sizesAcross([low, low + more], count, step, present);
        expect(all.length).toBeLessThanOrEqual(MOST_SIZES);
        expect([...new Set(all)].sort((a, b) => a - b)).toEqual(all);
        for (const s of all) if (s !== present) expect(s >= low && s <= low + more).toBe(true);
        if (present !== null) expect(all).toContain(present);
      }),
    );
  });
});

test('a table asks for each pair once, and says how far it is', () => {
  const way = tableOf([1, 2], [10, 20, 30], (a, b) => a * b);
  const shares: number[] = [];
  for (;;) {
    const next = way.next();
    if (next.done) {
      expect(next.value.cells).toEqual([
        [10, 20, 30],
        [20, 40, 60],
      ]);
      break;
    }
    shares.push(next.value);
  }
  expect(shares).toHaveLength(6);
  expect(shares.at(-1)).toBe(1);
  expect(shares[0]).toBeCloseTo(1 / 6);
});
