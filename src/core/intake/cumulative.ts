import type { DayNumber } from '@/core/calendar';

/** Figures of one day by account place, debits positive. */
type Trial = { readonly day: DayNumber; readonly values: ReadonlyMap<number, { readonly value: number }> };

/**
 * Whether trial balances are cumulative, by arithmetic; null where that cannot be told.
 *
 * Accounts of the balance sheet say it best: a balance stays where it is but for what moved, so it is mostly near the one of
 * the month before, while movements of single months go up and down. Accounts of profit and loss grow since the year's
 * start, but only while they move one way: where months run at a loss, or take back what others brought, they say nothing.
 */
export function cumulativeByArithmetic(
  trials: readonly Trial[],
  isFlow: readonly boolean[],
  yearOf: (day: DayNumber) => number,
): boolean | null {
  const stays = sheetStays(trials, isFlow);
  const grows = profitGrows(trials, isFlow, yearOf);
  if (stays === undefined) return grows;
  if (stays === grows) return stays;
  // Two or three months say something only where both agree: else someone has to.
  if (trials.length < LONG) return null;
  if (stays === null) return grows;
  return stays || grows === null ? stays : null;
}

/** How much of what stood in accounts of the balance sheet still stands a month later: nearly all of it, or not half. */
const STAYS = 0.8;
const MOVES = 0.4;
/** Fewer figures say nothing, and fewer months not much. */
const FEWEST = 4;
const LONG = 4;

/** Undefined where the balance sheet is as good as silent. */
function sheetStays(trials: readonly Trial[], isFlow: readonly boolean[]): boolean | null | undefined {
  let seen = 0;
  let stood = 0;
  let still = 0;
  for (let t = 1; t < trials.length; t++)
    isFlow.forEach((flow, place) => {
      if (flow) return;
      const was = trials[t - 1]!.values.get(place)?.value ?? 0;
      const now = trials[t]!.values.get(place)?.value ?? 0;
      if (was === 0) return;
      seen++;
      stood += Math.abs(was);
      if (Math.sign(was) === Math.sign(now)) still += Math.min(Math.abs(was), Math.abs(now));
    });
  if (seen < FEWEST) return undefined;
  const share = still / stood;
  return share >= STAYS ? true : share <= MOVES ? false : null;
}

/**
 * Since the year's start, accounts of profit and loss that move one way grow from one month to the next, and the last is
 * well above the first; figures of single months go up as often as down. Null when there are too few to tell.
 */
function profitGrows(
  trials: readonly Trial[],
  isFlow: readonly boolean[],
  yearOf: (day: DayNumber) => number,
): boolean | null {
  let up = 0;
  let down = 0;
  let heavyUp = 0;
  let heavyDown = 0;
  for (let t = 1; t < trials.length; t++) {
    const [a, b] = [trials[t - 1]!, trials[t]!];
    if (yearOf(a.day) !== yearOf(b.day)) continue;
    // Books that were closed say nothing of how the months were written.
    if (isFlow.every((flow, place) => !flow || !b.values.get(place)?.value)) continue;
    isFlow.forEach((flow, place) => {
      if (!flow) return;
      const was = a.values.get(place)?.value ?? 0;
      const now = b.values.get(place)?.value ?? 0;
      if (was === 0) return;
      const grows = Math.sign(now) === Math.sign(was) && Math.abs(now) >= Math.abs(was);
      if (grows) {
        up++;
        heavyUp += Math.abs(was);
      } else {
        down++;
        heavyDown += Math.abs(was);
      }
    });
  }
  const seen = up + down;
  if (seen < 4) return null;
  // Small accounts that go back to nothing say less than the large ones that grow.
  const heavy = heavyUp / (heavyUp + heavyDown);
  if (up / seen >= 0.85 || (heavy >= 0.95 && up / seen >= 0.4)) return true;
  return up / seen <= 0.7 && heavy <= 0.85 ? false : null;
}
