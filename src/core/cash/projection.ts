import { toDayNumber } from '@/core/calendar';
import { CASH_SOURCES, type AccountId, type TaxScheme } from '@/core/model';
import { daysOf, accountFor, lostOf, STAND_INS } from '@/core/schedule';
import type { PlannedLine, ProjectionInput } from './input';
import { lineMonths, type LineMonths } from './lineMonths';
import {
  postLine,
  postPast,
  samePast,
  sharedOf,
  sourceOf,
  type Fixed,
  type PostedLine,
  type PostedPast,
} from './lineParts';
import { coveredByOrders, itemized, otherParts, returnParts, untoldParts, withoutItems } from './otherParts';
import { comingOf, sumOf, type Come, type Pending } from './pending';
import { AccountTable, NO_POSTINGS, PostingBuilder, type Postings } from './postings';
import { type Part, type Projected } from './projected';
import type { Shared } from './rule';
import { addPart, handedOut, nothingOwn, periodsByDay, type Sums } from './sums';
import { balanceParts, postRow, type PostedRow } from './scheduleParts';
import { purchases, settlements } from './shared';
import { taxPeriods, taxReturns } from './tax';

/** What a projector keeps between reckonings: all of it is dropped when the ground under it changes. */
type Base = Fixed &
  Sums & {
    readonly input: ProjectionInput;
    readonly banks: ReadonlySet<number>;
    readonly owedByScheme: Map<string, Float64Array>;
    /** Closed periods whose returns of a tax on payment are not due by the start. */
    readonly taxReach: ReadonlyMap<string, number>;
    /** Accounts that returns settle. */
    readonly byReturn: ReadonlySet<number>;
    /** Lines as they were posted, and what orders covered of them. */
    readonly kept: Map<string, PostedLine & { readonly covered: readonly number[] | null }>;
    /** The lines of the last time, as they were posted, with what made them that. */
    lines: LinesPosted | null;
    readonly pasts: Map<string, PostedPast>;
    readonly rows: Map<string, PostedRow>;
    readonly parts: Map<string, Part>;
    /** What stands without items, and what comes of closed periods, last time. */
    come: { readonly of: Come; readonly from: readonly unknown[] } | null;
    /** What the parts that follow from no line were made of, last time. */
    others: readonly unknown[];
    owedByItems: readonly OwedBy[];
    takenBack: ReadonlyMap<string, number>;
    /** Balances were brought about last time. */
    balanced: boolean;
    /** Postings that were written at first: those of everything. */
    whole: number;
  };

type Builders = Pick<Fixed, 'out' | 'pending' | 'early' | 'scratch' | 'tax' | 'pastTax'>;

/** What falls due of a tax by day. */
type OwedBy = { readonly scheme: string | null; readonly owed: Postings | null };

const MOST_WRITTEN = 200_000;

/** What follows from no line, no row and no tax. */
const OTHERS: ReadonlySet<Part['of']> = new Set(['item', 'order', 'dated']);
const PENDING: ReadonlySet<Part['of']> = new Set(['pending']);
const UNTOLD: ReadonlySet<Part['of']> = new Set(['runOff', 'settled']);

/**
 * Makes projections of one book, each from the one before: a line that did not change keeps its postings, and sums by day
 * take off what it was and add what it is. Whole numbers below 2^53 add up exactly, so any order of edits comes to the
 * same.
 */
