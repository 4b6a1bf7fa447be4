import { isProfitAndLoss, type Account, type AccountKind } from '@/core/model';
import { nameKey } from './accountCell';
import type { DraftAccount } from './draft';
import type { KindReason } from './guessKind';
import { NameIndex } from './likeness';

/** What becomes of an account of the file: an existing one of the book, or a new one of a kind. */
export type AccountChoice = {
  readonly existing: string | null;
  readonly kind: AccountKind;
  readonly group: string;
  readonly why: KindReason;
  readonly sure: boolean;
  /** An account of the book that this one may be under another code or name; the person decides. */
  readonly maybe: { readonly id: string; readonly by: 'name' | 'likeness' } | null;
  /** The existing account takes the file's code and name. */
  readonly rename: boolean;
};

/** Below this, two names are no more alike than chance makes names of one trade. */
const ALIKE = 0.62;

/**
 * Finds each account of the file in the book, by code first, then by name; the rest are new, of the guessed kind,
 * some with an account of the book that they may be: of the same name under another code, or of a like name, and on
 * the same statement, that no other account of the file is.
 */
export function matchAccounts(
  draft: { readonly accounts: readonly DraftAccount[] },
  accounts: readonly Account[],
): AccountChoice[] {
  const byCode = new Map(accounts.filter((a) => a.code).map((a) => [a.code, a]));
  const byName = new Map(accounts.map((a) => [nameKey(a.name), a]));
  const found = draft.accounts.map(({ code, name }) => {
    const named = byName.get(nameKey(name));
    // A name is trusted only where codes cannot speak: two accounts may share a name under two codes.
    return (code && byCode.get(code)) || (named && (!code || !named.code) ? named : undefined);
  });
  const claimed = new Set(found.flatMap((a) => (a ? [a.id] : [])));
  const free = accounts.filter((a) => !claimed.has(a.id));
  const index = new NameIndex(free.map((a) => a.name));
  return draft.accounts.map(({ name, group, guess, also }, i): AccountChoice => {
    const one = also === undefined;
    const account = found[i];
    if (account)
      return {
        existing: account.id,
        kind: account.kind,
        group: account.group,
        why: one ? 'book' : 'twoNames',
        sure: one,
        maybe: null,
        rename: false,
      };
    const maybe = nearest(name, guess.kind, free, index);
    return {
      existing: null,
      ...guess,
      ...(one ? {} : { why: 'twoNames' as const }),
      sure: one && guess.sure && maybe === null,
      group,
      maybe,
      rename: false,
    };
  });
}

function nearest(
  name: string,
  kind: AccountKind,
  accounts: readonly Account[],
  index: NameIndex,
): AccountChoice['maybe'] {
  const alike = index.likenesses(name);
  let best = -1;
  accounts.forEach((account, i) => {
    if (alike[i]! < ALIKE || isProfitAndLoss(account.kind) !== isProfitAndLoss(kind)) return;
    if (best < 0 || alike[i]! > alike[best]!) best = i;
  });
  return best < 0 ? null : { id: accounts[best]!.id, by: alike[best] === 1 ? 'name' : 'likeness' };
}
