import fc from 'fast-check';
import { minor, plainDecimal } from '@/core/money';
import { calendarFrom, dayNumberOf, fromDayNumber } from '@/core/calendar';
import { balancesOf, MARKS } from '@/core/ledger';
import { readFile, readWorkbook, type FileFacts } from '@/core/files';
import { applyCommand, naturalSign, newBook } from '@/core/model';
import ExcelJS from 'exceljs';
import {
  acceptDraft,
  guessKind,
  readDraft,
  type Mapping,
  guessShape,
  matchAccounts,
  openDraft,
  parseDate,
  parseMonthHead,
  proofOf,
  settle,
  splitAccountCell,
  type GuessContext,
} from '.';
import { schemeOf } from './guessKind';
import { guessing } from '../test/build';
import { takeFacts } from '../test/takeIn';
import { FILE_CASES } from './cases/files';

const context = guessing;
const PRINT = 'f'.repeat(64);
const bytes = (text: string) => new TextEncoder().encode(text);

async function fileOf(text: string): Promise<FileFacts> {
  const read = await readFile(bytes(text));
  if (!read.ok) throw new Error(read.issue.code);
  return read.file;
}

function takeFile(file: FileFacts, change: Partial<GuessContext> = {}, currency = 'USD') {
  const asked = { ...context, ...change };
  const { guess, draft } = openDraft(file, 0, asked, currency);
  const choices = matchAccounts(draft, []);
  const settled = settle(draft, choices, asked.calendar, null);
  const proof = proofOf(draft, settled, choices, {
    calendar: asked.calendar,
    fingerprint: PRINT,
    sheet: null,
    sources: [],
    range: null,
    bases: null,
    stood: null,
  });
  return { file, guess, draft, choices, settled, proof };
}
const take = async (text: string, currency = 'USD', change: Partial<GuessContext> = {}) =>
  takeFile(await fileOf(text), change, currency);

describe.each(FILE_CASES)('$name', (c) => {
  test('comes in as it must', async () => {
    const { guess, draft, proof, settled } = await take(c.text, c.currency, c.context);
    expect(guess.mapping.shape).toBe(c.shape);
    const got = new Map<string, [string, number][]>();
    const aside = { opening: 0, closing: 0 };
    // Trial balances say what they tell of when they are settled; other files by their own signs.
    const block = draft.trials ? settled : draft.block;
    for (let i = 0; i < block.count; i++) {
      const mark = MARKS[settled.mark[i]!]!;
      if (mark !== 'activity') {
        aside[mark]++;
        continue;
      }
      const name = draft.accounts[block.account[i]!]!.name;
      const month = fromDayNumber(block.day[i]!).slice(0, 7);
      const list = got.get(name) ?? [];
      const same = list.find(([m]) => m === month);
      if (same) same[1] += block.amount[i]!;
      else list.push([month, block.amount[i]!]);
      got.set(name, list);
    }
    for (const [name, amounts] of Object.entries(c.amounts))
      if (amounts.length) expect([name, got.get(name)]).toEqual([name, amounts]);
    expect(proof.ties).toBe(c.ties);
    expect(aside).toEqual({ opening: 0, closing: 0, ...c.aside });
    if (c.segments) expect(draft.block.segments.map((s) => [s.name, s.values.slice(1)])).toEqual(c.segments);
    if (c.kinds) expect(draft.accounts.map((a) => [a.name, a.guess.kind])).toEqual(Object.entries(c.kinds));
    if (c.controls !== undefined) expect(proof.controls).toHaveLength(c.controls);
    // Every row is used or left out, and the counts add up to the file.
    expect(draft.rows.used + draft.rows.leftOut.reduce((n, l) => n + l.count, 0)).toBe(draft.rows.read);
    if (c.leftOut)
      expect(Object.fromEntries(draft.rows.leftOut.map((l) => [l.reason, l.count]))).toMatchObject(c.leftOut);
    expect(draft.issues.map((i) => [i.code, i.row, i.column, i.value])).toEqual(c.issues ?? []);
    for (const doubt of c.doubts ?? []) expect(guess.doubts).toContain(doubt);
  });
});

test('the unbalanced entry is named with its row and difference', async () => {
  const { draft } = await take(FILE_CASES.find((c) => c.name.startsWith('an unbalanced'))!.text);
  expect(draft).toMatchObject({
    balance: 'unbalanced',
    unbalancedCount: 1,
    unbalanced: [{ reference: 'B', row: 4, difference: 100, lines: 2 }],
  });
});

