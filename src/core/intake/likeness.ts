import { nameKey } from './accountCell';

/** Pairs of letters that follow one another, each with how often. */
function pairsOf(key: string): Map<string, number> {
  const out = new Map<string, number>();
  for (let i = 0; i + 1 < key.length; i++) {
    const pair = key.slice(i, i + 2);
    out.set(pair, (out.get(pair) ?? 0) + 1);
  }
  return out;
}

/**
 * Names to be searched for the ones most like another. How alike two names are, 0 to 1, is twice the pairs of letters
 * that they share over all their pairs (the Sørensen–Dice coefficient: Dice, Ecology 26, 1945, 297–302), without case
 * and marks. An index by pairs, since a thousand names against a thousand are a million comparisons.
 */
export class NameIndex {
  private readonly keys: readonly string[];
  private readonly byPair = new Map<string, { readonly at: number; readonly times: number }[]>();

  constructor(names: readonly string[]) {
    this.keys = names.map(nameKey);
    this.keys.forEach((key, at) => {
      for (const [pair, times] of pairsOf(key)) {
        const list = this.byPair.get(pair);
        if (list) list.push({ at, times });
        else this.byPair.set(pair, [{ at, times }]);
      }
    });
  }

  /** Likeness of a name to each of the names, by place; those that share nothing stay 0. */
  likenesses(name: string): Float64Array {
    const key = nameKey(name);
    const shared = new Float64Array(this.keys.length);
    if (key === '') return shared;
    for (const [pair, times] of pairsOf(key))
      for (const other of this.byPair.get(pair) ?? []) shared[other.at]! += Math.min(times, other.times);
    return shared.map((n, at) => {
      const other = this.keys[at]!;
      if (other === key) return 1;
      const all = key.length - 1 + other.length - 1;
      return all > 0 ? (2 * n) / all : 0;
    });
  }
}

/** How alike two names are. */
export const likeness = (a: string, b: string): number => new NameIndex([a]).likenesses(b)[0]!;
