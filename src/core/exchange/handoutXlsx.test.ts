import fc from 'fast-check';
import JSZip from 'jszip';
import ExcelJS, { type Worksheet } from 'exceljs';
import { HyperFormula } from 'hyperformula';
import { makeGround, type Ground } from '@/core/ground';
import {
  anchorIn,
  compareReturn,
  draftOf,
  handedLines,
  handoutPage,
  linesToHand,
  mergeOf,
  NO_PICKS,
  pageRows,
  readReturn,
  roundPeriods,
  USUAL_MEANING,
  yearBeforeOf,
  type ComparedLine,
  type Meaning,
  type Picks,
  type Reading,
} from '@/core/handout';
import {
  applyCommand,
  newAccount,
  type Book,
  type Budget,
  type Handout,
  type Return,
  type Round,
} from '@/core/model';
import type { PeriodId } from '@/core/calendar';
import { minor, type Minor } from '@/core/money';
import { gridOf, readFile, writeDelimited, type GridCell } from '@/core/files';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  didAll,
  line,
  periodIds,
  siteAxis,
  sourceOf,
} from '@/core/test/build';
import { HANDOUT_WORDS as WORDS } from '@/core/test/handout';
import { handoutXlsx } from './handoutXlsx';

/* Workbooks that were handed out, and what people do to them before they come back. */

const accounts = [
  account('sales', 'income', 'Berth fees', '4010'),
  account('shop', 'income', 'Shop sales', '4020'),
  account('rent', 'expense', 'Rent', '6100'),
  account('power', 'expense', 'Power', '6200'),
  account('wages', 'expense', 'Yard wages', '6010'),
  account('bank', 'bank', 'Bank', '1000'),
];
const ids = periodIds(2026);
const at = (of: (m: number) => number) => byMonth(Object.fromEntries(ids.map((p, m) => [p, minor(of(m))])));
const budget = budgetOf(
  [
    line(
      'sales',
      at((m) => 100_00 + m),
    ),
    line(
      'shop',
      at(() => 50_00),
    ),
    line(
      'rent',
      at(() => 20_00),
    ),
    line('power', byMonth({ [ids[0]!]: minor(5_00) })),
    line(
      'wages',
      at(() => 300_00),
    ),
  ],
  'b1',
);
const block = blockOf(accounts, [
  ['2025-01-15', 'sales', 90_00],
  ['2025-02-15', 'sales', 30_00],
  ['2025-01-15', 'rent', 18_00],
]);
const groundOf = (budgets: readonly Budget[] = [budget], change: Partial<Book> = {}): Ground =>
  makeGround(
    bookWith(accounts, {
      budgets: [...budgets],
      sources: [sourceOf()],
      closedThrough: periodIds(2025)[11]!,
      ...change,
    }),
    new Map([[block.id, block]]),
  );
const ground = groundOf();

function handed(change: Partial<Round> = {}, of: Ground = ground, plan: Budget = budget) {
  const plain: Round = {
    id: 'u1',
    name: 'Spring round',
    budget: plan.id,
    asks: 'Ines',
    address: '',
    due: null,
    message: '',
    first: ids[0]!,
    length: 12,
    answer: 'months',
    shows: { lastYear: true, draft: true, notes: false },
    handouts: [],
    ...change,
  };
  const lines = linesToHand(of, plan, () => true, false);
  const handout: Handout = {
    id: 'h1',
    to: 'North Yard',
    address: '',
    lines: handedLines(
      of,
      plan,
      plain,
      lines.map((l) => ({ ...l, target: l.account === 'rent' ? minor(200_00) : null })),
    ),
    sent: null,
    reminders: 0,
    returns: [],
  };
  const round = { ...plain, handouts: [handout] };
  return { round, handout, page: handoutPage(of, plan, round, handout, WORDS) };
}

const readGround = ({ round, handout }: ReturnType<typeof handed>, of: Ground = ground) => ({
  periods: roundPeriods(calendar, round),
  answer: round.answer,
  lines: handout.lines,
  accounts,
  axis: of.book.axes.find((a) => a.id === of.book.budgets[0]!.axis) ?? null,
  calendar,
  currency: 'USD',
  prefer: { decimal: '.', group: ',' } as const,
});

type Made = ReturnType<typeof handed>;
async function readBytes(made: Made, bytes: Uint8Array, of: Ground = ground) {
  const file = await readFile(bytes, { told: true });
  if (!file.ok) throw new Error(file.issue.code);
  const { grids } = file.file;
  return { anchor: anchorIn(grids), reading: readReturn(grids, readGround(made, of)) };
}

/** The workbook after something was done to it. */
async function after(
  made: Made,
  change: (sheet: Worksheet, workbook: ExcelJS.Workbook) => void,
  of: Ground = ground,
) {
  const workbook = new ExcelJS.Workbook();
  await workbook.xlsx.load((await handoutXlsx(made.page)) as unknown as ArrayBuffer);
  change(workbook.getWorksheet('Please fill')!, workbook);
  return readBytes(made, new Uint8Array(await workbook.xlsx.writeBuffer()), of);
}

