import { sumBlank, type Minor } from '@/core/money';
import { fiscalYearLabel, fiscalYearsLabel, type Period } from '@/core/calendar';
import type { Account, AccountId, Budget } from '@/core/model';
import type { Figures } from '@/core/plan';
import { compare } from '@/core/variance';
import { budgetRows, fillStatement, isBalanceRow, rowEffect, rowTotal } from './statement';
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
  readonly covers: Budget['covers'];
  readonly periods: readonly Period[];
  readonly grain: Grain;
  /** An account's months, and what is said of each fiscal year beyond them. */
  readonly figures: (account: AccountId) => Figures | null;
  /** The year before, what it is called, and an account's months of it. */
  readonly lastYear: {
    readonly label: string;
    readonly of: (account: AccountId) => readonly (Minor | null)[];
    /** Of which of the budget's months it is known; a change compares those alone. */
    readonly known: readonly boolean[];
  };
  readonly methodName: (account: AccountId) => string;
  readonly note: (account: AccountId) => string;
  /** Columns beside the budget itself. */
  readonly with: { readonly lastYear: boolean; readonly words: boolean };
};

/** Where the columns of a budget report stand: its periods, what is unphased, the total. */
const REPORT_KEYS = {
  period: (i: number) => `p${i}`,
  wholes: 'wholes',
  total: 'total',
  same: 'same',
} as const;

/**
 * The budget alone: its columns by grain and the total of its periods; last year and the change on it, methods and
 * notes as asked for. What is said of whole years has a column of its own, so that months and total still add up.
 */
export function budgetReport(input: BudgetReportInput): ReportTable {
  const { periods } = input;
  const rows = budgetRows(input.accounts, input.covers);
  const groups = groupPeriods(periods, input.grain);
  const width = periods.length;
  const spread = input.accounts.some((a) => input.figures(a.id)?.wholes.some((w) => w !== null));
  // Months, wholes and last year are additive; everything else follows from them.
  const filled = fillStatement(rows, width + 1, (id) => {
    const f = input.figures(id);
    return [...(f?.amounts ?? new Array<null>(width).fill(null)), sumBlank(f?.wholes ?? [])];
  });
  const priors = fillStatement(rows, width, input.lastYear.of);
  const year = fiscalYearsLabel(periods);
  const single = groups.length === 1;
  const { known } = input.lastYear;
  const part = !known.every(Boolean);
  const columns: ReportColumn[] = [
    ...(single ? [] : groups).map((g, i): ReportColumn => ({
      key: REPORT_KEYS.period(i),
      group: 'Budget',
      kind: 'money',
      of: 'plan',
      formula: null,
      label: input.grain === 'months' ? periods[g.from]!.label : g.label,
    })),
    ...(spread && !single ? [plain(REPORT_KEYS.wholes, 'Budget', 'Unphased', 'plan')] : []),
    {
      key: REPORT_KEYS.total,
      group: 'Budget',
      label: year,
      kind: 'money',
      of: 'plan',
      formula: single
        ? null
        : {
            op: 'sum',
            of: [...groups.map((_, i) => REPORT_KEYS.period(i)), ...(spread ? [REPORT_KEYS.wholes] : [])],
          },
    },
    ...(input.with.lastYear
      ? ([
          plain('prior', 'Last year', input.lastYear.label, 'prior'),
          ...(part ? [plain(REPORT_KEYS.same, 'Last year', 'Budget, same months', 'plan')] : []),
          {
            key: 'change',
            group: 'Last year',
            label: 'Change',
            kind: 'money',
            of: 'difference',
            formula: { op: 'minus', left: part ? REPORT_KEYS.same : REPORT_KEYS.total, right: 'prior' },
          },
          {
            key: 'changePercent',
            group: 'Last year',
            label: 'Change %',
            kind: 'perMille',
            of: 'difference',
            formula: { op: 'share', part: 'change', of: 'prior' },
          },
        ] satisfies ReportColumn[])
      : []),
    ...(input.with.words
      ? (['Method', 'Note'] as const).map((label): ReportColumn => ({
          key: label.toLowerCase(),
          group: '',
          label,
          kind: 'text',
          of: 'note',
          formula: null,
        }))
      : []),
  ];
  return {
    title: input.title,
    subtitle: input.subtitle,
    book: input.book,
    currency: input.currency,
    columns,
    rows: rows.map((row, r) => {
      const months = filled[r]!.slice(0, width);
      const wholes = filled[r]![width]!;
      const total = rowTotal(row, months, [wholes]);
      const last = rowTotal(row, priors[r]!);
      const same = part
        ? rowTotal(
            row,
            months.filter((_, i) => known[i]),
          )
        : total;
      const change = row.kind === 'section' ? null : compare(same, last, rowEffect(row));
      const account = row.kind === 'line' ? row.account : null;
      const cells: ReportCell[] = [
        ...(single ? [] : groups).map((g) => rowTotal(row, months.slice(g.from, g.to))),
        ...(spread && !single ? [wholes] : []),
        total,
        ...(input.with.lastYear
          ? [last, ...(part ? [same] : []), change?.difference ?? null, change?.perMille ?? null]
          : []),
        ...(input.with.words
          ? [account ? input.methodName(account.id) : '', account ? input.note(account.id) : '']
          : []),
      ];
      return {
        kind: row.kind,
        ...rowName(row),
        account: account?.id ?? null,
        code: account?.code ?? '',
        cells,
        terms: 'terms' in row ? row.terms : [],
        // Balances are not added up over time: their total is the last of them.
        lastOf: isBalanceRow(row),
        flagged: false,
      };
    }),
  };
}

const plain = (key: string, group: string, label: string, of: ReportColumn['of']): ReportColumn => ({
  key,
  group,
  label,
  kind: 'money',
  of,
  formula: null,
});