test('the total that does not add up is named with both figures', async () => {
  const { proof } = await take(FILE_CASES.find((c) => c.name.startsWith('a subtotal'))!.text);
  expect(proof.controls.filter((c) => c.mismatches.length)).toEqual([
    { row: 4, label: 'Total income', mismatches: [{ day: '2025-02-28', theirs: 23000, ours: 22000 }] },
  ]);
});

describe('what the proof says of months and kinds', () => {
  test('a month that is missing between two, and one that stands twice', async () => {
    const gap = await take('Account,Jan 2025,Mar 2025\nSales,1,2\n');
    expect([gap.proof.missing.length, gap.proof.twice]).toEqual([1, []]);
    const twice = await take('Account,Jan 2025,Feb 2025,Jan 2025\nSales,1,2,4\nRent,1,2,4\n');
    const mapped = {
      ...twice.guess.mapping,
      columns: [
        { as: 'account' },
        { as: 'month', day: '2025-01-31' },
        { as: 'month', day: '2025-02-28' },
        { as: 'month', day: '2025-01-31' },
      ],
    } as Extract<Mapping, { shape: 'months' }>;
    const draft = readDraft(twice.file, mapped, 'USD', context.calendar);
    const settled = settle(draft, twice.choices, context.calendar, null);
    const ground = {
      calendar: context.calendar,
      fingerprint: PRINT,
      sheet: null,
      sources: [],
      range: null,
      bases: null,
      stood: null,
    };
    expect(proofOf(draft, settled, twice.choices, ground).twice).toEqual(['2025-01-31']);
    expect(
      proofOf(gap.draft, gap.settled, gap.choices, {
        ...ground,
        range: { first: 0, last: gap.proof.months[0]!.period - 3 },
      }).gap,
    ).toHaveLength(2);
  });
  test('two accounts on the wrong side are found by what a net needs', async () => {
    const text = [
      'Account,Jan 2025,Feb 2025',
      'Sales,100,200',
      'Zork,30,31',
      'Plim,7,9',
      'Rent,10,10',
      'Net profit,53,150',
    ].join('\n');
    const { draft, settled, choices } = await take(text);
    const wrong = choices.map((c, i) =>
      /Zork|Plim/.test(draft.accounts[i]!.name) ? { ...c, kind: 'income' as const } : c,
    );
    const ground = {
      calendar: context.calendar,
      fingerprint: PRINT,
      sheet: null,
      sources: [],
      range: null,
      bases: null,
      stood: null,
    };
    const { hint, controlsTied } = proofOf(draft, settled, wrong, ground);
    expect(controlsTied).toBe(0);
    expect(hint).toEqual({
      accounts: [
        { account: 1, kind: 'expense' },
        { account: 2, kind: 'expense' },
      ],
      ties: 1,
    });
  });
  test('a code that comes with two names is asked about', async () => {
    const text =
      'Date,Account code,Account name,Debit,Credit\n2025-01-01,4000,Sales,,5\n2025-01-01,1000,Bank,5,\n2025-01-02,4000,Berths,,6\n2025-01-02,1000,Bank,6,\n';
    const { draft, choices } = await take(text);
    expect(draft.accounts.map((a) => [a.name, a.also ?? []])).toEqual([
      ['Sales', ['Berths']],
      ['Bank', []],
    ]);
    expect(choices.map((c) => [c.why, c.sure])).toEqual([
      ['twoNames', false],
      ['code', true],
    ]);
  });
  test('rows of one code under two names are asked about; rows that are the same account become one', async () => {
    const text =
      'Code,Account,Jan 2025,Feb 2025\n4000,Sales,100,200\n4000,Berths,30,40\n6000,Rent,7,8\n6000,Rent,1,2\n';
    const { draft, choices } = await take(text);
    expect(draft.accounts.map((a) => [a.name, a.also ?? []])).toEqual([
      ['Sales', ['Berths']],
      ['Berths', ['Sales']],
      ['Rent', []],
      ['Rent', []],
    ]);
    expect(choices.map((c) => c.why === 'twoNames')).toEqual([true, true, false, false]);
    const done = takeFacts(await fileOf(text))!;
    expect(done.book.accounts.map((a) => a.name)).toEqual(['Sales', 'Berths', 'Rent']);
    expect(new Set(done.blocks[0]!.accounts).size).toBe(3);
  });
  test('a negative debit is still a debit in the columns of the file', async () => {
    const text =
      'Date,Account,Debit,Credit\n2025-01-01,Sales,-5,\n2025-01-01,Bank,5,\n2025-01-02,Rent,7,\n2025-01-02,Bank,,7\n';
    const { draft, proof } = await take(text);
    expect(draft.columns).toEqual({ debit: 700, credit: 700 });
    expect([proof.debit, proof.credit]).toEqual([1200, 1200]);
  });
});

