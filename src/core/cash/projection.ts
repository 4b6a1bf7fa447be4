import { toDayNumber } from '@/core/calendar';
import { CASH_SOURCES, type CashSource } from '@/core/model';
import { daysOf, STAND_INS } from '@/core/schedule';
import type { PlannedLine, ProjectionInput } from './input';
import { moneyByMonth, postLine, stocksOf, type Fixed, type PostedLine } from './lineParts';
import { coveredByOrders, otherParts, returnParts } from './otherParts';
import { AccountTable, PostingBuilder, type Postings } from './postings';
import { type Part, type Projected } from './projected';
import { balanceParts, postRow, settledParts, type PostedRow } from './scheduleParts';
import { taxReturns } from './tax';

/** What a projector keeps between reckonings: all of it is dropped when the ground under it changes. */
type Base = Fixed & {
  readonly input: ProjectionInput;
  readonly banks: ReadonlySet<number>;
  /** 1 for the places of banks: asked a million times. */
  readonly isBank: Uint8Array;
  readonly length: number;
  readonly bySource: Record<CashSource, Float64Array>;
  /** What each account (by its place) moves in each planned period. */
  readonly moved: Float64Array[];
  readonly periodOfDay: Int16Array;
  readonly owedByScheme: Map<string, Float64Array>;
  /** Lines as they were posted, and what orders covered of them. */
  readonly kept: Map<string, PostedLine & { readonly covered: readonly number[] | null }>;
  readonly rows: Map<string, PostedRow>;
  readonly parts: Map<string, Part>;
  /** What the parts that follow from no line were made of, last time. */
  others: Pick<ProjectionInput, 'items' | 'dated' | 'runOff' | 'settled'> | null;
  /** Balances were brought about last time. */
  balanced: boolean;
  /** Postings that were written at first: those of everything. */
  whole: number;
};

const MOST_WRITTEN = 200_000;

/** What follows from no line, no row and no tax. */
const OTHERS: ReadonlySet<Part['of']> = new Set(['item', 'order', 'dated', 'runOff', 'settled']);

/**
 * Makes projections of one book, each from the one before: a line that did not change keeps its postings, and sums by day
 * take off what it was and add what it is. Whole numbers below 2^53 add up exactly, so any order of edits comes to the
 * same.
 */
export function createProjector(): (input: ProjectionInput) => Projected {
  let base: Base | null = null;
  let version = 0;
  let last: Projected | null = null;
  const out = new PostingBuilder();
  const tax = new PostingBuilder();
  return (input) => {
    // Chunks live as long as any of their postings: after many edits all is written anew, once.
    const isFull = base !== null && out.written > MOST_WRITTEN + 4 * base.whole;
    if (!base || isFull || !sameGround(base.input, input)) {
      base = baseOf(input);
      out.written = 0;
    }
    const b = base;
    out.earliest = tax.earliest = input.start + 1;
    const covered = coveredByOrders(input);
    const stocks = stocksOf(b, input);
    const seen = new Set<string>();
    for (const line of input.lines) {
      seen.add(line.key);
      const stock = stocks.get(line.key) ?? 0;
      const own = covered.get(line.key) ?? null;
      const was = b.kept.get(line.key);
      // The same line with the same orders and stock: nothing of it is looked at again.
      if (was?.line === line && was.stock === stock && was.covered === own) continue;
      const money = moneyByMonth(line, own);
      if (was && isSame(was, line, money, stock)) {
        b.kept.set(line.key, { ...was, line, covered: own });
        continue;
      }
      if (was) countLine(b, was, -1);
      const now = postLine(b, input, line, money, stock, out, tax);
      countLine(b, now, 1);
      b.kept.set(line.key, { ...now, covered: own });
      b.parts.set(now.part.key, now.part);
      version++;
    }
    for (const [key, was] of b.kept)
      if (!seen.has(key)) {
        countLine(b, was, -1);
        b.kept.delete(key);
        b.parts.delete(was.part.key);
        version++;
      }
    version += replaceRows(b, input, out, tax);
    const { items, dated, runOff, settled } = input;
    const was = b.others;
    if (was?.items !== items || was.dated !== dated || was.runOff !== runOff || was.settled !== settled) {
      version += replaceParts(
        b,
        [...otherParts(b.table, input, b.length, out), ...settledParts(b, input, out)],
        (of) => OTHERS.has(of),
      );
      b.others = { items, dated, runOff, settled };
    }
    const returns = input.taxes.flatMap((scheme) =>
      taxReturns(scheme, input.start, b.owedByScheme.get(scheme.id)!, input.taxStood(scheme)),
    );
    version += replaceParts(b, returnParts(b.table, input, returns, out), (of) => of === 'tax');
    if (input.balances.length > 0 || b.balanced) {
      const before = [...b.parts.values()].filter((p) => p.of === 'balance');
      version += replaceParts(b, balanceParts(b, input, b.moved, before, out), (of) => of === 'balance');
      b.balanced = input.balances.length > 0;
    }
    if (b.whole === 0) b.whole = out.written;
    // Nothing changed, so neither does the answer: whoever remembers by it does not reckon again.
    if (last?.version === version && last.parts === b.parts) return last;
    const opening = [...b.banks].reduce((t, p) => t + (input.opening.get(b.table.ids[p]!) ?? 0), 0);
    last = {
      start: input.start,
      days: b.length,
      table: b.table,
      isBank: (place) => b.banks.has(place),
      opening,
      bySource: b.bySource,
      moved: b.moved,
      parts: b.parts,
      returns,
      version,
    };
    return last;
  };
}

