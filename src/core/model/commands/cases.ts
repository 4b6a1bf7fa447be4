import type { Draft } from 'immer';
import { nameWith, LIMITS } from '../limits';
import { RUNS, type Adjustment, type AppliedAdjustment, type Case, type CaseSize } from '../adjustment';
import type { Budget, Line } from '../budget';
import type { Cash } from '../cash';
import { LineChanges } from '../lines';
import { sameName } from '../names';
import type { Driver } from '../methods';
import { refuse } from '../refusal';
import type { ScheduleRow } from '../scheduleRow';
import { budgetHandlers, openBudget } from './budget';
import { mintId, replaceNamed, type HandlersOf } from './handlers';

/* What is tried over plans: adjustments, cases, and how much of each there is in each. */

export type CaseCommand =
  /** A new adjustment under an id that none ever had, after all others; with its sizes, by case. */
  | {
      readonly type: 'addAdjustment';
      readonly adjustment: Omit<Adjustment, 'id'>;
      readonly sizes: Readonly<Record<string, CaseSize>>;
    }
  /** Another in the place of one; with its sizes, by case, where they are others too. */
  | {
      readonly type: 'setAdjustment';
      readonly adjustment: Adjustment;
      readonly sizes?: Readonly<Record<string, CaseSize | null>>;
    }
  /** Takes adjustments away, with their sizes. */
  | { readonly type: 'removeAdjustments'; readonly adjustments: readonly string[] }
  /** Moves an adjustment before another, or to the end: each takes what those above it left. */
  | { readonly type: 'moveAdjustment'; readonly adjustment: string; readonly before: string | null }
  /** New cases, empty or with the sizes of another. */
  | {
      readonly type: 'addCases';
      readonly cases: readonly Omit<Case, 'id' | 'sizes'>[];
      readonly like: string | null;
    }
  /**
   * Takes adjustments into a draft (a new one, where `fresh` is it), with what they change: whole lines in place of lines, its rows
   * and quantities, and what they change of the company's money.
   */
  | {
      readonly type: 'applyAdjustments';
      readonly budget: string;
      readonly fresh: Budget | null;
      readonly applied: readonly AppliedAdjustment[];
      readonly lines: readonly Line[];
      readonly drivers: readonly Driver[];
      /** All rows; those whose ids the budget has not yet are new. Null: as they are. */
      readonly schedules: readonly ScheduleRow[] | null;
      readonly cash: Pick<Cash, 'floor' | 'creditLine' | 'dated'> | null;
    }
  /** Takes what still follows from applied adjustments out of a draft again. */
  | { readonly type: 'takeOutAdjustments'; readonly budget: string; readonly adjustments: readonly string[] }
  /** Takes in the list of another book, in this one's words: new adjustments and, by name, new cases or sizes for those there. */
  | {
      readonly type: 'takeCases';
      readonly adjustments: readonly Adjustment[];
      readonly cases: readonly Case[];
    }
  | { readonly type: 'renameCase'; readonly case: string; readonly name: string }
  | { readonly type: 'removeCase'; readonly case: string }
  /** Sizes of adjustments in cases; null: off there. */
  | {
      readonly type: 'setSizes';
      readonly cells: readonly {
        readonly case: string;
        readonly adjustment: string;
        readonly size: CaseSize | null;
      }[];
    };

