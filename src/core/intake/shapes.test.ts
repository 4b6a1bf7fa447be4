import fc from 'fast-check';
import ExcelJS from 'exceljs';
import { minor, plainDecimal } from '@/core/money';
import { calendarFrom, dayNumberOf, daysInMonth } from '@/core/calendar';
import { balancesOf, MARKS } from '@/core/ledger';
import { readFile, type FileFacts } from '@/core/files';
import { addSegment, feedFromColumn, type Book } from '@/core/model';
import { applyKept, growAxes, headsOf, likeness, matchAccounts, openDraft, type GuessContext } from '.';
import { guessing } from '../test/build';
import { EMPTY, takeFacts } from '../test/takeIn';
import { AUDIT_FILE, PLAIN_AUDIT_FILE } from './cases/audit';

const context = guessing;
const bytes = (text: string) => new TextEncoder().encode(text);
async function facts(content: string | Uint8Array): Promise<FileFacts> {
  const read = await readFile(typeof content === 'string' ? bytes(content) : content);
  if (!read.ok) throw new Error(read.issue.code);
  return read.file;
}
function through(file: FileFacts, book: Book, change: Partial<GuessContext> = {}) {
  const { guess, draft } = openDraft(file, 0, { ...context, ...change }, book.currency);
  const choices = matchAccounts(draft, book.accounts);
  return { guess, draft, choices };
}
const empty = EMPTY.book;
const calendar = calendarFrom(empty.calendar);

/** Takes a file into a book as the page does; the book and its blocks after it. */
async function takeIn(
  content: string | Uint8Array,
  into: { book: Book; blocks: Parameters<typeof balancesOf>[0] } = { book: empty, blocks: [] },
  change: Partial<GuessContext> = {},
) {
  const taken = takeFacts(await facts(content), into, change);
  if (!taken) throw new Error('There is nothing to take in');
  if (taken.refusal) throw new Error(taken.refusal.code);
  return taken;
}
const sums = (r: { book: Book; blocks: Parameters<typeof balancesOf>[0] }, month: string) => {
  const b = balancesOf(r.blocks, calendar);
  const at = Number(month.slice(0, 4)) * 12 + Number(month.slice(5)) - 1;
  return Object.fromEntries(
    r.book.accounts.flatMap((a) => {
      const m = b.movement(a.id, at);
      return m === null ? [] : [[a.name, m]];
    }),
  );
};

describe('the audit file', () => {
  test('accounts, openings, entries, parties and segments come in, and its own totals are held against ours', async () => {
    const r = await takeIn(AUDIT_FILE);
    expect(r.proof).toMatchObject({
      ties: true,
      controlsTied: 2,
      openings: { count: 2, debit: 50000, credit: 50000 },
    });
    expect(sums(r, '2025-03')).toEqual({ 'Bank & cash': 12000, Sales: -12000 });
    expect(r.book.accounts.map((a) => [a.code, a.kind])).toEqual([
      ['1000', 'bank'],
      ['3000', 'equity'],
      ['4000', 'income'],
    ]);
    expect(r.book.axes.map((a) => [a.name, a.values.map((v) => v.name)])).toEqual([['DEPT', ['North']]]);
    expect([...r.settled.mark].map((m) => MARKS[m])).toEqual(['opening', 'opening', 'activity', 'activity']);
  });
  test('a variant without namespace and inner amounts; a total that differs is told', async () => {
    const r = await takeIn(PLAIN_AUDIT_FILE);
    expect(sums(r, '2025-01')).toEqual({ Caixa: 1000, Vendas: -1000 });
    expect(r.proof).toMatchObject({ ties: false, faults: ['controls'] });
    expect(r.proof.controls.find((c) => c.mismatches.length)).toMatchObject({
      label: 'Total credit',
      mismatches: [{ theirs: 900, ours: 1000 }],
    });
  });
  test.each<[string, string, object]>([
    ['cut off', AUDIT_FILE.slice(0, 1800), { code: 'brokenXml' }],
    ['another kind of XML', '<?xml version="1.0"?><html><body/></html>', { code: 'notAnAuditFile' }],
    [
      'entities that unfold without end',
      `<?xml version="1.0"?><!DOCTYPE AuditFile [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;&a;&a;">]><AuditFile>&b;</AuditFile>`,
      { code: 'hostileXml' },
    ],
    ['nested beyond reason', `<AuditFile>${'<a>'.repeat(200_000)}`, { code: 'hostileXml' }],
    ['a text without end', `<AuditFile><a>${'x'.repeat(3_000_000)}</a></AuditFile>`, { code: 'hostileXml' }],
  ])('%s is refused', async (_n, text, issue) =>
    expect(await readFile(bytes(text))).toMatchObject({ ok: false, issue }),
  );
});

