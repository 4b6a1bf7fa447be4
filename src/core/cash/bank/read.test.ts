import { day, toDayNumber } from '@/core/calendar';
import { readFile, readStatements } from '@/core/files';
import { minor } from '@/core/money';
import type { BankStatement } from '@/core/model';
import { bankStands, joins, readBankTable, readCamtStatements } from '..';

const bytes = (text: string) => new TextEncoder().encode(text);
/*
 * A statement in the form of ISO 20022 camt.053.001.08, its structure by the standard's message definition (from memory):
 * one entry booked alone, a batch of two, a reversal, and one that is pending.
 */
const camt = (change: (xml: string) => string = (x) => x) =>
  bytes(
    change(`<?xml version="1.0" encoding="UTF-8"?>
<Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.08"><BkToCstmrStmt>
<GrpHdr><MsgId>M1</MsgId><CreDtTm>2026-07-10T06:00:00+02:00</CreDtTm></GrpHdr>
<Stmt><Id>ST-7</Id><ElctrncSeqNb>7</ElctrncSeqNb><CreDtTm>2026-07-10T06:00:00+02:00</CreDtTm>
<FrToDt><FrDtTm>2026-07-01T00:00:00</FrDtTm><ToDtTm>2026-07-09T23:59:59</ToDtTm></FrToDt>
<Acct><Id><IBAN>DE02100100109307118603</IBAN></Id><Ccy>EUR</Ccy></Acct>
<Bal><Tp><CdOrPrtry><Cd>OPBD</Cd></CdOrPrtry></Tp><Amt Ccy="EUR">1000.00</Amt><CdtDbtInd>CRDT</CdtDbtInd><Dt><Dt>2026-07-01</Dt></Dt></Bal>
<Bal><Tp><CdOrPrtry><Cd>CLAV</Cd></CdOrPrtry></Tp><Amt Ccy="EUR">9999.00</Amt><CdtDbtInd>CRDT</CdtDbtInd><Dt><Dt>2026-07-09</Dt></Dt></Bal>
<Bal><Tp><CdOrPrtry><Cd>CLBD</Cd></CdOrPrtry></Tp><Amt Ccy="EUR">130.00</Amt><CdtDbtInd>DBIT</CdtDbtInd><Dt><Dt>2026-07-09</Dt></Dt></Bal>
<Ntry><NtryRef>1</NtryRef><Amt Ccy="EUR">250.00</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts><Cd>BOOK</Cd></Sts>
 <BookgDt><Dt>2026-07-02</Dt></BookgDt><ValDt><Dt>2026-07-04</Dt></ValDt><AcctSvcrRef>A-1</AcctSvcrRef>
 <NtryDtls><TxDtls><Refs><EndToEndId>NOTPROVIDED</EndToEndId></Refs><RltdPties><Dbtr><Pty><Nm>Acorn Hall</Nm></Pty></Dbtr><Cdtr><Pty><Nm>Us</Nm></Pty></Cdtr></RltdPties>
 <RmtInf><Ustrd>Invoice R-1011 &amp; thanks</Ustrd></RmtInf></TxDtls></NtryDtls></Ntry>
<Ntry><Amt Ccy="EUR">1500.00</Amt><CdtDbtInd>DBIT</CdtDbtInd><Sts>BOOK</Sts><BookgDt><DtTm>2026-07-03T10:00:00</DtTm></BookgDt><AcctSvcrRef>A-2</AcctSvcrRef>
 <NtryDtls><Btch><NbOfTxs>2</NbOfTxs></Btch>
 <TxDtls><Refs><EndToEndId>B-77</EndToEndId></Refs><AmtDtls><TxAmt><Amt Ccy="EUR">900.00</Amt></TxAmt></AmtDtls><RltdPties><Cdtr><Nm>Fenwick Supply</Nm></Cdtr></RltdPties></TxDtls>
 <TxDtls><Amt Ccy="EUR">600.00</Amt><RmtInf><Strd><CdtrRefInf><Ref>RF18539007547034</Ref></CdtrRefInf></Strd></RmtInf></TxDtls></NtryDtls></Ntry>
<Ntry><Amt Ccy="EUR">120.00</Amt><CdtDbtInd>CRDT</CdtDbtInd><RvslInd>true</RvslInd><Sts><Cd>BOOK</Cd></Sts><BookgDt><Dt>2026-07-06</Dt></BookgDt><AddtlNtryInf>Direct debit returned</AddtlNtryInf></Ntry>
<Ntry><Amt Ccy="EUR">77.00</Amt><CdtDbtInd>DBIT</CdtDbtInd><Sts><Cd>PDNG</Cd></Sts><BookgDt><Dt>2026-07-09</Dt></BookgDt></Ntry>
</Stmt></BkToCstmrStmt></Document>`),
  );
