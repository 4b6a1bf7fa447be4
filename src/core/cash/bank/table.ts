import { fromDayNumber, type Day } from '@/core/calendar';
import { cellText, rowsOf, type FileFacts } from '@/core/files';
import { guessDateOrder, numbersIn, parseDate, type NumberDoubt } from '@/core/intake';
import { amountOfNumber, minor, minorDigits, parseAmount, type Minor, type NumberFormat } from '@/core/money';
import { cutText, LIMITS, type BankMovement } from '@/core/model';
import { rolesIn } from '../heads';
import type { ReadStatement, StatementIssue } from './read';

type Role =
  | 'booked'
  | 'value'
  | 'balance'
  | 'mark'
  | 'in'
  | 'out'
  | 'amount'
  | 'currency'
  | 'number'
  | 'reference'
  | 'counterparty'
  | 'memo';

/** Words that head a column of a bank's list, the surer first. */
const HEADS: Record<Role, RegExp> = {
  value: /\bvalue date\b|valuta|wertstellung|date de valeur|fecha valor/i,
  booked:
    /\b(booking|booked|posting|posted|transaction|entry|payment|process(ed|ing))? ?date\b|^date\b|\bbooked\b|datum|buchungstag|\bfecha\b|date d.opération|\bdata\b/i,
  balance: /\bbalance\b|saldo\b|\bsolde\b/i,
  mark: /^(dr\/cr|cr\/dr|d\/c|c\/d|debit\/credit|soll\/haben|s\/h|direction|sign)$/i,
  out: /\b(debits?|withdrawals?|(paid|money) out)\b|^(out|payments?)$|\bsoll\b|\bdébit|\bcargo|lastschrift|ausgang/i,
  in: /\b(credits?|deposits?|(paid|money) in)\b|^(in|receipts?)$|\bhaben\b|\bcrédit|\babono|gutschrift|eingang/i,
  amount: /\b(amount|sum|value)\b|betrag|umsatz|montant|importe|importo/i,
  currency: /\bcurrency\b|\bccy\b|währung|devise|moneda/i,
  number: /\b(transaction|entry|bank) (id|no\.?|number|ref(erence)?)\b|\bid\b/i,
  reference: /\bref(erence)?\b|\binvoice\b|\bcheque\b|\bcheck\b|referenz|verwendungszweck nr/i,
  counterparty:
    /\b(counterparty|payee|payer|name|beneficiary|remitter|customer|supplier|from\/to)\b|auftraggeber|empfänger|begünstigter|bénéficiaire/i,
  memo: /\b(memo|details?|description|narrative|particulars|purpose|text|note|remittance)\b|verwendungszweck|buchungstext|libellé|concepto|descrizione/i,
};

export type BankTableRead =
  | { readonly ok: false; readonly missing: readonly ('date' | 'amount')[] }
  | {
      readonly ok: true;
      readonly statement: ReadStatement;
      readonly doubt: NumberDoubt | null;
    };

const OUT_MARK = /^(d|dr|debit|s|soll|out|-)$/i;
const TOTAL = /^(sub)?totals?\b|^sum\b|\b(opening|closing) balance\b|brought forward|carried forward/i;

/**
 * Reads a bank's list of movements out of a table: day of booking, amount with its sign, a mark beside it or two columns (a
 * bank's debit is money out of the account, its credit money into it: common practice), balance, counterparty, reference
 * and memo, found by their heads. Balances after each row are held against the amounts, newest first or last.
 */
