import type { NumberFormat } from '@/core/money';
import { monthCalendar } from '@/core/calendar';
import { cellText, type FileFacts, type Grid, type GridCell } from '@/core/files';
import { guessDateOrder, parseMonthHead, type MonthHead } from './dates';
import { guessNumberFormat, looksLikeAmount } from './numbers';
import type { Doubt, EntryRole, Guess, Mapping, MonthsRole } from './mapping';

export type GuessContext = {
  /** How the book's locale writes numbers and dates: decides only where the file does not. */
  readonly numbers: NumberFormat;
  readonly dates: 'dmy' | 'mdy';
  readonly firstMonth: number;
  /** The fiscal year that months without a year are put in. */
  readonly year: number;
};

const SAMPLE = 400;

/** Reads the shape, header, columns and formats off a file's own rows; names what it is not sure of. */
export function guessMapping(file: FileFacts, sheet: number, context: GuessContext): Guess {
  const grid = file.grids[sheet]!;
  const months = guessMonths(file, grid, sheet, context);
  return months ?? guessEntries(file, grid, sheet, context);
}

/** The same file read as the other shape, when the person says so. */
export function guessShape(
  file: FileFacts,
  sheet: number,
  context: GuessContext,
  shape: Mapping['shape'],
): Guess {
  const grid = file.grids[sheet]!;
  if (shape === 'entries') return guessEntries(file, grid, sheet, context);
  return (
    guessMonths(file, grid, sheet, context) ?? {
      mapping: {
        shape: 'months',
        delimiter: file.delimiter,
        sheet,
        headerRow: 0,
        sign: 'natural',
        numbers: context.numbers,
        columns: (grid.rows[0] ?? []).map((_, i): MonthsRole => ({ as: i === 0 ? 'account' : 'ignore' })),
      },
      doubts: ['columns'],
    }
  );
}

function guessMonths(file: FileFacts, grid: Grid, sheet: number, context: GuessContext): Guess | null {
  const head = findMonthHeader(grid);
  if (!head) return null;
  const { row, heads } = head;
  const dated = datedHeads(heads, context);
  const width = Math.max(...grid.rows.slice(0, SAMPLE).map((r) => r.length));
  const body = grid.rows.slice(row + 1, row + 1 + SAMPLE);
  const columns: MonthsRole[] = Array.from({ length: width }, (_, i): MonthsRole => {
    const month = dated.get(i);
    if (month) return { as: 'month', ...month };
    if (
      i > Math.min(...dated.keys()) &&
      /^(ytd|year to date|(grand )?total|year|sum|annual|fy\s?\d+)\b/i.test(cellText(grid.rows[row]![i]))
    )
      return { as: 'total' };
    return { as: 'ignore' };
  });
  // The columns before the first month hold the account: apart when one is codes and the other names.
  const before = columns.slice(0, Math.min(...dated.keys())).map((_, i) => i);
  const texts = before.map((i) => body.map((r) => cellText(r[i])).filter((t) => t !== ''));
  const filled = before.filter((i) => texts[i]!.length > 0);
  const isCode = (i: number) =>
    texts[i]!.filter((t) => /^[A-Z]{0,3}[\d.\-/]+$/.test(t)).length > texts[i]!.length * 0.6;
  const code = filled.find(isCode);
  const name = filled.filter((i) => i !== code).sort((a, b) => texts[b]!.length - texts[a]!.length)[0];
  if (code !== undefined) columns[code] = { as: 'code' };
  if (name !== undefined) columns[name] = { as: code === undefined ? 'account' : 'name' };
  const cells = body.flatMap((r) => [...dated.keys()].map((i) => r[i] ?? ''));
  const numbers = guessNumberFormat(cells, context.numbers);
  const doubts: Doubt[] = [];
  if (!numbers.sure) doubts.push('numbers');
  if ([...heads.values()].some((h) => h.year === null)) doubts.push('year');
  const sign = guessSign(body, columns);
  return {
    mapping: {
      shape: 'months',
      delimiter: file.delimiter,
      sheet,
      headerRow: row,
      columns,
      numbers: numbers.format,
      sign,
    },
    doubts,
  };
}