const asReturn = (reading: Reading, fingerprint = 'a'.repeat(64)): Return => ({
  fingerprint,
  fileName: 'return.xlsx',
  at: 't',
  merged: null,
  known: reading.known,
  lines: [...reading.lines],
  own: [...reading.own],
  strays: [...reading.strays],
  without: [...reading.without],
});

function compared(
  made: Made,
  reading: Reading,
  change: { meaning?: Partial<Meaning>; picks?: Picks; of?: Ground; plan?: Budget } = {},
): { lines: ComparedLine[]; merged: ReturnType<typeof mergeOf> } {
  const { of = ground, plan = of.book.budgets[0]! } = change;
  const c = {
    round: made.round,
    handout: made.handout,
    returned: asReturn(reading),
    periods: roundPeriods(calendar, made.round),
    draft: draftOf(of, plan, made.round),
    lastYear: yearBeforeOf(of, plan, made.round).of,
    meaning: { ...USUAL_MEANING, ...change.meaning },
    picks: change.picks ?? NO_PICKS,
  };
  const lines = compareReturn(c);
  return { lines, merged: mergeOf(lines, c) };
}

const made = handed();
const { columns } = made.page;
/** A cell of the sheet by line and month; months count from 1. */
const monthColumn = (month: number) => columns.findIndex((c) => c.kind === 'input') + 1 + month;
const commentColumn = columns.findIndex((c) => c.kind === 'comment') + 2;
const rowOf = (sheet: Worksheet, name: string): number => {
  for (let r = 1; r <= sheet.rowCount; r++)
    for (let c = 2; c <= 4; c++) if (sheet.getCell(r, c).value === name) return r;
  throw new Error(name);
};
const cellOf = (sheet: Worksheet, name: string, month: number) =>
  sheet.getCell(rowOf(sheet, name), monthColumn(month));
/** What goes in, as "account period amount". */
const goes = (of: ReturnType<typeof compared>) =>
  of.merged.cells.map((c) => `${c.account} ${c.period.slice(-2)} ${c.value}`);
const strays = (reading: Reading) => reading.strays.map((s) => `${s.code} ${s.what}`);

test('handed out and taken back unchanged, nothing changes; pay stays in unless it is asked for', async () => {
  expect(made.handout.lines.map((l) => l.account)).toEqual(['sales', 'shop', 'rent', 'power']);
  expect(linesToHand(ground, budget, () => true, true)).toHaveLength(5);
  const { anchor, reading } = await readBytes(made, await handoutXlsx(made.page));
  expect(anchor).toMatchObject({ book: ground.book.id, round: 'u1', handout: 'h1' });
  expect(reading).toMatchObject({ known: 'identity', own: [], strays: [], without: [] });
  const { lines, merged } = compared(made, reading);
  expect(lines).toHaveLength(4);
  expect(merged).toMatchObject({ cells: [], counts: { in: 0, same: 48, unread: 0, open: 0 }, off: 0 });
  // Power has one month; the others are blank and say nothing.
  expect(merged.read).toBe(1200_00 + 66 + 600_00 + 240_00 + 5_00);
});

