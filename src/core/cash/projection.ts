import { toDayNumber, type DayNumber, type Period } from '@/core/calendar';
import { minor, percentOf, type Minor } from '@/core/money';
import {
  CASH_SOURCES,
  naturalSign,
  profitSign,
  type Account,
  type AccountId,
  type CashSource,
  type DatedItem,
  type DayRule,
  type SegmentId,
  type TaxScheme,
  type Terms,
  type TermsRule,
  type WorkWeek,
} from '@/core/model';
import { datesOf } from './dated';
import { daysOf, type Days } from './days';
import { splitByPercents } from './parts';
import { AccountTable, PostingBuilder, whatPlace, type Postings } from './postings';
import type { PartContext, Roles } from './rule';
import { stockTarget } from './rules/fromStock';
import { postPart } from './rules/table';
import { taxReturns, type TaxReturn } from './tax';

/** A line of the plan with the terms that it follows. */
export type PlannedLine = {
  readonly key: string;
  readonly account: Account;
  readonly segment: SegmentId;
  readonly terms: Terms;
  /** Natural amounts of the planned periods; null where nothing is said. */
  readonly amounts: readonly (Minor | null)[];
  /** The days that its method counts, such as paydays; the same object while they stay. */
  readonly own: DayRule | null;
};

/** An open item as it is expected: an invoice, a bill, or an order. */
export type ExpectedItem = {
  readonly key: string;
  readonly side: 'in' | 'out';
  readonly kind: 'invoice' | 'order';
  /** The receivable or payable; of an order, the account of the line that it stands for. */
  readonly account: AccountId | null;
  /** When it is (or was) invoiced, and when its money is expected. */
  readonly dated: DayNumber;
  readonly expected: DayNumber;
  /** What of it is open: positive as a rule, negative for a credit note. */
  readonly open: Minor;
  /** One that is held or left out moves no money, and stays open. */
  readonly counted: boolean;
  /** An order stands in place of the plan of its account and month, or on top of it. */
  readonly onTop: boolean;
};

export type ProjectionInput = {
  /** The last day that the ledger is closed through: the projection begins on the day after. */
  readonly start: DayNumber;
  /** The planned periods after it, in time. */
  readonly periods: readonly Period[];
  readonly workWeek: WorkWeek;
  readonly accounts: readonly Account[];
  /** What accounts stand at at the start, debits positive. */
  readonly opening: ReadonlyMap<AccountId, number>;
  readonly lines: readonly PlannedLine[];
  readonly items: readonly ExpectedItem[];
  readonly dated: readonly (DatedItem & { readonly key: string })[];
  readonly taxes: readonly TaxScheme[];
  /** Of what stands owed of a tax at the start, what belongs to periods that are over, and to the running one. */
  readonly taxStood: (scheme: TaxScheme) => { readonly ended: number; readonly running: number };
  /** The bank account that pays by default. */
  readonly bank: AccountId | null;
  /** Days over which receivables and payables without items run off. */
  readonly runOff: number;
};

/** Postings of one cause: a line, an open item, a tax, a dated item, a balance without items. */
export type Part = {
  readonly of: 'line' | 'item' | 'order' | 'dated' | 'tax' | 'runOff';
  readonly key: string;
  readonly source: CashSource;
  readonly postings: Postings;
};

export type Projected = {
  readonly start: DayNumber;
  readonly days: number;
  readonly table: AccountTable;
  readonly isBank: (place: number) => boolean;
  /** What the bank accounts hold at the start. */
  readonly opening: number;
  /** Money into the banks by day (index 0 is the day after the start), by source. The same arrays are written on by the next reckoning. */
  readonly bySource: Readonly<Record<CashSource, Float64Array>>;
  readonly parts: ReadonlyMap<string, Part>;
  readonly returns: readonly TaxReturn[];
  /** Counts up with every reckoning that changed anything. */
  readonly version: number;
};

/** Accounts that a book may not have, by what they are to the projection; they are no accounts of the book. */
export const STAND_INS = {
  bank: '~bank',
  receivable: '~receivable',
  payable: '~payable',
  inventory: '~inventory',
  prepaid: '~prepaid',
  deferred: '~deferred',
  withheld: '~withheld',
  tax: '~tax',
  badDebt: '~badDebt',
  against: '~against',
  other: '~other',
} as const;

