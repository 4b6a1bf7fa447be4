import fc from 'fast-check';
import { jStat } from 'jstat';
import { quantileSorted } from 'simple-statistics';
import { draw, nearestRank, sharesFrom, sizeDrawn, triangularInverse, type Draws } from '.';
import type { Drawn } from './draws';

/* Draws, beside statistics libraries and what is known of a triangular distribution. */

type Ask = (sizes: readonly number[]) => Drawn;
const drawAll = (varying: Parameters<typeof draw>[0], count: number, ask: Ask, seed = 7): Draws => {
  const way = draw(varying, { seed, count }, ask);
  for (;;) {
    const next = way.next();
    if (next.done) return next.value;
  }
};

describe('a triangular distribution', () => {
  const ends = fc
    .tuple(
      fc.integer({ min: -1000, max: 1000 }),
      fc.integer({ min: 0, max: 500 }),
      fc.integer({ min: 0, max: 500 }),
    )
    .map(([size, down, up]) => ({ low: size - down, size, high: size + up }))
    .filter((v) => v.high > v.low);

  test('its inverse is jStat’s', () => {
    fc.assert(
      fc.property(ends, fc.double({ min: 0.001, max: 0.999, noNaN: true }), (v, share) => {
        expect(triangularInverse(v, share)).toBeCloseTo(
          jStat.triangular.inv(share, v.low, v.high, v.size),
          6,
        );
      }),
    );
  });

  test('its ends and its peak are where they are said to be', () => {
    const v = { low: 0, size: 40, high: 100 };
    expect(triangularInverse(v, 0)).toBe(0);
    expect(triangularInverse(v, 0.4)).toBeCloseTo(40);
    expect(triangularInverse(v, 1)).toBe(100);
    expect(triangularInverse({ low: 5, size: 5, high: 5 }, 0.3)).toBe(5);
  });

  test('a size is drawn in whole steps from what it is, and never beyond its ends', () => {
    fc.assert(
      fc.property(
        ends,
        fc.integer({ min: 1, max: 90 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (v, step, u) => {
          const size = sizeDrawn({ ...v, step }, u);
          expect(Math.abs(size - v.size) % step).toBe(0);
          expect(size).toBeGreaterThanOrEqual(v.low);
          expect(size).toBeLessThanOrEqual(v.high);
        },
      ),
    );
  });

  test('many draws have its mean and its spread', () => {
    // Mean (a + b + c) / 3, variance (a² + b² + c² − ab − ac − bc) / 18: handbooks of statistics.
    const [low, size, high] = [-3000, 1000, 9000];
    const next = sharesFrom(11);
    const all = Array.from({ length: 20_000 }, () => sizeDrawn({ low, size, high, step: 1 }, next()));
    const mean = all.reduce((t, x) => t + x, 0) / all.length;
    const variance = all.reduce((t, x) => t + (x - mean) ** 2, 0) / all.length;
    const known = (low ** 2 + size ** 2 + high ** 2 - low * size - low * high - size * high) / 18;
    expect(Math.abs(mean - (low + size + high) / 3)).toBeLessThan(60);
    expect(Math.abs(variance / known - 1)).toBeLessThan(0.03);
  });
});

test('shares are even, and of one seed always the same', () => {
  const [one, other] = [sharesFrom(42), sharesFrom(42)];
  const all = Array.from({ length: 10_000 }, one);
  expect(Array.from({ length: 10_000 }, other)).toEqual(all);
  // The first of this seed, so that no version of the generator changes what was once said of a book.
  expect(all.slice(0, 3).map((x) => Math.floor(x * 2 ** 32))).toEqual([1831493458, 1461061492, 236677200]);
  const below = (x: number) => all.filter((a) => a < x).length / all.length;
  for (const x of [0.1, 0.25, 0.5, 0.9]) expect(Math.abs(below(x) - x)).toBeLessThan(0.015);
  expect(Math.min(...all)).toBeGreaterThanOrEqual(0);
  expect(Math.max(...all)).toBeLessThan(1);
  expect(Array.from({ length: 3 }, sharesFrom(43))).not.toEqual(all.slice(0, 3));
});

test('a nearest rank is what simple-statistics takes where that is one of the values', () => {
  // It takes what lies between two of them in parts; of a hundred and one, each hundredth is one of them.
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: -(2 ** 40), max: 2 ** 40 }), { minLength: 101, maxLength: 101 }),
      fc.integer({ min: 1, max: 99 }),
      (all, p) => {
        const sorted = [...all].sort((a, b) => a - b);
        expect(nearestRank(sorted, p)).toBeCloseTo(quantileSorted(sorted, p / 100), 1);
      },
    ),
  );
  // Of ten, the fifth is the middle and the first is the tenth part.
  expect(nearestRank([1, 2, 3, 4, 5, 6, 7, 8, 9, 10], 50)).toBe(5);
  expect(nearestRank([1, 2, 3, 4, 5, 6, 7, 8, 9, 10], 10)).toBe(1);
  expect(nearestRank([4], 10)).toBe(4);
});

