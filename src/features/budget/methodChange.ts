import { divideRounded, percent, sumBlank, type Minor, type Percent } from '@/core/money';
import type { Line, Method, MethodKind, RoundUnit } from '@/core/model';
import type { LineResult } from '@/core/plan';
import type { Reckoned } from '@/store/derived';

const upliftOf = (m: Method): Percent => ('uplift' in m ? m.uplift : percent('0'));
const roundOf = (m: Method): RoundUnit => ('round' in m ? m.round : 0);

/**
 * The line's method changed to another kind, keeping as much as it can of what the line says: its amounts by
 * month, its year, its uplift and its rounding.
 */
export function methodAs(
  kind: MethodKind,
  line: Line,
  result: LineResult | undefined,
  { facts, amounts }: Reckoned,
  shareOf: string | null,
): Method {
  const { method } = line;
  const total = result?.total ?? null;
  const uplift = upliftOf(method);
  const round = roundOf(method);
  const none = percent('0');
  switch (kind) {
    case 'byMonth': {
      const byMonth: Record<string, Minor | null> = {};
      facts.periods.forEach((p, i) => {
        const amount = result?.amounts[i] ?? null;
        if (amount !== null) byMonth[p.id] = amount;
      });
      return { kind, amounts: byMonth as Extract<Method, { kind: 'byMonth' }>['amounts'] };
    }
    case 'lastYear':
      return { kind, uplift, round };
    case 'even':
      return total === null
        ? { kind, basis: { of: 'lastYear' }, uplift, round }
        : { kind, basis: { of: 'amount', annual: total }, uplift: none, round };
    case 'pattern':
      return method.kind === 'lastYear' || total === null
        ? { kind, annual: null, uplift, round }
        : { kind, annual: total, uplift: none, round };
    case 'share': {
      const of = shareOf ?? line.account;
      const mine = sumBlank(facts.past(line.account).lastYear) ?? total ?? 0;
      const theirs = sumBlank(facts.past(of).lastYear) ?? sumBlank(amounts(of) ?? []) ?? 0;
      // The share that the account had last year, to a tenth of a percent.
      const tenths = theirs === 0 ? 0 : divideRounded(mine as Minor, 1000, theirs, 'halfAwayFromZero');
      return { kind, of, percent: percent((tenths / 10).toFixed(1)) };
    }
  }
}
