import {
  compareCodes,
  isProfitAndLoss,
  profitSign,
  type Account,
  type AccountId,
  type AccountKind,
  type Layout,
  type RowItem,
  type SectionKind,
} from '@/core/model';
import {
  balanceLines,
  balanceSheetRows,
  isBalanceRow,
  rowEffect,
  statementRows,
  type StatementRow,
  type Term,
} from '../statement';
import type { Roll } from './series';
import { STATEMENT_LAYOUTS } from './shipped';
import { ROW_NAMES, rowName, type Linked, type RowKind } from '../table';

/** A row of a layout before it has figures. Lines add their members; totals add rows by their places. */
export type PlainRow = {
  readonly kind: RowKind;
  readonly key: string;
  readonly code: string;
  readonly label: string;
  /** The account of a line that is of one. */
  readonly account: AccountId | null;
  readonly members: readonly Account[];
  readonly section: SectionKind | null;
  /** +1 where more of it helps profit, −1 where it hurts, 0 where it does neither. */
  readonly effect: 1 | 0 | -1;
  /** What it comes to over several periods. */
  readonly roll: Roll;
  readonly terms: readonly Term[];
  /** The row of the layout’s own that it came from. */
  readonly own: number | null;
  readonly linked?: readonly Linked[];
  readonly tied?: readonly Linked[];
  readonly grows?: Linked;
};

const PLAIN = { code: '', account: null, members: [], section: null, terms: [], own: null } as const;

/** The section of a statement that a kind of account stands in. */
export const SECTION_OF_KIND: Readonly<Record<AccountKind, SectionKind>> = {
  income: 'income',
  costOfSales: 'costOfSales',
  expense: 'expense',
  otherIncome: 'otherIncome',
  otherExpense: 'otherExpense',
  bank: 'assets',
  receivable: 'assets',
  inventory: 'assets',
  otherAsset: 'assets',
  fixedAsset: 'assets',
  payable: 'liabilities',
  taxPayable: 'liabilities',
  otherLiability: 'liabilities',
  loan: 'liabilities',
  equity: 'equity',
};

const effectOf = (a: Account): 1 | 0 | -1 => profitSign(a.kind);
const rollOf = (a: Account): PlainRow['roll'] => (isProfitAndLoss(a.kind) ? 'sum' : 'last');

const lineOf = (account: Account, own: number | null = null): PlainRow => ({
  ...PLAIN,
  kind: 'line',
  key: own === null ? account.id : `${account.id} ${own}`,
  code: account.code,
  label: account.name,
  account: account.id,
  members: [account],
  section: SECTION_OF_KIND[account.kind],
  effect: effectOf(account),
  roll: rollOf(account),
  own,
});

/** Several accounts as one line; natural where they are of one side, what they do to profit where they are of both. */
const sumOf = (
  key: string,
  label: string,
  members: readonly Account[],
  own: number | null = null,
): PlainRow => ({
  ...PLAIN,
  kind: 'line',
  key,
  label,
  account: members.length === 1 ? members[0]!.id : null,
  members,
  section: members[0] ? SECTION_OF_KIND[members[0].kind] : null,
  effect: members[0] ? effectOf(members[0]) : 0,
  roll: members[0] ? rollOf(members[0]) : 'sum',
  own,
});

/** Sizes by which lines are sorted; null for the order of the chart. */
export type SizeOf = ((account: Account) => number) | null;

/** The rows of a layout over these accounts. */
export function layoutRows(
  rows: Layout['rows'],
  accounts: readonly Account[],
  sizeOf: SizeOf = null,
): readonly PlainRow[] {
  const ordered = sizeOf ? bySize(accounts, sizeOf) : accounts;
  if (rows.own.length > 0) return ownRows(rows, accounts, ordered);
  const profit =
    rows.set === 'balanceSheet' || rows.set === 'balanceStatement'
      ? []
      : ofStatement(rows, statementRows(ordered));
  const balance =
    rows.set === 'profitAndLoss' || rows.set === 'profitStatement'
      ? []
      : rows.set === 'ledger'
        ? movements(ordered)
        : ofStatement(
            rows,
            rows.set === 'budget'
              ? balanceLines(ordered)
              : balanceSheetRows(ordered, rows.set === 'balanceStatement' && rows.detail === 'account'),
          ).map(rows.set === 'balanceStatement' ? inStatements : (r) => r);
  return [...profit, ...shifted(balance, profit.length)];
}

/** Rows of the balance sheet that other rows of the statements lead to. */
const inStatements = (row: PlainRow): PlainRow =>
  row.key === 'outsideEquity'
    ? { ...row, grows: { report: STATEMENT_LAYOUTS.profit, row: 'netProfit' } }
    : row.key === 'liabilitiesAndEquity'
      ? { ...row, tied: [{ report: STATEMENT_LAYOUTS.balance, row: 'total-assets' }] }
      : row;

