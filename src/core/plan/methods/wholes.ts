import { sumBlank, uplift, type Minor, type Percent } from '@/core/money';
import type { Rest, Wholes } from '@/core/model';
import { beforeOf } from '../before';
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
 * months. `own` gives the line's months so far, which a second year follows; only spans that begin within the months given. A span of which nothing is known is left out.
 */
export function* wholesOf(
  method: {
    readonly amounts: Wholes | null;
    readonly uplift: Percent;
    readonly rest?: Rest | undefined;
  },
  context: Context,
  own: (i: number) => Minor | null,
  within: Span = { from: 0, to: Infinity },
): Generator<Whole> {
  const { facts } = context;
  const spans = method.amounts?.per === 'quarter' ? facts.quarters : facts.years;
  for (const [k, span] of spans.entries()) {
    if (span.from < within.from || span.from >= within.to) continue;
    const base = method.amounts
      ? (method.amounts.amounts[k] ?? null)
      : yearBefore(context, span, own, method.rest);
    if (base === null) continue;
    yield { span, base, total: uplift(base, method.uplift), said: method.amounts !== null };
  }
}

/** The same months of the year before: the ledger's, or where it is this budget's own, the line's months so far. */
function yearBefore(
  { facts, line }: Context,
  { from, to }: Span,
  own: (i: number) => Minor | null,
  rest: Rest | undefined,
): Minor | null {
  const { lastYear } = facts.past(line.account, line.segment);
  const first = facts.periods[0]!.index;
  return sumBlank(
    facts.yearBack.slice(from, to).map((back, k) => {
      if (back === null) return null;
      if (back >= 0) return own(back);
      return rest === undefined
        ? (lastYear[from + k] ?? null)
        : beforeOf(facts, line.account, line.segment, first + back, rest).value;
    }),
  );
}
