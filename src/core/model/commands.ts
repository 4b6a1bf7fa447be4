import { enablePatches, produceWithPatches, type Draft, type Patch } from 'immer';
import type { Minor } from '@/core/money';
import { periodFaults, type CalendarSpec, type PeriodId } from '@/core/calendar';
import { insertAccounts, mergeInto } from './accounts';
import { naturalSign } from './kinds';
import type {
  Account,
  AccountId,
  Axis,
  Book,
  Budget,
  Feed,
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
      readonly nextId: number;
    }
  | { readonly type: 'removeSource'; readonly source: string }
  | {
      readonly type: 'editAccount';
      readonly account: AccountId;
      readonly change: Partial<Omit<Account, 'id'>>;
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
    }
  | { readonly type: 'setClosedThrough'; readonly period: PeriodId | null }
  | {
      readonly type: 'setCalendar';
      readonly calendar: CalendarSpec;
      readonly closedThrough: PeriodId | null;
    }
  | { readonly type: 'setAxis'; readonly axis: Axis }
  | { readonly type: 'removeAxis'; readonly axis: string }
  | { readonly type: 'setFeed'; readonly feed: Feed | null }
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
    | 'sidesDiffer'
    | 'brokenCalendar'
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
  takeIn(book, { source, newAccounts, accountChanges, axes, replaces, closedThrough, nextId }) {
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
    insertAccounts(book, newAccounts, source.shape === 'entries');
    book.axes = axes as Draft<Axis[]>;
    book.closedThrough = closedThrough;
    book.nextId = Math.max(book.nextId, nextId);
  },
  removeSource(book, { source }) {
    const at = book.sources.findIndex((s) => s.id === source);
    if (at < 0) refuse('noSuchSource');
    book.sources.splice(at, 1);
  },
  editAccount(book, { account, change }) {
    if (change.name !== undefined && change.name.trim() === '') refuse('emptyName');
    Object.assign(findAccount(book, account), change);
  },
  addAccount(book, { account }) {
    if (account.name.trim() === '') refuse('emptyName');
    insertAccounts(book, [account], account.code !== '');
    book.nextId += 1;
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
    for (const { budget, line } of lines) openBudget(book, budget).lines[into] = line as Draft<Line>;
    mergeInto(book, from, into);
  },
  setClosedThrough(book, { period }) {
    book.closedThrough = period;
  },
  setCalendar(book, { calendar, closedThrough }) {
    if (calendar.kind === 'handMade' && periodFaults(calendar.periods).length > 0) refuse('brokenCalendar');
    book.calendar = calendar as Draft<Book['calendar']>;
    book.closedThrough = closedThrough;
  },
  setAxis(book, { axis }) {
    if (axis.name.trim() === '') refuse('emptyName');
    const at = book.axes.findIndex((a) => a.id === axis.id);
    if (at >= 0) book.axes[at] = axis as Draft<Axis>;
    else {
      book.axes.push(axis as Draft<Axis>);
      book.nextId += 1;
    }
  },
  removeAxis(book, { axis }) {
    book.axes = book.axes.filter((a) => a.id !== axis);
  },
  setFeed(book, { feed }) {
    book.feed = feed;
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

const findAccount = (book: Draft<Book>, id: string): Draft<Account> =>
  book.accounts.find((a) => a.id === id) ?? refuse('noSuchAccount');

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