type Kept = {
  readonly line: PlannedLine;
  readonly money: readonly number[];
  readonly stock: number;
  readonly part: Part;
  readonly owed: Postings | null;
  readonly scheme: string | null;
};

/** What a projector keeps between reckonings: all of it is dropped when the ground under it changes. */
type Base = {
  readonly input: ProjectionInput;
  readonly days: Days;
  readonly starts: Int32Array;
  readonly ends: Int32Array;
  readonly table: AccountTable;
  readonly banks: ReadonlySet<number>;
  /** 1 for the places of banks: asked a million times. */
  readonly isBank: Uint8Array;
  readonly length: number;
  readonly bySource: Record<CashSource, Float64Array>;
  readonly owedByScheme: Map<string, Float64Array>;
  readonly kept: Map<string, Kept>;
  readonly parts: Map<string, Part>;
  /** What the parts that follow from no line were made of, last time. */
  others: Pick<ProjectionInput, 'items' | 'dated' | 'runOff'> | null;
};

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
    if (!base || !sameGround(base.input, input)) base = baseOf(input);
    const b = base;
    out.earliest = tax.earliest = input.start + 1;
    const covered = coveredByOrders(input);
    const stocks = stocksOf(b, input);
    const seen = new Set<string>();
    for (const line of input.lines) {
      seen.add(line.key);
      const money = moneyOf(line, covered.get(line.key) ?? null);
      const stock = stocks.get(line.key) ?? 0;
      const was = b.kept.get(line.key);
      if (was && isSame(was, line, money, stock)) continue;
      if (was) count(b, was, -1);
      const now = postLine(b, input, line, money, stock, out, tax);
      count(b, now, 1);
      b.kept.set(line.key, now);
      b.parts.set(now.part.key, now.part);
      version++;
    }
    for (const [key, was] of b.kept)
      if (!seen.has(key)) {
        count(b, was, -1);
        b.kept.delete(key);
        b.parts.delete(was.part.key);
        version++;
      }
    const { items, dated, runOff } = input;
    const was = b.others;
    if (was?.items !== items || was.dated !== dated || was.runOff !== runOff) {
      version += replaceParts(b, otherParts(b, input, out), (of) => of !== 'line' && of !== 'tax');
      b.others = { items, dated, runOff };
    }
    const returns = returnsOf(b, input);
    version += replaceParts(b, returnParts(b, input, returns, out), (of) => of === 'tax');
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
    parts: new Map(),
    others: null,
    isBank,
  };
}

/** What a line does to money by month: receipts positive. */
function moneyOf(line: PlannedLine, covered: readonly number[] | null): readonly number[] {
  const sign = -naturalSign(line.account.kind);
  return line.amounts.map((a, m) => {
    const amount = Number.isNaN(a) ? 0 : (a ?? 0);
    // An order stands in place of the plan as far as the plan reaches.
    const left = covered && amount > 0 ? Math.max(0, amount - covered[m]!) : amount;
    return left === 0 ? 0 : sign * left;
  });
}

function isSame(was: Kept, line: PlannedLine, money: readonly number[], stock: number): boolean {
  if (was.line.terms !== line.terms || was.line.own !== line.own || was.line.account !== line.account)
    return false;
  if (was.stock !== stock || was.money.length !== money.length) return false;
  for (let m = 0; m < money.length; m++) if (was.money[m] !== money[m]) return false;
  return true;
}

/** Adds a line's money and tax to the sums by day, or takes them off. */
function count(b: Base, { part, owed, scheme }: Pick<Kept, 'part' | 'owed' | 'scheme'>, sign: 1 | -1): void {
  addBanks(b, part, sign);
  const sums = scheme === null || owed === null ? undefined : b.owedByScheme.get(scheme);
  if (!sums) return;
  for (let i = 0; i < owed!.count; i++) {
    const d = owed!.day[i]! - b.input.start - 1;
    if (d < b.length) sums[d]! += sign * owed!.amount[i]!;
  }
}