/** What moved in the accounts of the balance sheet, beneath a heading. */
function movements(accounts: readonly Account[]): PlainRow[] {
  const moved = accounts.filter((a) => !isProfitAndLoss(a.kind));
  if (moved.length === 0) return [];
  const heading: PlainRow = {
    ...PLAIN,
    kind: 'section',
    key: 'others',
    label: 'Balance sheet, movement',
    effect: 0,
    roll: 'sum',
  };
  return [heading, ...moved.map((a): PlainRow => ({ ...lineOf(a), section: null, roll: 'sum' }))];
}

const shifted = (rows: readonly PlainRow[], by: number): PlainRow[] =>
  rows.map((r) => ({ ...r, terms: r.terms.map((t) => ({ ...t, row: t.row + by })) }));

/** Within each group (or each section, of those that have none) the largest first; groups stay where they are. */
function bySize(accounts: readonly Account[], sizeOf: (account: Account) => number): Account[] {
  const size = new Map(accounts.map((a) => [a.id, sizeOf(a)]));
  const largest = new Map<string, number>();
  const partOf = (a: Account) => `${a.kind} ${a.group === '' ? a.id : a.group}`;
  for (const a of accounts) largest.set(partOf(a), Math.max(largest.get(partOf(a)) ?? 0, size.get(a.id)!));
  return accounts.toSorted(
    (a, b) => largest.get(partOf(b))! - largest.get(partOf(a))! || size.get(b.id)! - size.get(a.id)!,
  );
}

/** The rows of a statement, as far told apart as the layout says, in its order. */
function ofStatement(rows: Layout['rows'], statement: readonly StatementRow[]): PlainRow[] {
  const plain = statement.map((row): PlainRow => {
    const base = {
      ...PLAIN,
      ...rowName(row),
      roll: isBalanceRow(row) ? ('last' as const) : ('sum' as const),
    };
    switch (row.kind) {
      case 'line':
        return lineOf(row.account);
      case 'section':
        return { ...base, kind: 'section', section: row.section, effect: 0 };
      case 'group':
      case 'subtotal':
      case 'result': {
        const balance = isBalanceRow(row);
        return {
          ...base,
          kind: row.kind,
          section: row.kind === 'result' ? null : row.section,
          effect: balance ? 0 : rowEffect(row),
          terms: row.terms,
        };
      }
    }
  });
  const folded = rows.detail === 'account' ? plain : coarser(plain, rows.detail);
  return rows.order === 'incomeLast' ? incomeLast(folded) : folded;
}

/** Lines that are groups or sections: totals of what they were, which then add no rows. */
function coarser(rows: readonly PlainRow[], detail: 'group' | 'kind'): PlainRow[] {
  const membersOf = (r: PlainRow): readonly Account[] =>
    r.kind === 'line' ? r.members : r.terms.flatMap((t) => membersOf(rows[t.row]!));
  const grouped = new Set(rows.flatMap((r) => (r.kind === 'group' ? r.terms.map((t) => t.row) : [])));
  const becomes = (r: PlainRow, i: number): PlainRow | null => {
    if (detail === 'group') {
      if (r.kind === 'line') return grouped.has(i) ? null : r;
      if (r.kind !== 'group') return r;
      return { ...sumOf(r.key, r.label.replace(/^Total /, ''), membersOf(r)), key: r.key };
    }
    if (r.kind === 'line' || r.kind === 'group' || r.kind === 'section') return null;
    if (r.kind !== 'subtotal') return r;
    return sumOf(r.key, r.section ? ROW_NAMES[r.section] : r.label, membersOf(r));
  };
  const placeOf = new Map<number, number>();
  const out: PlainRow[] = [];
  rows.forEach((r, i) => {
    const now = becomes(r, i);
    if (now) placeOf.set(i, out.push(now) - 1);
  });
  // A subtotal adds the groups that took its lines in.
  const holder = new Map<number, number>();
  rows.forEach((r, i) => {
    if (r.kind === 'group') for (const t of r.terms) holder.set(t.row, i);
  });
  return out.map((r) => {
    if (r.terms.length === 0) return r;
    const met = new Set<number>();
    const terms = r.terms.flatMap((t) => {
      const at = placeOf.get(t.row) ?? placeOf.get(holder.get(t.row) ?? -1);
      if (at === undefined || met.has(at)) return [];
      met.add(at);
      return [{ row: at, sign: t.sign }];
    });
    return { ...r, terms };
  });
}

/** Costs first, income after them, net profit at the end; results in between would say nothing. */
function incomeLast(rows: readonly PlainRow[]): PlainRow[] {
  const isIncome = (r: PlainRow) => r.section === 'income' || r.section === 'otherIncome';
  const order = [
    ...rows.flatMap((r, i) => (r.kind !== 'result' && !isIncome(r) ? [i] : [])),
    ...rows.flatMap((r, i) => (r.kind !== 'result' && isIncome(r) ? [i] : [])),
    ...rows.flatMap((r, i) =>
      r.kind === 'result' && r.key !== 'grossMargin' && r.key !== 'operatingProfit' ? [i] : [],
    ),
  ];
  const place = new Map(order.map((from, to) => [from, to]));
  return order.map((i) => ({
    ...rows[i]!,
    terms: rows[i]!.terms.map((t) => ({ ...t, row: place.get(t.row)! })),
  }));
}

