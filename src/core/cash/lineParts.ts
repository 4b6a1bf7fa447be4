import type { AccountId, CashSource, TaxScheme, TermsRule } from '@/core/model';
import { profitSign } from '@/core/model';
import { accountFor, leaveSome, lostOf, lostOn, STAND_INS, WHAT, type Days } from '@/core/schedule';
import type { Period } from '@/core/calendar';
import type { PlannedLine, ProjectionInput } from './input';
import { debtOf, reachOf, type LineMonths } from './lineMonths';
import { OWED } from './pending';
import type { AccountTable, PostingBuilder, Postings } from './postings';
import { defaultBank, type Part } from './projected';
import type { PartContext, Roles, Shared } from './rule';
import { postPart } from './rules/table';
import { partKey } from './shared';

/** What stays the same for every line of a reckoning. */
export type Fixed = {
  readonly days: Days;
  /** First and last day of each planned period. */
  readonly starts: Int32Array;
  readonly ends: Int32Array;
  /** The closed periods that are looked back into, then the planned ones, with their first and last days. */
  readonly all: readonly Period[];
  readonly allStarts: Int32Array;
  readonly allEnds: Int32Array;
  readonly table: AccountTable;
  readonly out: PostingBuilder;
  /** What closed periods leave to come, and what planned ones had paid before the start. */
  readonly pending: PostingBuilder;
  readonly early: PostingBuilder;
  /** Takes what is not looked at. */
  readonly scratch: PostingBuilder;
  /** What is owed of taxes by day, and what was before the start. */
  readonly tax: PostingBuilder;
  readonly pastTax: PostingBuilder;
};

/** A line as it was posted, and what it was posted from. */
export type PostedLine = {
  readonly months: LineMonths;
  /** What its parts were given of accounts' balances. */
  readonly shared: readonly (Shared | null)[];
  readonly part: Part;
  /** What is owed of its tax by day, of planned periods and of balances settled in closed ones, and to which tax; null where none counts. */
  readonly owed: Postings | null;
  readonly pastOwed: Postings | null;
  readonly scheme: string | null;
  /** Of its tax on payment, what stands unpaid at the start in a balance that its terms fix, less what was paid ahead. */
  readonly taxStood: number;
};

/** What a line's closed periods leave to come as its terms have it (how much of that there is, balances tell), and were owed of its tax. */
export type PostedPast = {
  readonly months: LineMonths;
  readonly shared: readonly (Shared | null)[];
  readonly pending: Postings;
  /** What its planned periods had paid by the start, if all went as planned. */
  readonly early: Postings;
  readonly owed: Postings | null;
  readonly scheme: string | null;
  /** What its terms never collected of closed periods, by the place it is lost on and by period; null where they lose nothing. */
  readonly lost: ReadonlyMap<number, readonly number[]> | null;
};

/** The accounts that a line's postings go through: those its terms name, else the book's usual ones. */
function rolesOf({ table }: Fixed, input: ProjectionInput, line: PlannedLine, rule: TermsRule): Roles {
  const { accounts, taxes } = input;
  const income = profitSign(line.account.kind) > 0;
  const said = <K extends string>(key: K): AccountId | null =>
    key in rule ? ((rule as unknown as Record<K, AccountId | null>)[key] ?? null) : null;
  const scheme = taxes.find((t) => t.id === line.terms.tax?.scheme);
  const advance = income ? accountFor(accounts, 'deferred') : accountFor(accounts, 'prepaid');
  const through = said('through');
  return {
    line: table.of(line.account.id),
    bank: table.of(line.terms.bank ?? defaultBank(input)),
    open: table.of(through ?? debtOf(accounts, line)),
    badDebt: table.of(lostOn(said('badDebt') ?? accountFor(accounts, 'badDebt'))),
    inventory: table.of(said('inventory') ?? accountFor(accounts, 'inventory')),
    advance: table.of(through ?? advance),
    withheld: table.of(through ?? accountFor(accounts, 'withheld')),
    against: table.of(said('against') ?? STAND_INS.against),
    tax: table.of(scheme?.payable ?? accountFor(accounts, 'tax')),
  };
}