type Done = {
  readonly name: string;
  readonly change: (sheet: Worksheet, workbook: ExcelJS.Workbook) => void;
  readonly goes?: readonly string[];
  readonly strays?: readonly string[];
  readonly known?: Reading['known'];
  readonly unread?: readonly string[];
};
/** Each with one thing done to it that people do. */
const DONE: readonly Done[] = [
  {
    name: 'an amount typed over, a month made blank, a zero',
    change(sheet) {
      cellOf(sheet, 'Rent', 3).value = 25;
      cellOf(sheet, 'Berth fees', 1).value = null;
      cellOf(sheet, 'Shop sales', 2).value = 0;
    },
    goes: ['shop 02 0', 'rent 03 2500'],
  },
  {
    name: 'rows sorted, the whole sheet with them',
    change(sheet) {
      const [a, b] = [rowOf(sheet, 'Berth fees'), rowOf(sheet, 'Power')];
      const [first, last] = [sheet.getRow(a).values, sheet.getRow(b).values];
      sheet.getRow(a).values = last;
      sheet.getRow(b).values = first;
      cellOf(sheet, 'Power', 2).value = 6;
    },
    goes: ['power 02 600'],
  },
  {
    name: 'rows sorted without the hidden column: the names are believed',
    change(sheet) {
      const [a, b] = [rowOf(sheet, 'Berth fees'), rowOf(sheet, 'Rent')];
      for (let c = 2; c <= sheet.columnCount; c++) {
        const [one, other] = [sheet.getCell(a, c).value, sheet.getCell(b, c).value];
        sheet.getCell(a, c).value = other;
        sheet.getCell(b, c).value = one;
      }
    },
    goes: [],
    strays: ['label Rent', 'label Berth fees'],
  },
  {
    name: 'a row and a column inserted',
    change(sheet) {
      sheet.spliceRows(6, 0, []);
      sheet.spliceColumns(4, 0, []);
      sheet.getCell(rowOf(sheet, 'Rent'), monthColumn(12) + 1).value = 30;
    },
    goes: ['rent 12 3000'],
  },
  {
    name: 'months renamed, the sheet renamed',
    change(sheet) {
      for (let m = 1; m <= 12; m++) sheet.getCell(4, monthColumn(m)).value = `M${m}`;
      sheet.name = 'Copy of (2)';
      cellOf(sheet, 'Rent', 5).value = 21;
    },
    goes: ['rent 05 2100'],
  },
  {
    name: 'two heads of months exchanged: what one reads there is believed',
    change(sheet) {
      sheet.getCell(4, monthColumn(1)).value = 'Feb 2026';
      sheet.getCell(4, monthColumn(2)).value = 'Jan 2026';
    },
    goes: ['sales 01 10001', 'sales 02 10000', 'power 02 500'],
  },
  {
    name: 'values pasted as texts with blanks and currency signs',
    change(sheet) {
      cellOf(sheet, 'Rent', 1).value = '$ 1 234.50';
      cellOf(sheet, 'Rent', 2).value = ' 22.00 ';
      cellOf(sheet, 'Rent', 3).value = '20.00 USD';
      cellOf(sheet, 'Rent', 4).value = '   ';
    },
    goes: ['rent 01 123450', 'rent 02 2200'],
  },
  {
    name: 'costs typed as negatives',
    change(sheet) {
      for (let m = 1; m <= 12; m++) cellOf(sheet, 'Rent', m).value = -21;
    },
    goes: Array.from({ length: 12 }, (_, m) => `rent ${String(m + 1).padStart(2, '0')} 2100`),
  },
  {
    name: 'one negative month of a cost stays one',
    change(sheet) {
      cellOf(sheet, 'Rent', 1).value = -21;
    },
    goes: ['rent 01 -2100'],
  },
  {
    name: 'months merged into one cell',
    change(sheet) {
      const r = rowOf(sheet, 'Shop sales');
      sheet.mergeCells(r, monthColumn(1), r, monthColumn(3));
      sheet.getCell(r, monthColumn(1)).value = 150;
    },
    goes: ['shop 01 15000'],
  },
  {
    name: 'rows hidden',
    change(sheet) {
      sheet.getRow(rowOf(sheet, 'Rent')).hidden = true;
      cellOf(sheet, 'Rent', 1).value = 19;
    },
    goes: ['rent 01 1900'],
  },
  {
    name: 'formulas, with a saved result (of another workbook) and with none',
    change(sheet) {
      cellOf(sheet, 'Rent', 1).value = {
        formula: "'[other.xlsx]Sheet1'!A1",
        result: 24.999,
      } as ExcelJS.CellValue;
      cellOf(sheet, 'Rent', 2).value = { formula: '10+12' } as ExcelJS.CellValue;
      cellOf(sheet, 'Rent', 3).value = { error: '#REF!' } as ExcelJS.CellValue;
    },
    goes: ['rent 01 2500'],
    unread: ['formula =', 'error #REF!'],
  },
  {
    name: 'a percentage, a day and words in cells of amounts',
    change(sheet) {
      const percent = cellOf(sheet, 'Rent', 1);
      percent.value = 0.05;
      percent.style = { ...percent.style, numFmt: '0%' };
      const day = cellOf(sheet, 'Rent', 2);
      day.value = new Date('2026-03-01T00:00:00Z');
      day.style = { ...day.style, numFmt: 'yyyy-mm-dd' };
      cellOf(sheet, 'Rent', 3).value = 'ask Tom';
    },
    goes: [],
    unread: ['percent 5%', 'date 2026-03-01', 'text ask Tom'],
  },
  {
    name: 'the marks removed: codes, names and months tell',
    change(sheet) {
      sheet.spliceColumns(1, 1);
      sheet.spliceRows(3, 1);
      sheet.getCell(rowOf(sheet, 'Rent'), monthColumn(1) - 1).value = 26;
    },
    goes: ['rent 01 2600'],
    known: 'names',
  },
  {
    name: 'half the lines taken out',
    change(sheet) {
      sheet.spliceRows(rowOf(sheet, 'Berth fees'), 2);
      cellOf(sheet, 'Rent', 1).value = 27;
    },
    goes: ['rent 01 2700'],
  },
  {
    name: 'the same line twice: the first counts, the second is told',
    change(sheet) {
      const copy = sheet.getRow(rowOf(sheet, 'Rent')).values as ExcelJS.CellValue[];
      sheet.insertRow(rowOf(sheet, 'Power'), [...copy]);
      cellOf(sheet, 'Rent', 1).value = 28;
    },
    goes: ['rent 01 2800'],
    strays: ['twice Rent'],
  },
  {
    name: 'a line that is not theirs',
    change(sheet) {
      sheet.insertRow(rowOf(sheet, 'Power'), [null, '6010', 'Yard wages', null, null, null, 500]);
    },
    goes: [],
    strays: ['notTheirs Yard wages'],
  },
  {
    name: 'a row far below, with nothing between',
    change(sheet) {
      sheet.getCell(90_000, 3).value = 'Fenders';
      sheet.getCell(90_000, monthColumn(1)).value = 7;
    },
    goes: [],
  },
  {
    name: 'a name changed: its mark is believed, and it is told',
    change(sheet) {
      const r = rowOf(sheet, 'Rent');
      sheet.getCell(r, 2).value = null;
      sheet.getCell(r, 3).value = 'Quay hire';
      sheet.getCell(r, monthColumn(1)).value = 29;
    },
    goes: ['rent 01 2900'],
    strays: ['label Quay hire'],
  },
];

