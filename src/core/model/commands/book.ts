import type { Draft } from 'immer';
import {
  calendarFrom,
  indexOfId,
  periodFaults,
  toDayNumber,
  type CalendarSpec,
  type PeriodId,
} from '@/core/calendar';
import type { Cash, GuessedTerms } from '../cash';
import type { Weights, WorkWeek } from '../methods';
import { refuse } from '../refusal';
import type { Flag, Message, OutlookWay, Quantity, VarianceNote } from '../explanation';
import type { Covenant, FlowClass, OwnRatio } from '../covenant';
import type { Layout } from '../layout';
import { sameName } from '../names';
import type { AccountId, Axis, Book, Feed, Settings } from '../schema';
import { budgetsBy } from '../segments';
import { keepGuesses } from './budget';
import { passIds, putNamed, type HandlersOf } from './handlers';

/* What changes a book as a whole: its name, calendar, axes, weights and settings, and notes on variances. */

export type BookCommand =
  | { readonly type: 'renameBook'; readonly name: string }
  | { readonly type: 'setSettings'; readonly settings: Partial<Settings> }
  /** `runOffEnds`: by when what stands without items has run off, as the books stand before it. */
  | {
      readonly type: 'setClosedThrough';
      readonly period: PeriodId | null;
      readonly runOffEnds?: Cash['runOffEnds'];
      /** How far it was measured how fast counterparties pay. */
      readonly measuredThrough?: Cash['measuredThrough'];
      /** What plans in force that have kept no guesses of terms yet are guessed to be, by budget. */
      readonly guessed?: Readonly<Record<string, readonly GuessedTerms[]>>;
    }
  | {
      readonly type: 'setCalendar';
      readonly calendar: CalendarSpec;
      readonly closedThrough: PeriodId | null;
    }
  | { readonly type: 'setAxis'; readonly axis: Axis }
  | { readonly type: 'removeAxis'; readonly axis: string }
  | { readonly type: 'setFeed'; readonly feed: Feed | null }
  | { readonly type: 'setWeights'; readonly weights: Weights }
  | { readonly type: 'removeWeights'; readonly weights: string }
  | { readonly type: 'setWorkWeek'; readonly workWeek: WorkWeek }
  | {
      readonly type: 'setVarianceNote';
      readonly period: PeriodId;
      readonly account: AccountId;
      readonly note: VarianceNote | null;
    }
  /** When variances of a kind or an account are flagged; null: as the rest. */
  | {
      readonly type: 'setFlag';
      readonly of: 'kinds' | 'accounts';
      readonly key: string;
      readonly flag: Flag | null;
    }
  /** How coming months of an account are expected in a budget's outlook; null: as planned. */
  | {
      readonly type: 'setOutlookWay';
      readonly budget: string;
      readonly account: AccountId;
      readonly way: OutlookWay | null;
    }
  /** What was counted of drivers, each in place of what the book has under its name. */
  | { readonly type: 'setQuantities'; readonly quantities: readonly Quantity[] }
  /** Where accounts belong on the cash-flow statement; null: by their kind. */
  | {
      readonly type: 'setFlowClass';
      readonly accounts: readonly AccountId[];
      readonly flow: FlowClass | null;
    }
  /** How much of accounts' costs rises with sales, in whole percent; null: by their kind. */
  | {
      readonly type: 'setCostBehavior';
      readonly accounts: readonly AccountId[];
      readonly variable: number | null;
    }
  /** Keeps a covenant, in place of the one of its id. */
  | { readonly type: 'setCovenant'; readonly covenant: Covenant }
  | { readonly type: 'removeCovenant'; readonly covenant: string }
  /** Keeps a ratio of the book's own, in place of the one of its id. */
  | { readonly type: 'setOwnRatio'; readonly ratio: OwnRatio }
  | { readonly type: 'removeOwnRatio'; readonly ratio: string }
  /** What a layout's report of a period says; null: as it is drafted. */
  | {
      readonly type: 'setMessage';
      readonly period: PeriodId;
      readonly layout: string;
      readonly message: Message | null;
    }
  | { readonly type: 'putLayouts'; readonly layouts: readonly Layout[] }
  | { readonly type: 'removeLayout'; readonly layout: string }
  /** Moves a layout before another, or to the end. */
  | { readonly type: 'moveLayout'; readonly layout: string; readonly before: string | null };

