import { plus, minor, sumBlank, type Minor } from '@/core/money';
import {
  profitSign,
  type Account,
  type AccountId,
  type AccountKind,
  type Budget,
  type SectionKind,
  type SegmentId,
} from '@/core/model';
import type { LinePlaces } from '@/core/plan';

export type BalanceSection = 'assets' | 'liabilities' | 'equity';
export type ResultKind =
  'grossMargin' | 'operatingProfit' | 'netProfit' | 'netAssets' | 'outsideEquity' | 'liabilitiesAndEquity';

const BALANCE_RESULTS: ReadonlySet<ResultKind> = new Set([
  'netAssets',
  'outsideEquity',
  'liabilitiesAndEquity',
]);

const BALANCE_SECTIONS: Readonly<Record<BalanceSection, readonly AccountKind[]>> = {
  assets: ['bank', 'receivable', 'inventory', 'otherAsset', 'fixedAsset'],
  liabilities: ['payable', 'taxPayable', 'otherLiability', 'loan'],
  equity: ['equity'],
};

const accountsOf = (accounts: readonly Account[], section: BalanceSection): Account[] =>
  BALANCE_SECTIONS[section].flatMap((k) => accounts.filter((a) => a.kind === k));

const isFixed = ({ kind }: Account): boolean => kind === 'fixedAsset' || kind === 'loan';
const PARTS = {
  assets: [
    ['current assets', (a: Account) => !isFixed(a)],
    ['non-current assets', isFixed],
  ],
  liabilities: [
    ['current liabilities', (a: Account) => !isFixed(a)],
    ['non-current liabilities', isFixed],
  ],
} as const;

/** Whether a row holds balances at the ends of periods, which are not added up over time. */
export const isBalanceRow = (row: StatementRow): boolean =>
  row.kind === 'result' ? BALANCE_RESULTS.has(row.result) : row.section in BALANCE_SECTIONS;

/** What the periods of a row come to: their sum with what is said of whole years, or the last balance. */
export const rowTotal = (
  row: StatementRow,
  months: readonly (Minor | null)[],
  wholes: readonly (Minor | null)[] = [],
): Minor | null =>
  isBalanceRow(row)
    ? (months.findLast((m) => m !== null) ?? null)
    : wholes.length === 0
      ? sumBlank(months)
      : sumBlank([...months, ...wholes]);

export type { SectionKind };

/** One row of a profit-and-loss statement. Totals name the rows they add, so that a file can carry real formulas. */
export type StatementRow =
  | { readonly kind: 'section'; readonly section: SectionKind }
  | { readonly kind: 'line'; readonly section: SectionKind; readonly account: Account }
  | {
      readonly kind: 'group';
      readonly section: SectionKind;
      readonly group: string;
      readonly terms: readonly Term[];
    }
  | { readonly kind: 'subtotal'; readonly section: SectionKind; readonly terms: readonly Term[] }
  | { readonly kind: 'result'; readonly result: ResultKind; readonly terms: readonly Term[] };

/** A row (by its place) that counts toward a total, with its sign. */
export type Term = { readonly row: number; readonly sign: 1 | -1 };

const SECTIONS = ['income', 'costOfSales', 'expense', 'otherIncome', 'otherExpense'] as const;

/**
 * The rows of a profit-and-loss statement: sections in order with their subtotals, gross margin after cost of
 * sales, operating profit before other items, net profit. A section without accounts is left out, and so is a
 * result that would only repeat the one above.
 */
export function statementRows(accounts: readonly Account[]): StatementRow[] {
  const rows: StatementRow[] = [];
  const subtotals: Term[] = [];
  const bySection = new Map<AccountKind, Account[]>();
  for (const a of accounts) {
    const list = bySection.get(a.kind);
    if (list) list.push(a);
    else bySection.set(a.kind, [a]);
  }
  const has = (s: AccountKind) => (bySection.get(s)?.length ?? 0) > 0;
  const result = (kind: ResultKind) => rows.push({ kind: 'result', result: kind, terms: [...subtotals] });
  for (const section of SECTIONS) {
    const list = bySection.get(section);
    if (!list) continue;
    if (section === 'otherIncome' || (section === 'otherExpense' && !has('otherIncome')))
      result('operatingProfit');
    subtotals.push({ row: pushSection(rows, section, list), sign: profitSign(section) as 1 | -1 });
    if (section === 'costOfSales') result('grossMargin');
  }
  if (rows.length > 0) result('netProfit');
  return rows;
}

/**
 * A section with its lines, its groups and its subtotal; the place of the subtotal. `more`: rows of a section's own that its
 * subtotal adds to its lines.
 */
function pushSection(
  rows: StatementRow[],
  section: SectionKind,
  list: readonly Account[],
  parts: readonly (readonly [name: string, fits: (a: Account) => boolean])[] = [],
  more: (lines: readonly Term[]) => readonly Term[] = () => [],
): number {
  rows.push({ kind: 'section', section });
  const terms: Term[] = [];
  const push = (part: readonly Account[]): Term[] => {
    const all: Term[] = [];
    // A group stands where its first account does; accounts without one stand by themselves.
    for (const members of inGroups(part)) {
      const own = members.map((account): Term => ({
        row: rows.push({ kind: 'line', section, account }) - 1,
        sign: 1,
      }));
      all.push(...own);
      const { group } = members[0]!;
      if (group !== '') rows.push({ kind: 'group', section, group, terms: own });
    }
    return all;
  };
  const split = parts
    .map(([name, fits]) => ({ name, members: list.filter(fits) }))
    .filter(({ members }) => members.length > 0);
  // One part alone is the section itself.
  if (split.length < 2) terms.push(...push(list));
  else
    for (const { name, members } of split) {
      const own = push(members);
      terms.push(...own);
      rows.push({ kind: 'group', section, group: name, terms: own });
    }
  terms.push(...more(terms));
  return rows.push({ kind: 'subtotal', section, terms }) - 1;
}

