import { cellText, type Grid, type GridRow } from '@/core/files';
import { SAMPLE } from './guessContext';
import type { BalanceRole, MonthsRole } from './mapping';

const CODE = /^[A-Z]{0,3}[\d.\-/]+$/;

/** How many columns the first rows of a grid have. */
export const widthOf = (grid: Grid): number => Math.max(...grid.head.slice(0, SAMPLE).map((r) => r.length));

/** Sets the roles of the columns that hold the accounts, out of some: codes and names apart, or together in one. */
export function placeAccounts<R extends MonthsRole | BalanceRole>(
  columns: (R | { readonly as: 'account' | 'code' | 'name' })[],
  among: readonly number[],
  body: readonly GridRow[],
): void {
  const texts = new Map(
    among.map((i) => [i, body.map((r) => cellText(r[i])).filter((t) => t !== '')] as const),
  );
  const filled = among.filter((i) => texts.get(i)!.length > 0);
  const isCode = (i: number) => texts.get(i)!.filter((t) => CODE.test(t)).length > texts.get(i)!.length * 0.6;
  const code = filled.find(isCode);
  const name = filled
    .filter((i) => i !== code)
    .sort((a, b) => texts.get(b)!.length - texts.get(a)!.length)[0];
  if (code !== undefined) columns[code] = { as: 'code' };
  if (name !== undefined) columns[name] = { as: code === undefined ? 'account' : 'name' };
}
