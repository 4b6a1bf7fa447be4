import { formatAmount, perMilleText, type AmountStyle, type Minor } from '@/core/money';
import { beneathTitle, type ReportColumn, type ReportRow, type ReportTable } from '@/core/report';
import { COLORS, Pages, type Area, type As, type Foot, type Paper, type Part } from './pages';

/** How a report's figures are written, and what stands under its pages. */
export type PdfStyle = {
  readonly locale: string;
  readonly amounts: AmountStyle;
  /** In what the figures are: the currency, or thousands of it. */
  readonly unit: string;
  readonly paper: Paper;
  readonly foot: (page: number, of: number) => string;
  /** Heads the notes behind a table. */
  readonly notes: string;
};

const PAD = 9;
const NAME_MOST = 190;
const GAP = 6;
/** Type sizes in points: as large as fits, never smaller than the last. */
const SIZES = [8.5, 8, 7.5, 7] as const;

/** A column with the width that it takes. */
type Sized = { readonly column: ReportColumn; readonly place: number; readonly width: number };

/** Whether what a column says stands behind the table. */
const isBehind = ({ kind, short }: ReportColumn): boolean => kind === 'text' && !short;

/** The text of a cell. */
export function cellText(
  value: unknown,
  column: Pick<ReportColumn, 'kind'>,
  row: Pick<ReportRow, 'unit'>,
  currency: string,
  { locale, amounts }: Pick<PdfStyle, 'locale' | 'amounts'>,
): string {
  if (value === null || value === undefined) return '';
  switch (column.kind) {
    case 'money':
      return row.unit
        ? (Number(value) / 10 ** row.unit.decimals).toLocaleString(locale)
        : formatAmount(value as Minor, currency, locale, amounts);
    case 'perMille':
      return perMilleText(Number(value));
    case 'bar':
      return '';
    case 'sense':
    case 'text':
      return String(value);
  }
}

/** Lays a report over as many pages as it takes: heads on each, totals with what they total, notes behind it. */
export function tablePages(pages: Pages, table: ReportTable, style: PdfStyle): void {
  const columns = table.columns.flatMap((column, place) => (isBehind(column) ? [] : [{ column, place }]));
  const plan = fit(pages, table, columns, style);
  const foot: Foot = { left: `${table.book} · ${table.title}`, page: style.foot };
  const section = pages.part('Sect');
  plan.bands.forEach((band, i) => laidOut(pages, table, band, plan, style, foot, section, i === 0));
  notesOf(pages, table, plan, style, foot, section);
  section.end();
}

type Plan = {
  readonly size: number;
  readonly landscape: boolean;
  readonly name: number;
  /** Columns that stand on one page's width; more bands where there is no room for all. */
  readonly bands: readonly (readonly Sized[])[];
};

function fit(
  pages: Pages,
  table: ReportTable,
  columns: readonly { readonly column: ReportColumn; readonly place: number }[],
  style: PdfStyle,
): Plan {
  const measured = (
    size: number,
  ): { readonly name: number; readonly sized: Sized[]; readonly all: number } => {
    const name = Math.min(
      NAME_MOST,
      table.rows.reduce((w, r) => Math.max(w, pages.width(r.label, 'bold', size) + indentOf(r)), 60) + PAD,
    );
    const sized = columns.map(({ column, place }): Sized => {
      if (column.kind === 'bar') return { column, place, width: 34 };
      let width = pages.width(column.label, 'plain', size - 0.5);
      for (const row of table.rows) {
        const text = cellText(row.cells[place], column, row, table.currency, style);
        // Digits are alike: only what is longer can be wider.
        if (text.length * size * 0.62 > width)
          width = Math.max(width, pages.width(text, row.kind === 'line' ? 'plain' : 'bold', size));
      }
      return { column, place, width: width + PAD };
    });
    return { name, sized, all: name + sized.reduce((t, c, i) => t + c.width + gapBefore(sized, i), 0) };
  };
  for (const landscape of [false, true])
    for (const size of SIZES) {
      const { name, sized, all } = measured(size);
      if (all <= Pages.room(style.paper, landscape).width) return { size, landscape, name, bands: [sized] };
    }
  // Too wide for any page: its columns go over several, each with the names, blocks kept together where they fit.
  const size = SIZES.at(-1)!;
  const { name, sized } = measured(size);
  const room = Pages.room(style.paper, true).width - name;
  const bands: Sized[][] = [];
  for (const block of blocksOf(sized)) {
    const width = (list: readonly Sized[]) => list.reduce((t, c, i) => t + c.width + gapBefore(list, i), 0);
    const last = bands.at(-1);
    if (last && width([...last, ...block]) <= room) last.push(...block);
    else if (width(block) <= room) bands.push([...block]);
    else
      for (const column of block) {
        const open = bands.at(-1);
        if (open && width([...open, column]) <= room) open.push(column);
        else bands.push([column]);
      }
  }
  return { size, landscape: true, name, bands };
}

