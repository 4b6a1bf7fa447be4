import {
  minor,
  negate,
  roundParts,
  roundTo,
  splitEven,
  splitLike,
  sum,
  uplift,
  ZERO,
  type Minor,
  type Percent,
} from '@/core/money';
import type { CellValue, Command } from '@/core/model';
import type { Rect } from '@/core/sheet';
import { cellsEdit, lineAt, lineRows, many, periodsOf, type Edit, type EditContext } from './edits';

type How = Extract<Command, { type: 'setCells' }>['how'];
type Months = (Minor | null)[];

/** The lines and months of a range with their amounts, for tools that change what stands there. */
function* amountsIn(c: EditContext, rect: Rect) {
  const months = periodsOf(c, rect);
  for (const r of lineRows(c, rect)) {
    const { ref, result } = lineAt(c, r)!;
    yield { ref, row: r, months, amounts: months.map((i) => result.amounts[i] ?? null) };
  }
}

/** Sets what a rule makes of each line's selected months; months that stay as they are are not touched. */
function change(
  c: EditContext,
  rect: Rect,
  how: How,
  rule: (amounts: Months, account: string) => Months | null,
  word: (months: number) => string,
): Edit {
  const { periods } = c.reckoned.facts;
  const cells: CellValue[] = [];
  for (const { ref, months, amounts } of amountsIn(c, rect)) {
    const next = rule(amounts, ref.account);
    next?.forEach((value, k) => {
      if (value !== amounts[k]) cells.push({ ...ref, period: periods[months[k]!]!.id, value });
    });
  }
  if (cells.length === 0) return { trouble: 'Nothing in the selection would change.' };
  return cellsEdit(c, how, cells, word(cells.length));
}

/** More or less of everything selected, by a percentage; blanks stay blank. */
export const raiseBy = (c: EditContext, rect: Rect, percent: Percent): Edit =>
  change(
    c,
    rect,
    'raised',
    (amounts) => amounts.map((a) => (a === null ? null : uplift(a, percent))),
    (n) => `${many(n, 'month')} changed by ${percent.replace('-', '−')}%.`,
  );

/** An amount added to every selected month that says something. */
export const addAmount = (c: EditContext, rect: Rect, amount: Minor): Edit =>
  change(
    c,
    rect,
    'raised',
    (amounts) => amounts.map((a) => (a === null ? null : minor(a + amount))),
    (n) => `Added to ${many(n, 'month')}.`,
  );

/** Every selected amount with the other sign. */
export const swapSign = (c: EditContext, rect: Rect): Edit =>
  change(
    c,
    rect,
    'turned',
    (amounts) => amounts.map((a) => (a === null ? null : negate(a))),
    (n) => `The sign of ${many(n, 'month')} is turned.`,
  );

/** Rounds each line's selected months to a unit of minor units, keeping their rounded total. Balances one by one. */
export const roundSelection = (c: EditContext, rect: Rect, unit: number): Edit =>
  change(
    c,
    rect,
    'rounded',
    (amounts, account) => {
      const whole = amounts.map((a) => a ?? ZERO);
      const parts = c.reckoned.facts.isBalance(account)
        ? whole.map((a) => roundTo(a, unit))
        : roundParts(whole, unit);
      return amounts.map((a, i) => (a === null ? null : parts[i]!));
    },
    (n) => `${many(n, 'month')} rounded; each line keeps its rounded total.`,
  );

/**
 * Sets the total of everything selected: what stands there changes in proportion; where nothing stands, it is divided
 * evenly over lines and months.
 */
export function setTotal(c: EditContext, rect: Rect, total: Minor): Edit {
  const { periods } = c.reckoned.facts;
  const all = [...amountsIn(c, rect)];
  const flat = all.flatMap((l) => l.amounts.map((a) => a ?? ZERO));
  if (flat.length === 0) return { trouble: 'Nothing here can take a total.' };
  const parts = splitLike(total, flat) ?? splitEven(total, flat.length);
  const cells: CellValue[] = [];
  let k = 0;
  for (const { ref, months, amounts } of all)
    months.forEach((i, m) => {
      const value = parts[k++]!;
      // A blank month that gets nothing stays blank.
      if (value !== amounts[m] && !(amounts[m] === null && value === 0))
        cells.push({ ...ref, period: periods[i]!.id, value });
    });
  if (cells.length === 0) return { trouble: 'The selection has that total already.' };
  return cellsEdit(c, 'spread', cells, `The total is spread over ${many(cells.length, 'month')}.`);
}

/** The months of each selected line after the last selected one take its amount: from here on. */
export function carryOn(c: EditContext, rect: Rect, wholeColumn: boolean): Edit {
  const { periods } = c.reckoned.facts;
  const here = periodsOf(c, rect).at(-1);
  if (here === undefined) return { trouble: 'Select the month to carry on from.' };
  const rows = wholeColumn ? lineRows(c, { ...rect, top: 0, bottom: c.rows.length - 1 }) : lineRows(c, rect);
  const cells: CellValue[] = [];
  for (const r of rows) {
    const { ref, result } = lineAt(c, r)!;
    const value = result.amounts[here] ?? null;
    for (let i = here + 1; i < periods.length; i++)
      if ((result.amounts[i] ?? null) !== value) cells.push({ ...ref, period: periods[i]!.id, value });
  }
  if (cells.length === 0) return { trouble: 'The months after it are so already.' };
  return cellsEdit(
    c,
    'filled',
    cells,
    `${periods[here]!.label} carried on to ${many(cells.length, 'month')}.`,
  );
}

/** The selected months of every line made blank. */
export function clearMonths(c: EditContext, rect: Rect): Edit {
  return change(
    c,
    { ...rect, top: 0, bottom: c.rows.length - 1 },
    'cleared',
    (amounts) => amounts.map(() => null),
    (n) => `${many(n, 'month')} made blank.`,
  );
}

/**
 * Copies months from elsewhere: each selected line's month takes what the chosen source months of the line add up to.
 * `source` gives a line's amount of one source month; several are added up.
 */
export function copyFrom(
  c: EditContext,
  rect: Rect,
  source: (account: string, segment: string | null) => readonly (Minor | null)[],
  name: string,
): Edit {
  const { periods } = c.reckoned.facts;
  const cells: CellValue[] = [];
  for (const { ref, months, amounts } of amountsIn(c, rect)) {
    const said = source(ref.account, ref.segment).filter((v): v is Minor => v !== null);
    const value = said.length === 0 ? null : sum(said);
    months.forEach((i, k) => {
      if (value !== amounts[k]) cells.push({ ...ref, period: periods[i]!.id, value });
    });
  }
  if (cells.length === 0) return { trouble: 'The selection is so already.' };
  return cellsEdit(c, 'copied', cells, `${many(cells.length, 'month')} copied from ${name}.`);
}