export function createProjector(): (input: ProjectionInput) => Projected {
  let base: Base | null = null;
  let version = 0;
  let last: Projected | null = null;
  let lastBase: Base | null = null;
  const builders = {
    out: new PostingBuilder(),
    pending: new PostingBuilder(true),
    tax: new PostingBuilder(),
    pastTax: new PostingBuilder(),
    early: new PostingBuilder(),
    scratch: new PostingBuilder(),
  };
  return (input) => {
    // Chunks live as long as any of their postings: after many edits all is written anew, once.
    const isFull = base !== null && builders.out.written > MOST_WRITTEN + 4 * base.whole;
    if (!base || isFull || !sameGround(base.input, input)) {
      base = baseOf(input, builders);
      builders.out.written = 0;
    }
    const b = base;
    const { out, pending, tax } = builders;
    out.earliest = tax.earliest = pending.earliest = input.start + 1;
    // First what needs no balance but a stock's, then rows, then what is left of balances, then what fixes them.
    // Where only rows changed (a tax on a profit), no line is looked at again.
    const { lines: before } = b;
    const sameLines = before?.of === input.lines && before.items === input.items;
    const own = sameLines ? before : (b.lines = linesOf(b, input));
    const { months, fixed, covered } = own;
    const shared = new Map(own.bought);
    if (!sameLines) version += replaceLines(b, input, own);
    version += replaceRows(b, input);
    const was = b.come;
    const come = comeOf(b, input, months, shared);
    if (come !== was?.of) {
      for (const o of was?.of.owed ?? []) countOwed(b, { scheme: o.scheme, owed: o.postings }, -1);
      for (const o of come.owed) countOwed(b, { scheme: o.scheme, owed: o.postings }, 1);
      version += replaceParts(b, come.parts, (of) => PENDING.has(of));
    }
    const left = new Map<AccountId, number>();
    for (const [place, amount] of come.left) left.set(b.table.ids[place]!, amount);
    settlements(
      input,
      fixed,
      (account) => left.get(account) ?? 0,
      (account, place) => (come.mixed.has(b.table.of(account)) ? null : input.stoodAt(account, place)),
      shared,
    );
    for (const m of fixed) version += replaceLine(b, input, m, covered.get(m.line.key) ?? null, shared);
    for (const m of fixed)
      m.line.terms.parts.forEach(({ rule }) => {
        if (rule.kind === 'daysOutstanding') left.delete(rule.through ?? m.open);
      });
    const { items, dated } = input;
    const others = [items, dated];
    if (!isAlike(b.others, others)) {
      for (const o of b.owedByItems) countOwed(b, o, -1);
      const owedBy = new Map<string, PostingBuilder>();
      const takenBack = new Map<string, number>();
      const parts = otherParts(
        b.table,
        input,
        b.length,
        out,
        (scheme, day, amount) => {
          let own = owedBy.get(scheme);
          if (!own) owedBy.set(scheme, (own = new PostingBuilder()));
          own.add(day, 0, amount, -1, 0, day);
        },
        (scheme, amount) => takenBack.set(scheme, (takenBack.get(scheme) ?? 0) + amount),
      );
      b.takenBack = takenBack;
      b.owedByItems = [...owedBy].map(([scheme, own]) => ({ scheme, owed: own.take() }));
      for (const o of b.owedByItems) countOwed(b, o, 1);
      version += replaceParts(b, parts, (of) => OTHERS.has(of));
      b.others = others;
    }
    version += replaceParts(b, untoldParts(b.table, input, left, out), (of) => UNTOLD.has(of));
    const returns = input.taxes.flatMap((scheme) => returnsOf(b, input, scheme, come));
    version += replaceParts(b, returnParts(b.table, input, returns, out), (of) => of === 'tax');
    if (input.balances.length > 0 || b.balanced) {
      const before = [...b.parts.values()].filter((p) => p.of === 'balance');
      version += replaceParts(b, balanceParts(b, input, b.moved, before, out), (of) => of === 'balance');
      b.balanced = input.balances.length > 0;
    }
    if (b.whole === 0) b.whole = out.written;
    // Nothing changed, so neither does the answer: whoever remembers by it does not reckon again.
    if (last?.version === version && lastBase === b) return last;
    lastBase = b;
    const opening = [...b.banks].reduce((t, p) => t + (input.opening.get(b.table.ids[p]!) ?? 0), 0);
    last = {
      start: input.start,
      days: b.length,
      table: b.table,
      isBank: (place) => b.banks.has(place),
      opening,
      ...handedOut(b),
      parts: new Map(b.parts),
      returns,
      untold: left,
      lostBefore: lostBeforeOf(b),
      version,
    };
    return last;
  };
}