describe('trial balances month by month', () => {
  const tb = (month: string, rows: readonly (readonly [string, number, number])[]) =>
    [
      `Trial balance as of ${month}`,
      'Account,Debit,Credit',
      ...rows.map((r) => r.map((v) => v || '').join(',')),
    ].join('\n');
  test('the next one’s activity is what it has more than the book', async () => {
    const january = await takeIn(
      tb('31 January 2025', [
        ['Bank', 130, 0],
        ['Equity', 0, 100],
        ['Sales', 0, 50],
        ['Rent', 20, 0],
      ]),
    );
    expect(sums(january, '2025-01')).toEqual({ Sales: -5000, Rent: 2000 });
    const february = await takeIn(
      tb('28 February 2025', [
        ['Bank', 170, 0],
        ['Equity', 0, 100],
        ['Sales', 0, 110],
        ['Rent', 40, 0],
      ]),
      january,
    );
    expect(february.proof).toMatchObject({ ties: true, lumpFrom: null, overlapping: [] });
    expect(sums(february, '2025-02')).toEqual({ Bank: 4000, Equity: 0, Sales: -6000, Rent: 2000 });
    expect(february.guess.keptFrom).toBeNull();
    // The same month once more, corrected, is told to stand on days that the book has.
    const corrected = await takeIn(
      tb('28 February 2025', [
        ['Bank', 171, 0],
        ['Equity', 0, 100],
        ['Sales', 0, 111],
        ['Rent', 40, 0],
      ]),
      february,
    );
    expect(corrected.proof.overlapping.map((s) => s.fileName)).toEqual(['f1']);
  });
  test('one in the middle of a year with nothing before it holds all months since, and says so', async () => {
    const { proof } = await takeIn(
      tb('31 May 2025', [
        ['Bank', 50, 0],
        ['Sales', 0, 50],
      ]),
    );
    expect(proof.lumpFrom).toBe(2025 * 12);
  });
  test('a sheet a month in a workbook, and books closed in December', async () => {
    const wb = new ExcelJS.Workbook();
    const add = (name: string, rows: (string | number)[][]) => {
      const ws = wb.addWorksheet(name);
      ws.addRow(['Code', 'Account', 'Debit', 'Credit']);
      rows.forEach((r) => ws.addRow(r));
    };
    add('Oct 2025', [
      [1000, 'Bank', 110, ''],
      [3000, 'Retained earnings', '', 100],
      [4000, 'Sales', '', 30],
      [6000, 'Rent', 20, ''],
    ]);
    add('Nov 2025', [
      [1000, 'Bank', 120, ''],
      [3000, 'Retained earnings', '', 100],
      [4000, 'Sales', '', 60],
      [6000, 'Rent', 40, ''],
    ]);
    add('Dec 2025', [
      [1000, 'Bank', 120, ''],
      [3000, 'Retained earnings', '', 120],
      [4000, 'Sales', 0, 0],
      [6000, 'Rent', 0, 0],
    ]);
    const r = await takeIn(new Uint8Array(await wb.xlsx.writeBuffer()));
    expect(r.draft.mapping).toMatchObject({
      shape: 'balances',
      sheets: [{ day: '2025-10-31' }, { day: '2025-11-30' }, { day: '2025-12-31' }],
    });
    expect(sums(r, '2025-11')).toMatchObject({ Bank: 1000, Sales: -3000, Rent: 2000 });
    // In December the accounts were emptied into equity: that is closing, not activity.
    expect(sums(r, '2025-12')).toEqual({ Bank: 0, 'Retained earnings': -2000 });
    expect(r.proof.closings.count).toBe(2);
  });
});

