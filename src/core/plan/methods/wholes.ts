import { sumBlank, uplift, type Minor, type Percent } from '@/core/money';
import { yearsBefore } from '@/core/calendar';
import type { Wholes } from '@/core/model';
import type { Context } from '../rule';
import type { Span } from '../spans';

/** An amount and the run of months that it is said of. */
export type Whole = {
  readonly span: Span;
  readonly base: Minor;
  readonly total: Minor;
  readonly said: boolean;
};

/**
 * The amounts that a method divides, each with the uplift: as they were said, or the year before's total of the same
 * months. `own` gives the line's months so far, which a second year follows. A span of which nothing is known is left out.
 */
export function* wholesOf(
  method: { readonly amounts: Wholes | null; readonly uplift: Percent },
  context: Context,
  own: (i: number) => Minor | null,
): Generator<Whole> {
  const { facts, line } = context;
  const spans = method.amounts?.per === 'quarter' ? facts.quarters : facts.years;
  for (const [k, span] of spans.entries()) {
    const base = method.amounts ? (method.amounts.amounts[k] ?? null) : yearBefore(context, span, own);
    if (base === null) continue;
    yield { span, base, total: uplift(base, method.uplift), said: method.amounts !== null };
  }

  function yearBefore(_: Context, span: Span, mine: (i: number) => Minor | null): Minor | null {
    const first = facts.periods[0]!.index;
    return sumBlank(
      facts.periods.slice(span.from, span.to).map((p) => {
        const before = yearsBefore(facts.calendar, p.index);
        if (before === null) return null;
        return before >= first ? mine(before - first) : facts.actual(line.account, line.segment, before);
      }),
    );
  }
}