export function readBankTable(
  file: FileFacts,
  book: {
    readonly currency: string;
    readonly numbers: NumberFormat;
    readonly said?: NumberFormat;
    readonly dates: 'dmy' | 'mdy';
  },
): BankTableRead {
  const rows = rowsOf(file.grids[0]!);
  const head = rows.slice(0, 30).findIndex((r) => {
    const c = rolesIn(r, HEADS);
    return (c.booked >= 0 || c.value >= 0) && (c.amount >= 0 || c.in >= 0 || c.out >= 0);
  });
  const col = rolesIn(rows[head] ?? rows.find((r) => r.length > 1) ?? [], HEADS);
  const dayColumn = col.booked >= 0 ? col.booked : col.value;
  if (head < 0) {
    const noAmount = col.amount < 0 && col.in < 0 && col.out < 0;
    return {
      ok: false,
      missing: [...(dayColumn < 0 ? (['date'] as const) : []), ...(noAmount ? (['amount'] as const) : [])],
    };
  }
  const body = rows.slice(head + 1);
  const cells = (c: number) => (c < 0 ? [] : body.map((r) => r[c] ?? '').filter((v) => v !== ''));
  const order = guessDateOrder(cells(dayColumn), book.dates)?.order ?? book.dates;
  const digits = minorDigits(book.currency);
  const figures = [col.amount, col.in, col.out, col.balance].flatMap(cells);
  const { format, doubt } = book.said
    ? { format: book.said, doubt: null }
    : numbersIn(figures, book.numbers, digits);
  const issues: StatementIssue[] = [];
  const read: { readonly movement: BankMovement; readonly balance: Minor | null; readonly row: number }[] =
    [];
  body.forEach((r, i) => {
    const row = head + i + 2;
    const text = (c: number) => (c < 0 ? '' : cellText(r[c]));
    if (r.every((c) => cellText(c) === '')) return;
    const day = text(dayColumn) === '' ? null : parseDate(r[dayColumn]!, order);
    if (day === null) {
      if (r.some((c) => TOTAL.test(cellText(c)))) return;
      return void issues.push({ code: 'noDay', place: String(row), value: text(dayColumn) });
    }
    const at = (c: number): Minor | null | 'bad' => {
      if (c < 0) return null;
      const cell = r[c];
      const parsed =
        typeof cell === 'number' ? amountOfNumber(cell, digits) : parseAmount(cellText(cell), digits, format);
      return !parsed.ok || parsed.percent ? 'bad' : parsed.value;
    };
    const [one, into, out, balance] = [at(col.amount), at(col.in), at(col.out), at(col.balance)];
    const bad = [one, into, out, balance].includes('bad');
    if (bad || (one === null && into === null && out === null)) {
      if (!bad && r.some((c) => TOTAL.test(cellText(c)))) return;
      const value = [col.amount, col.in, col.out].map(text).join(' ').trim();
      return void issues.push({ code: 'noAmount', place: String(row), value });
    }
    const currency = text(col.currency).toUpperCase();
    if (currency !== '' && currency !== book.currency)
      return void issues.push({ code: 'otherCurrency', place: String(row), value: currency });
    const size = one as Minor | null;
    const marked = size !== null && OUT_MARK.test(text(col.mark)) ? -Math.abs(size) : size;
    const amount = marked ?? Math.abs((into as Minor | null) ?? 0) - Math.abs((out as Minor | null) ?? 0);
    if (amount === 0) return;
    read.push({
      row,
      balance: balance as Minor | null,
      movement: {
        day: fromDayNumber(day),
        amount: minor(amount),
        counterparty: cutText(text(col.counterparty), LIMITS.counterparty),
        reference: cutText(text(col.reference), LIMITS.reference),
        memo: cutText(text(col.memo), LIMITS.memo),
        number: cutText(text(col.number), LIMITS.reference),
        reverses: false,
      },
    });
  });
  // Lists run from the newest or to it; rows of one day keep their order.
  const isNewestFirst = read.length > 1 && read[0]!.movement.day > read.at(-1)!.movement.day;
  const inTime = isNewestFirst ? [...read].reverse() : read;
  const opened =
    inTime[0] && inTime[0].balance !== null ? inTime[0].balance - inTime[0].movement.amount : null;
  let stands = opened;
  for (const { movement, balance, row } of inTime) {
    if (stands === null) break;
    stands += movement.amount;
    if (balance === null || balance === stands) continue;
    issues.push({ code: 'offBy', place: String(row), by: balance - stands });
    break;
  }
  const days = read.map((r) => r.movement.day).sort();
  const none = '2000-01-01' as Day;
  return {
    ok: true,
    doubt,
    statement: {
      account: '',
      number: '',
      first: days[0] ?? none,
      last: days.at(-1) ?? none,
      opening: opened === null ? null : minor(opened),
      closing: stands === null ? null : minor(stands),
      movements: inTime.map((r) => r.movement).sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0)),
      issues,
    },
  };
}
