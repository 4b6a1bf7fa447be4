import { fromDayNumber, type Day } from '@/core/calendar';
import { cellText, rowsOf, type FileFacts, type GridRow } from '@/core/files';
import { guessDateOrder, numbersIn, parseDate, type DateOrder, type NumberDoubt } from '@/core/intake';
import {
  amountOfNumber,
  minorDigits,
  parseAmount,
  parsePercent,
  type Minor,
  type NumberFormat,
  type Percent,
} from '@/core/money';
import {
  cutText,
  faultOfRow,
  LIMITS,
  type Account,
  type RowFault,
  type RowOf,
  type ScheduleRow,
} from '@/core/model';

/* A staff list, a loan list or an asset register out of a table: columns are found by their heads, every row becomes a row of
 * the schedule or is named with what is wrong. */

export type FileKind = 'staff' | 'loan' | 'asset';

/** Why a row of the file is none of the schedule. Rows count from 1, as a spreadsheet shows them. */
export type RowFileIssue = {
  readonly code:
    | 'noName'
    | 'noAmount'
    | 'noDate'
    | 'noRate'
    | 'noLife'
    | 'unknownAccount'
    | 'unknownWord'
    | 'twice'
    | RowFault;
  readonly row: number;
  readonly value: string;
};

export type RowFileRead =
  | { readonly ok: false; readonly missing: readonly string[] }
  | {
      readonly ok: true;
      readonly rows: readonly ScheduleRow[];
      readonly issues: readonly RowFileIssue[];
      /** Numbers that can be read two ways, and have to be asked about. */
      readonly doubt: NumberDoubt | null;
    };

type Heads = Readonly<Record<string, RegExp>>;

/** Words that head a column, the surer first. */
const HEADS: Record<FileKind, Heads> = {
  staff: {
    until: /\b(until|end|leaves?|left|last day|to)\b/i,
    from: /\b(from|start|hired?|since|begin)/i,
    per: /\b(per|basis|frequency|pay type)\b/i,
    hours: /\bhours?\b/i,
    count: /\b(count|fte|positions?|heads?|number)\b/i,
    amount: /\b(pay|salary|wage|rate|amount)\b/i,
    account: /\baccount\b/i,
    name: /\b(name|position|title|role|employee|job)\b/i,
  },
  loan: {
    rate: /\b(rate|interest)\b|%/i,
    first: /\b(first|next)\b/i,
    payments: /\b(payments|term|months|left|number)\b/i,
    payment: /\b(payment|instal)/i,
    day: /\b(drawn|date|as of|since|start)\b/i,
    amount: /\b(amount|principal|balance|owed|outstanding)\b/i,
    account: /\baccount\b/i,
    name: /\b(name|loan|lender|bank)\b/i,
  },
  asset: {
    residual: /\b(residual|salvage|scrap)\b/i,
    accumulated: /\b(accumulated|depreciat|written off)/i,
    left: /\b(left|remaining)\b/i,
    life: /\b(life|months|years|useful)\b/i,
    rate: /\brate\b|%/i,
    bought: /\b(bought|acquired|purchased?|in use|date)\b/i,
    cost: /\b(cost|price|amount|value)\b/i,
    account: /\baccount\b/i,
    name: /\b(name|asset|description|item)\b/i,
  },
};
const NEEDED: Record<FileKind, readonly string[]> = {
  staff: ['name', 'amount'],
  loan: ['name', 'amount', 'rate'],
  asset: ['name', 'cost', 'bought'],
};
const TOTAL = /^(sub)?totals?\b|^sum\b/i;
const PER: readonly (readonly [RegExp, RowOf<'staff'>['pay']['per']])[] = [
  [/hour/i, 'hour'],
  [/month/i, 'month'],
  [/pay ?day|week|fortnight|period/i, 'payday'],
  [/year|annual|annum/i, 'year'],
];

export type RowFileGround = {
  readonly currency: string;
  readonly accounts: readonly Account[];
  readonly numbers: NumberFormat;
  /** How it was said that the file writes numbers. */
  readonly said?: NumberFormat;
  readonly dates: 'dmy' | 'mdy';
  /** The last closed day: where things stand. */
  readonly closed: Day;
};