/** Which accounts of the chart an own row adds. */
export function accountsOfRow(row: RowItem, accounts: readonly Account[]): readonly Account[] {
  switch (row.row) {
    case 'account':
      return accounts.filter((a) => a.id === row.account);
    case 'range':
      return accounts.filter(
        (a) => a.code !== '' && compareCodes(row.from, a.code) <= 0 && compareCodes(a.code, row.to) <= 0,
      );
    case 'group':
      return accounts.filter((a) => a.kind === row.kind && a.group === row.group);
    case 'kind':
      return accounts.filter((a) => a.kind === row.kind);
    case 'heading':
    case 'blank':
    case 'total':
      return [];
  }
}

/** Rows of someone's own: each says what stands in it; totals add what stands above them, each account once. */
function ownRows(
  rows: Layout['rows'],
  chart: readonly Account[],
  ordered: readonly Account[],
): readonly PlainRow[] {
  const out: PlainRow[] = [];
  let since: number[] = [];
  const all: number[] = [];
  rows.own.forEach((item, own) => {
    const key = `own ${own}`;
    switch (item.row) {
      case 'heading':
        since = [];
        out.push({ ...PLAIN, kind: 'section', key, label: item.name, effect: 0, roll: 'sum', own });
        return;
      case 'blank':
        out.push({ ...PLAIN, kind: 'blank', key, label: '', effect: 0, roll: 'sum', own });
        return;
      case 'total': {
        const of = item.over === 'section' ? since : all;
        out.push(totalOf(key, item.name, of, out, own));
        if (item.over === 'section') since = [];
        return;
      }
      case 'account':
      case 'range':
      case 'group':
      case 'kind': {
        const members = accountsOfRow(item, item.row === 'account' ? chart : ordered);
        const lines =
          rows.detail === 'account' || members.length === 1
            ? members.map((a) => lineOf(a, own))
            : [...byKind(members)].map(([kind, list]) => sumOf(`${key} ${kind}`, nameOfRow(item), list, own));
        for (const line of lines) {
          const at = out.push(line) - 1;
          since.push(at);
          all.push(at);
        }
      }
    }
  });
  return out;
}

function byKind(accounts: readonly Account[]): Map<AccountKind, Account[]> {
  const out = new Map<AccountKind, Account[]>();
  for (const a of accounts) out.set(a.kind, [...(out.get(a.kind) ?? []), a]);
  return out;
}

function nameOfRow(item: RowItem): string {
  switch (item.row) {
    case 'range':
      return item.name || `${item.from}–${item.to}`;
    case 'group':
      return item.group || ROW_NAMES[SECTION_OF_KIND[item.kind]];
    case 'kind':
      return ROW_NAMES[SECTION_OF_KIND[item.kind]];
    default:
      return '';
  }
}

/** A total of rows, each account in it once: natural where all are of one side, else as they change profit. */
function totalOf(
  key: string,
  name: string,
  places: readonly number[],
  rows: readonly PlainRow[],
  own: number,
): PlainRow {
  const met = new Set<AccountId>();
  const kept = places.filter((p) => {
    const fresh = rows[p]!.members.every((a) => !met.has(a.id));
    if (fresh) for (const a of rows[p]!.members) met.add(a.id);
    return fresh;
  });
  const effects = new Set(kept.map((p) => rows[p]!.effect));
  const one = effects.size <= 1;
  const effect = one ? ([...effects][0] ?? 0) : 1;
  return {
    ...PLAIN,
    kind: 'subtotal',
    key,
    label: name,
    effect,
    roll: kept.length > 0 && kept.every((p) => rows[p]!.roll === 'last') ? 'last' : 'sum',
    terms: kept.map((row) => ({ row, sign: one ? 1 : rows[row]!.effect === -1 ? -1 : 1 })),
    own,
  };
}

/** The statement's rows as rows of someone's own, to begin from. */
export function asOwnRows(rows: Layout['rows'], accounts: readonly Account[]): RowItem[] {
  return layoutRows({ ...rows, own: [], detail: 'account' }, accounts).flatMap((r): RowItem[] => {
    switch (r.kind) {
      case 'section':
        return [{ row: 'heading', name: r.label }];
      case 'line':
        return r.account === null ? [] : [{ row: 'account', account: r.account }];
      case 'subtotal':
        return [{ row: 'total', name: r.label, over: 'section' }];
      case 'result':
        return [{ row: 'total', name: r.label, over: 'all' }];
      default:
        return [];
    }
  });
}