test.each(DONE)(
  '$name',
  async ({ change, goes: expected, strays: told = [], known = 'identity', unread = [] }) => {
    const { reading } = await after(made, change);
    expect(reading.known).toBe(known);
    const all = compared(made, reading);
    expect(goes(all)).toEqual(expected);
    expect(strays(reading)).toEqual(told);
    const odd = all.lines.flatMap((l) =>
      l.cells.flatMap((c) => (c.state === 'unread' ? [`${c.theirs.is} ${c.theirs.raw}`] : [])),
    );
    expect(odd).toEqual(unread);
    // Their own totals, as far as their program reckoned them again, are what we read.
    expect(all.merged.counts.unread).toBe(unread.length);
  },
);

describe('files', () => {
  test('as CSV of a decimal-comma locale', async () => {
    const rows = pageRows(made.page, (a) => (a / 100).toFixed(2).replace('.', ','));
    const rent = rows.findIndex((r) => r.includes('Rent'));
    const first = rows[0]!.findIndex((c) => c.startsWith('tellan month'));
    rows[rent]![first] = '1.234,50';
    const text = rows.map((r) => r.map((c) => `"${c}"`).join(';')).join('\r\n');
    const { anchor, reading } = await readBytes(made, new TextEncoder().encode(text));
    expect(anchor?.handout).toBe('h1');
    expect(goes(compared(made, reading))).toEqual(['rent 01 123450']);
    // And of one with a point.
    const plain = writeDelimited(pageRows(made.page, (a) => (a / 100).toFixed(2)));
    expect(goes(compared(made, (await readBytes(made, new TextEncoder().encode(plain))).reading))).toEqual(
      [],
    );
  });

  test('a sheet of someone’s own: names and months as a person writes them', async () => {
    const text =
      'Item,Jan-26,Feb-26,Dec 2026,Jan 2027\nberth  fees,110,,5,9\nElectricity,4,4,4,4\nTotal,114,4,9,13\n';
    const { anchor, reading } = await readBytes(made, new TextEncoder().encode(text));
    expect(anchor).toBeNull();
    expect(reading).toMatchObject({ known: 'names' });
    expect(reading.without).toHaveLength(9);
    expect(strays(reading)).toEqual(['monthOutside Jan 2027']);
    expect(goes(compared(made, reading))).toEqual(['sales 01 11000', 'sales 12 500']);
    expect(reading.own.map((o) => [o.name, o.cells[0]!.amount, o.cells[11]!.amount])).toEqual([
      ['Electricity', 400, 400],
    ]);
  });

  test('a damaged archive and a file of nothing are refused in a word', async () => {
    const bytes = await handoutXlsx(made.page);
    expect(await readFile(bytes.slice(0, 900))).toMatchObject({
      ok: false,
      issue: { code: 'brokenWorkbook' },
    });
    expect(await readFile(new Uint8Array())).toMatchObject({ ok: false, issue: { code: 'emptyFile' } });
  });

  test('another book’s sheet says so; an older round has another checksum', async () => {
    const other = handed({ id: 'u0' });
    const { anchor } = await readBytes(other, await handoutXlsx(other.page));
    expect(anchor?.round).toBe('u0');
    const fewer = handed({ length: 6 });
    const again = await readBytes(fewer, await handoutXlsx(fewer.page));
    expect(again.anchor?.checksum).not.toBe(made.page.anchor.split(' ').at(-1));
  });
});

describe('lines of their own, comments, targets', () => {
  test('rows of their own with a kind and a comment; a comment on a line', async () => {
    const { reading } = await after(made, (sheet) => {
      const own = rowOf(sheet, 'Total costs') + 1;
      sheet.getCell(own, 3).value = 'New moorings';
      sheet.getCell(own, 4).value = 'Income';
      sheet.getCell(own, monthColumn(2)).value = 80;
      sheet.getCell(own + 1, 3).value = 'Divers';
      sheet.getCell(own + 1, monthColumn(1)).value = 12;
      sheet.getCell(rowOf(sheet, 'Rent'), commentColumn).value = 'Landlord wrote in May';
    });
    expect(reading.own.map((o) => [o.name, o.income, o.cells.map((c) => c.amount).filter(Boolean)])).toEqual([
      ['New moorings', true, [80_00]],
      ['Divers', false, [12_00]],
    ]);
    expect(reading.lines.find((l) => l.account === 'rent')!.comment).toBe('Landlord wrote in May');
  });

  test('beyond what they were asked to stay within', async () => {
    const { reading } = await after(made, () => undefined);
    // Twelve times twenty is beyond two hundred.
    expect(compared(made, reading).lines.map((l) => [l.account, l.beyond])).toEqual([
      ['sales', false],
      ['shop', false],
      ['rent', true],
      ['power', false],
    ]);
  });

  test('a total of theirs that is not what was read is told', async () => {
    const { reading } = await after(made, (sheet) => {
      cellOf(sheet, 'Rent', 1).value = 'n/a';
    });
    expect(compared(made, reading).merged.off).toBe(20_00);
  });
});