/** Costs written as negatives beside positive income mean that the file signs by profit. */
function guessSign(body: readonly (readonly GridCell[])[], columns: readonly MonthsRole[]): Mapping['sign'] {
  const months = columns.flatMap((c, i) => (c.as === 'month' ? [i] : []));
  let negative = 0;
  let positive = 0;
  for (const row of body) {
    for (const i of months) {
      const cell = row[i];
      const text = cellText(cell);
      if (!/[1-9]/.test(text)) continue;
      if (typeof cell === 'number' ? cell < 0 : /^[\s$€£]*[-−(]|-\s*$/.test(text)) negative++;
      else positive++;
    }
  }
  return negative > (negative + positive) * 0.4 ? 'profitPositive' : 'natural';
}

/** The row, among the first forty, whose cells name at least two months that follow one another. */
function findMonthHeader(grid: Grid): { row: number; heads: Map<number, MonthHead> } | null {
  let best: { row: number; heads: Map<number, MonthHead> } | null = null;
  grid.rows.slice(0, 40).forEach((cells, row) => {
    const heads = new Map<number, MonthHead>();
    cells.forEach((cell, i) => {
      const head = parseMonthHead(cell);
      if (head) heads.set(i, head);
    });
    const list = [...heads.values()];
    const inOrder = list.every((h, i) => i === 0 || (h.month - list[i - 1]!.month + 12) % 12 === 1);
    if (list.length >= 2 && inOrder && (!best || list.length > best.heads.size)) best = { row, heads };
  });
  return best;
}

/** Gives months without a year the one in which they fall in the context's fiscal year. */
function datedHeads(
  heads: ReadonlyMap<number, MonthHead>,
  context: GuessContext,
): Map<number, { year: number; month: number }> {
  const calendar = monthCalendar(context.firstMonth);
  const out = new Map<number, { year: number; month: number }>();
  for (const [i, h] of heads) {
    const index = calendar.firstOfYear(context.year) + ((h.month - context.firstMonth + 12) % 12);
    out.set(i, { month: h.month, year: h.year ?? Math.floor(index / 12) });
  }
  return out;
}

const ROLE_WORDS: readonly (readonly [EntryRole, RegExp])[] = [
  [
    'date',
    /^(posting |transaction |entry |trans\.? |value |document |invoice |booking )?date$|^datum$|^day$|^posted( on)?$|^fecha$/i,
  ],
  ['debit', /^(debits?|dr\.?|soll|debe)( amount)?( \(.*\))?$|amount debit/i],
  ['credit', /^(credits?|cr\.?|haben|haber)( amount)?( \(.*\))?$|amount credit/i],
  [
    'amount',
    /^(net |transaction |posted |signed )?(amount|value|betrag|importe|montant|movement)( \(.*\)| in .*)?$/i,
  ],
  ['type', /^(account |acct )?(type|class|category)$|^account kind$/i],
  [
    'code',
    /^(gl |g\/l |ledger |account |acct\.? |nominal )+(code|no\.?|number|num|#|id)$|^(code|konto|kontonummer|nominal|gl|cuenta|compte)$/i,
  ],
  [
    'name',
    /^(account|acct\.?|gl account|ledger|nominal) ?(name|description|title)$|^kontobezeichnung$|^kontoname$/i,
  ],
  ['account', /^(gl |g\/l |ledger |nominal )?(account|acct\.?)$/i],
  [
    'counterparty',
    /^(counterparty|customer|vendor|supplier|payee|contact|(customer|vendor|name)\/.*|party|partner|name|customer or supplier)$/i,
  ],
  [
    'reference',
    /^(reference|ref\.?|(journal|voucher|document|doc|entry|transaction|trans|invoice|batch|je)[ .]*(no\.?|number|num|#|id|ref\.?)|journal|voucher|belegnummer|beleg|number|num)$/i,
  ],
  [
    'memo',
    /^(memo|description|details?|narration|narrative|text|comment|notes?|particulars|buchungstext|explanation|line description|memo\/description)$/i,
  ],
];

/** The role that a column heading names, or null. */
export function roleByHeading(text: string): EntryRole | null {
  const t = text.trim();
  return ROLE_WORDS.find(([, words]) => words.test(t))?.[0] ?? null;
}

function guessEntries(file: FileFacts, grid: Grid, sheet: number, context: GuessContext): Guess {
  const headerRow = findEntryHeader(grid);
  const body = grid.rows.slice(headerRow + 1, headerRow + 1 + SAMPLE);
  const width = Math.max(1, ...grid.rows.slice(0, headerRow + 60).map((r) => r.length));
  const column = (i: number) => body.map((r) => r[i] ?? '');
  const columns: EntryRole[] = Array.from({ length: width }, () => 'ignore');
  const taken = new Set<EntryRole>();
  for (let i = 0; i < width; i++) {
    const role = headerRow >= 0 ? roleByHeading(cellText(grid.rows[headerRow]![i])) : null;
    if (!role || taken.has(role)) continue;
    columns[i] = role;
    taken.add(role);
  }
  const doubts = new Set<Doubt>();
  const free = (i: number) => columns[i] === 'ignore';
  const whole = (i: number) => [...new Set(grid.rows.slice(headerRow + 1).map((r) => r[i] ?? ''))];
  // What the headings did not say, the cells below them may.
  if (!taken.has('date')) {
    const i = columns.findIndex((_, c) => free(c) && guessDateOrder(column(c), context.dates) !== null);
    if (i >= 0) columns[i] = 'date';
    doubts.add('columns');
  }
  if (!taken.has('debit') && !taken.has('amount')) {
    const share = (i: number) =>
      column(i).filter(
        (c) => cellText(c) !== '' && looksLikeAmount(c) && /[.,]\d{1,3}\b|^-?\d+$/.test(cellText(c)),
      ).length;
    const i = columns
      .map((_, c) => c)
      .filter(free)
      .sort((a, b) => share(b) - share(a) || b - a)[0];
    if (i !== undefined && share(i) > 0) columns[i] = 'amount';
    doubts.add('columns');
  }
  if (taken.has('debit') && taken.has('credit'))
    columns.forEach((r, i) => {
      if (r === 'amount') columns[i] = 'ignore';
    });
  if (!taken.has('account') && !taken.has('code') && !taken.has('name')) {
    const i = columns.findIndex(
      (_, c) => free(c) && column(c).filter((x) => cellText(x) !== '').length > body.length * 0.5,
    );
    if (i >= 0) columns[i] = 'account';
    doubts.add('columns');
  }
  const dateColumn = columns.indexOf('date');
  // The head of the column mostly decides; only where it does not is the whole of it looked at.
  const head = dateColumn >= 0 ? guessDateOrder(column(dateColumn), context.dates) : null;
  const dates = head && !head.sure ? guessDateOrder(whole(dateColumn), context.dates) : head;
  if (!dates) doubts.add('columns');
  else if (!dates.sure) doubts.add('dates');
  const amounts = columns.flatMap((r, i) =>
    r === 'debit' || r === 'credit' || r === 'amount' ? column(i) : [],
  );
  const numbers = guessNumberFormat(amounts, context.numbers);
  if (!numbers.sure) doubts.add('numbers');
  return {
    mapping: {
      shape: 'entries',
      delimiter: file.delimiter,
      sheet,
      headerRow,
      columns,
      numbers: numbers.format,
      dates: dates?.order ?? context.dates,
      sign: 'debitPositive',
    },
    doubts: [...doubts],
  };
}

/** The first row with the most headings of known meaning; −1 when the file starts with its entries. */
function findEntryHeader(grid: Grid): number {
  let best = { row: -1, score: 0 };
  grid.rows.slice(0, 40).forEach((cells, row) => {
    const score = new Set(cells.map((c) => roleByHeading(cellText(c))).filter((r) => r !== null)).size;
    if (score > best.score) best = { row, score };
  });
  return best.score >= 2 ? best.row : best.score === 1 && best.row === 0 ? 0 : -1;
}
