import { cellText, type FileFacts, type Grid } from '@/core/files';
import type { Day } from '@/core/calendar';
import { findMonthInText, guessDateOrder } from './dates';
import { placeAccounts, widthOf } from './guessAccounts';
import { dayOfHead, SAMPLE, type GuessContext } from './guessContext';
import { findEntryHeader } from './guessEntries';
import { findMonthHeader } from './guessMonths';
import { roleByHeading } from './headings';
import { looksLikeAmount, guessNumberFormat } from './numbers';
import { readAmount } from './readCell';
import type { BalanceRole, BalanceSheetOf, Doubt, Guess } from './mapping';
import { TOTAL_WORDS } from './sign';

/** Trial balances with months across, one a sheet, or one in the file; null when the file does not look like any. */
export function guessBalances(
  file: FileFacts,
  sheet: number,
  context: GuessContext,
  asked = false,
): Guess | null {
  return acrossMonths(file, sheet, context, asked) ?? oneASheet(file, sheet, context, asked);
}

function acrossMonths(file: FileFacts, sheet: number, context: GuessContext, asked: boolean): Guess | null {
  const grid = file.grids[sheet]!;
  const header = findMonthHeader(grid, context);
  if (!header) return null;
  const body = grid.head.slice(header.row + 1, header.row + 1 + SAMPLE);
  const figures = [...header.days.keys()];
  const numbers = guessNumberFormat(
    body.flatMap((r) => figures.map((i) => r[i] ?? '')),
    context.numbers,
  );
  const sidesTold = header.sides.size > 0;
  if (!asked && !sidesTold && !titled(grid, header.row) && !everyColumnIsZero(body, figures, numbers.format))
    return null;
  const width = widthOf(grid);
  const columns: BalanceRole[] = Array.from({ length: width }, (_, i): BalanceRole => {
    const day = header.days.get(i);
    return day ? { as: header.sides.get(i) ?? 'balance', day } : { as: 'ignore' };
  });
  placeAccounts(columns, before(Math.min(...figures)), body);
  const doubts: Doubt[] = [];
  if (!numbers.sure) doubts.push('numbers');
  if (header.noYear) doubts.push('year');
  return {
    mapping: {
      shape: 'balances',
      delimiter: file.delimiter,
      sheet,
      headerRow: header.row,
      columns,
      sheets: [{ sheet, day: null }],
      numbers: numbers.format,
      sign: 'debitPositive',
      cumulative: true,
    },
    doubts,
    keptFrom: null,
  };
}

/** Whether the debit-positive figures of every month add up to nothing: what a trial balance does, and a statement never. */
function everyColumnIsZero(
  body: readonly (readonly (string | number)[])[],
  figures: readonly number[],
  numbers: Parameters<typeof readAmount>[2],
): boolean {
  const rows = body.filter((r) => !r.some((c) => typeof c === 'string' && TOTAL_WORDS.test(c)));
  return figures.every((i) => {
    let sum = 0;
    let filled = 0;
    for (const row of rows) {
      const parsed = readAmount(row[i], 2, numbers);
      if (!parsed.ok || !parsed.value) continue;
      sum += parsed.value;
      filled++;
    }
    return sum === 0 && filled >= 3;
  });
}

const titled = (grid: Grid, headerRow: number): boolean =>
  grid.head.slice(0, Math.max(0, headerRow)).some((r) => r.some((c) => /trial balance/i.test(cellText(c)))) ||
  /trial balance/i.test(grid.sheet ?? '');

