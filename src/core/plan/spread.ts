import { minor, percent, splitEven, splitLike, sum, ZERO, type Minor } from '@/core/money';
import { assertNever } from '@/core/assertNever';
import type { CellValue, Command, Line, Method, Wholes } from '@/core/model';
import type { Facts } from './facts';
import type { LineResult } from './results';
import type { Amounts } from './rule';

/** A total over months in proportion to what stands there; evenly where there is nothing to be in proportion to. */
export function spreadTotal(total: Minor, current: Amounts): Minor[] {
  return (
    splitLike(
      total,
      current.map((a) => a ?? ZERO),
    ) ?? splitEven(total, current.length)
  );
}

/**
 * The command for a total typed over a run of months (`from` ≤ i < `to`). A total of everything, typed on a line that
 * is made from an annual amount, becomes that amount, so the line keeps saying how it is made; otherwise the months
 * take the amounts in proportion: those that are not typed over the method yet, or all. A blank (`null`) clears the months.
 * Of a balance account the last month is set.
 */
export function totalCommand(
  budget: string,
  line: Line,
  result: LineResult,
  facts: Facts,
  from: number,
  to: number,
  total: Minor | null,
  among: 'free' | 'all' = 'free',
): Command {
  const { account, segment } = line;
  const whole = from === 0 && to === facts.periods.length;
  const method =
    whole && total !== null && !result.typed.includes(true) ? annualMethod(line, total, facts) : null;
  if (method) return { type: 'setMethods', budget, lines: [{ account, segment, method }] };
  const months = facts.isBalance(account) ? facts.periods.slice(to - 1, to) : facts.periods.slice(from, to);
  const parts =
    total === null
      ? months.map(() => null)
      : months.length === 1
        ? [total]
        : sharedOut(total, line, result, facts, from, to, among);
  const cells: CellValue[] = months.flatMap((p, i) => {
    const value = parts[i];
    return value === undefined ? [] : [{ account, segment, period: p.id, value }];
  });
  return { type: 'setCells', budget, how: total === null ? 'cleared' : 'spread', cells };
}

const isPartlyTyped = ({ typed }: LineResult, from: number, to: number): boolean =>
  typed.slice(from, to).includes(true) && typed.slice(from, to).includes(false);

/**
 * What typed months come to beside which a total makes no sense: they stay, and what is left for the others is of the other
 * sign than the total. Null where there is no such trouble.
 */
export function typedBeyond(
  total: Minor,
  result: LineResult,
  facts: Facts,
  account: string,
  from: number,
  to: number,
): Minor | null {
  if (facts.isBalance(account) || !isPartlyTyped(result, from, to)) return null;
  const months = result.amounts.slice(from, to);
  const alone = sum(months.flatMap((a, k) => (result.typed[from + k] ? [a ?? ZERO] : [])));
  const rest = total - alone;
  return rest !== 0 && Math.sign(rest) !== Math.sign(total) ? alone : null;
}

/**
 * A total over months: what was typed over the method stays, and the other months take the rest (`undefined` leaves a month
 * as it is). Where none or all are typed, all take their part. What is all zero or blank has no shape of its own: it is
 * shaped like what the method gives, else like the year before.
 */
function sharedOut(
  total: Minor,
  { account, segment }: Line,
  result: LineResult,
  facts: Facts,
  from: number,
  to: number,
  among: 'free' | 'all',
): (Minor | undefined)[] {
  const places = Array.from({ length: to - from }, (_, k) => from + k);
  const free = places.filter((i) => !result.typed[i]);
  const taking = among === 'free' && isPartlyTyped(result, from, to) ? free : places;
  const typed = places.filter((i) => !taking.includes(i)).map((i) => result.amounts[i] ?? ZERO);
  const rest = minor(total - sum(typed));
  const { lastYear } = facts.past(account, segment);
  const shapes = [result.amounts, result.method, lastYear].map((of) => taking.map((i) => of[i] ?? ZERO));
  const shape = shapes.find((s) => s.some((v) => v !== 0)) ?? shapes[0]!;
  const parts = spreadTotal(rest, shape);
  return places.map((i) => (taking.includes(i) ? parts[taking.indexOf(i)]! : undefined));
}

/** A total as the amounts of the budget's years or quarters: in proportion to what they were, else to their months. */
function wholesFor(total: Minor, before: Wholes | null, facts: Facts): Wholes {
  const per = before?.per ?? 'year';
  const spans = per === 'year' ? facts.years : facts.quarters;
  const known = spans.map((_, i) => before?.amounts[i] ?? 0);
  return {
    per,
    amounts:
      splitLike(total, known) ??
      splitLike(
        total,
        spans.map((s) => s.to - s.from),
      )!,
  };
}

/** A total said of a budget with nothing to be shaped like: even over its months, each year with its part of it. */
export const evenTotal = (total: Minor, facts: Facts): Method => ({
  kind: 'phased',
  amounts: wholesFor(total, null, facts),
  by: { by: 'even' },
  uplift: percent('0'),
  round: 0,
});

function annualMethod({ method, account, segment }: Line, total: Minor, facts: Facts): Method | null {
  const uplift = percent('0');
  switch (method.kind) {
    case 'phased':
    case 'pattern':
      return { ...method, amounts: wholesFor(total, method.amounts, facts), uplift };
    case 'unphased':
      return { ...method, amounts: wholesFor(total, method.amounts, facts) };
    case 'lastYear': {
      // What has lumps taken out, or comes from elsewhere, cannot be said as a pattern of last year. An outlook can:
      // its months are shaped like the latest ones of the ledger.
      const plain =
        method.from.of !== 'budget' && method.from.years === 1 && Object.keys(method.skip).length === 0;
      const { lastYear } = facts.past(account, segment);
      const shaped = sum(lastYear.map((a) => a ?? ZERO)) !== 0 && facts.years.length === 1;
      return plain && shaped && !facts.isBalance(account)
        ? {
            kind: 'pattern',
            amounts: wholesFor(total, null, facts),
            like: null,
            years: [1],
            uplift,
            round: method.round,
          }
        : null;
    }
    case 'byMonth':
    case 'runRate':
    case 'step':
    case 'share':
    case 'occurrence':
    case 'driver':
    case 'formula':
    case 'schedule':
      return null;
    default:
      return assertNever(method);
  }
}
