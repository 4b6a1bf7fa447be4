import type { TrialBalance } from '@/core/ledger';
import type { ReportColumn, ReportRow, ReportTable } from './table';

/** A trial balance as a report: debits and credits, what earlier years left unclosed, and the totals. */
export function trialReport(
  trial: TrialBalance,
  words: Pick<ReportTable, 'book' | 'currency' | 'title' | 'subtitle'> & { readonly unclosed: string },
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
