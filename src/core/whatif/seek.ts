/*
 * One size that brings an outcome to a goal. An outcome need not go one way as the size grows (a credit line moves in steps, a
 * payment comes before a low point or after it): so sizes are tried, and the answer says where none was.
 */

export type Sought = {
  /** What comes out with a size; null where nothing is known, which meets no goal. */
  readonly ask: (size: number) => number | null;
  readonly goal: number;
  /** The goal is met by at least so much, or by at most. */
  readonly meets: 'atLeast' | 'atMost';
  /** From where a change is measured: the size as it is without any. */
  readonly origin: number;
  readonly least: number;
  readonly most: number;
  readonly step: number;
};

/** A run of sizes that all meet the goal, as far as they were tried. */
export type Run = { readonly from: number; readonly to: number };

export type Answer = {
  /** The smallest change that meets the goal; null where none that was tried does. */
  readonly size: number | null;
  /** Runs of sizes that meet it, in order. */
  readonly runs: readonly Run[];
  /** Between tried sizes that answered alike others were not tried: so far apart they are at most; 0 where all were. */
  readonly untried: number;
  /** What comes out at the ends of the range. */
  readonly atLeast: number | null;
  readonly atMost: number | null;
};

/** So many steps are tried one by one; beyond them a grid of so many, and halves between two that answer otherwise. */
const ALL = 400;
const GRID = 200;

/** Seeks; gives way after each size that it tries, with how much of the way is done. */
export function* seek(s: Sought): Generator<number, Answer, void> {
  const low = Math.ceil((s.least - s.origin) / s.step);
  const high = Math.floor((s.most - s.origin) / s.step);
  const known = new Map<number, number | null>();
  const valueAt = (n: number): number | null => {
    let value = known.get(n);
    if (value === undefined) known.set(n, (value = s.ask(s.origin + n * s.step)));
    return value;
  };
  const meets = (n: number): boolean => {
    const value = valueAt(n);
    return value !== null && (s.meets === 'atLeast' ? value >= s.goal : value <= s.goal);
  };
  if (high < low) return { size: null, runs: [], untried: 0, atLeast: null, atMost: null };
  const every = high - low <= ALL ? 1 : Math.ceil((high - low) / GRID);
  const tried: number[] = [];
  for (let n = low; n < high; n += every) tried.push(n);
  tried.push(high);
  // The origin is where changes begin: what is just beside it must be known.
  if (low <= 0 && high >= 0 && !tried.includes(0)) tried.push(0);
  tried.sort((a, b) => a - b);
  for (const [i, n] of tried.entries()) {
    meets(n);
    yield (i + 1) / (tried.length + 1);
  }
  const runs: { from: number; to: number }[] = [];
  let open: number | null = meets(tried[0]!) ? tried[0]! : null;
  for (let i = 1; i < tried.length; i++) {
    const [a, b] = [tried[i - 1]!, tried[i]!];
    if (meets(a) === meets(b)) continue;
    // Halves, until two steps beside each other answer otherwise.
    let [lo, hi] = [a, b];
    while (hi - lo > 1) {
      const middle = Math.floor((lo + hi) / 2);
      if (meets(middle) === meets(a)) lo = middle;
      else hi = middle;
      yield tried.length / (tried.length + 1);
    }
    if (open === null) open = hi;
    else {
      runs.push({ from: open, to: lo });
      open = null;
    }
  }
  if (open !== null) runs.push({ from: open, to: high });
  const nearest = (r: { from: number; to: number }): number =>
    r.from <= 0 && r.to >= 0 ? 0 : r.from > 0 ? r.from : r.to;
  const best = runs
    .map(nearest)
    .sort((a, b) => Math.abs(a) - Math.abs(b) || b - a)
    .at(0);
  const sizeOf = (n: number) => s.origin + n * s.step;
  return {
    size: best === undefined ? null : sizeOf(best),
    runs: runs.map((r) => ({ from: sizeOf(r.from), to: sizeOf(r.to) })),
    untried: every === 1 ? 0 : every * s.step,
    atLeast: valueAt(low),
    atMost: valueAt(high),
  };
}

/** The answer at once, for whoever need not give way. */
export function sought(s: Sought): Answer {
  const all = seek(s);
  for (;;) {
    const next = all.next();
    if (next.done) return next.value;
  }
}
