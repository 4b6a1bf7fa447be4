import type { FiscalCalendar, Period, PeriodId } from '@/core/calendar';
import { cellText, rowsOf, type Grid, type GridCell, type GridRow } from '@/core/files';
import {
  nameKey,
  NameIndex,
  numbersIn,
  parseMonthHead,
  splitAccountCell,
  type NumberDoubt,
} from '@/core/intake';
import {
  cutText,
  LIMITS,
  lineKey,
  profitSign,
  type Account,
  type Axis,
  type LineRef,
  type OwnLine,
  type ReturnedLine,
  type SaidCell,
  type Stray,
} from '@/core/model';
import { minorDigits, plus, splitEven, splitLike, ZERO, type Minor, type NumberFormat } from '@/core/money';
import { lineName } from './choose';
import { readAnchor, readColumnMark, readRowMark, type Anchor, type RowMark } from './marks';
import { BLANK, saidIn, turnedCell } from './readCells';

/** What a returned file is read against: who it was handed to, and what the book calls its lines and months. */
export type ReadGround = {
  readonly periods: readonly Period[];
  readonly answer: 'months' | 'whole';
  /** The lines that were handed out, with what the draft was. */
  readonly lines: readonly (LineRef & { readonly handed: readonly (Minor | null)[] })[];
  readonly accounts: readonly Account[];
  readonly axis: Axis | null;
  readonly calendar: FiscalCalendar;
  readonly currency: string;
  /** How numbers are written where the file does not tell; `numbers`: how it was said that they are. */
  readonly prefer: NumberFormat;
  readonly numbers?: NumberFormat | null;
};

export type Reading = {
  readonly known: 'identity' | 'names';
  readonly lines: readonly ReturnedLine[];
  readonly own: readonly OwnLine[];
  readonly strays: readonly Stray[];
  readonly without: readonly PeriodId[];
};

/** What was read, with numbers that can be read two ways: they are read in one of them, and have to be asked about. */
export type ReadReturn = Reading & { readonly doubt: NumberDoubt | null };

/** Whose sheet a file has; null where it does not say. */
export function anchorIn(grids: readonly Grid[]): Anchor | null {
  for (const grid of grids)
    for (const row of grid.head)
      for (const cell of row) {
        const anchor = readAnchor(cell);
        if (anchor) return anchor;
      }
  return null;
}

/** The sheet with the most of our marks, else the one with the most lines and months that are known. */
export function readReturn(grids: readonly Grid[], ground: ReadGround): ReadReturn {
  const names = new Names(ground);
  let best: { readonly reading: ReadReturn; readonly score: number } | null = null;
  for (const grid of grids) {
    const rows = rowsOf(grid);
    const layout = layoutOf(rows, ground);
    const reading = readSheet(rows, layout, ground, names);
    // A sheet with our marks is the one that was handed out; one without any of the months says nothing of them.
    const columns = layout.months.size + layout.years.size + (layout.whole === null ? 0 : 1);
    const score = columns === 0 ? 0 : (layout.marked ? 1_000_000 : 0) + reading.lines.length * columns;
    if (score > (best?.score ?? 0)) best = { reading, score };
  }
  return (
    best?.reading ?? {
      known: 'names',
      lines: [],
      own: [],
      strays: [],
      without: ground.periods.map((p) => p.id),
      doubt: null,
    }
  );
}

/** Where things stand in a sheet. */
type Layout = {
  /** Whether the sheet has our marks. */
  readonly marked: boolean;
  /** The column of the marks of rows; null where they are gone. */
  readonly marks: number | null;
  /** The row of the heads of months; everything of interest stands beneath it. */
  readonly head: number;
  /** Columns of the months asked for, by their place among them. */
  readonly months: ReadonlyMap<number, number>;
  /** Columns of whole fiscal years, where a sheet has those and no months: the places of a year's months. */
  readonly years: ReadonlyMap<number, readonly number[]>;
  readonly whole: number | null;
  readonly spread: number | null;
  readonly total: number | null;
  readonly comment: number | null;
  /** Columns of the code and the name, where the sheet says them. */
  readonly named: readonly number[];
  readonly sense: number | null;
  readonly strays: readonly Stray[];
};

const stray = (code: Stray['code'], what: string, row: number): Stray => ({
  code,
  what: cutText(what, LIMITS.rowName),
  row: row + 1,
});

