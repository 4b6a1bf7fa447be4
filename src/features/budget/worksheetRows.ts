import { methodBadge } from '@/store/methodWords';
import { divideRounded, minor, sumBlank, type Minor } from '@/core/money';
import { fiscalYearLabel, type Period } from '@/core/calendar';
import { lineKey, type AccountId, type Line, type LineRef, type SegmentId } from '@/core/model';
import { wholeRow } from '@/core/plan';
import {
  budgetRows,
  createFiller,
  groupPeriods,
  isBalanceRow,
  rowName,
  rowTotal,
  type PeriodGroup,
  type StatementRow,
} from '@/core/report';
import type { SheetColumn, SheetRow } from '@/components/sheet/types';
import type { Ground, Reckoned } from '@/store/derived';
import { keptRows, NO_FILTER, type Filter } from './filters';
import type { Info, Setup } from './setup';

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
  /** The months that were approved for the same periods, where a filter asks for them. */
  readonly approved: ((account: AccountId, segment: SegmentId | 'all') => Months | null) | null;
  /** What the quiet rows show of an account, by month; null for nothing. */
  readonly ghost: {
    readonly label: string;
    readonly of: (account: AccountId) => Months;
  } | null;
};

/** What a worksheet remembers from one edit to the next, so that only what changed is added up anew. */
export type Fillers = {
  readonly plan: ReturnType<typeof createFiller>;
  readonly prior: ReturnType<typeof createFiller>;
  readonly before: ReturnType<typeof createFiller>;
  readonly rows: typeof budgetRows;
  readonly lines: (lines: readonly Line[]) => ReadonlyMap<string, Line>;
  readonly columns: typeof columnsFor;
  /** A row as it was made last, with what it was made from; it is made again only when that changed. */
  readonly kept: Map<string, { readonly from: readonly unknown[]; readonly row: WorkRow }>;
};

export function createFillers(): Fillers {
  let rowsOf: { accounts: unknown; covers: unknown; rows: StatementRow[] } | null = null;
  let columnsOf: { from: readonly unknown[]; columns: WorkColumn[] } | null = null;
  let linesOf: { lines: readonly Line[]; map: Map<string, Line> } | null = null;
  return {
    plan: createFiller(),
    prior: createFiller(),
    before: createFiller(),
    rows(accounts, covers) {
      if (rowsOf?.accounts !== accounts || rowsOf.covers !== covers)
        rowsOf = { accounts, covers, rows: budgetRows(accounts, covers) };
      return rowsOf.rows;
    },
    lines(lines) {
      if (linesOf?.lines !== lines) linesOf = { lines, map: new Map(lines.map((l) => [lineKey(l), l])) };
      return linesOf.map;
    },
    columns(...from) {
      if (!columnsOf || !sameParts(columnsOf.from, from)) columnsOf = { from, columns: columnsFor(...from) };
      return columnsOf.columns;
    },
    kept: new Map(),
  };
}

export const NO_CHOICE: Omit<WorksheetChoice, 'setup'> = {
  filter: NO_FILTER,
  folded: new Set(),
  segment: 'all',
  approved: null,
  ghost: null,
};

