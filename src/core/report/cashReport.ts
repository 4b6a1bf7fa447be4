import { minor } from '@/core/money';
import type { CashTable } from '@/core/cash';
import type { CashSource } from '@/core/model';
import type { ReportColumn, ReportRow, ReportTable } from './table';
import type { Term } from './statement';

export type CashReportInput = Pick<ReportTable, 'book' | 'currency' | 'title' | 'subtitle'> & {
  readonly table: CashTable;
  /** Heads of the ranges of days. */
  readonly heads: readonly { readonly key: string; readonly group: string; readonly label: string }[];
  /** What each bank account holds at the end of each range; shown where there are several. */
  readonly banks: readonly {
    readonly id: string;
    readonly name: string;
    readonly closing: readonly number[];
  }[];
};

/** What a source is called. */
export const SOURCE_NAMES: Record<CashSource, string> = {
  openInvoices: 'Open invoices',
  newSales: 'New sales',
  otherReceipts: 'Other receipts',
  openBills: 'Open bills',
  newPurchases: 'New purchases',
  payroll: 'Payroll',
  taxes: 'Taxes',
  loans: 'Loans',
  owners: 'Owners',
  salesOrders: 'Sales orders',
  purchaseOrders: 'Purchase orders',
  disposals: 'Disposals',
  other: 'Other payments',
  creditLine: 'Credit line',
  underWay: 'Not cleared by the bank',
  moved: 'Moved, not posted',
};

/** In which section a source stands: what comes in, what goes out (shown positive), what owners and lenders give. */
export const SECTION_OF: Record<CashSource, 'in' | 'out' | 'finance' | 'other'> = {
  openInvoices: 'in',
  newSales: 'in',
  otherReceipts: 'in',
  salesOrders: 'in',
  disposals: 'in',
  openBills: 'out',
  newPurchases: 'out',
  payroll: 'out',
  taxes: 'out',
  purchaseOrders: 'out',
  other: 'out',
  loans: 'finance',
  owners: 'finance',
  creditLine: 'finance',
  underWay: 'other',
  moved: 'other',
};

const SECTIONS = [
  { key: 'in', name: 'Comes in', total: 'Receipts', sign: 1 },
  { key: 'out', name: 'Goes out', total: 'Payments', sign: -1 },
  { key: 'finance', name: 'Owners and lenders', total: 'Owners and lenders, net', sign: 1 },
  { key: 'other', name: 'At the bank', total: 'At the bank, net', sign: 1 },
] as const;

/** The bank ahead as a report: opening balance, sources, closing balance, and the lowest day of each range. */
export function cashReport({ table, heads, banks, ...words }: CashReportInput): ReportTable {
  const columns = heads.map((h): ReportColumn => ({ ...h, kind: 'money', of: 'plan', formula: null }));
  const rows: ReportRow[] = [];
  const add = (
    row: Pick<ReportRow, 'kind' | 'key' | 'label' | 'cells'> & { terms?: readonly Term[] },
  ): number => rows.push({ account: null, code: '', flagged: false, terms: [], ...row }) - 1;
  const opening = add({ kind: 'line', key: 'opening', label: 'Opening balance', cells: [...table.opening] });
  const totals: Term[] = [{ row: opening, sign: 1 }];
  for (const { key, name, total, sign } of SECTIONS) {
    const own = table.rows.filter((r) => SECTION_OF[r.source] === key);
    if (own.length === 0) continue;
    add({ kind: 'section', key: `section-${key}`, label: name, cells: [] });
    const terms = own.map(({ source, amounts }): Term => ({
      row: add({
        kind: 'line',
        key: source,
        label: SOURCE_NAMES[source],
        cells: amounts.map((a) => minor(sign * a)),
      }),
      sign: 1,
    }));
    const sums = heads.map((_, i) => minor(own.reduce((t, r) => t + sign * r.amounts[i]!, 0)));
    totals.push({
      row: add({ kind: 'subtotal', key: `total-${key}`, label: total, cells: sums, terms }),
      sign,
    });
  }
  const closing = add({
    kind: 'result',
    key: 'closing',
    label: 'Closing balance',
    cells: [...table.closing],
    terms: totals,
  });
  rows[opening] = { ...rows[opening]!, carries: closing };
  if (banks.length > 1)
    for (const bank of banks)
      add({ kind: 'line', key: `bank-${bank.id}`, label: `of it, ${bank.name}`, cells: [...bank.closing] });
  add({ kind: 'line', key: 'low', label: 'Lowest day', cells: table.low.map((l) => l?.amount ?? null) });
  return { ...words, columns, rows };
}
