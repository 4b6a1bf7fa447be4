import type { PeriodId } from '@/core/calendar';
import {
  LIMITS,
  cutText,
  newAccount,
  type Account,
  type Axis,
  type Book,
  type Command,
  type Source,
} from '@/core/model';
import { totalsOf, type LedgerBlock } from '@/core/ledger';
import type { FileFormat } from '@/core/files';
import { nameKey } from './accountCell';
import type { Draft } from './draft';
import type { AccountChoice } from './match';
import type { Fault } from './proof';
import { growAxes } from './axes';

export type Acceptance = {
  readonly draft: Pick<Draft, 'accounts' | 'mapping' | 'rows'>;
  readonly choices: readonly AccountChoice[];
  /** The settled block; its accounts are filled in here. */
  readonly settled: LedgerBlock;
  readonly format: FileFormat;
  readonly heads: string;
  readonly fileName: string;
  readonly fingerprint: string;
  readonly sheet: string | null;
  readonly takenAt: string;
  readonly blockId: string;
  readonly replaces: readonly string[];
  readonly closedThrough: PeriodId | null;
  /** By when what stands without items has run off, where months are closed with it. */
  readonly runOffEnds?: Book['cash']['runOffEnds'];
  readonly guessed?: TakeIn['guessed'];
  readonly measuredThrough?: TakeIn['measuredThrough'];
  readonly controls: number;
  readonly oneSided: boolean;
  /** What did not tie, and why it is accepted all the same. */
  readonly untied: { readonly faults: readonly Fault[]; readonly reason: string } | null;
  readonly cursor: number | null;
};

type TakeIn = Extract<Command, { type: 'takeIn' }>;

/**
 * Turns an accepted draft into the one command that takes it into the book, and the block of entries that goes
 * with it, its accounts found or made. Null when the draft holds no entry.
 */
export function acceptDraft(
  book: Book,
  a: Acceptance,
): { readonly command: TakeIn; readonly block: LedgerBlock } | null {
  const { draft, choices } = a;
  let nextId = book.nextId;
  const newAccounts: Account[] = [];
  const accountChanges: TakeIn['accountChanges'][number][] = [];
  /** Rows of one code, name and kind are one account. */
  const made = new Map<string, string>();
  const ids = choices.map((choice, i) => {
    const { code, name } = draft.accounts[i]!;
    const key = code && `${choice.kind} ${code} ${nameKey(name)}`;
    if (choice.existing) {
      const was = book.accounts.find((x) => x.id === choice.existing);
      if (choice.rename && was)
        accountChanges.push({
          id: was.id,
          code: cutText(code, LIMITS.accountCode) || was.code,
          name: cutText(name, LIMITS.accountName) || was.name,
        });
      return choice.existing;
    }
    const twin = made.get(key);
    if (key !== '' && twin !== undefined) return twin;
    const account: Account = {
      ...newAccount(
        `a${nextId++}`,
        cutText(code, LIMITS.accountCode),
        cutText(name || code, LIMITS.accountName),
        choice.kind,
      ),
      group: cutText(choice.group, LIMITS.group),
    };
    newAccounts.push(account);
    made.set(key, account.id);
    return account.id;
  });
  // Beyond the file's accounts stand those of the book that it leaves out, by their ids.
  const block: LedgerBlock = {
    ...a.settled,
    id: a.blockId,
    accounts: a.settled.accounts.map((id, place) => ids[place] ?? id),
  };
  const totals = totalsOf(block);
  if (!totals) return null;
  const id = `s${nextId++}`;
  const grown: { axes: readonly Axis[]; nextId: number } = growAxes(book.axes, block.segments, nextId);
  nextId = grown.nextId;
  const source: Source = {
    id,
    fileName: cutText(a.fileName, LIMITS.fileName),
    fingerprint: a.fingerprint,
    sheet: a.sheet && cutText(a.sheet, LIMITS.sheetName),
    takenAt: a.takenAt,
    shape: draft.mapping.shape,
    format: a.format,
    mapping: JSON.parse(JSON.stringify(draft.mapping)),
    heads: a.heads,
    cursor: a.cursor,
    untied: a.untied && {
      faults: [...a.untied.faults],
      reason: cutText(a.untied.reason, LIMITS.reason),
      at: a.takenAt,
    },
    ...(a.oneSided ? { oneSided: true as const } : {}),
    block: a.blockId,
    rows: {
      read: draft.rows.read,
      used: draft.rows.used,
      leftOut: draft.rows.leftOut.map(({ reason, count }) => ({ reason, count })),
    },
    entries: block.count,
    openings: totals.openings,
    closings: totals.closings,
    controls: a.controls,
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
      accountChanges,
      axes: grown.axes,
      replaces: a.replaces,
      closedThrough: a.closedThrough,
      ...(a.runOffEnds ? { runOffEnds: a.runOffEnds } : {}),
      ...(a.guessed ? { guessed: a.guessed } : {}),
      ...(a.measuredThrough ? { measuredThrough: a.measuredThrough } : {}),
      nextId,
    },
    block,
  };
}
