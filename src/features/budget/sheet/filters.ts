import {
  isProfitAndLoss,
  sameScope,
  type Account,
  type AccountKind,
  type Budget,
  type Line,
  type SegmentId,
} from '@/core/model';
import { found } from '@/core/finding';
import { frozenFigures, type Amounts, type Figures, type Span } from '@/core/plan';
import type { StatementRow } from '@/core/report';

/** Marks that a line may be looked for by. */
export const MARKS = ['notLooked', 'changed', 'noted', 'lumps', 'typed'] as const;
export type Mark = (typeof MARKS)[number];

/** Which lines the sheet shows; an empty text or list asks nothing. */
export type Filter = {
  readonly words: string;
  readonly kinds: readonly AccountKind[];
  readonly group: string;
  readonly codeFrom: string;
  readonly codeTo: string;
  readonly keeper: string;
  readonly marks: readonly Mark[];
};

export const NO_FILTER: Filter = {
  words: '',
  kinds: [],
  group: '',
  codeFrom: '',
  codeTo: '',
  keeper: '',
  marks: [],
};

export const isFiltering = (f: Filter): boolean =>
  f.marks.length > 0 ||
  f.kinds.length > 0 ||
  [f.words, f.group, f.codeFrom, f.codeTo, f.keeper].some(Boolean);

export type FilterFacts = {
  readonly filter: Filter;
  /** An account's lines: the one of the segment shown, or those of all segments that are added up. */
  readonly lines: (account: string) => readonly Line[];
  readonly figures: (account: string) => Figures | null;
  /** What was approved for the same periods; null where nothing was. */
  readonly approved: (account: string) => Figures | null;
  /** The budget's months by fiscal year. */
  readonly years: readonly Pick<Span, 'from' | 'to'>[];
};

type LineRow = Extract<StatementRow, { kind: 'line' }>;

/** Codes as numbers where both are, as texts otherwise. */
function codeAtLeast(code: string, bound: string): boolean {
  const [a, b] = [Number(code), Number(bound)];
  return Number.isNaN(a) || Number.isNaN(b) ? code >= bound : a >= b;
}

/** Months of which one holds half of its year or more. Two months are no pattern that one could stand out of. */
export const isLumpy = (months: Amounts, years: FilterFacts['years']): boolean =>
  years.some(({ from, to }) => {
    const sizes = months.slice(from, to).map((v) => Math.abs(v ?? 0));
    const all = sizes.reduce((a, b) => a + b, 0);
    return all > 0 && sizes.length > 2 && sizes.some((s) => s * 2 >= all);
  });

/** Whether two say the same; a blank is no zero, but what is not there at all is blank. */
const sameFigures = (a: Figures | null, b: Figures | null): boolean =>
  (['amounts', 'wholes'] as const).every((k) => {
    const [x, y] = [a?.[k] ?? [], b?.[k] ?? []];
    return Array.from({ length: Math.max(x.length, y.length) }).every(
      (_, i) => (x[i] ?? null) === (y[i] ?? null),
    );
  });

const HAS: Record<Mark, (account: Account, facts: FilterFacts) => boolean> = {
  notLooked: ({ id }, { lines }) => {
    const own = lines(id);
    return own.length === 0 || own.some((l) => !l.looked);
  },
  changed: ({ id }, { figures, approved }) => !sameFigures(figures(id), approved(id)),
  noted: ({ id }, { lines }) => lines(id).some((l) => Boolean(l.note) || Object.keys(l.cellNotes).length > 0),
  // A balance stays from month to month: none of them is a part of a year.
  lumps: ({ id, kind }, { figures, years }) =>
    isProfitAndLoss(kind) && isLumpy(figures(id)?.amounts ?? [], years),
  typed: ({ id }, { lines }) => lines(id).some((l) => Object.keys(l.overrides).length > 0),
};

function passes({ account }: LineRow, facts: FilterFacts, sought: ReadonlySet<Account>): boolean {
  const { filter: f } = facts;
  if (!sought.has(account)) return false;
  if (f.kinds.length > 0 && !f.kinds.includes(account.kind)) return false;
  if (f.group && account.group !== f.group) return false;
  if (f.keeper && account.keeper !== f.keeper) return false;
  if (f.codeFrom && !codeAtLeast(account.code, f.codeFrom)) return false;
  // A bound of 61 takes in all codes that begin with it.
  if (f.codeTo && !codeAtLeast(f.codeTo, account.code) && !account.code.startsWith(f.codeTo)) return false;
  return f.marks.every((m) => HAS[m](account, facts));
}

/** The accounts of the rows that the filter's words find. */
const soughtIn = (rows: readonly StatementRow[], { filter }: FilterFacts): readonly Account[] =>
  found(
    rows.flatMap((row) => (row.kind === 'line' ? [row.account] : [])),
    (a) => `${a.code} ${a.name}`,
    filter.words,
  );

/**
 * The places of the statement's rows that the sheet shows, in its order. Folded sections and groups keep their totals;
 * under a filter only sections with a line in sight stay. Results always stay.
 */
export function keptRows(
  rows: readonly StatementRow[],
  folded: ReadonlySet<string>,
  costsFirst: boolean,
  facts?: FilterFacts,
): number[] {
  const groupKey = (section: string, group: string) => `group-${section}-${group}`;
  const sectionsInSight = new Set<string>();
  const groupsInSight = new Set<string>();
  const lines = new Set<number>();
  const sought = new Set(facts && soughtIn(rows, facts));
  rows.forEach((row, r) => {
    if (row.kind !== 'line' || (facts && !passes(row, facts, sought))) return;
    const { section, account } = row;
    sectionsInSight.add(section);
    const group = groupKey(section, account.group);
    groupsInSight.add(group);
    if (!folded.has(`section-${section}`) && !(account.group && folded.has(group))) lines.add(r);
  });
  const kept = rows.flatMap((row, r): number[] => {
    switch (row.kind) {
      case 'line':
        return lines.has(r) ? [r] : [];
      case 'section':
        return sectionsInSight.has(row.section) ? [r] : [];
      case 'group':
        return groupsInSight.has(groupKey(row.section, row.group)) && !folded.has(`section-${row.section}`)
          ? [r]
          : [];
      case 'subtotal':
        return sectionsInSight.has(row.section) ? [r] : [];
      case 'result':
        return [r];
    }
  });
  return costsFirst ? incomeLast(rows, kept) : kept;
}

/** Costs before income; the last result stays last. */
function incomeLast(rows: readonly StatementRow[], kept: readonly number[]): number[] {
  const isIncome = (r: number) => {
    const row = rows[r]!;
    return row.kind !== 'result' && (row.section === 'income' || row.section === 'otherIncome');
  };
  const profit = kept.findLastIndex((r) => {
    const row = rows[r]!;
    return row.kind === 'result' && row.result === 'netProfit';
  });
  const upTo = profit < 0 ? kept.length : profit;
  const head = kept.slice(0, upTo);
  return [...head.filter((r) => !isIncome(r)), ...head.filter(isIncome), ...kept.slice(upTo)];
}

/** What was approved of the same months, statements and segments, by account; null where nothing was. */
export function approvedFor(budgets: readonly Budget[], budget: Budget) {
  const other = budgets.findLast((b) => b.id !== budget.id && b.approved && sameScope(b, budget));
  if (!other?.approved) return null;
  const { approved } = other;
  return (account: string, segment: SegmentId | 'all') => frozenFigures(approved, account, segment);
}
