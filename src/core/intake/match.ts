import type { Account, AccountKind } from '@/core/model';
import { nameKey } from './accountCell';
import type { Draft } from './draft';
import type { KindReason } from './guessKind';

/** What becomes of an account of the file: an existing one of the book, or a new one of a kind. */
export type AccountChoice = {
  readonly existing: string | null;
  readonly kind: AccountKind;
  readonly why: KindReason;
  readonly sure: boolean;
};

/** Finds each account of the file in the book, by code first, then by name; the rest are new, of the guessed kind. */
export function matchAccounts(draft: Draft, accounts: readonly Account[]): AccountChoice[] {
  const byCode = new Map(accounts.filter((a) => a.code).map((a) => [a.code, a]));
  const byName = new Map(accounts.map((a) => [nameKey(a.name), a]));
  return draft.accounts.map(({ code, name, guess }) => {
    const named = byName.get(nameKey(name));
    // A name is trusted only where codes cannot speak: two accounts may share a name under two codes.
    const found = (code && byCode.get(code)) || (named && (!code || !named.code) ? named : undefined);
    return found
      ? { existing: found.id, kind: found.kind, why: 'book', sure: true }
      : { existing: null, ...guess };
  });
}
