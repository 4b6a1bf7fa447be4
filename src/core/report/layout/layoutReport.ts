import { isFlagged } from '@/core/variance';
import { plus, minor, type Minor } from '@/core/money';
import { periodsOf, yearRange, type DayNumber, type PeriodIndex, type PeriodRange } from '@/core/calendar';
import { cameInto, reckoned, segmentLedgers, type Ground } from '@/core/ground';
import { daySpan, type Balances } from '@/core/ledger';
import { isActual } from '@/core/plan';
import {
  lineOf,
  type Account,
  type Axis,
  type Book,
  type ColumnShow,
  type Layout,
  type LayoutColumn,
  type Line,
} from '@/core/model';
import type { ReportCell, ReportRow, ReportTable } from '../table';
import {
  comparesWith,
  figuresOf,
  Needs,
  varianceIn,
  type Against,
  type ColumnSides,
  type Made,
  type RowFigures,
} from './columns';
import { onlyBudget, type Compared } from './compared';
import { figuresOfRows, type Figures } from './figures';
import { flagOf } from './flags';
import { columnCount, madeColumns, MOST_COLUMNS, withFormulas } from './madeColumns';
import { SECTION_OF_KIND, type PlainRow } from './rows';
import { goesAhead, tellsSegments, type RowSet } from './rowSet';
import { remembered, type Remembered } from './series';
import { detailRow, keptRows, lazyRow, partlyKeys } from './shownRows';
import { sidesOf, type Scope, type Side, type Sides } from './sides';
import { spansOf, type ShownSpan } from './spans';
import type { LayoutWords } from './words';

export type LayoutInput = {
  readonly ground: Ground;
  readonly layout: Layout;
  readonly month: PeriodIndex;
  readonly compared: Compared;
  readonly words: LayoutWords;
  /** What is chosen on the ruler; the month alone where nothing is. */
  readonly ruler?: PeriodRange;
  /** The part of the ledger that is looked at; all of it where none is named. */
  readonly ledger?: Balances;
  /** Which accounts are looked at; all where none are named. */
  readonly accounts?: (account: Account) => boolean;
  /** What rows are called that add up a part of their accounts alone; as they are where nothing is said. */
  readonly labelOfPart?: (row: PlainRow) => string;
};

/** A report of a layout, with what a screen needs of it beside the table. */
export type LayoutReport = {
  readonly table: ReportTable;
  /** The values of the axis that columns or details are of. */
  readonly scopes: readonly Scope[];
  /** Accounts with figures in its columns that no row of someone's own has. */
  readonly leftOut: readonly Account[];
};

/** The values of an axis that a layout shows; none where it tells none apart, or cannot. */
export function scopesOf(ground: Ground, layout: Layout, compared: Compared): readonly Scope[] {
  const axis = axisOf(ground, layout, compared);
  if (!axis) return [];
  const named = layout.segments.values;
  const { comparison } = compared;
  const unassigned =
    // What goes on by what is expected has parts that no value has.
    goesAhead(layout.rows.set) ||
    segmentLedgers(ground, axis.id)(null).entries > 0 ||
    (comparison?.axis?.id === axis.id && comparison.segments.includes(null));
  const all: Scope[] = [...axis.values.map((v) => v.id), ...(unassigned ? [null] : [])];
  const within = comparison && !comparison.company ? new Set(comparison.segments) : null;
  return all.filter(
    (s) =>
      (named.length === 0 || named.includes(s as string | null)) &&
      (!within || within.has(s as string | null)),
  );
}

/** The way of dividing that a layout's segments are of: the one named, or the book's first. */
export const layoutAxis = ({ axes }: Pick<Book, 'axes'>, { axis }: Layout['segments']): Axis | null =>
  (axis === null ? axes[0] : axes.find((a) => a.id === axis)) ?? null;

function axisOf(ground: Ground, { segments, rows }: Layout, { comparison }: Compared): Axis | null {
  if (segments.place === 'none' || !tellsSegments(rows.set)) return null;
  const axis = layoutAxis(ground.book, segments);
  // Of a part of the company only that part can be told apart further by the same axis.
  return comparison && !comparison.company && comparison.axis?.id !== axis?.id ? null : axis;
}

type Kept = { readonly [K in keyof Sides]: Remembered | Extract<Sides[K], null> };

/** Sides of a state of the book, by what was asked of them: the months of one look are those of the next. */
const kept = new WeakMap<Ground, Map<string, Kept>>();