function layoutOf(rows: readonly GridRow[], ground: ReadGround): Layout {
  let [markRow, marked] = [-1, 0];
  const columns = new Map<number, number>();
  for (let r = 0; r < rows.length; r++) {
    let count = 0;
    rows[r]!.forEach((cell, c) => {
      if (readColumnMark(cell)) count++;
      else if (readRowMark(cell)) columns.set(c, (columns.get(c) ?? 0) + 1);
    });
    if (count > marked) [markRow, marked] = [r, count];
  }
  const marks = [...columns].toSorted((a, b) => b[1] - a[1])[0]?.[0] ?? null;
  return marked > 0 ? markedLayout(rows, markRow, marks, ground) : namedLayout(rows, marks, ground);
}

/** By our own marks over the columns; a head that was overwritten with another of the months is believed. */
function markedLayout(
  rows: readonly GridRow[],
  markRow: number,
  marks: number | null,
  ground: ReadGround,
): Layout {
  const months = new Map<number, number>();
  const taken = new Set<number>();
  const strays: Stray[] = [];
  const of = new Map<string, number>();
  const placeOf = new Map(ground.periods.map((p, i) => [p.id as string, i]));
  const heads = rows[markRow + 1] ?? [];
  const row = rows[markRow]!;
  for (let c = 0; c < row.length; c++) {
    const mark = readColumnMark(row[c]);
    if (!mark) continue;
    if (mark.of !== 'month') {
      if (!of.has(mark.of)) of.set(mark.of, c);
      continue;
    }
    const said = monthIn(heads[c], ground);
    const place = typeof said === 'number' ? said : placeOf.get(mark.period);
    if (place === undefined) strays.push(stray('monthOutside', mark.period, markRow));
    else if (taken.has(place)) strays.push(stray('twice', ground.periods[place]!.label, markRow));
    else {
      taken.add(place);
      months.set(c, place);
    }
  }
  const column = (name: string) => of.get(name) ?? null;
  return {
    marked: true,
    marks,
    // The heads that people read stand beneath the marks.
    head: marks !== null && readRowMark(heads[marks]) ? markRow : markRow + 1,
    months,
    years: new Map(),
    whole: column('whole'),
    spread: column('spread'),
    total: column('total'),
    comment: column('comment'),
    named: [column('code'), column('name')].filter((c) => c !== null),
    sense: column('sense'),
    strays,
  };
}

/** By the row that names the most of the months, as a person would read it. */
function namedLayout(rows: readonly GridRow[], marks: number | null, ground: ReadGround): Layout {
  let [head, most] = [-1, 0];
  rows.forEach((row, r) => {
    const places = row.map((cell) => monthIn(cell, ground)).filter((m) => typeof m === 'number');
    const count = new Set(places).size;
    if (count > most) [head, most] = [r, count];
  });
  const months = new Map<number, number>();
  const taken = new Set<number>();
  const strays: Stray[] = [];
  const row = rows[head] ?? [];
  let total: number | null = null;
  let comment: number | null = null;
  let sense: number | null = null;
  let whole: number | null = null;
  row.forEach((cell, c) => {
    const place = monthIn(cell, ground);
    const text = cellText(cell).toLowerCase();
    if (typeof place === 'number') {
      if (taken.has(place)) strays.push(stray('twice', cellText(cell), head));
      else {
        taken.add(place);
        months.set(c, place);
      }
    } else if (place === 'outside') strays.push(stray('monthOutside', cellText(cell), head));
    else if (/^(total|sum|year|in all|together)\b/.test(text)) total ??= c;
    else if (/comment|remark|note/.test(text)) comment ??= c;
    else if (/income or cost|type|kind/.test(text)) sense ??= c;
  });
  if (ground.answer === 'whole' && months.size === 0)
    rows.forEach((r, i) => {
      if (whole === null)
        r.forEach((cell, c) => {
          if (
            whole === null &&
            /budget|amount|year|total/i.test(cellText(cell)) &&
            typeof cell === 'string'
          ) {
            whole = c;
            head = i;
          }
        });
    });
  const years = new Map<number, readonly number[]>();
  if (ground.answer === 'months' && months.size === 0)
    rows.forEach((r, i) => {
      const found = yearsIn(r, ground);
      if (found.size > years.size) {
        years.clear();
        found.forEach((places, c) => years.set(c, places));
        head = i;
      }
    });
  return {
    marked: false,
    marks,
    head,
    months,
    years,
    whole,
    spread: null,
    total,
    comment,
    named: [],
    sense,
    strays,
  };
}

