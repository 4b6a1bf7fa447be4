import { divideRounded, ZERO, type Minor, type Percent } from '@/core/money';
import type { Account, AccountId, VarianceNote } from '@/core/model';
import {
  compare,
  isFlagged,
  varianceAmounts,
  type Pair,
  type Sides,
  type Variance,
  type VarianceAmounts,
  type VarianceSpan,
} from '@/core/variance';
import {
  fillStatement,
  isBalanceRow,
  rowEffect,
  type SectionKind,
  type StatementRow,
  type Term,
} from './statement';
import { rowName, type ReportCell, type ReportColumn, type ReportRow, type ReportTable } from './table';

/** Which lines are shown: all of them, those with a figure or a budget; of some sections only, where any are named. */
export type LineFilter = {
  readonly lines: 'all' | 'withFigures' | 'withBudget';
  readonly sections: readonly SectionKind[];
};
export const EVERY_LINE: LineFilter = { lines: 'all', sections: [] };

/** The three blocks of a variance report. */
export type VarianceBlock = 'month' | 'toDate' | 'year';
const BLOCKS: readonly VarianceBlock[] = ['month', 'toDate', 'year'];

export type VarianceReportInput = {
  readonly book: string;
  readonly currency: string;
  readonly title: string;
  readonly subtitle: string;
  /** What stands above each block, and the words of notes. */
  readonly words: {
    readonly heads: Readonly<Record<VarianceBlock, string>>;
    readonly used: (amount: Minor | null, of: Minor) => string;
    readonly apart: string;
    readonly note: (note: VarianceNote) => string;
  };
  readonly rows: readonly StatementRow[];
  readonly sides: (account: Account) => Sides;
  readonly span: VarianceSpan;
  readonly filter: LineFilter;
  readonly flag: { readonly amount: Minor; readonly percent: Percent };
  readonly note: (account: AccountId) => VarianceNote | null;
};

/** A block's pair of a row, its difference, and whether lines in it stand apart from that. */
type Compared = {
  readonly pair: Pair;
  readonly variance: Variance | null;
  readonly partly: boolean;
};
type RowFigures = Readonly<Record<VarianceBlock, Compared>> & { readonly words: string };
type Column = ReportColumn & { readonly cell: (row: RowFigures) => ReportCell };

/** The columns of the report: each says how its cells come about, and nobody counts their places. */
function columnsFor(heads: VarianceReportInput['words']['heads']): Column[] {
  const block = (b: VarianceBlock): Column[] => {
    const coming = b === 'year';
    const column = (
      name: string,
      label: string,
      kind: ReportColumn['kind'],
      of: ReportColumn['of'],
      cell: (c: Compared) => ReportCell,
      formula: ReportColumn['formula'] = null,
    ): Column => ({
      key: `${b}${name}`,
      block: b,
      group: heads[b],
      label,
      kind,
      of,
      formula,
      cell: (row) => cell(row[b]),
    });
    const actual = coming
      ? column('Outlook', 'Outlook', 'money', 'outlook', (c) => c.pair.actual)
      : column('Actual', 'Actual', 'money', 'actual', (c) => c.pair.actual);
    const budget = column('Budget', 'Budget', 'money', 'plan', (c) => c.pair.budget);
    return [
      ...(coming ? [budget, actual] : [actual, budget]),
      column('Diff', 'Diff.', 'money', 'difference', (c) => c.variance?.difference ?? null, {
        op: 'minus',
        left: actual.key,
        right: budget.key,
      }),
      ...(coming
        ? []
        : [
            column('Percent', '%', 'perMille', 'difference', (c) => c.variance?.perMille ?? null, {
              op: 'share',
              part: `${b}Diff`,
              of: budget.key,
            }),
          ]),
      column('Sense', 'F/U', 'sense', 'difference', (c) => c.variance?.sense ?? null),
    ];
  };
  return [
    ...BLOCKS.flatMap(block),
    {
      key: 'note',
      block: '',
      group: '',
      label: 'Note',
      kind: 'text',
      of: 'note',
      formula: null,
      cell: (row) => row.words,
    },
  ];
}

/** Of a pair: what is shown of both sides, then what is compared of both. */
const PAIR = 4;
const values = ({ actual, budget, apart }: Pair): (Minor | null)[] => [
  actual,
  budget,
  apart ? null : actual,
  apart ? null : budget,
];

/**
 * Budget against actual: month, year to date and full year. Filters leave lines out of sight; totals always add every line,
 * seen or not. Lines that stand apart are in the totals of either side and in no difference.
 */