const gapBefore = (columns: readonly Sized[], i: number): number =>
  i > 0 && columns[i]!.column.block !== columns[i - 1]!.column.block ? GAP : 0;

function blocksOf(columns: readonly Sized[]): Sized[][] {
  const out: Sized[][] = [];
  columns.forEach((c, i) => {
    if (i > 0 && c.column.block === columns[i - 1]!.column.block) out.at(-1)!.push(c);
    else out.push([c]);
  });
  return out;
}

const indentOf = (row: ReportRow): number => (row.kind === 'detail' ? 12 : 0);

/** Rows that must not be parted: a heading with its first lines, a total with the line before it, results together. */
export function keptTogether(rows: readonly ReportRow[]): number[][] {
  const out: number[][] = [];
  let after = false;
  rows.forEach((row, r) => {
    const before = rows[r - 1];
    const joins =
      after ||
      row.kind === 'subtotal' ||
      row.kind === 'group' ||
      row.kind === 'result' ||
      (row.kind === 'detail' && before?.kind !== 'detail');
    if (joins && out.length > 0) out.at(-1)!.push(r);
    else out.push([r]);
    after = row.kind === 'section';
  });
  return out;
}

function laidOut(
  pages: Pages,
  table: ReportTable,
  band: readonly Sized[],
  plan: Plan,
  style: PdfStyle,
  foot: Foot,
  section: Part,
  isFirst: boolean,
): void {
  const { size } = plan;
  const height = size + 5;
  const largest = band.map(({ column, place }) =>
    column.kind === 'bar'
      ? table.rows.reduce(
          (m, r) => (r.kind === 'line' ? Math.max(m, Math.abs(Number(r.cells[place] ?? 0))) : m),
          1,
        )
      : 0,
  );
  let area = pages.page(plan.landscape, foot);
  // Heads that come again are there for the eye.
  let y = titleOf(pages, table, area, style.unit, isFirst ? section : null);
  const whole = pages.part('Table', section);
  y = headOf(pages, band, plan, area, y, whole);
  for (const group of keptTogether(table.rows)) {
    if (y + group.length * height > area.bottom && group.length * height < (area.bottom - area.top) / 2) {
      area = pages.page(plan.landscape, foot);
      y = headOf(pages, band, plan, area, area.top);
    }
    for (const r of group) {
      if (y + height > area.bottom) {
        area = pages.page(plan.landscape, foot);
        y = headOf(pages, band, plan, area, area.top);
      }
      rowOf(pages, table, table.rows[r]!, band, largest, plan, style, area, y, whole);
      y += height;
    }
  }
  whole.end();
}

function titleOf(
  pages: Pages,
  table: ReportTable,
  { left, top, width }: Area,
  unit: string,
  within: Part | null,
): number {
  const as = (type: As['type']) => (within ? { as: { type, within } } : {});
  pages.text(table.book, left, top, { size: 8, color: COLORS.faded, most: width, ...as('P') });
  pages.text(table.title, left, top + 13, { face: 'title', size: 16, most: width, ...as('H1') });
  let y = top + 36;
  for (const line of pages.lines(beneathTitle(table, unit), 'plain', 8, width).slice(0, 5)) {
    pages.text(line, left, y, { size: 8, color: COLORS.faded, ...as('P') });
    y += 11;
  }
  return y + 6;
}

function headOf(
  pages: Pages,
  band: readonly Sized[],
  plan: Plan,
  { left, width }: Area,
  top: number,
  within: Part | null = null,
): number {
  const { size, name } = plan;
  const row = within && pages.part('TR', within);
  const heads = (text: string) =>
    row ? { as: { type: 'TH', within: row, heads: 'Column' } as const, said: text } : {};
  if (row) pages.text('', left, top, { size, as: { type: 'TD', within: row } });
  const end = Math.min(left + width, left + name + widthOf(band));
  let x = left + name;
  const blocks = blocksOf(band);
  blocks.forEach((block, i) => {
    x += i > 0 ? GAP : 0;
    const wide = block.reduce((t, c) => t + c.width, 0);
    const { group } = block[0]!.column;
    if (group !== '') {
      pages.text(group, x + wide / 2, top, { face: 'bold', size: size + 0.5, align: 'center', most: wide });
      pages.line(x + 3, x + wide - 1, top + size + 4, 0.4, COLORS.rule);
    }
    let at = x;
    for (const { column, width: w } of block) {
      pages.text(column.label, at + w - 2, top + size + 6.5, {
        size: size - 0.5,
        color: COLORS.faded,
        align: 'right',
        most: w,
        ...heads([group, column.label].filter(Boolean).join(' ')),
      });
      at += w;
    }
    x += wide;
  });
  row?.end();
  const y = top + 2 * size + 9;
  pages.line(left, end, y, 0.8);
  return y + 3;
}

