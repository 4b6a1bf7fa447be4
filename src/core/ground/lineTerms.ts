import type { Guess } from '@/core/cash';
import {
  termsKey,
  type Account,
  type AccountId,
  type Budget,
  type SegmentId,
  type Terms,
} from '@/core/model';

/* Whose terms a line goes by: its own, as they were said; what its plan keeps of guesses; what is guessed now. */

/** Terms that were said of a line: of itself, its account, its group, its kind. */
export function saidTerms(
  all: ReadonlyMap<string, Terms>,
  account: Account,
  segment: SegmentId,
): Terms | null {
  if (all.size === 0) return null;
  const own = { of: 'account', account: account.id } as const;
  return (
    all.get(termsKey({ of: own, segment })) ??
    all.get(termsKey({ of: own })) ??
    (account.group === ''
      ? undefined
      : all.get(termsKey({ of: { of: 'group', kind: account.kind, group: account.group } }))) ??
    all.get(termsKey({ of: { of: 'kind', kind: account.kind } })) ??
    null
  );
}

/** How a line's money goes: said by someone, or guessed. */
export type LineTerms = {
  readonly terms: Terms;
  readonly guess: Guess | null;
  /** What would be guessed now, of a guess that the plan keeps. */
  readonly newer?: Guess;
};

const keptBy = new WeakMap<Budget['guessed'], ReadonlyMap<AccountId, Budget['guessed'][number]>>();
/** What a budget keeps of guesses, by account. */
export function keptGuesses(guessed: Budget['guessed']): ReadonlyMap<AccountId, Budget['guessed'][number]> {
  let of = keptBy.get(guessed);
  if (!of)
    keptBy.set(
      guessed,
      (of = new Map(
        guessed.flatMap((g) => (g.terms.of.of === 'account' ? [[g.terms.of.account, g] as const] : [])),
      )),
    );
  return of;
}
