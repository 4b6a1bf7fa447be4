import { markWords } from '@/store/caseWords';
import { isAllTyped, lineBadge } from '@/store/methodWords';
import { madeBy } from '@/store/scheduleWords';
import { divideRounded, minor, sumBlank, type Minor } from '@/core/money';
import { fiscalYearLabel, fiscalYearsLabel, yearsBefore, type Period } from '@/core/calendar';
import type { Account, AccountId, Adjustment, Book, Budget, Line, LineRef, SegmentId } from '@/core/model';
import { changesTerms, touching, triedOver } from '@/core/scenario';
import { wholeRow, type Facts, type Figures } from '@/core/plan';
import {
  budgetRows,
  createFiller,
  fillStatement,
  groupPeriods,
  isBalanceRow,
  placesOfRows,
  rowName,
  rowTotal,
  type PeriodGroup,
  type StatementRow,
} from '@/core/report';
import { sameList, type SheetColumn, type SheetRow } from '@/components/sheet/types';
import type { Ground, Reckoned } from '@/core/ground';
import { lastOf } from '@/core/lastOf';
import { isFiltering, keptRows, NO_FILTER, type Filter } from '../sheet/filters';
import type { Info, Setup } from '../sheet/setup';
import { segmentsIn, planAccounts, sameMonths, yearBefore, type YearBefore } from '@/core/ground';

/** A column of the worksheet: which of the budget's periods it stands for, and what it shows of them. */
export type WorkColumn = SheetColumn & {
  readonly span: PeriodGroup | null;
  readonly shows: 'plan' | 'prior' | 'wholes' | Info;
};

type Months = readonly (Minor | null)[];

export type WorkRow = SheetRow & {
  /** The line behind it; null for headings and totals, and where segments are added up. */
  readonly ref: LineRef | null;
  readonly account: AccountId | null;
};

export type Worksheet = {
  readonly rows: readonly WorkRow[];
  readonly columns: readonly WorkColumn[];
  readonly groups: readonly PeriodGroup[];
  /** Net profit of the budget, and of the year before. */
  readonly net: Minor | null;
  readonly priorNet: Minor | null;
  /** Lines that were gone over, of all lines. */
  readonly looked: { readonly done: number; readonly of: number };
};

export type WorksheetChoice = {
  readonly setup: Setup;
  readonly filter: Filter;
  readonly folded: ReadonlySet<string>;
  readonly segment: SegmentId | 'all';
  /** What was approved for the same periods, where a filter asks for it. */
  readonly approved: ((account: AccountId, segment: SegmentId | 'all') => Figures | null) | null;
};

/** What a worksheet remembers from one edit to the next, so that only what changed is made anew. */
export type Fillers = ReturnType<typeof createFillers>;

export const createFillers = () => ({
  statement: lastOf(budgetRows),
  places: lastOf(placesOfRows),
  plan: createFiller(),
  /** Months with what is said of whole years, where any line says such. */
  wide: new WeakMap<Figures, Months>(),
  prior: lastOf(fillPrior),
  /** Two years before. */
  before: lastOf(fillTwoBefore),
  columns: lastOf(columnsFor),
  order: lastOf(keptRows),
  sections: lastOf(sectionsOf),
  tried: lastOf(triedWords),
  /** A row as it was made last, with what it was made from; it is made again only when that changed. */
  kept: new Map<string, { readonly from: readonly unknown[]; readonly row: WorkRow }>(),
});

/** How a line is paid is no amount of the sheet. */
const movesAmounts = (a: Adjustment): boolean => !changesTerms(a);

/** What cases try over the amounts of lines and what was taken into them, in words, by account. */
function triedWords(
  adjustments: Book['adjustments'],
  cases: Book['cases'],
  applied: Budget['applied'],
  schedules: Budget['schedules'],
  accounts: readonly Account[],
  segment: SegmentId | 'any',
): ReadonlyMap<AccountId, string> {
  const named = (all: readonly Adjustment[]) => touching(all, { schedules }, accounts, segment);
  const tried = named(triedOver({ adjustments, cases }, { applied }).filter(movesAmounts));
  const taken = named(applied.map((a) => a.adjustment).filter(movesAmounts));
  return new Map(
    [...new Set([...taken.keys(), ...tried.keys()])].map((account) => [
      account,
      markWords(taken.get(account), tried.get(account)),
    ]),
  );
}

export const NO_CHOICE: Omit<WorksheetChoice, 'setup'> = {
  filter: NO_FILTER,
  folded: new Set(),
  segment: 'all',
  approved: null,
};

