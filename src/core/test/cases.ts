import type { Adjusts, When } from '@/core/model';
import type { Assumption } from '@/core/scenario';
import { periodIds } from './build';

/* What tests assume over a plan. */

const [first] = periodIds(2026);
const always: When = { from: first!, until: null, every: 1, times: null, ramp: null };

/** An assumption under an id: of all months from January 2026 on, unless said otherwise. */
export const assume = (what: Adjusts, size: number, when: Partial<When> = {}, id = 'j1'): Assumption => ({
  adjustment: {
    id,
    name: id,
    why: '',
    by: 'me',
    at: '2026-01-01T00:00:00Z',
    what,
    when: { ...always, ...when },
    off: false,
  },
  size,
});

/** Lines by their accounts. */
export const lines = (...ids: string[]) => ({
  lines: ids.map((id) => ({ of: 'account' as const, account: id })),
});