/** The month that a head names, by its place among those asked for; `outside` for another month; null for no month. */
function monthIn(cell: GridCell | undefined, { periods }: ReadGround): number | 'outside' | null {
  const text = cellText(cell);
  if (text === '' || text.length > 60) return null;
  const key = nameKey(text);
  const at = periods.findIndex((p) => nameKey(p.label) === key);
  if (at >= 0) return at;
  const month = parseMonthHead(cell);
  if (!month || month.of !== 'month') return null;
  const fits = periods.flatMap((p, i) => {
    // A period is named for the month that it ends in.
    const sameMonth = Number(p.end.slice(5, 7)) === month.month;
    return sameMonth && (month.year === null || Number(p.end.slice(0, 4)) === month.year) ? [i] : [];
  });
  if (fits.length === 1) return fits[0]!;
  return month.year === null ? null : fits.length === 0 ? 'outside' : null;
}

/** Columns that are headed by fiscal years whose months are all asked for: "2027", "FY27", "Budget 2027". */
function yearsIn(row: GridRow, { periods, calendar }: ReadGround): Map<number, readonly number[]> {
  const out = new Map<number, readonly number[]>();
  const taken = new Set<number>();
  row.forEach((cell, c) => {
    const said = /^(?:fy|year|budget|plan)?\s*(\d{4}|\d\d)(?:\s*(?:budget|plan))?$/i.exec(cellText(cell));
    if (!said) return;
    const year = Number(said[1]) + (said[1]!.length === 2 ? 2000 : 0);
    const places = periods.flatMap((p, i) => (p.year === year ? [i] : []));
    if (taken.has(year) || places.length === 0 || places.length !== calendar.periodsIn(year)) return;
    taken.add(year);
    out.set(c, places);
  });
  return out;
}

/** What lines are called, to find them where marks are gone. */
class Names {
  private readonly byCode = new Map<string, LineRef[]>();
  private readonly byName = new Map<string, LineRef[]>();
  private readonly labels: { readonly name: string; readonly line: LineRef }[] = [];
  private index: NameIndex | null = null;
  private readonly others = new Set<string>();
  readonly labelOf = new Map<string, string>();
  readonly handedOf = new Map<string, readonly (Minor | null)[]>();
  readonly accounts: ReadonlyMap<string, Account>;

  constructor({ lines, accounts, axis }: ReadGround) {
    this.accounts = new Map(accounts.map((a) => [a.id, a]));
    for (const line of lines) {
      const account = this.accounts.get(line.account);
      if (!account) continue;
      const name = lineName(account, axis, line);
      this.labelOf.set(lineKey(line), name);
      this.handedOf.set(lineKey(line), line.handed);
      push(this.byName, nameKey(name), line);
      if (axis) push(this.byName, nameKey(account.name), line);
      if (account.code) push(this.byCode, account.code.toLowerCase(), line);
      this.labels.push({ name, line });
    }
    const theirs = new Set(lines.map((l) => l.account));
    for (const a of accounts)
      if (!theirs.has(a.id)) {
        this.others.add(nameKey(a.name));
        if (a.code) this.others.add(a.code.toLowerCase());
      }
  }

  /** The line of exactly this name, with its code where the row has one. */
  named(texts: readonly string[]): LineRef | null {
    for (const text of texts) {
      const found = this.byName.get(nameKey(text));
      if (found?.length === 1) return found[0]!;
      const { code, name } = splitAccountCell(text);
      const split = code && name ? this.byName.get(nameKey(name)) : undefined;
      if (split?.length === 1) return split[0]!;
    }
    for (const text of texts) {
      const { code } = splitAccountCell(text);
      const found = this.byCode.get((code || text).toLowerCase());
      if (found?.length === 1) return found[0]!;
    }
    return null;
  }

  /** The one line whose name is most like it, where none else comes near. */
  like(texts: readonly string[]): LineRef | null {
    const index = (this.index ??= new NameIndex(this.labels.map((l) => l.name)));
    for (const text of texts) {
      const scores = index.likenesses(text);
      let [best, second] = [-1, 0];
      scores.forEach((score, i) => {
        if (best < 0 || score > scores[best]!) [best, second] = [i, best < 0 ? 0 : scores[best]!];
        else second = Math.max(second, score);
      });
      if (best >= 0 && scores[best]! >= 0.8 && scores[best]! - second >= 0.1) return this.labels[best]!.line;
    }
    return null;
  }