const NO_MARKS: readonly boolean[] = [];
const NO_WORDS: readonly string[] = [];

/** Which segment the sheet shows: the only one there is, or the one chosen. */
export const segmentShown = (segments: readonly SegmentId[], chosen: SegmentId | 'all'): SegmentId | 'all' =>
  segments.length === 1 ? segments[0]! : chosen;

/** The rows and columns of the worksheet, as the person has chosen to see them. */
export function worksheet(
  ground: Ground,
  reckoned: Reckoned,
  choice: WorksheetChoice,
  fillers: Fillers,
): Worksheet {
  const { budget, facts, reckoning } = reckoned;
  const accounts = planAccounts(ground, reckoned);
  const { setup } = choice;
  const segment = segmentShown(budget.segments, choice.segment);
  const statement = fillers.statement(accounts, budget.covers);
  const places = segment === 'all' ? null : fillers.places(statement, reckoning.lines.places, segment);
  const placeOf = (r: number) => places?.[r] ?? -1;
  const width = facts.periods.length;
  const years = hasWholes(budget.lines, reckoned) ? facts.years.length : 0;
  const figuresAt = (id: AccountId, r: number): Figures | null =>
    budget.approved || !places ? reckoned.figures(id, segment) : (reckoning.lines.at(places[r]!) ?? null);
  const filled = fillers.plan(statement, width + years, (id, r) => {
    const figures = figuresAt(id, r);
    if (figures === null || years === 0) return figures?.amounts ?? null;
    let row = fillers.wide.get(figures);
    if (!row) fillers.wide.set(figures, (row = wholeRow(figures, years)!));
    return row;
  });
  const prior = yearBefore(ground, reckoned);
  const priors = fillers.prior(statement, prior, facts.periods.length, segment);
  const before = setup.info.includes('yearBefore')
    ? fillers.before(statement, facts, budget.segments, segment)
    : null;
  const grain = setup.grain === 'beside' ? 'months' : setup.grain;
  const columns = fillers.columns(facts.periods, setup, years > 0, prior.as);
  const groups = groupPeriods(facts.periods, grain);
  const income = statement.findIndex((r) => r.kind === 'subtotal' && r.section === 'income');
  const totalAt = (r: number): Minor | null => {
    const values = filled[r]!;
    return years === 0
      ? rowTotal(statement[r]!, values)
      : rowTotal(statement[r]!, values.slice(0, width), values.slice(width));
  };

  /** What the months come to whose counterparts of the year before are known. */
  const sameAt = (r: number): Minor | null =>
    prior.all ? totalAt(r) : rowTotal(statement[r]!, sameMonths(prior, filled[r]!.slice(0, width)));

  const incomeTotal = setup.info.includes('share') && income >= 0 ? totalAt(income) : null;
  const cell = (row: StatementRow, r: number, c: WorkColumn): Minor | null => {
    const values = filled[r]!;
    const last = priors[r]!;
    const lastTotal = () => rowTotal(row, last);
    switch (c.shows) {
      case 'plan':
        if (!c.span || c.kind !== 'amount') return totalAt(r);
        return c.span.to - c.span.from === 1
          ? values[c.span.from]!
          : rowTotal(row, values.slice(c.span.from, c.span.to));
      case 'prior':
        return c.span ? rowTotal(row, last.slice(c.span.from, c.span.to)) : lastTotal();
      case 'wholes':
        return sumBlank(values.slice(width));
      case 'lastYear':
        return lastTotal();
      case 'yearBefore':
        return before && rowTotal(row, before[r]!);
      case 'change':
      case 'changePercent': {
        const [now, then] = [sameAt(r), lastTotal()];
        if (now === null && then === null) return null;
        const change = minor((now ?? 0) - (then ?? 0));
        if (c.shows === 'change') return change;
        return then ? divideRounded(change, 1000, Math.abs(then), 'halfAwayFromZero') : null;
      }
      case 'share': {
        const [part, all] = [totalAt(r), incomeTotal];
        if (part === null || !all || isBalanceRow(row)) return null;
        return divideRounded(part, 1000, all, 'halfAwayFromZero');
      }
    }
  };

  const made = (row: StatementRow, r: number): WorkRow => {
    const { key } = rowName(row);
    const place = placeOf(r);
    const from = [
      row,
      filled[r],
      priors[r],
      before?.[r],
      columns,
      segment,
      incomeTotal,
      prior.known,
      choice.folded.has(key),
      reckoning.lines.lineAt(place),
      reckoning.lines.at(place)?.issue,
      tried.get(key),
    ];
    const last = fillers.kept.get(key);
    if (last && sameList(last.from, from)) return last.row;
    const fresh = make(row, r);
    fillers.kept.set(key, { from, row: fresh });
    return fresh;
  };

  const { adjustments, cases } = ground.book;
  const tried = fillers.tried(
    adjustments,
    cases,
    budget.applied,
    budget.schedules,
    accounts,
    segment === 'all' ? 'any' : segment,
  );
  const bySchedule = madeBy(budget.schedules, reckoned.made);
  const make = (row: StatementRow, r: number): WorkRow => {
    const { key, label } = rowName(row);
    const isLine = row.kind === 'line';
    const ref = isLine && segment !== 'all' ? { account: key, segment } : null;
    const line = reckoning.lines.lineAt(placeOf(r));
    const result = reckoning.lines.at(placeOf(r));
    const typed = result?.typed ?? NO_MARKS;
    const values = row.kind === 'section' ? [] : columns.map((c) => cell(row, r, c));
    return {
      key,
      account: isLine ? key : null,
      ref,
      label,
      aside:
        row.kind === 'section' && isBalanceRow(row)
          ? 'at the end of each month; what all come to stands under Statements'
          : undefined,
      kind: row.kind,
      code: isLine ? row.account.code : '',
      badge: isLine
        ? line
          ? ((line.method.kind === 'schedule' ? bySchedule.get(line.account) : undefined) ??
            lineBadge(line, facts.periods))
          : segment === 'all'
            ? 'Added up'
            : 'No line yet'
        : '',
      badgeTone: result?.issue
        ? 'trouble'
        : line && line.method.kind !== 'byMonth' && !isAllTyped(line, facts.periods)
          ? 'plan'
          : 'quiet',
      hasNote: Boolean(line?.note),
      keeper: isLine ? row.account.keeper : undefined,
      looked: line?.looked ? true : undefined,
      tried: isLine ? tried.get(key) : undefined,
      folded: row.kind === 'section' || row.kind === 'group' ? choice.folded.has(key) : undefined,
      picture:
        setup.lead.includes('picture') && row.kind !== 'section' ? filled[r]!.slice(0, width) : undefined,
      values,
      typed: typed.includes(true)
        ? columns.map(
            (c) =>
              c.shows === 'plan' && c.span !== null && typed.slice(c.span.from, c.span.to).includes(true),
          )
        : NO_MARKS,
      noted: line && Object.keys(line.cellNotes).length > 0 ? cellNotes(line, reckoned, columns) : NO_WORDS,
      enterable: isLine,
    };
  };

  const shown = isFiltering(choice.filter)
    ? keptRows(statement, choice.folded, setup.costsFirst, {
        filter: choice.filter,
        lines: (id) =>
          segmentsIn(budget, segment).flatMap(
            (s) => reckoning.lines.lineAt(reckoning.lines.places.of({ account: id, segment: s }) ?? -1) ?? [],
          ),
        figures: (id) => reckoned.figures(id, segment),
        years: facts.years,
        approved: (id) => choice.approved?.(id, segment) ?? null,
      })
    : fillers.order(statement, choice.folded, setup.costsFirst);
  const { progress, looked } = progressOf(fillers.sections(statement), budget.lines, segment);
  const net = statement.findIndex((r) => r.kind === 'result' && r.result === 'netProfit');
  return {
    rows: shown.map((r) => withProgress(made(statement[r]!, r), progress)),
    columns,
    groups,
    net: net < 0 ? null : totalAt(net),
    priorNet: net < 0 ? null : rowTotal(statement[net]!, priors[net]!),
    looked,
  };
}