/** Reads rows of one kind out of a table; `start` is the row that what the table does not say is taken from. */
export function readScheduleRows<K extends FileKind>(
  file: FileFacts,
  kind: K,
  start: RowOf<K>,
  ground: RowFileGround,
  idOf: (i: number) => string,
): RowFileRead {
  const rows = rowsOf(file.grids[0]!);
  const needed = NEEDED[kind];
  const head = rows.slice(0, 30).findIndex((r) => {
    const c = columnsOf(r, HEADS[kind]);
    return needed.every((n) => c[n]! >= 0);
  });
  if (head < 0) {
    const c = columnsOf(rows.find((r) => r.length > 1) ?? rows[0] ?? [], HEADS[kind]);
    return { ok: false, missing: needed.filter((n) => !(c[n]! >= 0)) };
  }
  const columns = columnsOf(rows[head]!, HEADS[kind]);
  const body = rows.slice(head + 1);
  const cells = (...names: string[]) =>
    names.flatMap((n) =>
      columns[n]! >= 0 ? body.map((r) => r[columns[n]!] ?? '').filter((v) => v !== '') : [],
    );
  const order =
    guessDateOrder(cells('from', 'until', 'day', 'first', 'bought'), ground.dates)?.order ?? ground.dates;
  const { format, doubt } = ground.said
    ? { format: ground.said, doubt: null }
    : numbersIn(
        cells('amount', 'cost', 'accumulated', 'residual', 'payment'),
        ground.numbers,
        minorDigits(ground.currency),
      );
  const out: ScheduleRow[] = [];
  const issues: RowFileIssue[] = [];
  const met = new Set<string>();
  body.forEach((r, i) => {
    if (r.every((c) => cellText(c) === '')) return;
    const cell = new Cells(r, columns, order, format, ground);
    const name = cutText(cell.text('name'), LIMITS.accountName);
    if (TOTAL.test(name) || (name === '' && r.some((c) => TOTAL.test(cellText(c))))) return;
    const account = cell.account((start as RowOf<FileKind>).account);
    const row =
      name === ''
        ? cell.wrong('noName', '')
        : account === null
          ? cell.wrong('unknownAccount', cell.text('account'))
          : READERS[kind](cell, { ...start, id: idOf(out.length), name, account } as never, ground);
    if (cell.issue) issues.push({ ...cell.issue, row: head + i + 2 });
    else if (row) {
      const key = JSON.stringify({ ...row, id: '' });
      const fault = faultOfRow(row);
      if (fault) issues.push({ code: fault, value: name, row: head + i + 2 });
      else if (met.has(key)) issues.push({ code: 'twice', value: name, row: head + i + 2 });
      else {
        met.add(key);
        out.push(row);
      }
    }
  });
  return { ok: true, rows: out, issues, doubt };
}

/** Cells of one row by what they are; the first that cannot be read is remembered. */
class Cells {
  issue: Omit<RowFileIssue, 'row'> | null = null;

  constructor(
    private readonly row: GridRow,
    private readonly columns: Readonly<Record<string, number>>,
    private readonly order: DateOrder,
    private readonly format: NumberFormat,
    private readonly ground: RowFileGround,
  ) {}

  wrong(code: RowFileIssue['code'], value: string): null {
    this.issue ??= { code, value };
    return null;
  }

  private cell(name: string): GridRow[number] {
    const at = this.columns[name] ?? -1;
    return at < 0 ? '' : (this.row[at] ?? '');
  }

  text(name: string): string {
    return cellText(this.cell(name)).trim();
  }

  /** An amount of zero or more; null where nothing is said. */
  amount(name: string, digits = minorDigits(this.ground.currency)): Minor | null {
    const cell = this.cell(name);
    if (cellText(cell) === '') return null;
    const read =
      typeof cell === 'number'
        ? amountOfNumber(cell, digits)
        : parseAmount(cellText(cell), digits, this.format);
    if (!read.ok || read.percent || read.value === null || read.value < 0)
      return this.wrong('noAmount', cellText(cell));
    return read.value;
  }

  day(name: string): Day | null {
    const cell = this.cell(name);
    if (cellText(cell) === '') return null;
    const n = parseDate(cell, this.order);
    return n === null ? this.wrong('noDate', cellText(cell)) : fromDayNumber(n);
  }

