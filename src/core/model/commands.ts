import { enablePatches, produceWithPatches, type Draft, type Patch } from 'immer';
import type { Minor } from '@/core/money';
import type { PeriodId } from '@/core/calendar';
import type {
  Account,
  AccountId,
  Book,
  Budget,
  Line,
  Method,
  Settings,
  Source,
  VarianceNote,
} from './schema';

enablePatches();

export type Cell = { readonly account: AccountId; readonly period: PeriodId };
export type CellValue = Cell & { readonly value: Minor | null };

/** Everything that can change a book. One user action is one command and one undo step. */
export type Command =
  | { readonly type: 'renameBook'; readonly name: string }
  | { readonly type: 'setSettings'; readonly settings: Partial<Settings> }
  | {
      readonly type: 'takeIn';
      readonly source: Source;
      readonly newAccounts: readonly Account[];
      readonly replaces: readonly string[];
      readonly closedThrough: PeriodId | null;
      readonly nextId: number;
    }
  | { readonly type: 'removeSource'; readonly source: string }
  | {
      readonly type: 'editAccount';
      readonly account: AccountId;
      readonly change: Partial<Omit<Account, 'id'>>;
    }
  | { readonly type: 'setClosedThrough'; readonly period: PeriodId | null }
  | { readonly type: 'addBudget'; readonly budget: Budget }
  | { readonly type: 'renameBudget'; readonly budget: string; readonly name: string }
  | { readonly type: 'deleteBudget'; readonly budget: string }
  | {
      readonly type: 'approveBudget';
      readonly budget: string;
      readonly approved: NonNullable<Budget['approved']>;
    }
  | {
      readonly type: 'setCells';
      readonly budget: string;
      readonly how: 'typed' | 'filled' | 'pasted' | 'cleared' | 'spread';
      readonly cells: readonly CellValue[];
    }
  | { readonly type: 'restoreCells'; readonly budget: string; readonly cells: readonly Cell[] }
  | {
      readonly type: 'setMethod';
      readonly budget: string;
      readonly account: AccountId;
      readonly method: Method;
    }
  | {
      readonly type: 'setLineNote';
      readonly budget: string;
      readonly account: AccountId;
      readonly note: string;
    }
  | {
      readonly type: 'setVarianceNote';
      readonly period: PeriodId;
      readonly account: AccountId;
      readonly note: VarianceNote | null;
    };

export type CommandType = Command['type'];

/** Why a command was refused. Nothing was changed. */
export type Refusal = {
  readonly code:
    | 'noSuchBudget'
    | 'noSuchAccount'
    | 'noSuchSource'
    | 'budgetIsFrozen'
    | 'alreadyTakenIn'
    | 'emptyName'
    | 'readOnly';
};

export type Applied =
  | { readonly ok: true; readonly book: Book; readonly patches: Patch[]; readonly inverse: Patch[] }
  | { readonly ok: false; readonly refusal: Refusal };

class Refused extends Error {
  constructor(readonly refusal: Refusal) {
    super(refusal.code);
  }
}
const refuse = (code: Refusal['code']): never => {
  throw new Refused({ code });
};

/** A line as it is when nobody has said anything: by month, all blank. */
export const blankLine = (account: AccountId): Line => ({
  account,
  method: { kind: 'byMonth', amounts: {} },
  overrides: {},
  note: '',
});

/**
 * Checks and applies a command. Gives the new book with what changed and its inverse; the same book object when
 * nothing changed; or the refusal.
 */
export function applyCommand(book: Book, command: Command): Applied {
  try {
    const handler = HANDLERS[command.type] as (book: Draft<Book>, command: Command) => void;
    const [next, patches, inverse] = produceWithPatches(book, (draft) => handler(draft, command));
    return { ok: true, book: next, patches, inverse };
  } catch (error) {
    if (error instanceof Refused) return { ok: false, refusal: error.refusal };
    throw error;
  }
}

type Handlers = {
  readonly [T in CommandType]: (book: Draft<Book>, command: Extract<Command, { type: T }>) => void;
};