function columnsFor(
  periods: readonly Period[],
  setup: Setup,
  wholes: boolean,
  as: YearBefore['as'],
): WorkColumn[] {
  const groups = groupPeriods(periods, setup.grain === 'beside' ? 'months' : setup.grain);
  const prior = fiscalYearsLabel(periods, 1);
  const several = periods[0]?.year !== periods.at(-1)?.year;
  const year = several ? 'Total' : fiscalYearsLabel(periods);
  const beside = setup.grain === 'beside';
  const all: PeriodGroup = { label: year, from: 0, to: periods.length };
  const info: Record<Info, string> = {
    change: `on ${prior}`,
    changePercent: '%',
    lastYear: prior,
    yearBefore: fiscalYearsLabel(periods, 2),
    share: '% of income',
  };
  const single = groups.length === 1;
  const many = several && setup.grain !== 'year' && setup.grain !== 'quarters';
  return [
    ...(single
      ? []
      : groups.flatMap((g, i): WorkColumn[] => {
          const over = many ? fiscalYearLabel(periods[g.from]!.year) : undefined;
          const own: WorkColumn = {
            key: `p${i}`,
            label: g.label,
            over: beside ? fiscalYearLabel(periods[g.from]!.year) : over,
            kind: 'amount',
            span: g,
            shows: 'plan',
          };
          return beside
            ? [
                {
                  ...own,
                  key: `l${i}`,
                  over: fiscalYearLabel(periods[g.from]!.year - 1),
                  kind: 'info',
                  shows: 'prior',
                },
                own,
              ]
            : [own];
        })),
    ...(wholes
      ? [{ key: 'wholes', label: 'unphased', kind: 'info' as const, span: null, shows: 'wholes' as const }]
      : []),
    { key: 'total', label: year, kind: 'total', span: all, shows: 'plan' },
    ...setup.info.map((i): WorkColumn => ({
      key: i,
      label: info[i],
      // What is not all actual says so above.
      over: as === 'outlook' && i !== 'share' && i !== 'yearBefore' ? 'outlook' : undefined,
      kind: 'info',
      span: null,
      shows: i,
    })),
  ];
}