test('a net of a part, below a net of the rest, is no account and ties', async () => {
  const text = [
    'Account,Jan 2025,Feb 2025',
    'Income,,',
    'Sales,100,200',
    'Total Income,100,200',
    'Expenses,,',
    'Rent,10,20',
    'Total Expenses,10,20',
    'Net operating income,90,180',
    'Other Income,,',
    'Interest,3,4',
    'Total Other Income,3,4',
    'Other Expenses,,',
    'Fines,1,9',
    'Total Other Expenses,1,9',
    'Net other income,2,-5',
    'Net income,92,175',
  ].join('\n');
  const { proof } = await take(text);
  expect(proof.controls.map((c) => [c.label, c.mismatches.length])).toEqual([
    ['Total Income', 0],
    ['Total Expenses', 0],
    ['Net operating income', 0],
    ['Total Other Income', 0],
    ['Total Other Expenses', 0],
    ['Net other income', 0],
    ['Net income', 0],
  ]);
});

test('a grand total over sections with subtotals ties by arithmetic', async () => {
  const { proof } = await take(
    'Account,Jan 2025,Feb 2025\nExpenses,,\nPremises,,\nRent,10,10\nHeat,1,2\nTotal Premises,11,12\nPeople,,\nWages,5,5\nTotal People,5,5\nTotal Expenses,16,17\n',
  );
  expect(proof.controls.map((c) => [c.label, c.mismatches.length])).toEqual([
    ['Total Premises', 0],
    ['Total People', 0],
    ['Total Expenses', 0],
  ]);
});

describe('taking in', () => {
  const book = newBook({ id: 'k', name: 'N', currency: 'USD', locale: 'en-US', firstMonth: 1 });
  const accept = async (text: string, into = book) => {
    const { draft } = await take(text);
    const choices = matchAccounts(draft, into.accounts);
    const a = acceptDraft(into, {
      draft,
      choices,
      settled: settle(draft, choices, into.calendar, null),
      format: 'delimited',
      heads: '',
      controls: 0,
      oneSided: false,
      untied: null,
      cursor: null,
      fileName: 'f.csv',
      fingerprint: 'a'.repeat(64),
      sheet: null,
      takenAt: 't',
      blockId: 'l1',
      replaces: [],
      closedThrough: null,
    })!;
    const applied = applyCommand(into, a.command);
    if (!applied.ok) throw new Error(applied.refusal.code);
    return { book: applied.book, block: a.block };
  };
  test('natural signs become debit-positive by the kinds that were chosen', async () => {
    const { book: b, block } = await accept('Account,Jan 2025,Feb 2025\nSales,100,0\nRent expense,40,0\n');
    expect(b.accounts.map((a) => a.kind)).toEqual(['income', 'expense']);
    expect([...block.amount]).toEqual([-10000, 0, 4000, 0].map((v) => v || 0));
  });
  test('the next file finds its accounts by code, else by name', async () => {
    const first = await accept(
      'Date,Ref,Account code,Account name,Debit,Credit\n2025-01-01,1,1000,Bank,1,\n2025-01-01,1,4000,Sales,,1\n',
    );
    const { draft } = await take(
      'Date,Ref,Account code,Account name,Debit,Credit\n2025-02-01,1,1000,Bank renamed,1,\n2025-02-01,1,4001,Sales,,1\n',
    );
    const [bank, sales] = matchAccounts(draft, first.book.accounts);
    expect(bank).toMatchObject({
      existing: first.book.accounts.find((a) => a.code === '1000')!.id,
      why: 'book',
    });
    expect(sales!.existing).toBeNull();
  });
  test('the same file is recognised, and so are overlapping days', async () => {
    const { book: b } = await accept('Account,Jan 2025,Feb 2025\nSales,1,2\n');
    const { draft, choices } = await take('Account,Feb 2025,Mar 2025\nSales,2,3\n');
    const prove = (fingerprint: string) =>
      proofOf(draft, settle(draft, choices, b.calendar, null), choices, {
        calendar: b.calendar,
        fingerprint,
        sheet: null,
        sources: b.sources,
        range: null,
        bases: null,
        stood: null,
      });
    expect(prove('a'.repeat(64)).same?.id).toBe(b.sources[0]!.id);
    const other = prove('b'.repeat(64));
    expect([other.same, other.overlapping.map((s) => s.id)]).toEqual([null, [b.sources[0]!.id]]);
  });
});

