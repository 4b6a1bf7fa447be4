import type { DayNumber, FiscalCalendar, PeriodIndex } from '@/core/calendar';
import type { Guess, LedgerItem, Settled } from '@/core/cash';
import { medianDays } from '@/core/cash';
import { journalOf, ownersOf, rowAt, type LedgerBlock, type View } from '@/core/ledger';
import {
  isProfitAndLoss,
  type Account,
  type AccountId,
  type Book,
  type Budget,
  type Cash,
  type GuessedTerms,
  type Terms,
  type TermsOf,
} from '@/core/model';
import { percent as percentOf, type Percent } from '@/core/money';
import type { TermsIn } from '@/core/scenario';
import { assertNever } from '@/core/assertNever';
import { dividerOf, accountFor, type Days } from '@/core/schedule';
import { saidTerms } from './lineTerms';

/* An item of the ledger goes by the terms of the line that it was invoiced for: the entry tells which. */

/** What an invoice's entry tells of it: the account that it is for (of several the largest), and the tax in it. */
export type InvoicedFor = {
  readonly account: AccountId;
  readonly tax: number;
};

const entries = new WeakMap<LedgerBlock, Int32Array>();

/** The journal entry of each row of a block. */
function entryOfRow(block: LedgerBlock): Int32Array {
  let of = entries.get(block);
  if (!of) {
    const journal = journalOf(block);
    entries.set(block, (of = new Int32Array(block.count)));
    for (let k = 0; k < journal.starts.length - 1; k++)
      for (let i = journal.starts[k]!; i < journal.starts[k + 1]!; i++) of[rowAt(journal, i)] = k;
  }
  return of;
}

/** Reads off a ledger's entries what its invoices were for; null where an entry does not tell, as balances by month do not. */
export function readInvoices(
  blocks: readonly LedgerBlock[],
  view: View,
  accounts: readonly Account[],
): (key: string) => InvoicedFor | null {
  const byId = new Map(accounts.map((a) => [a.id, a]));
  const byBlock = new Map(blocks.map((b) => [b.id, b]));
  const owners = new Map<string, readonly (Account | undefined)[]>();
  const known = new Map<string, InvoicedFor | null>();
  const read = (key: string): InvoicedFor | null => {
    const cut = key.lastIndexOf(':');
    const block = byBlock.get(key.slice(0, cut));
    if (!block) return null;
    let of = owners.get(block.id);
    if (!of) owners.set(block.id, (of = ownersOf(block, view, byId)));
    const row = Number(key.slice(cut + 1));
    const journal = journalOf(block);
    const k = entryOfRow(block)[row]!;
    const sums = new Map<AccountId, number>();
    let tax = 0;
    for (let i = journal.starts[k]!; i < journal.starts[k + 1]!; i++) {
      const at = rowAt(journal, i);
      const account = of[block.account[at]!];
      if (!account || at === row) continue;
      if (isProfitAndLoss(account.kind) || account.kind === 'inventory')
        sums.set(account.id, (sums.get(account.id) ?? 0) + block.amount[at]!);
      if (account.kind === 'taxPayable') {
        tax += block.amount[at]!;
      }
    }
    let best: AccountId | null = null;
    for (const [id, sum] of sums) if (best === null || Math.abs(sum) > Math.abs(sums.get(best)!)) best = id;
    return best === null ? null : { account: best, tax: Math.abs(tax) };
  };
  return (key) => {
    let of = known.get(key);
    if (of === undefined) known.set(key, (of = read(key)));
    return of;
  };
}

/** By what an item of the ledger goes: the terms of the line that it was invoiced for, where its entry tells. */
export type ItemTerms = {
  readonly forWhat: (key: string) => InvoicedFor | null;
  /** The terms of a line; of a stock those of a line that takes out of it. */
  readonly termsOf: (account: AccountId, dated: DayNumber) => Terms | null;
  /** The account that terms leave what is owed on. */
  readonly debtOf: (side: 'in' | 'out', through: AccountId | null) => AccountId;
  readonly days: Days;
  readonly taxes: Cash['taxes'];
};

/** A part of an item that is still to come: to the bank, lost, or taken back from a tax. */
export type ItemShare = {
  readonly day: DayNumber;
  readonly amount: number;
  readonly to: 'bank' | 'lost' | 'tax';
  /** The tax in it that falls due as it is paid, where taxes are owed on payment. */
  readonly owes: number;
};

const asPercent = (value: number): Percent => percentOf(String(Math.round(value * 1e6) / 1e6));