const hasWholes = (lines: readonly Line[], { budget }: Reckoned): boolean =>
  budget.approved
    ? budget.approved.lines.some((l) => l.wholes.some((w) => w !== null))
    : lines.some((l) => l.method.kind === 'unphased');

/** Every row's months of the year before. */
const fillPrior = (
  statement: readonly StatementRow[],
  before: YearBefore,
  length: number,
  segment: SegmentId | 'all',
): readonly Months[] => fillStatement(statement, length, (id) => before.of(id, segment));

/** Every row's actuals of two years before the budget's periods. */
const fillTwoBefore = (
  statement: readonly StatementRow[],
  facts: Facts,
  segments: readonly SegmentId[],
  segment: SegmentId | 'all',
): readonly Months[] => {
  const of = segmentsIn({ segments }, segment);
  const before = facts.periods.map((p) => yearsBefore(facts.calendar, p.index, 2));
  return fillStatement(statement, facts.periods.length, (id) =>
    before.map((q) => (q === null ? null : sumBlank(of.map((s) => facts.actual(id, s, q))))),
  );
};

const cellNotes = (line: Line, { facts }: Reckoned, columns: readonly WorkColumn[]): string[] =>
  columns.map((c) =>
    c.kind !== 'amount' || !c.span
      ? ''
      : facts.periods
          .slice(c.span.from, c.span.to)
          .flatMap((p) => line.cellNotes[p.id]?.text ?? [])
          .join(' · '),
  );

type Progress = ReadonlyMap<string, { readonly done: number; readonly of: number }>;

/** The key of the section that each account's line stands in. */
const sectionsOf = (statement: readonly StatementRow[]): ReadonlyMap<AccountId, string> =>
  new Map(
    statement.flatMap((r) => (r.kind === 'line' ? [[r.account.id, `section-${r.section}`] as const] : [])),
  );

/** How far the person is, in all and by section. */
function progressOf(
  sections: ReadonlyMap<AccountId, string>,
  lines: readonly Line[],
  segment: SegmentId | 'all',
): { readonly progress: Progress; readonly looked: Worksheet['looked'] } {
  const progress = new Map<string, { done: number; of: number }>();
  const looked = { done: 0, of: 0 };
  for (const line of lines) {
    if (segment !== 'all' && line.segment !== segment) continue;
    const done = line.looked ? 1 : 0;
    looked.of += 1;
    looked.done += done;
    const key = sections.get(line.account);
    if (!key) continue;
    const there = progress.get(key);
    if (!there) progress.set(key, { done, of: 1 });
    else {
      there.done += done;
      there.of += 1;
    }
  }
  return { progress, looked };
}

function withProgress(row: WorkRow, progress: Progress): WorkRow {
  const p = row.kind === 'section' ? progress.get(row.key) : undefined;
  const looked = p && p.done > 0 ? `${p.done} of ${p.of} looked at` : '';
  const aside = [row.aside, looked].filter(Boolean).join(' · ');
  return aside ? { ...row, aside } : row;
}
