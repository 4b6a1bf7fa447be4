import {
  indexOfId,
  periodsOf,
  yearLength,
  yearsBefore,
  type Period,
  type PeriodIndex,
} from '@/core/calendar';
import type { PlannedLine } from '@/core/cash';
import { minor, ZERO, type Minor } from '@/core/money';
import {
  isProfitAndLoss,
  type Account,
  type AccountId,
  type Book,
  type Budget,
  type DayRule,
  type Line,
  type LineRef,
  type SegmentId,
  type Terms,
} from '@/core/model';
import { coversPeriod, type Amounts, type Facts } from '@/core/plan';
import { plansIn } from './comparison';
import { comingAt } from './outlook';
import type { TermsIn } from '@/core/scenario';
import type { Ground } from './ground';
import { termsOn } from './inCase';
import { reckoned, type Reckoned } from './reckoned';

/* The plan that money ahead follows: which budget plans each month, and its lines with their terms. */

/** A budget with the months ahead that it plans, or with closed ones that it ruled. */
export type MonthsOfPlan = { readonly budget: Budget; readonly periods: readonly Period[] };

/** Closed periods that are looked back into: what was invoiced in them may not be paid yet, two years of it at most. */
const BACK = 24;

/** Gathers the periods of budgets, in the order in which they come. */
class Gathered {
  private readonly of = new Map<string, { budget: Budget; periods: Period[] }>();
  add(budget: Budget, period: Period): void {
    const there = this.of.get(budget.id);
    if (there) there.periods.push(period);
    else this.of.set(budget.id, { budget, periods: [period] });
  }
  get all(): readonly MonthsOfPlan[] {
    return [...this.of.values()];
  }
}

/** The last period that is looked at, whatever plans it: a year of them after the closed one. */
export const horizonOf = (calendar: Ground['calendar'], closed: PeriodIndex): PeriodIndex =>
  closed + yearLength(calendar, closed + 1);

/** Which budget plans each month ahead, and which ruled the closed ones before them. */
export function plansAhead(ground: Ground, budget: Budget | null, closed: PeriodIndex) {
  const { calendar, balances } = ground;
  const first = budget && indexOfId(calendar, budget.first);
  const end = Math.max(horizonOf(calendar, closed), first === null ? 0 : first + budget!.length - 1);
  const periods = periodsOf(calendar, { first: closed + 1, last: end });
  const plansAt = (p: PeriodIndex) =>
    budget && coversPeriod(calendar, budget, p)
      ? [budget].filter((b) => b.covers !== 'balanceSheet')
      : plansIn(ground, p, 'profit');
  const [plans, balancePlans, pastPlans] = [new Gathered(), new Gathered(), new Gathered()];
  const unplanned: Period[] = [];
  for (const p of periods) {
    // A budget of profit and loss alone leaves what was approved of balances in force.
    const own =
      budget && coversPeriod(calendar, budget, p.index) && budget.covers !== 'profitAndLoss' ? [budget] : [];
    for (const b of own.length > 0 ? own : plansIn(ground, p.index, 'balances')) balancePlans.add(b, p);
    const plan = plansAt(p.index);
    if (plan.length === 0) unplanned.push(p);
    for (const b of plan) plans.add(b, p);
  }
  const { range } = balances;
  const past =
    range && range.first <= closed
      ? periodsOf(calendar, { first: Math.max(range.first, closed - BACK + 1), last: closed })
      : [];
  // What nobody planned went by the terms of the plan that comes next.
  const next = plans.all[0];
  for (const p of past) {
    const plan = plansAt(p.index);
    for (const b of plan.length > 0 ? plan : next ? [next.budget] : []) pastPlans.add(b, p);
  }
  return {
    periods,
    past,
    unplanned,
    plans: plans.all,
    plansAt,
    pastPlans: pastPlans.all,
    balancePlans: balancePlans.all,
  };
}

/** What the plan in force for the months ahead is called, in the order of the months. */
export function planNames(ground: Ground): readonly string[] {
  const closed = cashStart(ground, null);
  if (closed === null) return [];
  const names: string[] = [];
  for (let p = closed + 1; p <= horizonOf(ground.calendar, closed); p++) {
    const name = plansIn(ground, p, 'profit')
      .map((b) => b.name)
      .join(' with ');
    if (name !== '' && !names.includes(name)) names.push(name);
  }
  return names;
}