describe('the next file of a shape', () => {
  const first =
    'Date,Ref,Account,Value,Other,Where\n2025-01-05,A,Sales,-10,3,North\n2025-01-05,A,Bank,10,4,North\n';
  test('is read as the last one was, with the corrections that were made then', async () => {
    const file = await facts(first);
    const { guess } = openDraft(file, 0, context, 'EUR');
    if (guess.mapping.shape !== 'entries') throw new Error();
    const corrected = {
      ...guess.mapping,
      columns: guess.mapping.columns.map((c, i) => (i === 5 ? ('segment' as const) : c)),
      sign: 'creditPositive' as const,
    };
    const kept = [{ fileName: 'january.csv', heads: headsOf(file, corrected), mapping: corrected }];
    const next = await facts(first.replaceAll('2025-01', '2025-02'));
    const again = openDraft(next, 0, { ...context, kept }, 'EUR');
    expect(again.guess).toMatchObject({ keptFrom: 'january.csv', doubts: [], mapping: corrected });
    const other = await facts(first.replace('Where', 'Place'));
    expect(openDraft(other, 0, { ...context, kept }, 'EUR').guess.keptFrom).toBeNull();
  });
  test('months across with one month more keep their sign', async () => {
    const file = await facts('Account,Jan 2025,Feb 2025,Total\nSales,1,2,3\n');
    const { guess } = openDraft(file, 0, context, 'EUR');
    const mapping = { ...guess.mapping, sign: 'debitPositive' as const };
    const kept = [{ fileName: 'a', heads: headsOf(file, mapping), mapping }];
    const next = await facts('Account,Jan 2025,Feb 2025,Mar 2025,Total\nSales,1,2,4,7\n');
    const again = applyKept(next, openDraft(next, 0, context, 'EUR').guess, kept);
    expect([again.keptFrom, again.mapping.sign]).toEqual(['a', 'debitPositive']);
    expect(again.mapping.columns.map((c) => (typeof c === 'string' ? c : c.as))).toEqual([
      'account',
      'month',
      'month',
      'month',
      'total',
    ]);
  });
});

describe('accounts that changed their names', () => {
  // Sørensen–Dice by hand: "night" and "nacht" share one pair of letters of four and four: 2 × 1 ÷ 8.
  test('the coefficient by hand', () => expect(likeness('night', 'nacht')).toBe(0.25));
  test('a recoded and a renamed account are proposed, never taken by themselves', async () => {
    const r = await takeIn(
      'Date,Ref,Code,Account,Debit,Credit\n2025-01-05,A,1000,Bank,30,\n2025-01-05,A,4000,Course fees,,10\n2025-01-05,A,4100,Workshop income,,20\n',
    );
    const next = await facts(
      'Date,Ref,Code,Account,Debit,Credit\n2025-02-05,A,1000,Bank,30,\n2025-02-05,A,4001,Course fees,,10\n2025-02-05,A,4105,Workshops income,,15\n2025-02-05,A,4900,Grants,,5\n',
    );
    const { choices } = through(next, r.book);
    const id = (name: string) => r.book.accounts.find((a) => a.name === name)!.id;
    expect(choices.map((c) => [c.existing, c.maybe, c.sure])).toEqual([
      [id('Bank'), null, true],
      [null, { id: id('Course fees'), by: 'name' }, false],
      [null, { id: id('Workshop income'), by: 'likeness' }, false],
      [null, null, true],
    ]);
  });
  test('segments of later files find their values', () => {
    const one = growAxes([], [{ name: 'Site', values: ['', 'N', 'S'] }], 5);
    expect(one.axes.map((a) => [a.id, a.values.map((v) => v.id)])).toEqual([['x5', ['v6', 'v7']]]);
    const two = growAxes(one.axes, [{ name: 'site', values: ['', 'S', 'E'] }], one.nextId);
    expect(two.axes[0]!.values.map((v) => v.name)).toEqual(['N', 'S', 'E']);
    expect(growAxes(two.axes, [{ name: 'Site', values: ['', 'S'] }], two.nextId).axes).toBe(two.axes);
    // A value made by hand does not move the book's numbers on: a file's values must not get its id.
    const byHand = addSegment(two.axes[0]!, 'Hall', two.nextId);
    const three = growAxes([byHand], [{ name: 'Site', values: ['', 'W'] }], two.nextId).axes[0]!;
    expect(new Set(three.values.map((v) => v.id)).size).toBe(5);
    const fed = feedFromColumn(three, 'Place', ['', 'Hall', 'Quay', 'Quay'], two.nextId);
    expect(fed.columns).toEqual(['Site', 'Place']);
    expect(fed.values.slice(-3).map((v) => [v.name, v.from])).toEqual([
      ['Hall', ['Hall']],
      ['W', ['W']],
      ['Quay', ['Quay']],
    ]);
  });
});

