import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';

/*
 * How sure is it? Each size that may come out lower or higher is drawn, again and again, and what comes out is told by how
 * often it does. Of books nothing is known here: whoever asks says what comes out of a draw.
 */

/** A size that may come out otherwise: at least `low`, at most `high`, most likely as it is. In whole steps from `size`. */
export type Varying = {
  readonly low: number;
  readonly size: number;
  readonly high: number;
  readonly step: number;
};

/**
 * The inverse of a triangular distribution at a share of one (its well-known closed form): what lies below it of all that is
 * drawn. Square roots alone, which every engine takes alike (IEEE 754).
 */
export function triangularInverse({ low, size, high }: Omit<Varying, 'step'>, share: number): number {
  const [whole, left, right] = [high - low, size - low, high - size];
  if (whole <= 0) return size;
  return share * whole < left
    ? low + Math.sqrt(share * whole * left)
    : high - Math.sqrt((1 - share) * whole * right);
}

/** The size that a share of one stands for, in whole steps, never beyond its ends. */
export function sizeDrawn(v: Varying, share: number): number {
  const steps = Math.round((triangularInverse(v, share) - v.size) / v.step);
  const size = v.size + steps * v.step;
  return size < v.low ? size + v.step : size > v.high ? size - v.step : size;
}

/** Small seeds are nearly all zeros: so many numbers later none of that is left. */
const WARM = 64;

/** Shares of one, each drawn from 2^32 even ones by xoroshiro128+ (D. Blackman, S. Vigna): of one seed always the same. */
export function sharesFrom(seed: number): () => number {
  const generator = xoroshiro128plus(seed);
  for (let i = 0; i < WARM; i++) generator.next();
  return () => (generator.next() >>> 0) / 2 ** 32;
}

/** The value below or at which a share (of a hundred) of sorted values lies: nearest rank. */
export const nearestRank = (sorted: ArrayLike<number>, percent: number): number =>
  sorted[Math.max(0, Math.ceil((percent * sorted.length) / 100) - 1)]!;

/** What comes out of one draw. */
export type Drawn = {
  /** A figure at each of several times; as many in every draw. */
  readonly figures: ArrayLike<number>;
  /** What is broken, by name. */
  readonly broken: readonly string[];
};

export const QUANTILES = [10, 50, 90] as const;

export type Draws = {
  readonly count: number;
  /** For each time the figures at or below which 10, 50 and 90 of a hundred draws lie. */
  readonly fan: readonly (readonly [low: number, middle: number, high: number])[];
  /** In how many draws something is broken, by its name; and in how many anything is. */
  readonly broken: ReadonlyMap<string, number>;
  readonly any: number;
  /**
   * What that hangs on, for each size in the order asked: in how many draws anything is broken where the size came out in the
   * lower half of what was drawn of it, and where in the upper.
   */
  readonly hangsOn: readonly { readonly lower: number; readonly upper: number }[];
};

/** Draws; gives way after each, with how much of the way is done. */
export function* draw(
  varying: readonly Varying[],
  { seed, count }: { readonly seed: number; readonly count: number },
  ask: (sizes: readonly number[]) => Drawn,
): Generator<number, Draws, void> {
  const next = sharesFrom(seed);
  const drawn: { readonly sizes: readonly number[]; readonly of: Drawn }[] = [];
  // Days and people come in few sizes: what was drawn before is not asked again.
  const known = new Map<string, Drawn>();
  for (let n = 0; n < count; n++) {
    const sizes = varying.map((v) => sizeDrawn(v, next()));
    const key = sizes.join();
    let of = known.get(key);
    if (!of) known.set(key, (of = ask(sizes)));
    drawn.push({ sizes, of });
    yield (n + 1) / count;
  }
  const times = drawn[0]?.of.figures.length ?? 0;
  const broken = new Map<string, number>();
  for (const { of } of drawn) for (const name of of.broken) broken.set(name, (broken.get(name) ?? 0) + 1);
  const isBroken = (d: (typeof drawn)[number]) => d.of.broken.length > 0;
  return {
    count: drawn.length,
    fan: Array.from({ length: times }, (_, t) => {
      const all = Float64Array.from(drawn, (d) => d.of.figures[t]!).sort();
      const [low, middle, high] = QUANTILES.map((q) => nearestRank(all, q));
      return [low!, middle!, high!] as const;
    }),
    broken,
    any: drawn.filter(isBroken).length,
    hangsOn: varying.map((_, i) => {
      const sorted = [...drawn].sort((a, b) => a.sizes[i]! - b.sizes[i]!);
      const half = Math.floor(sorted.length / 2);
      return {
        lower: sorted.slice(0, half).filter(isBroken).length,
        upper: sorted.slice(sorted.length - half).filter(isBroken).length,
      };
    }),
  };
}