/** The last day of what is known: of the closed months; of the ledger where nothing was closed; before the plan else. */
export function cashStart(
  { calendar, closedThrough, balances, book }: Ground,
  budget: Budget | null,
): PeriodIndex | null {
  const known = closedThrough ?? balances.range?.last;
  if (known !== undefined && known !== null) return known;
  const begins = (budget ? [budget] : book.budgets.filter((b) => book.inForce.some((f) => f.budget === b.id)))
    .map((b) => indexOfId(calendar, b.first))
    .filter((p) => p !== null);
  return begins.length === 0 ? null : Math.min(...begins) - 1;
}

const ownDays = new WeakMap<Line['method'], DayRule>();
function ownRule(method: Line['method'] | undefined): DayRule | null {
  if (method?.kind !== 'occurrence') return null;
  let rule = ownDays.get(method);
  if (!rule) ownDays.set(method, (rule = { of: 'days', on: method.on }));
  return rule;
}

/** What the lines of plans are made of, beside the plans themselves. */
export type LinesOf = {
  readonly periods: readonly Period[];
  readonly past: readonly Period[];
  readonly plans: readonly MonthsOfPlan[];
  /** Who plans a period, also one after those that are looked at. */
  readonly plansAt: (period: PeriodIndex) => readonly Budget[];
  readonly taxes: Book['cash']['taxes'];
  /** The closed periods that a budget ruled. */
  readonly ruled: (budget: Budget) => readonly PeriodIndex[];
};

/**
 * The lines of a budget for the months ahead that it plans and the closed ones that it ruled. `epoch`: the same object while
 * everything stays that terms of this budget's lines and their closed months follow from.
 */
export function* plannedLines(
  ground: Ground,
  budget: Budget,
  of: LinesOf,
  termsOf: (account: Account, segment: SegmentId) => { readonly terms: Terms },
  undated: Set<Account>,
  epoch: object,
): Generator<PlannedLine> {
  const whole = reckoned(ground, budget);
  const first = whole.facts.periods[0]!.index;
  const { periods, past } = of;
  const planned = new Set(of.plans.find((p) => p.budget === budget)?.periods.map((p) => p.index));
  const ruled = new Set(of.ruled(budget));
  const span = `${first} ${periods[0]?.index}-${periods.at(-1)?.index} ${[...planned].join()} ${past[0]?.index} ${[...ruled].join()}`;
  const accounts = accountsById(ground.book.accounts);
  const own: readonly LineRef[] = budget.approved?.lines ?? budget.lines;
  const lines = whole.added.length === 0 ? own : [...own, ...whole.added];
  // What a case says of terms holds for what was invoiced before the start, too.
  const inCase = termsOn(ground, budget) !== null;
  // Only lines that count days have days of their own.
  const methods = new Map(
    budget.lines.flatMap((l) =>
      l.method.kind === 'occurrence' ? [[`${l.account}:${l.segment ?? ''}`, l.method] as const] : [],
    ),
  );
  for (const { account: id, segment } of lines) {
    const account = accounts.get(id);
    if (!account || !isProfitAndLoss(account.kind)) continue;
    const figures = whole.figures(id, segment);
    if (!figures) continue;
    const { amounts } = figures;
    // What schedules post stands for itself: terms are for what the line has beyond it.
    const made = whole.reckoning.scheduled({ account: id, segment });
    if (figures.wholes.some((w) => w) && planned.size > 0) undated.add(account);
    const method = methods.get(`${id}:${segment ?? ''}`);
    const was = made === null ? known.get(amounts) : undefined;
    const { line } = was ?? {};
    // Of a thousand lines an edit changes one: the others are not even asked for their terms.
    const isSame = line?.account === account && line.segment === segment && was!.epoch === epoch;
    if (line && isSame && was!.span === span && !method && !line.own && !line.ahead) {
      yield line;
      continue;
    }
    const key = `${budget.id} ${id}:${segment ?? ''}`;
    const { terms } = termsOf(account, segment);
    const own = ownRule(method);
    const pastOf =
      inCase || looksBack(terms, of.taxes)
        ? pastMonths(whole, account.id, segment, past, ruled, made, first)
        : NONE;
    const ahead = looksAhead(terms)
      ? [
          ...seenMonths(ground, whole, id, segment, of),
          ...aheadMonths(ground, whole, account, segment, of, terms),
        ]
      : null;
    // The same figures under the same terms are the same line, which nothing downstream looks at again.
    if (
      line?.key === key &&
      was!.span === span &&
      line.account === account &&
      line.terms === terms &&
      line.own === own &&
      line.past === pastOf &&
      isAlike(line.ahead, ahead)
    ) {
      known.set(amounts, { span, epoch, line });
      yield line;
      continue;
    }
    const next: PlannedLine = {
      key,
      account,
      segment,
      terms,
      amounts: periods.map((p) => (planned.has(p.index) ? beyondRows(amounts, made, p.index - first) : null)),
      past: pastOf,
      ahead,
      own,
    };
    if (made === null) known.set(amounts, { span, epoch, line: next });
    yield next;
  }
}

