/** Random choices from a seed (mulberry32, public domain): every run of a seed is the same. */
export type Random = {
  /** From 0 up to 1. */
  readonly next: () => number;
  /** A whole number from 0 up to `n`. */
  readonly below: (n: number) => number;
  readonly pick: <T>(list: readonly T[]) => T;
};

export function randomOf(seed: number): Random {
  let a = seed;
  const next = (): number => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const below = (n: number): number => Math.floor(next() * n);
  return { next, below, pick: (list) => list[below(list.length)]! };
}