function keptSides(input: LayoutInput, set: RowSet, axis: Axis | null, days: DayRange | null): Kept {
  const { ground, month, compared, layout } = input;
  const { year } = ground.calendar.period(month);
  const second = compared.second;
  const key = [
    compared.comparison?.id,
    compared.comparison?.inForceIn,
    compared.first,
    compared.kept?.id,
    typeof second === 'object' ? `${second?.id} ${second?.inForceIn}` : second,
    axis?.id,
    layout.rows.set,
    layout.days,
    year,
    days?.first,
    days?.last,
  ].join('|');
  let own = kept.get(ground);
  if (!own) kept.set(ground, (own = new Map()));
  // A part of the ledger is another one each time.
  if (input.ledger && input.ledger !== ground.balances) own = new Map();
  let sides = own.get(key);
  if (!sides) {
    const span = yearRange(ground.calendar, year);
    const { sides: ofSet = sidesOf } = set;
    const plain = ofSet({
      ground,
      month,
      compared,
      axis,
      days: layout.days,
      range: days,
      ledger: input.ledger ?? ground.balances,
    });
    const keep = (side: Side) => remembered(side, span.first - 2 * (span.last - span.first + 1), span.last);
    own.set(
      key,
      (sides = {
        actual: keep(plain.actual),
        reclassified: keep(plain.reclassified),
        outlook: keep(plain.outlook),
        lastYear: keep(plain.lastYear),
        flexible: keep(plain.flexible),
        mix: keep(plain.mix),
        first: keep(plain.first),
        second: plain.second && keep(plain.second),
      }),
    );
  }
  return sides;
}

/** A detail of a row: of one value of the axis; null for the row itself. */
type Detail = { readonly scope: Scope } | null;

type DayRange = { readonly first: DayNumber; readonly last: DayNumber };

