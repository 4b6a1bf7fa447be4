import type { AccountId, CashSource, TermsRule } from '@/core/model';
import { naturalSign, profitSign } from '@/core/model';
import { isTooLarge, minor, percentOf, type Percent } from '@/core/money';
import type { Days } from '@/core/schedule';
import type { PlannedLine, ProjectionInput } from './input';
import { splitByPercents, firstOf, STAND_INS } from '@/core/schedule';
import type { AccountTable, PostingBuilder, Postings } from './postings';
import { defaultBank, type Part } from './projected';
import type { PartContext, Roles } from './rule';
import { stockTarget } from './rules/fromStock';
import { postPart } from './rules/table';

/** What stays the same for every line of a reckoning. */
export type Fixed = {
  readonly days: Days;
  /** First and last day of each planned period. */
  readonly starts: Int32Array;
  readonly ends: Int32Array;
  readonly table: AccountTable;
};

/** A line as it was posted, and what it was posted from. */
export type PostedLine = {
  readonly line: PlannedLine;
  readonly money: readonly number[];
  readonly stock: number;
  readonly part: Part;
  /** What is owed of its tax by day, and to which tax; null where none counts. */
  readonly owed: Postings | null;
  readonly scheme: string | null;
};

/** The accounts that a line's postings go through: those its terms name, else the book's usual ones. */
function rolesOf({ table }: Fixed, input: ProjectionInput, line: PlannedLine, rule: TermsRule): Roles {
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

/** Posts a line's months by its terms, and what is owed of its tax. */
export function postLine(
  b: Fixed,
  input: ProjectionInput,
  line: PlannedLine,
  money: readonly number[],
  stock: number,
  out: PostingBuilder,
  tax: PostingBuilder,
): PostedLine {
  const { terms } = line;
  const scheme = terms.tax && input.taxes.find((t) => t.id === terms.tax!.scheme);
  // The tax of a month's amount is rounded once, and divided as the amount is.
  const taxes = scheme ? money.map((v) => taxOf(v, terms.tax!.rate)) : nothing(money.length);
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

const nothings: number[][] = [];
/** Months without tax, the same ones for every line. */
const nothing = (months: number): readonly number[] => (nothings[months] ??= Array<number>(months).fill(0));

/** The tax of an amount; none of what could not be told. */
function taxOf(amount: number, rate: Percent): number {
  const tax = percentOf(minor(amount), rate);
  return isTooLarge(tax) ? 0 : tax;
}

/** What a line does to money by month: receipts positive. */
export function moneyByMonth(line: PlannedLine, covered: readonly number[] | null): readonly number[] {
  const sign = -naturalSign(line.account.kind);
  return line.amounts.map((a, m) => {
    const amount = Number.isNaN(a) ? 0 : (a ?? 0);
    // An order stands in place of the plan as far as the plan reaches.
    const left = covered && amount > 0 ? Math.max(0, amount - covered[m]!) : amount;
    return left === 0 ? 0 : sign * left;
  });
}

/** The stock that the ledger stands at, over the lines that take out of it, as each should hold at the start. */
export function stocksOf({ table }: Fixed, input: ProjectionInput): ReadonlyMap<string, number> {
  const out = new Map<string, number>();
  const byAccount = new Map<AccountId, { key: string; target: number }[]>();
  for (const line of input.lines)
    for (const { rule } of line.terms.parts) {
      if (rule.kind !== 'fromStock') continue;
      const account = rule.inventory ?? firstOf(input.accounts, 'inventory', STAND_INS.inventory);
      const list = byAccount.get(account) ?? [];
      list.push({ key: line.key, target: stockTarget(rule, moneyByMonth(line, null), 0) });
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