function oneASheet(file: FileFacts, sheet: number, context: GuessContext, asked: boolean): Guess | null {
  const grid = file.grids[sheet]!;
  const headerRow = findEntryHeader(grid);
  if (headerRow < 0) return null;
  const heads = grid.head[headerRow]!;
  const body = grid.head.slice(headerRow + 1, headerRow + 1 + SAMPLE);
  const width = widthOf(grid);
  const roles = Array.from({ length: width }, (_, i) => roleByHeading(cellText(heads[i])));
  const dated = roles.some(
    (r, i) =>
      r === 'date' ||
      (r === null &&
        guessDateOrder(
          body.map((row) => row[i] ?? ''),
          context.dates,
        ) !== null),
  );
  const hasSides = roles.includes('debit') && roles.includes('credit');
  const hasFigure = hasSides || roles.includes('balance') || roles.includes('amount');
  if (!asked && (dated || !hasFigure || (!hasSides && !roles.includes('balance')))) return null;
  if (!hasFigure) return null;
  const columns: BalanceRole[] = roles.map((r): BalanceRole => {
    if (r === 'account' || r === 'code' || r === 'name' || r === 'type') return { as: r };
    if (hasSides) return r === 'debit' || r === 'credit' ? { as: r, day: null } : { as: 'ignore' };
    return r === 'balance' || r === 'amount' ? { as: 'balance', day: null } : { as: 'ignore' };
  });
  // A sheet may show movements, then balances, each with two sides: the last pair is the balance.
  for (const as of ['debit', 'credit', 'balance'] as const) {
    const last = columns.findLastIndex((c) => c.as === as);
    columns.forEach((c, i) => {
      if (c.as === as && i < last) columns[i] = { as: 'ignore' };
    });
  }
  const firstFigure = columns.findIndex((c) => c.as === 'debit' || c.as === 'credit' || c.as === 'balance');
  if (!columns.some((c) => c.as === 'account' || c.as === 'code' || c.as === 'name'))
    placeAccounts(columns, before(firstFigure), body);
  const figures = columns.flatMap((c, i) => ('day' in c ? [i] : []));
  const numbers = guessNumberFormat(
    body.flatMap((r) => figures.map((i) => r[i] ?? '')),
    context.numbers,
  );
  // Debits and credits beside a balance of their own are what moved in the month.
  const movements = hasSides && roles.includes('balance');
  const sheets = sameSheets(file, sheet, headerRow).map((s): BalanceSheetOf => ({
    sheet: s,
    day: dayOfSheet(file, s, headerRow, context),
  }));
  const doubts: Doubt[] = [];
  if (!numbers.sure) doubts.push('numbers');
  if (sheets.some((s) => s.day === null)) doubts.push('day');
  return {
    mapping: {
      shape: 'balances',
      delimiter: file.delimiter,
      sheet,
      headerRow,
      columns,
      sheets,
      numbers: numbers.format,
      sign: 'debitPositive',
      cumulative: !movements,
    },
    doubts,
    keptFrom: null,
  };
}

/** The sheets with the same heads in the same row: one trial balance each. */
function sameSheets(file: FileFacts, sheet: number, headerRow: number): number[] {
  const heads = (s: number) =>
    (file.grids[s]!.head[headerRow] ?? []).map((c) => cellText(c).toLowerCase()).join('|');
  const mine = heads(sheet);
  const alike = file.grids.flatMap((_, s) => (heads(s) === mine ? [s] : []));
  return alike.includes(sheet) ? alike : [sheet];
}

/** The day a sheet's trial balance is of: named by its title rows, its own name, or the file's. */
function dayOfSheet(file: FileFacts, sheet: number, headerRow: number, context: GuessContext): Day | null {
  const grid = file.grids[sheet]!;
  const titles = grid.head.slice(0, headerRow).flatMap((r) => r.map(cellText));
  for (const text of [...titles, grid.sheet ?? '', context.fileName]) {
    if (looksLikeAmount(text) && !/[-/.]/.test(text)) continue;
    const head = text === '' ? null : findMonthInText(text);
    const day = head && dayOfHead(head, context);
    if (day) return day;
  }
  return null;
}

const before = (column: number): number[] => Array.from({ length: Math.max(0, column) }, (_, i) => i);