/** A layout's report of a month, its rows of a set. */
export function reportOfSet(set: RowSet, input: LayoutInput): LayoutReport {
  const { ground, layout, month, compared, words } = input;
  const { book, calendar, balances, closedThrough } = ground;
  const axis = axisOf(ground, layout, compared);
  const scopes = axis ? scopesOf(ground, layout, compared) : [];
  const across = layout.segments.place === 'across' ? scopes : [];
  const beneath = layout.segments.place === 'beneath' ? scopes : [];
  const ledger = input.ledger ?? balances;
  const isClosed = (p: PeriodIndex) => isActual(balances, closedThrough, p);
  const isKnown = set.knows?.(ground, compared, ledger) ?? isClosed;
  const budget = onlyBudget(compared);
  const planned = budget ? reckoned(ground, budget).facts.periods : [];
  const byDay = layout.columns.some(
    ({ span, hidden }) => !hidden && span.of === 'each' && (span.by === 'week' || span.by === 'day'),
  );
  const spanGround = {
    calendar,
    month,
    ruler: input.ruler ?? { first: month, last: month },
    budget: planned.length > 0 ? { first: planned[0]!.index, last: planned.at(-1)!.index } : null,
    isActual: isKnown,
    isClosed,
    lastDay: byDay ? (daySpan(ground.blocks)?.high ?? null) : null,
  };
  const shownColumns = layout.columns
    .map((column, place) => ({ column, place }))
    .filter(({ column }) => !column.hidden && !saysTwice(column, layout.columns, compared));
  const asked = columnCount(spanGround, shownColumns, across.length);
  if (asked > MOST_COLUMNS) {
    const { title, subtitle } = words;
    const table = { report: layout.id, title, subtitle, book: book.name, currency: book.currency };
    return { table: { ...table, columns: [], rows: [], tooWide: asked }, scopes, leftOut: [] };
  }
  const days = byDay
    ? dayRange(shownColumns.flatMap(({ column }) => spansOf(spanGround, column.span)))
    : null;
  const sides = keptSides(input, set, axis, days && withYearBefore(days));
  const { first } = sides;
  // What knows its own periods adds up all of them, planned or not.
  const covers = compared.first === 'comparison' && !set.knows ? first.covers : () => true;
  const chart = set.accounts(ground, compared);
  const accounts = input.accounts ? chart.filter(input.accounts) : chart;
  const wholes = new Map<string, boolean>();
  const sideOf = (which: Against): Remembered | null =>
    which === 'lastYear' ? sides.lastYear : sides[which];
  const thisYear = calendar.period(month).year;
  const columnSides: ColumnSides = {
    actual: sides.actual,
    reclassified: sides.reclassified,
    outlook: sides.outlook,
    flexible: sides.flexible,
    mix: sides.mix,
    against: sideOf,
    hasWholes(which, years) {
      const side = sideOf(which);
      return years.some((year) => {
        const key = `${which} ${year}`;
        let has = wholes.get(key);
        if (has === undefined)
          wholes.set(key, (has = accounts.some((a) => (side?.whole(a, 'all', year) ?? null) !== null)));
        return has;
      });
    },
    year: periodsOf(calendar, yearRange(calendar, thisYear))
      .map((p) => p.index)
      .filter(covers),
    isActual: isKnown,
  };
  const units = set.units?.(ground, compared) ?? [];
  const needs = new Needs();
  const made = withFormulas(madeColumns(spanGround, shownColumns, across, columnSides, needs, units, words));
  const flagPair = figuresOf(needs, columnSides, {
    key: 'month',
    of: 'month',
    counts: 'whole',
    periods: [month],
    known: isKnown(month) ? [month] : [],
    years: [thisYear],
    days: null,
  }).pairOf('first');
  const used = columnSides.hasWholes('first', [thisYear])
    ? figuresOf(needs, columnSides, spansOf(spanGround, { of: 'toDate' })[0]!)
    : null;
  const usedActual = used?.actualBeside('first') ?? 0;

  const figures = figuresOfRows(accounts, needs, set.rollOf);
  // What has no value of the axis is told where there is any of it: entries, or something planned.
  const hasUnassigned =
    !scopes.includes(null) ||
    segmentLedgers(ground, axis!.id)(null).entries > 0 ||
    accounts.some((a) => figures.ofAccount(a, null).some((v) => v !== null && v !== 0));
  const columns = hasUnassigned ? made : made.filter((c) => c.scope !== null);
  const sizing = layout.rows.sort === 'size' ? sizeColumn(columns) : null;
  const named = set.rows(
    layout.rows,
    accounts,
    sizing === null ? null : (a) => sizing((need) => figures.ofAccount(a, 'all')[need] ?? null),
  );
  // A total of some of its accounts is not the total.
  const { labelOfPart } = input;
  const looked = new Set(accounts);
  const lacking = new Set(chart.flatMap((a) => (looked.has(a) ? [] : [SECTION_OF_KIND[a.kind]])));
  const rows =
    labelOfPart && lacking.size > 0
      ? named.map((row) =>
          row.section === null || lacking.has(row.section) ? { ...row, label: labelOfPart(row) } : row,
        )
      : named;
  const { ofRow, income } = figures.over(rows);
  const notes = book.varianceNotes[calendar.period(month).id] ?? {};
  const byId = new Map(book.accounts.map((a) => [a.id, a]));

  /** What is said of the one line of the budget that makes a row; nothing where several do. */
  const lineWords = (row: PlainRow, scope: Scope, of: (line: Line) => string): string => {
    const segments = scope === 'all' ? (compared.comparison?.segments ?? []) : [scope];
    if (!budget || row.account === null || segments.length !== 1) return '';
    const line = lineOf(budget, { account: row.account, segment: segments[0]! });
    return line ? of(line) : '';
  };
  /** A row's figures of one value of the axis, or of all. */
  const figuresAt = (r: number, scope: Scope, detail: boolean): RowFigures => {
    const row = rows[r]!;
    const values = ofRow(r, scope);
    const account = row.account === null || detail ? null : byId.get(row.account);
    return {
      value: (need) => values[need] ?? null,
      income: (need) => income(scope)[need] ?? null,
      effect: row.effect,
      isCounted: set.unitOf !== undefined,
      note: () => {
        const note = account ? notes[account.id] : undefined;
        const whole = account ? first.whole(account, 'all', thisYear) : null;
        const said = () =>
          words.used(
            ofRow(r, 'all')[usedActual] ?? null,
            minor(plus(first.over(account!, 'all', columnSides.year, row.roll) ?? 0, whole!)),
          );
        return [
          note ? words.note(note) : '',
          account ? words.came(cameInto(ground, account, month)) : '',
          whole !== null && used ? said() : '',
          row.terms.length > 0 && partlyKeys(columns, (of) => ofRow(r, of), true).length > 0
            ? words.apart
            : '',
        ]
          .filter(Boolean)
          .join(' · ');
      },
      keeper: () => account?.keeper ?? '',
      method: () => lineWords(row, scope, words.method),
      planNote: () => lineWords(row, scope, words.planNote),
    };
  };
  const cellsOf = (r: number, detail: Detail): ReportCell[] => {
    const row = rows[r]!;
    if (row.kind === 'section' || row.kind === 'blank') return [];
    const of = new Map<Scope, RowFigures>();
    return columns.map((made) => {
      const scope = detail ? detail.scope : made.scope;
      let figures = of.get(scope);
      if (!figures) of.set(scope, (figures = figuresAt(r, scope, detail !== null)));
      const { pair } = made;
      const apart =
        pair &&
        (!pair.tells(scope) || (row.members.length > 0 && row.members.every((a) => pair.apart(a, scope))));
      return apart ? null : made.cell(figures);
    });
  };
  const flagged = (row: PlainRow, r: number): boolean => {
    if (row.account === null || !flagPair || row.effect === 0) return false;
    const account = byId.get(row.account);
    if (!account || flagPair.apart(account, 'all')) return false;
    const values = ofRow(r, 'all');
    const variance = varianceIn(flagPair, {
      value: (need) => values[need] ?? null,
      effect: row.effect,
      isCounted: false,
    });
    return isFlagged(variance, values[flagPair.shown[1]] ?? null, flagOf(book, account));
  };
  const flags = rows.map(flagged);
  // A mark says something beside a difference alone.
  const marks = columns.some(({ spec: { show } }) => DIFFERS.has(show));
  const shown = keptRows(layout, rows, ofRow, columns, flags);
  const placeOf = new Map<number, number>();
  const out: ReportRow[] = [];
  for (const r of shown) {
    const row = rows[r]!;
    placeOf.set(r, out.length);
    const maker = {
      cells: () => cellsOf(r, null),
      placeOf,
      apart: () => partlyKeys(columns, (of) => ofRow(r, of)),
    };
    out.push(lazyRow(row, maker, marks && flags[r]!, set.unitOf?.(row) ?? undefined));
    if (row.kind === 'line')
      for (const scope of beneath)
        if (scope !== null || hasUnassigned)
          out.push(detailRow(row, scope, words.scope(scope), () => cellsOf(r, { scope })));
  }
  return {
    table: {
      report: layout.id,
      title: words.title,
      subtitle: words.subtitle,
      book: book.name,
      currency: book.currency,
      ...(columns.some((c) => c.column.kind === 'sense') && { notation: words.notation }),
      columns: columns.map((c) => c.column),
      rows: out,
    },
    scopes,
    leftOut: layout.rows.own.length > 0 ? leftOut(rows, accounts, figures.ofAccount, columns) : [],
  };
}