/** Terms as shares after the day of an invoice. */
type ByShares = Pick<TermsOf<'onAccount'>, 'shares' | 'moved' | 'badDebt'> & { readonly percent: Percent };

/**
 * The parts of a line's terms that leave something on an account (`isOn`); null where a rule fixes what stands there. What
 * is paid at once is owed until the next working day, pay until what is withheld is due.
 */
export function sharesOn(
  { parts }: Terms,
  isOn: (through: AccountId | null) => boolean,
): readonly ByShares[] | null {
  const out: ByShares[] = [];
  for (const { percent, rule } of parts) {
    switch (rule.kind) {
      case 'daysOutstanding':
        if (isOn(rule.through)) return null;
        break;
      case 'onAccount':
      case 'fromStock':
        if (isOn(rule.through)) out.push({ badDebt: null, ...rule, percent });
        break;
      case 'atOnce':
        if (rule.moved === 'next' && isOn(null))
          out.push({ percent, moved: rule.moved, badDebt: null, shares: AT_ONCE });
        break;
      case 'payroll':
        if (rule.through !== null && isOn(rule.through)) {
          const rest = { percent: asPercent(100 - Number(rule.net)), due: rule.rest };
          out.push({
            percent,
            moved: rule.moved,
            badDebt: null,
            shares: [{ ...AT_ONCE[0]!, percent: rule.net }, rest],
          });
        }
        break;
      case 'inAdvance':
      case 'withoutMoney':
        break;
      default:
        assertNever(rule);
    }
  }
  return out;
}

const AT_ONCE: TermsOf<'onAccount'>['shares'] = [{ percent: asPercent(100), due: { of: 'days', days: 0 } }];

/**
 * What of an invoice is to come by the shares of its terms: `amount` with the tax in it, of which `open` is open. What was
 * paid went by the shares that were due first. Amount and tax are divided each, as the plan's are.
 */
export function sharesOfItem(
  { dated, amount, open }: Pick<LedgerItem, 'dated' | 'amount' | 'open'>,
  tax: number,
  parts: NonNullable<ReturnType<typeof sharesOn>>,
  { days, onPayment, delay }: { readonly days: Days; readonly onPayment: boolean; readonly delay: number },
): ItemShare[] {
  const all: ItemShare[] = [];
  const whole = parts.length === 1;
  const percents = parts.map((p) => p.percent);
  const weights = percents.reduce((t, p) => t + Number(p), 0);
  let given = [0, 0];
  parts.forEach((rule, k) => {
    // Of terms in several parts only those on account left something here: their percentages are of these.
    const isLast = k === parts.length - 1;
    const part = (of: number, was: number) =>
      whole ? of : isLast ? of - was : Math.round((of * Number(percents[k]!)) / weights);
    const [net, own] = [part(amount - tax, given[0]!), part(tax, given[1]!)];
    given = [given[0]! + net, given[1]! + own];
    const divided = dividerOf(rule.shares.map((s) => s.percent));
    const [nets, taxes] = [divided(net), divided(own)];
    let last = dated;
    rule.shares.forEach((s, i) => {
      const day = Math.max(dated, days.due(dated, s.due, rule.moved)) + delay;
      last = Math.max(last, day);
      all.push({
        day,
        amount: nets.parts[i]! + taxes.parts[i]!,
        to: 'bank',
        owes: onPayment ? taxes.parts[i]! : 0,
      });
    });
    all.push({ day: last, amount: nets.rest + (onPayment ? 0 : taxes.rest), to: 'lost', owes: 0 });
    if (onPayment) all.push({ day: last, amount: taxes.rest, to: 'tax', owes: 0 });
  });
  let paid = amount - open;
  return all
    .map((share, i) => ({ share, i }))
    .sort((a, b) => a.share.day - b.share.day || a.i - b.i)
    .flatMap(({ share }): ItemShare[] => {
      const part = Math.min(paid, share.amount);
      paid -= part;
      const left = share.amount - part;
      if (left === 0) return [];
      return [
        part === 0 ? share : { ...share, amount: left, owes: Math.round((share.owes * left) / share.amount) },
      ];
    });
}