const HANDLERS: Handlers = {
  renameBook(book, { name }) {
    book.name = name.trim() || refuse('emptyName');
  },
  setSettings(book, { settings }) {
    Object.assign(book.settings, settings);
  },
  takeIn(book, { source, newAccounts, replaces, closedThrough, nextId }) {
    book.sources = book.sources.filter((s) => !replaces.includes(s.id));
    if (book.sources.some((s) => s.fingerprint === source.fingerprint && s.sheet === source.sheet))
      refuse('alreadyTakenIn');
    book.sources.push(source as Draft<Source>);
    book.accounts.push(...newAccounts);
    // Entries name accounts in no order of their own; months-across files stand in the order of their statement.
    if (source.shape === 'entries') book.accounts.sort((a, b) => compareCodes(a.code, b.code));
    book.closedThrough = closedThrough;
    book.nextId = Math.max(book.nextId, nextId);
  },
  removeSource(book, { source }) {
    const at = book.sources.findIndex((s) => s.id === source);
    if (at < 0) refuse('noSuchSource');
    book.sources.splice(at, 1);
  },
  editAccount(book, { account, change }) {
    Object.assign(book.accounts.find((a) => a.id === account) ?? refuse('noSuchAccount'), change);
  },
  setClosedThrough(book, { period }) {
    book.closedThrough = period;
  },
  addBudget(book, { budget }) {
    book.budgets.push(budget as Draft<Budget>);
    book.nextId += 1;
  },
  renameBudget(book, { budget, name }) {
    findBudget(book, budget).name = name.trim() || refuse('emptyName');
  },
  deleteBudget(book, { budget }) {
    findBudget(book, budget);
    book.budgets = book.budgets.filter((b) => b.id !== budget);
  },
  approveBudget(book, { budget, approved }) {
    const b = openBudget(book, budget);
    // A revision takes the place of what was approved for the same periods.
    for (const other of book.budgets)
      if (other.state === 'approved' && other.first === b.first && other.length === b.length)
        other.state = 'superseded';
    b.state = 'approved';
    b.approved = approved as Draft<typeof approved>;
  },
  setCells(book, { budget, cells }) {
    const b = openBudget(book, budget);
    for (const { account, period, value } of cells) {
      const line = lineIn(book, b, account);
      // A month of a by-month line is the method itself; anywhere else it is typed over the method.
      const amounts = line.method.kind === 'byMonth' ? line.method.amounts : line.overrides;
      if (line.method.kind === 'byMonth' && value === null) delete amounts[period];
      else amounts[period] = value;
    }
  },
  restoreCells(book, { budget, cells }) {
    const b = openBudget(book, budget);
    for (const { account, period } of cells) delete b.lines[account]?.overrides[period];
  },
  setMethod(book, { budget, account, method }) {
    const line = lineIn(book, openBudget(book, budget), account);
    line.method = method as Draft<Method>;
    // By month, what was typed over is part of the method itself: there is nothing left to restore.
    if (method.kind === 'byMonth') line.overrides = {};
  },
  setLineNote(book, { budget, account, note }) {
    // A note may be added to an approved budget: it explains the figures and changes none.
    lineIn(book, findBudget(book, budget), account).note = note;
  },
  setVarianceNote(book, { period, account, note }) {
    if (!book.accounts.some((a) => a.id === account)) refuse('noSuchAccount');
    const notes = (book.varianceNotes[period] ??= {});
    if (note) notes[account] = note;
    else delete notes[account];
    if (Object.keys(notes).length === 0) delete book.varianceNotes[period];
  },
};

/** Codes as numbers where they are: 900 before 1010; accounts without a code last. */
const compareCodes = (a: string, b: string): number =>
  Number(a === '') - Number(b === '') ||
  (a.length === b.length
    ? a < b
      ? -1
      : a > b
        ? 1
        : 0
    : Number.parseFloat(a) - Number.parseFloat(b) || (a < b ? -1 : 1));

function findBudget(book: Draft<Book>, id: string): Draft<Budget> {
  return book.budgets.find((b) => b.id === id) ?? refuse('noSuchBudget');
}

function openBudget(book: Draft<Book>, id: string): Draft<Budget> {
  const budget = findBudget(book, id);
  return budget.state === 'draft' ? budget : refuse('budgetIsFrozen');
}

function lineIn(book: Draft<Book>, budget: Draft<Budget>, account: AccountId): Draft<Line> {
  const line = budget.lines[account];
  if (line) return line;
  if (!book.accounts.some((a) => a.id === account)) refuse('noSuchAccount');
  return (budget.lines[account] = blankLine(account) as Draft<Line>);
}
