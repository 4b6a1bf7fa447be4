import { minor } from '@/core/money';
import type { PeriodId } from '@/core/calendar';
import type { Account, Book, Command, Source } from '@/core/model';
import { naturalSign } from '@/core/model';
import { totalsOf, type LedgerBlock } from '@/core/ledger';
import type { Draft } from './draft';
import type { AccountChoice } from './match';
import { toDebitPositive } from './readMonths';

export type Acceptance = {
  readonly draft: Draft;
  readonly choices: readonly AccountChoice[];
  readonly fileName: string;
  readonly fingerprint: string;
  readonly sheet: string | null;
  readonly takenAt: string;
  readonly blockId: string;
  readonly replaces: readonly string[];
  readonly closedThrough: PeriodId | null;
};

/**
 * Turns an accepted draft into the one command that takes it into the book, and the block of entries that goes
 * with it: accounts found or made, amounts debit-positive. Null when the draft holds no entry.
 */
export function acceptDraft(
  book: Book,
  a: Acceptance,
): { readonly command: Command; readonly block: LedgerBlock } | null {
  const { draft, choices } = a;
  let nextId = book.nextId;
  const newAccounts: Account[] = [];
  const ids = choices.map((choice, i) => {
    if (choice.existing) return choice.existing;
    const { code, name } = draft.accounts[i]!;
    const account: Account = {
      id: `a${nextId++}`,
      code: code.slice(0, 60),
      name: name.slice(0, 200),
      kind: choice.kind,
    };
    newAccounts.push(account);
    return account.id;
  });
  const turn = choices.map((c) => toDebitPositive(draft.sign, naturalSign(c.kind)));
  const amount = draft.block.amount.map((v, i) => minor(v * turn[draft.block.account[i]!]!));
  const block: LedgerBlock = { ...draft.block, id: a.blockId, amount, accounts: ids };
  const totals = totalsOf(block);
  if (!totals) return null;
  const source: Source = {
    id: `s${nextId++}`,
    fileName: a.fileName.slice(0, 300),
    fingerprint: a.fingerprint,
    sheet: a.sheet,
    takenAt: a.takenAt,
    shape: draft.mapping.shape,
    mapping: JSON.parse(JSON.stringify(draft.mapping)),
    block: a.blockId,
    rows: {
      read: draft.rows.read,
      used: draft.rows.used,
      leftOut: draft.rows.leftOut.map(({ reason, count }) => ({ reason, count })),
    },
    entries: block.count,
    debit: totals.debit,
    credit: totals.credit,
    firstDay: totals.firstDay as Source['firstDay'],
    lastDay: totals.lastDay as Source['lastDay'],
  };
  return {
    command: {
      type: 'takeIn',
      source,
      newAccounts,
      replaces: a.replaces,
      closedThrough: a.closedThrough,
      nextId,
    },
    block,
  };
}
