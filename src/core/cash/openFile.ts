import { fromDayNumber, type Day, type DayNumber } from '@/core/calendar';
import { cellText, rowsOf, type FileFacts, type GridRow } from '@/core/files';
import { guessDateOrder, numbersIn, parseDate, type DateOrder, type NumberDoubt } from '@/core/intake';
import { amountOfNumber, minorDigits, parseAmount, type Minor, type NumberFormat } from '@/core/money';
import { cutText, LIMITS, type Account, type ItemChange, type OpenItem } from '@/core/model';
import { rolesIn } from './heads';

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

/** An item as a file has it, with what the file says was decided of it. */
export type ReadItem = Omit<OpenItem, 'id'> & { readonly said: SaidOfItem | null };
export type SaidOfItem = Pick<ItemChange, 'day' | 'state' | 'reason'>;

export type OpenFileRead =
  | { readonly ok: false; readonly missing: readonly ('date' | 'amount')[] }
  | {
      readonly ok: true;
      readonly items: readonly ReadItem[];
      /** What tells the sides apart: a column of the file, the sign as it was said, or nothing: all are of the side asked for. */
      readonly apart: 'account' | 'side' | 'sign' | null;
      /** Amounts of both signs, where nothing else tells the sides apart: credit notes, or the other side. */
      readonly bothSigns: boolean;
      /** The day that the list is of, as its title or its file's name says; null where they do not. */
      readonly day: Day | null;
      readonly issues: readonly OpenFileIssue[];
      /** Numbers that can be read two ways, and have to be asked about. */
      readonly doubt: NumberDoubt | null;
    };

type Role =
  | 'number'
  | 'counterparty'
  | 'dated'
  | 'due'
  | 'amount'
  | 'open'
  | 'account'
  | 'currency'
  | 'kind'
  | 'side'
  | 'expected'
  | 'state'
  | 'note';

/** Words that head a column, the surer first. */
const HEADS: Record<Role, RegExp> = {
  expected: /\bexpected\b|\bpromised\b|erwartet|zugesagt|\bprévu/i,
  state: /\b(state|status|left out|excluded?|on hold)\b|ausgenommen/i,
  note: /\b(notes?|comments?|remarks?|reason|memo)\b|bemerkung|notiz|commentaire|comentario/i,
  side: /\b(side|direction|ledger|ar\/ap)\b/i,
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
/** Words by which a row says whose money it is. */
const OWED_TO_US =
  /\b(receivables?|ar|customers?|clients?|debtors?|sales|owed to us|in)\b|debitor|kunde|forderung|client/i;
const OWED_BY_US =
  /\b(payables?|ap|suppliers?|vendors?|creditors?|purchases?|bills?|owed by us|out)\b|kreditor|lieferant|verbindlichkeit|fournisseur/i;
const HELD = /\b(on )?hold\b|\bheld\b|gesperrt/i;
const LEFT_OUT = /left out|exclud|disput|ignore|not counted|strittig/i;
/** A mark in a column that asks yes or no. */
const YES = /^(x|y|yes|true|1|ja|oui|sí)$/i;

/**
 * Reads open invoices, bills or orders out of a table, of the side asked for unless its rows say whose they are (by the kind
 * of their account, or in a column), or their signs are said to: number, counterparty, dated, due, amount, open amount,
 * account, and what was decided of them, found by their heads. Every row becomes an item or is named with what is wrong; nothing is taken by half.
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
    /** Negative amounts are of the other side: no credit notes. */
    readonly bySign?: boolean;
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
  const items: ReadItem[] = [];
  const told = { account: false, side: false };
  const signs = new Set<number>();
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
    const sum = amountAt(r, col.amount);
    const saidOpen = amountAt(r, col.open);
    if (sum === 'bad' || saidOpen === 'bad')
      return issue('noAmount', text(sum === 'bad' ? col.amount : col.open));
    const size = sum ?? saidOpen;
    const rest = saidOpen ?? sum;
    if (size === null || rest === null) return issue('noAmount', '');
    if (rest === 0) return;
    if (Math.abs(rest) > Math.abs(size) || Math.sign(rest) !== Math.sign(size))
      return issue('openBeyondAmount', text(col.open));
    const name = text(col.account);
    const account = name === '' ? null : (byCode.get(name) ?? byCode.get(name.toLowerCase()) ?? null);
    if (name !== '' && account === null) return issue('unknownAccount', name);
    const words = `${text(col.side)} ${text(col.kind)}`;
    const bySide = OWED_BY_US.test(words) ? 'out' : OWED_TO_US.test(words) ? 'in' : null;
    const byAccount = account?.kind === 'receivable' ? 'in' : account?.kind === 'payable' ? 'out' : null;
    const other = side === 'in' ? 'out' : 'in';
    const bySign = book.bySign === true && size < 0 ? other : null;
    told.account ||= byAccount !== null;
    told.side ||= bySide !== null;
    signs.add(Math.sign(size));
    const whose = byAccount ?? bySide ?? bySign ?? side;
    const key = `${whose}\n${counterparty}\n${number}\n${number === '' ? row : ''}`;
    if (met.has(key)) return issue('twice', `${counterparty} ${number}`.trim());
    met.add(key);
    const turn = (CREDIT_NOTE.test(text(col.kind)) && size > 0) || whose === bySign ? -1 : 1;
    const said = saidOf(
      { state: text(col.state), head: cellText(rows[head]![col.state]), note: text(col.note) },
      col.expected < 0 ? null : parseDate(r[col.expected] ?? '', order),
    );
    const day = (n: number): Day => fromDayNumber(n);
    items.push({
      side: whose,
      kind: ORDER.test(kindText) && !/invoice/i.test(kindText) ? 'order' : 'invoice',
      number,
      counterparty,
      dated: day(dated),
      due: day(due),
      amount: (turn * size) as Minor,
      open: (turn * rest) as Minor,
      account: account?.id ?? null,
      from: cutText(from, LIMITS.fileName),
      said,
    });
  });
  return {
    ok: true,
    items,
    issues,
    doubt,
    apart: told.account ? 'account' : told.side ? 'side' : book.bySign ? 'sign' : null,
    bothSigns: signs.has(1) && signs.has(-1) && !told.account && !told.side,
    day: dayOf(rows.slice(0, head), from, [order, book.dates]),
  };
}

