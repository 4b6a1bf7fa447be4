import { enablePatches, produceWithPatches, setAutoFreeze, type Draft, type Patch } from 'immer';
import type { Minor } from '@/core/money';
import { periodFaults, type CalendarSpec, type PeriodId } from '@/core/calendar';
import { insertAccounts, mergeInto } from './accounts';
import { wouldNotOpen } from './openable';
import type { Approved, Budget, Line, Note } from './budget';
import { LineFinder, lineKey, type LineRef } from './lines';
import { refuse, Refused, type Refusal } from './refusal';
import { sameScope } from './scope';
import { budgetsBy } from './segments';
import type { Driver, Method, Weights, WorkWeek } from './methods';
import { naturalSign } from './kinds';
import type { Account, AccountId, Axis, Book, Feed, Settings, Source, VarianceNote } from './schema';

enablePatches();
// Freezing would walk a whole budget after every key. The types are read-only, and the tests freeze.
setAutoFreeze(false);

export type Cell = LineRef & { readonly period: PeriodId };
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
  | { readonly type: 'approveBudget'; readonly budget: string; readonly approved: Approved }
  | {
      readonly type: 'setCells';
      readonly budget: string;
      readonly how:
        'typed' | 'filled' | 'pasted' | 'cleared' | 'spread' | 'raised' | 'rounded' | 'copied' | 'turned';
      readonly cells: readonly CellValue[];
      /** What was typed, where it was a sum or a percentage and not the amount itself. */
      readonly said?: string;
    }
  /** Takes away what was typed over the methods of these months. */
  | { readonly type: 'restoreCells'; readonly budget: string; readonly cells: readonly Cell[] }
  /** Gives lines their methods; what was typed over them stays, unless the line is by month. */
  | {
      readonly type: 'setMethods';
      readonly budget: string;
      readonly lines: readonly (LineRef & { readonly method: Method })[];
      readonly said?: string;
    }
  /** Makes lines blank: by month, nothing said. Their notes stay. */
  | { readonly type: 'clearLines'; readonly budget: string; readonly lines: readonly LineRef[] }
  | {
      readonly type: 'setLineNote';
      readonly budget: string;
      readonly line: LineRef;
      readonly note: Note | null;
    }
  | {
      readonly type: 'setCellNote';
      readonly budget: string;
      readonly cell: Cell;
      readonly note: Note | null;
    }
  | {
      readonly type: 'setLooked';
      readonly budget: string;
      readonly lines: readonly LineRef[];
      readonly looked: Line['looked'];
    }
  /** Adds a driver, or puts it in the place of the one with its id. */
  | { readonly type: 'setDriver'; readonly budget: string; readonly driver: Driver }
  /** Values of drivers that are typed by month; null makes a month blank. */
  | {
      readonly type: 'setDriverValues';
      readonly budget: string;
      readonly values: readonly {
        readonly driver: string;
        readonly period: PeriodId;
        readonly value: number | null;
      }[];
    }
  | { readonly type: 'removeDriver'; readonly budget: string; readonly driver: string }
  | { readonly type: 'setWeights'; readonly weights: Weights }
  | { readonly type: 'removeWeights'; readonly weights: string }
  | { readonly type: 'setWorkWeek'; readonly workWeek: WorkWeek }
  | {
      readonly type: 'setVarianceNote';
      readonly period: PeriodId;
      readonly account: AccountId;
      readonly note: VarianceNote | null;
    };

export type CommandType = Command['type'];

export type Applied =
  | { readonly ok: true; readonly book: Book; readonly patches: Patch[]; readonly inverse: Patch[] }
  | { readonly ok: false; readonly refusal: Refusal };

/**
 * Checks and applies a command. Gives the new book with what changed and its inverse; the same book object when
 * nothing changed; or the refusal.
 */
