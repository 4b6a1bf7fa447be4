import { day as dayOf } from '@/core/calendar';
import { minor, plainDecimal } from '@/core/money';
import { writeDelimited } from '@/core/files';
import { DEMO_ACCOUNTS } from './accounts';
import { STOOD_OPEN, demoLedger, type DemoRow } from './ledger';

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

/** What the co-op owned and owed when the ledger begins, in cents, debits positive; in balance. */
const OPENINGS: Readonly<Record<string, number>> = {
  '1010': 8_420_000,
  '1020': 1_500_000,
  '1200': STOOD_OPEN.receivable,
  '1300': 3_450_000,
  '1510': 11_800_000,
  '1530': 4_100_000,
  '1590': -3_860_000,
  '2010': -STOOD_OPEN.payable,
  '2200': -124_000,
  '3010': -12_000_000,
  '3020': -17_241_000,
};

const sideless = { party: '', site: '', activity: '' } as const;
const posted = (day: string, journal: string, memo: string, code: string, cents: number): DemoRow => ({
  ...sideless,
  day: dayOf(day),
  journal,
  memo,
  code,
  debit: Math.max(0, cents),
  credit: Math.max(0, -cents),
});

/** What stood on the accounts when the books begin. */
export const openings = (): DemoRow[] =>
  Object.entries(OPENINGS).map(([code, cents]) =>
    posted('2024-07-01', 'OB-1', 'Opening balance', code, cents),
  );

/** The year's closing entry: every account of profit and loss brought to nothing against the retained surplus. */
function closing(rows: readonly DemoRow[], day: string): DemoRow[] {
  const sums = new Map<string, number>();
  for (const r of rows) if (r.code >= '4') sums.set(r.code, (sums.get(r.code) ?? 0) + r.debit - r.credit);
  const journal = `YE-${day.slice(0, 4)}`;
  const out = [...sums].sort().map(([code, sum]) => posted(day, journal, 'Year-end closing', code, -sum));
  const surplus = [...sums.values()].reduce((t, s) => t + s, 0);
  return [...out, posted(day, journal, 'Year-end closing', '3020', surplus)];
}

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
  return DEMO_FILES.map(({ name, from, to }, i) => {
    const year = rows.filter((r) => r.day >= from && r.day <= to);
    const all = [
      ...(i === 0 ? openings() : []),
      ...year,
      // The present year is not over.
      ...(to.endsWith('06-30') ? closing(year, to) : []),
    ];
    return { name, text: writeDelimited([head, ...all.map(rowOf)]) };
  });
}
