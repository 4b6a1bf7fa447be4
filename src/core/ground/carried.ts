import { indexOfId, type FiscalCalendar, type PeriodId, type PeriodIndex } from '@/core/calendar';
import { minor, ZERO, type Minor } from '@/core/money';
import type { AccountId, Book, VarianceNote } from '@/core/model';
import { lastOf } from '@/core/lastOf';
import type { Ground } from './ground';

/**
 * What explained variances add to the plan of a month that is to come: what comes back of timing, and what goes on. What
 * was said last of an account's lasting variances holds: a later month's explanation takes the place of an earlier one's.
 */
export type Carried = (account: AccountId, period: PeriodIndex) => Minor;

type OfAccount = {
  readonly back: Map<PeriodIndex, number>;
  /** Months that explain lasting variances, with how much goes on from each, and until when (included; null: without end). */
  readonly lasting: {
    readonly from: PeriodIndex;
    readonly parts: readonly { readonly monthly: number; readonly until: PeriodIndex | null }[];
  }[];
};

/** Of what was explained against a budget, whatever month is asked for. Periods that the calendar has not are left out. */
export function carriedBy(notes: Book['varianceNotes'], calendar: FiscalCalendar, budget: string): Carried {
  const of = new Map<AccountId, OfAccount>();
  for (const [id, byAccount] of Object.entries(notes)) {
    const period = indexOfId(calendar, id as PeriodId);
    if (period === null) continue;
    for (const [account, note] of Object.entries(byAccount)) {
      if (note.against !== budget) continue;
      const all = of.get(account) ?? { back: new Map(), lasting: [] };
      of.set(account, all);
      read(note, period, calendar, all);
    }
  }
  for (const { lasting } of of.values()) lasting.sort((a, b) => b.from - a.from);
  return (account, period) => {
    const all = of.get(account);
    if (!all) return ZERO;
    let sum = all.back.get(period) ?? 0;
    const last = all.lasting.find((l) => l.from < period);
    for (const { monthly, until } of last?.parts ?? []) if (until === null || period <= until) sum += monthly;
    return minor(sum);
  };
}

function read(
  note: VarianceNote,
  period: PeriodIndex,
  calendar: FiscalCalendar,
  { back, lasting }: OfAccount,
): void {
  const parts: OfAccount['lasting'][number]['parts'][number][] = [];
  for (const part of note.parts) {
    if (part.kind === 'timing')
      for (const b of part.back) {
        const at = indexOfId(calendar, b.period);
        // What comes back comes back later.
        if (at !== null && at > period) back.set(at, (back.get(at) ?? 0) + b.amount);
      }
    if (part.kind === 'lasting') {
      const until = part.until === null ? null : indexOfId(calendar, part.until);
      parts.push({ monthly: part.monthly, until: part.until === null ? null : (until ?? period) });
    }
  }
  if (parts.length > 0) lasting.push({ from: period, parts });
}

/** What is carried of a budget, remembered while explanations stay. A revision knows already what was explained before it. */
export const carriedOf = ({ book, calendar, memory }: Ground, budget: string): Carried =>
  memory.of(`carried ${budget}`, () => lastOf(carriedBy))(book.varianceNotes, calendar, budget);
