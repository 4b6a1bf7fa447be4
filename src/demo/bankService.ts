import { fromDayNumber, toDayNumber, weekdayOf, type Day } from '@/core/calendar';
import { minor, plainDecimal } from '@/core/money';
import { DEMO_ACCOUNTS } from './accounts';
import { openings } from './files';
import { demoLedger, type DemoRow } from './ledger';

/** Months that the simulation knows: three years and four months from July 2024. */
const MONTHS = 40;
const BANK_CODES = ['1010', '1020'] as const;
const CURRENCY = 'USD';

export type SimulatedAccount = { readonly number: string; readonly name: string };

/** An entry of the ledger as the bank books it, often some days later. */
type Booked = { readonly row: DemoRow; readonly day: number; readonly amount: number };

/**
 * The demo company's bank, simulated: what the ledger of the months to come will say, as a bank books it. Takings are
 * booked on the next working day, some payments are checks that are cleared a week later, so that a bank's balance is not
 * the book's. Its statements are ISO 20022 camt.053. Its answers are documented in docs/feed.md.
 */
export class BankService {
  private ledger: readonly DemoRow[] | null = null;
  private readonly booked = new Map<string, readonly Booked[]>();

  accounts(): readonly SimulatedAccount[] {
    return BANK_CODES.map((code) => ({ number: numberOf(code), name: DEMO_ACCOUNTS[code]! }));
  }

  /** The statement of an account for the days after one, up to another; null where there is no such account. */
  statement(number: string, after: Day, to: Day): string | null {
    const code = BANK_CODES.find((c) => numberOf(c) === number);
    if (code === undefined) return null;
    const [from, until] = [toDayNumber(after), toDayNumber(to)];
    const all = this.entriesOf(code);
    const sum = (last: number) => all.reduce((t, b) => (b.day <= last ? t + b.amount : t), 0);
    return camtOf(
      number,
      after,
      to,
      sum(from),
      sum(until),
      all.filter((b) => b.day > from && b.day <= until),
    );
  }

  private entriesOf(code: string): readonly Booked[] {
    let own = this.booked.get(code);
    if (!own) {
      this.ledger ??= [...openings(), ...demoLedger(MONTHS)];
      own = this.ledger
        .filter((r) => r.code === code)
        .map((row) => ({ row, day: bookedOn(row), amount: row.debit - row.credit }))
        .sort((a, b) => a.day - b.day);
      this.booked.set(code, own);
    }
    return own;
  }
}

const numberOf = (code: string): string => `70041${code}`;

/** The day on which the bank books an entry: never on a weekend. */
function bookedOn({ day, memo, journal }: DemoRow): number {
  const number = Number(/\d+/.exec(journal)?.[0] ?? 0);
  const isCheck = memo === 'Payment of bills' && number % 4 === 0;
  let at = toDayNumber(day) + (isCheck ? 5 + (number % 3) : memo.includes('takings') ? 1 : 0);
  while (weekdayOf(at) > 5) at++;
  return at;
}

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');

function camtOf(
  number: string,
  after: Day,
  to: Day,
  opening: number,
  closing: number,
  entries: readonly Booked[],
): string {
  const money = (cents: number) =>
    `<Amt Ccy="${CURRENCY}">${plainDecimal(minor(Math.abs(cents)), CURRENCY)}</Amt>`;
  const side = (cents: number) => `<CdtDbtInd>${cents < 0 ? 'DBIT' : 'CRDT'}</CdtDbtInd>`;
  const first = fromDayNumber(toDayNumber(after) + 1);
  const balance = (code: string, cents: number, day: Day) =>
    `<Bal><Tp><CdOrPrtry><Cd>${code}</Cd></CdOrPrtry></Tp>${money(cents)}${side(cents)}<Dt><Dt>${day}</Dt></Dt></Bal>`;
  const body = entries.map(({ row, day, amount }) => {
    const party = `<${amount < 0 ? 'Cdtr' : 'Dbtr'}><Pty><Nm>${escaped(row.party)}</Nm></Pty></${amount < 0 ? 'Cdtr' : 'Dbtr'}>`;
    return (
      `<Ntry>${money(amount)}${side(amount)}<Sts><Cd>BOOK</Cd></Sts>` +
      `<BookgDt><Dt>${fromDayNumber(day)}</Dt></BookgDt><AcctSvcrRef>${escaped(`${row.journal}/${row.code}`)}</AcctSvcrRef>` +
      `<NtryDtls><TxDtls><RltdPties>${party}</RltdPties><RmtInf><Ustrd>${escaped(row.memo)}</Ustrd></RmtInf></TxDtls></NtryDtls></Ntry>`
    );
  });
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.08"><BkToCstmrStmt>',
    `<GrpHdr><MsgId>${number}-${to}</MsgId><CreDtTm>${to}T23:00:00</CreDtTm></GrpHdr>`,
    `<Stmt><Id>${number}-${to}</Id><CreDtTm>${to}T23:00:00</CreDtTm>`,
    `<FrToDt><FrDtTm>${first}T00:00:00</FrDtTm><ToDtTm>${to}T23:59:59</ToDtTm></FrToDt>`,
    `<Acct><Id><Othr><Id>${number}</Id></Othr></Id><Ccy>${CURRENCY}</Ccy></Acct>`,
    balance('OPBD', opening, first),
    balance('CLBD', closing, to),
    ...body,
    '</Stmt></BkToCstmrStmt></Document>',
  ].join('\n');
}