/** Lines as they are posted: those of one list, with the orders of one list of items. */
type LinesPosted = {
  readonly of: ProjectionInput['lines'];
  readonly items: ProjectionInput['items'];
  readonly covered: ReadonlyMap<string, readonly number[]>;
  readonly months: readonly LineMonths[];
  /** Those that fix a balance. */
  readonly fixed: readonly LineMonths[];
  /** What is bought into stocks, by part. */
  readonly bought: ReadonlyMap<string, Shared>;
};

function linesOf(b: Base, input: ProjectionInput): LinesPosted {
  const covered = coveredByOrders(input);
  const months = input.lines.map((line) => monthsOf(b, input, line, covered.get(line.key) ?? null));
  const bought = new Map<string, Shared>();
  purchases(input, months, bought);
  return {
    of: input.lines,
    items: input.items,
    covered,
    months,
    fixed: months.filter(fixesBalance),
    bought,
  };
}

/** Posts those that fix no balance where they changed, and takes out those that are gone; how many there were. */
function replaceLines(b: Base, input: ProjectionInput, { months, covered, bought }: LinesPosted): number {
  let changed = 0;
  for (const m of months)
    if (!fixesBalance(m)) changed += replaceLine(b, input, m, covered.get(m.line.key) ?? null, bought);
  const seen = new Set(input.lines.map((l) => l.key));
  for (const [key, was] of b.kept)
    if (!seen.has(key)) {
      countLine(b, was, -1);
      b.kept.delete(key);
      b.pasts.delete(key);
      b.parts.delete(was.part.key);
      changed++;
    }
  return changed;
}

/** What terms of all lines never collected of closed periods. */
function lostBeforeOf({ pasts, table }: Base): Projected['lostBefore'] {
  const out = new Map<AccountId, number[]>();
  for (const { lost } of pasts.values())
    for (const [place, amounts] of lost ?? []) {
      const of = lostOf(table.ids[place]!)!;
      const own = out.get(of);
      if (own) amounts.forEach((amount, i) => (own[i]! += amount));
      else out.set(of, [...amounts]);
    }
  return out;
}

const isAlike = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((x, i) => x === b[i]);

const fixesBalance = ({ line }: LineMonths): boolean =>
  line.terms.parts.some((p) => p.rule.kind === 'daysOutstanding');

/** The months of a line, the same ones while it and what orders cover of it stay. */
function monthsOf(
  b: Base,
  input: ProjectionInput,
  line: PlannedLine,
  covered: readonly number[] | null,
): LineMonths {
  const was = b.kept.get(line.key);
  return was?.months.line === line && was.covered === covered ? was.months : lineMonths(input, line, covered);
}

/** Posts a line anew where it or what it is given changed; 1 where it did. */
function replaceLine(
  b: Base,
  input: ProjectionInput,
  months: LineMonths,
  covered: readonly number[] | null,
  all: ReadonlyMap<string, Shared>,
): number {
  const { line } = months;
  const was = b.kept.get(line.key);
  const shared = sharedOf(line, all);
  const same = was !== undefined && sameShared(was.shared, shared);
  // The same line with the same orders and shares: nothing of it is looked at again.
  if (same && was.months === months) return 0;
  if (same && sameMonths(was.months, months)) {
    b.kept.set(line.key, { ...was, months, covered });
    return 0;
  }
  if (was) countLine(b, was, -1);
  const taxReach = b.taxReach.get(line.terms.tax?.scheme ?? '') ?? 0;
  const now = postLine(b, input, months, shared, taxReach);
  countLine(b, now, 1);
  b.kept.set(line.key, { ...now, covered });
  b.parts.set(now.part.key, now.part);
  return 1;
}

function sameMonths(was: LineMonths, now: LineMonths): boolean {
  const [a, b] = [was.line, now.line];
  if (a.terms !== b.terms || a.own !== b.own || a.account !== b.account || a.past !== b.past) return false;
  if (a.ahead !== b.ahead && !sameNumbers(a.ahead ?? [], b.ahead ?? [])) return false;
  return a.terms.parts.every((_, k) => sameNumbers(was.all(k), now.all(k)));
}

const sameNumbers = (a: readonly number[], b: readonly number[]): boolean => {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
};

