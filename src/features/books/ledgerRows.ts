import { found } from '@/core/finding';
import type { Minor } from '@/core/money';
import { periodsOf, rangeLabel, type PeriodRange } from '@/core/calendar';
import { actualOf, oddMonths, type Balances, type OddMonth } from '@/core/ledger';
import { isProfitAndLoss, segmentName, type Account, type AccountKind, type Book } from '@/core/model';
import { KIND_NAMES } from '@/store/kindNames';
import {
  ledgerReport,
  plainRow,
  shippedLayout,
  type LayoutWords,
  type PlainRow,
  type ReportRow,
  type ReportTable,
} from '@/core/report';
import type { SheetColumn, SheetRow } from '@/components/sheet/types';
import type { Ground } from '@/core/ground';
import { ODD_WORDS } from './words';

/** Which accounts the ledger view shows. */
export type LedgerFilter = {
  readonly words: string;
  /** "4000-4999": accounts whose code lies between; empty for all. */
  readonly from: string;
  readonly to: string;
  readonly kind: AccountKind | null;
  readonly group: string | null;
  readonly oddOnly: boolean;
};

export const NO_FILTER: LedgerFilter = {
  words: '',
  from: '',
  to: '',
  kind: null,
  group: null,
  oddOnly: false,
};

const none: readonly boolean[] = [];
const bare = { badge: '', badgeTone: 'quiet', hasNote: false, typed: none } as const;

const number = (code: string): number => Number.parseFloat(code.replace(/[^\d.]/g, ''));

function passes(account: Account, f: LedgerFilter): boolean {
  const code = number(account.code);
  if (f.from && !(code >= number(f.from))) return false;
  if (f.to && !(code <= number(f.to))) return false;
  if (f.kind && account.kind !== f.kind) return false;
  return f.group === null || account.group === f.group;
}

/** How many months before the shown range an account's habit is judged by. */
const MEMORY = 24;

/** Odd months of each account, by place in the range; judged by the months of the range and the two years before it. */
export function oddities(
  ground: Ground,
  balances: Balances,
  range: PeriodRange,
): ReadonlyMap<string, readonly OddMonth[]> {
  const known = balances.range;
  if (!known) return new Map();
  const from = Math.max(known.first, range.first - MEMORY);
  const to = Math.min(known.last, range.last);
  const out = new Map<string, readonly OddMonth[]>();
  if (to < from) return out;
  for (const a of ground.book.accounts) {
    // A balance moves as its business does: only profit and loss has a habit by the month.
    const values = Array.from({ length: to - from + 1 }, (_, i) => actualOf(balances, a, from + i));
    const odd = oddMonths(values, a.usual).filter((o) => isProfitAndLoss(a.kind) || o.kind === 'outside');
    const shown = odd
      .map((o) => ({ ...o, at: o.at + from - range.first }))
      .filter((o) => o.at >= 0 && o.at <= range.last - range.first);
    if (shown.length > 0) out.set(a.id, shown);
  }
  return out;
}

/**
 * The ledger that the filters let through, by month: what the screen and every file of it draw. `part`: what is said of the
 * filters beneath its title; empty for the whole.
 */
export function filteredLedger(
  ground: Ground,
  balances: Balances,
  range: PeriodRange,
  filter: LedgerFilter,
  odd: ReadonlyMap<string, readonly OddMonth[]>,
  part = '',
): ReportTable {
  const layout = shippedLayout('std-ledger')!;
  const month = range.last;
  const sought = new Set(found(ground.book.accounts, (a) => `${a.code} ${a.name}`, filter.words));
  const compared = { comparison: null, first: 'lastYear', second: null, kept: null } as const;
  const words = ledgerWords(ground, layout.name, range, part);
  const all = { ground, layout, month, compared, words, ruler: range, ledger: balances };
  const accounts = (a: Account) => sought.has(a) && passes(a, filter) && (!filter.oddOnly || odd.has(a.id));
  const { table } = ledgerReport({ ...all, accounts, labelOfPart });
  return ground.book.accounts.every(accounts) ? table : withTrueTotals(table, ledgerReport(all).table);
}

