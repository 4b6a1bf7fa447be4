import type { NumberFormat } from '@/core/money';
import { cellText, isBlankRow, type FileFacts, type Grid, type GridCell } from '@/core/files';
import { guessDateOrder, parseDate } from './dates';
import { SAMPLE, type GuessContext } from './guessContext';
import { roleByHeading } from './headings';
import { guessNumberFormat, looksLikeAmount } from './numbers';
import { readAmount } from './readCell';
import { TOTAL_WORDS } from './sign';
import type { Doubt, EntryRole, Guess } from './mapping';

const MARK = /^(d|c|dr|cr|debit|credit|s|h)\.?$/i;

export function guessEntries(file: FileFacts, sheet: number, context: GuessContext): Guess {
  const grid = file.grids[sheet]!;
  const headerRow = findEntryHeader(grid);
  const body = grid.head.slice(headerRow + 1, headerRow + 1 + SAMPLE);
  const width = Math.max(1, ...grid.head.slice(0, headerRow + 60).map((r) => r.length));
  const column = (i: number) => body.map((r) => r[i] ?? '');
  const columns = rolesByHeadings(headerRow < 0 ? [] : grid.head[headerRow]!, width);
  const has = (role: EntryRole) => columns.includes(role);
  const doubts = new Set<Doubt>();
  const unsure = headerRow < 0 ? [] : tellNames(columns, grid.head[headerRow]!, column);
  if (unsure.length > 0) doubts.add('columns');
  const free = (i: number) => columns[i] === 'ignore';
  const set = (i: number, role: EntryRole) => {
    if (i >= 0) columns[i] = role;
  };
  // What the headings did not say, the cells below them may.
  if (!has('date')) {
    set(
      columns.findIndex((_, c) => free(c) && guessDateOrder(column(c), context.dates) !== null),
      'date',
    );
    doubts.add('columns');
  }
  if (!has('mark') && !has('debit'))
    set(
      columns.findIndex((_, c) => {
        const cells = column(c).filter((x) => cellText(x) !== '');
        return free(c) && cells.length > 0 && cells.every((x) => MARK.test(cellText(x)));
      }),
      'mark',
    );
  if (!has('debit') && !has('amount')) {
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
  if (has('debit') && has('credit'))
    columns.forEach((r, i) => {
      if (r === 'amount') columns[i] = 'ignore';
    });
  let accountIn: 'columns' | 'headings' = 'columns';
  const dateColumn = columns.indexOf('date');
  if (!has('account') && !has('code') && !has('name')) {
    if (dateColumn >= 0 && accountsAsHeadings(body, dateColumn)) accountIn = 'headings';
    else {
      set(
        columns.findIndex(
          (_, c) => free(c) && column(c).filter((x) => cellText(x) !== '').length > body.length * 0.5,
        ),
        'account',
      );
      doubts.add('columns');
    }
  }
  // The head of the column mostly decides; only where it does not is the whole of it looked at.
  const head = dateColumn >= 0 ? guessDateOrder(column(dateColumn), context.dates) : null;
  const whole = (i: number): GridCell[] => {
    const seen = new Set<GridCell>();
    grid.each((row, place) => place > headerRow && seen.add(row[i] ?? ''));
    return [...seen];
  };
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
      accountIn,
      carryDate: accountIn === 'columns' && datesOfFirstRows(body, columns, numbers.format),
    },
    doubts: [...doubts],
    unsure,
    keptFrom: null,
  };
}

/**
 * "Name" beside an account's code is the account's or the other party's: an account has one name whatever it is entered
 * for, a party comes with many accounts. Writes the role that the cells bear out; gives the columns that they leave open.
 */
function tellNames(
  columns: EntryRole[],
  heads: readonly GridCell[],
  column: (i: number) => readonly GridCell[],
): number[] {
  const code = columns.indexOf('code') >= 0 ? columns.indexOf('code') : columns.indexOf('account');
  const named = heads.findIndex((h) => /^name$/i.test(cellText(h)));
  if (code < 0 || named < 0 || columns.includes('name')) return [];
  const codes = column(code).map(cellText);
  // An account that says its name itself has no other.
  if (columns[code] === 'account' && codes.some((c) => /\p{L}{2}/u.test(c))) return [];
  const others = heads.flatMap((h, i) =>
    i !== named && roleByHeading(cellText(h)) === 'counterparty' ? [i] : [],
  );
  const name = oneForEach(codes, column(named).map(cellText));
  if (name === true || (name === null && others.length > 0)) {
    columns[named] = 'name';
    if (others[0] !== undefined) columns[others[0]] = 'counterparty';
    for (const i of others.slice(1)) columns[i] = 'segment';
  }
  // A party that is the same for each code may be the account's name instead.
  const crossed = name === false && others.some((i) => oneForEach(codes, column(i).map(cellText)) === true);
  return name === null || crossed ? [named, ...others.slice(0, 1)] : [];
}

