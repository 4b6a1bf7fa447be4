import { dateOrderOf } from '@/core/calendar';
import * as z from 'zod/mini';
import type { Day } from '@/core/calendar';
import { joins, readBankTable, readCamtStatements, STOPS, type Joins, type ReadStatement } from '@/core/cash';
import { isXml, readFile, readStatements } from '@/core/files';
import type { NumberDoubt } from '@/core/intake';
import { numberFormatOf, type NumberFormat } from '@/core/money';
import { cutText, LIMITS, type AccountId, type Book, type Refusal } from '@/core/model';
import { instant } from './actions';
import { dispatch } from './bookStore';
import { recordedName } from './person';

/* Taking in what banks say. */

export const BANK_PATH = '/bank/v1';

/** A file of a bank as it was read; nothing of it is in the book. */
export type BankFile = {
  readonly name: string;
  readonly bytes: Uint8Array;
  readonly statements: readonly ReadStatement[];
  /** A table tells neither its account nor, often, which days it covers and what stood there. */
  readonly isTable: boolean;
  readonly doubt: NumberDoubt | null;
};

/** Reads a bank's file: statements in XML or a table of movements. A text says why it cannot be read. */
export async function readBankFile(
  book: Book,
  name: string,
  bytes: Uint8Array,
  said: NumberFormat | null = null,
): Promise<BankFile | string> {
  if (isXml(bytes)) {
    const read = await readStatements(bytes);
    if (!read.ok)
      return read.issue.code === 'notStatements'
        ? `${name} holds no bank statements (camt.053) but ${read.issue.found || 'something else'}. Nothing was changed.`
        : `${name} cannot be read${'line' in read.issue ? `: it breaks off or declares what it may not in line ${read.issue.line}` : ''}. Nothing was changed.`;
    if (read.statements.length === 0) return `${name} holds no statement. Nothing was changed.`;
    return {
      name,
      bytes,
      statements: readCamtStatements(read.statements, book.currency),
      isTable: false,
      doubt: null,
    };
  }
  const file = await readFile(bytes);
  if (!file.ok || file.file.format === 'auditFile')
    return `${name} is neither a bank statement (camt.053) nor a table (CSV or XLSX). Nothing was changed.`;
  const read = readBankTable(file.file, {
    currency: book.currency,
    numbers: numberFormatOf(book.locale),
    ...(said ? { said } : {}),
    dates: dateOrderOf(book.locale),
  });
  if (!read.ok)
    return `${name} has no column for ${read.missing.map((m) => (m === 'date' ? 'the day' : 'the amount')).join(' and ')}. Nothing was changed.`;
  if (read.statement.movements.length === 0 && read.statement.issues.length === 0)
    return `${name} has no movements. Nothing was changed.`;
  return { name, bytes, statements: [read.statement], isTable: true, doubt: read.doubt };
}

/** A file's name without its numbers: the next list of the same account has the same. */
const stemOf = (name: string): string => name.replaceAll(/[\d\W_]+/g, '').toLowerCase();

/**
 * The bank account that a statement is of: known by the bank's own number of it, else by the code in it, as the last file
 * of such a name, or the only one; null where nothing tells.
 */
export function accountOf({ accounts, cash }: Book, number: string, name = ''): AccountId | null {
  const known = cash.banks.numbers[number];
  if (known !== undefined) return known;
  const before = cash.banks.statements.findLast((s) => name !== '' && stemOf(s.from) === stemOf(name));
  if (number === '' && before) return before.account;
  const banks = accounts.filter((a) => a.kind === 'bank' && a.active);
  const coded = banks.filter((a) => a.code !== '' && number.replaceAll(/\s/g, '').endsWith(a.code));
  return (coded.length === 1 ? coded[0]!.id : null) ?? (banks.length === 1 ? banks[0]!.id : null);
}

/** A statement of a file as it would go in, and how it joins those that are there and those of the file before it. */
export type Offered = {
  readonly statement: ReadStatement;
  readonly account: AccountId | null;
  readonly joins: Joins;
  /** What stands in the way, by `STOPS`; nothing goes in where anything does. */
  readonly isSound: boolean;
};

export function offeredOf(
  book: Book,
  statements: readonly ReadStatement[],
  accountAt: (place: number) => AccountId | null,
): readonly Offered[] {
  const there = [...book.cash.banks.statements];
  return statements.map((statement, n) => {
    const account = accountAt(n);
    const joined = joins(
      statement,
      there.filter((s) => s.account === account),
    );
    if (account !== null)
      there.push({
        ...statement,
        movements: [...joined.movements],
        account,
        id: '',
        from: '',
        by: '',
        at: '',
      });
    return {
      statement,
      account,
      joins: joined,
      isSound: !statement.issues.some((i) => STOPS.has(i.code)) && statement.first <= statement.last,
    };
  });
}

/** Takes statements in, in their order; the first refusal, which leaves those before it. */
export function takeStatements(name: string, offered: readonly Offered[]): Refusal | null {
  for (const { statement, account, joins: joined } of offered) {
    if (account === null) continue;
    const { number, first, last, opening, closing } = statement;
    const refusal = dispatch({
      type: 'takeBankStatement',
      number: statement.account || null,
      statement: {
        account,
        from: cutText(name, LIMITS.fileName),
        number,
        first,
        last,
        opening,
        closing,
        movements: [...joined.movements],
        by: recordedName(),
        at: instant(),
      },
    });
    if (refusal) return refusal;
  }
  return null;
}

const accountsSchema = z.object({ accounts: z.array(z.object({ number: z.string(), name: z.string() })) });

/** Asks the simulated bank for the statements of its accounts after one day up to another. A text says what went wrong. */
export async function askBank(
  book: Book,
  after: (account: AccountId | null) => Day,
  to: Day,
): Promise<BankFile | string> {
  try {
    const get = async (path: string) => {
      const answer = await fetch(`${BANK_PATH}/${path}`, {
        signal: AbortSignal.timeout(30_000),
        cache: 'no-store',
      });
      if (!answer.ok) throw new Error(`it answered ${answer.status}`);
      return answer;
    };
    const { accounts } = accountsSchema.parse(await (await get('accounts')).json());
    const statements: ReadStatement[] = [];
    for (const { number } of accounts) {
      const from = after(accountOf(book, number));
      if (from >= to) continue;
      const answer = await get(`statement?account=${number}&after=${from}&to=${to}`);
      const read = await readStatements(new Uint8Array(await answer.arrayBuffer()));
      if (!read.ok) throw new Error('what it answered is no statement');
      statements.push(...readCamtStatements(read.statements, book.currency));
    }
    if (statements.length === 0) return `The bank has nothing new up to ${to}.`;
    return {
      name: `simulated bank until ${to}`,
      bytes: new Uint8Array(),
      statements,
      isTable: false,
      doubt: null,
    };
  } catch (error) {
    return `The bank could not be reached: ${error instanceof Error ? error.message : String(error)}. Nothing was changed.`;
  }
}
