import { indexOfId, type PeriodId, type PeriodIndex } from '@/core/calendar';
import { lastOf } from '@/core/lastOf';
import { actualOf, type Balances } from '@/core/ledger';
import { isProfitAndLoss, type AccountId, type Book, type Budget, type VarianceNote } from '@/core/model';
import { minor, type Minor } from '@/core/money';
import { coversPeriod } from '@/core/plan';
import { plansIn } from './comparison';
import type { Ground } from './ground';
import { plannedAt } from './outlook';
import { reckoned } from './reckoned';

/*
 * Timing that was to come back: what explanations promised of months that are closed by now, beside what came. What did not
 * come waits until someone settles it.
 */

type Timing = Extract<VarianceNote['parts'][number], { kind: 'timing' }>;

/** What a month was to bring back of an earlier one's variance. Amounts are natural: actual less plan. */
export type TimingPromise = {
  readonly account: AccountId;
  /** The month that was explained, and the part of its explanation with the place in it. */
  readonly explained: PeriodIndex;
  readonly part: number;
  readonly place: number;
  /** The month in which it was to come, which is closed. */
  readonly due: PeriodIndex;
  readonly amount: Minor;
  /** What of the month's variance is it. */
  readonly came: Minor;
  readonly kept: 'kept' | 'inPart' | 'not';
  readonly settled: Timing['back'][number]['settled'] | null;
};

/** So much of it, in percent, may be missing of what is kept all the same: amounts of trade are rarely to the cent. */
const NEAR = 10;

/** What explanations promised of the closed months, by the month in which it was to come, then account. */
export const promisesOf = (ground: Ground): readonly TimingPromise[] =>
  ground.memory.of('promises', () => lastOf(makePromises))(
    ground.book.varianceNotes,
    ground.balances,
    ground.book.budgets,
    ground.book.inForce,
    ground.closedThrough,
    ground,
  );

function makePromises(
  notes: Book['varianceNotes'],
  balances: Balances,
  budgets: Book['budgets'],
  _inForce: Book['inForce'],
  closed: PeriodIndex | null,
  ground: Ground,
): readonly TimingPromise[] {
  const { book, calendar } = ground;
  if (closed === null) return [];
  const asked: (Omit<TimingPromise, 'came' | 'kept'> & { readonly against: string | null })[] = [];
  for (const [id, byAccount] of Object.entries(notes)) {
    const explained = indexOfId(calendar, id as PeriodId);
    if (explained === null) continue;
    for (const [account, note] of Object.entries(byAccount))
      note.parts.forEach((p, part) => {
        if (p.kind !== 'timing') return;
        p.back.forEach((b, place) => {
          const due = indexOfId(calendar, b.period);
          if (due === null || due <= explained || due > closed || !balances.has(due) || b.amount === 0)
            return;
          const { against } = note;
          const settled = b.settled ?? null;
          asked.push({ account, explained, part, place, due, amount: b.amount, settled, against });
        });
      });
  }
  asked.sort((a, b) => a.due - b.due || a.explained - b.explained || a.part - b.part || a.place - b.place);
  const left = new Map<string, number>();
  return asked.map(({ against, ...promise }): TimingPromise => {
    const key = `${promise.account} ${promise.due} ${against}`;
    const variance = left.get(key) ?? varianceOf(promise.account, promise.due, against);
    const { amount } = promise;
    const came = sameWay(variance, amount)
      ? Math.sign(amount) * Math.min(Math.abs(variance), Math.abs(amount))
      : 0;
    left.set(key, variance - came);
    const missing = Math.abs(amount) - Math.abs(came);
    const kept = missing * 100 <= Math.abs(amount) * NEAR ? 'kept' : came === 0 ? 'not' : 'inPart';
    return { ...promise, came: minor(came), kept };
  });

  /** Beside the budget that it was explained against, whose figures do not know of it; else beside what was in force. */
  function varianceOf(id: AccountId, period: PeriodIndex, against: string | null): number {
    const account = book.accounts.find((a) => a.id === id);
    if (!account) return 0;
    const own = budgets.find((b) => b.id === against && coversPeriod(calendar, b, period));
    const use = isProfitAndLoss(account.kind) ? 'profit' : 'balances';
    const plans: readonly Budget[] = own ? [own] : plansIn(ground, period, use);
    const planned = plans.reduce(
      (t, b) => t + (plannedAt(reckoned(ground, b), id, 'all', period).amount ?? 0),
      0,
    );
    return (actualOf(balances, account, period) ?? 0) - planned;
  }
}

const sameWay = (a: number, b: number): boolean => a !== 0 && Math.sign(a) === Math.sign(b);

/** What waits up to a month: promises that were not kept and that nobody settled. */
export const waitingPromises = (ground: Ground, through: PeriodIndex): readonly TimingPromise[] =>
  promisesOf(ground).filter((p) => p.due <= through && p.kept !== 'kept' && p.settled === null);

/** A note after one of its promises was settled: given up, come by another way, or to come in a later month. */
export function settledNote(
  note: VarianceNote,
  promise: TimingPromise,
  how: { readonly settled: 'givenUp' | 'elsewhere' } | { readonly later: PeriodId } | null,
): VarianceNote {
  const parts = note.parts.map((p, i) => {
    if (i !== promise.part || p.kind !== 'timing') return p;
    const back = p.back.flatMap((b, k): Timing['back'] => {
      if (k !== promise.place) return [b];
      const { settled: _, ...plain } = b;
      if (how === null) return [plain];
      if ('settled' in how) return [{ ...plain, settled: how.settled }];
      // What came stays where it came; what is missing comes later.
      const missing = { period: how.later, amount: minor(b.amount - promise.came) };
      return promise.came === 0 ? [missing] : [{ ...plain, amount: promise.came }, missing];
    });
    return { ...p, back };
  });
  return { ...note, parts };
}
