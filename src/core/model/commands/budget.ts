import type { Draft } from 'immer';
import type { Minor } from '@/core/money';
import { calendarFrom, type PeriodId } from '@/core/calendar';
import type { Approved, Budget, Line, Note } from '../budget';
import { LineChanges, lineKey, type LineRef } from '../lines';
import type { Driver, Method, MethodOf } from '../methods';
import { accountsOfRow, segmentsOfRow, type ScheduleRow } from '../scheduleRow';
import type { GuessedTerms } from '../cash';
import { termsKey } from '../termsAccounts';
import { hasRival, rivalsOf, rulesFrom, rulesOn } from '../inForce';
import { refuse } from '../refusal';
import { faultOfRow } from '../rowFaults';
import type { AccountId, Book } from '../schema';
import { sameScope } from '../scope';
import { passIds, putNamed, type HandlersOf } from './handlers';

/* What changes budgets: themselves, their lines and their drivers. */

export type Cell = LineRef & { readonly period: PeriodId };
export type CellValue = Cell & { readonly value: Minor | null };

export type BudgetCommand =
  | { readonly type: 'addBudget'; readonly budget: Budget }
  | { readonly type: 'renameBudget'; readonly budget: string; readonly name: string }
  | { readonly type: 'deleteBudget'; readonly budget: string }
  /** `takesOver`: it goes before a budget that is in force and that it does not revise. */
  | {
      readonly type: 'approveBudget';
      readonly budget: string;
      readonly approved: Approved;
      readonly takesOver?: true;
      readonly guessed?: readonly GuessedTerms[];
    }
  /** Puts a budget in force, draft or approved, from the first month on that is open or that nothing rules. */
  | {
      readonly type: 'putInForce';
      readonly budget: string;
      /** What is guessed of its terms now, which it keeps. */
      readonly guessed?: readonly GuessedTerms[];
    }
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
      /** What was typed over months is the method's again; else it stays as it is. */
      readonly restore?: boolean;
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
  /**
   * Rows of schedules, each in the place of the one with its id or added; `replaces` are taken out. `lines` are made by
   * schedule from now on, with what each has beside it: nothing that was typed over it stays.
   */
  | {
      readonly type: 'putScheduleRows';
      readonly budget: string;
      readonly rows: readonly ScheduleRow[];
      readonly replaces?: readonly string[];
      readonly lines: readonly (LineRef & { readonly method: MethodOf<'schedule'> })[];
      readonly said?: string;
    }
  | { readonly type: 'removeScheduleRows'; readonly budget: string; readonly rows: readonly string[] }
  /** What closing balances of an account are brought about against; null: the bank. */
  | {
      readonly type: 'setContra';
      readonly budget: string;
      readonly account: AccountId;
      readonly against: AccountId | null;
    };

