import type { DayNumber } from '@/core/calendar';
import type { CashView } from '@/core/ground';

/* Who owes the company, and whom it owes: open items, as far as they are invoices. */

/** What one of the other side owes of what is late, and for how many days at the longest. */
export type Late = { readonly counterparty: string; readonly amount: number; readonly days: number };

export type Owed = {
  readonly side: 'in' | 'out';
  /** All that is open, and what of it is late. */
  readonly open: number;
  readonly late: number;
  /** Those who owe most of what is late first. */
  readonly by: readonly Late[];
  /**
   * How it is known that something is late: lists of open items say when each is due; of items of the ledger alone it is told
   * by how long the other side takes as a rule.
   */
  readonly known: 'due' | 'usual';
};

/** What is open on a side as of a day; null where nothing is. What somebody left out of the forecast is owed all the same. */
export function owedOn({ items }: Pick<CashView, 'items'>, side: 'in' | 'out', day: DayNumber): Owed | null {
  const own = items.filter((i) => i.side === side && i.kind === 'invoice' && i.state !== 'found');
  if (own.length === 0) return null;
  const late = own.filter((i) => i.due < day);
  const by = new Map<string, { amount: number; days: number }>();
  for (const { counterparty, open, due } of late) {
    const there = by.get(counterparty) ?? { amount: 0, days: 0 };
    by.set(counterparty, { amount: there.amount + open, days: Math.max(there.days, day - due) });
  }
  const sum = (all: typeof own) => all.reduce((t, i) => t + i.open, 0);
  return {
    side,
    open: sum(own),
    late: sum(late),
    by: [...by]
      .map(([counterparty, of]) => ({ counterparty, ...of }))
      .sort((a, b) => b.amount - a.amount || (a.counterparty < b.counterparty ? -1 : 1)),
    known: own.some((i) => i.from !== null) ? 'due' : 'usual',
  };
}