/**
 * Whether a code has one text wherever it stands, but for one row in twenty (an account is renamed now and then), and
 * not all have the same; null when too few codes stand twice to tell.
 */
function oneForEach(codes: readonly string[], texts: readonly string[]): boolean | null {
  const textOf = new Map<string, string>();
  let [same, other] = [0, 0];
  for (const [i, code] of codes.entries()) {
    if (code === '') continue;
    const before = textOf.get(code);
    if (before === undefined) textOf.set(code, texts[i]!);
    else if (before === texts[i]) same++;
    else other++;
  }
  if (same + other < 3) return null;
  const different = new Set(textOf.values());
  return other * 20 <= same + other && !different.has('') && different.size >= Math.min(2, textOf.size);
}

/**
 * Whether only the first row of each entry has its date: then a dated row with the undated ones beneath it comes to
 * nothing, again and again.
 */
function datesOfFirstRows(
  body: readonly (readonly GridCell[])[],
  columns: readonly EntryRole[],
  numbers: NumberFormat,
): boolean {
  const at = (role: EntryRole) => columns.indexOf(role);
  const [date, debit, credit, amount] = [at('date'), at('debit'), at('credit'), at('amount')];
  if (date < 0) return false;
  const of = (row: readonly GridCell[], c: number): number => {
    const parsed = c < 0 ? null : readAmount(row[c], 2, numbers);
    return parsed?.ok ? (parsed.value ?? 0) : 0;
  };
  const groups: { sum: number; rows: number }[] = [];
  for (const row of body) {
    if (row.some((c) => typeof c === 'string' && TOTAL_WORDS.test(c))) continue;
    const value = of(row, debit) - of(row, credit) + of(row, amount);
    if (cellText(row[date]) !== '') groups.push({ sum: value, rows: 1 });
    else if (value !== 0 && groups.length > 0) {
      groups.at(-1)!.sum += value;
      groups.at(-1)!.rows++;
    }
  }
  const several = groups.filter((g) => g.rows > 1);
  return (
    several.length >= 2 &&
    several.length >= groups.length * 0.5 &&
    several.filter((g) => g.sum === 0).length >= several.length * 0.8
  );
}

/** Roles by the headings alone, each but segments once. A customer beside a vendor is a segment of its own. */
function rolesByHeadings(heads: readonly GridCell[], width: number): EntryRole[] {
  const taken = new Set<EntryRole>();
  return Array.from({ length: width }, (_, i): EntryRole => {
    const role = roleByHeading(cellText(heads[i]));
    if (!role) return 'ignore';
    if (role !== 'segment' && taken.has(role)) return role === 'counterparty' ? 'segment' : 'ignore';
    taken.add(role);
    return role;
  });
}

/** Whether lone texts stand above dated rows: each names the account of the rows beneath it. */
function accountsAsHeadings(body: readonly (readonly GridCell[])[], date: number): boolean {
  let lone = false;
  let found = 0;
  for (const row of body) {
    if (isBlankRow(row)) continue;
    const filled = row.map(cellText).filter((t) => t !== '');
    const dated = parseDate(row[date] ?? '', 'mdy') ?? parseDate(row[date] ?? '', 'dmy');
    if (dated !== null) {
      if (lone) found++;
      lone = false;
    } else lone ||= filled.length <= 2 && !looksLikeAmount(filled[0]!) && !TOTAL_WORDS.test(filled[0]!);
  }
  return found >= 1;
}

/** The first row with the most headings of known meaning; −1 when the file starts with its entries. */
export function findEntryHeader(grid: Grid): number {
  let best = { row: -1, score: 0 };
  grid.head.slice(0, 40).forEach((cells, row) => {
    const score = new Set(cells.map((c) => roleByHeading(cellText(c))).filter((r) => r !== null)).size;
    if (score > best.score) best = { row, score };
  });
  return best.score >= 2 ? best.row : best.score === 1 && best.row === 0 ? 0 : -1;
}
