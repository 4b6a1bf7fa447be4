import { indexOfId, type PeriodIndex } from '@/core/calendar';
import { lastOf } from '@/core/lastOf';
import type { Part } from '@/core/cash';
import { minor } from '@/core/money';
import { isProfitAndLoss, natural, type AccountId, type Budget } from '@/core/model';
import { lineOfMove, NOTHING_AHEAD, NOTHING_MADE, type FromAhead, type Made } from '@/core/plan';
import { mayMake } from './bearers';
import { accountsById, cashStart, horizonOf, type MonthsOfPlan } from './cashPlan';
import { ALL_SOURCES, viewOf, withSchedulesAnew, type CashView } from './cashView';
import { plansIn } from './comparison';
import type { Ground } from './ground';
import { budgetOn } from './inCase';
import { feedsBack, madeIn, madeTogether, type Beyond, type MadeBy } from './made';
import { reckoned, type Reckoned } from './reckoned';

export { ALL_SOURCES, type CashView } from './cashView';

/**
 * The company's money ahead: the months after what is closed by the budget that is looked at, and by those in force where it
 * plans nothing; at least twelve months. Null where nothing is known at all. `forecast`: a named one, `ALL_SOURCES`, or
 * the company's own.
 */
export function cashOf(
  ground: Ground,
  budget: Budget | null,
  forecast: string | null = ground.book.cash.own,
): CashView | null {
  const settled = settledOf(ground, budget);
  if (settled === null) return null;
  const isNamed = ground.book.cash.forecasts.some((f) => f.id === forecast);
  return isNamed ? viewOf(withMade(ground, budget, settled.made), budget, forecast) : settled.view;
}

/** Money ahead with what it makes of the plan's own lines. */
type Settled = { readonly view: CashView; readonly made: MadeBy };

const settled = new WeakMap<Ground, Map<Budget | null, Settled | null>>();
const NONE_MADE: MadeBy = new Map();

/** The ground on which plans have what money ahead was found to make of them. */
function withMade(ground: Ground, look: Budget | null, made: MadeBy): Ground {
  const { inCase } = ground;
  return {
    ...ground,
    inCase: inCase && { ...inCase, madeOfBase: madeOfBase(inCase.base, look) },
    made: (_, budget) =>
      look === null && made !== NONE_MADE
        ? joined(ground, budget, made)
        : (made.get(budget.id) ?? NOTHING_AHEAD),
  };
}

/** What money ahead makes of budgets as they are, for a case to say what it moves of that. */
function madeOfBase(base: Ground, look: Budget | null): (budget: string) => Made {
  const own = budgetOn(base, look);
  const ground = withMade(base, own, settledOf(base, own)?.made ?? NONE_MADE);
  return (id) => {
    const budget = base.book.budgets.find((b) => b.id === id);
    return budget ? ground.made!(ground, budget).made : NOTHING_MADE;
  };
}

/**
 * Money ahead follows from plans, and some of their lines from it: what is never paid, the interest of the credit line, the tax
 * on a profit that has both. Each month's follow from what was before it (a month's interest from what is drawn when it
 * begins), so going round comes to rest, from wherever it began: as a rule at once, where nothing changed of it.
 */
function settledOf(ground: Ground, budget: Budget | null): Settled | null {
  let own = settled.get(ground);
  if (!own) settled.set(ground, (own = new Map()));
  let known = own.get(budget);
  if (known === undefined) own.set(budget, (known = settle(ground, budget)));
  return known;
}

function settle(ground: Ground, budget: Budget | null): Settled | null {
  if (!mayMake(ground.book)) {
    const view = viewOf(withMade(ground, budget, NONE_MADE), budget, ALL_SOURCES);
    return view && { view, made: NONE_MADE };
  }
  const last = ground.memory.of(`made ${budget?.id ?? ''}`, () => ({ made: NONE_MADE }));
  let view: CashView | null = null;
  let anew = null as ReturnType<typeof feedsBack>;
  for (let turn = 0; ; turn++) {
    const was = last.made;
    const staged = withMade(ground, budget, was);
    view =
      view && anew === 'rows' ? withSchedulesAnew(staged, budget, view) : viewOf(staged, budget, ALL_SOURCES);
    if (view === null) return null;
    const { plans, input }: CashView = view;
    last.made = madeIn(ground, view, beyondOf(staged, view), was);
    const next = withMade(ground, budget, last.made);
    anew = sameMade(was, last.made)
      ? null
      : feedsBack(
          ground.book,
          plans.map((p) => reckoned(staged, p.budget)),
          plans.map((p) => reckoned(next, p.budget)),
        );
    // No more turns than months, and a few for what a month's rounding may do to itself.
    if (anew === null || turn > input.periods.length + FEW) return { view, made: last.made };
  }
}

const FEW = 4;

/** Parts that someone said beside the plan, or in place of it. */
const BESIDE: ReadonlySet<Part['of']> = new Set(['dated', 'order', 'item']);

