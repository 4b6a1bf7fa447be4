import { isProfitAndLoss, type Account, type AccountId, type FlowClass } from '@/core/model';

/*
 * The cash-flow statement by the indirect form of IAS 7 and ASC 230: from the period's profit, over what of it was no money
 * and what working capital took or gave, to investing, financing, and the change of the bank.
 */

/** Names of accounts that gather what was written off: their movements are no money. (Common practice of charts.) */
const WRITTEN_OFF = /accumulated|depreciation|amorti[sz]ation|impairment|allowance/i;

/** Where an account's movements belong, unless it was said: by its kind. */
export function flowClassOf(account: Account, said: Readonly<Record<AccountId, FlowClass>>): FlowClass {
  const own = said[account.id];
  if (own !== undefined) return own;
  switch (account.kind) {
    case 'bank':
      return 'cash';
    case 'fixedAsset':
      return WRITTEN_OFF.test(account.name) ? 'adjustment' : 'investing';
    case 'loan':
    case 'equity':
      return 'financing';
    default:
      return 'operating';
  }
}

/** The parts of the statement that lines stand in. */
export const FLOW_SECTIONS = ['adjustments', 'workingCapital', 'investing', 'financing'] as const;
export type FlowSection = (typeof FLOW_SECTIONS)[number];

/** A line: the movement of an account as money, or the other side of an amount that is told in another section. */
export type FlowLine = {
  readonly key: string;
  readonly account: Account;
  readonly section: FlowSection;
  /** −1: a debit is money out. +1: what profit has of an account is taken out of it, to stand in its own section. */
  readonly sign: 1 | -1;
};

/** The lines of the statement. Together with the profit they come to what the banks moved by, whatever the classes. */
export function flowLines(
  accounts: readonly Account[],
  said: Readonly<Record<AccountId, FlowClass>>,
): readonly FlowLine[] {
  const out: FlowLine[] = [];
  for (const account of accounts) {
    const of = flowClassOf(account, said);
    const line = (section: FlowSection, sign: 1 | -1, key = account.id) =>
      out.push({ key, account, section, sign });
    if (isProfitAndLoss(account.kind)) {
      if (of !== 'investing' && of !== 'financing') continue;
      line('adjustments', 1, `${account.id} back`);
      line(of, -1);
    } else if (of === 'operating') line('workingCapital', -1);
    else if (of === 'adjustment') line('adjustments', -1);
    else if (of !== 'cash') line(of, -1);
  }
  return out;
}

/** The accounts whose sum is the bank in the statement. */
export const cashAccounts = (
  accounts: readonly Account[],
  said: Readonly<Record<AccountId, FlowClass>>,
): readonly Account[] => accounts.filter((a) => !isProfitAndLoss(a.kind) && flowClassOf(a, said) === 'cash');