/**
 * A line by the terms that a case assumes for it: one for each of them, with the months that were or are invoiced by them. The
 * line itself where the case assumes none.
 */
export function linesByTerms(
  termsIn: TermsIn | null,
  line: PlannedLine,
  { past, periods }: Pick<LinesOf, 'past' | 'periods'>,
): readonly PlannedLine[] {
  if (termsIn === null) return [line];
  const termsAt = ({ index }: Period) => termsIn(line.terms, line.account, line.segment, index);
  const [before, ahead] = [past.map(termsAt), periods.map(termsAt)];
  const all = [...new Set([...before, ...ahead])];
  if (all.length === 0 || (all.length === 1 && all[0] === line.terms)) return [line];
  const key = all.length;
  const known = byTerms.get(line);
  const same =
    known?.terms.length === key &&
    known.terms.every((t, i) => t === all[i]) &&
    isAlikeList(known.at, [...before, ...ahead]);
  if (same) return known.lines;
  const lines = all.map((terms, i): PlannedLine => ({
    ...line,
    key: i === 0 ? line.key : `${line.key}${BY_TERMS}${i}`,
    terms,
    amounts: line.amounts.map((a, m) => (ahead[m] === terms ? a : null)),
    past: line.past.map((a, m) => (before[m] === terms ? a : null)),
  }));
  byTerms.set(line, { terms: all, at: [...before, ...ahead], lines });
  return lines;
}

const isAlikeList = <T>(a: readonly T[], b: readonly T[]): boolean =>
  a.length === b.length && a.every((v, i) => v === b[i]);
const byTerms = new WeakMap<
  PlannedLine,
  { readonly terms: readonly Terms[]; readonly at: readonly Terms[]; readonly lines: readonly PlannedLine[] }
>();

/** Behind the key of a line, where a case has some of its months by other terms. */
export const BY_TERMS = '~terms';

/**
 * What was explained of a budget's lines beyond what it plans: timing that comes back, what goes on, what is expected
 * otherwise. A line of its own beside each, on its account's terms; approved figures stay what they are.
 */
export function* explainedLines(
  ground: Ground,
  budget: Budget,
  { periods, plans }: LinesOf,
  termsOf: (account: Account, segment: SegmentId) => { readonly terms: Terms },
): Generator<PlannedLine> {
  const whole = reckoned(ground, budget);
  const said = explainedOf(ground.book, budget.id);
  if (budget.axis !== null || said.size === 0) return;
  const planned = new Set(plans.find((p) => p.budget === budget)?.periods.map((p) => p.index));
  const first = whole.facts.periods[0]!.index;
  for (const account of ground.book.accounts) {
    if (!said.has(account.id) || !isProfitAndLoss(account.kind)) continue;
    const own = whole.amounts(account.id);
    const amounts = periods.map((p) => {
      if (!planned.has(p.index)) return null;
      const plan = own?.[p.index - first] ?? null;
      const coming = comingAt(whole, account.id, budget.segments, p.index, plan);
      // What money ahead makes stands for itself.
      const shift = whole.shift(account.id, budget.segments, p.index);
      return minor((coming ?? 0) - (plan ?? 0) - shift);
    });
    if (!amounts.some((a) => a !== null && a !== 0 && !Number.isNaN(a))) continue;
    const { terms } = termsOf(account, null);
    const key = `${budget.id} ${account.id}:${EXPLAINED}`;
    const next: PlannedLine = {
      key,
      account,
      segment: null,
      terms,
      amounts,
      past: NONE,
      ahead: null,
      own: null,
    };
    yield keptLine(budget, next);
  }
}