export function applyCommand(book: Book, command: Command): Applied {
  try {
    const handler = HANDLERS[command.type] as (book: Draft<Book>, command: Command) => void;
    const [next, patches, inverse] = produceWithPatches(book, (draft) => handler(draft, command));
    const refusal = wouldNotOpen(book, next, patches);
    return refusal ? { ok: false, refusal } : { ok: true, book: next, patches, inverse };
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
    insertAccounts(book, newAccounts, source.shape !== 'months' || newAccounts.every((a) => a.code !== ''));
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
    for (const { budget, line } of lines) {
      const b = openBudget(book, budget);
      b.lines = b.lines.filter((l) => l.account !== into || l.segment !== line.segment);
      b.lines.push(line as Draft<Line>);
    }
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
    if (at >= 0) {
      const gone = book.axes[at]!.values.filter((v) => !axis.values.some((w) => w.id === v.id));
      if (budgetsBy(book, axis.id).some((b) => gone.some((v) => b.segments.includes(v.id))))
        refuse('segmentInUse');
      book.axes[at] = axis as Draft<Axis>;
    } else {
      book.axes.push(axis as Draft<Axis>);
      book.nextId += 1;
    }
  },
  removeAxis(book, { axis }) {
    if (budgetsBy(book, axis).length > 0) refuse('segmentInUse');
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
    // It takes the place of what was approved of the same months, statements and segments, and of nothing else.
    for (const other of book.budgets)
      if (other.state === 'approved' && sameScope(other, b)) other.state = 'superseded';
    b.state = 'approved';
    b.approved = approved as Draft<typeof approved>;
  },
  setCells(book, { budget, cells }) {
    const find = new LineFinder(book, openBudget(book, budget), cells.length);
    for (const [ref, own] of byLine(cells))
      find.replace(ref, (line) => {
        // A month of a by-month line is the method itself; anywhere else it is typed over the method.
        const typed = line.method.kind === 'byMonth';
        const amounts: Record<PeriodId, Minor | null> = {
          ...(line.method.kind === 'byMonth' ? line.method.amounts : line.overrides),
        };
        for (const { period, value } of own)
          if (typed && value === null) delete amounts[period];
          else amounts[period] = value;
        return typed ? { ...line, method: { kind: 'byMonth', amounts } } : { ...line, overrides: amounts };
      });
  },
  restoreCells(book, { budget, cells }) {
    const find = new LineFinder(book, openBudget(book, budget), cells.length);
    for (const [ref, own] of byLine(cells)) {
      if (!find.known(ref)) continue;
      const gone = new Set<string>(own.map((c) => c.period));
      find.replace(ref, (line) => {
        const kept = Object.entries(line.overrides).filter(([p]) => !gone.has(p));
        return kept.length === Object.keys(line.overrides).length
          ? line
          : { ...line, overrides: Object.fromEntries(kept) };
      });
    }
  },
  setMethods(book, { budget, lines }) {
    const find = new LineFinder(book, openBudget(book, budget), lines.length);
    for (const { method, ...ref } of lines)
      find.replace(ref, (line) => ({
        ...line,
        method: method as Method,
        // By month, what was typed over is part of the method itself: there is nothing left to restore.
        overrides: method.kind === 'byMonth' ? {} : line.overrides,
      }));
  },
  clearLines(book, { budget, lines }) {
    const find = new LineFinder(book, openBudget(book, budget), lines.length);
    for (const ref of lines)
      if (find.known(ref))
        find.replace(ref, (line) => ({ ...line, method: { kind: 'byMonth', amounts: {} }, overrides: {} }));
  },
  // Notes may be added to an approved budget: they explain the figures and change none.
  setLineNote(book, { budget, line, note }) {
    new LineFinder(book, findBudget(book, budget)).line(line).note = note;
  },
  setCellNote(book, { budget, cell: { period, ...ref }, note }) {
    const line = new LineFinder(book, findBudget(book, budget)).line(ref);
    if (note) line.cellNotes[period] = note;
    else delete line.cellNotes[period];
  },
  setLooked(book, { budget, lines, looked }) {
    const find = new LineFinder(book, findBudget(book, budget), lines.length);
    for (const ref of lines) find.line(ref).looked = looked;
  },
  setDriver(book, { budget, driver }) {
    if (driver.name.trim() === '') refuse('emptyName');
    const b = openBudget(book, budget);
    const at = b.drivers.findIndex((d) => d.id === driver.id);
    if (at >= 0) b.drivers[at] = driver as Draft<Driver>;
    else {
      b.drivers.push(driver as Draft<Driver>);
      book.nextId += 1;
    }
  },
  setDriverValues(book, { budget, values }) {
    const b = openBudget(book, budget);
    for (const { driver, period, value } of values) {
      const series = b.drivers.find((d) => d.id === driver)?.series;
      // What is reckoned is not typed over: another series says the whole of it.
      if (series?.kind !== 'typed') continue;
      if (value === null) delete series.values[period];
      else series.values[period] = value;
    }
  },
  removeDriver(book, { budget, driver }) {
    const b = openBudget(book, budget);
    b.drivers = b.drivers.filter((d) => d.id !== driver);
  },
  setWeights(book, { weights }) {
    if (weights.name.trim() === '') refuse('emptyName');
    const at = book.weights.findIndex((w) => w.id === weights.id);
    if (at >= 0) book.weights[at] = weights as Draft<Weights>;
    else {
      book.weights.push(weights as Draft<Weights>);
      book.nextId += 1;
    }
  },
  removeWeights(book, { weights }) {
    book.weights = book.weights.filter((w) => w.id !== weights);
  },
  setWorkWeek(book, { workWeek }) {
    book.workWeek = workWeek as Draft<WorkWeek>;
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

/** Cells by their line, in the order in which lines appear. */
function byLine<C extends Cell>(cells: readonly C[]): Iterable<readonly [LineRef, readonly C[]]> {
  const lines = new Map<string, [LineRef, C[]]>();
  let last: [LineRef, C[]] | undefined;
  for (const cell of cells) {
    // Cells of one line come together: a thousand lines of months cost a thousand look-ups.
    if (last?.[0].account !== cell.account || last[0].segment !== cell.segment) {
      const key = lineKey(cell);
      last = lines.get(key);
      if (!last) lines.set(key, (last = [{ account: cell.account, segment: cell.segment }, []]));
    }
    last[1].push(cell);
  }
  return lines.values();
}