function addBanks(b: Base, { postings, source }: Part, sign: 1 | -1): void {
  const sums = b.bySource[source];
  const { day, account, amount } = postings;
  for (let i = 0; i < postings.count; i++) {
    if (b.isBank[account[i]!] !== 1) continue;
    const d = day[i]! - b.input.start - 1;
    if (d < b.length) sums[d]! += sign * amount[i]!;
  }
}

const firsts = new WeakMap<readonly Account[], Map<Account['kind'], AccountId>>();

/** The first account of a kind that is in use; a stand-in where the book has none. */
function firstOf(accounts: readonly Account[], kind: Account['kind'], otherwise: string): AccountId {
  let known = firsts.get(accounts);
  if (!known) {
    firsts.set(accounts, (known = new Map()));
    for (const a of accounts) if (a.active && !known.has(a.kind)) known.set(a.kind, a.id);
  }
  return known.get(kind) ?? otherwise;
}

/** The bank that pays by default: the one said, else the first there is. */
export const defaultBank = ({ bank, accounts }: Pick<ProjectionInput, 'bank' | 'accounts'>): AccountId =>
  bank ?? firstOf(accounts, 'bank', STAND_INS.bank);

function rolesOf({ table }: Base, input: ProjectionInput, line: PlannedLine, rule: TermsRule): Roles {
  const { accounts, taxes } = input;
  const income = profitSign(line.account.kind) > 0;
  const said = <K extends string>(key: K): AccountId | null =>
    key in rule ? ((rule as unknown as Record<K, AccountId | null>)[key] ?? null) : null;
  const scheme = taxes.find((t) => t.id === line.terms.tax?.scheme);
  const debt = income
    ? firstOf(accounts, 'receivable', STAND_INS.receivable)
    : firstOf(accounts, 'payable', STAND_INS.payable);
  const advance = income
    ? firstOf(accounts, 'otherLiability', STAND_INS.deferred)
    : firstOf(accounts, 'otherAsset', STAND_INS.prepaid);
  const through = said('through');
  return {
    line: table.of(line.account.id),
    bank: table.of(line.terms.bank ?? defaultBank(input)),
    open: table.of(through ?? debt),
    badDebt: table.of(said('badDebt') ?? STAND_INS.badDebt),
    inventory: table.of(said('inventory') ?? firstOf(accounts, 'inventory', STAND_INS.inventory)),
    advance: table.of(through ?? advance),
    withheld: table.of(through ?? STAND_INS.withheld),
    against: table.of(said('against') ?? STAND_INS.against),
    tax: table.of(scheme?.payable ?? firstOf(accounts, 'taxPayable', STAND_INS.tax)),
  };
}

function sourceOf(line: PlannedLine): CashSource {
  if (line.terms.parts.some((p) => p.rule.kind === 'payroll')) return 'payroll';
  if (line.account.kind === 'income') return 'newSales';
  return line.account.kind === 'otherIncome' ? 'otherReceipts' : 'newPurchases';
}

function postLine(
  b: Base,
  input: ProjectionInput,
  line: PlannedLine,
  money: readonly number[],
  stock: number,
  out: PostingBuilder,
  tax: PostingBuilder,
): Kept {
  const { terms } = line;
  const scheme = terms.tax && input.taxes.find((t) => t.id === terms.tax!.scheme);
  // The tax of a month's amount is rounded once, and divided as the amount is.
  const taxes = scheme
    ? money.map((v) => percentOf(minor(v), terms.tax!.rate) as number)
    : money.map(() => 0);
  const percents = terms.parts.map((p) => p.percent);
  const single = percents.length === 1;
  const divided = (all: readonly number[]) => all.map((v) => splitByPercents(v, percents).parts);
  const shares = single ? null : divided(money);
  const taxShares = single || !scheme ? null : divided(taxes);
  terms.parts.forEach(({ rule }, k) => {
    const context: PartContext = {
      periods: input.periods,
      days: b.days,
      starts: b.starts,
      ends: b.ends,
      money: shares ? shares.map((s) => s[k]!) : money,
      tax: taxShares ? taxShares.map((s) => s[k]!) : taxes,
      taxOnPayment: scheme?.on === 'payment',
      own: (i) => (line.own ? b.days.on(line.own, input.periods[i]!, null) : null),
      stock,
      roles: rolesOf(b, input, line, rule),
      out,
      owe: (day, amount) => tax.add(day, 0, amount, -1, 0, day),
    };
    postPart(rule, context);
  });
  const owed = tax.take();
  const counts = scheme && (scheme.owed === 'net' || profitSign(line.account.kind) > 0);
  return {
    line,
    money,
    stock,
    part: { of: 'line', key: `line ${line.key}`, source: sourceOf(line), postings: out.take() },
    owed: counts && owed.count > 0 ? owed : null,
    scheme: counts ? scheme.id : null,
  };
}

