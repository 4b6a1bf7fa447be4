import type { DayNumber } from '@/core/calendar';
import type { AccountId, Banks } from '@/core/model';
import type { CashView } from './cash';
import { closingsAt } from './keptCash';

/** Money moved between two banks of the company that would keep the floor of one and breaks none of the other. */
export type Transfer = {
  readonly from: AccountId;
  readonly to: AccountId;
  readonly day: DayNumber;
  readonly amount: number;
};

/** How a bank account with a floor of its own fares in the days ahead. */
export type BankFloor = {
  readonly account: AccountId;
  readonly floor: number;
  /** Its lowest day ahead, the first of equals. */
  readonly low: { readonly day: DayNumber; readonly amount: number };
  /** The first and the last day on which it is under its floor; null where it keeps it. */
  readonly under: { readonly from: DayNumber; readonly until: DayNumber } | null;
  /** What would mend it, as far as another bank can; null where none can, or nothing is to be mended. */
  readonly transfer: Transfer | null;
};

/**
 * Floors of single bank accounts held against the days ahead, and for each that is broken a transfer that mends it: on the
 * last day before it breaks, from the bank that can spare most from then on above its own floor (nothing, where it has none).
 * A bank spares each amount once.
 */
export function bankFloors(view: CashView, floors: Banks['floors']): readonly BankFloor[] {
  const { start, today, closing } = view.forecast;
  const days = closing.length - (today - start);
  if (Object.keys(floors).length === 0 || days <= 0) return [];
  const all = closingsAt(
    view,
    Array.from({ length: days + 1 }, (_, i) => today + i),
  );
  const banks = view.input.accounts.filter((a) => a.kind === 'bank');
  const spent = new Map<AccountId, number>();
  /** What an account can spare from a day on. */
  const spare = (account: AccountId, from: DayNumber): number => {
    const own = all.get(account);
    if (!own) return 0;
    let least = Infinity;
    for (let i = Math.max(0, from - today); i <= days; i++) least = Math.min(least, own[i]!);
    return least - (floors[account] ?? 0) - (spent.get(account) ?? 0);
  };
  return banks.flatMap(({ id }): BankFloor[] => {
    const floor = floors[id];
    if (floor === undefined) return [];
    const own = all.get(id) ?? new Float64Array(days + 1);
    let [low, from, until] = [1, 0, 0];
    for (let i = 1; i <= days; i++) {
      if (own[i]! < own[low]!) low = i;
      if (own[i]! >= floor) continue;
      if (from === 0) from = i;
      until = i;
    }
    const lowest = { day: today + low, amount: own[low]! };
    if (from === 0) return [{ account: id, floor, low: lowest, under: null, transfer: null }];
    // The day before it is missing; not a day that is known already.
    const day = Math.max(today + 1, today + from - 1);
    const others = banks
      .filter((b) => b.id !== id)
      .map((b) => ({ from: b.id, can: spare(b.id, day) }))
      .sort((a, b) => b.can - a.can);
    const [best] = others;
    const amount = best ? Math.min(floor - own[low]!, best.can) : 0;
    const transfer = best && amount > 0 ? { from: best.from, to: id, day, amount } : null;
    if (transfer) spent.set(transfer.from, (spent.get(transfer.from) ?? 0) + transfer.amount);
    return [
      {
        account: id,
        floor,
        low: lowest,
        under: { from: today + from, until: today + until },
        transfer,
      },
    ];
  });
}
