import { fromDayNumber, type Day } from '@/core/calendar';
import { cellText, rowsOf, type FileFacts, type GridRow } from '@/core/files';
import { guessDateOrder, numbersIn, parseDate, type NumberDoubt } from '@/core/intake';
import { amountOfNumber, minorDigits, parseAmount, type Minor, type NumberFormat } from '@/core/money';
import { cutText, LIMITS, type Account, type OpenItem } from '@/core/model';

/** Why a row of a file of open items is no item. Rows count from 1, as a spreadsheet shows them. */
export type OpenFileIssue = {
  readonly code:
    | 'noDate'
    | 'dueBeforeDated'
    | 'noAmount'
    | 'otherCurrency'
    | 'twice'
    | 'unknownAccount'
    | 'openBeyondAmount';
  readonly row: number;
  readonly value: string;
};

export type OpenFileRead =
  | { readonly ok: false; readonly missing: readonly ('date' | 'amount')[] }
  | {
      readonly ok: true;
      readonly items: readonly Omit<OpenItem, 'id'>[];
      readonly issues: readonly OpenFileIssue[];
      /** Numbers that can be read two ways, and have to be asked about. */
      readonly doubt: NumberDoubt | null;
    };

type Role = 'number' | 'counterparty' | 'dated' | 'due' | 'amount' | 'open' | 'account' | 'currency' | 'kind';

/** Words that head a column, the surer first. */
const HEADS: Record<Role, RegExp> = {
  due: /\bdue\b|fällig|échéance|vencim/i,
  open: /\b(open|outstanding|balance|remaining|unpaid)\b|offen|solde/i,
  amount: /\b(amount|total|gross)\b|betrag|montant|importe/i,
  dated: /\bdate\b|\bdated\b|\binvoiced\b|datum|fecha/i,
  counterparty: /\b(customer|client|supplier|vendor|counterparty|contact|company|name)\b|kunde|lieferant/i,
  account: /\baccount\b|konto|compte/i,
  currency: /\bcurrency\b|währung|devise/i,
  kind: /\b(kind|type|document type)\b/i,
  number: /\b(number|no\.?|ref(erence)?|invoice|bill|order|document)\b|nummer|#/i,
};
const ORDER = /\border\b|auftrag|bestellung|commande/i;
const CREDIT_NOTE = /\bcredit\b|gutschrift|avoir/i;
const TOTAL = /^(sub)?totals?\b|^sum\b/i;

/**
 * Reads open invoices, bills or orders of one side out of a table: number, counterparty, dated, due, amount, open amount,
 * account, found by their heads. Every row becomes an item or is named with what is wrong; nothing is taken by half.
 */