/** Totals of what a search leaves, each with the true one beneath it: the part never stands for the whole. */
function withTrueTotals(table: ReportTable, whole: ReportTable): ReportTable {
  const byKey = new Map(whole.rows.map((r) => [r.key, r]));
  const places: number[] = [];
  const rows: ReportRow[] = [];
  for (const row of table.rows) {
    places.push(rows.push(row) - 1);
    const all = byKey.get(row.key);
    if (!all || all.label === row.label || (row.kind !== 'subtotal' && row.kind !== 'result')) continue;
    // The lines that it adds are not in sight: it adds no rows.
    rows.push({ ...plainRow(all), key: `${row.key} of all`, terms: [] });
  }
  return {
    ...table,
    rows: rows.map((row) =>
      row.terms.length === 0
        ? row
        : { ...plainRow(row), terms: row.terms.map((t) => ({ ...t, row: places[t.row]! })) },
    ),
  };
}

/** What of the ledger is looked at, in words that stand beneath its title on screen and in files; empty for all of it. */
export function partWords(
  { axes, sources }: Pick<Book, 'axes' | 'sources'>,
  { words, from, to, kind, group, oddOnly }: LedgerFilter,
  segments: Readonly<Record<string, string>>,
  source: string | null,
): string {
  return [
    words.trim() && `accounts with “${words.trim()}”`,
    (from || to) && `codes ${from || '…'} to ${to || '…'}`,
    kind && `${KIND_NAMES[kind].toLowerCase()} only`,
    group !== null && `group ${group || 'none'}`,
    oddOnly && 'accounts with odd months',
    ...axes.map((axis) => {
      const value = segments[axis.id];
      return value !== undefined && `${axis.name} ${segmentName(axis, value || null)}`;
    }),
    source !== null && `from ${sources.find((s) => s.block === source)?.fileName ?? 'one source'} alone`,
  ]
    .filter(Boolean)
    .join(' · ');
}

/** Totals of the accounts that a search leaves are theirs, and no total of the company. */
function labelOfPart({ kind, key, label }: Pick<PlainRow, 'kind' | 'key' | 'label'>): string {
  switch (kind) {
    case 'group':
      return `${label}, as far as shown`;
    case 'subtotal':
      return `Shown of ${label.replace(/^Total /, '')}`;
    case 'result':
      return key === 'netProfit' ? 'Net of what is shown' : `Net of what is shown down to here`;
    default:
      return label;
  }
}

const nothing = () => '';
/** The few words that a ledger's report needs: those of every layout are more than the first screen should load. */
function ledgerWords({ calendar }: Ground, title: string, range: PeriodRange, part: string): LayoutWords {
  const months = rangeLabel(calendar, range);
  const subtitle = part ? `${months} · ${part}` : months;
  return {
    title,
    subtitle,
    span: ({ of, periods }) => (of === 'month' ? calendar.period(periods[0]!).label : months),
    scope: nothing,
    column: () => 'Actual',
    hint: nothing,
    used: nothing,
    apart: '',
    only: (label) => label,
    lacks: nothing,
    untold: nothing,
    notation: '',
    came: nothing,
    method: nothing,
    planNote: nothing,
    note: nothing,
  };
}

/** The report as rows of the sheet, with a picture of each account's months and why some stand out. */
export function ledgerRows(
  ground: Ground,
  range: PeriodRange,
  table: ReportTable,
  odd: ReadonlyMap<string, readonly OddMonth[]>,
  money: (amount: Minor | null) => string,
): { readonly rows: SheetRow[]; readonly columns: SheetColumn[] } {
  const periods = periodsOf(ground.calendar, range);
  const long = periods.length > 12;
  const columns = table.columns.map((c, i): SheetColumn => {
    const p = periods[i];
    return p
      ? { key: c.key, label: long ? `${p.short} ${p.start.slice(2, 4)}` : p.short, kind: 'amount' }
      : { key: c.key, label: c.label, kind: 'total' };
  });
  const reasons = (id: string): string[] => {
    const out = new Array<string>(columns.length).fill('');
    for (const o of odd.get(id) ?? []) out[o.at] = ODD_WORDS[o.kind](money(o.usual));
    return out;
  };
  const rows = table.rows.map((row): SheetRow => {
    const values = row.cells as readonly (Minor | null)[];
    const isLine = row.kind === 'line';
    return {
      ...bare,
      key: row.key,
      kind: row.kind,
      label: row.label,
      code: row.code,
      values,
      enterable: isLine,
      picture: isLine ? values.slice(0, periods.length) : undefined,
      odd: isLine && odd.has(row.key) ? reasons(row.key) : undefined,
    };
  });
  return { rows, columns };
}
