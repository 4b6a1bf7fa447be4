import { Checkbox } from '@mantine/core';
import { indexOfId, type PeriodIndex } from '@/core/calendar';
import type { Ground } from '@/core/ground';
import {
  comesIntoForce,
  putInForceAt,
  areRivals,
  rivalsOf,
  rules,
  rulesFrom,
  rulesOn,
  supersededBy,
  type Budget,
} from '@/core/model';

const list = (of: readonly Budget[]) => of.map((b) => b.name).join(', ');

/** The first open period that a budget rules; null where it rules none. */
export function rulesNow({ book, calendar, closedThrough }: Ground, budget: Budget): PeriodIndex | null {
  const first = indexOfId(calendar, budget.first);
  if (first === null) return null;
  for (let p = Math.max(first, (closedThrough ?? first - 1) + 1); p < first + budget.length; p++)
    if (rules(book, calendar, budget, p)) return p;
  return null;
}

/** Whether putting a budget in force would change anything: it has months to rule that it does not rule. */
export function mayRule({ book, calendar }: Ground, budget: Budget): boolean {
  const from = rulesFrom(book, calendar, budget);
  return from !== null && !rulesOn(book, calendar, budget, from);
}

/** What is in force after a budget is approved, said before anybody agrees; what does not give way unasked is asked about. */
export function AfterApproval({
  ground,
  budget,
  takesOver,
  onTakesOver,
}: {
  readonly ground: Ground;
  readonly budget: Budget;
  readonly takesOver: boolean;
  readonly onTakesOver: (takesOver: boolean) => void;
}) {
  const { book, calendar } = ground;
  const from = rulesFrom(book, calendar, budget);
  const gone = supersededBy(book, budget);
  const first = indexOfId(calendar, budget.first) ?? 0;
  const rivals = from === null ? [] : rivalsOf(book, calendar, budget, from);
  const comes = comesIntoForce(book, budget);
  const closedBy = [
    ...new Set(
      Array.from({ length: (from ?? first + budget.length) - first }, (_, i) => first + i).flatMap((p) =>
        putInForceAt(book, calendar, p)
          .filter((b) => b.id !== budget.id && areRivals(b, budget))
          .slice(0, 1),
      ),
    ),
  ];
  const since = from === null ? '' : calendar.period(from).label;
  return (
    <>
      <p>
        {from === null ? (
          <>All its months are closed: they keep {list(closedBy)}, and it will not be in force.</>
        ) : comes || takesOver ? (
          <>
            It is in force <b>from {since} on</b>
            {rivals.length > 0 && <>, in place of {list(rivals)}</>}.
            {closedBy.length > 0 && (
              <>
                {' '}
                The closed months before that keep <b>{list(closedBy)}</b>.
              </>
            )}
          </>
        ) : (
          <>
            <b>{list(rivals)}</b> {rivals.length === 1 ? 'stays' : 'stay'} in force: this budget does not
            revise {rivals.length === 1 ? 'it' : 'them'}.
          </>
        )}
        {gone.length > 0 && (
          <>
            {' '}
            {list(gone)} {gone.length === 1 ? 'is' : 'are'} superseded.
          </>
        )}
      </p>
      {from !== null && !comes && (
        <Checkbox
          mb="sm"
          label={`Put it in force from ${since} on all the same`}
          checked={takesOver}
          onChange={(e) => onTakesOver(e.currentTarget.checked)}
        />
      )}
    </>
  );
}
