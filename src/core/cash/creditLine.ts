import { civilOf, type DayNumber } from '@/core/calendar';
import { divideRounded } from '@/core/money';
import type { CreditLine } from '@/core/model';
import { weightOf } from '@/core/schedule';

/** What a credit line does on a day: money into the bank positive. */
export type LineMove = {
  readonly day: DayNumber;
  readonly what: 'drawing' | 'repayment' | 'interest';
  readonly amount: number;
  /** What is drawn after it. */
  readonly stands: number;
};

/** The interest of a month by what is drawn when it begins. */
export const monthInterest = (opened: number, rate: CreditLine['rate']): number =>
  divideRounded(opened, weightOf(rate), 100_000_000 * 12, 'halfAwayFromZero');

/**
 * A revolving loan, reckoned day after day over closing balances that know nothing of it (index 0 is the day after
 * `after`). It draws at the end of a day that would close below the floor, and repays on the last day of a month from what
 * is above it, both in whole steps; the interest of a month (opening balance × rate ÷ 12) is paid on its last day, before
 * it draws or repays. `stood` is what is drawn at the start; of so many `known` days at first the bank tells what happened.
 */
export function creditLineMoves(
  { limit, rate, step }: Pick<CreditLine, 'limit' | 'rate' | 'step'>,
  floor: number,
  after: DayNumber,
  closing: Float64Array,
  stood: number,
  known = 0,
): LineMove[] {
  const moves: LineMove[] = [];
  let drawn = stood;
  let opened = stood;
  /** What the line has put into the bank so far. */
  let put = 0;
  const move = (day: DayNumber, what: LineMove['what'], amount: number) => {
    if (amount === 0) return;
    put += amount;
    if (what !== 'interest') drawn += amount;
    moves.push({ day, what, amount, stands: drawn });
  };
  for (let i = known; i < closing.length; i++) {
    const day = after + 1 + i;
    const isLast = civilOf(day + 1).date === 1;
    if (isLast) move(day, 'interest', -monthInterest(opened, rate));
    const missing = floor - (closing[i]! + put);
    if (missing > 0) {
      const room = Math.max(0, limit - drawn);
      move(day, 'drawing', Math.min(Math.ceil(missing / step) * step, Math.floor(room / step) * step));
    } else if (isLast && drawn > 0) {
      const spare = Math.floor(-missing / step) * step;
      move(day, 'repayment', -Math.min(spare, drawn));
    }
    if (isLast) opened = drawn;
  }
  return moves;
}
