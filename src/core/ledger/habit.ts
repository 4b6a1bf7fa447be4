import { divideRounded, ZERO, type Minor } from '@/core/money';

/** How a month stands out against its account's own habit. */
export type OddMonth = {
  /** Place in the list of months. */
  readonly at: number;
  readonly kind: 'lump' | 'double' | 'low' | 'gap' | 'sign' | 'outside';
  /** The account's usual month (median), for the reason. */
  readonly usual: Minor;
};

/** Beyond this a value counts as an outlier: Iglewicz and Hoaglin's recommendation (see `oddMonths`). */
const CUTOFF = 3.5;
/** A difference of less than a quarter of the usual month is no news, however steady the account. */
const WORTH = 0.25;
const FEWEST = 6;
/** An account that moves in three months of four or more has a monthly habit. */
const MONTHLY = 0.75;

/**
 * The months that stand out against the account's own habit; `values` are natural amounts of months that follow one
 * another, null where the ledger is silent.
 *
 * Judged by the modified z-score 0.6745 × (x − median) ÷ MAD, outliers beyond 3.5 (B. Iglewicz and D. Hoaglin, How to
 * Detect and Handle Outliers, 1993; also in the NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.5.17); where more
 * than half of the months are alike and MAD is zero, by the mean absolute deviation instead, (x − median) ÷ (1.2533 ×
 * meanAD). Median and MAD are not moved by the very months that are looked for, as mean and standard deviation would
 * be. An account that moves in fewer than three months of four has no monthly habit: there a month that holds half of
 * its twelve months or more is a lump. A month that is like the same month of another year is a habit, and not marked.
 */
export function oddMonths(
  values: readonly (Minor | null)[],
  bounds: { readonly low: Minor | null; readonly high: Minor | null } = { low: null, high: null },
): OddMonth[] {
  const filled = values.flatMap((v, at) => (v !== null && v !== 0 ? [{ at, v: v as number }] : []));
  const outside = bounded(values, bounds);
  if (filled.length === 0) return outside;
  const first = filled[0]!.at;
  const last = filled.at(-1)!.at;
  const span = last - first + 1;
  const odd = new Map<number, OddMonth>();
  /** Whether the same month of another year is like it: what comes every year is a habit. */
  const again = (at: number): boolean =>
    [at - 12, at + 12].some((o) => {
      if (o < first || o > last) return false;
      const [now, then] = [values[at] ?? 0, values[o] ?? 0];
      return Math.abs(then - now) <= Math.abs(now) * 0.35;
    });
  if (span >= FEWEST && filled.length >= span * MONTHLY) {
    const middle = median(filled.map((f) => f.v));
    // Between two months the middle may be half a cent; what is shown is a whole one.
    const usual = divideRounded(middle * 2, 1, 2, 'halfAwayFromZero');
    const score = scorer(
      filled.map((f) => f.v),
      middle,
    );
    const against = filled.filter((f) => Math.sign(f.v) === -Math.sign(usual));
    for (const { at, v } of filled) {
      if (again(at)) continue;
      if (against.length <= filled.length * 0.1 && Math.sign(v) === -Math.sign(usual))
        odd.set(at, { at, kind: 'sign', usual });
      else if (Math.abs(score(v)) > CUTOFF && Math.abs(v - usual) > Math.abs(usual) * WORTH) {
        const ratio = v / usual;
        const more = Math.abs(v) > Math.abs(usual);
        const kind = !more ? 'low' : ratio > 1.8 && ratio < 2.2 ? 'double' : 'lump';
        odd.set(at, { at, kind, usual });
      }
    }
    for (let at = first + 1; at < last; at++)
      if (!values[at] && !odd.has(at) && !again(at)) odd.set(at, { at, kind: 'gap', usual });
  } else if (values.length >= FEWEST) {
    for (const { at, v } of filled) {
      const from = Math.max(0, Math.min(at - 6, values.length - 12));
      const year = values.slice(from, from + 12);
      const total = year.reduce<number>((t, x) => t + Math.abs(x ?? 0), 0);
      if (Math.abs(v) >= total * 0.5 && !again(at)) odd.set(at, { at, kind: 'lump', usual: ZERO });
    }
  }
  for (const o of outside) if (!odd.has(o.at)) odd.set(o.at, o);
  return [...odd.values()].sort((a, b) => a.at - b.at);
}

/** Months beyond the bounds that the person gave the account. */
function bounded(
  values: readonly (Minor | null)[],
  { low, high }: { readonly low: Minor | null; readonly high: Minor | null },
): OddMonth[] {
  return values.flatMap((v, at): OddMonth[] => {
    if (v === null) return [];
    if (low !== null && v < low) return [{ at, kind: 'outside', usual: low }];
    return high !== null && v > high ? [{ at, kind: 'outside', usual: high }] : [];
  });
}

/** The middle value, or the mean of the two middle ones. */
export function median(list: readonly number[]): number {
  const s = [...list].sort((a, b) => a - b);
  const half = s.length >> 1;
  return s.length % 2 ? s[half]! : (s[half - 1]! + s[half]!) / 2;
}

function scorer(list: readonly number[], middle: number): (v: number) => number {
  const distances = list.map((v) => Math.abs(v - middle));
  const mad = median(distances);
  if (mad > 0) return (v) => (0.6745 * (v - middle)) / mad;
  const mean = distances.reduce((t, d) => t + d, 0) / distances.length;
  return mean > 0 ? (v) => (v - middle) / (1.2533 * mean) : () => 0;
}
