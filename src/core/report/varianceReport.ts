import type { Minor, Percent } from '@/core/money';
import type { Account, AccountId, VarianceNote } from '@/core/model';
import { compare, isFlagged, varianceAmounts, type TwoSides, type VarianceSpan } from '@/core/variance';
import { fillStatement, rowEffect, statementRows, type StatementRow, type Term } from './statement';
import { rowName, type ReportCell, type ReportColumn, type ReportRow, type ReportTable } from './table';

export type LineFilter = 'all' | 'withFigures' | 'withBudget' | 'costs';

export type VarianceReportInput = {
  readonly book: string;
  readonly currency: string;
  readonly title: string;
  readonly subtitle: string;
  readonly month: string;
  readonly accounts: readonly Account[];
  readonly sides: (account: Account) => TwoSides;
  readonly span: VarianceSpan;
  readonly filter: LineFilter;
  readonly flag: { readonly amount: Minor; readonly percent: Percent };
  readonly note: (account: AccountId) => VarianceNote | null;
};

/** Said where a year to date stands beside an amount for the year as a whole. */
export const FULL_YEAR = 'Budgeted for the year as a whole';

/** Columns of every variance report; places in `cells` follow this order. */
export const VARIANCE_KEYS = [
  'monthActual',
  'monthBudget',
  'monthDiff',
  'monthPercent',
  'monthSense',
  'ytdActual',
  'ytdBudget',
  'ytdDiff',
  'ytdPercent',
  'ytdSense',
  'yearBudget',
  'yearOutlook',
  'yearDiff',
  'yearSense',
  'note',
] as const;
export type VarianceKey = (typeof VARIANCE_KEYS)[number];
export const cellOf = (row: ReportRow, key: VarianceKey): ReportCell =>
  row.cells[VARIANCE_KEYS.indexOf(key)] ?? null;

function columnsFor(month: string): ReportColumn[] {
  const money = (
    key: VarianceKey,
    group: string,
    label: string,
    of: ReportColumn['of'],
    formula: ReportColumn['formula'] = null,
  ): ReportColumn => ({
    key,
    group,
    label,
    kind: 'money',
    of,
    formula,
  });
  const block = (p: 'month' | 'ytd', group: string): ReportColumn[] => [
    money(`${p}Actual`, group, 'Actual', 'actual'),
    money(`${p}Budget`, group, 'Budget', 'plan'),
    money(`${p}Diff`, group, 'Diff.', 'difference', { op: 'minus', left: `${p}Actual`, right: `${p}Budget` }),
    {
      key: `${p}Percent`,
      group,
      label: '%',
      kind: 'perMille',
      of: 'difference',
      formula: { op: 'share', part: `${p}Diff`, of: `${p}Budget` },
    },
    { key: `${p}Sense`, group, label: 'F/U', kind: 'sense', of: 'difference', formula: null },
  ];
  return [
    ...block('month', month),
    ...block('ytd', 'Year to date'),
    money('yearBudget', 'Full year', 'Budget', 'plan'),
    money('yearOutlook', 'Full year', 'Outlook', 'outlook'),
    money('yearDiff', 'Full year', 'Diff.', 'difference', {
      op: 'minus',
      left: 'yearOutlook',
      right: 'yearBudget',
    }),
    { key: 'yearSense', group: 'Full year', label: 'F/U', kind: 'sense', of: 'difference', formula: null },
    { key: 'note', group: '', label: 'Note', kind: 'text', of: 'note', formula: null },
  ];
}

/**
 * Budget against actual: month, year to date and full year. A filter leaves lines out of sight; totals always
 * add every line, seen or not.
 */
export function varianceReport(input: VarianceReportInput): ReportTable {
  const rows = statementRows(input.accounts);
  const sides = new Map(input.accounts.map((a) => [a.id, input.sides(a)]));
  const amounts = new Map(input.accounts.map((a) => [a.id, varianceAmounts(sides.get(a.id)!, input.span)]));
  const filled = fillStatement(rows, 6, (id) => {
    const v = amounts.get(id)!;
    return [v.month.actual, v.month.budget, v.toDate.actual, v.toDate.budget, v.year.budget, v.year.outlook];
  });
  const shown = keptRows(rows, filled, input.filter);
  const placeOf = new Map(shown.map((r, i) => [r, i]));
  const table = shown.map((r): ReportRow => {
    const row = rows[r]!;
    const [mA, mB, yA, yB, fB, fO] = filled[r]! as [
      Minor | null,
      Minor | null,
      Minor | null,
      Minor | null,
      Minor | null,
      Minor | null,
    ];
    const effect = effectOfRow(row);
    const month = effect === 0 ? null : compare(mA, mB, effect);
    const toDate = effect === 0 ? null : compare(yA, yB, effect);
    const year = effect === 0 ? null : compare(fO, fB, effect);
    const account = row.kind === 'line' ? row.account : null;
    const note = account ? input.note(account.id) : null;
    return {
      kind: row.kind,
      ...rowName(row),
      account: account?.id ?? null,
      code: account?.code ?? '',
      cells: [
        mA,
        mB,
        month?.difference ?? null,
        month?.perMille ?? null,
        month?.sense ?? null,
        yA,
        yB,
        toDate?.difference ?? null,
        toDate?.perMille ?? null,
        toDate?.sense ?? null,
        fB,
        fO,
        year?.difference ?? null,
        year?.sense ?? null,
        [
          note ? `${note.reach === 'timing' ? 'Timing' : 'Lasting'}: ${note.text}` : '',
          account && (sides.get(account.id)!.whole ?? null) !== null ? FULL_YEAR : '',
        ]
          .filter(Boolean)
          .join(' · '),
      ],
      terms: termsWithin('terms' in row ? row.terms : [], placeOf),
      flagged: account !== null && isFlagged(month, mB, input.flag),
    };
  });
  return {
    title: input.title,
    subtitle: input.subtitle,
    book: input.book,
    currency: input.currency,
    columns: columnsFor(input.month),
    rows: table,
  };
}

const effectOfRow = (row: StatementRow): 1 | 0 | -1 => (row.kind === 'section' ? 0 : rowEffect(row));

/** Terms in the filtered table; none when a term is out of sight, since a formula over the rest would be wrong. */
const termsWithin = (terms: readonly Term[], placeOf: ReadonlyMap<number, number>): Term[] =>
  terms.every((t) => placeOf.has(t.row))
    ? terms.map((t) => ({ row: placeOf.get(t.row)!, sign: t.sign }))
    : [];

/** The rows in sight under a filter; sections and groups go with their last line. */
function keptRows(
  rows: readonly StatementRow[],
  filled: readonly (readonly (Minor | null)[])[],
  filter: LineFilter,
): number[] {
  const says = (r: number, columns: readonly number[]) => columns.some((c) => (filled[r]![c] ?? 0) !== 0);
  const keeps = (row: StatementRow, r: number): boolean => {
    switch (filter) {
      case 'all':
        return true;
      case 'withFigures':
        return row.kind !== 'line' || says(r, [0, 1, 2, 3, 4, 5]);
      case 'withBudget':
        return row.kind !== 'line' || says(r, [1, 3, 4]);
      case 'costs':
        return row.kind !== 'result' && rowEffect(row) === -1;
    }
  };
  const kept = rows.flatMap((row, r) => (keeps(row, r) ? [r] : []));
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