const widthOf = (band: readonly Sized[]): number =>
  band.reduce((t, c, i) => t + c.width + gapBefore(band, i), 0);

const TONES: Partial<Record<ReportColumn['of'], string>> = {
  plan: COLORS.plan,
  outlook: COLORS.plan,
  prior: COLORS.faded,
};

function rowOf(
  pages: Pages,
  table: ReportTable,
  row: ReportRow,
  band: readonly Sized[],
  largest: readonly number[],
  { size, name }: Plan,
  style: PdfStyle,
  { left }: Area,
  y: number,
  whole: Part,
): void {
  const heavy = row.kind === 'subtotal' || row.kind === 'result' || row.kind === 'group';
  const face = heavy ? 'bold' : 'plain';
  const end = left + name + widthOf(band);
  if (row.kind === 'blank') return;
  const part = pages.part('TR', whole);
  const heads = { type: 'TH', within: part, heads: 'Row' } as const;
  if (row.kind === 'section') {
    pages.text(row.label.toUpperCase(), left, y + 1, {
      face: 'bold',
      size: size - 1.5,
      color: COLORS.faded,
      most: name,
      as: heads,
    });
    return part.end();
  }
  if (heavy) pages.line(left, end, y - 2, row.kind === 'group' ? 0.3 : 0.5);
  pages.text(row.label, left + indentOf(row), y, {
    face,
    size,
    most: name - PAD - indentOf(row),
    as: heads,
    ...(row.kind === 'detail' ? { color: COLORS.faded } : {}),
  });
  let x = left + name;
  band.forEach(({ column, place, width }, i) => {
    x += gapBefore(band, i);
    const value = row.cells[place];
    if (column.kind === 'bar') barOf(pages, Number(value ?? 0), largest[i]!, row, x, y, width, size);
    else {
      const text = cellText(value, column, row, table.currency, style);
      const color = column.kind === 'sense' ? (text === 'U' ? COLORS.bad : COLORS.good) : TONES[column.of];
      const as = { type: 'TD', within: part } as const;
      pages.text(text, x + width - 2, y, { face, size, align: 'right', as, ...(color ? { color } : {}) });
    }
    x += width;
  });
  part.end();
  // The last result has a double line below.
  if (row.kind === 'result' && row === table.rows.findLast((r) => r.kind === 'result'))
    for (const down of [size + 2.2, size + 3.8]) pages.line(left, end, y + down, 0.5);
}

function barOf(
  pages: Pages,
  value: number,
  largest: number,
  row: ReportRow,
  x: number,
  y: number,
  width: number,
  size: number,
): void {
  if (row.kind !== 'line' || value === 0) return;
  const half = width / 2 - 2;
  const long = Math.max(0.6, (Math.abs(value) / largest) * half);
  const middle = x + width / 2;
  const help = value * (row.effect ?? 0);
  pages.box(middle - 0.2, y, 0.4, size, COLORS.rule);
  pages.box(
    value < 0 ? middle - long : middle,
    y + 1,
    long,
    size - 2.5,
    help > 0 ? COLORS.good : help < 0 ? COLORS.bad : COLORS.faded,
  );
}

/** What is said of lines, behind the table: in full, whatever its length. */
function notesOf(
  pages: Pages,
  table: ReportTable,
  plan: Plan,
  style: PdfStyle,
  foot: Foot,
  within: Part,
): void {
  const places = table.columns.flatMap((c, i) => (isBehind(c) ? [i] : []));
  const said = table.rows.flatMap((row) => {
    const text = places
      .map((i) => String(row.cells[i] ?? ''))
      .filter(Boolean)
      .join(' · ');
    return text === '' ? [] : [{ label: row.label, text }];
  });
  if (said.length === 0) return;
  const size = 8.5;
  let area = pages.page(plan.landscape, foot);
  let y = area.top;
  pages.text(style.notes, area.left, y, { face: 'title', size: 13, as: { type: 'H2', within } });
  y += 24;
  for (const { label, text } of said) {
    const lines = pages.lines(text, 'plain', size, area.width);
    if (y + (size + 4) * Math.min(3, lines.length + 1) > area.bottom) {
      area = pages.page(plan.landscape, foot);
      y = area.top;
    }
    pages.text(label, area.left, y, { face: 'bold', size, most: area.width, as: { type: 'H3', within } });
    y += size + 4;
    for (const line of lines) {
      if (y + size > area.bottom) {
        area = pages.page(plan.landscape, foot);
        y = area.top;
      }
      pages.text(line, area.left, y, { size, most: area.width, as: { type: 'P', within } });
      y += size + 3.5;
    }
    y += 6;
  }
}
