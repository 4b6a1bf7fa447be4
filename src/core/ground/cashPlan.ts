import { indexOfId, periodsOf, type Period, type PeriodIndex } from '@/core/calendar';
import type { PlannedLine } from '@/core/cash';
import { minor } from '@/core/money';
import {
  isProfitAndLoss,
  termsKey,
  type Account,
  type Budget,
  type DayRule,
  type Line,
  type SegmentId,
  type Terms,
} from '@/core/model';
import { coversPeriod, type Amounts } from '@/core/plan';
import { comparisonFor } from './comparison';
import type { Ground } from './ground';
import { reckoned } from './reckoned';

/* The plan that money ahead follows: which budget plans each month, and its lines with their terms. */

/** A budget with the months ahead that it plans. */
export type MonthsOfPlan = { readonly budget: Budget; readonly periods: readonly Period[] };

const AHEAD = 12;

/** Which budget plans each month ahead. */
export function plansAhead(ground: Ground, budget: Budget | null, closed: PeriodIndex) {
  const { calendar } = ground;
  const first = budget && indexOfId(calendar, budget.first);
  const end = Math.max(closed + AHEAD, first === null ? 0 : first + budget!.length - 1);
  const periods = periodsOf(calendar, { first: closed + 1, last: end });
  const of = new Map<string, { budget: Budget; periods: Period[] }>();
  const balances = new Map<string, { budget: Budget; periods: Period[] }>();
  const unplanned: Period[] = [];
  for (const p of periods) {
    const by =
      budget && coversPeriod(calendar, budget, p.index)
        ? [budget]
        : (comparisonFor(ground, p.index, null)?.parts.map((x) => x.budget) ?? []);
    const inForce = () => comparisonFor(ground, p.index, null)?.parts.map((x) => x.budget) ?? [];
    const plan = by.filter((b) => b.covers !== 'balanceSheet');
    // A budget of profit and loss alone leaves what was approved of balances in force.
    const own = by.filter((b) => b.covers !== 'profitAndLoss');
    for (const b of own.length > 0 ? own : inForce().filter((x) => x.covers !== 'profitAndLoss')) {
      const there = balances.get(b.id);
      if (there) there.periods.push(p);
      else balances.set(b.id, { budget: b, periods: [p] });
    }
    if (plan.length === 0) unplanned.push(p);
    for (const b of plan) {
      const there = of.get(b.id);
      if (there) there.periods.push(p);
      else of.set(b.id, { budget: b, periods: [p] });
    }
  }
  return {
    periods,
    unplanned,
    plans: [...of.values()] as readonly MonthsOfPlan[],
    balancePlans: [...balances.values()] as readonly MonthsOfPlan[],
  };
}

/** Terms that were said of a line: of itself, its account, its group, its kind. */
export function saidTerms(
  all: ReadonlyMap<string, Terms>,
  account: Account,
  segment: SegmentId,
): Terms | null {
  if (all.size === 0) return null;
  const own = { of: 'account', account: account.id } as const;
  return (
    all.get(termsKey({ of: own, segment })) ??
    all.get(termsKey({ of: own })) ??
    (account.group === ''
      ? undefined
      : all.get(termsKey({ of: { of: 'group', kind: account.kind, group: account.group } }))) ??
    all.get(termsKey({ of: { of: 'kind', kind: account.kind } })) ??
    null
  );
}

const ownDays = new WeakMap<Line['method'], DayRule>();
function ownRule(method: Line['method'] | undefined): DayRule | null {
  if (method?.kind !== 'occurrence') return null;
  let rule = ownDays.get(method);
  if (!rule) ownDays.set(method, (rule = { of: 'days', on: method.on }));
  return rule;
}

export function* plannedLines(
  ground: Ground,
  { budget, periods: months }: MonthsOfPlan,
  periods: readonly Period[],
  termsOf: (account: Account, segment: SegmentId) => { readonly terms: Terms },
  undated: Set<Account>,
): Generator<PlannedLine> {
  const whole = reckoned(ground, budget);
  const first = whole.facts.periods[0]!.index;
  const planned = new Set(months.map((p) => p.index));
  const span = `${first} ${periods[0]?.index}-${periods.at(-1)?.index} ${[...planned].join()}`;
  const accounts = accountsById(ground.book.accounts);
  const lines = budget.approved?.lines ?? budget.lines;
  // Only lines that count days have days of their own.
  const methods = new Map(
    budget.lines.flatMap((l) =>
      l.method.kind === 'occurrence' ? [[`${l.account}:${l.segment ?? ''}`, l.method] as const] : [],
    ),
  );
  for (const { account: id, segment } of lines) {
    const account = accounts.get(id);
    if (!account || !isProfitAndLoss(account.kind)) continue;
    const figures = whole.figures(id, segment);
    if (!figures) continue;
    const { amounts } = figures;
    // What schedules post stands for itself: terms are for what the line has beyond it.
    const made = whole.reckoning.scheduled({ account: id, segment });
    if (figures.wholes.some((w) => w)) undated.add(account);
    const key = `${budget.id} ${id}:${segment ?? ''}`;
    const { terms } = termsOf(account, segment);
    const own = ownRule(methods.get(`${id}:${segment ?? ''}`));
    // The same figures under the same terms are the same line, which nothing downstream looks at again.
    const was = made === null ? known.get(amounts) : undefined;
    const { line } = was ?? {};
    if (
      line?.key === key &&
      was!.span === span &&
      line.account === account &&
      line.terms === terms &&
      line.own === own
    ) {
      yield line;
      continue;
    }
    const next: PlannedLine = {
      key,
      account,
      segment,
      terms,
      amounts: periods.map((p) => {
        if (!planned.has(p.index)) return null;
        const amount = amounts[p.index - first] ?? null;
        const by = made?.[p.index - first] ?? null;
        return by === null ? amount : minor((amount ?? 0) - by);
      }),
      own,
    };
    if (made === null) known.set(amounts, { span, line: next });
    yield next;
  }
}

const byId = new WeakMap<readonly Account[], ReadonlyMap<string, Account>>();
function accountsById(accounts: readonly Account[]): ReadonlyMap<string, Account> {
  let map = byId.get(accounts);
  if (!map) byId.set(accounts, (map = new Map(accounts.map((a) => [a.id, a]))));
  return map;
}

/** Lines by their figures, whose identity tells when they change, for one span of periods. */
const known = new WeakMap<Amounts, { readonly span: string; readonly line: PlannedLine }>();
