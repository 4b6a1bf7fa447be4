import type { Day } from '@/core/calendar';
import { lineKey, type Handout, type Return, type Round } from '@/core/model';

/** Not made yet; out; out beyond its day; came back with lines missing; came back; all of it is in the budget. */
export type HandoutState = 'new' | 'out' | 'late' | 'partly' | 'returned' | 'merged';

/** Whether a return has every line and month that was handed out. */
export const isWhole = ({ lines }: Handout, returned: Return): boolean => {
  const has = new Set(returned.lines.map(lineKey));
  return returned.without.length === 0 && lines.every((l) => has.has(lineKey(l)));
};

/** How a handout stands on a day. */
export function handoutState(handout: Handout, { due }: Pick<Round, 'due'>, today: Day): HandoutState {
  const { returns, sent } = handout;
  const waiting = returns.filter((r) => r.merged === null);
  if (waiting.length > 0) return waiting.some((r) => isWhole(handout, r)) ? 'returned' : 'partly';
  if (returns.some((r) => isWhole(handout, r))) return 'merged';
  // What came is in, but not all of it came.
  if (returns.length > 0) return 'partly';
  if (sent === null) return 'new';
  return due !== null && due < today ? 'late' : 'out';
}
