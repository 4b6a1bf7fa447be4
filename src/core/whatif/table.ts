/* Two sizes against one outcome. Of books nothing is known here: whoever asks says what comes out. */

/** A table has at most so many sizes a side. */
export const MOST_SIZES = 21;

/**
 * Sizes from one end to the other in even parts, whole steps each, in order; the present one is always among them. There are
 * as many as asked for (two at least, 21 at most), fewer where the range has no more steps.
 */
export function sizesAcross(
  [low, high]: readonly [number, number],
  count: number,
  step: number,
  present: number | null,
): readonly number[] {
  const n = Math.min(MOST_SIZES, Math.max(2, Math.round(count)));
  const whole = (at: number) => Math.min(high, low + Math.round((at - low) / step) * step);
  const sizes = [
    ...new Set(Array.from({ length: n }, (_, i) => whole(low + ((high - low) * i) / (n - 1)))),
  ].sort((a, b) => a - b);
  if (present === null || sizes.includes(present)) return sizes;
  if (sizes.length < MOST_SIZES) return [...sizes, present].sort((a, b) => a - b);
  // No more than there may be: it takes the place of its neighbor.
  const near = sizes.reduce((best, s) => (Math.abs(s - present) < Math.abs(best - present) ? s : best));
  return sizes.map((s) => (s === near ? present : s));
}

export type Table<C> = {
  readonly down: readonly number[];
  readonly across: readonly number[];
  /** By size down, then across. */
  readonly cells: readonly (readonly C[])[];
};

/** Asks for every pair of sizes; gives way after each, with how much of the way is done. */
export function* tableOf<C>(
  down: readonly number[],
  across: readonly number[],
  ask: (down: number, across: number) => C,
): Generator<number, Table<C>, void> {
  const cells: C[][] = [];
  for (const [i, a] of down.entries()) {
    const row: C[] = [];
    cells.push(row);
    for (const [k, b] of across.entries()) {
      row.push(ask(a, b));
      yield (i * across.length + k + 1) / (down.length * across.length);
    }
  }
  return { down, across, cells };
}