const accounts = ['Bank', 'Sales', 'Rent expense', 'Wages'];
const ledger = fc.array(
  fc.record({
    month: fc.integer({ min: 1, max: 12 }),
    date: fc.integer({ min: 1, max: 28 }),
    from: fc.nat(3),
    to: fc.nat(3),
    amount: fc.integer({ min: 1, max: 1e8 }),
  }),
  { minLength: 1, maxLength: 40 },
);

test('any ledger written as entries, in either amount form, reads back as the same monthly balances', async () => {
  await fc.assert(
    fc.asyncProperty(ledger, fc.boolean(), fc.constantFrom(',', ';', '\t'), async (entries, signed, d) => {
      const expected = new Map<string, number>();
      const lines = [
        signed ? ['Date', 'Ref', 'Account', 'Amount'] : ['Date', 'Ref', 'Account', 'Debit', 'Credit'],
      ];
      const post = (day: string, ref: number, a: number, amount: number) => {
        const text = plainDecimal(minor(Math.abs(amount)), 'USD');
        lines.push([
          day,
          `R${ref}`,
          accounts[a]!,
          ...(signed ? [`${amount < 0 ? '-' : ''}${text}`] : amount > 0 ? [text, ''] : ['', text]),
        ]);
        const key = `${accounts[a]} ${day.slice(0, 7)}`;
        expected.set(key, (expected.get(key) ?? 0) + amount);
      };
      entries.forEach((e, i) => {
        const day = `2025-${String(e.month).padStart(2, '0')}-${String(e.date).padStart(2, '0')}`;
        post(day, i, e.to, e.amount);
        post(day, i, e.from, -e.amount);
      });
      const { draft, proof } = await take(lines.map((l) => l.join(d)).join('\r\n') + '\r\n');
      expect(proof.ties).toBe(true);
      const calendar = calendarFrom(context.calendar);
      const balances = balancesOf([draft.block], calendar);
      for (const [key, amount] of expected) {
        const [name, month] = [key.slice(0, -8), key.slice(-7)];
        const place = String(draft.accounts.findIndex((a) => a.name === name));
        expect(balances.movement(place, Number(month.slice(0, 4)) * 12 + Number(month.slice(5)) - 1)).toBe(
          amount,
        );
      }
    }),
    { numRuns: 60 },
  );
});

test('months across with shuffled amounts and a total row tie, whatever the figures', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.array(fc.integer({ min: -1e7, max: 1e7 }), { minLength: 3, maxLength: 3 }), {
        minLength: 2,
        maxLength: 8,
      }),
      async (rows) => {
        const total = [0, 1, 2].map((m) => rows.reduce((t, r) => t + r[m]!, 0));
        const text = [
          'Account,Jan 2025,Feb 2025,Mar 2025',
          ...[...rows, total].map((r, i) =>
            [
              i === rows.length ? 'Total income' : `Fees ${i}`,
              ...r.map((v) => plainDecimal(minor(v), 'USD')),
            ].join(','),
          ),
        ].join('\n');
        const { proof, draft } = await take(text);
        expect(draft.accounts).toHaveLength(rows.length);
        expect(proof).toMatchObject({ controlsTied: 1, ties: true });
      },
    ),
    { numRuns: 60 },
  );
});