const sameParts = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((x, i) => x === b[i]);

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
  const { accounts } = ground.book;
  const { setup } = choice;
  const segment = segmentShown(budget.segments, choice.segment);
  const statement = fillers.rows(accounts, budget.covers);
  const lines = fillers.lines(budget.lines);
  const width = facts.periods.length;
  const spread = hasWholes(budget.lines, reckoned);
  const years = spread ? facts.years.length : 0;
  const filled = fillers.plan(statement, width + years, (id) =>
    wholeRow(reckoned.figures(id, segment), years),
  );
  const pastOf = (id: AccountId) => lastYearOf(reckoned, id, segment);
  const priors = fillers.prior(statement, width, pastOf);
  const before = setup.info.includes('yearBefore')
    ? fillers.before(statement, width, (id) => yearsAgo(reckoned, id, segment, 2))
    : null;
  const grain = setup.grain === 'beside' ? 'months' : setup.grain;
  const columns = fillers.columns(facts.periods, setup, years > 0);
  const groups = groupPeriods(facts.periods, grain);
  const income = statement.findIndex((r) => r.kind === 'subtotal' && r.section === 'income');
  const totals = filled.map((v, r) => rowTotal(statement[r]!, v.slice(0, width), v.slice(width)));

  const cell = (row: StatementRow, r: number, c: WorkColumn): Minor | null => {
    const values = filled[r]!;
    const last = priors[r]!;
    const lastTotal = () => rowTotal(row, last);
    switch (c.shows) {
      case 'plan':
        if (!c.span || c.kind !== 'amount') return totals[r]!;
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
        const [now, then] = [totals[r]!, lastTotal()];
        if (now === null && then === null) return null;
        const change = minor((now ?? 0) - (then ?? 0));
        if (c.shows === 'change') return change;
        return then ? divideRounded(change, 1000, Math.abs(then), 'halfAwayFromZero') : null;
      }
      case 'share': {
        const [part, all] = [totals[r]!, income < 0 ? null : totals[income]!];
        if (part === null || !all || isBalanceRow(row)) return null;
        return divideRounded(part, 1000, all, 'halfAwayFromZero');
      }
    }
  };

  const shareOf = setup.info.includes('share') && income >= 0 ? totals[income] : null;
  const made = (row: StatementRow, r: number): WorkRow => {
    const { key } = rowName(row);
    const ref = row.kind === 'line' && segment !== 'all' ? { account: key, segment } : null;
    const from = [
      row,
      filled[r],
      priors[r],
      before?.[r],
      columns,
      segment,
      choice.ghost,
      shareOf,
      choice.folded.has(key),
      ref && lines.get(lineKey(ref)),
      ref && reckoning.lines.get(ref)?.issue,
    ];
    const last = fillers.kept.get(key);
    if (last && sameParts(last.from, from)) return last.row;
    const fresh = make(row, r);
    fillers.kept.set(key, { from, row: fresh });
    return fresh;
  };

  const make = (row: StatementRow, r: number): WorkRow => {
    const { key, label } = rowName(row);
    const isLine = row.kind === 'line';
    const ref = isLine && segment !== 'all' ? { account: key, segment } : null;
    const line = ref ? lines.get(lineKey(ref)) : undefined;
    const result = ref ? reckoning.lines.get(ref) : undefined;
    const typed = result?.typed ?? NO_MARKS;
    const values = row.kind === 'section' ? [] : columns.map((c) => cell(row, r, c));
    const ghost = isLine && choice.ghost ? choice.ghost.of(key) : null;
    return {
      key,
      account: isLine ? key : null,
      ref,
      label,
      kind: row.kind,
      code: isLine ? row.account.code : '',
      badge: isLine ? (line ? methodBadge(line.method) : segment === 'all' ? 'Added up' : 'No line yet') : '',
      badgeTone: result?.issue ? 'trouble' : line && line.method.kind !== 'byMonth' ? 'plan' : 'quiet',
      hasNote: Boolean(line?.note),
      keeper: isLine ? row.account.keeper : undefined,
      looked: line?.looked ? true : undefined,
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
      ghost:
        ghost && choice.ghost
          ? {
              label: choice.ghost.label,
              values: columns.map((c) =>
                c.shows !== 'plan'
                  ? null
                  : rowTotal(
                      row,
                      c.span && c.kind === 'amount' ? ghost.slice(c.span.from, c.span.to) : ghost,
                    ),
              ),
            }
          : null,
      enterable: isLine,
    };
  };

  const shown = keptRows(statement, {
    filter: choice.filter,
    folded: choice.folded,
    costsFirst: setup.costsFirst,
    line: (id) => (segment === 'all' ? undefined : lines.get(lineKey({ account: id, segment }))),
    values: (id) => reckoned.amounts(id, segment),
    approved: (id) => choice.approved?.(id, segment) ?? null,
  });
  const rows = shown.map((r) => made(statement[r]!, r));
  const own = budget.lines.filter((l) => segment === 'all' || l.segment === segment);
  const progress = progressBySection(statement, own);
  const net = statement.findIndex((r) => r.kind === 'result' && r.result === 'netProfit');
  return {
    rows: rows.map((row) => withProgress(row, progress)),
    columns,
    groups,
    net: net < 0 ? null : totals[net]!,
    priorNet: net < 0 ? null : rowTotal(statement[net]!, priors[net]!),
    looked: { done: own.filter((l) => l.looked).length, of: own.length },
  };
}

