import type { PeriodIndex } from '@/core/calendar';
import type { Balances } from '@/core/ledger';
import { hasNature, isProfitAndLoss, type Account, type AccountId, type FlowClass } from '@/core/model';
import { minor, plus, type Minor } from '@/core/money';
import type { Sales } from './sales';

/*
 * The cash-flow statement by the indirect form of IAS 7 and ASC 230: from the period's profit, over what of it was no money
 * and what working capital took or gave, to investing, financing, and the change of the bank.
 */

/** Where an account's movements belong, unless it was said: by its kind. */
export function flowClassOf(account: Account, said: Readonly<Record<AccountId, FlowClass>>): FlowClass {
  const own = said[account.id];
  if (own !== undefined) return own;
  switch (account.kind) {
    case 'bank':
      return 'cash';
    case 'fixedAsset':
      return hasNature(account, 'accumulated') ? 'adjustment' : 'investing';
    case 'loan':
    case 'equity':
      return 'financing';
    default:
      return 'operating';
  }
}

/** The parts of the statement that lines stand in. */
export const PAID_SECTIONS = ['interestPaid', 'incomeTaxPaid'] as const;
const OPERATING_SECTIONS = ['adjustments', 'workingCapital', ...PAID_SECTIONS] as const;
export const FLOW_SECTIONS = [...OPERATING_SECTIONS, 'investing', 'financing'] as const;
export type FlowSection = (typeof FLOW_SECTIONS)[number];

/** The sections that cash from operations is made of, beside the profit. */
export const OPERATING: ReadonlySet<FlowSection> = new Set(OPERATING_SECTIONS);

/** Whether a section tells what was paid of one cost: of interest, or of income tax. */
export const isPaid = (section: FlowSection): section is (typeof PAID_SECTIONS)[number] =>
  (PAID_SECTIONS as readonly FlowSection[]).includes(section);

/**
 * What is paid of interest and of income tax stands on lines of its own (IAS 7.31 and 7.35): the cost is added back, and cost
 * and what is owed of it tell together what was paid. What is owed alone, whose cost no account tells apart, stays working
 * capital.
 */
const PAID = [
  { section: 'interestPaid', cost: 'interest', owed: 'accrued' },
  { section: 'incomeTaxPaid', cost: 'tax', owed: 'taxOwed' },
] as const;

/** Accounts that schedules tell the use of, whatever their names. */
export type Served = { readonly [N in 'interest' | 'accrued' | 'tax' | 'taxOwed']?: ReadonlySet<AccountId> };

function paidSections(
  accounts: readonly Account[],
  said: Readonly<Record<AccountId, FlowClass>>,
  served: Served,
): ReadonlyMap<Account, FlowSection> {
  const out = new Map<Account, FlowSection>();
  const serves = (a: Account, nature: keyof Served) => served[nature]?.has(a.id) || hasNature(a, nature);
  for (const { section, cost, owed } of PAID) {
    const operating = accounts.filter((a) => flowClassOf(a, said) === 'operating' && !out.has(a));
    const costs = operating.filter((a) => isProfitAndLoss(a.kind) && serves(a, cost));
    if (costs.length === 0) continue;
    for (const a of costs) out.set(a, section);
    for (const a of operating) if (!isProfitAndLoss(a.kind) && serves(a, owed)) out.set(a, section);
  }
  return out;
}

/** A line: the movement of an account as money, or the other side of an amount that is told in another section. */
export type FlowLine = {
  readonly key: string;
  readonly account: Account;
  readonly section: FlowSection;
  /** Of all that the account moved, or of the gains and losses on what was sold alone. */
  readonly of: 'all' | 'gains';
  /** −1: a debit is money out. +1: what profit has of an account is taken out of it, to stand in its own section. */
  readonly sign: 1 | -1;
};

/**
 * The lines of the statement. Together with the profit they come to what the banks moved by, whatever the classes. `gains`:
 * the accounts of profit and loss with gains or losses on what was sold.
 */
export function flowLines(
  accounts: readonly Account[],
  said: Readonly<Record<AccountId, FlowClass>>,
  gains: ReadonlySet<AccountId>,
  served: Served = {},
): readonly FlowLine[] {
  const out: FlowLine[] = [];
  const paid = paidSections(accounts, said, served);
  for (const account of accounts) {
    const of = flowClassOf(account, said);
    const line = (section: FlowSection, sign: 1 | -1, key = account.id) =>
      out.push({ key, account, section, sign, of: 'all' });
    const paidIn = paid.get(account);
    if (paidIn !== undefined) {
      if (isProfitAndLoss(account.kind)) line('adjustments', 1, `${account.id} back`);
      line(paidIn, -1);
    } else if (isProfitAndLoss(account.kind)) {
      if (of !== 'investing' && of !== 'financing') {
        if (gains.has(account.id))
          out.push({ key: `${account.id} gains`, account, section: 'adjustments', sign: 1, of: 'gains' });
        continue;
      }
      line('adjustments', 1, `${account.id} back`);
      line(of, -1);
    } else if (of === 'operating') line('workingCapital', -1);
    else if (of === 'adjustment') line('adjustments', -1);
    else if (of !== 'cash') line(of, -1);
  }
  return out;
}

/** What a line says of a period: its account's movement as money, but for what sales tell in other lines. Null: nothing. */
export function flowAmount(
  { account: { id }, sign, of }: FlowLine,
  { movement }: Pick<Balances, 'movement'>,
  sales: Sales,
  period: PeriodIndex,
): Minor | null {
  if (of === 'gains') {
    const gain = sales.gain(id, period);
    return gain === 0 ? null : minor(sign * gain);
  }
  const moved = movement(id, period);
  const shift = sales.shift(id, period);
  return moved === null && shift === 0 ? null : minor(sign * plus(moved ?? 0, shift));
}

/** The accounts whose sum is the bank in the statement. */
export const cashAccounts = (
  accounts: readonly Account[],
  said: Readonly<Record<AccountId, FlowClass>>,
): readonly Account[] => accounts.filter((a) => !isProfitAndLoss(a.kind) && flowClassOf(a, said) === 'cash');
