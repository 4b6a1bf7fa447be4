import { day } from '@/core/calendar';
import { readFile } from '@/core/files';
import { account } from '@/core/test/build';
import { assetRow, loanRow, SCHEDULE_ACCOUNTS, staffRow } from '@/core/test/schedule';
import { readScheduleRows, type FileKind } from '.';

const STARTS = { staff: staffRow(), loan: loanRow(), asset: assetRow() };
const accounts = [...SCHEDULE_ACCOUNTS, account('yard', 'expense', 'Yard wages', '6010')];

async function read(kind: FileKind, text: string, change: { decimal?: ',' } = {}) {
  const file = await readFile(new TextEncoder().encode(text));
  if (!file.ok) throw new Error(file.issue.code);
  return readScheduleRows(
    file.file,
    kind,
    STARTS[kind] as never,
    {
      currency: 'USD',
      accounts,
      numbers: change.decimal ? { decimal: ',', group: '.' } : { decimal: '.', group: ',' },
      dates: 'mdy',
      closed: day('2026-10-31'),
    },
    (i) => `n${i}`,
  );
}
const lines = async (
  kind: FileKind,
  text: string,
  change = {},
): Promise<{ rows: unknown[]; issues: unknown[] }> => {
  const made = await read(kind, text, change);
  if (!made.ok) throw new Error(made.missing.join());
  return { rows: [...made.rows], issues: made.issues.map((i) => [i.row, i.code, i.value]) };
};

describe('a staff list', () => {
  it('has pay by year, month, payday or hour, and what else it says', async () => {
    const text = [
      'Staff of the yard,,,,,,',
      'Employee,Salary,Pay type,Hours,FTE,Start date,End date,Account',
      'Ada Reed,"42,000.00",annual,,1,,,6010',
      'Bo Quill,24.50,hourly,120.5,0.5,2/1/2027,,Yard wages',
      'Cy Vane,3000,per month,,2,,12/31/2026,6010 Yard wages',
      'Di Fox,1150,biweekly,,,,,',
      'Total,"46,174.50",,,,,,',
    ].join('\n');
    const { rows, issues } = await lines('staff', text);
    expect(issues).toEqual([]);
    expect(rows).toMatchObject([
      { id: 'n0', name: 'Ada Reed', pay: { per: 'year', amount: 4_200_000 }, account: 'yard', count: 100 },
      {
        name: 'Bo Quill',
        pay: { per: 'hour', amount: 2450, hours: { of: 'month', hours: 12_050 } },
        count: 50,
        from: '2027-02-01',
        account: 'yard',
      },
      { name: 'Cy Vane', pay: { per: 'month', amount: 300_000 }, count: 200, until: '2026-12-31' },
      { name: 'Di Fox', pay: { per: 'payday', amount: 115_000 }, account: 'wages', count: 100 },
    ]);
  });

  it('names each row that is none, and what it could not read', async () => {
    const text = [
      'Name;Pay;Per;Account',
      'Ada;3.000,00;Monat;',
      'Bo;3.000,00;month;9999',
      'Cy;viel;month;',
      ';3.000,00;month;',
      'Di;-5;month;',
      'Eve;3.000,00;month;',
      'Eve;3.000,00;month;',
    ].join('\n');
    const { rows, issues } = await lines('staff', text, { decimal: ',' });
    expect(issues).toEqual([
      [2, 'unknownWord', 'Monat'],
      [3, 'unknownAccount', '9999'],
      [4, 'noAmount', 'viel'],
      [5, 'noName', ''],
      [6, 'noAmount', '-5'],
      [8, 'twice', 'Eve'],
    ]);
    expect(rows).toHaveLength(1);
  });

  it('is none without a name and pay', async () => {
    expect(await read('staff', 'a,b\n1,2\n')).toEqual({ ok: false, missing: ['name', 'amount'] });
    expect(await read('staff', 'Name,Start\nAda,1/1/2027\n')).toEqual({ ok: false, missing: ['amount'] });
  });
});

describe('a loan list', () => {
  it('stands or is drawn by its day, with the lender’s payment where it says one', async () => {
    const text = [
      'Loan,Principal,Interest rate,As of,First payment,Payments,Installment',
      'Hoist,48762.48,7.2%,10/3/2026,11/3/2026,47,1193.74',
      'Launch,40000,7.5,4/12/2027,5/12/2027,60,',
      'Shed,10000,abc,1/1/2027,,,',
    ].join('\n');
    const { rows, issues } = await lines('loan', text);
    expect(rows).toMatchObject([
      {
        begins: { of: 'stands', day: '2026-10-03', amount: 4_876_248 },
        rate: '7.2',
        first: '2026-11-03',
        payments: 47,
        repay: { of: 'level', payment: 119_374 },
      },
      {
        begins: { of: 'drawn', day: '2027-04-12', amount: 4_000_000 },
        rate: '7.5',
        repay: { of: 'level', payment: null },
      },
    ]);
    expect(issues).toEqual([[4, 'noRate', 'abc']]);
  });
});

describe('an asset register', () => {
  it('has what is written off so far, and the months left', async () => {
    const text = [
      'Asset,Purchase date,Cost,Useful life,Accumulated depreciation,Salvage value,Remaining',
      'Hoist,9/3/2025,72000,12 years,7000,0,130',
      'Pontoon,3/22/2026,96000,240,1600,6000,',
      'Launch,4/12/2027,48000,84,,,',
      'Crane,,1000,12,,,',
      'Dock,1/1/2020,1000,some,,,',
    ].join('\n');
    const { rows, issues } = await lines('asset', text);
    expect(rows).toMatchObject([
      {
        bought: '2025-09-03',
        cost: 7_200_000,
        way: { of: 'straight', months: 144 },
        standing: { day: '2026-10-31', accumulated: 700_000, months: 130 },
        residual: 0,
      },
      // March to October are 8 of 240.
      { standing: { accumulated: 160_000, months: 232 }, residual: 600_000 },
      { bought: '2027-04-12', standing: null, way: { of: 'straight', months: 84 } },
    ]);
    expect(issues).toEqual([
      [5, 'noDate', ''],
      [6, 'noLife', 'some'],
    ]);
  });
  it('goes by a rate where it has no life', async () => {
    const { rows } = await lines('asset', 'Name,Bought,Price,Rate\nVan,1/1/2027,20000,25%\n');
    expect(rows).toMatchObject([{ way: { of: 'declining', rate: '25' } }]);
  });
});
