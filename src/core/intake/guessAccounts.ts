import { cellText, type GridCell } from '@/core/files';

const CODE = /^[A-Z]{0,3}[\d.\-/]+$/;

/** Which of some columns hold the accounts: codes and names apart, or together in one. */
export function guessAccountColumns(
  columns: readonly number[],
  body: readonly (readonly GridCell[])[],
): { readonly code: number | null; readonly name: number | null } {
  const texts = new Map(
    columns.map((i) => [i, body.map((r) => cellText(r[i])).filter((t) => t !== '')] as const),
  );
  const filled = columns.filter((i) => texts.get(i)!.length > 0);
  const isCode = (i: number) => texts.get(i)!.filter((t) => CODE.test(t)).length > texts.get(i)!.length * 0.6;
  const code = filled.find(isCode) ?? null;
  const name =
    filled.filter((i) => i !== code).sort((a, b) => texts.get(b)!.length - texts.get(a)!.length)[0] ?? null;
  return { code, name };
}