const sameShared = (was: PostedLine['shared'], now: PostedLine['shared']): boolean =>
  was.length === now.length &&
  was.every((s, k) => {
    const other = now[k] ?? null;
    if (s === null || other === null) return s === other;
    return sameNumbers(s.amount, other.amount) && sameNumbers(s.tax, other.tax);
  });

/** What comes of closed periods: the same while nothing that it is made from changes. */
function comeOf(
  b: Base,
  input: ProjectionInput,
  all: readonly LineMonths[],
  shared: ReadonlyMap<string, Shared>,
): Come {
  const pending: Pending[] = [];
  const fixed = new Set<number>();
  for (const months of all) {
    const { line } = months;
    const own = sharedOf(line, shared);
    let past = b.pasts.get(line.key);
    if (!past || !samePast(past, months, own, input.past.length))
      b.pasts.set(
        line.key,
        (past = postPast(b, input, months, own, b.taxReach.get(line.terms.tax?.scheme ?? '') ?? 0)),
      );
    if (past.pending.count + past.early.count > 0)
      pending.push({
        key: `line ${line.key}`,
        source: sourceOf(line),
        postings: past.pending,
        early: past.early,
        scheme: past.scheme,
      });
    for (const { rule } of line.terms.parts)
      if (rule.kind === 'daysOutstanding') fixed.add(b.table.of(rule.through ?? months.open));
  }
  for (const { pending: postings, early, part, pastScheme } of b.rows.values())
    if (postings.count + early.count > 0)
      pending.push({ key: part.key, source: part.source, postings, early, scheme: pastScheme });
  const runsOff = new Set(input.runsOff.map((id) => b.table.of(id)));
  const from = [
    input.items,
    [...fixed].join(),
    [...runsOff].join(),
    ...pending.flatMap((p) => [p.postings, p.early]),
  ];
  if (b.come && isAlike(b.come.from, from)) return b.come.of;
  const of = comingOf(
    pending,
    withoutItems(b.table, input),
    {
      byReturn: b.byReturn,
      fixed,
      itemized: itemized(b.table, input),
      runsOff,
      isBank: (place) => b.isBank[place] === 1,
    },
    b.out,
    b.tax,
  );
  b.come = { of, from };
  return of;
}

/**
 * The returns of a tax. On invoices the ledger tells what was credited when; on payments what lines were paid in closed
 * periods does, and what of the balance is not due yet falls due as it is settled.
 */
function returnsOf(b: Base, input: ProjectionInput, scheme: TaxScheme, come: Come) {
  const owed = b.owedByScheme.get(scheme.id)!;
  const account = scheme.payable ?? accountFor(input.accounts, 'tax');
  const stood = -(input.opening.get(account) ?? 0);
  if (scheme.on === 'invoice')
    return taxReturns(scheme, input.start, owed, stood, (from, to) => input.taxCredits(scheme, from, to));
  let undue = 0;
  for (const o of come.owed) if (o.scheme === scheme.id) undue += sumOf(o.postings);
  for (const o of b.owedByItems) if (o.scheme === scheme.id && o.owed) undue += sumOf(o.owed);
  // What is never paid is taken back from what is owed, when it is written off.
  undue += b.takenBack.get(scheme.id) ?? 0;
  const place = b.table.of(account);
  for (const { postings } of come.parts) undue += sumOf(postings, place);
  const credits = new Map<number, number>();
  const credit = (owed: Postings | null) => {
    const { columns, first, count } = owed ?? NO_POSTINGS;
    for (let i = first; i < first + count; i++)
      credits.set(columns.day[i]!, (credits.get(columns.day[i]!) ?? 0) + columns.amount[i]!);
  };
  for (const past of b.pasts.values()) if (past.scheme === scheme.id) credit(past.owed);
  for (const row of b.rows.values()) if (row.pastScheme === scheme.id) credit(row.pastOwed);
  for (const line of b.kept.values()) {
    if (line.scheme !== scheme.id) continue;
    undue += line.taxStood;
    credit(line.pastOwed);
  }
  return taxReturns(scheme, input.start, owed, stood - undue, (from, to) => {
    let sum = 0;
    for (const [day, amount] of credits) if (day >= from && day <= to) sum += amount;
    return sum;
  });
}

