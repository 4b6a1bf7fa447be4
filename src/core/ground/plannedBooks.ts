import { indexOfId, toDayNumber, type PeriodIndex } from '@/core/calendar';
import { FLOW_OF, type Flow } from '@/core/cash';
import type { Balances } from '@/core/ledger';
import {
  isProfitAndLoss,
  natural,
  type AccountId,
  type ApprovedCash,
  type Budget,
  type CashSource,
} from '@/core/model';
import { coversPeriod } from '@/core/plan';
import { minor, plus, sumBlank, ZERO, type Minor } from '@/core/money';
import type { CashView } from './cash';
import type { Ground } from './ground';
import { reckoned } from './reckoned';
import { aheadOf } from './statements';

/** What a budget by itself says of the three statements: its months of profit and loss, and the balances that follow. */
export type PlannedBooks = {
  readonly balances: Balances;
  /** Money by whom it comes from and goes to; null where nothing is planned of it. */
  readonly flows: (flow: Flow, period: PeriodIndex) => Minor | null;
  /** Whether it says what accounts stand at at a period's end. */
  readonly stands: (period: PeriodIndex) => boolean;
};

/**
 * A budget's own statements: of an approved one as they were when it was approved, of a draft as they are reckoned now. A draft
 * says nothing of balances in months that are closed: what they came to is the ledger's, and no plan.
 */
export function plannedBooks(ground: Ground, budget: Budget): PlannedBooks {
  const { calendar, book } = ground;
  const whole = reckoned(ground, budget);
  const first = indexOfId(calendar, budget.first)!;
  const covers = (p: PeriodIndex) => coversPeriod(calendar, budget, p);
  const kinds = new Map(book.accounts.map((a) => [a.id, a.kind]));
  const standing = budget.approved?.cash
    ? ofApproved(ground, budget.approved.cash, first)
    : budget.approved
      ? null
      : ofDraft(ground, budget);
  const stands = (p: PeriodIndex) => covers(p) && standing !== null && standing.stands(p);
  return {
    stands,
    flows: (flow, p) => (stands(p) ? standing!.flows(flow, p) : null),
    balances: {
      movement(account, p) {
        if (!covers(p)) return null;
        const kind = kinds.get(account);
        if (kind === undefined || !isProfitAndLoss(kind))
          return stands(p) ? standing!.movement(account, p) : null;
        const amount = whole.amounts(account)?.[p - first] ?? null;
        return amount === null ? null : natural(kind, amount);
      },
      balance: (account, p) => (stands(p) ? standing!.balance(account, p) : ZERO),
      closing: () => ZERO,
      opening: () => ZERO,
      range: { first, last: first + budget.length - 1 },
      has: covers,
      active: (account) => standing?.active(account) ?? false,
      entries: 0,
    },
  };
}

type Standing = Pick<PlannedBooks, 'flows' | 'stands'> & {
  readonly movement: (account: AccountId, period: PeriodIndex) => Minor | null;
  readonly balance: (account: AccountId, period: PeriodIndex) => Minor;
  readonly active: (account: AccountId) => boolean;
};

function ofApproved({ book, balances }: Ground, cash: ApprovedCash, first: PeriodIndex): Standing {
  const kinds = new Map(book.accounts.map((a) => [a.id, a.kind]));
  const balance = (account: AccountId, p: PeriodIndex): Minor => {
    const kind = kinds.get(account);
    if (kind === undefined) return ZERO;
    // Before its first month it stood where the ledger stood.
    if (p < first) return balances.balance(account, p, true);
    return natural(kind, cash.closing[account]?.[p - first] ?? ZERO);
  };
  return {
    balance,
    stands: () => true,
    active: (account) => Object.hasOwn(cash.closing, account),
    movement: (account, p) => minor(plus(balance(account, p), -balance(account, p - 1))),
    flows: (flow, p) =>
      sumBlank(
        Object.entries(cash.sources).flatMap(([source, months]) =>
          FLOW_OF[source as CashSource] === flow ? [months[p - first] ?? null] : [],
        ),
      ) ?? ZERO,
  };
}

function ofDraft(ground: Ground, budget: Budget): Standing | null {
  const ahead = aheadOf(ground, budget);
  if (!ahead) return null;
  const { balances, start, last, view } = ahead;
  return {
    stands: (p) => p > start && p <= last,
    balance: (account, p) => balances.balance(account, p, true),
    movement: balances.movement,
    active: balances.active,
    flows: flowsOfForecast(ground, view),
  };
}

/** Money of a forecast by whom it comes from and goes to, in the periods that it reaches. */
export function flowsOfForecast(
  { calendar }: Ground,
  { forecast }: CashView,
): (flow: Flow, period: PeriodIndex) => Minor {
  const sources = [...forecast.bySource];
  const sums = new Map<string, Minor>();
  return (flow, period) => {
    const key = `${flow} ${period}`;
    let sum = sums.get(key);
    if (sum === undefined) {
      const { start, end } = calendar.period(period);
      const [from, to] = [start, end].map((d) => toDayNumber(d) - forecast.start - 1) as [number, number];
      const parts = sources.flatMap(([source, days]) =>
        FLOW_OF[source] === flow
          ? [minor(days.subarray(Math.max(0, from), to + 1).reduce((t, v) => plus(t, v), 0))]
          : [],
      );
      sums.set(key, (sum = sumBlank(parts) ?? ZERO));
    }
    return sum;
  };
}
