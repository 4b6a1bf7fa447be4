import { fromDayNumber, indexOfId, toDayNumber, type Day, type FiscalCalendar } from '@/core/calendar';
import { cellText, isBlankRow, rowsOf, type Grid, type GridCell, type GridRow } from '@/core/files';
import { parseAmount } from '@/core/money';
import { cutText, LIMITS, nameKey, sameName, type Quantity } from '@/core/model';
import { parseDate, parseMonthHead } from './dates';
import { dayOfHead, type GuessContext } from './guessContext';

/** A row or cell that could not be read, by its place in the file (from 1). */
export type QuantityIssue = {
  readonly row: number;
  readonly column: number;
  readonly value: string;
  readonly code: 'noName' | 'noPeriod' | 'noNumber' | 'unknownPeriod';
};
export type ReadQuantities = {
  readonly quantities: readonly Quantity[];
  readonly issues: readonly QuantityIssue[];
  /** Cells that were blank: nothing is said by them, and nothing is taken away. */
  readonly blanks: number;
};

type Known = { readonly name: string; readonly unit: string; readonly decimals: number };

/**
 * Reads counted quantities from a table: names down and months across, or one row a count with name, date and quantity.
 * Decimals are those of the driver of the name, else as many as the file has.
 */
export function readQuantities(
  grid: Grid,
  calendar: FiscalCalendar,
  known: readonly Known[],
  context: Pick<GuessContext, 'calendar' | 'year' | 'numbers' | 'dates'>,
): ReadQuantities {
  const rows = rowsOf(grid)
    .map((cells, place) => ({ cells, number: place + 1 }))
    .filter(({ cells }) => !isBlankRow(cells));
  const dayIn = (cell: GridCell | undefined): Day | null => {
    if (cell === undefined) return null;
    const exact = parseDate(cell, context.dates);
    if (exact !== null) return fromDayNumber(exact);
    const head = parseMonthHead(cell);
    return head && dayOfHead(head, context as GuessContext);
  };
  const textOf = (cells: GridRow, c: number): string => cellText(cells[c] ?? '').trim();
  const issues: QuantityIssue[] = [];
  const found = new Map<string, Map<string, number>>();
  const spelled = new Map<string, string>();
  let blanks = 0;
  const decimalsOf = (name: string): number =>
    known.find((k) => sameName(k.name, name))?.decimals ?? MOST_DECIMALS;
  const put = (row: number, column: number, name: string, day: Day | null, cell: GridCell | undefined) => {
    const text = cellText(cell ?? '').trim();
    if (text === '') return void blanks++;
    if (day === null) return void issues.push({ row, column, value: text, code: 'noPeriod' });
    const read = parseAmount(text, decimalsOf(name), context.numbers);
    if (!read.ok || read.percent || read.value === null)
      return void issues.push({ row, column, value: text, code: 'noNumber' });
    const id = calendar.period(calendar.indexOfDay(toDayNumber(day))).id;
    if (indexOfId(calendar, id) === null)
      return void issues.push({ row, column, value: text, code: 'unknownPeriod' });
    const key = nameKey(name);
    spelled.set(key, spelled.get(key) ?? name.trim());
    const months = found.get(key) ?? new Map<string, number>();
    found.set(key, months);
    // Several counts of one month add up.
    months.set(id, (months.get(id) ?? 0) + read.value);
  };
  // Months across have a head of at least two of them; else each row is a count.
  const head = rows.findIndex(({ cells }) => cells.slice(1).filter((c) => dayIn(c) !== null).length >= 2);
  const days = head >= 0 ? rows[head]!.cells.map((c) => dayIn(c)) : [];
  for (const [i, { number, cells }] of (head >= 0 ? rows.slice(head + 1) : rows).entries()) {
    const name = cutText(textOf(cells, 0), LIMITS.driverName);
    const day = head >= 0 ? null : dayIn(cells[1]);
    // A head line of a list names no day.
    if (head < 0 && i === 0 && day === null) continue;
    if (name === '') issues.push({ row: number, column: 1, value: '', code: 'noName' });
    else if (head < 0) put(number, 3, name, day, cells[2]);
    else
      days.forEach((of, c) => {
        if (c > 0 && of !== null) put(number, c + 1, name, of, cells[c]);
      });
  }
  const quantities = [...found].map(([key, months]): Quantity => {
    const driver = known.find((k) => sameName(k.name, key));
    const decimals = driver?.decimals ?? MOST_DECIMALS;
    const values = [...months.values()];
    // Without a driver as many decimals as any of them needs.
    let fewer = decimals;
    if (!driver) while (fewer > 0 && values.every((v) => v % 10 ** (decimals - fewer + 1) === 0)) fewer--;
    return {
      name: driver?.name ?? spelled.get(key)!,
      unit: driver?.unit ?? '',
      decimals: fewer,
      values: Object.fromEntries([...months].map(([id, v]) => [id, v / 10 ** (decimals - fewer)])),
    };
  });
  return { quantities, issues, blanks };
}

const MOST_DECIMALS = 3;
