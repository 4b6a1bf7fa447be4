import { sumBlank, type Minor } from '@/core/money';
import type { Period } from '@/core/calendar';
import { isProfitAndLoss, type Account, type AccountId } from '@/core/model';
import type { TrialBalance } from '@/core/ledger';
import { fillStatement, statementRows } from './statement';
import { rowName, type ReportColumn, type ReportRow, type ReportTable } from './table';

export type LedgerReportInput = {
  readonly book: string;
  readonly currency: string;
  readonly title: string;
  readonly subtitle: string;
  readonly accounts: readonly Account[];
  readonly periods: readonly Period[];
  /** Natural amounts of an account by period; null where the ledger is silent. */
  readonly values: (account: Account) => readonly (Minor | null)[];
};

/** The ledger by month: its profit-and-loss statement, then what moved in every other account. */
export function ledgerReport(input: LedgerReportInput): ReportTable {
  const { accounts, periods } = input;
  const byId = new Map(accounts.map((a) => [a.id, a]));
  const values = (id: AccountId) => input.values(byId.get(id)!);
  const rows = statementRows(accounts);
  const filled = fillStatement(rows, periods.length, values);
  const columns: ReportColumn[] = [
    ...periods.map((p): ReportColumn => ({
      key: p.id,
      group: 'Actual',
      label: p.label,
      kind: 'money',
      of: 'actual',
      formula: null,
    })),
    {
      key: 'total',
      group: 'Actual',
      label: 'Total',
      kind: 'money',
      of: 'actual',
      formula: { op: 'sum', of: periods.map((p) => p.id) },
    },
  ];
  const line = (a: Account, v: readonly (Minor | null)[]): ReportRow => ({
    kind: 'line',
    key: a.id,
    account: a.id,
    code: a.code,
    label: a.name,
    cells: [...v, sumBlank(v)],
    terms: [],
    flagged: false,
  });
  const others = accounts.filter((a) => !isProfitAndLoss(a.kind));
  return {
    title: input.title,
    subtitle: input.subtitle,
    book: input.book,
    currency: input.currency,
    columns,
    rows: [
      ...rows.map((row, r): ReportRow =>
        row.kind === 'line'
          ? line(row.account, filled[r]!)
          : {
              kind: row.kind,
              ...rowName(row),
              account: null,
              code: '',
              cells: row.kind === 'section' ? [] : [...filled[r]!, sumBlank(filled[r]!)],
              terms: 'terms' in row ? row.terms : [],
              flagged: false,
            },
      ),
      ...(others.length > 0
        ? [
            {
              kind: 'section',
              key: 'others',
              account: null,
              code: '',
              label: 'Balance sheet, movement',
              cells: [],
              terms: [],
              flagged: false,
            } as const,
          ]
        : []),
      ...others.map((a) => line(a, values(a.id))),
    ],
  };
}

/** A trial balance as a report: debits and credits, what earlier years left unclosed, and the totals. */
export function trialReport(
  trial: TrialBalance,
  words: Pick<LedgerReportInput, 'book' | 'currency' | 'title' | 'subtitle'> & { readonly unclosed: string },
): ReportTable {
  const { unclosed, ...head } = words;
  const side = (key: string, label: string): ReportColumn => ({
    key,
    group: '',
    label,
    kind: 'money',
    of: 'actual',
    formula: null,
  });
  const row = (key: string, code: string, label: string, debit: number, credit: number): ReportRow => ({
    kind: 'line',
    key,
    account: null,
    code,
    label,
    cells: [debit === 0 ? null : debit, credit === 0 ? null : credit],
    terms: [],
    flagged: false,
  });
  const lines = trial.rows.map((r) => row(r.account.id, r.account.code, r.account.name, r.debit, r.credit));
  if (trial.unclosed !== 0)
    lines.push(row('unclosed', '', unclosed, Math.max(0, trial.unclosed), Math.max(0, -trial.unclosed)));
  return {
    ...head,
    columns: [side('debit', 'Debit'), side('credit', 'Credit')],
    rows: [
      ...lines,
      {
        ...row('total', '', 'Total', trial.debit, trial.credit),
        kind: 'result',
        terms: lines.map((_, i) => ({ row: i, sign: 1 })),
      },
    ],
  };
}
