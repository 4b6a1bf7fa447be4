import type { CashSource } from '@/core/model';
import type { PostingBuilder, Postings } from './postings';
import type { Part } from './projected';

/*
 * What closed periods leave to come. Terms and schedules say what of them should be unpaid at the start, and when it is
 * due; balances say how much there is. Where less stands than there should, what is oldest has been paid (common practice);
 * what stands beyond it has other ways to go.
 */

/** In the account column of a pending posting: tax that falls due with the pair before it. */
export const OWED = -1;

/** What a line or a row leaves pending: pairs of postings of which one is on what is owed, each with the tax due with it. */
export type Pending = {
  /** The key of the part that it becomes. */
  readonly key: string;
  readonly source: CashSource;
  readonly postings: Postings;
  /** What of the months after the start was paid by then, if all went as planned. */
  readonly early: Postings;
  readonly scheme: string | null;
};

/** The debt among the two accounts of a pair: the one that is no bank, of two that are none the second. */
const debtOf = ({ columns: { account } }: Postings, i: number, isBank: (place: number) => boolean): number =>
  isBank(account[i + 1]!) ? i : i + 1;

type Entry = {
  readonly of: Pending;
  readonly in: Postings;
  readonly at: number;
  readonly debt: number;
  keep: number;
};

/** Pending pairs by the place of the account that they settle, oldest first. */
function entriesOf(
  all: readonly Pending[],
  which: 'postings' | 'early',
  isBank: (place: number) => boolean,
): Map<number, Entry[]> {
  const out = new Map<number, Entry[]>();
  for (const of of all) {
    const { columns, first, count } = of[which];
    for (let i = first; i < first + count;) {
      const debt = debtOf(of[which], i, isBank);
      const place = columns.account[debt]!;
      const list = out.get(place);
      const entry = { of, in: of[which], at: i, debt, keep: columns.amount[debt]! };
      if (list) list.push(entry);
      else out.set(place, [entry]);
      i += hasTax(of[which], i) ? 3 : 2;
    }
  }
  for (const list of out.values()) list.sort((a, b) => since(a) - since(b) || dayOf(a) - dayOf(b));
  return out;
}

const hasTax = ({ columns, first, count }: Postings, i: number): boolean =>
  i + 2 < first + count && columns.account[i + 2] === OWED;
const since = (e: Entry): number => e.in.columns.from[e.at]!;
const dayOf = (e: Entry): number => e.in.columns.day[e.at]!;

/** The lesser of two amounts of one sign; nothing of two that differ in it. */
const lesser = (a: number, b: number): number =>
  a * b <= 0 ? 0 : Math.sign(a) * Math.min(Math.abs(a), Math.abs(b));

/**
 * Of what should come, what the balance leaves room for: all of it where that is what stands, where it comes to nothing in
 * all, and where the account stands the other way: then the balance says nothing of it. Null: it has come.
 */
const roomFor = (stands: number, should: number): number | null =>
  should === 0 || stands === should || stands * should < 0 ? should : lesser(stands, should) || null;

/** What entries come to on the account that they settle. */
const debtsOf = (entries: readonly Entry[]): number => entries.reduce((t, e) => t + e.keep, 0);

export type Come = {
  readonly parts: readonly Part[];
  /** What falls due of taxes by day, by scheme. */
  readonly owed: readonly { readonly scheme: string; readonly postings: Postings }[];
  /** What accounts stand at beyond it, debits positive. */
  readonly left: ReadonlyMap<number, number>;
  /** Accounts that lines and rows leave something on. */
  readonly mixed: ReadonlySet<number>;
};

/** How accounts are settled, by place: by returns of a tax; by a rule that fixes what stands there; by items; day by day. */
type Ways = {
  readonly byReturn: ReadonlySet<number>;
  readonly fixed: ReadonlySet<number>;
  readonly itemized: ReadonlySet<number>;
  readonly runsOff: ReadonlySet<number>;
  readonly isBank: (place: number) => boolean;
};

/**
 * What comes of closed periods. `unsettled`: what accounts stand at without items, by place, debits positive. Beside a rule
 * that fixes a balance all comes that should (or items say what does): the rule settles the rest, whatever it is.
 */
