import type { FiscalCalendar, PeriodIndex } from '@/core/calendar';
import type {
  Account,
  Adjustment,
  AmountWay,
  DueRule,
  Reach,
  SegmentId,
  Terms,
  TermsOf,
  TermsRule,
} from '@/core/model';
import { COST_KINDS, isProfitAndLoss } from '@/core/model';
import { percent, type Percent } from '@/core/money';
import { type Assumed, type Assumption, type AssumptionOf } from './assumed';
import { sizeOfPercent, percentOfSize } from './sizes';
import { timesIn } from './when';

/* What assumptions make of the terms by which lines become money. They hold by the month of the invoice. */

/** Whether a reach has an account's line in a segment. */
export function reaches(
  { lines, segment }: Reach,
  account: Pick<Account, 'id' | 'kind' | 'group'>,
  of: SegmentId | 'any',
): boolean {
  if (segment !== undefined && of !== 'any' && segment !== of) return false;
  return lines.some((l) => {
    switch (l.of) {
      case 'account':
        return l.account === account.id;
      case 'group':
        return l.kind === account.kind && l.group === account.group;
      case 'kind':
        return l.kind === account.kind;
      case 'costs':
        return COST_KINDS.has(account.kind);
      case 'income':
        return isProfitAndLoss(account.kind) && !COST_KINDS.has(account.kind);
    }
  });
}

/** Whether a way says an amount of one line: of several lines nobody could tell whose it is. */
export const isOfOneLine = ({ as }: AmountWay): boolean =>
  as === 'amount' || as === 'new' || as === 'onBefore';

/** Whether an adjustment changes by which terms lines become money, and none of their amounts. */
export const changesTerms = ({ what: { on } }: Adjustment): boolean =>
  on === 'termsDays' || on === 'termsLost' || on === 'termsNew';

type TermsChange = AssumptionOf<'termsDays' | 'termsLost' | 'termsNew'>;
const isTermsChange = (a: Assumption): a is TermsChange => changesTerms(a.adjustment);

/** Which terms a line has in a period, given those that it has without assumptions; the same object where they change nothing. */
export type TermsIn = (
  terms: Terms,
  account: Account,
  segment: SegmentId | 'any',
  period: PeriodIndex,
) => Terms;

/** What a case says of terms; null where it says nothing. */
export function termsIn(assumed: Assumed, calendar: FiscalCalendar): TermsIn | null {
  const all = assumed
    .filter(isTermsChange)
    .map((a) => ({ ...a, times: timesIn(calendar, a.adjustment.when) }));
  if (all.length === 0) return null;
  const made = new WeakMap<Terms, Map<string, Terms>>();
  return (terms, account, segment, period) => {
    const own = all.filter(
      ({ adjustment: { what }, times }) => reaches(what.reach, account, segment) && times(period) > 0,
    );
    if (own.length === 0) return terms;
    let known = made.get(terms);
    if (!known) made.set(terms, (known = new Map()));
    const key = own.map((a) => a.adjustment.id).join();
    let changed = known.get(key);
    if (!changed) known.set(key, (changed = own.reduce(changedTerms, terms)));
    return changed;
  };
}

function changedTerms(terms: Terms, { adjustment: { what }, size }: TermsChange): Terms {
  switch (what.on) {
    case 'termsNew':
      return { ...terms, parts: [{ percent: percent('100'), rule: what.rule }] };
    case 'termsDays':
      return size === 0 ? terms : withRules(terms, (rule) => laterBy(rule, size));
    case 'termsLost':
      return withRules(terms, (rule) => lostOf(rule, size));
  }
}

function withRules(terms: Terms, change: (rule: TermsRule) => TermsRule): Terms {
  const parts = terms.parts.map((p) => ({ ...p, rule: change(p.rule) }));
  return parts.every((p, i) => p.rule === terms.parts[i]!.rule) ? terms : { ...terms, parts };
}

/** Due so many days later, on the day of the invoice at the earliest. */
const dueLater = (due: DueRule, days: number): DueRule =>
  due.of === 'days'
    ? { ...due, days: Math.max(0, due.days + days) }
    : { ...due, later: (due.later ?? 0) + days };

/** What is paid at once is paid after so many days then. */
const onAccount = (rule: TermsOf<'atOnce'>, days: number): TermsOf<'onAccount'> => ({
  kind: 'onAccount',
  invoiced: rule.on,
  shares: [{ percent: percent('100'), due: { of: 'days', days } }],
  moved: rule.moved,
  badDebt: null,
  through: null,
});

/** A rule whose payments come so many days later; what is paid in advance, withheld or without money has no such days. */
function laterBy(rule: TermsRule, days: number): TermsRule {
  switch (rule.kind) {
    case 'atOnce':
      return days > 0 ? onAccount(rule, days) : rule;
    case 'onAccount':
    case 'fromStock':
      return { ...rule, shares: rule.shares.map((s) => ({ ...s, due: dueLater(s.due, days) })) };
    case 'daysOutstanding':
      return { ...rule, days: Math.max(0, rule.days + days) };
    case 'inAdvance':
    case 'withoutMoney':
    case 'payroll':
      return rule;
  }
}

/** All of it, as a size of percent. */
const ALL = 100_000;

/** A rule of which so many points more are never paid: off its last share, then the one before. */
function lostOf(rule: TermsRule, points: number): TermsRule {
  if (rule.kind !== 'onAccount' && rule.kind !== 'atOnce') return rule;
  if (points === 0 || (rule.kind === 'atOnce' && points < 0)) return rule;
  const own = rule.kind === 'atOnce' ? onAccount(rule, 0) : rule;
  // No more comes back than was never to be paid.
  const lost = ALL - own.shares.reduce((t, s) => t + sizeOfPercent(s.percent), 0);
  let left = Math.max(points, -lost);
  const shares = own.shares
    .toReversed()
    .map((s) => {
      const has = sizeOfPercent(s.percent);
      const off = Math.min(has, left);
      left -= off;
      return { ...s, percent: percentOfSize(has - off) as Percent };
    })
    .toReversed();
  return { ...own, shares };
}