describe('what goes in', () => {
  const changed = () =>
    after(made, (sheet) => {
      cellOf(sheet, 'Rent', 1).value = 25;
      cellOf(sheet, 'Rent', 2).value = null;
      cellOf(sheet, 'Power', 2).value = 0;
    });

  test.each<[string, Partial<Meaning>, readonly string[]]>([
    ['blank says nothing, zero is zero', {}, ['rent 01 2500', 'power 02 0']],
    ['blank is blank', { blank: 'clear' }, ['rent 01 2500', 'rent 02 null', 'power 02 0']],
    ['zero says nothing', { zero: 'leave' }, ['rent 01 2500']],
  ])('%s', async (_, meaning, expected) => {
    const { reading } = await changed();
    expect(goes(compared(made, reading, { meaning }))).toEqual(expected);
  });

  test('a blank as zero is a zero where something was', async () => {
    const { reading } = await changed();
    expect(goes(compared(made, reading, { meaning: { blank: 'zero' } }))).toContain('rent 02 0');
  });

  test('on top of what is there', async () => {
    const empty = handed({ shows: { lastYear: false, draft: false, notes: false } });
    const { reading } = await after(empty, (sheet) => {
      const first = empty.page.columns.findIndex((c) => c.kind === 'input') + 2;
      sheet.getCell(rowOf(sheet, 'Rent'), first).value = 3;
    });
    expect(goes(compared(empty, reading, { meaning: { how: 'add' } }))).toEqual(['rent 01 2300']);
    expect(goes(compared(empty, reading))).toEqual(['rent 01 300']);
    // Of a sheet that showed the draft what they changed goes on top, also of what we changed.
    const shown = await changed();
    const edited = didAll(ground.book, {
      type: 'setCells',
      budget: 'b1',
      how: 'typed',
      cells: [{ account: 'rent', segment: null, period: ids[0]!, value: minor(22_00) }],
    });
    const of = makeGround(edited, new Map([[block.id, block]]));
    const added = compared(made, shown.reading, { of, meaning: { how: 'add' } });
    expect([goes(added), added.merged.counts.open]).toEqual([['rent 01 2700'], 0]);
  });

  test('the draft changed since: a conflict, which goes in only as someone says', async () => {
    const { reading } = await changed();
    const edited = didAll(ground.book, {
      type: 'setCells',
      budget: 'b1',
      how: 'typed',
      cells: [{ account: 'rent', segment: null, period: ids[0]!, value: minor(22_00) }],
    });
    const of = makeGround(edited, new Map([[block.id, block]]));
    const open = compared(made, reading, { of });
    expect(open.merged.counts).toMatchObject({ open: 1 });
    expect(goes(open)).toEqual(['power 02 0']);
    const picks = (side: 'theirs' | 'ours' | 'handed'): Picks => ({
      cells: new Map(
        [['rent#0', side]].map(([k, s]) => [k!.replace('rent', lineKeyOf('rent')), s as typeof side]),
      ),
      lines: new Map(),
    });
    expect(goes(compared(made, reading, { of, picks: picks('theirs') }))).toContain('rent 01 2500');
    expect(goes(compared(made, reading, { of, picks: picks('handed') }))).toContain('rent 01 2000');
    const ours = compared(made, reading, { of, picks: picks('ours') });
    expect([goes(ours), ours.merged.counts.open]).toEqual([['power 02 0'], 0]);
  });

  test('an amount for the year falls as they say', async () => {
    const whole = handed({ answer: 'whole' });
    const column = whole.page.columns.findIndex((c) => c.kind === 'input') + 2;
    const of = async (spread: string) => {
      const { reading } = await after(whole, (sheet) => {
        sheet.getCell(rowOf(sheet, 'Berth fees'), column).value = 120;
        sheet.getCell(rowOf(sheet, 'Berth fees'), column + 1).value = spread;
      });
      return compared(whole, reading)
        .merged.cells.filter((c) => c.account === 'sales')
        .map((c) => c.value);
    };
    expect(await of('Evenly')).toEqual(new Array(12).fill(10_00));
    expect((await of('As last year')).slice(0, 3)).toEqual([90_00, 30_00, 0]);
    const draft = await of('As the draft');
    expect(draft.reduce((t: number, v) => t + v!, 0)).toBe(120_00);
    expect(draft[11]).toBeGreaterThan(draft[0]!);
  });

  test('merged as one change, undone as one; two answers come to one result or to the same conflict in either order', async () => {
    const back = async (month: number, amount: number, fingerprint: string): Promise<Return> =>
      asReturn(
        (await after(made, (sheet) => void (cellOf(sheet, 'Rent', month).value = amount))).reading,
        fingerprint.repeat(64),
      );
    const [a, b, clash] = [await back(1, 30, 'a'), await back(2, 31, 'b'), await back(1, 32, 'c')];
    const start = didAll(ground.book, { type: 'setRound', round: made.round });
    const take = (book: Book, returned: Return) => {
      const taken = didAll(book, { type: 'takeReturn', round: 'u1', handout: 'h1', returned });
      const of = makeGround(taken, new Map([[block.id, block]]));
      const { merged } = compared(made, { ...returned, known: 'identity' }, { of });
      const applied = applyCommand(taken, {
        type: 'mergeReturn',
        round: 'u1',
        handout: 'h1',
        fingerprint: returned.fingerprint,
        at: 't2',
        cells: merged.cells,
        notes: [],
        own: [],
        said: 'North Yard’s return',
      });
      if (!applied.ok) throw new Error(applied.refusal.code);
      return { book: applied.book, merged };
    };
    const rent = (book: Book) => {
      const of = makeGround(book, new Map([[block.id, block]]));
      return draftOf(of, book.budgets[0]!, made.round)({ account: 'rent', segment: null }).slice(0, 2);
    };
    expect(rent(take(take(start, a).book, b).book)).toEqual([30_00, 31_00]);
    expect(rent(take(take(start, b).book, a).book)).toEqual([30_00, 31_00]);
    for (const [first, second] of [
      [a, clash],
      [clash, a],
    ] as const) {
      const one = take(start, first);
      const two = take(one.book, second);
      expect(two.merged.counts.open).toBe(1);
      expect(rent(two.book)).toEqual(rent(one.book));
    }
    expect(
      applyCommand(take(start, a).book, { type: 'takeReturn', round: 'u1', handout: 'h1', returned: a }),
    ).toMatchObject({ ok: false, refusal: { code: 'alreadyTakenIn' } });
  });
});

