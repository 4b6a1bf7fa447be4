import { divideRounded, minor, percent, sumBlank, type Minor, type Percent } from '@/core/money';
import { toDayNumber, fromDayNumber, weekdayOf } from '@/core/calendar';
import {
  isProfitAndLoss,
  type AccountId,
  type Book,
  type Line,
  type Method,
  type MethodKind,
  type Ref,
  type RoundUnit,
  type Wholes,
} from '@/core/model';
import { assertNever } from '@/core/assertNever';
import { asLastYear, besideSchedule, type Facts, type LineResult } from '@/core/plan';
import { occurrencesIn } from '@/core/schedule';
import type { Reckoned } from '@/core/ground';

const upliftOf = (m: Method): Percent => ('uplift' in m ? m.uplift : percent('0'));
const roundOf = (m: Method): RoundUnit => ('round' in m ? m.round : 0);
const none = percent('0');

/** What a line says of each of the budget's years. */
export const wholesOf = (result: LineResult | undefined, facts: Facts): Wholes => ({
  per: 'year',
  amounts: facts.years.map(({ from, to }, y) =>
    sumBlank([...(result?.amounts.slice(from, to) ?? []), result?.wholes[y] ?? null]),
  ),
});

/** What a share is first offered of: sales, else any other line. */
export function likelyRef(book: Book, self: AccountId): Ref | null {
  const other = book.accounts.find((a) => a.kind === 'income' && a.id !== self);
  const any = book.accounts.find((a) => isProfitAndLoss(a.kind) && a.id !== self);
  const account = (other ?? any)?.id;
  return account === undefined ? null : { of: 'account', account };
}

/** The account's share of it last year in percent, to a tenth. */
function shareLastYear(
  { facts, amounts }: Reckoned,
  line: Line,
  result: LineResult | undefined,
  of: Ref,
): Percent {
  const past = (id: string) => sumBlank(facts.past(id, line.segment).lastYear);
  const mine = past(line.account) ?? result?.total ?? 0;
  const members = facts.members(of);
  const theirs =
    sumBlank(members.map(past)) ??
    sumBlank(members.flatMap((id) => [...(amounts(id, line.segment) ?? [])])) ??
    0;
  const tenths = theirs === 0 ? 0 : divideRounded(mine, 1000, theirs, 'halfAwayFromZero');
  return percent((tenths / 10).toFixed(1));
}

/**
 * The line's method changed to another kind, keeping as much as it can of what the line says: its amounts by month, its
 * year, its uplift and its rounding. Null when the book has nothing for such a method yet.
 */
export function methodAs(
  kind: MethodKind,
  line: Line,
  result: LineResult | undefined,
  reckoned: Reckoned,
  book: Book,
): Method | null {
  const { facts, budget } = reckoned;
  const { method } = line;
  if (method.kind === kind) return method;
  const total = result?.total ?? null;
  const [uplift, round] = [upliftOf(method), roundOf(method)];
  const first = facts.periods[0]!;
  switch (kind) {
    case 'byMonth': {
      const byMonth: Record<string, Minor | null> = {};
      facts.periods.forEach((p, i) => {
        const amount = result?.amounts[i] ?? null;
        if (amount !== null) byMonth[p.id] = amount;
      });
      return { kind, amounts: byMonth as Extract<Method, { kind: 'byMonth' }>['amounts'] };
    }
    case 'lastYear':
      return asLastYear(uplift, round);
    case 'runRate':
      return { kind, over: { of: 'all' }, add: minor(0), uplift, round };
    case 'phased':
      return total === null
        ? { kind, amounts: null, by: { by: 'even' }, uplift, round }
        : { kind, amounts: wholesOf(result, facts), by: { by: 'even' }, uplift: none, round };
    case 'pattern': {
      const own = method.kind === 'lastYear' || total === null;
      return {
        kind,
        amounts: own ? null : wholesOf(result, facts),
        like: null,
        years: [1],
        uplift: own ? uplift : none,
        round,
      };
    }
    case 'step':
      return {
        kind,
        start: result?.amounts.find((a) => a !== null) ?? null,
        first: (facts.periods[1] ?? first).id,
        every: 1,
        change: { of: 'amount', amount: minor(0) },
        round,
      };
    case 'share': {
      const of = likelyRef(book, line.account);
      return of && { kind, of, percent: shareLastYear(reckoned, line, result, of), lag: 0, round };
    }
    case 'occurrence': {
      // Every other Friday, the commonest payday where nothing is said.
      const start = toDayNumber(first.start);
      const friday = fromDayNumber(start + ((5 - weekdayOf(start) + 7) % 7));
      const on = { of: 'weeks' as const, every: 2, from: friday };
      const times = facts.periods.reduce((n, p) => n + occurrencesIn(p, on, facts.workWeek).length, 0);
      return {
        kind,
        amount: total === null || times === 0 ? minor(0) : divideRounded(total, 1, times, 'halfAwayFromZero'),
        on,
      };
    }
    case 'driver':
      return budget.drivers[0] ? { kind, factors: [budget.drivers[0].id], round } : null;
    case 'formula': {
      if (method.kind === 'share' && method.of.of === 'account' && method.percent !== null)
        return {
          kind,
          formula: `${method.lag > 0 ? `prior ${method.lag} ` : ''}"account:${method.of.account}" * ${method.percent}%`,
          round,
        };
      const of = likelyRef(book, line.account);
      if (!of || of.of !== 'account') return null;
      const share = shareLastYear(reckoned, line, result, of);
      return { kind, formula: `"account:${of.account}" * ${share.startsWith('-') ? '0' : share}%`, round };
    }
    case 'unphased':
      return { kind, amounts: wholesOf(result, facts) };
    case 'schedule':
      // Only where some row posts to the line is there anything to take.
      return reckoned.reckoning.scheduled(line) === null ? null : besideSchedule(result, facts);
  }
}

/**
 * A method that was set up for one line, for another: rules, percentages and references are taken as they are, amounts
 * and months are the other line's own.
 */
export function methodForOther(
  method: Method,
  line: Line,
  result: LineResult | undefined,
  facts: Facts,
): Method {
  switch (method.kind) {
    case 'byMonth': {
      const amounts: Record<string, Minor | null> = {};
      facts.periods.forEach((p, i) => {
        const amount = result?.amounts[i] ?? null;
        if (amount !== null) amounts[p.id] = amount;
      });
      return { ...method, amounts: amounts as typeof method.amounts };
    }
    case 'lastYear':
      return { ...method, skip: {} };
    case 'phased':
    case 'pattern':
      return method.amounts === null
        ? method
        : { ...method, amounts: wholesOf(result, facts), uplift: method.uplift };
    case 'unphased':
      return { ...method, amounts: wholesOf(result, facts) };
    case 'step':
      return method.start === null
        ? method
        : { ...method, start: result?.amounts.find((a) => a !== null) ?? null };
    case 'runRate':
    case 'share':
    case 'occurrence':
    case 'driver':
    case 'formula':
      return method;
    case 'schedule':
      return besideSchedule(result, facts);
    default:
      return assertNever(method);
  }
}
