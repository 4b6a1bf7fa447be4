import { indexOfId, type FiscalCalendar, type PeriodId, type PeriodIndex } from '@/core/calendar';
import { minor, plus, type Minor } from '@/core/money';
import { daySpan, entriesOf, viewOfSegments, type Entry, type LedgerBlock, type View } from '@/core/ledger';
import {
  natural,
  type Account,
  type AccountId,
  type Book,
  type ExplanationPart,
  type SegmentId,
} from '@/core/model';
import { lastOf } from '@/core/lastOf';
import type { Ground } from './ground';

export type WrongEntry = Extract<ExplanationPart, { kind: 'wrongEntry' }>['entries'][number];

/** What became of an entry that was called wrong. */
export type WrongState =
  /** It stands where it stood: reports show it where it belongs. */
  | { readonly state: 'shown' }
  /** A later entry puts it right: both months are shown as if it had been right from the start. */
  | { readonly state: 'corrected'; readonly in: PeriodIndex }
  /** The ledger has it no more: it was corrected where it is kept, and nothing is shown otherwise. */
  | { readonly state: 'gone' };

export type WrongShown = {
  readonly period: PeriodIndex;
  readonly account: AccountId;
  readonly to: AccountId;
  readonly entry: WrongEntry;
} & WrongState;

/** Entries that stand in an account that they do not belong to, shown where they belong until the ledger has it. */
export type Reclassified = {
  readonly entries: readonly WrongShown[];
  /** What is added to the ledger's movement of an account in a period, debits positive. */
  readonly movement: (account: AccountId, period: PeriodIndex) => Minor;
  /** The same up to the end of a period, for balances. */
  readonly balance: (account: AccountId, period: PeriodIndex) => Minor;
};

const NOTHING: Reclassified = {
  entries: [],
  movement: () => minor(0),
  balance: () => minor(0),
};

const sameEntry = (e: Entry, w: WrongEntry): boolean =>
  e.day === w.day &&
  e.amount === w.amount &&
  e.reference === w.reference &&
  e.counterparty === w.counterparty;

/** What was called wrong in the notes, found again in the entries of a view. */
export function reclassifiedBy(
  notes: Book['varianceNotes'],
  blocks: readonly LedgerBlock[],
  calendar: FiscalCalendar,
  view: View,
): Reclassified {
  const said = Object.entries(notes).flatMap(([id, byAccount]) => {
    const period = indexOfId(calendar, id as PeriodId);
    return period === null
      ? []
      : Object.entries(byAccount).flatMap(([account, note]) =>
          note.parts.flatMap((part) => (part.kind === 'wrongEntry' ? [{ period, account, part }] : [])),
        );
  });
  if (said.length === 0) return NOTHING;
  const all = new Map<string, Entry[]>();
  const first = Math.min(...said.map((s) => s.period));
  // What corrects an entry is dated after it, however late.
  const days = daySpan(blocks);
  if (!days) return NOTHING;
  const last = Math.max(first, calendar.indexOfDay(days.high));
  const entriesIn = (account: AccountId): Entry[] => {
    let list = all.get(account);
    if (!list) all.set(account, (list = entriesOf(blocks, calendar, account, { first, last }, view)));
    return list;
  };
  const taken = new Set<Entry>();
  const moves = new Map<AccountId, Map<PeriodIndex, number>>();
  const move = (account: AccountId, period: PeriodIndex, amount: number) => {
    const of = moves.get(account) ?? new Map<PeriodIndex, number>();
    moves.set(account, of);
    of.set(period, plus(of.get(period) ?? 0, amount));
  };
  const periodOf = periodsByDay(calendar, first, last);
  /** An entry that takes a wrong one back, with the one that puts it where it belongs. */
  const correctionOf = (wrong: Entry, from: AccountId, to: AccountId): readonly Entry[] | null => {
    for (const back of entriesIn(from)) {
      if (taken.has(back) || back.day < wrong.day || back.amount !== -wrong.amount) continue;
      const there = entriesIn(to).find(
        (e) =>
          !taken.has(e) && e.day === back.day && e.amount === wrong.amount && e.reference === back.reference,
      );
      if (there) return [back, there];
    }
    return null;
  };
  const entries = said.flatMap(({ period, account, part }) =>
    part.entries.map((entry): WrongShown => {
      const place = { period, account, to: part.to, entry };
      const found = entriesIn(account).find((e) => !taken.has(e) && sameEntry(e, entry));
      if (!found || part.to === account) return { ...place, state: 'gone' };
      taken.add(found);
      const at = periodOf(found.day);
      const correction = correctionOf(found, account, part.to);
      move(account, at, -entry.amount);
      move(part.to, at, entry.amount);
      if (!correction) return { ...place, state: 'shown' };
      correction.forEach((e) => taken.add(e));
      const later = periodOf(correction[0]!.day);
      move(account, later, entry.amount);
      move(part.to, later, -entry.amount);
      return { ...place, state: 'corrected', in: later };
    }),
  );
  return {
    entries,
    movement: (account, period) => minor(moves.get(account)?.get(period) ?? 0),
    balance(account, period) {
      let sum = 0;
      for (const [at, amount] of moves.get(account) ?? []) if (at <= period) sum = plus(sum, amount);
      return minor(sum);
    },
  };
}

/** What a month shows in an account though the ledger has it in others: from where, and how much of it (natural to the account). */
export const cameInto = (
  ground: Ground,
  account: Account,
  period: PeriodIndex,
): readonly { readonly from: AccountId; readonly amount: Minor }[] => {
  const sums = new Map<AccountId, number>();
  for (const e of reclassifiedOf(ground, null, 'all').entries)
    if (e.to === account.id && e.period === period && e.state === 'shown')
      sums.set(e.account, plus(sums.get(e.account) ?? 0, natural(account.kind, e.entry.amount)));
  return [...sums].map(([from, amount]) => ({ from, amount: minor(amount) }));
};

/** The period of a day's text, among those of a range. */
function periodsByDay(
  calendar: FiscalCalendar,
  first: PeriodIndex,
  last: PeriodIndex,
): (day: string) => PeriodIndex {
  return (day) => {
    for (let p = first; p < last; p++) if (day <= calendar.period(p).end) return p;
    return last;
  };
}

const makeReclassified = () => lastOf(reclassifiedBy);
const makeView = () =>
  lastOf((view: View, axis: Book['axes'][number], segment: SegmentId): View =>
    viewOfSegments(view, [{ axis, values: [segment] }]),
  );

/** What is reclassified in the whole company, or in one segment of an axis. */
export function reclassifiedOf(
  { book, blocks, calendar, view, memory }: Ground,
  axisId: string | null,
  segment: SegmentId | 'all',
): Reclassified {
  const axis = axisId === null ? undefined : book.axes.find((a) => a.id === axisId);
  const key = `reclassified ${axis && segment !== 'all' ? `${axis.id} ${segment ?? ''}` : ''}`;
  const own = axis && segment !== 'all' ? memory.of(`view of ${key}`, makeView)(view, axis, segment) : view;
  return memory.of(key, makeReclassified)(book.varianceNotes, blocks, calendar, own);
}
