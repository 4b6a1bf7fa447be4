import { sumBlank, type Minor } from '@/core/money';
import { fiscalYearLabel, type Period } from '@/core/calendar';
import type { Account, AccountId } from '@/core/model';
import { compare } from '@/core/variance';
import { fillStatement, rowEffect, statementRows } from './statement';
import { rowName, type ReportCell, type ReportColumn, type ReportTable } from './table';

export type Grain = 'months' | 'quarters' | 'year';

/** Runs of neighbouring periods that the chosen grain shows as one column. */
export type PeriodGroup = { readonly label: string; readonly from: number; readonly to: number };

/** Groups a budget's periods into months, quarters or years. */
export function groupPeriods(periods: readonly Period[], grain: Grain): PeriodGroup[] {
  if (grain === 'months') return periods.map((p, i) => ({ label: p.short, from: i, to: i + 1 }));
  const keyOf = (p: Period) =>
    grain === 'quarters' ? `Q${p.quarter} ${fiscalYearLabel(p.year)}` : fiscalYearLabel(p.year);
  const groups: { label: string; from: number; to: number }[] = [];
  periods.forEach((p, i) => {
    const last = groups.at(-1);
    if (last?.label === keyOf(p)) last.to = i + 1;
    else groups.push({ label: keyOf(p), from: i, to: i + 1 });
  });
  return groups;
}

export type BudgetReportInput = {
  readonly book: string;
  readonly currency: string;
  readonly title: string;
  readonly subtitle: string;
  readonly accounts: readonly Account[];
  readonly periods: readonly Period[];
  readonly grain: Grain;
  readonly amounts: (account: AccountId) => readonly (Minor | null)[] | null;
  readonly lastYear: (account: AccountId) => readonly (Minor | null)[];
  readonly methodName: (account: AccountId) => string;
  readonly note: (account: AccountId) => string;
};

/** The budget alone: its columns by grain, the year, last year and the change on it. */
export function budgetReport(input: BudgetReportInput): ReportTable {
  const { periods } = input;
  const rows = statementRows(input.accounts);
  const groups = groupPeriods(periods, input.grain);
  const width = periods.length;
  // Months and last year's total are additive; everything else follows from them.
  const filled = fillStatement(rows, width + 1, (id) => {
    const amounts = input.amounts(id);
    return [...(amounts ?? new Array<null>(width).fill(null)), sumBlank(input.lastYear(id))];
  });
  const year = periods.length ? fiscalYearLabel(periods.at(-1)!.year) : '';
  const prior = periods.length ? fiscalYearLabel(periods[0]!.year - 1) : '';
  const columns: ReportColumn[] = [
    ...groups.map((g, i): ReportColumn => ({
      key: `p${i}`,
      group: 'Budget',
      kind: 'money',
      of: 'plan',
      formula: null,
      label: input.grain === 'months' ? periods[g.from]!.label : g.label,
    })),
    {
      key: 'total',
      group: 'Budget',
      label: year,
      kind: 'money',
      of: 'plan',
      formula: { op: 'sum', of: groups.map((_, i) => `p${i}`) },
    },
    { key: 'prior', group: 'Last year', label: `${prior} actual`, kind: 'money', of: 'prior', formula: null },
    {
      key: 'change',
      group: 'Last year',
      label: 'Change',
      kind: 'money',
      of: 'difference',
      formula: { op: 'minus', left: 'total', right: 'prior' },
    },
    {
      key: 'changePercent',
      group: 'Last year',
      label: 'Change %',
      kind: 'perMille',
      of: 'difference',
      formula: { op: 'share', part: 'change', of: 'prior' },
    },
    { key: 'method', group: '', label: 'Method', kind: 'text', of: 'note', formula: null },
    { key: 'note', group: '', label: 'Note', kind: 'text', of: 'note', formula: null },
  ];
  return {
    title: input.title,
    subtitle: input.subtitle,
    book: input.book,
    currency: input.currency,
    columns,
    rows: rows.map((row, r) => {
      const values = filled[r]!;
      const months = values.slice(0, width);
      const total = sumBlank(months);
      const last = values[width]!;
      const change = row.kind === 'section' ? null : compare(total, last, rowEffect(row));
      const account = row.kind === 'line' ? row.account : null;
      const cells: ReportCell[] = [
        ...groups.map((g) => sumBlank(months.slice(g.from, g.to))),
        total,
        last,
        change?.difference ?? null,
        change?.perMille ?? null,
        account ? input.methodName(account.id) : '',
        account ? input.note(account.id) : '',
      ];
      return {
        kind: row.kind,
        ...rowName(row),
        account: account?.id ?? null,
        code: account?.code ?? '',
        cells,
        terms: 'terms' in row ? row.terms : [],
        flagged: false,
      };
    }),
  };
}
