import { nameKey } from './accountCell';

/**
 * How alike two names are, 0 to 1: shared pairs of letters over all pairs (the Sørensen–Dice coefficient: Dice,
 * Ecology 26, 1945, 297–302), names compared without case and marks.
 */
export function likeness(a: string, b: string): number {
  const [x, y] = [nameKey(a), nameKey(b)];
  if (x === '' || y === '') return 0;
  if (x === y) return 1;
  const pairs = (t: string): string[] => Array.from({ length: t.length - 1 }, (_, i) => t.slice(i, i + 2));
  const [p, q] = [pairs(x), pairs(y)];
  if (p.length + q.length === 0) return 0;
  const left = new Map<string, number>();
  for (const pair of q) left.set(pair, (left.get(pair) ?? 0) + 1);
  let shared = 0;
  for (const pair of p) {
    const n = left.get(pair) ?? 0;
    if (n > 0) {
      shared++;
      left.set(pair, n - 1);
    }
  }
  return (2 * shared) / (p.length + q.length);
}
