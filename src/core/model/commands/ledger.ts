import type { Draft } from 'immer';
import type { PeriodId } from '@/core/calendar';
import { insertAccounts, mergeInto } from '../accounts';
import type { Line } from '../budget';
import { naturalSign } from '../kinds';
import type { Nature } from '../nature';
import { refuse } from '../refusal';
import type { Cash, GuessedTerms } from '../cash';
import type { Account, AccountId, Axis, Book, Source } from '../schema';
import { keepGuesses, openBudget } from './budget';
import { passIds, type HandlersOf } from './handlers';

/* What changes a book's sources and accounts. */

export type LedgerCommand =
  | {
      readonly type: 'takeIn';
      readonly source: Source;
      readonly newAccounts: readonly Account[];
      /** What existing accounts take from the file: a new code or name. */
      readonly accountChanges: readonly {
        readonly id: AccountId;
        readonly code: string;
        readonly name: string;
      }[];
      /** Every axis as it is with this source's segments in it. */
      readonly axes: readonly Axis[];
      readonly replaces: readonly string[];
      readonly closedThrough: PeriodId | null;
      /** By when what stands without items has run off, where this closes months. */
      readonly runOffEnds?: Cash['runOffEnds'];
      /** How far it was measured how fast counterparties pay. */
      readonly measuredThrough?: Cash['measuredThrough'];
      /** What plans in force that have kept no guesses of terms yet are guessed to be, by budget. */
      readonly guessed?: Readonly<Record<string, readonly GuessedTerms[]>>;
      readonly nextId: number;
    }
  | { readonly type: 'removeSource'; readonly source: string }
  | {
      readonly type: 'editAccount';
      readonly account: AccountId;
      /** `nature` null: its name tells it again. */
      readonly change: Partial<Omit<Account, 'id' | 'nature'>> & { readonly nature?: Nature | null };
    }
  | { readonly type: 'addAccount'; readonly account: Account }
  /** Puts an account before another, or last. */
  | { readonly type: 'moveAccount'; readonly account: AccountId; readonly before: AccountId | null }
  /** One account takes in another: its entries, its lines (merged by the caller where both have one) and its notes. */
  | {
      readonly type: 'mergeAccounts';
      readonly from: AccountId;
      readonly into: AccountId;
      readonly lines: readonly { readonly budget: string; readonly line: Line }[];
    };

export const ledgerHandlers: HandlersOf<LedgerCommand> = {
  takeIn(
    book,
    {
      source,
      newAccounts,
      accountChanges,
      axes,
      replaces,
      closedThrough,
      runOffEnds,
      measuredThrough,
      guessed,
      nextId,
    },
  ) {
    book.sources = book.sources.filter((s) => !replaces.includes(s.id));
    const next = source.cursor;
    if (book.feed && next !== null) {
      // A pull that another pull has overtaken must not come in a second time.
      if (next <= book.feed.cursor) refuse('alreadyTakenIn');
      book.feed.cursor = next;
    }
    if (book.sources.some((s) => s.fingerprint === source.fingerprint && s.sheet === source.sheet))
      refuse('alreadyTakenIn');
    book.sources.push(source as Draft<Source>);
    for (const { id, code, name } of accountChanges)
      Object.assign(findAccount(book, id), { code, name: name.trim() || refuse('emptyName') });
    insertAccounts(book, newAccounts, source.shape !== 'months' || newAccounts.every((a) => a.code !== ''));
    book.axes = axes as Draft<Axis[]>;
    book.closedThrough = closedThrough;
    if (runOffEnds) book.cash.runOffEnds = { ...runOffEnds };
    if (measuredThrough) book.cash.measuredThrough = measuredThrough;
    for (const b of book.budgets) keepGuesses(b, guessed?.[b.id]);
    book.nextId = Math.max(book.nextId, nextId);
  },
  removeSource(book, { source }) {
    const at = book.sources.findIndex((s) => s.id === source);
    if (at < 0) refuse('noSuchSource');
    book.sources.splice(at, 1);
  },
  editAccount(book, { account, change }) {
    if (change.name !== undefined && change.name.trim() === '') refuse('emptyName');
    const { nature, ...rest } = change;
    const of = findAccount(book, account);
    Object.assign(of, rest);
    if (nature === null) delete of.nature;
    else if (nature !== undefined) of.nature = nature;
  },
  addAccount(book, { account }) {
    if (account.name.trim() === '') refuse('emptyName');
    insertAccounts(book, [account], account.code !== '');
    book.nextId += 1;
    passIds(book, [account.id]);
  },
  moveAccount(book, { account, before }) {
    const moving = findAccount(book, account);
    if (before !== null) findAccount(book, before);
    const rest = book.accounts.filter((a) => a.id !== account);
    const at = before === null || before === account ? -1 : rest.findIndex((a) => a.id === before);
    if (before === account) return;
    rest.splice(at < 0 ? rest.length : at, 0, moving);
    book.accounts = rest;
  },
  mergeAccounts(book, { from, into, lines }) {
    const gone = findAccount(book, from);
    if (from === into) refuse('noSuchAccount');
    if (naturalSign(gone.kind) !== naturalSign(findAccount(book, into).kind)) refuse('sidesDiffer');
    for (const { budget, line } of lines) {
      const b = openBudget(book, budget);
      b.lines = b.lines.filter((l) => l.account !== into || l.segment !== line.segment);
      b.lines.push(line as Draft<Line>);
    }
    mergeInto(book, from, into);
  },
};

const findAccount = (book: Draft<Book>, id: string): Draft<Account> =>
  book.accounts.find((a) => a.id === id) ?? refuse('noSuchAccount');
