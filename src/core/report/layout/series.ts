import { plus, minor, type Minor } from '@/core/money';
import type { PeriodIndex } from '@/core/calendar';
import type { Account, AccountId } from '@/core/model';
import type { Scope, Side } from './sides';

/** What amounts of several periods come to: their sum, the last of them, the first, or what their side says. */
export type Roll = 'sum' | 'last' | 'first' | 'none';

/** Not asked for yet, and asked for with nothing to say. No amount is either. */
const UNKNOWN = Number.NEGATIVE_INFINITY;
const BLANK = Number.POSITIVE_INFINITY;

/** A side that remembers its months, so that another month to look at is another sum over what is known. */
export type Remembered = Omit<Side, 'over'> & {
  /** Over several periods: their sum, the last of them, the first, or nothing. Blank where all of them are. */
  readonly over: (
    account: Account,
    scope: Scope,
    periods: readonly PeriodIndex[],
    roll: Roll,
  ) => Minor | null;
};

/** Remembers the months of a side between two periods. */
export function remembered(side: Side, first: PeriodIndex, last: PeriodIndex): Remembered {
  const width = last - first + 1;
  const made = new Map<Scope, Map<AccountId, Float64Array>>();
  // Whoever asks for one figure of an account asks for the others next.
  let lastAccount: Account | null = null;
  let lastScope: Scope = 'all';
  let lastMonths: Float64Array = new Float64Array(0);
  const monthsOf = (account: Account, scope: Scope): Float64Array => {
    if (account === lastAccount && scope === lastScope) return lastMonths;
    lastAccount = account;
    lastScope = scope;
    return (lastMonths = findMonths(account, scope));
  };
  const findMonths = (account: Account, scope: Scope): Float64Array => {
    let byAccount = made.get(scope);
    if (!byAccount) made.set(scope, (byAccount = new Map()));
    let months = byAccount.get(account.id);
    if (!months) byAccount.set(account.id, (months = new Float64Array(width).fill(UNKNOWN)));
    return months;
  };
  const ask = (months: Float64Array, account: Account, scope: Scope, p: PeriodIndex): number => {
    const at = p - first;
    if (at < 0 || at >= width) return side.at(account, scope, p) ?? BLANK;
    const known = months[at]!;
    return known === UNKNOWN ? (months[at] = side.at(account, scope, p) ?? BLANK) : known;
  };
  const wholes = new Map<Scope, Map<AccountId, Map<number, Minor | null>>>();
  return {
    ...side,
    whole(account, scope, year) {
      let byAccount = wholes.get(scope);
      if (!byAccount) wholes.set(scope, (byAccount = new Map()));
      let byYear = byAccount.get(account.id);
      if (!byYear) byAccount.set(account.id, (byYear = new Map()));
      let known = byYear.get(year);
      if (known === undefined) byYear.set(year, (known = side.whole(account, scope, year)));
      return known;
    },
    at(account, scope, p) {
      const value = ask(monthsOf(account, scope), account, scope, p);
      return value === BLANK ? null : (value as Minor);
    },
    over(account, scope, periods, roll) {
      if (periods.length === 0) return null;
      if (side.over) return side.over(account, scope, periods);
      if (roll === 'none') return null;
      const months = monthsOf(account, scope);
      if (roll !== 'sum') {
        const value = ask(months, account, scope, roll === 'last' ? periods.at(-1)! : periods[0]!);
        return value === BLANK ? null : (value as Minor);
      }
      let sum = 0;
      let any = false;
      for (let i = 0; i < periods.length; i++) {
        const value = ask(months, account, scope, periods[i]!);
        if (value === BLANK) continue;
        sum = plus(sum, value);
        any = true;
      }
      return any ? minor(sum) : null;
    },
  };
}