const read = async (xml: Uint8Array) => {
  const file = await readStatements(xml);
  if (!file.ok) throw new Error(file.issue.code);
  return readCamtStatements(file.statements, 'EUR');
};

describe('camt.053', () => {
  test('booked entries by the day of their booking, debits out, batches apart, what is pending left out', async () => {
    const [s] = await read(camt());
    expect(s).toMatchObject({
      account: 'DE02100100109307118603',
      number: '7',
      first: '2026-07-01',
      last: '2026-07-09',
      opening: 100_000,
      closing: -13_000,
    });
    expect(
      s!.movements.map((m) => [m.day, m.amount, m.counterparty, m.reference, m.memo, m.number, m.reverses]),
    ).toEqual([
      ['2026-07-02', 25_000, 'Acorn Hall', '', 'Invoice R-1011 & thanks', 'A-1', false],
      ['2026-07-03', -90_000, 'Fenwick Supply', 'B-77', '', 'A-2', false],
      ['2026-07-03', -60_000, '', 'RF18539007547034', '', 'A-2', false],
      ['2026-07-06', 12_000, '', '', 'Direct debit returned', '', true],
    ]);
    expect(s!.issues).toEqual([
      { code: 'pending', count: 1 },
      { code: 'reversals', count: 1 },
      { code: 'batches', count: 1 },
    ]);
  });
  test('the closing balance of the statement before opens one that says no other', async () => {
    const [s] = await read(camt((x) => x.replace('>OPBD<', '>PRCD<')));
    expect([s!.opening, s!.closing]).toEqual([100_000, -13_000]);
    const [none] = await read(camt((x) => x.replace('>OPBD<', '>XXXX<').replace('>CLBD<', '>XXXX<')));
    expect([none!.opening, none!.closing, none!.issues.map((i) => i.code)]).toEqual([
      null,
      null,
      ['pending', 'reversals', 'batches'],
    ]);
  });
  test('a batch whose payments do not come to it stays one, and says so', async () => {
    const [s] = await read(camt((x) => x.replace('>600.00<', '>599.00<')));
    expect(s!.movements.map((m) => m.amount)).toEqual([25_000, -150_000, 12_000]);
    expect(s!.issues).toContainEqual({ code: 'batchOff', place: 'A-2', by: 100 });
  });
  test('balances that the entries do not lead to, amounts, days and currencies that cannot be are named', async () => {
    const issues = async (from: string, to: string) =>
      (await read(camt((x) => x.replace(from, to))))[0]!.issues;
    expect(await issues('>130.00<', '>130.01<')).toContainEqual({ code: 'offBy', place: '7', by: -1 });
    expect(await issues('>250.00<', '>250.005<')).toContainEqual({
      code: 'noAmount',
      place: 'A-1',
      value: '250.005',
    });
    expect(
      await issues('<Dt>2026-07-02</Dt></BookgDt><ValDt><Dt>2026-07-04', '<Dt>x</Dt></BookgDt><ValDt><Dt>y'),
    ).toContainEqual({ code: 'noDay', place: 'A-1', value: 'x' });
    expect(await issues('<Ccy>EUR', '<Ccy>USD')).toContainEqual(
      expect.objectContaining({ code: 'otherCurrency', value: 'USD' }),
    );
    expect(await issues('<Amt Ccy="EUR">250', '<Amt Ccy="CHF">250')).toContainEqual({
      code: 'otherCurrency',
      place: 'A-1',
      value: 'CHF',
    });
  });
  test('what is no statement is refused by name: another message, a broken file, one that declares something', async () => {
    const code = async (change: (x: string) => string) => {
      const file = await readStatements(camt(change));
      return file.ok ? null : file.issue;
    };
    expect(await code((x) => x.replaceAll('BkToCstmrStmt', 'BkToCstmrAcctRpt'))).toEqual({
      code: 'notStatements',
      found: 'BkToCstmrAcctRpt',
    });
    expect(await code((x) => x.replace('</Stmt>', ''))).toMatchObject({ code: 'brokenXml' });
    expect(
      await code((x) => x.replace('<Document', '<!DOCTYPE d [<!ENTITY a "b">]><Document')),
    ).toMatchObject({ code: 'hostileXml' });
  });
});

