import type { Percent } from '@/core/money';
import type { PeriodId } from '@/core/calendar';
import {
  isProfitAndLoss,
  type Account,
  type AccountId,
  type AccountKind,
  type Budget,
  type Line,
  type Method,
  type RoundUnit,
} from '@/core/model';
import type { Facts } from './facts';

export type StartFrom = 'sameMonth' | 'yearOverTwelve' | 'average' | 'lastMonth' | 'empty';

export type StartChoice = {
  readonly from: StartFrom;
  readonly uplift: Percent;
  /** Kinds with a percentage of their own. */
  readonly upliftByKind: Partial<Record<AccountKind, Percent>>;
  readonly round: RoundUnit;
};

function methodFor(from: StartFrom, uplift: Percent, round: RoundUnit): Method {
  switch (from) {
    case 'sameMonth':
      return { kind: 'lastYear', uplift, round };
    case 'yearOverTwelve':
      return { kind: 'even', basis: { of: 'lastYear' }, uplift, round };
    case 'average':
      return { kind: 'even', basis: { of: 'average' }, uplift, round };
    case 'lastMonth':
      return { kind: 'even', basis: { of: 'lastMonth' }, uplift, round };
    case 'empty':
      return { kind: 'byMonth', amounts: {} };
  }
}

/**
 * A first budget from the ledger: a line for each profit-and-loss account, made by the chosen method. An account
 * that said nothing in the months looked at is left to be typed.
 */
export function startLines(
  choice: StartChoice,
  accounts: readonly Account[],
  facts: Facts,
): Record<AccountId, Line> {
  const lines: Record<AccountId, Line> = {};
  for (const { id, kind } of accounts) {
    if (!isProfitAndLoss(kind)) continue;
    const past = facts.past(id);
    const silent =
      choice.from === 'sameMonth' || choice.from === 'yearOverTwelve'
        ? past.lastYear.every((a) => a === null)
        : past.known.every((a) => a === 0);
    const method = methodFor(
      silent ? 'empty' : choice.from,
      choice.upliftByKind[kind] ?? choice.uplift,
      choice.round,
    );
    lines[id] = { account: id, method, overrides: {}, note: '' };
  }
  return lines;
}

/** A draft budget of these lines. */
export const draftBudget = (
  id: string,
  name: string,
  first: PeriodId,
  length: number,
  lines: Record<AccountId, Line>,
): Budget => ({
  id,
  name,
  state: 'draft',
  first,
  length,
  lines,
  approved: null,
});
