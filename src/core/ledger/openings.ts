import { minor, plus, type Minor } from '@/core/money';
import { fromDayNumber, type DayNumber, type FiscalCalendar, type PeriodIndex } from '@/core/calendar';
import { isProfitAndLoss, type Account, type AccountId, type AccountKind } from '@/core/model';
import type { Balances } from './balances';
import { OPENING, type LedgerBlock } from './block';

/* Balances brought forward: what they must come to, and what they repeat. Amounts are debit-positive. */

/** A balance brought forward that is not what it must be; of no account, the sum of all of them. */
export type OpeningOff<A> = { readonly account: A | null; readonly theirs: Minor; readonly ours: Minor };

/** What the ledger stands at before a source's openings. */
export type Stood<A> = {
  /** Profit and loss of the fiscal year so far; what any other account stands at. */
  readonly of: (account: A) => number;
  /** Results of fiscal years before, which no closing entry has moved to equity. */
  readonly unclosed: number;
};

type Opening<A> = { readonly account: A; readonly kind: AccountKind; readonly amount: number };

/** The openings of a block, by place, and the day of the first of them; null where it has none. Later ones only repeat. */
export function openingsIn(
  block: LedgerBlock,
): { readonly day: DayNumber; readonly amounts: ReadonlyMap<number, number> } | null {
  let day = Infinity;
  for (let i = 0; i < block.count; i++) if (block.mark[i] === OPENING) day = Math.min(day, block.day[i]!);
  if (day === Infinity) return null;
  const amounts = new Map<number, number>();
  for (let i = 0; i < block.count; i++) {
    if (block.mark[i] !== OPENING || block.day[i] !== day) continue;
    const place = block.account[i]!;
    amounts.set(place, plus(amounts.get(place) ?? 0, block.amount[i]!));
  }
  return { day, amounts };
}

/**
 * What is wrong with openings. Where the ledger stands at nothing before them, they begin it: debits and credits of them
 * meet (double entry, common practice). Where it goes back further, each repeats what its account stands at; equity may
 * have taken in the results of years that the ledger has not closed.
 */
export function openingsOff<A>(openings: readonly Opening<A>[], stood: Stood<A> | null): OpeningOff<A>[] {
  if (!stood) {
    const sum = openings.reduce((t, o) => plus(t, o.amount), 0);
    return sum === 0 ? [] : [{ account: null, theirs: minor(sum), ours: minor(0) }];
  }
  const differs = openings
    .map(({ account, kind, amount }) => ({ account, kind, theirs: amount, ours: stood.of(account) }))
    // Many reports begin profit and loss at nothing in every month.
    .filter((o) => o.theirs !== o.ours && !(isProfitAndLoss(o.kind) && o.theirs === 0));
  const equity = differs.filter((o) => o.kind === 'equity');
  const moved = equity.reduce((t, o) => plus(t, plus(o.theirs, -o.ours)), 0);
  const closed = moved === 0 || moved === stood.unclosed;
  return differs
    .filter((o) => o.kind !== 'equity' || !closed)
    .map(({ account, theirs, ours }) => ({ account, theirs: minor(theirs), ours: minor(ours) }));
}

/** The last period that is over when openings of a day stand: that day may be its last, or the first of the next. */
function periodBefore(calendar: FiscalCalendar, day: DayNumber): PeriodIndex {
  const at = calendar.indexOfDay(day);
  return calendar.period(at).end === fromDayNumber(day) ? at : at - 1;
}

/**
 * What a ledger stands at before openings of a day; null where it has no balance sheet before them. `less` is what of an
 * account's opening in these balances is that of the source itself.
 */
export function stoodBefore(
  balances: Balances,
  calendar: FiscalCalendar,
  accounts: readonly Pick<Account, 'id' | 'kind'>[],
  day: DayNumber,
  less: (account: AccountId) => number = () => 0,
): Stood<AccountId> | null {
  const before = periodBefore(calendar, day);
  if (!balances.range || balances.range.first > before) return null;
  const first = calendar.firstOfYear(calendar.period(before + 1).year);
  const balance = (id: AccountId, p: PeriodIndex) => plus(balances.balance(id, p, true), -less(id));
  if (!accounts.some((a) => !isProfitAndLoss(a.kind) && balance(a.id, before) !== 0)) return null;
  const flows = new Set(accounts.filter((a) => isProfitAndLoss(a.kind)).map((a) => a.id));
  let unclosed = 0;
  for (const id of flows) unclosed = plus(unclosed, balance(id, first - 1));
  return {
    unclosed,
    of(id) {
      if (!flows.has(id)) return balance(id, before);
      let sum = 0;
      for (let p = first; p <= before; p++) sum = plus(sum, balances.movement(id, p) ?? 0);
      return sum;
    },
  };
}