/** How many days later than others of the same line a counterparty pays, as the ledger shows; never earlier. */
export function delaysBy(
  settled: readonly Settled[],
  forWhat: (key: string) => InvoicedFor | null,
): (account: AccountId, counterparty: string) => number {
  const byLine = new Map<AccountId, Settled[]>();
  for (const s of settled) {
    const account = forWhat(s.key)?.account;
    if (account === undefined) continue;
    const list = byLine.get(account);
    if (list) list.push(s);
    else byLine.set(account, [s]);
  }
  const known = new Map<string, number>();
  return (account, counterparty) => {
    const key = `${account} ${counterparty}`;
    let delay = known.get(key);
    if (delay === undefined) {
      const all = byLine.get(account) ?? [];
      const own = medianDays(all.filter((s) => s.counterparty === counterparty));
      delay = own === null ? 0 : Math.max(0, own - (medianDays(all) ?? own));
      known.set(key, delay);
    }
    return delay;
  };
}

/**
 * Terms by the month of the invoice, as the budget that ruled it has them. `ruled`: first and last period of each, in the order of
 * `terms`; months that none ruled go by the first.
 */
export function termsByMonth(ruled: string, ...terms: readonly (TermsIn | null)[]): TermsIn | null {
  const [first = null] = terms;
  if (terms.every((t) => t === first)) return first;
  const spans = ruled.split(',').map((s) => s.split(' ').map(Number) as [number, number]);
  return (own, account, segment, period) => {
    const at = spans.findIndex(([from, to]) => from <= period && period <= to);
    const by = terms[Math.max(0, at)] ?? null;
    return by ? by(own, account, segment, period) : own;
  };
}

/** What items of the ledger go by where a case assumes other terms for the months in which they were invoiced. */
export const itemTermsIn = (
  calendar: FiscalCalendar,
  accounts: Book['accounts'],
  terms: TermsIn | null,
  by: ItemTerms,
): ItemTerms => {
  if (terms === null) return by;
  const byId = new Map(accounts.map((a) => [a.id, a]));
  return {
    ...by,
    termsOf(id, dated) {
      const own = by.termsOf(id, dated);
      const account = byId.get(id);
      return own && account ? terms(own, account, 'any', calendar.indexOfDay(dated)) : own;
    },
  };
};

/** What items of the ledger go by: the terms of the budgets that ruled the months in which they were invoiced. */
export function makeItemTerms(
  forWhat: ItemTerms['forWhat'],
  days: Days,
  accounts: Book['accounts'],
  taxes: Cash['taxes'],
  calendar: FiscalCalendar,
  guesses: ReadonlyMap<AccountId, Guess>,
  _ruled: string,
  ...plans: readonly (
    ReadonlyMap<string, Terms> | ReadonlyMap<AccountId, GuessedTerms> | Budget['lines'] | PeriodIndex
  )[]
): ItemTerms {
  const byId = new Map(accounts.map((a) => [a.id, a]));
  type Ruled = {
    readonly of: (account: Account) => Terms | null;
    readonly stocks: ReadonlyMap<AccountId, Terms>;
    readonly from: PeriodIndex;
    readonly to: PeriodIndex;
  };
  const ruled: Ruled[] = [];
  for (let i = 0; i < plans.length; i += 5) {
    const terms = plans[i] as ReadonlyMap<string, Terms>;
    const kept = plans[i + 1] as ReadonlyMap<AccountId, GuessedTerms>;
    const of = (account: Account) =>
      saidTerms(terms, account, null) ?? (kept.get(account.id) ?? guesses.get(account.id))?.terms ?? null;
    const stocks = new Map<AccountId, Terms>();
    for (const { account: id } of plans[i + 2] as Budget['lines']) {
      const account = byId.get(id);
      const own = account && isProfitAndLoss(account.kind) ? of(account) : null;
      for (const { rule } of own?.parts ?? []) {
        if (rule.kind !== 'fromStock') continue;
        const stock = rule.inventory ?? accountFor(accounts, 'inventory');
        if (!stocks.has(stock)) stocks.set(stock, own!);
      }
    }
    ruled.push({ of, stocks, from: plans[i + 3] as PeriodIndex, to: plans[i + 4] as PeriodIndex });
  }
  return {
    forWhat,
    days,
    taxes,
    termsOf(id, dated) {
      const period = calendar.indexOfDay(dated);
      const by = ruled.find((r) => r.from <= period && period <= r.to) ?? ruled[0];
      const account = byId.get(id);
      if (!by || !account) return null;
      return account.kind === 'inventory' ? (by.stocks.get(id) ?? null) : by.of(account);
    },
    debtOf: (side, through) =>
      through ?? (side === 'in' ? accountFor(accounts, 'receivable') : accountFor(accounts, 'payable')),
  };
}
