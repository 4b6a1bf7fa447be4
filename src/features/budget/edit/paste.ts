import type { Minor } from '@/core/money';
import { isProfitAndLoss, type AccountId } from '@/core/model';
import { matchBlock, matchRows, type NamedRows, type Rect } from '@/core/sheet';
import {
  cellsEdit,
  cellsFor,
  enteredColumns,
  many,
  pastedCells,
  pasteEdit,
  readCell,
  type Edit,
  type EditContext,
} from './edits';

/** What a paste would do, to be looked at before it is done. */
export type Pasted = {
  /** By lines and months that it names, by the lines alone, or laid where the hand is. */
  readonly how: 'matched' | 'byLine' | 'placed';
  /** Cells of the block that lie outside of the lines and months. */
  readonly outside: number;
  readonly edit: Edit;
  /** Each line's total of the months that are met, before and after. */
  readonly lines: readonly {
    readonly account: AccountId;
    readonly before: Minor;
    readonly after: Minor;
    readonly months: number;
  }[];
  /** Lines whose sign turns, or that grow or shrink by more than ten times. */
  readonly doubts: readonly { readonly account: AccountId; readonly of: 'sign' | 'size' }[];
  readonly unknownLines: readonly string[];
  readonly unknownMonths: readonly string[];
  /** Cells that cannot be read, by their place in the block. */
  readonly unread: readonly { readonly row: number; readonly column: number; readonly text: string }[];
};

const MANY = 10;

/**
 * A block from the clipboard: taken at once where it simply fills what is selected or a few cells; shown first where
 * it is matched by its heads, covers much, reaches beyond the lines and months, or turns signs and sizes.
 */
export function pasteOf(
  c: EditContext,
  rect: Rect,
  block: readonly (readonly string[])[],
): Edit | { readonly preview: Pasted } {
  const matched = matchBlock(
    block,
    c.book.accounts.filter((a) => c.rows.some((r) => r.account === a.id) || isProfitAndLoss(a.kind)),
    c.reckoned.facts.periods,
  );
  if (matched) return { preview: matchedPaste(c, matched) };
  const named = matchRows(block, c.book.accounts);
  if (named) return { preview: namedPaste(c, named, rect) };
  const placed = pastedCells(c, rect, block);
  if ('trouble' in placed) return placed;
  const edit = pasteEdit(c, rect, block);
  const preview = previewOf(c, 'placed', edit, placed.cells);
  return placed.outside > 0 || preview.doubts.length > 0 || preview.lines.length > MANY
    ? { preview: { ...preview, outside: placed.outside } }
    : edit;
}

type Cells = Extract<ReturnType<typeof pastedCells>, { cells: unknown }>['cells'];

function matchedPaste(c: EditContext, matched: NonNullable<ReturnType<typeof matchBlock>>): Pasted {
  const { periods } = c.reckoned.facts;
  const { segments } = c.reckoned.budget;
  const refOf = new Map(c.rows.flatMap((r) => (r.account && r.ref ? [[r.account, r.ref] as const] : [])));
  const cells: Cells = [];
  const unread: Pasted['unread'][number][] = [];
  for (const { account, period, text, row, column } of matched.cells) {
    // A line that a filter hides is met all the same; segments that are added up are not.
    const ref = refOf.get(account) ?? (segments.length === 1 ? { account, segment: segments[0]! } : null);
    if (!ref || text.trim() === '') continue;
    const now = c.reckoned.amounts(ref.account, ref.segment)?.[period] ?? null;
    const read = readCell(text, now, c.book);
    if ('trouble' in read) unread.push({ row, column, text });
    else cells.push({ ...ref, period: periods[period]!.id, value: read.value });
  }
  const months = many(matched.months, 'month');
  const edit: Edit =
    cells.length === 0
      ? { trouble: 'Nothing in the block could be matched with a line and a month.' }
      : cellsEdit(c, 'pasted', cells, `Pasted ${many(matched.lines, 'line')} × ${months}, matched by name.`);
  return {
    ...previewOf(c, 'matched', edit, cells),
    unknownLines: matched.unknownLines,
    unknownMonths: matched.unknownMonths,
    unread,
  };
}

/** Figures under no month's name: each row goes to the line that it names, its figures to the months from the hand on. */
function namedPaste(c: EditContext, named: NamedRows, rect: Rect): Pasted {
  const rowOf = new Map(c.rows.flatMap((r, i) => (r.account && r.ref ? [[r.account, i] as const] : [])));
  const columns = enteredColumns(c, rect.left, c.columns.length - 1);
  const cells: Cells = [];
  const unread: Pasted['unread'][number][] = [];
  let outside = 0;
  for (const { account, texts, row } of named.rows)
    texts.forEach((text, j) => {
      const at = rowOf.get(account);
      const column = columns[j];
      if (at === undefined || column === undefined) {
        if (text.trim() !== '') outside++;
        return;
      }
      const read = readCell(text, c.rows[at]!.values[column] ?? null, c.book);
      if ('trouble' in read) unread.push({ row, column: named.names + j + 1, text });
      else cells.push(...cellsFor(c, at, column, read.value));
    });
  const lines = new Set(cells.map((x) => x.account)).size;
  const edit: Edit =
    cells.length === 0
      ? { trouble: 'Nothing in the block could be matched with a line and a month.' }
      : cellsEdit(
          c,
          'pasted',
          cells,
          `Pasted ${many(cells.length, 'month')} of ${many(lines, 'line')}, matched by code or name.`,
        );
  return { ...previewOf(c, 'byLine', edit, cells), unknownLines: named.unknownLines, unread, outside };
}

function previewOf(c: EditContext, how: Pasted['how'], edit: Edit, cells: Cells): Pasted {
  const place = new Map(c.reckoned.facts.periods.map((p, i) => [p.id, i]));
  const totals = new Map<AccountId, { before: number; after: number; months: number }>();
  for (const { account, segment, period, value } of cells) {
    const t = totals.get(account) ?? { before: 0, after: 0, months: 0 };
    t.before += c.reckoned.amounts(account, segment)?.[place.get(period)!] ?? 0;
    t.after += value ?? 0;
    t.months += 1;
    totals.set(account, t);
  }
  const lines = [...totals].map(([account, t]) => ({
    account,
    before: t.before as Minor,
    after: t.after as Minor,
    months: t.months,
  }));
  const doubts = lines.flatMap(({ account, before, after }): Pasted['doubts'][number][] => {
    if (before === 0 || after === 0) return [];
    if (Math.sign(before) !== Math.sign(after)) return [{ account, of: 'sign' }];
    const ratio = Math.abs(after / before);
    return ratio > MANY || ratio < 1 / MANY ? [{ account, of: 'size' }] : [];
  });
  return { how, edit, lines, doubts, outside: 0, unknownLines: [], unknownMonths: [], unread: [] };
}
