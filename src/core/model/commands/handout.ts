import type { Draft } from 'immer';
import type { Account, Book } from '../schema';
import type { HandedLine, Handout, Return, Round } from '../handout';
import type { Note } from '../budget';
import { LineChanges, type LineRef } from '../lines';
import { refuse } from '../refusal';
import { budgetHandlers, type CellValue } from './budget';
import { passIds, putNamed, type HandlersOf } from './handlers';

/* What is handed out, what comes back, and what of it goes into the budget. */

/** A line of their own that becomes one of the budget: of an account that is there, or of one that is added. */
export type OwnTaken = {
  /** Its place among the lines of their own. */
  readonly place: number;
  /** Null: it is left. */
  readonly line: LineRef | null;
  readonly account: Account | null;
};

export type HandoutCommand =
  /** Keeps a round, in place of the one of its id. */
  | { readonly type: 'setRound'; readonly round: Round }
  | { readonly type: 'removeRound'; readonly round: string }
  /** The files of these handouts were made: for the first time, again, or to remind. */
  | {
      readonly type: 'sendHandouts';
      readonly round: string;
      /** With the lines as their files have them. */
      readonly handouts: readonly { readonly id: string; readonly lines: readonly HandedLine[] }[];
      readonly at: string;
      readonly reminds: boolean;
    }
  /** A file came back. */
  | {
      readonly type: 'takeReturn';
      readonly round: string;
      readonly handout: string;
      readonly returned: Return;
    }
  | {
      readonly type: 'dropReturn';
      readonly round: string;
      readonly handout: string;
      readonly fingerprint: string;
    }
  /** What was chosen of a return goes into its budget: one change, one undo. */
  | {
      readonly type: 'mergeReturn';
      readonly round: string;
      readonly handout: string;
      readonly fingerprint: string;
      readonly at: string;
      readonly cells: readonly CellValue[];
      readonly notes: readonly (LineRef & { readonly note: Note })[];
      readonly own: readonly OwnTaken[];
      /** Whose it is and of which day, for the history of every figure. */
      readonly said: string;
    };

export const handoutHandlers: HandlersOf<HandoutCommand> = {
  setRound(book, { round }) {
    if (!book.budgets.some((b) => b.id === round.budget)) refuse('noSuchBudget');
    putNamed(book, book.rounds, round);
    // A file that is out says whose it is: nobody else is ever called so.
    passIds(
      book,
      round.handouts.map((h) => h.id),
    );
  },
  removeRound(book, { round }) {
    book.rounds = book.rounds.filter((r) => r.id !== round);
  },
  sendHandouts(book, { round, handouts, at, reminds }) {
    for (const { id, lines } of handouts) {
      const h = findHandout(book, round, id);
      h.lines = lines as Draft<HandedLine>[];
      h.sent = at;
      if (reminds) h.reminders += 1;
    }
  },
  takeReturn(book, { round, handout, returned }) {
    const all = findRound(book, round).handouts;
    const twice = all.some((h) => h.returns.some((r) => r.fingerprint === returned.fingerprint));
    if (twice) refuse('alreadyTakenIn');
    findHandout(book, round, handout).returns.push(returned as Draft<Return>);
  },
  dropReturn(book, { round, handout, fingerprint }) {
    const h = findHandout(book, round, handout);
    h.returns = h.returns.filter((r) => r.fingerprint !== fingerprint || r.merged !== null);
  },
  mergeReturn(book, { round, handout, fingerprint, at, cells, notes, own }) {
    const { budget } = findRound(book, round);
    const returned =
      findHandout(book, round, handout).returns.find((r) => r.fingerprint === fingerprint) ??
      refuse('noSuchSource');
    const draft = book.budgets.find((b) => b.id === budget) ?? refuse('noSuchBudget');
    for (const { place, account } of own) {
      const theirs = returned.own[place];
      if (!theirs) continue;
      theirs.done = true;
      if (account && !book.accounts.some((a) => a.id === account.id)) {
        book.accounts.push(account as Draft<Account>);
        book.nextId += 1;
        passIds(book, [account.id]);
      }
    }
    // Lines that are not there yet come with their figures; one without any comes blank.
    budgetHandlers.setCells(book, { type: 'setCells', budget, how: 'copied', cells });
    const lines = LineChanges.in(book, draft);
    for (const { line } of own) if (line) lines.change(line, (l) => l);
    for (const { account, segment, note } of notes)
      lines.change({ account, segment }, (line) => ({ ...line, note }));
    returned.merged = at;
  },
};

function findRound(book: Draft<Book>, id: string): Draft<Round> {
  return book.rounds.find((r) => r.id === id) ?? refuse('noSuchRound');
}

function findHandout(book: Draft<Book>, round: string, id: string): Draft<Handout> {
  return findRound(book, round).handouts.find((h) => h.id === id) ?? refuse('noSuchRound');
}