  /** A percentage; a spreadsheet's 0.06 formatted as 6 % comes as a number below one. */
  rate(name: string): Percent | null {
    const cell = this.cell(name);
    if (cellText(cell) === '') return null;
    const text =
      typeof cell === 'number' && cell > 0 && cell < 1 ? String(+(cell * 100).toFixed(6)) : cellText(cell);
    return parsePercent(text) ?? this.wrong('noRate', text);
  }

  count(name: string): number | null {
    const text = this.text(name);
    if (text === '') return null;
    const n = Number(/^\d{1,4}(?:[.,]0+)?/.exec(text)?.[0]?.replace(',', '.') ?? NaN);
    if (!Number.isInteger(n)) return this.wrong('noLife', text);
    return /year|yr/i.test(text) ? n * 12 : n;
  }

  account(usual: string): string | null {
    const said = this.text('account');
    if (said === '') return usual;
    const low = said.toLowerCase();
    const { accounts } = this.ground;
    return (
      (
        accounts.find((a) => a.code !== '' && (a.code === said || said.startsWith(`${a.code} `))) ??
        accounts.find((a) => a.name.toLowerCase() === low)
      )?.id ?? null
    );
  }
}

const READERS: {
  readonly [K in FileKind]: (cell: Cells, start: RowOf<K>, ground: RowFileGround) => ScheduleRow | null;
} = {
  staff(cell, start) {
    const amount = cell.amount('amount');
    if (amount === null) return cell.wrong('noAmount', cell.text('amount'));
    const said = cell.text('per');
    const per = said === '' ? start.pay.per : PER.find(([words]) => words.test(said))?.[1];
    if (per === undefined) return cell.wrong('unknownWord', said);
    const hours = cell.amount('hours', 2);
    const count = cell.amount('count', 2);
    return {
      ...start,
      count: count ?? start.count,
      pay: per === 'hour' ? { per, amount, hours: { of: 'month', hours: hours ?? 16_000 } } : { per, amount },
      from: cell.day('from'),
      until: cell.day('until'),
    };
  },
  loan(cell, start, { closed }) {
    const amount = cell.amount('amount');
    if (amount === null) return cell.wrong('noAmount', cell.text('amount'));
    const rate = cell.rate('rate');
    if (rate === null) return cell.wrong('noRate', cell.text('rate'));
    const day = cell.day('day') ?? closed;
    const payment = cell.amount('payment');
    return {
      ...start,
      begins: { of: day > closed ? 'drawn' : 'stands', day, amount },
      rate,
      first: cell.day('first') ?? start.first,
      payments: Math.min(600, Math.max(1, cell.count('payments') ?? start.payments)),
      repay: { of: 'level', payment },
    };
  },
  asset(cell, start, { closed }) {
    const cost = cell.amount('cost');
    if (cost === null) return cell.wrong('noAmount', cell.text('cost'));
    const bought = cell.day('bought');
    if (bought === null) return cell.wrong('noDate', cell.text('bought'));
    const life = cell.count('life');
    const rate = cell.rate('rate');
    const accumulated = cell.amount('accumulated');
    const way: RowOf<'asset'>['way'] =
      life !== null
        ? { of: 'straight', months: Math.min(1200, Math.max(1, life)) }
        : rate !== null
          ? { of: 'declining', rate }
          : start.way;
    const left = cell.count('left');
    const standing =
      accumulated !== null && bought <= closed
        ? { day: closed, accumulated, months: Math.min(1200, left ?? monthsLeft(way, bought, closed)) }
        : null;
    return { ...start, cost, bought, residual: cell.amount('residual') ?? (0 as Minor), way, standing };
  },
};

function monthsLeft(way: RowOf<'asset'>['way'], bought: Day, closed: Day): number {
  if (way.of !== 'straight') return 0;
  const month = (d: Day) => Number(d.slice(0, 4)) * 12 + Number(d.slice(5, 7));
  return Math.max(0, way.months - (month(closed) - month(bought) + 1));
}

/** Which column has which role; each column has one, each role the first that fits. */
function columnsOf(head: GridRow, heads: Heads): Record<string, number> {
  const out: Record<string, number> = {};
  const taken = new Set<number>();
  for (const role of Object.keys(heads))
    head.forEach((cell, c) => {
      if (out[role] !== undefined || taken.has(c) || typeof cell !== 'string' || !heads[role]!.test(cell))
        return;
      out[role] = c;
      taken.add(c);
    });
  return out;
}