/** What orders cover of the plan: by line, then month. The first line of an account takes its orders. */
function coveredByOrders({ items, lines, periods }: ProjectionInput): ReadonlyMap<string, readonly number[]> {
  const orders = items.filter((i) => i.kind === 'order' && i.counted && !i.onTop && i.account !== null);
  const out = new Map<string, number[]>();
  if (orders.length === 0) return out;
  const ends = periods.map((p) => toDayNumber(p.end));
  const lineOf = new Map<AccountId, PlannedLine>();
  for (const l of lines) if (!lineOf.has(l.account.id)) lineOf.set(l.account.id, l);
  for (const order of orders) {
    const line = lineOf.get(order.account!);
    const month = ends.findIndex((end) => order.dated <= end);
    if (!line || month < 0) continue;
    const months = out.get(line.key) ?? periods.map(() => 0);
    months[month]! += order.open;
    out.set(line.key, months);
  }
  return out;
}

/** The stock that the ledger stands at, over the lines that take out of it, as each should hold at the start. */
function stocksOf({ table }: Base, input: ProjectionInput): ReadonlyMap<string, number> {
  const out = new Map<string, number>();
  const byAccount = new Map<AccountId, { key: string; target: number }[]>();
  for (const line of input.lines)
    for (const { rule } of line.terms.parts) {
      if (rule.kind !== 'fromStock') continue;
      const account = rule.inventory ?? firstOf(input.accounts, 'inventory', STAND_INS.inventory);
      const list = byAccount.get(account) ?? [];
      list.push({ key: line.key, target: stockTarget(rule, moneyOf(line, null), 0) });
      byAccount.set(account, list);
      table.of(account);
    }
  for (const [account, list] of byAccount) {
    const stands = Math.max(0, input.opening.get(account) ?? 0);
    const all = list.reduce((t, l) => t + l.target, 0);
    let given = 0;
    list.forEach(({ key, target }, i) => {
      const part =
        i === list.length - 1 ? stands - given : all === 0 ? 0 : Math.floor((stands * target) / all);
      given += part;
      out.set(key, (out.get(key) ?? 0) + part);
    });
  }
  return out;
}

const DATED_SOURCE: Record<DatedItem['group'], (direction: DatedItem['direction']) => CashSource> = {
  owners: () => 'owners',
  loans: () => 'loans',
  taxes: () => 'taxes',
  disposals: () => 'disposals',
  other: (direction) => (direction === 'in' ? 'otherReceipts' : 'other'),
};

