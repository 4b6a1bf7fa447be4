import type { Draft } from 'immer';
import { periodFaults, type CalendarSpec, type PeriodId } from '@/core/calendar';
import type { Weights, WorkWeek } from '../methods';
import { refuse } from '../refusal';
import type { VarianceNote } from '../explanation';
import type { AccountId, Axis, Book, Feed, Settings } from '../schema';
import { budgetsBy } from '../segments';
import { putNamed, type HandlersOf } from './handlers';

/* What changes a book as a whole: its name, calendar, axes, weights and settings, and notes on variances. */

export type BookCommand =
  | { readonly type: 'renameBook'; readonly name: string }
  | { readonly type: 'setSettings'; readonly settings: Partial<Settings> }
  | { readonly type: 'setClosedThrough'; readonly period: PeriodId | null }
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
    };

export const bookHandlers: HandlersOf<BookCommand> = {
  renameBook(book, { name }) {
    book.name = name.trim() || refuse('emptyName');
  },
  setSettings(book, { settings }) {
    Object.assign(book.settings, settings);
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
};