export const budgetHandlers: HandlersOf<BudgetCommand> = {
  addBudget(book, { budget }) {
    book.budgets.push(budget as Draft<Budget>);
    book.nextId += 1;
    passIds(book, [budget.id]);
    // Where nothing is planned yet, whoever comes first is the plan.
    if (!hasRival(book, calendarFrom(book.calendar), budget))
      book.inForce.push({ budget: budget.id, from: budget.first });
  },
  renameBudget(book, { budget, name }) {
    findBudget(book, budget).name = name.trim() || refuse('emptyName');
  },
  deleteBudget(book, { budget }) {
    findBudget(book, budget);
    book.budgets = book.budgets.filter((b) => b.id !== budget);
    delete book.outlookWays[budget];
    book.rounds = book.rounds.filter((r) => r.budget !== budget);
    book.inForce = book.inForce.filter((f) => f.budget !== budget);
  },
  approveBudget(book, { budget, approved, takesOver, guessed }) {
    const b = openBudget(book, budget);
    keepGuesses(b, guessed);
    if (takesOver || comesIntoForce(book, b)) putInForce(book, b);
    // It takes the place of what was approved of the same months, statements and segments, and of nothing else.
    for (const other of book.budgets)
      if (other.state === 'approved' && sameScope(other, b)) other.state = 'superseded';
    b.state = 'approved';
    b.approved = approved as Draft<typeof approved>;
  },
  putInForce(book, { budget, guessed }) {
    const b = findBudget(book, budget);
    keepGuesses(b, guessed);
    putInForce(book, b);
  },
  setCells(book, { budget, cells }) {
    const changes = LineChanges.in(book, openBudget(book, budget), cells.length);
    for (const [ref, own] of byLine(cells))
      changes.change(ref, (line) => {
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
    const changes = LineChanges.in(book, openBudget(book, budget), cells.length);
    for (const [ref, own] of byLine(cells)) {
      if (!changes.has(ref)) continue;
      const gone = new Set<string>(own.map((c) => c.period));
      changes.change(ref, (line) => {
        const kept = Object.entries(line.overrides).filter(([p]) => !gone.has(p));
        return kept.length === Object.keys(line.overrides).length
          ? line
          : { ...line, overrides: Object.fromEntries(kept) };
      });
    }
  },
  setMethods(book, { budget, lines, restore = false }) {
    const changes = LineChanges.in(book, openBudget(book, budget), lines.length);
    for (const { method, ...ref } of lines)
      changes.change(ref, (line) => ({
        ...line,
        method: method as Method,
        // By month, what was typed over is part of the method itself: there is nothing left to restore.
        overrides: restore || method.kind === 'byMonth' ? {} : line.overrides,
      }));
  },
  clearLines(book, { budget, lines }) {
    const changes = LineChanges.in(book, openBudget(book, budget), lines.length);
    for (const ref of lines)
      if (changes.has(ref))
        changes.change(ref, (line) => ({ ...line, method: { kind: 'byMonth', amounts: {} }, overrides: {} }));
  },
  // Notes may be added to an approved budget: they explain the figures and change none.
  setLineNote(book, { budget, line, note }) {
    LineChanges.in(book, findBudget(book, budget)).change(line, (l) =>
      l.note === note ? l : { ...l, note },
    );
  },
  setCellNote(book, { budget, cell: { period, ...ref }, note }) {
    LineChanges.in(book, findBudget(book, budget)).change(ref, (line) => {
      if (!note && !line.cellNotes[period]) return line;
      const { [period]: _, ...rest } = line.cellNotes;
      return { ...line, cellNotes: note ? { ...line.cellNotes, [period]: note } : rest };
    });
  },
  setLooked(book, { budget, lines, looked }) {
    const changes = LineChanges.in(book, findBudget(book, budget), lines.length);
    for (const ref of lines)
      changes.change(ref, (line) => (line.looked === looked ? line : { ...line, looked }));
  },
  setDriver(book, { budget, driver }) {
    putNamed(book, openBudget(book, budget).drivers, driver);
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
  putScheduleRows(book, { budget, rows, replaces, lines }) {
    const b = openBudget(book, budget);
    const gone = new Set(replaces ?? []);
    if (gone.size > 0) b.schedules = b.schedules.filter((r) => !gone.has(r.id));
    const known = new Set(book.accounts.map((a) => a.id));
    for (const row of rows) {
      for (const account of accountsOfRow(row)) if (!known.has(account)) refuse('noSuchAccount');
      if (segmentsOfRow(row).some((s) => !b.segments.includes(s))) refuse('noSuchSegment');
      // What was wrong before may be mended field by field.
      const fault = faultOfRow(row);
      const was = b.schedules.find((r) => r.id === row.id);
      if (fault && !(was && faultOfRow(was as ScheduleRow) === fault))
        refuse('absurdRow', { path: row.name, message: fault });
      putNamed(book, b.schedules, row);
    }
    const changes = LineChanges.in(book, b, lines.length);
    for (const { method, ...ref } of lines)
      changes.change(ref, (line) => ({ ...line, method: method as Method, overrides: {} }));
  },
  removeScheduleRows(book, { budget, rows }) {
    const b = openBudget(book, budget);
    b.schedules = b.schedules.filter((r) => !rows.includes(r.id));
  },
  setContra(book, { budget, account, against }) {
    const b = openBudget(book, budget);
    for (const id of [account, against])
      if (id !== null && !book.accounts.some((a) => a.id === id)) refuse('noSuchAccount');
    if (against === null || against === account) delete b.contras[account];
    else b.contras[account] = against;
  },
};

/** A budget keeps the guesses that it came in force with: those it has already stay. */
export function keepGuesses(b: Draft<Budget>, guessed: readonly GuessedTerms[] | undefined): void {
  if (!guessed) return;
  const has = new Set(b.guessed.map((g) => termsKey(g.terms)));
  const more = guessed.filter((g) => !has.has(termsKey(g.terms)));
  if (more.length > 0) b.guessed = [...b.guessed, ...(more as Draft<GuessedTerms>[])];
}

/** From the first period that it may rule; refuses where none is left. It stays where it rules already. */
function putInForce(book: Draft<Book>, b: Draft<Budget>): void {
  const calendar = calendarFrom(book.calendar);
  const from = rulesFrom(book, calendar, b) ?? refuse('nothingToRule');
  if (!rulesOn(book, calendar, b, from)) book.inForce.push({ budget: b.id, from: calendar.period(from).id });
}

/**
 * Whether a budget is in force once it is approved: what rules its open months is a draft, or what it revises, or of the
 * same months and parts. Nothing else gives way unasked.
 */
export function comesIntoForce(
  book: Pick<Book, 'budgets' | 'inForce' | 'closedThrough' | 'calendar'>,
  b: Budget,
): boolean {
  const calendar = calendarFrom(book.calendar);
  const from = rulesFrom(book, calendar, b);
  if (from === null) return false;
  const revised = new Set<string>();
  for (let id = b.revises?.budget; id !== undefined && !revised.has(id);) {
    revised.add(id);
    id = book.budgets.find((x) => x.id === id)?.revises?.budget;
  }
  return rivalsOf(book, calendar, b, from).every(
    (other) => other.state === 'draft' || revised.has(other.id) || sameScope(other, b),
  );
}

function findBudget(book: Draft<Book>, id: string): Draft<Budget> {
  return book.budgets.find((b) => b.id === id) ?? refuse('noSuchBudget');
}

export function openBudget(book: Draft<Book>, id: string): Draft<Budget> {
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