export function comingOf(
  all: readonly Pending[],
  unsettled: ReadonlyMap<number, number>,
  { byReturn, fixed, itemized, runsOff, isBank }: Ways,
  out: PostingBuilder,
  tax: PostingBuilder,
): Come {
  const left = new Map(unsettled);
  const kept = new Map<Pending, Entry[]>();
  const keep = (e: Entry): void => {
    const own = kept.get(e.of);
    if (own) own.push(e);
    else kept.set(e.of, [e]);
  };
  const early = entriesOf(all, 'early', isBank);
  const due = entriesOf(all, 'postings', isBank);
  for (const [place, entries] of due) {
    // What was paid ahead of its month stands there too, and is none of what closed months leave.
    const stands = (unsettled.get(place) ?? 0) - debtsOf(early.get(place) ?? []);
    const should = -debtsOf(entries);
    const comes = byReturn.has(place)
      ? null
      : !fixed.has(place)
        ? roomFor(stands, should)
        : itemized.has(place)
          ? null
          : should;
    if (comes === null) continue;
    left.set(place, (unsettled.get(place) ?? 0) - comes);
    // What there is too little for has been paid: the oldest first.
    let paid = Math.abs(should) - Math.abs(comes);
    for (const e of entries) {
      if (paid > 0 && e.keep * should < 0) {
        const part = Math.min(paid, Math.abs(e.keep));
        paid -= part;
        e.keep -= Math.sign(e.keep) * part;
      }
      if (e.keep === 0) continue;
      keep(e);
    }
  }
  for (const [place, entries] of early) {
    if (byReturn.has(place)) continue;
    const should = debtsOf(entries);
    const stands = left.get(place) ?? 0;
    if (stands === should && !fixed.has(place)) {
      left.set(place, 0);
      continue;
    }
    // An account that stands the other way, for what nothing tells of, says nothing of it: it went as planned. So it does
    // beside what runs off, which stands the other way too and is not known apart.
    const unknown = fixed.has(place) || stands * should < 0 || runsOff.has(place);
    let paid = Math.abs(unknown ? should : lesser(stands, should));
    left.set(place, stands - Math.sign(should) * paid);
    // What was not paid ahead after all is paid at once.
    for (const e of entries) {
      const part = e.keep * should > 0 ? Math.min(paid, Math.abs(e.keep)) : 0;
      paid -= part;
      e.keep -= Math.sign(e.keep) * part;
      if (e.keep !== 0) keep(e);
    }
  }
  const parts: Part[] = [];
  const owed: Come['owed'][number][] = [];
  for (const of of all) {
    const entries = kept.get(of);
    if (!entries) continue;
    for (const { in: from, at, debt, keep: amount } of entries) {
      const { columns: c } = from;
      const other = debt === at ? at + 1 : at;
      const whole = c.amount[debt]!;
      out.add(c.day[at]!, c.account[other]!, -amount, -1, c.what[at]!, c.from[at]!);
      out.add(c.day[at]!, c.account[debt]!, amount, -1, c.what[at]!, c.from[at]!);
      if (of.scheme !== null && hasTax(from, at)) {
        const falls = c.amount[at + 2]!;
        const part = amount === whole ? falls : Math.round((falls / whole) * amount);
        tax.add(c.day[at]!, 0, part, -1, 0, c.day[at]!);
      }
    }
    parts.push({ of: 'pending', key: `pending ${of.key}`, source: of.source, postings: out.take() });
    const falls = tax.take();
    if (of.scheme !== null && falls.count > 0) owed.push({ scheme: of.scheme, postings: falls });
  }
  return { parts, owed, left, mixed: new Set([...early.keys(), ...due.keys()]) };
}

/** What postings come to; on one account, by its place, where one is given. */
export function sumOf({ columns, first, count }: Postings, account: number | null = null): number {
  let sum = 0;
  for (let i = first; i < first + count; i++)
    if (account === null || columns.account[i] === account) sum += columns.amount[i]!;
  return sum;
}