describe('hostile files', () => {
  // The Encoding Standard's names of encodings; the euro sign is A4 in ISO 8859-15 and not in ISO 8859-1.
  test.each([
    ['ISO-8859-15', 0xa4, '€'],
    ['iso-8859-1', 0xa4, '¤'],
    ['windows-1250', 0xb9, 'ą'],
    ['ISO-8859-2', 0xb1, 'ą'],
    ['koi8-r', 0xc1, 'а'],
  ])('an audit file in %s is read', async (encoding, byte, letter) => {
    const text = AUDIT_FILE.replace('UTF-8', encoding).replaceAll('Sales', 'Sal~es');
    const r = await takeIn(Uint8Array.from(text, (c) => (c === '~' ? byte : c.charCodeAt(0))));
    expect(r.book.accounts.map((a) => a.name)).toContain(`Sal${letter}es`);
  });
  test('one in an encoding that is not known is refused by its name', async () =>
    expect(await readFile(bytes(AUDIT_FILE.replace('UTF-8', 'x-nowhere')))).toEqual({
      ok: false,
      issue: { code: 'unknownEncoding', encoding: 'x-nowhere' },
    }));
  test('a million columns', async () =>
    expect(
      await readFile(bytes(`Account${',1'.repeat(1_000_000)}\nSales${',1'.repeat(1_000_000)}\n`)),
    ).toEqual({
      ok: false,
      issue: { code: 'tooManyColumns' },
    }));
  test('names that are formulas, markup or of the language’s own objects stay plain text', async () => {
    const r = await takeIn(
      'Date,Ref,Account,Debit,Credit,__proto__\n2025-01-05,=1+1,=HYPERLINK("x"),10,,constructor\n2025-01-05,=1+1,<img src=x onerror=alert(1)>,,10,toString\n',
    );
    expect(r.book.accounts.map((a) => a.name)).toEqual(['=HYPERLINK("x")', '<img src=x onerror=alert(1)>']);
    expect(({} as Record<string, unknown>).constructor).toBe(Object);
  });
});

/** Any small ledger of four accounts over a year, written in each shape, must read back as the same monthly balances. */
const NAMES = ['Bank', 'Retained earnings', 'Sales', 'Rent'];
const year = fc.array(
  fc.record({
    month: fc.integer({ min: 1, max: 12 }),
    sales: fc.integer({ min: 1, max: 1e7 }),
    rent: fc.integer({ min: 1, max: 1e6 }),
  }),
  { minLength: 6, maxLength: 20 },
);
const text = (v: number) => plainDecimal(minor(v), 'EUR');
const end = (m: number) => `2025-${String(m).padStart(2, '0')}-${daysInMonth(2025, m)}`;