export function sourceOf(line: PlannedLine): CashSource {
  if (line.terms.parts.some((p) => p.rule.kind === 'payroll')) return 'payroll';
  if (line.account.kind === 'income') return 'newSales';
  return line.account.kind === 'otherIncome' ? 'otherReceipts' : 'newPurchases';
}

/** What a posting of a line's periods is made with. */
type Posting = {
  readonly b: Fixed;
  readonly input: ProjectionInput;
  readonly months: LineMonths;
  readonly shared: PostedLine['shared'];
  /** Gathers the tax of planned months that fell due before the start. */
  readonly paidAhead?: { tax: number };
};

const schemeOf = ({ taxes }: ProjectionInput, { terms }: PlannedLine) =>
  terms.tax && taxes.find((t) => t.id === terms.tax!.scheme);

/** Whether the tax of a line counts for its scheme's returns. */
const counts = (scheme: TaxScheme | null | undefined, { account }: PlannedLine): scheme is TaxScheme =>
  scheme != null && (scheme.owed === 'net' || profitSign(account.kind) > 0);

/** Posts the places of one part of a line; closed ones as far as they are known. */
function postPlaces(
  { b, input, months, shared, paidAhead }: Posting,
  part: number,
  [from, until]: readonly [number, number],
  out: PostingBuilder = b.out,
): void {
  const { line } = months;
  const { rule } = line.terms.parts[part]!;
  const first = input.past.length;
  const onPayment = schemeOf(input, line)?.on === 'payment';
  const context: PartContext = {
    part,
    periods: b.all,
    days: b.days,
    starts: b.allStarts,
    ends: b.allEnds,
    first,
    from,
    until,
    money: months.all(part),
    tax: months.allTax(part),
    taxOf: months.taxOf,
    plans: months.plans,
    inYear: (m) => input.inYear[m] ?? 12,
    taxOnPayment: onPayment,
    own: (m) => (line.own ? b.days.on(line.own, b.all[m]!, null) : null),
    ahead: (m) => months.ahead(part, m),
    shared: shared[part]!,
    roles: rolesOf(b, input, line, rule),
    out,
    pending: b.pending,
    early: b.early,
    start: input.start,
    owe(day, amount, m) {
      if (day <= input.start) {
        if (!onPayment) return;
        b.pastTax.add(day, 0, amount, -1, 0, day);
        if (m >= first && paidAhead) paidAhead.tax += amount;
      } else if (m >= first) b.tax.add(day, 0, amount, -1, 0, day);
      else if (onPayment) b.pending.add(day, OWED, amount, -1, WHAT.tax, day);
    },
  };
  postPart(rule, context);
}

/** The closed places of a part whose events may not be over, or whose tax on payment may be due yet (`taxReach`). */
function pastPlaces(
  input: ProjectionInput,
  { line }: LineMonths,
  rule: TermsRule,
  taxReach: number,
): readonly [number, number] {
  const first = input.past.length;
  const known = line.past.findIndex((v) => v !== null);
  const back = reachOf(rule) + (schemeOf(input, line)?.on === 'payment' ? taxReach : 0);
  return [known < 0 ? first : Math.min(first, Math.max(known, first - back)), first];
}

/** What a line's closed periods leave to come, or were owed of a tax on payment; of balances that are fixed nothing. */
export function postPast(
  b: Fixed,
  input: ProjectionInput,
  months: LineMonths,
  shared: PostedLine['shared'],
  taxReach: number,
): PostedPast {
  const first = input.past.length;
  months.line.terms.parts.forEach(({ rule }, k) => {
    if (rule.kind !== 'daysOutstanding')
      postPlaces({ b, input, months, shared }, k, pastPlaces(input, months, rule, taxReach));
  });
  const scheme = schemeOf(input, months.line);
  const [pending, owed] = [b.pending.take(), b.pastTax.take()];
  // A payday that moves back may leave its month, by a few days.
  months.line.terms.parts.forEach((part, k) => {
    if (input.periods.length > 0 && movesBack(part))
      postPlaces({ b, input, months, shared }, k, [first, first + 1], b.scratch);
  });
  const early = b.early.take();
  const lost = lostBefore(b, input, months, shared);
  for (const unused of [b.scratch, b.tax, b.pastTax]) unused.take();
  return {
    lost,
    months,
    shared,
    pending,
    early,
    owed: counts(scheme, months.line) && owed.count > 0 ? owed : null,
    scheme: counts(scheme, months.line) ? scheme.id : null,
  };
}