describe('what comes out of draws', () => {
  const wide = { low: -100, size: 0, high: 100, step: 1 };
  const still = { low: 5, size: 5, high: 5, step: 1 };

  test('a fan of what lies below, in the middle and above', () => {
    // Each draw takes a share for every size, in order, whether it varies or not.
    const share = sharesFrom(7);
    const seen = Array.from({ length: 1001 }, () => [sizeDrawn(wide, share()), share()][0]!);
    const { fan, count } = drawAll([wide, still], 1001, ([a, b]) => {
      expect(b).toBe(5);
      return { figures: [a!, 1000 + 2 * a!, 7], broken: [] };
    });
    const sorted = [...seen].sort((a, b) => a - b);
    const of = (p: number) => quantileSorted(sorted, p);
    expect(count).toBe(1001);
    expect(fan).toEqual([
      [of(0.1), of(0.5), of(0.9)],
      [1000 + 2 * of(0.1), 1000 + 2 * of(0.5), 1000 + 2 * of(0.9)],
      [7, 7, 7],
    ]);
  });

  test('how often something breaks, and which size that hangs on', () => {
    const made = drawAll([wide, wide], 400, ([a]) => ({
      figures: [],
      broken: [...(a! > 0 ? ['floor'] : []), ...(a! > 50 ? ['covenant'] : [])],
    }));
    // As many above as below in the long run; an eighth beyond half way up.
    expect(Math.abs(made.broken.get('floor')! / 400 - 0.5)).toBeLessThan(0.08);
    expect(Math.abs(made.broken.get('covenant')! / 400 - 0.125)).toBeLessThan(0.05);
    expect(made.any).toBe(made.broken.get('floor'));
    const [first, second] = made.hangsOn;
    expect(first!.lower).toBeLessThan(20);
    expect(first!.upper).toBeGreaterThan(170);
    expect(Math.abs(second!.lower - second!.upper)).toBeLessThan(40);
    expect(first!.lower + first!.upper).toBe(made.any);
  });

  test('sizes that were drawn before are not asked again', () => {
    const asked: number[] = [];
    drawAll([{ low: 0, size: 2, high: 4, step: 1 }], 200, ([a]) => {
      asked.push(a!);
      return { figures: [a!], broken: [] };
    });
    expect([...asked].sort()).toEqual([0, 1, 2, 3, 4]);
  });

  test('one seed gives the same again, another does not; none at all gives nothing', () => {
    const ask: Ask = ([a]) => ({ figures: [a!], broken: [] });
    expect(drawAll([wide], 50, ask)).toEqual(drawAll([wide], 50, ask));
    expect(drawAll([wide], 50, ask, 8).fan).not.toEqual(drawAll([wide], 50, ask).fan);
    expect(drawAll([wide], 0, ask)).toMatchObject({ count: 0, fan: [], any: 0 });
  });
});
