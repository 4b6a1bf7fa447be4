import type { DayNumber } from '@/core/calendar';
import type { Banks } from '@/core/model';
import type { BankEntry } from './match';
import { isCovered, type BankStand, type Movement } from './stands';
import { add, hasNumberOf, hasWordsOf, NEAR } from './words';

/** An entry is cleared within so many days. */
const CLEARED_WITHIN = 60;
/** Entries without a movement are looked for among so many of the latest. */
const LATEST = 60;
/** Sums that are looked at before a search is given up. */
const MOST_SUMS = 40_000;

/** The first of some entries that come to a sum, the likelier ones first; null where none do. */
function comingTo(entries: readonly BankEntry[], sum: number): readonly BankEntry[] | null {
  type Some = { readonly entry: BankEntry; readonly before: Some | null };
  const found = new Map<number, Some | null>([[0, null]]);
  for (const entry of entries) {
    for (const [had, before] of [...found]) {
      const now = had + entry.amount;
      if (found.has(now)) continue;
      found.set(now, { entry, before });
      if (now !== sum) continue;
      const out: BankEntry[] = [];
      for (let at: Some | null = found.get(now)!; at; at = at.before) out.push(at.entry);
      return out;
    }
    if (found.size > MOST_SUMS) return null;
  }
  return null;
}

/** Movements of an account by amount, each of which clears one entry at most. */
class Clearing {
  private readonly byAmount = new Map<number, Movement[]>();
  private readonly taken = new Set<Movement>();

  constructor(movements: readonly Movement[]) {
    for (const m of movements) add(this.byAmount, m.amount, m);
  }

  /** The movement that clears an entry, one with its words before others, then the earliest. */
  of(e: BankEntry, fits: (m: Movement, e: BankEntry) => boolean = () => true): Movement | undefined {
    return this.byAmount
      .get(e.amount)
      ?.filter(
        (m) => !this.taken.has(m) && m.day >= e.day - NEAR && m.day <= e.day + CLEARED_WITHIN && fits(m, e),
      )
      .sort((a, b) => Number(hasWordsOf(b, e)) - Number(hasWordsOf(a, e)) || a.day - b.day)[0];
  }

  /** Clears entries, the surer ones first: or one takes the movement of another of the same amount. */
  clear(entries: Iterable<BankEntry>): ReadonlyMap<BankEntry, Movement> {
    const out = new Map<BankEntry, Movement>();
    const all = [...entries];
    for (const fits of [hasNumberOf, hasWordsOf, undefined])
      for (const e of all) {
        const m = out.has(e) ? undefined : this.of(e, fits);
        if (!m) continue;
        this.taken.add(m);
        out.set(e, m);
      }
    return out;
  }
}

/**
 * The entries of an account that its bank had not cleared at the closed day, with the movement that cleared each later. Days
 * that a statement covers tell by themselves. Of earlier ones what the bank held at the closed day does: entries that come to
 * what is missing of the ledger's balance. Payments come again every month and look alike, so that where this is not known a
 * later movement clears an entry only by its number.
 *
 * @param free movements after the closed day that nobody said anything of
 * @param book what the ledger has on the account at the closed day
 */
export function unclearedOf(
  { covered, movements, atStart }: BankStand,
  start: DayNumber,
  entries: readonly BankEntry[],
  free: readonly Movement[],
  said: Banks['said'],
  book: number,
): ReadonlyMap<BankEntry, Movement | null> {
  const inTime = [...entries].sort((a, b) => a.day - b.day);
  const told = inTime.filter((e) => isCovered(covered, e.day));
  const cleared = new Clearing(movements.filter((m) => m.day <= start)).clear(told);
  const open = new Set(told.filter((e) => !cleared.has(e)));
  for (const e of inTime) if (said[`entry ${e.key}`]?.as === 'open') open.add(e);
  const later = new Clearing(free);
  const untold = inTime.filter((e) => !isCovered(covered, e.day) && !open.has(e)).reverse();
  const numbered = untold.filter((e) => later.of(e, hasNumberOf));
  const missing = atStart === null ? null : book - atStart - [...open].reduce((t, e) => t + e.amount, 0);
  if (missing === null) for (const e of numbered) open.add(e);
  else if (missing !== 0) {
    const ranks = new Map(
      untold.map((e) => [e, numbered.includes(e) ? 0 : later.of(e, hasWordsOf) ? 1 : later.of(e) ? 2 : 3]),
    );
    const likely = [...untold].sort((a, b) => ranks.get(a)! - ranks.get(b)!).slice(0, LATEST);
    for (const e of comingTo(likely, missing) ?? numbered) open.add(e);
  }
  const by = later.clear(open);
  return new Map([...open].map((e) => [e, by.get(e) ?? null]));
}
