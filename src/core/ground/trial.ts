import { periodsOf, toDayNumber, yearLength, type Period, type PeriodIndex } from '@/core/calendar';
import {
  byPeriods,
  createProjector,
  forecastOf,
  thenAndNow,
  type PlannedLine,
  type ThenAndNow,
} from '@/core/cash';
import { lastOf } from '@/core/lastOf';
import { isProfitAndLoss, natural, NO_CASH, type Account } from '@/core/model';
import { minor } from '@/core/money';
import type { CashView } from './cash';
import { expectedItems, matchSides, shownItems } from './cashItems';
import type { ItemTerms } from './itemTerms';
import { openingOf, taxCredits } from './cashOpening';
import type { Ground } from './ground';
import { happenedOf } from './keptCash';

const MONTHS = 6;

/**
 * What the terms as they stand would have given for the last closed months, had those months' own amounts been planned:
 * beside what the banks did. Whatever differs is the terms', not the plan's. Null where the ledger has too few months.
 */
export function trialOfTerms(
  ground: Ground,
  { termsOf, staff, input, itemsBy }: CashView,
  months = MONTHS,
): ThenAndNow | null {
  const { book, calendar, balances, blocks, view } = ground;
  const last = calendar.indexOfDay(input.start);
  const begin: PeriodIndex = last - months;
  if (!balances.range || begin < balances.range.first) return null;
  const periods = periodsOf(calendar, { first: begin + 1, last });
  const start = toDayNumber(calendar.period(begin).end);
  const { matched, opening } = ground.memory.of('trial', () => ({
    matched: lastOf(matchSides),
    opening: lastOf(openingOf),
  }));
  const sides = matched(blocks, view, book.accounts, start);
  const stood = opening(balances, book.accounts, begin, book.cash.opening);
  if (stood.from !== 'ledger') return null;
  // The invoices of the year before them may be paid in them.
  const back = begin - yearLength(calendar, begin) + 1;
  const past = periodsOf(calendar, { first: Math.max(balances.range.first, back), last: begin });
  const amountsIn = (account: Account, months: readonly Period[]) =>
    months.map((p) => natural(account.kind, minor(balances.movement(account.id, p.index) ?? 0)));
  const lines = book.accounts
    .filter((a) => isProfitAndLoss(a.kind) && balances.active(a.id))
    .map((account): PlannedLine => {
      const [before, amounts] = [amountsIn(account, past), amountsIn(account, periods)];
      return {
        key: account.id,
        account,
        segment: null,
        terms: termsOf(account, null).terms,
        amounts,
        past: before,
        ahead: [...before, ...amounts],
        own: null,
      };
    });
  const byId = new Map(book.accounts.map((a) => [a.id, a]));
  const itemTerms: ItemTerms = {
    ...itemsBy,
    termsOf: (id) => {
      const account = byId.get(id);
      return account && isProfitAndLoss(account.kind) ? termsOf(account, null).terms : null;
    },
  };
  const projected = createProjector()({
    ...input,
    start,
    periods,
    opening: stood.of,
    lines,
    // Of schedules and balances that are planned nothing stands in closed months: their lines go by terms here.
    scheduled: [],
    settled: [],
    balances: [],
    items: expectedItems(
      shownItems(NO_CASH, sides, start, itemTerms, { in: null, out: null }),
      'counted',
      [],
      [],
    ),
    dated: [],
    past,
    inYear: [...past, ...periods].map((p) => calendar.periodsIn(p.year)),
    stoodAt: (account, place) => balances.balance(account, past[0]!.index + place, true),
    taxCredits: (scheme, from, to) => taxCredits(ground, scheme, from, to),
    runOffEnd: () => start + book.cash.runOff,
    runsOff: [],
  });
  const rules = { without: [], floor: null, creditLine: null, drawn: 0 };
  const { bySource, opening: bank } = forecastOf(projected, rules);
  const happened = happenedOf(ground, { termsOf, staff }, { from: start + 1, to: input.start });
  return thenAndNow(
    { start, opening: bank, sources: bySource },
    { opening: bank, happened },
    byPeriods(periods),
  );
}
