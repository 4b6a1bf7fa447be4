import type { Period } from '@/core/calendar';
import { nameKey, splitAccountCell } from '@/core/intake/accountCell';
import { parseMonthHead } from '@/core/intake/dates';
import type { Account, AccountId } from '@/core/model';

/** A pasted block whose first row names months and whose first columns name accounts. */
export type MatchedBlock = {
  /** Each amount with the account and the place of the period that it is for. */
  readonly cells: readonly {
    readonly account: AccountId;
    readonly period: number;
    readonly text: string;
    /** Row and column of the block, from 1. */
    readonly row: number;
    readonly column: number;
  }[];
  readonly lines: number;
  readonly months: number;
  /** What no account or month is found for, as it stands in the block. */
  readonly unknownLines: readonly string[];
  readonly unknownMonths: readonly string[];
};

/** Heads of a block's first row that stand for the accounts or for totals, which are reckoned. */
const NO_MONTH = /^(code|account|line|name|no\.?|number|total|year|sum)?$/i;

/**
 * Understands a block by its heads: months in its first row, and an account's code, name, or both in its first one or
 * two columns. Null when it is no such block: fewer than half of the first row's heads are months, or no line is known.
 */
export function matchBlock(
  block: readonly (readonly string[])[],
  accounts: readonly Account[],
  periods: readonly Period[],
): MatchedBlock | null {
  const head = block[0];
  if (!head || block.length < 2 || head.length < 2) return null;
  const places = head.map((text) => periodOf(text, periods));
  const first = places.findIndex((p) => p !== null);
  const heads = head.filter((t, i) => i > 0 && t.trim() !== '');
  const found = places.filter((p) => p !== null).length;
  if (first < 1 || first > 2 || found * 2 < heads.length) return null;
  const finder = accountFinder(accounts);
  const cells: MatchedBlock['cells'][number][] = [];
  const unknownLines: string[] = [];
  const seen = new Set<AccountId>();
  block.slice(1).forEach((texts, i) => {
    const names = texts.slice(0, first).filter((t) => t.trim() !== '');
    if (names.length === 0) return;
    const account = finder(names);
    if (!account) {
      // A heading or a total has no account; it is listed only when it brings figures.
      if (texts.slice(first).some((t) => t.trim() !== '')) unknownLines.push(names.join(' '));
      return;
    }
    seen.add(account);
    places.forEach((period, c) => {
      if (period !== null && c >= first)
        cells.push({ account, period, text: texts[c] ?? '', row: i + 2, column: c + 1 });
    });
  });
  if (seen.size === 0) return null;
  return {
    cells,
    lines: seen.size,
    months: new Set(places.filter((p) => p !== null)).size,
    unknownLines,
    unknownMonths: head.filter((t, c) => c >= first && places[c] === null && !NO_MONTH.test(t.trim())),
  };
}

/** A pasted block whose first columns name accounts, and whose further columns are figures under no month's name. */
export type NamedRows = {
  readonly rows: readonly {
    readonly account: AccountId;
    readonly texts: readonly string[];
    readonly row: number;
  }[];
  readonly unknownLines: readonly string[];
  /** How many columns name the account. */
  readonly names: number;
};

/**
 * Understands a block by its lines alone: codes or names in its first one or two columns, figures after them. Null when
 * fewer than half of its rows name an account.
 */
export function matchRows(
  block: readonly (readonly string[])[],
  accounts: readonly Account[],
): NamedRows | null {
  if (block.length === 0 || Math.max(...block.map((r) => r.length)) < 2) return null;
  const finder = accountFinder(accounts);
  const second = block.filter((r) => (r[1] ?? '').trim() !== '' && !/\d/.test(r[1]!)).length;
  const names = second * 2 > block.length ? 2 : 1;
  const rows: NamedRows['rows'][number][] = [];
  const unknownLines: string[] = [];
  block.forEach((texts, i) => {
    const said = texts.slice(0, names).filter((t) => t.trim() !== '');
    const figures = texts.slice(names);
    if (said.length === 0 || figures.every((t) => t.trim() === '')) return;
    const account = finder(said);
    if (account) rows.push({ account, texts: figures, row: i + 1 });
    else unknownLines.push(said.join(' '));
  });
  // A row of figures has no words in front: it is laid where the hand is, as any block.
  const worded = block.filter((r) => /[A-Za-z]/.test(r[0] ?? '')).length;
  const named = rows.length >= Math.max(1, (rows.length + unknownLines.length) / 2);
  return named && (worded > 0 || rows.length > 1) ? { rows, unknownLines, names } : null;
}

/** The place of the period that a head names; a month without a year is the first such month. */
function periodOf(text: string, periods: readonly Period[]): number | null {
  const t = text.trim();
  const exact = periods.findIndex((p) => p.label === t || p.id === t);
  if (exact >= 0) return exact;
  const head = t === '' ? null : parseMonthHead(t);
  if (!head) return null;
  const at = periods.findIndex((p) => {
    if (head.of === 'period') return p.number === head.period && (head.year === null || head.year === p.year);
    const [year, month] = p.label.match(/\d{4}/)
      ? [Number(p.end.slice(0, 4)), monthOf(p)]
      : [p.year, monthOf(p)];
    return month === head.month && (head.year === null || head.year === year);
  });
  return at < 0 ? null : at;
}

/** The calendar month that most of a period lies in: that of its middle day. */
const monthOf = (p: Period): number => {
  const [a, b] = [Number(p.start.slice(5, 7)), Number(p.end.slice(5, 7))];
  return Number(p.start.slice(8)) <= 15 ? a : b;
};

/** Finds an account by the texts of its row: its code, its name, or both in one cell. */
function accountFinder(accounts: readonly Account[]): (texts: readonly string[]) => AccountId | null {
  const byCode = new Map(accounts.filter((a) => a.code).map((a) => [a.code.toLowerCase(), a.id]));
  const byName = new Map<string, AccountId | null>();
  // A name that two accounts have finds neither.
  for (const a of accounts) byName.set(nameKey(a.name), byName.has(nameKey(a.name)) ? null : a.id);
  return (texts) => {
    for (const text of texts) {
      const { code, name } = splitAccountCell(text);
      const found =
        byCode.get(text.trim().toLowerCase()) ?? (code ? byCode.get(code.toLowerCase()) : undefined);
      const named = found ?? byName.get(nameKey(text)) ?? (name ? byName.get(nameKey(name)) : undefined);
      if (named) return named;
    }
    return null;
  };
}