describe('a bank’s list as a table', () => {
  const table = async (text: string) => {
    const file = await readFile(bytes(text));
    if (!file.ok) throw new Error(file.issue.code);
    return readBankTable(file.file, { currency: 'EUR', numbers: { decimal: '.', group: ',' }, dates: 'dmy' });
  };
  const told = async (text: string) => {
    const r = await table(text);
    if (!r.ok) throw new Error(r.missing.join());
    return r.statement;
  };
  test('one amount with its sign, newest first, with the balance after each', async () => {
    const s = await told(
      `Account 4711\nDate,Details,Amount in EUR,Balance\n09/07/2026,Card takings,120.00,1020.00\n02/07/2026,Rent,-100.00,900.00\n`,
    );
    expect(s).toMatchObject({
      first: '2026-07-02',
      last: '2026-07-09',
      opening: 100_000,
      closing: 102_000,
      issues: [],
    });
    expect(s.movements.map((m) => [m.day, m.amount, m.memo])).toEqual([
      ['2026-07-02', -10_000, 'Rent'],
      ['2026-07-09', 12_000, 'Card takings'],
    ]);
  });
  test('two columns: a bank’s debit is money out', async () => {
    const s = await told(
      `Booking date;Value date;Payee;Reference;Debit;Credit\n2026-07-02;2026-07-03;Fenwick;B-77;1,500.00;\n2026-07-04;2026-07-04;Acorn;R-1;;250.00\n`,
    );
    expect(s.movements.map((m) => [m.day, m.amount, m.counterparty, m.reference])).toEqual([
      ['2026-07-02', -150_000, 'Fenwick', 'B-77'],
      ['2026-07-04', 25_000, 'Acorn', 'R-1'],
    ]);
    expect([s.opening, s.closing]).toEqual([null, null]);
  });
  test('an amount with a mark beside it, in another language and its numbers', async () => {
    const s = await told(
      `Buchungstag;Auftraggeber/Empfänger;Verwendungszweck;Betrag;S/H\n02.07.2026;Fenwick;B-77;1.500,00;S\n04.07.2026;Acorn;R-1;250,50;H\n`,
    );
    expect(s.movements.map((m) => [m.amount, m.counterparty, m.memo])).toEqual([
      [-150_000, 'Fenwick', 'B-77'],
      [25_050, 'Acorn', 'R-1'],
    ]);
  });
  test('what is wrong is named by its row', async () => {
    const s = await told(
      `Date,Description,Amount,Balance\n2026-07-01,a,10.00,110.00\n31/31/2026,b,1.00,111.00\n2026-07-03,c,xx,\n2026-07-04,d,5.00,120.00\nTotal,,15.00,\n`,
    );
    expect(s.issues).toEqual([
      { code: 'noDay', place: '3', value: '31/31/2026' },
      { code: 'noAmount', place: '4', value: 'xx' },
      { code: 'offBy', place: '5', by: 500 },
    ]);
    expect(await table('Name,Sum\nA,1\n')).toEqual({ ok: false, missing: ['date'] });
  });
});

describe('statements that follow one another', () => {
  const movement = (d: string, amount: number, number = '') => ({
    day: day(d),
    amount: minor(amount),
    counterparty: 'A',
    reference: '',
    memo: '',
    number,
    reverses: false,
  });
  const of = (
    id: string,
    first: string,
    last: string,
    opening: number | null,
    all: ReturnType<typeof movement>[],
    closed = true,
  ): BankStatement => ({
    id,
    account: 'bank',
    from: `${id}.xml`,
    number: id,
    first: day(first),
    last: day(last),
    opening: opening === null ? null : minor(opening),
    closing: opening === null || !closed ? null : minor(all.reduce((t, m) => t + m.amount, opening)),
    movements: all,
    by: '',
    at: 't',
  });
  const first = of('s1', '2026-07-01', '2026-07-05', 100, [
    movement('2026-07-02', 5),
    movement('2026-07-02', 5),
  ]);
  test('what both tell is taken once, as often as it stands there', () => {
    const again = of('s2', '2026-07-02', '2026-07-07', 100, [
      movement('2026-07-02', 5),
      movement('2026-07-02', 5),
      movement('2026-07-02', 5),
      movement('2026-07-06', 7),
    ]);
    expect(joins(again, [first])).toMatchObject({ repeated: 2, gap: null, jump: 0 });
    expect(joins(again, [first]).movements.map((m) => m.amount)).toEqual([5, 7]);
  });
  test('days between them and a jump of the balance are told', () => {
    const later = of('s2', '2026-07-08', '2026-07-09', 100, []);
    const [from, to] = ['2026-07-06', '2026-07-07'].map((d) => toDayNumber(day(d)));
    expect(joins(later, [first]).gap).toEqual({ from, to });
    const next = of('s2', '2026-07-06', '2026-07-09', 111, []);
    expect(joins(next, [first])).toMatchObject({ gap: null, jump: 1 });
  });
  test('a bank stands at its latest balance, brought on by later movements and back to the closed day', () => {
    const more = of('s2', '2026-07-06', '2026-07-09', null, [movement('2026-07-08', -40)]);
    const [stand] = bankStands(
      { balances: [], statements: [first, more], said: {}, numbers: {}, floors: {} },
      toDayNumber(day('2026-06-30')),
    );
    expect(stand).toMatchObject({ amount: 70, by: 'statement', atStart: 100, gaps: [] });
    expect(stand!.movements.map((m) => m.key)).toEqual(['s1 0', 's1 1', 's2 0']);
  });
});