/** What a row says was decided of its item; null where it says nothing. */
function saidOf(
  { state, head, note }: { readonly state: string; readonly head: string; readonly note: string },
  expected: DayNumber | null,
): SaidOfItem | null {
  // A column that is headed by a state asks whether it is in it.
  const word = YES.test(state) ? head : state;
  const is =
    HELD.test(word) && state !== '' ? 'held' : LEFT_OUT.test(word) && state !== '' ? 'leftOut' : null;
  if (is === null && expected === null && note === '') return null;
  return {
    day: expected === null ? null : fromDayNumber(expected),
    state: is ?? 'counted',
    reason: cutText(note, LIMITS.reason),
  };
}

const DATE_IN_TEXT =
  /\d{4}-\d{1,2}-\d{1,2}|\d{1,2}[./-]\d{1,2}[./-]\d{2,4}|\d{1,2}\.? [A-Za-z]{3,9},? \d{4}|[A-Za-z]{3,9} \d{1,2}, \d{4}/g;

/** The day that a list is of: the last one above its heads, else the one in its file's name. */
function dayOf(above: readonly GridRow[], name: string, orders: readonly [DateOrder, DateOrder]): Day | null {
  const found = above
    .flat()
    .flatMap((cell) =>
      typeof cell === 'string'
        ? (cell.match(DATE_IN_TEXT) ?? []).map((d) => parseDate(d, orders[0]) ?? parseDate(d, orders[1]))
        : [],
    )
    .filter((d) => d !== null);
  const named = /(\d{4})[-_.]?(\d{2})[-_.]?(\d{2})(?!\d)/.exec(name);
  if (found.length === 0 && named) {
    const day = parseDate(`${named[1]}-${named[2]}-${named[3]}`, 'ymd');
    if (day !== null) found.push(day);
  }
  return found.length === 0 ? null : fromDayNumber(Math.max(...found));
}

/** “Invoice date” is a date, and “open amount” is open, before they are anything else. */
const columnsOf = (head: GridRow): Record<Role, number> =>
  rolesIn(head, HEADS, (role, cell) => role === 'amount' && HEADS.open.test(cell));