/**
 * The rows of a balance sheet: assets and liabilities with their subtotals, assets less liabilities, and equity. What the
 * net assets exceed the equity accounts by (as a rule the result that no entry has put into equity yet) has a row of its
 * own in the equity, so that what is owed and what is the owners' come to the assets. `parted`: what is current apart from what is not, as IAS 1 and ASC 210 ask.
 */
export function balanceSheetRows(accounts: readonly Account[], parted = false): StatementRow[] {
  const rows: StatementRow[] = [];
  const net: Term[] = [];
  for (const [section, sign] of [
    ['assets', 1],
    ['liabilities', -1],
  ] as const) {
    const list = accountsOf(accounts, section);
    const parts = parted ? PARTS[section] : [];
    if (list.length > 0) net.push({ row: pushSection(rows, section, list, parts), sign });
  }
  const netAssets =
    net.length > 0 ? rows.push({ kind: 'result', result: 'netAssets', terms: net }) - 1 : null;
  const equity = accountsOf(accounts, 'equity');
  if (equity.length === 0) return rows;
  const total = pushSection(rows, 'equity', equity, [], (lines) => {
    if (netAssets === null) return [];
    const terms: Term[] = [
      { row: netAssets, sign: 1 },
      ...lines.map(({ row, sign }): Term => ({ row, sign: sign === 1 ? -1 : 1 })),
    ];
    return [{ row: rows.push({ kind: 'result', result: 'outsideEquity', terms }) - 1, sign: 1 }];
  });
  if (netAssets !== null) {
    const owed = net.filter((t) => t.sign === -1).map(({ row }): Term => ({ row, sign: 1 }));
    rows.push({ kind: 'result', result: 'liabilitiesAndEquity', terms: [...owed, { row: total, sign: 1 }] });
  }
  return rows;
}

/**
 * Closing balances that a budget's lines say, by section, without totals: what no line says follows from the plan, and only
 * the statements tell what all of them come to.
 */
export const balanceLines = (accounts: readonly Account[]): StatementRow[] =>
  (['assets', 'liabilities', 'equity'] as const).flatMap((section): StatementRow[] => {
    const lines = accountsOf(accounts, section).map(
      (account) => ({ kind: 'line', section, account }) as const,
    );
    return lines.length > 0 ? [{ kind: 'section', section }, ...lines] : [];
  });

/** The rows of a budget: profit and loss, balances, or one after the other. */
export const budgetRows = (accounts: readonly Account[], covers: Budget['covers']): StatementRow[] => [
  ...(covers === 'balanceSheet' ? [] : statementRows(accounts)),
  ...(covers === 'profitAndLoss' ? [] : balanceLines(accounts)),
];

/** The accounts of a section, those of one group together. */
function inGroups(accounts: readonly Account[]): Account[][] {
  const out: Account[][] = [];
  const byName = new Map<string, Account[]>();
  for (const a of accounts) {
    const there = a.group === '' ? undefined : byName.get(a.group);
    if (there) {
      there.push(a);
      continue;
    }
    const fresh = [a];
    out.push(fresh);
    if (a.group !== '') byName.set(a.group, fresh);
  }
  return out;
}

/** Whether more of the row means more profit (results and income) or less (costs). */
export const rowEffect = (row: StatementRow): 1 | -1 =>
  row.kind === 'result' || row.section === 'assets' || row.section === 'equity'
    ? 1
    : row.section === 'liabilities'
      ? -1
      : (profitSign(row.section) as 1 | -1);

/** The values of an account, whose row is at a place; null for none. */
type ValuesOf = (account: AccountId, row: number) => readonly (Minor | null)[] | null;

/**
 * Values of every row from those of its accounts, column by column; `width` columns. A total of blanks only is
 * blank. Section rows give null throughout.
 */
export function fillStatement(
  rows: readonly StatementRow[],
  width: number,
  valuesOf: ValuesOf,
): readonly (readonly (Minor | null)[])[] {
  const empty: readonly (Minor | null)[] = new Array<null>(width).fill(null);
  const out: (readonly (Minor | null)[])[] = [];
  for (const row of rows) {
    switch (row.kind) {
      case 'section':
        out.push(empty);
        break;
      case 'line':
        out.push(valuesOf(row.account.id, out.length) ?? empty);
        break;
      case 'group':
      case 'subtotal':
      case 'result':
        out.push(addTerms(row.terms, out, width));
    }
  }
  return out;
}

function addTerms(
  terms: readonly Term[],
  rows: readonly (readonly (Minor | null)[])[],
  width: number,
): (Minor | null)[] {
  const sums = new Array<number>(width).fill(0);
  const any = new Array<boolean>(width).fill(false);
  for (const { row, sign } of terms) {
    const values = rows[row]!;
    for (let c = 0; c < width; c++) {
      const v = values[c];
      if (v === null || v === undefined) continue;
      sums[c] = plus(sums[c]!, sign * v);
      any[c] = true;
    }
  }
  return sums.map((s, c) => (any[c] ? minor(s) : null));
}

/** Where each row's line stands among a budget's, in one segment; −1 for rows that have none. */
export const placesOfRows = (
  rows: readonly StatementRow[],
  places: LinePlaces,
  segment: SegmentId,
): readonly number[] =>
  rows.map((r) => (r.kind === 'line' ? (places.of({ account: r.account.id, segment }) ?? -1) : -1));