  isOther = (texts: readonly string[]): boolean =>
    texts.some((t) => this.others.has(nameKey(t)) || this.others.has(splitAccountCell(t).code.toLowerCase()));
}

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const there = map.get(key);
  if (there) there.push(value);
  else map.set(key, [value]);
}

const TOTALS = /^(sub)?totals?\b|\btotal$|^sum\b|^what is left\b|^net\b|^balance\b/i;

function readSheet(rows: readonly GridRow[], at: Layout, ground: ReadGround, names: Names): ReadReturn {
  const digits = minorDigits(ground.currency);
  const inputs =
    ground.answer === 'months'
      ? [...at.months.keys(), ...at.years.keys()]
      : at.whole === null
        ? []
        : [at.whole];
  const { format, doubt } = ground.numbers
    ? { format: ground.numbers, doubt: null }
    : formatOf(rows, at, inputs, ground, names);
  const count = ground.answer === 'months' ? ground.periods.length : 1;
  const lines: ReturnedLine[] = [];
  const own: OwnLine[] = [];
  const strays: Stray[] = [...at.strays];
  const seen = new Set<string>();
  const firstInput = Math.min(...inputs, Infinity);
  rows.forEach((row, r) => {
    if (r <= at.head) return;
    const mark: RowMark | null = at.marks === null ? null : readRowMark(row[at.marks]);
    if (mark?.of === 'total') return;
    const cells: SaidCell[] = Array.from({ length: count }, () => BLANK);
    for (const c of inputs) {
      const said = saidIn(row[c], digits, format);
      const year = at.years.get(c);
      if (!year) cells[ground.answer === 'months' ? at.months.get(c)! : 0] = said;
      else if (said.is !== 'blank') cells[year[0]!] = said;
    }
    const texts = labelsOf(row, at, firstInput);
    const says = cells.some((c) => c.is !== 'blank');
    if (mark === null && texts.length === 0) return;
    const found = lineOf(mark, texts, names);
    const label = texts.at(-1) ?? texts[0] ?? '';
    if (!found) {
      if (mark?.of === 'line') {
        strays.push(stray('unknownLine', label || mark.line.account, r));
        return;
      }
      if (!says || TOTALS.test(label)) return;
      if (names.isOther(texts)) {
        strays.push(stray('notTheirs', label, r));
        return;
      }
      if (own.length >= LIMITS.handoutOwn) return;
      for (const places of at.years.values()) spreadYear(cells, places, []);
      const name = texts.find((t) => !/^[\d.\-/]+$/.test(t)) ?? label;
      own.push({
        name: cutText(name || '?', LIMITS.rowName),
        income: /inc|rev|sale|fee|grant/i.test(at.sense === null ? name : cellText(row[at.sense])),
        row: r + 1,
        cells,
        comment: commentIn(row, at),
        done: false,
      });
      return;
    }
    if (found.relabeled) strays.push(stray('label', label, r));
    const key = lineKey(found.line);
    if (seen.has(key)) {
      strays.push(stray('twice', names.labelOf.get(key) ?? label, r));
      return;
    }
    seen.add(key);
    const handed = names.handedOf.get(key)!;
    for (const places of at.years.values()) spreadYear(cells, places, handed);
    const turned = isTurned(cells, handed, names.accounts.get(found.line.account));
    const total = at.total === null ? null : saidIn(row[at.total], digits, format).amount;
    lines.push({
      account: found.line.account,
      segment: found.line.segment,
      row: r + 1,
      cells: turned ? cells.map(turnedCell) : cells,
      turned,
      comment: commentIn(row, at),
      total: total !== null && turned ? turnedCell({ is: 'amount', amount: total, raw: '' }).amount : total,
      spread: spreadIn(at.spread === null ? '' : cellText(row[at.spread])),
    });
  });
  const has = new Set([...at.months.values(), ...[...at.years.values()].flat()]);
  return {
    known: at.marked && at.marks !== null ? 'identity' : 'names',
    lines,
    own,
    strays: strays.slice(0, LIMITS.handoutOwn),
    without: ground.answer === 'months' ? ground.periods.filter((_, i) => !has.has(i)).map((p) => p.id) : [],
    doubt,
  };
}

