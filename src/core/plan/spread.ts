import { splitEven, splitLike, sum, ZERO, type Minor } from '@/core/money';
import type { CellValue, Command, Line, Method } from '@/core/model';
import type { Facts } from './facts';
import type { Amounts } from './methods';
import type { LineResult } from './reckon';

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
 * The command for a total typed over a run of months (`from` ≤ i < `to`). A year's total typed on a line that is
 * made from an annual amount becomes that amount, so the line keeps saying how it is made; otherwise the months
 * take the amounts in proportion. A blank (`null`) clears the months.
 */
export function totalCommand(
  budget: string,
  line: Line,
  result: LineResult,
  facts: Facts,
  from: number,
  to: number,
  total: Minor | null,
): Command {
  const whole = from === 0 && to === facts.periods.length;
  const method =
    whole && total !== null && !result.typed.includes(true)
      ? annualMethod(line.method, total, facts, line.account)
      : null;
  if (method) return { type: 'setMethod', budget, account: line.account, method };
  const months = facts.periods.slice(from, to);
  const parts = total === null ? months.map(() => null) : spreadTotal(total, result.amounts.slice(from, to));
  const cells: CellValue[] = months.map((p, i) => ({
    account: line.account,
    period: p.id,
    value: parts[i]!,
  }));
  return { type: 'setCells', budget, how: total === null ? 'cleared' : 'spread', cells };
}

function annualMethod(method: Method, total: Minor, facts: Facts, account: string): Method | null {
  const zero = '0' as Extract<Method, { kind: 'even' }>['uplift'];
  switch (method.kind) {
    case 'even':
      return { ...method, basis: { of: 'amount', annual: total }, uplift: zero };
    case 'pattern':
      return { ...method, annual: total, uplift: zero };
    case 'lastYear': {
      const shaped = sum(facts.past(account).lastYear.map((a) => a ?? ZERO)) !== 0;
      return shaped ? { kind: 'pattern', annual: total, uplift: zero, round: method.round } : null;
    }
    case 'byMonth':
    case 'share':
      return null;
  }
}