/** The accounts of which something was said against a budget, or how they are expected. */
function explainedOf({ varianceNotes, outlookWays }: Book, budget: string): ReadonlySet<AccountId> {
  const out = new Set(Object.keys(outlookWays[budget] ?? {}));
  for (const notes of Object.values(varianceNotes))
    for (const account in notes) if (notes[account]!.against === budget) out.add(account);
  return out;
}

/** In place of a segment in the key of a line: what was explained of the account. */
export const EXPLAINED = '~explained';

const explained = new WeakMap<Budget['lines'], Map<string, PlannedLine>>();
/** The line before as long as one just like it comes. */
function keptLine({ lines }: Budget, next: PlannedLine): PlannedLine {
  let own = explained.get(lines);
  if (!own) explained.set(lines, (own = new Map()));
  const was = own.get(next.key);
  const same =
    was !== undefined &&
    was.account === next.account &&
    was.terms === next.terms &&
    isAlike(was.amounts, next.amounts);
  if (same) return was;
  own.set(next.key, next);
  return next;
}

const NONE: readonly Minor[] = [];

/** What a line has in a month beyond what schedules post to it. */
function beyondRows(amounts: Amounts, made: Amounts | null, place: number): Minor {
  const amount = amounts[place] ?? ZERO;
  const by = made?.[place] ?? 0;
  return by === 0 ? amount : minor(amount - by);
}

const isAlike = (a: Amounts | null, b: Amounts | null): boolean =>
  a === b || (a !== null && b !== null && a.length === b.length && a.every((v, i) => Object.is(v, b[i])));

/** Whether a line's closed months may have something to come yet, or are counted by its rule. */
const looksBack = ({ parts, tax }: Terms, taxes: Book['cash']['taxes']): boolean =>
  parts.some(
    ({ rule }) =>
      rule.kind !== 'withoutMoney' &&
      ((rule.kind !== 'atOnce' && rule.kind !== 'inAdvance') || rule.moved !== 'stays'),
  ) || taxes.some((t) => t.on === 'payment' && t.id === tax?.scheme);

const looksAhead = ({ parts }: Terms): boolean =>
  parts.some(({ rule }) => rule.kind === 'fromStock' || rule.kind === 'inAdvance');

const pasts = new WeakMap<Facts, Map<string, readonly (Minor | null)[]>>();

/** What a line came to in the closed months that its budget ruled; the same list while the ledger stays. */
function pastMonths(
  { facts }: Reckoned,
  account: AccountId,
  segment: SegmentId,
  past: readonly Period[],
  ruled: ReadonlySet<PeriodIndex>,
  made: Amounts | null,
  first: PeriodIndex,
): readonly (Minor | null)[] {
  let of = pasts.get(facts);
  if (!of) pasts.set(facts, (of = new Map()));
  const rows = past.map((p) => made?.[p.index - first] ?? 0);
  const key = `${account}:${segment ?? ''} ${past[0]?.index} ${[...ruled].join()} ${made ? rows.join() : ''}`;
  let months = of.get(key);
  if (!months)
    of.set(
      key,
      (months = past.map((p, i) =>
        ruled.has(p.index) && facts.isActual(p.index)
          ? // What schedules were to post stands for itself, in closed months too.
            minor((facts.actual(account, segment, p.index) ?? 0) - rows[i]!)
          : null,
      )),
    );
  return months;
}

/** What the closed periods came to beyond what schedules posted, whoever ruled them: what a rule that looks ahead finds there. */
function seenMonths(
  ground: Ground,
  whole: Reckoned,
  account: AccountId,
  segment: SegmentId,
  { past, ruled }: LinesOf,
): readonly Minor[] {
  const rulers = ground.book.budgets.filter((b) => b === whole.budget || ruled(b).length > 0);
  return past.map(({ index }) => {
    const ruler = rulers.find((b) => ruled(b).includes(index)) ?? whole.budget;
    const by = ruler === whole.budget ? whole : reckoned(ground, ruler);
    const rows = by.reckoning.scheduled({ account, segment });
    const actual = whole.facts.isActual(index) ? whole.facts.actual(account, segment, index) : null;
    return minor((actual ?? 0) - (rows?.[index - by.facts.periods[0]!.index] ?? 0));
  });
}