test('a line of their own becomes an account and a line with its figures, or is left', async () => {
  const { reading } = await after(made, (sheet) => {
    const own = rowOf(sheet, 'Total costs') + 1;
    for (const [i, name] of ['Mast storage', 'Divers'].entries()) {
      sheet.getCell(own + i, 3).value = name;
      sheet.getCell(own + i, monthColumn(2)).value = 80;
    }
  });
  const returned = asReturn(reading);
  const taken = didAll(
    ground.book,
    { type: 'setRound', round: made.round },
    { type: 'takeReturn', round: 'u1', handout: 'h1', returned },
  );
  const fresh = newAccount('a99', '', 'Mast storage', 'income');
  const line = { account: 'a99', segment: null };
  const merge = (cells: readonly { period: PeriodId; value: Minor }[]) =>
    didAll(taken, {
      type: 'mergeReturn',
      round: 'u1',
      handout: 'h1',
      fingerprint: returned.fingerprint,
      at: 't2',
      cells: cells.map((c) => ({ ...line, ...c })),
      notes: [{ account: 'rent', segment: null, note: { text: 'Landlord', by: 'North Yard', at: 't2' } }],
      own: [
        { place: 0, line, account: fresh },
        { place: 1, line: null, account: null },
      ],
      said: 'North Yard’s return',
    });
  for (const cells of [[{ period: ids[1]!, value: minor(80_00) }], []]) {
    const book = merge(cells);
    const { lines } = book.budgets[0]!;
    expect(book.accounts.at(-1)).toEqual(fresh);
    expect(lines.filter((l) => l.account === 'a99')).toMatchObject([
      { method: { kind: 'byMonth', amounts: Object.fromEntries(cells.map((c) => [c.period, c.value])) } },
    ]);
    expect(lines.find((l) => l.account === 'rent')!.note?.text).toBe('Landlord');
    expect(book.rounds[0]!.handouts[0]!.returns[0]).toMatchObject({
      merged: 't2',
      own: [{ done: true }, { done: true }],
    });
  }
});

test('of a budget by segment each line is its segment’s', async () => {
  const bySite = budgetOf(
    [
      line(
        'rent',
        at(() => 20_00),
        {},
        'n',
      ),
      line(
        'rent',
        at(() => 10_00),
        {},
        null,
      ),
    ],
    'b1',
    { axis: 'x', segments: ['n', null] },
  );
  const of = groundOf([bySite], { axes: [siteAxis()] });
  const sheets = handed({}, of, bySite);
  const { reading } = await after(
    sheets,
    (sheet) => {
      const r = rowOf(sheet, 'Rent, North');
      sheet.getCell(r, sheets.page.columns.findIndex((c) => c.kind === 'input') + 2).value = 99;
    },
    of,
  );
  expect(compared(sheets, reading, { of, plan: bySite }).merged.cells).toEqual([
    { account: 'rent', segment: 'n', period: ids[0], value: 99_00 },
  ]);
});