export const caseHandlers: HandlersOf<CaseCommand> = {
  addAdjustment(book, { adjustment, sizes }) {
    if (adjustment.name.trim() === '') refuse('emptyName');
    const id = mintId(book, 'j');
    book.adjustments.push({ ...adjustment, id } as Draft<Adjustment>);
    for (const c of book.cases) {
      const size = sizes[c.id];
      if (size) c.sizes[id] = size;
    }
  },
  applyAdjustments(book, { budget, fresh, applied, lines, drivers, schedules, cash }) {
    if (fresh) budgetHandlers.addBudget(book, { type: 'addBudget', budget: fresh });
    const b = openBudget(book, budget);
    const has = new Set(b.applied.map((a) => a.adjustment.id));
    if (applied.some((a) => has.has(a.adjustment.id))) refuse('alreadyApplied');
    b.applied.push(...(applied as Draft<AppliedAdjustment>[]));
    const changes = LineChanges.in(book, b, lines.length);
    for (const line of lines) changes.change(line, () => line);
    for (const driver of drivers) replaceNamed(b.drivers, driver);
    if (schedules) {
      const known = new Set(b.schedules.map((r) => r.id));
      b.schedules = schedules.map((r) =>
        known.has(r.id) ? r : { ...r, id: mintId(book, 'r') },
      ) as Draft<ScheduleRow>[];
    }
    if (cash) Object.assign(book.cash, cash);
  },
  takeCases(book, { adjustments, cases }) {
    const ids = new Map<string, string>();
    for (const a of adjustments) {
      if (a.name.trim() === '') refuse('emptyName');
      const id = mintId(book, 'j');
      ids.set(a.id, id);
      book.adjustments.push({ ...a, id } as Draft<Adjustment>);
    }
    for (const c of cases) {
      let there = book.cases.find((o) => sameName(o.name, c.name));
      if (!there) {
        book.cases.push({ ...c, id: mintId(book, 'k'), sizes: {} } as Draft<Case>);
        there = book.cases.at(-1)!;
      }
      for (const [id, size] of Object.entries(c.sizes)) if (ids.has(id)) there.sizes[ids.get(id)!] = size;
    }
  },
  takeOutAdjustments(book, { budget, adjustments }) {
    const b = openBudget(book, budget);
    const gone = new Set(adjustments);
    for (const { adjustment } of b.applied)
      // What is written down stays, and would count a second time.
      if (gone.has(adjustment.id) && !RUNS.has(adjustment.what.on)) refuse('writtenDown');
    b.applied = b.applied.filter((a) => !gone.has(a.adjustment.id));
  },
  setAdjustment(book, { adjustment, sizes = {} }) {
    replaceNamed(book.adjustments, adjustment);
    for (const c of book.cases) {
      const size = sizes[c.id];
      if (size) c.sizes[adjustment.id] = size;
      else if (size === null) delete c.sizes[adjustment.id];
    }
  },
  removeAdjustments(book, { adjustments }) {
    const gone = new Set(adjustments);
    book.adjustments = book.adjustments.filter((a) => !gone.has(a.id));
    for (const c of book.cases) for (const id of gone) delete c.sizes[id];
  },
  moveAdjustment(book, { adjustment, before }) {
    const moving = book.adjustments.find((a) => a.id === adjustment) ?? refuse('noSuchItem');
    if (before === adjustment) return;
    const rest = book.adjustments.filter((a) => a.id !== adjustment);
    const at = before === null ? -1 : rest.findIndex((a) => a.id === before);
    rest.splice(at < 0 ? rest.length : at, 0, moving);
    book.adjustments = rest;
  },
  addCases(book, { cases, like }) {
    const sizes = book.cases.find((c) => c.id === like)?.sizes ?? {};
    for (const { name, by, at } of cases) {
      if (name.trim() === '') refuse('emptyName');
      const id = mintId(book, 'k');
      book.cases.push({ id, name: unused(book.cases, name.trim()), by, at, sizes: { ...sizes } });
    }
  },
  renameCase(book, { case: id, name }) {
    if (name.trim() === '') refuse('emptyName');
    const one = book.cases.find((c) => c.id === id) ?? refuse('noSuchItem');
    one.name = unused(
      book.cases.filter((c) => c.id !== id),
      name.trim(),
    );
  },
  removeCase(book, { case: id }) {
    book.cases = book.cases.filter((c) => c.id !== id);
  },
  setSizes(book, { cells }) {
    const known = new Set(book.adjustments.map((a) => a.id));
    for (const { case: id, adjustment, size } of cells) {
      const one = book.cases.find((c) => c.id === id) ?? refuse('noSuchItem');
      if (!known.has(adjustment)) refuse('noSuchItem');
      if (size === null) delete one.sizes[adjustment];
      else one.sizes[adjustment] = size;
    }
  },
};

/** A name that no other case has: two of one name could not be told apart. */
function unused(cases: readonly Pick<Case, 'name'>[], name: string): string {
  const taken = new Set(cases.map((c) => c.name));
  let own = name;
  for (let n = 2; taken.has(own); n++) own = nameWith(name, ` ${n}`, LIMITS.budgetName);
  return own;
}
