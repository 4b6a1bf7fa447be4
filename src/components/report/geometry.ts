import type { Minor } from '@/core/money';
import type { ReportColumn, ReportRow, ReportTable } from '@/core/report';
import { NAME, SCROLLBAR } from '../sheet/geometry';

export type FigureText = (amount: Minor | null, row: ReportRow) => string;

const FIXED: Readonly<Record<Exclude<ReportColumn['kind'], 'money'>, number>> = {
  perMille: 56,
  sense: 34,
  bar: 48,
  text: 190,
};
/** So many lines are looked at for the widest figure, beside all totals: those are the largest as a rule. */
const LOOKED_AT = 60;
/** A part may have one digit more than the whole, or a sign. */
const SPARE_DIGIT = 7;
/** Room that a column of money may take beyond what it needs. */
const SPARE = 34;
/** Columns between two blocks stand a little apart. */
export const GAP = 8;

/** Where each column begins and the last ends, in a table so wide; the first begins after the names. */
export function columnStarts(table: ReportTable, text: FigureText, width: number): readonly number[] {
  const { columns, rows } = table;
  const looked = rows.filter((r) => r.kind !== 'line' && r.kind !== 'detail');
  looked.push(...rows.filter((r) => r.kind === 'line').slice(0, LOOKED_AT));
  const widest = new Map<number | undefined, number>();
  const moneyWidth = (c: ReportColumn, i: number): number => {
    // The parts of a whole are hardly wider than it: asking them all would be dear.
    const known = c.part ? widest.get(c.place) : undefined;
    if (known !== undefined) return known + SPARE_DIGIT;
    let longest = '';
    for (const row of looked) {
      const t = text((row.cells[i] ?? null) as Minor | null, row);
      if (t.length > longest.length) longest = t;
    }
    const digits = longest.replace(/\D/g, '').length;
    const width = digits * 6.6 + (longest.length - digits) * 3.4 + 16;
    widest.set(c.place, Math.max(width, widest.get(c.place) ?? 0));
    return width;
  };
  const widths = new Array<number>(columns.length);
  // The whole stands behind its parts.
  for (let i = columns.length - 1; i >= 0; i--) {
    const c = columns[i]!;
    const head = c.label.length * 6.4 + 12;
    widths[i] =
      c.kind === 'money'
        ? Math.ceil(Math.max(54, head, moneyWidth(c, i)))
        : Math.max(FIXED[c.kind], c.kind === 'perMille' ? head : 0);
  }
  // A block is as wide as its name.
  for (let i = 0; i < columns.length;) {
    let to = i + 1;
    while (to < columns.length && columns[to]!.block === columns[i]!.block) to++;
    const short = columns[i]!.group.length * 6.9 + 4 - widths.slice(i, to).reduce((t, w) => t + w, 0);
    if (short > 0) widths[i]! += Math.ceil(short);
    i = to;
  }
  const gaps = columns.map((c, i) => (i > 0 && c.block !== columns[i - 1]!.block ? GAP : 0));
  const needed = widths.reduce((t, w, i) => t + w + gaps[i]!, NAME);
  const room = Math.max(0, width - SCROLLBAR - needed);
  const words = columns.findLastIndex((c) => c.kind === 'text');
  const money = columns.filter((c) => c.kind === 'money').length;
  const more = words >= 0 || money === 0 ? 0 : Math.min(SPARE, Math.floor(room / money));
  const starts = [NAME];
  widths.forEach((w, i) => {
    const wide = i === words ? w + room : columns[i]!.kind === 'money' ? w + more : w;
    starts.push(starts.at(-1)! + gaps[i]! + wide);
  });
  return starts;
}
