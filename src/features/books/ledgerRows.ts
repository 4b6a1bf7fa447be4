import { sumBlank, type Minor } from '@/core/money';
import { periodsOf, type PeriodRange } from '@/core/calendar';
import { actualOf, oddMonths, type Balances, type OddMonth } from '@/core/ledger';
import { isProfitAndLoss, type Account, type AccountKind } from '@/core/model';
import { fillStatement, rowName, statementRows } from '@/core/report';
import type { SheetColumn, SheetRow } from '@/components/sheet/types';
import type { Ground } from '@/store/derived';
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
const bare = { code: '', badge: '', badgeTone: 'quiet', hasNote: false, typed: none, ghost: null } as const;

const number = (code: string): number => Number.parseFloat(code.replace(/[^\d.]/g, ''));

function passes(account: Account, f: LedgerFilter): boolean {
  const words = f.words.trim().toLowerCase();
  if (words && !`${account.code} ${account.name}`.toLowerCase().includes(words)) return false;
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

/** Accounts down, months across: the profit-and-loss statement of the ledger, then the movements of all other accounts. */
export function ledgerRows(
  ground: Ground,
  balances: Balances,
  range: PeriodRange,
  filter: LedgerFilter,
  odd: ReadonlyMap<string, readonly OddMonth[]>,
  money: (amount: Minor | null) => string,
): { readonly rows: SheetRow[]; readonly columns: SheetColumn[] } {
  const { book, calendar } = ground;
  const periods = periodsOf(calendar, range);
  const long = periods.length > 12;
  const columns: SheetColumn[] = [
    ...periods.map((p): SheetColumn => ({
      key: p.id,
      label: long ? `${p.short} ${String(p.start).slice(2, 4)}` : p.short,
      kind: 'amount',
    })),
    { key: 'total', label: 'Total', kind: 'total' },
  ];
  const accounts = book.accounts.filter((a) => passes(a, filter) && (!filter.oddOnly || odd.has(a.id)));
  const byId = new Map(accounts.map((a) => [a.id, a]));
  const values = (id: string) => periods.map((p) => actualOf(balances, byId.get(id)!, p.index));
  const statement = statementRows(accounts);
  const filled = fillStatement(statement, periods.length, values);
  const withTotal = (v: readonly (Minor | null)[]) => [...v, sumBlank(v)];
  const reasons = (id: string): string[] => {
    const out = new Array<string>(columns.length).fill('');
    for (const o of odd.get(id) ?? []) out[o.at] = ODD_WORDS[o.kind](money(o.usual as Minor));
    return out;
  };
  const line = (a: Account, v: readonly (Minor | null)[]): SheetRow => ({
    ...bare,
    key: a.id,
    kind: 'line',
    label: a.name,
    code: a.code,
    values: withTotal(v),
    enterable: true,
    picture: v,
    odd: odd.has(a.id) ? reasons(a.id) : undefined,
  });
  const rows = statement.map((row, r): SheetRow =>
    row.kind === 'line'
      ? line(row.account, filled[r]!)
      : {
          ...bare,
          ...rowName(row),
          kind: row.kind,
          values: row.kind === 'section' ? [] : withTotal(filled[r]!),
          enterable: false,
        },
  );
  const others = accounts.filter((a) => !isProfitAndLoss(a.kind));
  if (others.length > 0) {
    rows.push({
      ...bare,
      key: 'others',
      kind: 'section',
      label: 'Balance sheet, movement',
      values: [],
      enterable: false,
    });
    for (const a of others) rows.push(line(a, values(a.id)));
  }
  return { rows, columns };
}