export const bookHandlers: HandlersOf<BookCommand> = {
  renameBook(book, { name }) {
    book.name = name.trim() || refuse('emptyName');
  },
  setSettings(book, { settings }) {
    Object.assign(book.settings, settings);
  },
  setClosedThrough(book, { period, runOffEnds, measuredThrough, guessed }) {
    book.closedThrough = period;
    if (runOffEnds) book.cash.runOffEnds = { ...runOffEnds };
    if (measuredThrough) book.cash.measuredThrough = measuredThrough;
    for (const b of book.budgets) keepGuesses(b, guessed?.[b.id]);
  },
  setCalendar(book, { calendar, closedThrough }) {
    if (calendar.kind === 'handMade' && periodFaults(calendar.periods).length > 0) refuse('brokenCalendar');
    // Periods that the new calendar has not are those of it that begin on the same day, or hold it.
    const [was, now] = [calendarFrom(book.calendar), calendarFrom(calendar)];
    for (const f of book.inForce) {
      const at = indexOfId(was, f.from);
      if (at !== null) f.from = now.period(now.indexOfDay(toDayNumber(was.period(at).start))).id;
    }
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
    passIds(book, [axis.id, ...axis.values.map((v) => v.id)]);
  },
  removeAxis(book, { axis }) {
    if (budgetsBy(book, axis).length > 0) refuse('segmentInUse');
    book.axes = book.axes.filter((a) => a.id !== axis);
  },
  setFeed(book, { feed }) {
    book.feed = feed;
  },
  setWeights(book, { weights }) {
    putNamed(book, book.weights, weights);
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
    if (note) notes[account] = note as Draft<VarianceNote>;
    else delete notes[account];
    if (Object.keys(notes).length === 0) delete book.varianceNotes[period];
  },
  setFlag(book, { of, key, flag }) {
    if (of === 'accounts' && !book.accounts.some((a) => a.id === key)) refuse('noSuchAccount');
    if (flag) book.flags[of][key] = flag;
    else delete book.flags[of][key];
  },
  setOutlookWay(book, { budget, account, way }) {
    if (!book.budgets.some((b) => b.id === budget)) refuse('noSuchBudget');
    if (!book.accounts.some((a) => a.id === account)) refuse('noSuchAccount');
    const ways = (book.outlookWays[budget] ??= {});
    if (way) ways[account] = way as Draft<OutlookWay>;
    else delete ways[account];
    if (Object.keys(ways).length === 0) delete book.outlookWays[budget];
  },
  setQuantities(book, { quantities }) {
    for (const q of quantities) {
      if (q.name.trim() === '') refuse('emptyName');
      const at = book.quantities.findIndex((other) => sameName(other.name, q.name));
      const keeps = Object.keys(q.values).length > 0 || q.over !== undefined;
      if (at >= 0) book.quantities.splice(at, 1, ...(keeps ? [q as Draft<Quantity>] : []));
      else if (keeps) book.quantities.push(q as Draft<Quantity>);
    }
  },
  setFlowClass(book, { accounts, flow }) {
    for (const account of accounts) {
      if (!book.accounts.some((a) => a.id === account)) refuse('noSuchAccount');
      if (flow) book.flowClasses[account] = flow;
      else delete book.flowClasses[account];
    }
  },
  setCostBehavior(book, { accounts, variable }) {
    for (const account of accounts) {
      if (!book.accounts.some((a) => a.id === account)) refuse('noSuchAccount');
      if (variable === null) delete book.variableShares[account];
      else book.variableShares[account] = Math.min(100, Math.max(0, Math.round(variable)));
    }
  },
  setCovenant(book, { covenant }) {
    const { ratio } = covenant;
    if (typeof ratio === 'object' && !book.ownRatios.some((r) => r.id === ratio.own)) refuse('noSuchRatio');
    putNamed(book, book.covenants, covenant);
  },
  removeCovenant(book, { covenant }) {
    book.covenants = book.covenants.filter((c) => c.id !== covenant);
  },
  setOwnRatio(book, { ratio }) {
    putNamed(book, book.ownRatios, ratio);
  },
  removeOwnRatio(book, { ratio }) {
    book.ownRatios = book.ownRatios.filter((r) => r.id !== ratio);
    // What was asked of it goes with it, and comes back with it.
    book.covenants = book.covenants.filter((c) => typeof c.ratio !== 'object' || c.ratio.own !== ratio);
  },
  setMessage(book, { period, layout, message }) {
    const all = (book.messages[period] ??= {});
    if (message) all[layout] = message;
    else delete all[layout];
    if (Object.keys(all).length === 0) delete book.messages[period];
  },
  putLayouts(book, { layouts }) {
    for (const layout of layouts) putNamed(book, book.layouts, layout);
  },
  removeLayout(book, { layout }) {
    book.layouts = book.layouts.filter((l) => l.id !== layout);
    for (const [period, all] of Object.entries(book.messages)) {
      delete all[layout];
      if (Object.keys(all).length === 0) delete book.messages[period];
    }
  },
  moveLayout(book, { layout, before }) {
    const moved = book.layouts.find((l) => l.id === layout);
    if (!moved) return;
    const rest = book.layouts.filter((l) => l.id !== layout);
    const at = rest.findIndex((l) => l.id === before);
    rest.splice(at < 0 ? rest.length : at, 0, moved);
    book.layouts = rest;
  },
};
