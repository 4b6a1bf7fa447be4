import { sumBlank, type Minor } from '@/core/money';
import { fiscalYearLabel } from '@/core/calendar';
import type { AccountId } from '@/core/model';
import { reckoned, type Ground, type Reckoned } from '@/store/derived';
import type { Setup } from './setup';
import { lastYearOf, type WorksheetChoice } from './worksheetRows';

type Ghost = NonNullable<WorksheetChoice['ghost']>;

/** What the quiet rows show: last year, the outlook, or another budget's months of the same periods. */
export function ghostFor(ground: Ground, whole: Reckoned, setup: Setup): Ghost | null {
  if (setup.ghosts === 'none') return null;
  const { facts } = whole;
  const made = new Map<AccountId, readonly (Minor | null)[]>();
  const once = (make: (id: AccountId) => readonly (Minor | null)[]) => (id: AccountId) => {
    let values = made.get(id);
    if (!values) made.set(id, (values = make(id)));
    return values;
  };
  const prior = `${fiscalYearLabel((facts.periods[0]?.year ?? 1) - 1)} actual`;
  if (setup.ghostOf === 'outlook')
    return {
      label: 'Outlook',
      of: once((id) => {
        const planned = whole.amounts(id);
        return facts.periods.map((p, i) => {
          if (facts.closedThrough === null || p.index > facts.closedThrough) return planned?.[i] ?? null;
          return sumBlank(whole.budget.segments.map((s) => facts.actual(id, s, p.index)));
        });
      }),
    };
  const other = ground.book.budgets.find((b) => b.id === setup.ghostOf);
  if (!other) return { label: prior, of: once((id) => lastYearOf(whole, id, 'all')) };
  const theirs = reckoned(ground, other);
  const first = theirs.facts.periods[0]?.index ?? 0;
  return {
    label: other.name,
    of: once((id) => {
      const amounts = theirs.amounts(id);
      return facts.periods.map((p) => amounts?.[p.index - first] ?? null);
    }),
  };
}
