import type { PeriodIndex } from '@/core/calendar';
import type { Ground } from '@/core/ground';
import type { Layout } from '@/core/model';
import { comparedWith, layoutReport, type Compared, type LayoutReport } from '@/core/report';
import { layoutWords } from '@/store/layoutWords';
import { monthFacts, type MonthFacts } from '@/store/monthFacts';

/** What the variance screen looks at: a layout's report, and behind it every line of the month, the year so far and the year. */
export type Look = {
  readonly compared: Compared;
  readonly report: LayoutReport;
  readonly facts: MonthFacts;
};

const MOST_LOOKS = 6;
const looks = new WeakMap<Ground, Map<string, { readonly layout: Layout; readonly look: Look }>>();

/**
 * The layout's report of a month; `chosen` is compared with before what the layout names. The last few of a state of the
 * book are remembered, so that the months beside the one looked at can be made ready.
 */
export function lookAt(ground: Ground, layout: Layout, month: PeriodIndex, chosen: string | null): Look {
  let own = looks.get(ground);
  if (!own) looks.set(ground, (own = new Map()));
  const key = `${layout.id} ${month} ${chosen ?? ''}`;
  const there = own.get(key);
  if (there?.layout === layout) return there.look;
  const look = makeLook(ground, layout, month, chosen);
  own.delete(key);
  own.set(key, { layout, look });
  for (const old of own.keys()) {
    if (own.size <= MOST_LOOKS) break;
    own.delete(old);
  }
  return look;
}

function makeLook(ground: Ground, layout: Layout, month: PeriodIndex, chosen: string | null): Look {
  const compared = comparedWith(ground, month, layout, chosen);
  const words = layoutWords(ground, layout, month, compared);
  return {
    compared,
    report: layoutReport({ ground, layout, month, compared, words }),
    facts: monthFacts(ground, month, compared),
  };
}