test('any ledger, in whichever shape it is written, reads back as the same monthly balances', async () => {
  await fc.assert(
    fc.asyncProperty(year, async (lines) => {
      // Months 1 to 12: movements of [bank, retained earnings, sales, rent], debits positive.
      const moved = Array.from({ length: 12 }, () => [0, 0, 0, 0]);
      for (const { month, sales, rent } of lines) {
        const m = moved[month - 1]!;
        m[0]! += sales - rent;
        m[2]! -= sales;
        m[3]! += rent;
      }
      const active = moved.map((m) => m[2] !== 0);
      const heads = moved.map((_, i) => end(i + 1)).join(',');
      const entries = [
        'Date,Ref,Account,Amount',
        ...lines.flatMap(({ month, sales, rent }, i) => [
          `${end(month)},R${i},Bank,${text(sales - rent)}`,
          `${end(month)},R${i},Sales,${text(-sales)}`,
          `${end(month)},R${i},Rent,${text(rent)}`,
        ]),
      ].join('\n');
      const marked = [
        'Date,Ref,Account,Amount,D/C',
        ...lines.flatMap(({ month, sales, rent }, i) => [
          `${end(month)},R${i},Bank,${text(Math.abs(sales - rent))},${sales >= rent ? 'D' : 'C'}`,
          `${end(month)},R${i},Sales,${text(sales)},C`,
          `${end(month)},R${i},Rent,${text(rent)},D`,
        ]),
      ].join('\n');
      const statement = [
        `Account,${heads}`,
        ...[2, 3].map((a) => [NAMES[a], ...moved.map((m) => text(a === 2 ? -m[a]! : m[a]!))].join(',')),
      ].join('\n');
      const running = moved.map((_, i) =>
        NAMES.map((_n, a) => moved.slice(0, i + 1).reduce((t, m) => t + m[a]!, 0)),
      );
      const trial = [
        'Trial balance',
        `Account,${heads}`,
        ...NAMES.map((n, a) => [n, ...running.map((r) => text(r[a]!))].join(',')),
      ].join('\n');
      const xml = `<AuditFile><MasterFiles><GeneralLedgerAccounts>${NAMES.map(
        (n, a) =>
          `<Account><AccountID>${a + 1}</AccountID><AccountDescription>${n}</AccountDescription></Account>`,
      ).join('')}</GeneralLedgerAccounts></MasterFiles><GeneralLedgerEntries><Journal>${lines
        .map(
          ({ month, sales, rent }, i) =>
            `<Transaction><TransactionID>${i}</TransactionID><TransactionDate>${end(month)}</TransactionDate>${[
              [1, sales - rent],
              [3, -sales],
              [4, rent],
            ]
              .map(
                ([a, v]) =>
                  `<Line><AccountID>${a}</AccountID><${v! >= 0 ? 'Debit' : 'Credit'}Amount>${text(Math.abs(v!))}</${v! >= 0 ? 'Debit' : 'Credit'}Amount></Line>`,
              )
              .join('')}</Transaction>`,
        )
        .join('')}</Journal></GeneralLedgerEntries></AuditFile>`;
      for (const [shape, content, ids] of [
        ['entries', entries, [0, 2, 3]],
        ['entries with marks', marked, [0, 2, 3]],
        ['months', statement, [2, 3]],
        ['trial balances', trial, [2, 3]],
        ['audit file', xml, [0, 2, 3]],
      ] as const) {
        const r = await takeIn(content);
        expect([shape, r.proof.ties]).toEqual([shape, true]);
        const b = balancesOf(r.blocks, calendar);
        for (let m = 0; m < 12; m++)
          for (const a of ids) {
            const account = r.book.accounts.find((x) => x.name === NAMES[a]);
            const got = account ? (b.movement(account.id, 2025 * 12 + m) ?? 0) : 0;
            if (active[m] || shape === 'months' || shape === 'trial balances')
              expect([shape, m + 1, NAMES[a], got]).toEqual([shape, m + 1, NAMES[a], moved[m]![a]! || 0]);
          }
      }
    }),
    { numRuns: 20 },
  );
});

test('the last days of months are where whole-month amounts are put', () =>
  expect(dayNumberOf(2025, 12, 31)).toBe(20453));