export function varianceReport(input: VarianceReportInput): ReportTable {
  const { rows, words } = input;
  const amounts = new Map<AccountId, VarianceAmounts>();
  for (const row of rows)
    if (row.kind === 'line')
      amounts.set(row.account.id, varianceAmounts(input.sides(row.account), input.span));
  const filled = fillStatement(rows, PAIR * BLOCKS.length, (id) => {
    const v = amounts.get(id)!;
    return BLOCKS.flatMap((b) => values(v[b]));
  });
  const columns = columnsFor(words.heads);
  const shown = keptRows(rows, filled, input.filter);
  const placeOf = new Map(shown.map((r, i) => [r, i]));
  return {
    title: input.title,
    subtitle: input.subtitle,
    book: input.book,
    currency: input.currency,
    // The report itself is plain data, and passes to another thread.
    columns: columns.map(({ cell: _cell, ...column }) => column),
    rows: shown.map((r): ReportRow => {
      const row = rows[r]!;
      const account = row.kind === 'line' ? row.account : null;
      const own = account && amounts.get(account.id)!;
      const comparedOf = (b: VarianceBlock): Compared => {
        const [actual, budget, left, right] = filled[r]!.slice(PAIR * BLOCKS.indexOf(b)) as (Minor | null)[];
        const none = row.kind === 'section' || own?.[b].apart === true;
        const variance = none ? null : compare(left ?? null, right ?? null, effectOfRow(row));
        return {
          pair: { actual: actual ?? null, budget: budget ?? null, apart: none },
          variance,
          partly: !none && (left !== actual || right !== budget),
        };
      };
      const compared = { month: comparedOf('month'), toDate: comparedOf('toDate'), year: comparedOf('year') };
      const note = account ? input.note(account.id) : null;
      const partly = BLOCKS.filter((b) => compared[b].partly);
      const figures: RowFigures = {
        ...compared,
        words: [
          note ? words.note(note) : '',
          own?.used ? words.used(own.used.amount, own.used.of) : '',
          partly.some((b) => compared[b].variance) ? words.apart : '',
        ]
          .filter(Boolean)
          .join(' · '),
      };
      return {
        kind: row.kind,
        ...rowName(row),
        account: account?.id ?? null,
        code: account?.code ?? '',
        cells: columns.map((c) => c.cell(figures)),
        terms: termsWithin('terms' in row ? row.terms : [], placeOf),
        apart: columns.filter((c) => partly.some((b) => c.block === b && c.formula)).map((c) => c.key),
        flagged:
          account !== null && isFlagged(compared.month.variance, compared.month.pair.budget, input.flag),
      };
    }),
  };
}

/** What more of a row does to profit; balances do nothing to it. */
const effectOfRow = (row: StatementRow): 1 | 0 | -1 =>
  row.kind === 'section' || isBalanceRow(row) ? 0 : rowEffect(row);

/** Terms in the filtered table; none when a term is out of sight, since a formula over the rest would be wrong. */
const termsWithin = (terms: readonly Term[], placeOf: ReadonlyMap<number, number>): Term[] =>
  terms.every((t) => placeOf.has(t.row))
    ? terms.map((t) => ({ row: placeOf.get(t.row)!, sign: t.sign }))
    : [];

/** The rows in sight under a filter; sections and groups go with their last line, results with any filter of sections. */
function keptRows(
  rows: readonly StatementRow[],
  filled: readonly (readonly (Minor | null)[])[],
  { lines, sections }: LineFilter,
): number[] {
  const budgets = BLOCKS.map((_, b) => PAIR * b + 1);
  const says = (r: number): boolean =>
    lines === 'all' ||
    filled[r]!.some((v, c) => (v ?? 0) !== 0 && (lines === 'withFigures' || budgets.includes(c)));
  const kept = rows.flatMap((row, r) => {
    if (row.kind === 'result') return sections.length === 0 ? [r] : [];
    if (sections.length > 0 && !sections.includes(row.section)) return [];
    return row.kind !== 'line' || says(r) ? [r] : [];
  });
  const withLines = new Set(
    kept.flatMap((r) => (rows[r]!.kind === 'line' ? [(rows[r] as { section: string }).section] : [])),
  );
  const there = new Set(kept);
  return kept.filter((r) => {
    const row = rows[r]!;
    if (row.kind === 'section') return withLines.has(row.section);
    return row.kind !== 'group' || row.terms.some((t) => there.has(t.row));
  });
}

/** How much of an amount is used, in tenths of a percent of its size; null of nothing. */
export const usedPerMille = (amount: Minor | null, of: Minor): number | null =>
  of === 0 ? null : divideRounded(amount ?? ZERO, 1000, of, 'halfAwayFromZero');