function columnsFor(periods: readonly Period[], setup: Setup, wholes: boolean): WorkColumn[] {
  const groups = groupPeriods(periods, setup.grain === 'beside' ? 'months' : setup.grain);
  const prior = fiscalYearLabel((periods[0]?.year ?? 1) - 1);
  const years = [...new Set(periods.map((p) => fiscalYearLabel(p.year)))];
  const year = years.length > 1 ? 'Total' : (years[0] ?? '');
  const beside = setup.grain === 'beside';
  const all: PeriodGroup = { label: year, from: 0, to: periods.length };
  const info: Record<Info, string> = {
    change: `on ${prior}`,
    changePercent: '%',
    lastYear: prior,
    yearBefore: fiscalYearLabel((periods[0]?.year ?? 2) - 2),
    share: '% of income',
  };
  const single = groups.length === 1;
  const many = years.length > 1 && setup.grain !== 'year' && setup.grain !== 'quarters';
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
    ...setup.info.map((i): WorkColumn => ({ key: i, label: info[i], kind: 'info', span: null, shows: i })),
  ];
}

const hasWholes = (lines: readonly Line[], { budget }: Reckoned): boolean =>
  budget.approved
    ? budget.approved.lines.some((l) => l.wholes.some((w) => w !== null))
    : lines.some((l) => l.method.kind === 'unphased');

/** An account's months of the year before, in one segment or over all of the budget's. */
export function lastYearOf(
  { facts, budget }: Reckoned,
  id: AccountId,
  segment: SegmentId | 'all',
): readonly (Minor | null)[] {
  if (segment !== 'all') return facts.past(id, segment).lastYear;
  const rows = budget.segments.map((s) => facts.past(id, s).lastYear);
  return facts.periods.map((_, i) => sumBlank(rows.map((r) => r[i] ?? null)));
}

function yearsAgo(
  { facts, budget }: Reckoned,
  id: AccountId,
  segment: SegmentId | 'all',
  years: number,
): readonly (Minor | null)[] {
  const of = segment === 'all' ? budget.segments : [segment];
  return facts.periods.map((p) => {
    const span = facts.calendar.firstOfYear(p.year) - facts.calendar.firstOfYear(p.year - years);
    return sumBlank(of.map((s) => facts.actual(id, s, p.index - span)));
  });
}

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

/** How far the person is, by section. */
function progressBySection(statement: readonly StatementRow[], lines: readonly Line[]): Progress {
  const sectionOf = new Map(
    statement.flatMap((r) => (r.kind === 'line' ? [[r.account.id, `section-${r.section}`] as const] : [])),
  );
  const out = new Map<string, { done: number; of: number }>();
  for (const { account, looked } of lines) {
    const key = sectionOf.get(account);
    if (!key) continue;
    const p = out.get(key) ?? { done: 0, of: 0 };
    out.set(key, { done: p.done + (looked ? 1 : 0), of: p.of + 1 });
  }
  return out;
}

function withProgress(row: WorkRow, progress: Progress): WorkRow {
  const p = row.kind === 'section' ? progress.get(row.key) : undefined;
  return p && p.done > 0 ? { ...row, aside: `${p.done} of ${p.of} looked at` } : row;
}