/** An amount of a year, which stands at its first month, over all of them: as the draft falls, else evenly. */
function spreadYear(cells: SaidCell[], places: readonly number[], draft: readonly (Minor | null)[]): void {
  const { amount } = cells[places[0]!]!;
  if (amount === null) return;
  const shape = places.map((i) => draft[i] ?? ZERO);
  const parts = splitLike(amount, shape) ?? splitEven(amount, places.length);
  places.forEach((place, i) => (cells[place] = { is: 'amount', amount: parts[i]!, raw: '' }));
}

/** Texts that name a row: what stands before its first amount. */
function labelsOf(row: GridRow, at: Layout, firstInput: number): string[] {
  const out: string[] = [];
  const end = Math.min(row.length, firstInput === Infinity ? row.length : firstInput, 12);
  if (at.named.length > 0)
    return at.named.map((c) => cellText(row[c]).replace(/^'/, '')).filter((t) => t !== '');
  for (let c = 0; c < end; c++) {
    if (c === at.marks || c === at.sense || c === at.comment || c === at.total) continue;
    const cell = row[c];
    const text = cellText(cell).replace(/^'/, '');
    // A number before the months is a code where it stands at the front, else an amount.
    if (text === '' || (typeof cell === 'number' && (c > 1 || !Number.isInteger(cell)))) continue;
    out.push(text);
  }
  return out;
}

/** The line of a row: by its mark, unless the row is called as another line is; where marks are gone, by its name. */
function lineOf(
  mark: RowMark | null,
  texts: readonly string[],
  names: Names,
): { readonly line: LineRef; readonly relabeled: boolean } | null {
  const named = names.named(texts);
  if (mark?.of === 'line') {
    const key = lineKey(mark.line);
    if (!names.labelOf.has(key)) return named ? { line: named, relabeled: true } : null;
    if (named && lineKey(named) !== key) return { line: named, relabeled: true };
    return { line: mark.line, relabeled: named === null && texts.length > 0 };
  }
  if (named) return { line: named, relabeled: false };
  const like = mark === null ? names.like(texts) : null;
  return like ? { line: like, relabeled: true } : null;
}

/** A cost whose amounts are all negative was typed as a negative, unless it was handed out so. */
function isTurned(
  cells: readonly SaidCell[],
  handed: readonly (Minor | null)[],
  account: Account | undefined,
): boolean {
  if (!account || profitSign(account.kind) !== -1) return false;
  const said = cells.flatMap((c) => (c.amount === null || c.amount === 0 ? [] : [c.amount]));
  const was = handed.reduce((t: number, a) => plus(t, a ?? 0), 0);
  return said.length > 0 && said.every((a) => a < 0) && was >= 0;
}

const commentIn = (row: GridRow, at: Layout): string =>
  at.comment === null ? '' : cutText(cellText(row[at.comment]), LIMITS.note);

const spreadIn = (text: string): ReturnedLine['spread'] =>
  /last|before|ago/i.test(text) ? 'lastYear' : /draft|now|as it stands/i.test(text) ? 'draft' : 'evenly';

/** How the file writes numbers, from the cells that amounts stand in; what was handed out and still stands there tells. */
function formatOf(
  rows: readonly GridRow[],
  at: Layout,
  inputs: readonly number[],
  { prefer, currency, answer }: ReadGround,
  names: Names,
): ReturnType<typeof numbersIn> {
  const cells: GridCell[] = [];
  const from: { readonly row: GridRow; readonly place: number | undefined }[] = [];
  for (let r = at.head + 1; r < rows.length && cells.length < 5000; r++)
    for (const c of inputs) {
      const row = rows[r]!;
      const cell = row[c];
      if (typeof cell !== 'string' || cell === '') continue;
      cells.push(cell.replace(/^'/, ''));
      from.push({ row, place: at.months.get(c) });
    }
  const firstInput = Math.min(...inputs, Infinity);
  const handed = (i: number): Minor | null => {
    const { row, place } = from[i]!;
    if (answer !== 'months' || place === undefined) return null;
    const mark = at.marks === null ? null : readRowMark(row[at.marks]);
    const found = lineOf(mark, labelsOf(row, at, firstInput), names);
    return (found && names.handedOf.get(lineKey(found.line))?.[place]) ?? null;
  };
  return numbersIn(cells, prefer, minorDigits(currency), handed);
}