describe('dates', () => {
  test.each([
    ['2025-07-04', 'mdy', '2025-07-04'],
    ['7/4/2025', 'mdy', '2025-07-04'],
    ['7/4/2025', 'dmy', '2025-04-07'],
    ['04.07.25', 'dmy', '2025-07-04'],
    ['4 Jul 2025', 'mdy', '2025-07-04'],
    ['Jul 4, 2025', 'dmy', '2025-07-04'],
    ['04-Jul-25', 'mdy', '2025-07-04'],
    ['20250704', 'mdy', '2025-07-04'],
    ['2025-07-04T10:00:00', 'mdy', '2025-07-04'],
    ['31/02/2025', 'dmy', null],
    ['13/13/2025', 'mdy', null],
    ['soon', 'mdy', null],
  ] as const)('%s as %s', (text, order, expected) => {
    const n = parseDate(text, order);
    expect(n === null ? null : fromDayNumber(n)).toBe(expected);
  });
  // ECMA-376 part 1, 18.17.4.1: in the 1900 date system serial 43831 is 2020-01-01 (from memory).
  test('a spreadsheet’s serial', () => expect(fromDayNumber(parseDate(43831, 'mdy')!)).toBe('2020-01-01'));
  test.each([
    ['Jan 2026', 1, 2026],
    ['January 2026', 1, 2026],
    ['2026-01', 1, 2026],
    ['01/2026', 1, 2026],
    ['Jan-26', 1, 2026],
    ['31 Jan 26', 1, 2026],
    ['Sept 2026', 9, 2026],
    ['2026-01-31', 1, 2026],
    ['Jan', 1, null],
  ])('the month head %s', (text, month, year) =>
    expect(parseMonthHead(text)).toEqual({ of: 'month', month, year }),
  );
  test.each(['Marketing', 'Account', '2026', 'Total', 'Decking', '13/2026'])('%s is no month', (text) =>
    expect(parseMonthHead(text)).toBeNull(),
  );
  test('the last day of each month', () =>
    expect(dayNumberOf(2025, 2, 28)).toBe(parseDate('2025-02-28', 'ymd')));
});

describe('account kinds', () => {
  const guess = (code: string, name: string, sections: string[] = [], total = 0) =>
    guessKind({ code, name, type: '', sections, total });
  // Ranges and words as common practice in small businesses' charts of accounts in the US.
  test.each([
    ['4000', 'Sales', [], 'income', 'code'],
    ['5000', 'Materials', [], 'costOfSales', 'code'],
    ['6100', 'Office rent', [], 'expense', 'code'],
    ['1000', 'Checking', [], 'bank', 'code'],
    ['1200', 'Accounts receivable', [], 'receivable', 'code'],
    ['2100', 'Payroll tax payable', [], 'taxPayable', 'code'],
    ['7010', 'Interest received', [], 'otherIncome', 'name'],
    ['', 'Something', ['Cost of goods sold'], 'costOfSales', 'section'],
    ['', 'Membership dues', ['Income'], 'income', 'section'],
    ['', 'Insurance', [], 'expense', 'name'],
    ['1520', 'Boat hoist equipment', [], 'fixedAsset', 'code'],
    ['', 'Equipment hire', ['Expenses', 'Equipment'], 'expense', 'section'],
    ['', 'Van', ['Assets', 'Vehicles'], 'fixedAsset', 'section'],
    ['', 'Stage tools', ['Cost of sales', 'Overheads'], 'expense', 'section'],
    ['', 'Development grants', [], 'income', 'name'],
    ['', 'Wage subsidy', ['Income'], 'income', 'section'],
    ['', 'Subsidies', [], 'income', 'name'],
    ['', 'Exchange differences', [], 'otherExpense', 'name'],
    ['', 'Foreign exchange gains', [], 'otherIncome', 'name'],
    ['', 'Loan interest', [], 'otherExpense', 'name'],
    ['', 'Bank loan', [], 'loan', 'name'],
    ['', 'Value-added tax', [], 'taxPayable', 'name'],
    ['', 'Land and buildings', [], 'fixedAsset', 'name'],
    ['', 'Bank charges', [], 'expense', 'name'],
  ] as const)('%s %s %j', (code, name, sections, kind, why) =>
    expect(guess(code, name, [...sections])).toMatchObject({ kind, why }),
  );
  test('codes are heard where the chart’s names bear the ranges out, and nowhere else', () => {
    const us = [
      { code: '4000', name: 'Sales' },
      { code: '6100', name: 'Rent' },
      { code: '1000', name: 'Checking' },
    ];
    // A chart of a country whose classes are 7 income and 6 costs, and one with leading zeros.
    const other = [
      { code: '7010', name: 'Sales' },
      { code: '6132', name: 'Rent' },
      { code: '4011', name: 'Trade payables' },
      { code: '5121', name: 'Bank account' },
    ];
    const zeros = us.map((a) => ({ ...a, code: `0${a.code}` }));
    expect([us, other, zeros].map((chart) => schemeOf(chart)('4500'))).toEqual(['income', null, null]);
  });
  test('nothing to go by: the side of the balance, unsure', () => {
    expect(guess('', 'Zork', [], -100)).toEqual({ kind: 'income', why: 'balance', sure: false });
    expect(guess('', 'Zork', [], 100)).toEqual({ kind: 'expense', why: 'balance', sure: false });
  });
  test.each([
    ['4100 – Repairs', '4100', 'Repairs'],
    ['4100 Repairs', '4100', 'Repairs'],
    ['Repairs (4100)', '4100', 'Repairs'],
    ['Repairs', '', 'Repairs'],
    ['4100', '4100', ''],
    ['2nd site rent', '', '2nd site rent'],
    ['401k match', '', '401k match'],
  ])('the account cell %s', (text, code, name) => expect(splitAccountCell(text)).toEqual({ code, name }));
});