const sameGround = (a: ProjectionInput, b: ProjectionInput): boolean =>
  a.start === b.start &&
  a.accounts === b.accounts &&
  a.workWeek === b.workWeek &&
  a.bank === b.bank &&
  a.taxes === b.taxes &&
  a.opening === b.opening &&
  a.stoodAt === b.stoodAt &&
  a.past.length === b.past.length &&
  a.past.every((p, i) => p === b.past[i] || (p.start === b.past[i]!.start && p.end === b.past[i]!.end)) &&
  a.periods.length === b.periods.length &&
  a.periods.every((p, i) => p.start === b.periods[i]!.start && p.end === b.periods[i]!.end);

function baseOf(input: ProjectionInput, builders: Builders): Base {
  const { periods, past, accounts } = input;
  const table = new AccountTable();
  const banks = new Set(
    [STAND_INS.bank, ...accounts.filter((a) => a.kind === 'bank').map((a) => a.id)].map((id) => table.of(id)),
  );
  // Banks are the first in the table, so whatever comes later is none.
  const isBank = new Uint8Array(banks.size).fill(1);
  const last = periods.at(-1);
  const length = last ? Math.max(0, toDayNumber(last.end) - input.start) : 0;
  const all = [...past, ...periods];
  const [allStarts, allEnds] = [all.map((p) => toDayNumber(p.start)), all.map((p) => toDayNumber(p.end))];
  return {
    input,
    ...builders,
    days: daysOf(input.workWeek),
    starts: Int32Array.from(allStarts.slice(past.length)),
    ends: Int32Array.from(allEnds.slice(past.length)),
    all,
    allStarts: Int32Array.from(allStarts),
    allEnds: Int32Array.from(allEnds),
    table,
    banks,
    length,
    bySource: Object.fromEntries(CASH_SOURCES.map((s) => [s, new Float64Array(length)])) as Base['bySource'],
    owedByScheme: new Map(input.taxes.map((t) => [t.id, new Float64Array(length)])),
    taxReach: new Map(
      input.taxes.map((t) => {
        const [first] = taxPeriods(t, input.start, input.start + 1);
        return [t.id, first ? allEnds.filter((end) => end >= first.from && end <= input.start).length : 0];
      }),
    ),
    byReturn: new Set(input.taxes.map((t) => table.of(t.payable ?? accountFor(accounts, 'tax')))),
    kept: new Map(),
    pasts: new Map(),
    rows: new Map(),
    moved: [],
    own: nothingOwn(),
    lines: null,
    periodOfDay: periodsByDay(periods, input.start, length),
    begin: input.start,
    months: periods.length,
    parts: new Map(),
    come: null,
    others: [],
    owedByItems: [],
    takenBack: new Map(),
    balanced: false,
    whole: 0,
    isBank,
  };
}

/** Posts rows that changed anew, and takes out those that are gone; how many there were. */
function replaceRows(b: Base, input: ProjectionInput): number {
  let changed = 0;
  const seen = new Set<string>();
  for (const row of input.scheduled) {
    seen.add(row.key);
    const was = b.rows.get(row.key);
    if (
      was?.from.postings === row.postings &&
      was.from.pending === row.pending &&
      was.from.pastOwes === row.pastOwes
    )
      continue;
    if (was) countLine(b, was, -1);
    const now = postRow(b, input, row);
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
function countLine(b: Base, posted: OwedBy & { readonly part: Part }, sign: 1 | -1): void {
  addPart(b, posted.part, sign);
  countOwed(b, posted, sign);
}

/** Adds what falls due of a tax to its sums by day, or takes it off. */
function countOwed(b: Base, { owed, scheme }: OwedBy, sign: 1 | -1): void {
  const sums = scheme === null || owed === null ? undefined : b.owedByScheme.get(scheme);
  if (!sums) return;
  const { columns, first, count } = owed!;
  for (let i = first; i < first + count; i++) {
    const d = columns.day[i]! - b.input.start - 1;
    if (d < b.length) sums[d]! += sign * columns.amount[i]!;
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
