import type { PeriodIndex, PeriodRange } from '@/core/calendar';
import type { Ground } from '@/core/ground';
import type { Layout } from '@/core/model';
import { comparedWith, layoutReport, type Compared, type LayoutReport } from '@/core/report';
import { layoutWords } from '@/store/layoutWords';
import { monthFacts, type MonthFacts } from '@/store/monthFacts';

/** What the variance screen looks at: a layout's report, and behind it every line of the month, the year so far and the year. */
export type Look = {
  /** The months chosen on the ruler; the last of them is the month. */
  readonly ruler: PeriodRange;
  readonly compared: Compared;
  readonly report: LayoutReport;
  /** Reckoned when they are first asked for: the report need not wait for them. */
  readonly facts: () => MonthFacts;
};

const MOST_LOOKS = 16;
const looks = new WeakMap<Ground, Map<string, { readonly layout: Layout; readonly look: Look }>>();

/**
 * The layout's report of a month, the last of those chosen on the ruler from `first` on; `chosen` is compared with before what the layout names. The last few of a state of the
 * book are remembered, so that the months beside the one looked at can be made ready.
 */
export function lookAt(
  ground: Ground,
  layout: Layout,
  month: PeriodIndex,
  chosen: string | null,
  first = month,
): Look {
  let own = looks.get(ground);
  if (!own) looks.set(ground, (own = new Map()));
  const key = `${layout.id} ${first} ${month} ${chosen ?? ''}`;
  const there = own.get(key);
  if (there?.layout === layout) return there.look;
  const look = makeLook(ground, layout, { first, last: month }, chosen);
  own.delete(key);
  own.set(key, { layout, look });
  for (const old of own.keys()) {
    if (own.size <= MOST_LOOKS) break;
    own.delete(old);
  }
  return look;
}

function makeLook(ground: Ground, layout: Layout, ruler: PeriodRange, chosen: string | null): Look {
  const month = ruler.last;
  const compared = comparedWith(ground, month, layout, chosen);
  const words = layoutWords(ground, layout, month, compared, ruler);
  let facts: MonthFacts | null = null;
  return {
    ruler,
    compared,
    report: layoutReport({ ground, layout, month, compared, words, ruler }),
    facts: () => (facts ??= monthFacts(ground, month, compared)),
  };
}
