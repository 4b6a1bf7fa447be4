import { divideRounded, percentOf, roundTo, sumBlank, type Minor } from '@/core/money';
import type { MethodOf } from '@/core/model';
import { roundingStep, unitOfRound, type Context, type Reason, type Rule } from '../rule';

type Share = MethodOf<'share'>;
/** An account's total of last year, and that of what it is a share of, which is not zero. */
export type ShareHistory = { readonly own: Minor; readonly theirs: Minor };

/** The share that the account had of it in the year before the budget: both years' totals. Null where there is none. */
export function shareHistory({ of }: Share, { line, facts }: Context): ShareHistory | null {
  const total = (id: string) => sumBlank(facts.past(id, line.segment).lastYear);
  const own = total(line.account);
  const theirs = sumBlank(facts.members(of).map(total));
  return own === null || !theirs ? null : { own, theirs };
}

function shareOf(method: Share, context: Context, base: Minor): Minor | null {
  if (method.percent !== null) return percentOf(base, method.percent);
  const history = shareHistory(method, context);
  return history && divideRounded(base, history.own, history.theirs, 'halfAwayFromZero');
}

/** A percentage of an account, a group or all of a kind, in the same month or so many months later. */
export const share: Rule<'share'> = {
  by: 'month',
  balances: true,
  needs: ({ of, lag }) => [{ name: of, lag }],
  month(method, context, i) {
    if (!context.has(method.of)) return { amount: null, issue: 'lineMissing' };
    if (method.percent === null && !shareHistory(method, context)) return { amount: null, issue: 'noShare' };
    const base = context.amount(method.of, i - method.lag);
    const value = base === null ? null : shareOf(method, context, base);
    return {
      amount: value === null ? null : roundTo(value, unitOfRound(method, context.facts)),
      issue: null,
    };
  },
  explain(method, context, i, made) {
    const base = context.amount(method.of, i - method.lag);
    const value = base === null ? null : shareOf(method, context, base);
    const steps: Reason[] = [
      {
        step: 'share',
        of: method.of,
        period: context.facts.periods[i]!.index - method.lag,
        base,
        percent: method.percent ?? shownShare(shareHistory(method, context)),
        history: method.percent === null,
        value,
      },
    ];
    return [...steps, ...roundingStep(made, value)];
  },
};

/** A share of history as a percentage with two digits. */
function shownShare(history: ShareHistory | null): string {
  if (!history) return '';
  return (divideRounded(history.own, 10_000, history.theirs, 'halfAwayFromZero') / 100).toFixed(2);
}

/** The share that a line would take from history, for showing it; null where there is none. */
export const historyShare = (method: Share, context: Context): string | null => {
  const history = shareHistory(method, context);
  return history && shownShare(history);
};
