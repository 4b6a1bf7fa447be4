import { fromDayNumber, indexOfId, type PeriodId } from '@/core/calendar';
import { isProfitAndLoss, type Budget, type Cash, type GuessedTerms } from '@/core/model';
import { ALL_SOURCES, cashOf, type CashView } from './cash';
import type { Ground } from './ground';

/* What is kept when a month is closed or a plan comes in force, so that later days stay what they are. */

/** The ends of what runs off now: once a month is closed they stay the days that they are. */
export const runOffsOf = (view: CashView): Cash['runOffEnds'] =>
  Object.fromEntries(
    [...view.projected.untold]
      .filter(([id, left]) => left !== 0 && view.input.accounts.some((a) => a.id === id))
      .map(([id]) => [id, fromDayNumber(view.input.runOffEnd(id))]),
  );

/** What a budget keeps of guesses when it comes in force: those of its accounts of which nobody said any terms. */
export function guessesOf(ground: Ground, budget: Budget): readonly GuessedTerms[] {
  const view = cashOf(ground, budget, ALL_SOURCES);
  if (!view) return [];
  const accounts = new Map(ground.book.accounts.map((a) => [a.id, a]));
  const ids = new Set((budget.approved?.lines ?? budget.lines).map((l) => l.account));
  return [...ids].flatMap((id) => {
    const account = accounts.get(id);
    if (!account || !isProfitAndLoss(account.kind)) return [];
    const { guess } = view.termsOf(account, null);
    return guess ? [{ terms: guess.terms, from: guess.from, sure: guess.sure }] : [];
  });
}

/** Whoever closes months keeps the ends of what runs off by the books as they stand, and what is guessed of plans in force. */
export function keptByClosing(
  ground: Ground,
  closes: PeriodId | null,
): {
  readonly runOffEnds?: Cash['runOffEnds'];
  readonly measuredThrough?: Cash['measuredThrough'];
  readonly guessed?: Readonly<Record<string, readonly GuessedTerms[]>>;
} {
  const at = closes === null ? null : indexOfId(ground.calendar, closes);
  if (at === null || ground.closedThrough === null || at <= ground.closedThrough) return {};
  const view = cashOf(ground, null, ALL_SOURCES);
  if (!view) return {};
  const plans = view.plans.map((p) => p.budget).filter((b) => b.guessed.length === 0);
  const guessed = Object.fromEntries(plans.map((b) => [b.id, guessesOf(ground, b)]));
  const measured = ground.book.cash.measuredThrough ?? fromDayNumber(view.input.start);
  return {
    runOffEnds: runOffsOf(view),
    measuredThrough: measured,
    ...(plans.length > 0 ? { guessed } : {}),
  };
}