type Planners = {
  readonly planOf: (period: PeriodIndex) => readonly Budget[];
  /** The last period that anybody plans. */
  readonly last: PeriodIndex | null;
};
const planned = new WeakMap<LinesOf, Planners>();

/** Who plans each period, those after the last that is looked at included: the same for all lines of one look. */
function planners(of: LinesOf): Planners {
  let own = planned.get(of);
  if (!own) {
    const known = new Map<PeriodIndex, Budget[]>(of.periods.map((p) => [p.index, []]));
    for (const plan of of.plans) for (const p of plan.periods) known.get(p.index)?.push(plan.budget);
    const planOf = (period: PeriodIndex): readonly Budget[] => {
      let there = known.get(period);
      if (!there) known.set(period, (there = [...of.plansAt(period)]));
      return there;
    };
    let last = of.periods.findLast((p) => planOf(p.index).length > 0)?.index ?? null;
    const end = of.periods.at(-1)?.index;
    if (last !== null && last === end) while (planOf(last + 1).length > 0) last++;
    planned.set(of, (own = { planOf, last }));
  }
  return own;
}

/** So many periods after the plan's end at least are looked into. */
const BEYOND = 13;

/**
 * What an account comes to in the planned periods and after them, whoever plans them: where nobody does, the same period a
 * year earlier, planned or actual, else the last that is planned.
 */
function aheadMonths(
  ground: Ground,
  whole: Reckoned,
  { id }: Account,
  segment: SegmentId,
  of: LinesOf,
  terms: Terms,
): readonly Minor[] {
  const { calendar } = ground;
  const { periods } = of;
  const { planOf, last } = planners(of);
  const made = new Map<Budget, ((index: PeriodIndex) => Minor) | null>();
  const monthsOf = (budget: Budget) => {
    const by = budget === whole.budget ? whole : reckoned(ground, budget);
    const figures = by.figures(id, segment) ?? (segment === null ? by.figures(id, 'all') : null);
    if (!figures) return null;
    const rows = by.reckoning.scheduled({ account: id, segment });
    const first = by.facts.periods[0]!.index;
    return (index: PeriodIndex) => beyondRows(figures.amounts, rows, index - first);
  };
  const plannedIn = (index: PeriodIndex): Minor | null => {
    const plans = planOf(index);
    if (plans.length === 0) return null;
    // Of several places the line's own budget, else one that has the line.
    const own = plans.includes(whole.budget) ? [whole.budget] : plans;
    for (const budget of own) {
      let months = made.get(budget);
      if (months === undefined) made.set(budget, (months = monthsOf(budget)));
      if (months) return months(index);
    }
    return ZERO;
  };
  const at = (index: PeriodIndex): Minor => {
    const planned = plannedIn(index);
    if (planned !== null) return planned;
    for (
      let q = yearsBefore(calendar, index);
      q !== null && q > index - 3 * BEYOND;
      q = yearsBefore(calendar, q)
    ) {
      const earlier = whole.facts.isActual(q) ? (whole.facts.actual(id, segment, q) ?? ZERO) : plannedIn(q);
      if (earlier !== null) return earlier;
    }
    return (last === null ? null : plannedIn(last)) ?? ZERO;
  };
  const every = Math.max(0, ...terms.parts.map(({ rule }) => (rule.kind === 'inAdvance' ? rule.every : 0)));
  const from = periods[0]?.index ?? 0;
  return Array.from({ length: periods.length + Math.max(BEYOND, 2 * every) }, (_, i) => at(from + i));
}

const byId = new WeakMap<readonly Account[], ReadonlyMap<string, Account>>();
export function accountsById(accounts: readonly Account[]): ReadonlyMap<string, Account> {
  let map = byId.get(accounts);
  if (!map) byId.set(accounts, (map = new Map(accounts.map((a) => [a.id, a]))));
  return map;
}

/** Lines by their figures, whose identity tells when they change, for one span of periods and one epoch. */
const known = new WeakMap<
  Amounts,
  { readonly span: string; readonly epoch: object; readonly line: PlannedLine }
>();