/** Whether a column beside last year says what another does, where last year is what all is compared with. */
function saysTwice(
  { show, span, against }: LayoutColumn,
  columns: readonly LayoutColumn[],
  { first, kept: forecast }: Compared,
): boolean {
  if (first !== 'lastYear' || forecast || against !== 'lastYear' || !comparesWith(show)) return false;
  const same = JSON.stringify(span);
  return columns.some(
    (c) => !c.hidden && c.against === 'first' && c.show === show && JSON.stringify(c.span) === same,
  );
}

const DIFFERS: ReadonlySet<ColumnShow> = new Set(['difference', 'percent', 'reached', 'sense', 'bar']);

function dayRange(spans: readonly ShownSpan[]): DayRange | null {
  const all = spans.flatMap((s) => (s.days ? [s.days] : []));
  if (all.length === 0) return null;
  return { first: Math.min(...all.map((d) => d.first)), last: Math.max(...all.map((d) => d.last)) };
}

/** The same days with those a year before, which last year is read from. */
const withYearBefore = ({ first, last }: DayRange): DayRange => ({ first: first - 366, last });

/** How large a line is: its first difference, or what its first column of money shows. */
function sizeColumn(columns: readonly Made[]): ((value: (need: number) => Minor | null) => number) | null {
  const pair =
    columns.find((c) => c.pair && c.spec.show === 'difference')?.pair ?? columns.find((c) => c.pair)?.pair;
  if (pair) return (value) => Math.abs((value(pair.compared[0]) ?? 0) - (value(pair.compared[1]) ?? 0)) || 0;
  const shows = columns.find((c) => c.shows !== null)?.shows;
  return shows === undefined || shows === null ? null : (value) => Math.abs(value(shows) ?? 0) || 0;
}

/** Accounts that have figures in the columns and stand in no row of someone's own. */
function leftOut(
  rows: readonly PlainRow[],
  accounts: readonly Account[],
  ofAccount: Figures['ofAccount'],
  columns: readonly Made[],
): readonly Account[] {
  const there = new Set(rows.flatMap((r) => r.members.map((a) => a.id)));
  return accounts.filter(
    (a) =>
      !there.has(a.id) &&
      columns.some((c) => c.shows !== null && c.scope === 'all' && (ofAccount(a, 'all')[c.shows] ?? 0) !== 0),
  );
}