describe('files', () => {
  test.each<[string, Uint8Array, string]>([
    ['an empty file', new Uint8Array(0), 'emptyFile'],
    ['blanks only', bytes('  \n \n'), 'emptyFile'],
    ['a picture', new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0, 0, 1]), 'notATable'],
    ['a PDF', bytes('%PDF-1.7 ...'), 'notATable'],
    ['an old workbook', new Uint8Array([0xd0, 0xcf, 0x11, 0xe0, 1, 2]), 'oldWorkbook'],
    ['a cut-off workbook', bytes('PK\x03\x04 rubbish'), 'brokenWorkbook'],
    ['a letter', bytes('Dear treasurer\nplease find nothing enclosed\n'), 'onlyOneColumn'],
  ])('%s is refused', async (_n, b, code) =>
    expect(await readFile(b)).toEqual({ ok: false, issue: { code } }),
  );

  // The records of RFC 4180, section 2 (from memory): CRLF inside quotes, and a quote doubled.
  test('RFC 4180 quoting', async () => {
    const file = await fileOf('aaa,"b\r\nbb","c""cc"\r\nzzz,yyy,xxx\r\n');
    expect(file.grids[0]!.head).toEqual([
      ['aaa', 'b\r\nbb', 'c"cc'],
      ['zzz', 'yyy', 'xxx'],
    ]);
  });
  test.each([
    ['UTF-8 with mark', new Uint8Array([0xef, 0xbb, 0xbf, ...bytes('é,1\n')]), 'utf-8'],
    ['Windows-1252', new Uint8Array([0xe9, 0x2c, 0x31, 0x0a]), 'windows-1252'],
    [
      'UTF-16 with mark',
      new Uint8Array([
        0xff,
        0xfe,
        ...[...'é,1\n'].flatMap((ch) => [ch.charCodeAt(0) & 255, ch.charCodeAt(0) >> 8]),
      ]),
      'utf-16le',
    ],
  ])('%s', async (_n, b, encoding) => {
    const read = await readFile(b);
    expect(read.ok && [read.file.encoding, read.file.grids[0]!.head[0]]).toEqual([encoding, ['é', '1']]);
  });
  test('a workbook: real dates as heads, numbers as numbers, formulas by their saved results', async () => {
    const wb = new ExcelJS.Workbook();
    const ws = wb.addWorksheet('P&L');
    ws.addRow(['Account', new Date(Date.UTC(2025, 0, 31)), new Date(Date.UTC(2025, 1, 28)), 'Total']);
    ws.addRow([
      '4000 Sales',
      1234.5,
      { formula: 'B2*2', result: 2469 },
      { formula: 'SUM(B2:C2)', result: 3703.5 },
    ]);
    ws.addRow(['6000 Rent', '1,000.00', 0.1 + 0.2, 1000.3]);
    const b = new Uint8Array(await wb.xlsx.writeBuffer());
    expect((await readWorkbook(b))[0]!.sheet).toBe('P&L');
    const read = await readFile(b);
    if (!read.ok) throw new Error(read.issue.code);
    const { draft, proof } = takeFile(read.file);
    expect([...draft.block.amount]).toEqual([123450, 246900, 100000, 30]);
    expect(proof.ties).toBe(true);
  });
  test('the other shape can be asked for', async () => {
    const file = await fileOf('Account,Jan 2025,Feb 2025\nSales,1,2\n');
    expect(guessShape(file, 0, context, 'entries').mapping.shape).toBe('entries');
  });
});

test('natural signs are those of the trade: income, debts and equity are credits', () => {
  expect((['income', 'payable', 'equity', 'expense', 'bank'] as const).map(naturalSign)).toEqual([
    -1, -1, -1, 1, 1,
  ]);
});