const sameGround = (a: ProjectionInput, b: ProjectionInput): boolean =>
  a.start === b.start &&
  a.accounts === b.accounts &&
  a.workWeek === b.workWeek &&
  a.bank === b.bank &&
  a.taxes === b.taxes &&
  a.opening === b.opening &&
  a.periods.length === b.periods.length &&
  a.periods.every((p, i) => p.start === b.periods[i]!.start && p.end === b.periods[i]!.end);

function baseOf(input: ProjectionInput): Base {
  const { periods, accounts } = input;
  const table = new AccountTable();
  const banks = new Set(
    [STAND_INS.bank, ...accounts.filter((a) => a.kind === 'bank').map((a) => a.id)].map((id) => table.of(id)),
  );
  // Banks are the first in the table, so whatever comes later is none.
  const isBank = new Uint8Array(banks.size).fill(1);
  const last = periods.at(-1);
  const length = last ? Math.max(0, toDayNumber(last.end) - input.start) : 0;
  return {
    input,
    days: daysOf(input.workWeek),
    starts: Int32Array.from(periods, (p) => toDayNumber(p.start)),
    ends: Int32Array.from(periods, (p) => toDayNumber(p.end)),
    table,
    banks,
    length,
    bySource: Object.fromEntries(CASH_SOURCES.map((s) => [s, new Float64Array(length)])) as Base['bySource'],
    owedByScheme: new Map(input.taxes.map((t) => [t.id, new Float64Array(length)])),
    kept: new Map(),
    rows: new Map(),
    moved: [],
    periodOfDay: periodsByDay(periods, input.start, length),
    parts: new Map(),
    others: null,
    balanced: false,
    whole: 0,
    isBank,
  };
}

/** The planned period of each day after the start. */
function periodsByDay(periods: ProjectionInput['periods'], start: number, length: number): Int16Array {
  const out = new Int16Array(length);
  let day = 0;
  periods.forEach((p, m) => {
    for (const end = toDayNumber(p.end) - start; day < end; day++) out[day] = m;
  });
  return out;
}

function isSame(was: PostedLine, line: PlannedLine, money: readonly number[], stock: number): boolean {
  if (was.line.terms !== line.terms || was.line.own !== line.own || was.line.account !== line.account)
    return false;
  if (was.stock !== stock || was.money.length !== money.length) return false;
  for (let m = 0; m < money.length; m++) if (was.money[m] !== money[m]) return false;
  return true;
}

/** Posts rows that changed anew, and takes out those that are gone; how many there were. */
function replaceRows(b: Base, input: ProjectionInput, out: PostingBuilder, tax: PostingBuilder): number {
  let changed = 0;
  const seen = new Set<string>();
  for (const row of input.scheduled) {
    seen.add(row.key);
    const was = b.rows.get(row.key);
    if (was?.from.postings === row.postings) continue;
    if (was) countLine(b, was, -1);
    const now = postRow(b, input, row, out, tax);
    countLine(b, now, 1);
    b.rows.set(row.key, now);
    b.parts.set(now.part.key, now.part);
    changed++;
  }
  for (const [key, was] of b.rows)
    if (!seen.has(key)) {
      countLine(b, was, -1);
      b.rows.delete(key);
      b.parts.delete(was.part.key);
      changed++;
    }
  return changed;
}

/** Adds a line's money and tax to the sums by day, or takes them off. */
function countLine(
  b: Base,
  { part, owed, scheme }: Pick<PostedLine, 'part' | 'owed' | 'scheme'>,
  sign: 1 | -1,
): void {
  addPart(b, part, sign);
  const sums = scheme === null || owed === null ? undefined : b.owedByScheme.get(scheme);
  if (!sums) return;
  const { columns, first, count } = owed!;
  for (let i = first; i < first + count; i++) {
    const d = columns.day[i]! - b.input.start - 1;
    if (d < b.length) sums[d]! += sign * columns.amount[i]!;
  }
}

/** Adds a part to the banks by day and to every account by period, or takes it off. */
function addPart(b: Base, { postings, source }: Part, sign: 1 | -1): void {
  const sums = b.bySource[source];
  const { columns, first, count } = postings;
  const { day, account, amount } = columns;
  const { isBank, length, moved, periodOfDay } = b;
  const before = b.input.start + 1;
  for (let i = first; i < first + count; i++) {
    const d = day[i]! - before;
    if (d >= length) continue;
    const place = account[i]!;
    const signed = sign * amount[i]!;
    (moved[place] ??= new Float64Array(b.ends.length))[periodOfDay[d]!]! += signed;
    if (isBank[place] === 1) sums[d]! += signed;
  }
}

/** Puts parts that follow from no line in place of those of their sorts that stood; how many of them differ. */
function replaceParts(b: Base, now: readonly Part[], sort: (of: Part['of']) => boolean): number {
  const keys = new Map(now.map((p) => [p.key, p]));
  let changed = 0;
  for (const [key, was] of b.parts) {
    if (!sort(was.of)) continue;
    const next = keys.get(key);
    if (next && next.source === was.source && samePostings(was.postings, next.postings)) {
      keys.delete(key);
      continue;
    }
    addPart(b, was, -1);
    b.parts.delete(key);
    changed++;
  }
  for (const part of keys.values()) {
    addPart(b, part, 1);
    b.parts.set(part.key, part);
    changed++;
  }
  return changed;
}

function samePostings(a: Postings, b: Postings): boolean {
  if (a.count !== b.count) return false;
  const [x, y] = [a.columns, b.columns];
  for (let n = 0; n < a.count; n++) {
    const [i, j] = [a.first + n, b.first + n];
    if (x.day[i] !== y.day[j] || x.amount[i] !== y.amount[j] || x.account[i] !== y.account[j]) return false;
  }
  return true;
}
