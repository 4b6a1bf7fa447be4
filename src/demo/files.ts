import { minor, plainDecimal } from '@/core/money';
import { writeDelimited } from '@/core/files';
import { DEMO_ACCOUNTS } from './accounts';
import { demoLedger, type DemoRow } from './ledger';

/** The demo ledger's files: a year each, as an accounting program would export them. */
export const DEMO_FILES = [
  { name: 'pellow-creek-ledger-fy25.csv', from: '2024-07-01', to: '2025-06-30' },
  { name: 'pellow-creek-ledger-fy26.csv', from: '2025-07-01', to: '2026-06-30' },
  { name: 'pellow-creek-ledger-fy27-to-october.csv', from: '2026-07-01', to: '2026-10-31' },
] as const;

const money = (cents: number): string => (cents === 0 ? '' : plainDecimal(minor(cents), 'USD'));

const rowOf = (r: DemoRow): string[] => [
  r.day,
  r.journal,
  r.code,
  DEMO_ACCOUNTS[r.code]!,
  money(r.debit),
  money(r.credit),
  r.party,
  r.memo,
  r.site,
  r.activity,
];

/** Name and CSV text of each file; the same on every call. */
export function demoFiles(): { readonly name: string; readonly text: string }[] {
  const rows = demoLedger();
  const head = [
    'Date',
    'Journal no',
    'Account code',
    'Account name',
    'Debit',
    'Credit',
    'Counterparty',
    'Memo',
    'Site',
    'Activity',
  ];
  return DEMO_FILES.map(({ name, from, to }) => ({
    name,
    text: writeDelimited([head, ...rows.filter((r) => r.day >= from && r.day <= to).map(rowOf)]),
  }));
}