test('the workbook reckons itself: a general spreadsheet engine comes to our totals, to the cent', async () => {
  const workbook = new ExcelJS.Workbook();
  await workbook.xlsx.load((await handoutXlsx(made.page)) as unknown as ArrayBuffer);
  const sheets = Object.fromEntries(
    workbook.worksheets.map((s) => [
      s.name,
      Array.from({ length: s.rowCount }, (_, r) =>
        Array.from({ length: s.columnCount }, (_, c): GridCell | null => {
          const { value } = s.getCell(r + 1, c + 1);
          if (value !== null && typeof value === 'object' && 'formula' in value) return `=${value.formula}`;
          return typeof value === 'number' || typeof value === 'string' ? value : null;
        }),
      ),
    ]),
  );
  const engine = HyperFormula.buildFromSheets(sheets, { licenseKey: 'gpl-v3' });
  for (const s of workbook.worksheets)
    s.eachRow((row) =>
      row.eachCell((cell) => {
        const { value } = cell;
        if (value === null || typeof value !== 'object' || !('formula' in value)) return;
        const ours = Math.round(Number(value.result ?? 0) * 100);
        const sheet = engine.getSheetId(s.name)!;
        const theirs = engine.getCellValue({ sheet, row: Number(cell.row) - 1, col: Number(cell.col) - 1 });
        expect([s.name, cell.address, Math.round(Number(theirs) * 100)]).toEqual([
          s.name,
          cell.address,
          ours,
        ]);
      }),
    );
});

test('what is theirs is unlocked, all else is not; no password; marks are hidden; no text runs', async () => {
  const workbook = new ExcelJS.Workbook();
  await workbook.xlsx.load((await handoutXlsx(made.page)) as unknown as ArrayBuffer);
  const sheet = workbook.getWorksheet('Please fill')!;
  const unlocked = (row: number, column: number) => sheet.getCell(row, column).protection?.locked === false;
  const rent = rowOf(sheet, 'Rent');
  expect([
    unlocked(rent, monthColumn(1)),
    unlocked(rent, 3),
    unlocked(rowOf(sheet, 'Total costs'), monthColumn(1)),
  ]).toEqual([true, false, false]);
  const { sheetProtection } = sheet as unknown as { sheetProtection: Record<string, unknown> };
  expect(sheetProtection).toMatchObject({ sheet: true });
  expect(sheetProtection.hashValue).toBeUndefined();
  expect([sheet.getColumn(1).hidden, sheet.getRow(3).hidden]).toEqual([true, true]);
  const cover = workbook.getWorksheet('Read me')!;
  expect(cover.getCell(4, 1).value).toBe("'=not a formula");
  expect(workbook.worksheets.every((s) => s.name.length <= 31)).toBe(true);
});

const lineKeyOf = (id: string): string => id;

describe('whatever a budget says', () => {
  const amounts = fc.array(
    fc.option(fc.oneof(fc.integer({ min: -1_000_000, max: 1_000_000 }), fc.constant(0)), { nil: null }),
    { minLength: 12, maxLength: 12 },
  );
  const planOf = (rows: readonly (readonly (number | null)[])[]) =>
    budgetOf(
      ['sales', 'shop', 'rent', 'power'].map((id, i) =>
        line(
          id,
          byMonth(
            Object.fromEntries(
              ids.flatMap((p, m) => (rows[i]![m] === null ? [] : [[p, minor(rows[i]![m]!)]])),
            ),
          ),
        ),
      ),
      'b1',
    );

  test('numbers that can be read two ways are left in doubt; what was handed out, or someone, tells', async () => {
    const read = async (rows: string[], numbers: { decimal: ','; group: '.' } | null = null) => {
      const file = await readFile(new TextEncoder().encode(['What;Jan 2026;Feb 2026', ...rows].join('\n')));
      if (!file.ok) throw new Error(file.issue.code);
      const made = handed();
      const { doubt, lines } = readReturn(file.file.grids, { ...readGround(made), numbers });
      return [doubt?.sample ?? null, lines.map((l) => l.cells.slice(0, 2).map((c) => c.amount))];
    };
    const name = accounts.find((a) => a.id === 'rent')!.name;
    const [was] = handed().handout.lines.find((l) => l.account === 'rent')!.handed;
    expect(await read([`${name};1.200;3.000`])).toEqual(['1.200', [[1_20, 3_00]]]);
    expect(await read([`${name};1.200;3.000`], { decimal: ',', group: '.' })).toEqual([
      null,
      [[1_200_00, 3_000_00]],
    ]);
    const asWas = (was! / 100).toFixed(2).replace('.', ',');
    expect((await read([`${name};${asWas};3.000`]))[1]).toEqual([[was, 3_000_00]]);
  });

  test.each(['xlsx', 'csv'] as const)('handed out as %s and taken back, nothing changes', async (as) => {
    await fc.assert(
      fc.asyncProperty(fc.array(amounts, { minLength: 4, maxLength: 4 }), async (rows) => {
        const plan = planOf(rows);
        const of = groundOf([plan]);
        const out = handed({}, of, plan);
        const bytes =
          as === 'xlsx'
            ? await handoutXlsx(out.page)
            : new TextEncoder().encode(writeDelimited(pageRows(out.page, (a) => (a / 100).toFixed(2))));
        const { reading } = await readBytes(out, bytes, of);
        const { merged } = compared(out, reading, { of });
        // A cost that is a negative in all and was handed out so stays one.
        expect(merged).toMatchObject({ cells: [], counts: { in: 0, unread: 0, open: 0 } });
        expect(reading.lines.every((l) => !l.turned)).toBe(true);
      }),
      { numRuns: as === 'xlsx' ? 12 : 60 },
    );
  });

  test('answers of several people come to one result in any order, or to the same conflicts', async () => {
    const answer = fc.record({
      line: fc.integer({ min: 0, max: 3 }),
      month: fc.integer({ min: 0, max: 2 }),
      value: fc.integer({ min: 1, max: 3 }),
    });
    await fc.assert(
      fc.asyncProperty(fc.array(answer, { minLength: 2, maxLength: 4 }), async (answers) => {
        const run = (order: readonly (typeof answers)[number][]) => {
          let book = ground.book;
          let open = 0;
          for (const { line: l, month, value } of order) {
            const of = makeGround(book, new Map([[block.id, block]]));
            const asked = made.handout.lines[l]!;
            const returned = asReturn({
              known: 'identity',
              own: [],
              strays: [],
              without: [],
              lines: [
                {
                  account: asked.account,
                  segment: null,
                  row: 5,
                  cells: asked.handed.map((a, i) =>
                    i === month
                      ? { is: 'amount', amount: minor(value * 7_77), raw: '' }
                      : { is: a === null ? 'blank' : 'amount', amount: a, raw: '' },
                  ),
                  turned: false,
                  comment: '',
                  total: null,
                  spread: 'evenly',
                },
              ],
            });
            const { merged } = compared(made, returned, { of });
            open += merged.counts.open;
            if (merged.cells.length > 0)
              book = didAll(book, { type: 'setCells', budget: 'b1', how: 'copied', cells: merged.cells });
          }
          return { book, open };
        };
        const [one, other] = [run(answers), run(answers.toReversed())];
        expect(other.open > 0).toBe(one.open > 0);
        // Where nobody disagreed the order makes no difference.
        if (one.open === 0) {
          const of = (b: Book) => {
            const draft = draftOf(makeGround(b, new Map([[block.id, block]])), b.budgets[0]!, made.round);
            return made.handout.lines.map(draft);
          };
          expect(of(other.book)).toEqual(of(one.book));
        }
      }),
      { numRuns: 40 },
    );
  });
});