/** What a line's terms never collected of closed periods, as far as they are known. */
function lostBefore(
  b: Fixed,
  input: ProjectionInput,
  months: LineMonths,
  shared: PostedLine['shared'],
): PostedPast['lost'] {
  const first = input.past.length;
  const known = months.line.past.findIndex((v) => v !== null);
  const { parts } = months.line.terms;
  if (known < 0 || !parts.some(losesSome)) return null;
  b.scratch.take();
  parts.forEach((part, k) => {
    if (losesSome(part))
      postPlaces({ b: { ...b, pending: b.scratch }, input, months, shared }, k, [known, first]);
  });
  const { columns, first: from, count } = b.scratch.take();
  const out = new Map<number, number[]>();
  for (let i = from; i < from + count; i++) {
    const place = columns.account[i]!;
    if (place === OWED || lostOf(b.table.ids[place]!) === null) continue;
    const period = b.allEnds.findIndex((end) => columns.day[i]! <= end);
    if (period < 0 || period >= first) continue;
    let own = out.get(place);
    if (!own) out.set(place, (own = new Array<number>(first).fill(0)));
    own[period]! += columns.amount[i]!;
  }
  return out;
}

/** Whether a part of terms never collects all of it. */
const losesSome = ({ rule }: PlannedLine['terms']['parts'][number]): boolean =>
  rule.kind === 'onAccount' && leaveSome(rule.shares.map((s) => s.percent));

/** Posts a line's planned months by its terms, and what is owed of its tax. */
export function postLine(
  b: Fixed,
  input: ProjectionInput,
  months: LineMonths,
  shared: PostedLine['shared'],
  taxReach: number,
): PostedLine {
  const { line } = months;
  const first = input.past.length;
  const all = first + input.periods.length;
  const paidAhead = { tax: 0 };
  line.terms.parts.forEach(({ rule }, k) => {
    // What settled a balance in closed periods is known with what settles it.
    const from = rule.kind === 'daysOutstanding' ? pastPlaces(input, months, rule, taxReach)[0] : first;
    postPlaces({ b, input, months, shared, paidAhead }, k, [from, all]);
  });
  const scheme = schemeOf(input, line);
  const counted = counts(scheme, line);
  const [owed, pastOwed] = [b.tax.take(), b.pastTax.take()];
  b.early.take();
  return {
    months,
    shared,
    part: { of: 'line', key: `line ${line.key}`, source: sourceOf(line), postings: b.out.take() },
    owed: counted && owed.count > 0 ? owed : null,
    pastOwed: counted && pastOwed.count > 0 ? pastOwed : null,
    scheme: counted ? scheme.id : null,
    taxStood:
      counted && scheme.on === 'payment'
        ? shared.reduce((t, s) => t + (s?.taxStood ?? 0), 0) - paidAhead.tax
        : 0,
  };
}

/** Whether what is paid of a planned month may be paid before it begins. */
const movesBack = ({ rule }: PlannedLine['terms']['parts'][number]): boolean =>
  (rule.kind === 'atOnce' || rule.kind === 'payroll') && rule.moved === 'previous';

/** Whether nothing changed of what a line's closed periods leave to come. */
export function samePast(
  was: PostedPast,
  { line }: LineMonths,
  shared: PostedLine['shared'],
  first: number,
): boolean {
  const before = was.months.line;
  if (before.terms !== line.terms || before.own !== line.own || before.past !== line.past) return false;
  if (line.terms.parts.some(movesBack) && before.amounts[0] !== line.amounts[0]) return false;
  return shared.every((s, k) => {
    const other = was.shared[k] ?? null;
    if (s === null || other === null) return s === other;
    for (let m = 0; m < first; m++)
      if (s.amount[m] !== other.amount[m] || s.tax[m] !== other.tax[m]) return false;
    return true;
  });
}

/** What the parts of a line are given of accounts' balances. */
export const sharedOf = (
  { key, terms }: PlannedLine,
  all: ReadonlyMap<string, Shared>,
): readonly (Shared | null)[] => terms.parts.map((_, k) => all.get(partKey(key, k)) ?? null);