/** Parts that follow from no line: open items, orders, dated items, balances that have no items. */
function otherParts(b: Base, input: ProjectionInput, out: PostingBuilder): Part[] {
  const { table } = b;
  const parts: Part[] = [];
  const bank = table.of(defaultBank(input));
  const until = input.start + b.length;
  const unsettled = new Map<AccountId, number>();
  for (const a of input.accounts)
    if (a.kind === 'receivable' || a.kind === 'payable') unsettled.set(a.id, input.opening.get(a.id) ?? 0);
  const pair = (day: DayNumber, to: number, from: number, amount: number, what: number, since: DayNumber) => {
    out.add(day, to, amount, -1, what, since);
    out.add(day, from, -amount, -1, what, since);
  };
  for (const item of input.items) {
    const sign = item.side === 'in' ? 1 : -1;
    const open =
      (item.kind === 'invoice' ? item.account : null) ??
      (item.side === 'in'
        ? firstOf(input.accounts, 'receivable', STAND_INS.receivable)
        : firstOf(input.accounts, 'payable', STAND_INS.payable));
    const through = table.of(open);
    const money = sign * item.open;
    if (!item.counted) {
      if (item.kind === 'invoice') unsettled.set(open, (unsettled.get(open) ?? 0) - money);
      continue;
    }
    if (item.kind === 'order') {
      const of = table.of(item.account ?? STAND_INS.other);
      pair(Math.max(item.dated, input.start + 1), through, of, money, whatPlace('order'), item.dated);
    } else unsettled.set(open, (unsettled.get(open) ?? 0) - money);
    const day = Math.max(item.expected, input.start + 1);
    pair(day, bank, through, money, whatPlace(item.kind === 'order' ? 'order' : 'item'), item.dated);
    const source: CashSource =
      item.kind === 'order'
        ? item.side === 'in'
          ? 'salesOrders'
          : 'purchaseOrders'
        : item.side === 'in'
          ? 'openInvoices'
          : 'openBills';
    parts.push({
      of: item.kind === 'order' ? 'order' : 'item',
      key: `item ${item.key}`,
      source,
      postings: out.take(),
    });
  }
  for (const item of input.dated) {
    const to = table.of(item.bank ?? defaultBank(input));
    const from = table.of(item.against ?? STAND_INS.other);
    const money = item.direction === 'in' ? item.amount : -item.amount;
    for (const day of datesOf(item, input.start, until)) pair(day, to, from, money, whatPlace('dated'), day);
    parts.push({
      of: 'dated',
      key: `dated ${item.key}`,
      source: DATED_SOURCE[item.group](item.direction),
      postings: out.take(),
    });
  }
  for (const [account, left] of unsettled) {
    if (left === 0) continue;
    const kind = input.accounts.find((a) => a.id === account)?.kind;
    const place = table.of(account);
    // What stands without items runs off in equal parts.
    for (let i = 0, given = 0; i < input.runOff; i++) {
      const part = Math.trunc((left * (i + 1)) / input.runOff) - given;
      given += part;
      pair(input.start + 1 + i, bank, place, part, whatPlace('opening'), input.start);
    }
    parts.push({
      of: 'runOff',
      key: `runOff ${account}`,
      source: kind === 'receivable' ? 'openInvoices' : 'openBills',
      postings: out.take(),
    });
  }
  return parts;
}

const returnsOf = (b: Base, input: ProjectionInput): TaxReturn[] =>
  input.taxes.flatMap((scheme) =>
    taxReturns(scheme, input.start, b.owedByScheme.get(scheme.id)!, input.taxStood(scheme)),
  );

function returnParts(
  b: Base,
  input: ProjectionInput,
  returns: readonly TaxReturn[],
  out: PostingBuilder,
): Part[] {
  return returns.map((r) => {
    const scheme = input.taxes.find((t) => t.id === r.scheme)!;
    const payable = b.table.of(scheme.payable ?? firstOf(input.accounts, 'taxPayable', STAND_INS.tax));
    const bank = b.table.of(defaultBank(input));
    out.add(r.due, bank, -r.owed, -1, whatPlace('tax'), r.to);
    out.add(r.due, payable, r.owed, -1, whatPlace('tax'), r.to);
    return { of: 'tax', key: `tax ${r.scheme} ${r.to}`, source: 'taxes', postings: out.take() };
  });
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
    addBanks(b, was, -1);
    b.parts.delete(key);
    changed++;
  }
  for (const part of keys.values()) {
    addBanks(b, part, 1);
    b.parts.set(part.key, part);
    changed++;
  }
  return changed;
}

function samePostings(a: Postings, b: Postings): boolean {
  if (a.count !== b.count) return false;
  for (let i = 0; i < a.count; i++)
    if (a.day[i] !== b.day[i] || a.amount[i] !== b.amount[i] || a.account[i] !== b.account[i]) return false;
  return true;
}
