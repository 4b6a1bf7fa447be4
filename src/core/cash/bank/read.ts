import { parseIsoDay, type Day } from '@/core/calendar';
import type { FileBalance, FileDetail, FileEntry, FileStatement } from '@/core/files';
import { minor, minorDigits, parseAmount, type Minor } from '@/core/money';
import { cutText, LIMITS, type BankMovement, type BankStatement } from '@/core/model';

/** What is told of a statement as it is read. Amounts in minor units. */
export type StatementIssue =
  /** Entries that the bank has not booked: they are no movements yet. */
  | { readonly code: 'pending'; readonly count: number }
  /** Entries that take earlier ones back; payments that were booked together and stand apart here. */
  | { readonly code: 'reversals'; readonly count: number }
  | { readonly code: 'batches'; readonly count: number }
  /** Payments booked together that do not come to what was booked: they stay one movement. */
  | { readonly code: 'batchOff'; readonly place: string; readonly by: number }
  /** What cannot be read, with the entry's or row's place. */
  | { readonly code: 'noAmount' | 'noDay' | 'otherCurrency'; readonly place: string; readonly value: string }
  /** Opening balance and movements do not come to the closing balance. */
  | { readonly code: 'offBy'; readonly place: string; readonly by: number };

/** Those after which nothing is taken in: a movement would be missing, and every balance after it wrong. */
export const STOPS: ReadonlySet<StatementIssue['code']> = new Set([
  'noAmount',
  'noDay',
  'otherCurrency',
  'offBy',
]);

/** A statement as a file has it, in the book's money; whose account it is of is found or said afterwards. */
export type ReadStatement = Pick<
  BankStatement,
  'number' | 'first' | 'last' | 'opening' | 'closing' | 'movements'
> & {
  /** The bank's own number of the account; empty where the file does not say it. */
  readonly account: string;
  readonly issues: readonly StatementIssue[];
};

const POINT = { decimal: '.', group: '' } as const;

/** Statements of an ISO 20022 file in a book's currency. Only what is booked moves money; each by the day of its booking. */
export function readCamtStatements(statements: readonly FileStatement[], currency: string): ReadStatement[] {
  const digits = minorDigits(currency);
  const amountOf = (text: string): Minor | null => {
    const parsed = parseAmount(text, digits, POINT);
    return parsed.ok && !parsed.percent ? parsed.value : null;
  };
  return statements.map((s) => {
    const issues: StatementIssue[] = [];
    const movements: BankMovement[] = [];
    let [pending, reversals, batches] = [0, 0, 0];
    const balance = (
      ...codes: readonly string[]
    ): { readonly amount: Minor; readonly day: Day | null } | null => {
      for (const code of codes) {
        const found = s.balances.find((b) => b.code === code);
        const amount = found ? amountOf(found.amount) : null;
        if (found && amount !== null) return { amount: signed(found, amount), day: parseIsoDay(found.day) };
      }
      return null;
    };
    if (s.currency !== '' && s.currency !== currency)
      issues.push({ code: 'otherCurrency', place: s.account, value: s.currency });
    s.entries.forEach((entry, n) => {
      const place = entry.number || String(n + 1);
      if (entry.status !== 'BOOK' && entry.status !== '') return void pending++;
      const amount = amountOf(entry.amount);
      const day = parseIsoDay(entry.booked) ?? parseIsoDay(entry.value);
      if (amount === null) return void issues.push({ code: 'noAmount', place, value: entry.amount });
      if (day === null) return void issues.push({ code: 'noDay', place, value: entry.booked });
      if (entry.currency !== '' && entry.currency !== currency)
        return void issues.push({ code: 'otherCurrency', place, value: entry.currency });
      if (entry.reverses) reversals++;
      const parts = partsOf(entry, amount, amountOf);
      if (parts.length > 1) batches++;
      else if (entry.details.length > 1) {
        const sum = entry.details.reduce((t, d) => t + (amountOf(d.amount) ?? 0), 0);
        issues.push({ code: 'batchOff', place, by: minor(amount - sum) });
      }
      for (const part of parts) movements.push(movementOf(entry, day, part));
    });
    // The closing balance of the statement before is this one's opening balance.
    const [opening, closing] = [balance('OPBD', 'PRCD'), balance('CLBD')];
    const days = movements.map((m) => m.day).sort();
    const from = parseIsoDay(s.first) ?? days[0] ?? closing?.day ?? opening?.day ?? null;
    const to = closing?.day ?? parseIsoDay(s.last) ?? days.at(-1) ?? from;
    if (from === null || to === null) issues.push({ code: 'noDay', place: s.number, value: s.first });
    const moved = movements.reduce((t, m) => t + m.amount, 0);
    if (opening && closing && opening.amount + moved !== closing.amount)
      issues.push({ code: 'offBy', place: s.number, by: closing.amount - opening.amount - moved });
    if (pending > 0) issues.push({ code: 'pending', count: pending });
    if (reversals > 0) issues.push({ code: 'reversals', count: reversals });
    if (batches > 0) issues.push({ code: 'batches', count: batches });
    return {
      account: cutText(s.account, 60),
      number: cutText(s.number, LIMITS.reference),
      first: min(from ?? ('2000-01-01' as Day), days[0]),
      last: max(to ?? ('2000-01-01' as Day), days.at(-1)),
      opening: opening?.amount ?? null,
      closing: closing?.amount ?? null,
      movements,
      issues,
    };
  });
}

const min = (a: Day, b: Day | undefined): Day => (b !== undefined && b < a ? b : a);
const max = (a: Day, b: Day | undefined): Day => (b !== undefined && b > a ? b : a);
const signed = ({ into }: Pick<FileBalance, 'into'>, amount: Minor): Minor =>
  into ? amount : minor(-amount);

type Part = { readonly amount: Minor; readonly detail: FileDetail | null };

/** The payments of an entry where they come to it; else the entry as one. */
function partsOf(entry: FileEntry, amount: Minor, amountOf: (text: string) => Minor | null): readonly Part[] {
  const { details } = entry;
  if (details.length < 2) return [{ amount, detail: details[0] ?? null }];
  const parts = details.flatMap((detail): Part[] => {
    const own = amountOf(detail.amount);
    return own === null ? [] : [{ amount: own, detail }];
  });
  const sum = parts.reduce((t, p) => t + p.amount, 0);
  return parts.length === details.length && sum === amount ? parts : [{ amount, detail: null }];
}

function movementOf(entry: FileEntry, day: Day, { amount, detail }: Part): BankMovement {
  return {
    day,
    amount: signed(entry, amount),
    counterparty: cutText(detail?.counterparty ?? '', LIMITS.counterparty),
    reference: cutText(detail?.reference ?? '', LIMITS.reference),
    memo: cutText([detail?.memo, entry.memo].filter(Boolean).join(' · '), LIMITS.memo),
    number: cutText(entry.number, LIMITS.reference),
    reverses: entry.reverses,
  };
}