export function readOpenItems(
  file: FileFacts,
  side: OpenItem['side'],
  from: string,
  book: {
    readonly currency: string;
    readonly accounts: readonly Account[];
    readonly numbers: NumberFormat;
    /** How it was said that the file writes numbers. */
    readonly said?: NumberFormat;
    readonly dates: 'dmy' | 'mdy';
  },
): OpenFileRead {
  const rows = rowsOf(file.grids[0]!);
  const head = rows.slice(0, 30).findIndex((r) => {
    const cols = columnsOf(r);
    return cols.dated >= 0 && (cols.amount >= 0 || cols.open >= 0);
  });
  const col = columnsOf(rows[head] ?? rows[0] ?? []);
  if (head < 0) {
    const all = columnsOf(rows.find((r) => r.length > 1) ?? []);
    const missing = [all.dated < 0 ? 'date' : null, all.amount < 0 && all.open < 0 ? 'amount' : null];
    return { ok: false, missing: missing.filter((m): m is 'date' | 'amount' => m !== null) };
  }
  const body = rows.slice(head + 1);
  const cells = (c: number) => (c < 0 ? [] : body.map((r) => r[c] ?? '').filter((v) => v !== ''));
  const order = guessDateOrder([...cells(col.dated), ...cells(col.due)], book.dates)?.order ?? book.dates;
  const digits = minorDigits(book.currency);
  const { format, doubt } = book.said
    ? { format: book.said, doubt: null }
    : numbersIn([...cells(col.amount), ...cells(col.open)], book.numbers, digits);
  const byCode = new Map(
    book.accounts.flatMap((a) => [
      ...(a.code ? [[a.code, a] as const] : []),
      [a.name.toLowerCase(), a] as const,
    ]),
  );
  const met = new Set<string>();
  const items: Omit<OpenItem, 'id'>[] = [];
  const issues: OpenFileIssue[] = [];
  const amountAt = (r: GridRow, c: number): Minor | null | 'bad' => {
    if (c < 0) return null;
    const cell = r[c];
    const parsed =
      typeof cell === 'number' ? amountOfNumber(cell, digits) : parseAmount(cellText(cell), digits, format);
    return !parsed.ok || parsed.percent ? 'bad' : parsed.value;
  };
  body.forEach((r, i) => {
    const row = head + i + 2;
    const text = (c: number) => (c < 0 ? '' : cellText(r[c]));
    if (r.every((c) => cellText(c) === '')) return;
    const counterparty = cutText(text(col.counterparty), LIMITS.counterparty);
    const number = cutText(text(col.number), LIMITS.reference);
    const dateText = text(col.dated);
    if (dateText === '' && r.some((c) => TOTAL.test(cellText(c)))) return;
    const issue = (code: OpenFileIssue['code'], value: string) => void issues.push({ code, row, value });
    const dated = dateText === '' ? null : parseDate(r[col.dated]!, order);
    if (dated === null) return issue('noDate', dateText);
    const due = text(col.due) === '' ? dated : parseDate(r[col.due]!, order);
    if (due === null) return issue('noDate', text(col.due));
    if (due < dated) return issue('dueBeforeDated', `${dateText} – ${text(col.due)}`);
    const currency = text(col.currency).toUpperCase();
    if (currency !== '' && currency !== book.currency) return issue('otherCurrency', currency);
    const kindText = `${text(col.kind)} ${number}`;
    const said = amountAt(r, col.amount);
    const saidOpen = amountAt(r, col.open);
    if (said === 'bad' || saidOpen === 'bad')
      return issue('noAmount', text(said === 'bad' ? col.amount : col.open));
    const size = said ?? saidOpen;
    const rest = saidOpen ?? said;
    if (size === null || rest === null) return issue('noAmount', '');
    if (rest === 0) return;
    if (Math.abs(rest) > Math.abs(size) || Math.sign(rest) !== Math.sign(size))
      return issue('openBeyondAmount', text(col.open));
    const name = text(col.account);
    const account = name === '' ? null : (byCode.get(name) ?? byCode.get(name.toLowerCase()) ?? null);
    if (name !== '' && account === null) return issue('unknownAccount', name);
    const key = `${counterparty}\n${number}\n${number === '' ? row : ''}`;
    if (met.has(key)) return issue('twice', `${counterparty} ${number}`.trim());
    met.add(key);
    const turn = CREDIT_NOTE.test(text(col.kind)) && size > 0 ? -1 : 1;
    const day = (n: number): Day => fromDayNumber(n);
    items.push({
      side,
      kind: ORDER.test(kindText) && !/invoice/i.test(kindText) ? 'order' : 'invoice',
      number,
      counterparty,
      dated: day(dated),
      due: day(due),
      amount: (turn * size) as Minor,
      open: (turn * rest) as Minor,
      account: account?.id ?? null,
      from: cutText(from, LIMITS.fileName),
    });
  });
  return { ok: true, items, issues, doubt };
}

/** Which column has which role; each column has one, each role the first that fits. */
function columnsOf(head: GridRow): Record<Role, number> {
  const out = Object.fromEntries(Object.keys(HEADS).map((r) => [r, -1])) as Record<Role, number>;
  const taken = new Set<number>();
  for (const role of Object.keys(HEADS) as Role[])
    head.forEach((cell, c) => {
      if (out[role] >= 0 || taken.has(c) || typeof cell !== 'string' || !HEADS[role].test(cell)) return;
      // “Invoice date” is a date, and “open amount” is open, before they are anything else.
      if (role === 'amount' && HEADS.open.test(cell)) return;
      out[role] = c;
      taken.add(c);
    });
  return out;
}