test('whatever stands in a sheet, it is read without a fault, and what is read can be kept', () => {
  const [anchor] = pageRows(made.page, String)[0]!;
  const known = pageRows(made.page, String).flat();
  const anyCell = fc.oneof(
    fc.constantFrom(
      ...known,
      '=',
      '#N/A',
      '5%',
      '2026-02-30',
      'tellan',
      'tellan line',
      'tellan month x',
      anchor!,
    ),
    fc.double(),
    fc.integer(),
    fc.string({ maxLength: 3000 }),
    fc.constant(''),
  );
  const grid = fc.array(fc.array(anyCell, { maxLength: 20 }), { maxLength: 25 });
  const start = didAll(ground.book, { type: 'setRound', round: made.round });
  fc.assert(
    fc.property(fc.array(grid, { minLength: 1, maxLength: 3 }), (sheets) => {
      const grids = sheets.map((rows, i) => gridOf(`S${i}`, rows));
      anchorIn(grids);
      const reading = readReturn(grids, readGround(made));
      const returned = asReturn(reading);
      compared(made, reading);
      const kept = applyCommand(start, { type: 'takeReturn', round: 'u1', handout: 'h1', returned });
      expect(kept.ok || kept.refusal).toBe(true);
    }),
    { numRuns: 300 },
  );
});

/* What spreadsheet programs refuse of a workbook (ECMA-376 part 1, SpreadsheetML; limits from memory). */
test('names, lists and protection are as other programs take them', async () => {
  const out = handed({ answer: 'whole', name: 'Round: a/b [c]?*' });
  const zip = await JSZip.loadAsync(await handoutXlsx(out.page));
  const xml = async (name: string) => (await zip.file(name)!.async('string')).toString();
  const workbook = await xml('xl/workbook.xml');
  for (const [, name] of workbook.matchAll(/<sheet [^>]*name="([^"]*)"/g))
    expect(name).toMatch(/^[^\\/?*[\]:]{1,31}$/);
  const sheet = await xml('xl/worksheets/sheet2.xml');
  // A list within a rule is a quoted text of at most 255 letters, without quotes of its own.
  const lists = [...sheet.matchAll(/<dataValidation [^>]*type="list"[^>]*>.*?<formula1>(.*?)<\/formula1>/g)];
  expect(lists.length).toBeGreaterThan(0);
  for (const [, list] of lists) expect(list).toMatch(/^&quot;[^"]{1,253}&quot;$/);
  const [protection] = sheet.match(/<sheetProtection [^>]*>/)!;
  expect(protection).toContain('sheet="1"');
  expect(protection).not.toMatch(/password|hashValue/);
  // The order of a sheet's parts is fixed: protection after the data, rules after it, before the page.
  const order = ['<sheetData', '<sheetProtection', '<dataValidations', '<pageSetup'].map((part) =>
    sheet.indexOf(part),
  );
  expect(order.every((at, i) => at > (order[i - 1] ?? 0))).toBe(true);
  expect(/<row [^>]*r="3"[^>]*hidden="1"/.test(sheet)).toBe(true);
});