/** What accounts of profit and loss move ahead by dated items and orders, beyond what plans have of them; debits positive. */
function beyondOf(ground: Ground, { projected, input, lines, plans }: CashView): Beyond {
  const touched = new Set<number>();
  for (const { of, postings } of projected.parts.values()) {
    if (!BESIDE.has(of)) continue;
    const { columns, first, count } = postings;
    for (let i = first; i < first + count; i++) touched.add(columns.account[i]!);
  }
  const byId = accountsById(ground.book.accounts);
  return [...touched].flatMap((place) => {
    const account = byId.get(projected.table.ids[place]!);
    const moved = projected.moved[place];
    if (!account || !isProfitAndLoss(account.kind) || !moved) return [];
    const { id, kind } = account;
    const own = [...lines.values()].flatMap(({ line }) => (line.account.id === id ? [line.amounts] : []));
    return input.periods.flatMap(({ index: period }, k) => {
      const planned = own.reduce((t, amounts) => t + (amounts[k] ?? 0), 0);
      const rows = plans.reduce((t, p) => t + rowsOn(reckoned(ground, p.budget), p, id, period), 0);
      const amount = moved[k]! - natural(kind, minor(planned)) - rows;
      return amount === 0 ? [] : [{ account: id, period, amount }];
    });
  });
}

/** What a budget's rows of schedules post to an account in a period that it plans, debits positive. */
function rowsOn(
  { reckoning }: Reckoned,
  plan: MonthsOfPlan,
  account: AccountId,
  period: PeriodIndex,
): number {
  if (!plan.periods.some((p) => p.index === period)) return 0;
  let sum = 0;
  for (const { first, moves } of reckoning.rows.values())
    for (const [key, months] of moves)
      if (lineOfMove(key).account === account) sum += months[period - first] ?? 0;
  return sum;
}

const sameMade = (a: MadeBy, b: MadeBy): boolean =>
  a.size === b.size && [...a].every(([budget, made]) => b.get(budget) === made);

/**
 * What money ahead makes of a budget's lines: in months for which it is in force as the company's plan has it, in others (another
 * plan rules them) as looking at it alone does.
 */
export const madeAhead: NonNullable<Ground['made']> = (ground, budget) => {
  if (!mayMake(ground.book)) return NOTHING_AHEAD;
  return inForceIn(ground, budget).includes(true)
    ? joined(ground, budget, settledOf(ground, null)?.made ?? NONE_MADE)
    : (settledOf(ground, budget)?.made.get(budget.id) ?? NOTHING_AHEAD);
};

/** What the company's plan makes of a budget; in months that another plan rules, what looking at the budget alone makes. */
function joined(ground: Ground, budget: Budget, made: MadeBy): FromAhead {
  const own = made.get(budget.id) ?? NOTHING_AHEAD;
  const rules = inForceIn(ground, budget);
  if (!rules.includes(false)) return own;
  const { together } = ground.memory.of(`made together ${budget.id}`, () => ({
    together: lastOf(madeTogether),
  }));
  return together(own, aloneIn(ground, budget, rules), rules.map(Number).join(''));
}

/**
 * What looking at a budget alone makes of it. One that rules no month ahead is of the past, which no case moves: so it is what it
 * is without the case, reckoned once for all of them.
 */
function aloneIn(ground: Ground, budget: Budget, rules: readonly boolean[]): FromAhead {
  const { inCase, closedThrough, calendar } = ground;
  const first = indexOfId(calendar, budget.first) ?? 0;
  const rulesAhead = rules.some((r, i) => r && first + i > (closedThrough ?? -Infinity));
  const base = inCase && !rulesAhead ? budgetOn(inCase.base, budget) : null;
  const settled = base ? settledOf(inCase!.base, base) : settledOf(ground, budget);
  return settled?.made.get(budget.id) ?? NOTHING_AHEAD;
}

/** The same as looking at a budget has it, or at what is in force: of whatever plans this look is made of. */
export const madeBy = (ground: Ground, look: Budget | null): Ground =>
  withMade(ground, look, settledOf(ground, look)?.made ?? NONE_MADE);

const ruling = new WeakMap<Ground, Map<Budget, readonly boolean[]>>();

/**
 * For each month of a budget whether it is in force; closed ones go with the first that is open, and what the company's plan does
 * not look at any more goes by the budget alone. Asked with every reckoning.
 */
function inForceIn(ground: Ground, budget: Budget): readonly boolean[] {
  let own = ruling.get(ground);
  if (!own) ruling.set(ground, (own = new Map()));
  let known = own.get(budget);
  if (!known) {
    const closed = cashStart(ground, null);
    const first = indexOfId(ground.calendar, budget.first);
    known =
      closed === null || first === null
        ? []
        : Array.from(
            { length: budget.length },
            (_, i) =>
              first + i <= horizonOf(ground.calendar, closed) &&
              plansIn(ground, Math.max(first + i, closed + 1), 'profit').some((b) => b.id === budget.id),
          );
    own.set(budget, known);
  }
  return known;
}
