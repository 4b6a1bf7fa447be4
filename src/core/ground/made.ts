import { civilOf, indexOfId, toDayNumber, type DayNumber, type PeriodIndex } from '@/core/calendar';
import { monthInterest, type BorneBy } from '@/core/cash';
import { minor } from '@/core/money';
import {
  isProfitAndLoss,
  lineKey,
  natural,
  type Account,
  type AccountId,
  type Book,
  type Budget,
  type Cash,
  type LineRef,
  type SegmentId,
  type Terms,
} from '@/core/model';
import {
  madeOn,
  NOTHING_AHEAD,
  sameAmounts,
  sameMadeLine,
  sameMadeLines,
  type Amounts,
  type FromAhead,
  type Made,
  type MadeLine,
} from '@/core/plan';
import { isStandIn, lostOf, STAND_INS } from '@/core/schedule';
import { accountsById, type MonthsOfPlan } from './cashPlan';
import type { CashView } from './cashView';
import type { Ground } from './ground';
import type { Reckoned } from './reckoned';

/* What money ahead brings to lines of the plan: what terms never collect, and the interest of the credit line. */

/** What money ahead brings to each budget, by its id. */
export type MadeBy = ReadonlyMap<string, FromAhead>;

/** How a budget's lines take what is lost on an account: they make it, have amounts of their own, or there are none. */
type Takes =
  { readonly as: 'made'; readonly segment: SegmentId } | { readonly as: 'own' } | { readonly as: 'none' };

/** Of some lines of an account the one that is of no segment, else the first. */
const unassigned = <L extends LineRef>(lines: readonly L[]): L | undefined =>
  lines.find((l) => l.segment === null) ?? lines[0];

function takes({ lines }: Budget, account: AccountId): Takes {
  const own = lines.filter((l) => l.account === account);
  const made = own.filter((l) => l.method.kind === 'schedule');
  const line = unassigned(made);
  if (line) return { as: 'made', segment: line.segment };
  return { as: own.length > 0 ? 'own' : 'none' };
}

/** Of which budget's line it is in a month; `against`: of none, since the line has amounts of its own. */
type Bearer = { readonly budget: Budget; readonly segment: SegmentId } | 'against' | null;

/** Where no line takes it, one is made: unassigned where the budget has that. */
const segmentOf = ({ segments }: Budget): SegmentId =>
  segments.includes(null) ? null : (segments[0] ?? null);

function bearerIn(plans: readonly Budget[], account: AccountId): Bearer {
  const all = plans.map((budget) => ({ budget, takes: takes(budget, account) }));
  for (const { budget, takes: t } of all) if (t.as === 'made') return { budget, segment: t.segment };
  if (all.some((a) => a.takes.as === 'own')) return 'against';
  return all[0] ? { budget: all[0].budget, segment: segmentOf(all[0].budget) } : null;
}

/** The budgets of each period. */
function byPeriod(plans: readonly MonthsOfPlan[]): ReadonlyMap<PeriodIndex, readonly Budget[]> {
  const out = new Map<PeriodIndex, Budget[]>();
  for (const { budget, periods } of plans)
    for (const { index } of periods) {
      const there = out.get(index);
      if (there) there.push(budget);
      else out.set(index, [budget]);
    }
  return out;
}

export type Bearers = {
  readonly bearerOf: (account: AccountId, period: PeriodIndex) => Bearer;
  readonly borneBy: BorneBy;
  /** In which budget's outlook it stands what an account moves beside the plan. */
  readonly plannerOf: (account: AccountId, period: PeriodIndex) => Bearer;
};

/** Who bears what of each month, by the plans of the months. */
export function makeBearers(
  ground: Pick<Ground, 'calendar' | 'book'>,
  plans: readonly MonthsOfPlan[],
  against: (account: Account) => AccountId,
): Bearers {
  const byId = accountsById(ground.book.accounts);
  const plansAt = byPeriod(plans);
  const known = new Map<string, Bearer>();
  const bearerOf = (account: AccountId, period: PeriodIndex): Bearer => {
    const kind = byId.get(account)?.kind;
    // Of an account that the book has not, no plan can have a line.
    if (kind === undefined) return 'against';
    if (!isProfitAndLoss(kind)) return null;
    const key = `${period} ${account}`;
    let bearer = known.get(key);
    if (bearer === undefined) known.set(key, (bearer = bearerIn(plansAt.get(period) ?? [], account)));
    return bearer;
  };
  const borneBy: BorneBy = (account, day) => {
    if (bearerOf(account, ground.calendar.indexOfDay(day)) !== 'against') return account;
    const of = byId.get(account);
    return of ? against(of) : STAND_INS.against;
  };
  const plannerOf = (account: AccountId, period: PeriodIndex): Bearer => {
    const all = plansAt.get(period) ?? [];
    const budget = all.find((b) => b.lines.some((l) => l.account === account)) ?? all[0];
    if (!budget) return null;
    const line = unassigned(budget.lines.filter((l) => l.account === account));
    return { budget, segment: line ? line.segment : segmentOf(budget) };
  };
  return { bearerOf, borneBy, plannerOf };
}

/** What a line without money of an account stands against, where its amounts are the plan's own. */
export const againstOf = ({ parts }: Terms): AccountId =>
  parts.flatMap(({ rule }) => (rule.kind === 'withoutMoney' ? [rule.against] : [])).find((a) => a !== null) ??
  STAND_INS.against;

/** What accounts move beside the plan, debits positive. */
export type Beyond = readonly {
  readonly account: AccountId;
  readonly period: PeriodIndex;
  readonly amount: number;
}[];

type MadePart = LineRef & { readonly of: MadeLine['parts'][number]['of']; readonly amounts: number[] };

class Gathered {
  private readonly of = new Map<string, Map<string, MadePart>>();

  add(budget: Budget, place: number, of: MadePart['of'], ref: LineRef, amount: number): void {
    let own = this.of.get(budget.id);
    if (!own) this.of.set(budget.id, (own = new Map()));
    const key = `${lineKey(ref)} ${of}`;
    let there = own.get(key);
    if (!there) own.set(key, (there = { ...ref, of, amounts: new Array<number>(budget.length).fill(0) }));
    if (place >= 0 && place < budget.length) there.amounts[place]! += amount;
  }

  /** Of each budget, as many lists of lines as there are; what did not change since `was` is the same. */
  taken(was: MadeBy): MadeBy {
    const out = new Map<string, FromAhead>();
    for (const [budget, parts] of this.of) {
      const before = was.get(budget) ?? NOTHING_AHEAD;
      const all = [...parts.values()];
      const made = linesOf(
        all.filter((p) => p.of !== 'beyond'),
        before.made,
      );
      const beyond = linesOf(
        all.filter((p) => p.of === 'beyond'),
        before.beyond,
      );
      out.set(budget, made === before.made && beyond === before.beyond ? before : { made, beyond });
    }
    return out;
  }
}

/** Parts by their lines; those that are as before are the same. */
function linesOf(parts: readonly MadePart[], before: Made): Made {
  const lines = new Map<string, LineRef & { parts: MadeLine['parts'][number][] }>();
  for (const { account, segment, of, amounts } of parts) {
    if (amounts.every((a) => a === 0)) continue;
    const key = lineKey({ account, segment });
    const line = lines.get(key) ?? { account, segment, parts: [] };
    line.parts.push({ of, amounts });
    lines.set(key, line);
  }
  const next = [...lines.values()].map((line): MadeLine => {
    const was = madeOn(before, line);
    return was && sameMadeLine(was, line) ? was : line;
  });
  return sameMadeLines(before, next) && next.every((l, i) => l === before[i]) ? before : next;
}

/** What money ahead brings to the lines of each budget; `was`: the last time, for what stays the same. */
export function madeIn(
  ground: Ground,
  { input, projected, forecast, creditLine, pastPlans, bearers }: CashView,
  beyond: Beyond,
  was: MadeBy,
): MadeBy {
  const { calendar, book } = ground;
  const byId = accountsById(book.accounts);
  const out = new Gathered();
  const put = (
    of: MadePart['of'],
    account: AccountId,
    period: PeriodIndex,
    amount: number,
    bearer: Bearer,
  ): void => {
    const kind = byId.get(account)?.kind;
    if (amount === 0 || kind === undefined || !isProfitAndLoss(kind)) return;
    if (bearer === null || bearer === 'against') return;
    const { budget, segment } = bearer;
    const place = period - indexOfId(calendar, budget.first)!;
    out.add(budget, place, of, { account, segment }, natural(kind, minor(amount)));
  };
  const { ids } = projected.table;
  ids.forEach((id, place) => {
    const account = lostOf(id);
    const moved = projected.moved[place];
    if (account === null || !moved) return;
    input.periods.forEach(({ index }, k) =>
      put('lost', account, index, moved[k]!, bearers.bearerOf(account, index)),
    );
  });
  const interest = creditLine?.interest ?? null;
  if (interest !== null)
    for (const { what, day, amount } of forecast.moves) {
      const period = calendar.indexOfDay(day);
      if (what === 'interest') put('interest', interest, period, -amount, bearers.bearerOf(interest, period));
    }
  // Closed months of a draft go by what was invoiced and drawn in them.
  for (const [period, plans] of byPeriod(pastPlans)) {
    const at = input.past.findIndex((p) => p.index === period);
    const putClosed = (of: 'lost' | 'interest', account: AccountId, amount: number) => {
      const bearer = bearerIn(plans, account);
      if (bearer !== null && bearer !== 'against' && !bearer.budget.approved)
        put(of, account, period, amount, bearer);
    };
    for (const [account, amounts] of projected.lostBefore) putClosed('lost', account, amounts[at] ?? 0);
    if (interest !== null) putClosed('interest', interest, interestIn(ground, creditLine!, period));
  }
  for (const { account, period, amount } of beyond)
    put('beyond', account, period, amount, bearers.plannerOf(account, period));
  return out.taken(was);
}

/** The interest of a closed period by what was drawn when it began, for each month that ends in it. */
function interestIn(
  { balances, calendar }: Pick<Ground, 'balances' | 'calendar'>,
  { account, rate }: NonNullable<Cash['creditLine']>,
  period: PeriodIndex,
): number {
  if (account === null || isStandIn(account)) return 0;
  const drawn = -balances.balance(account, period - 1, true);
  if (drawn <= 0) return 0;
  const { start, end } = calendar.period(period);
  let ends = 0;
  for (let d = toDayNumber(start); d <= toDayNumber(end); d++) if (civilOf(d + 1).date === 1) ends++;
  return ends * monthInterest(drawn, rate);
}

/**
 * What of money ahead is another, where plans are reckoned with what it makes: what schedules post, where a tax is on their
 * profit; the lines too, where something else follows from it, or someone expects an account otherwise. Null for nothing.
 */
export function feedsBack(
  { outlookWays }: Pick<Book, 'outlookWays'>,
  before: readonly Reckoned[],
  after: readonly Reckoned[],
): 'rows' | 'lines' | null {
  let rows = false;
  for (const [i, was] of before.entries()) {
    const now = after[i]!;
    if (was === now) continue;
    const expected = outlookWays[now.budget.id] ?? {};
    if ([...was.made, ...now.made].some((m) => Object.hasOwn(expected, m.account))) return 'lines';
    let place = 0;
    for (const [line, result] of now.reckoning.lines) {
      const then = was.reckoning.lines.at(place++);
      if (then !== result && !sameAmounts(beyondMade(was, line), beyondMade(now, line))) return 'lines';
    }
    for (const [id, row] of now.reckoning.rows)
      rows ||= was.reckoning.rows.get(id)?.postings !== row.postings;
  }
  return rows ? 'rows' : null;
}

/** What a line has beyond what schedules and money ahead make of it: what its terms are of. */
function beyondMade({ figures, reckoning }: Reckoned, { account, segment }: LineRef): Amounts {
  const made = reckoning.scheduled({ account, segment });
  return (figures(account, segment)?.amounts ?? []).map((a, i) => minor((a ?? 0) - (made?.[i] ?? 0)));
}

/** What a budget gets of two looks, by month: `rules` has 1 for those of the first, 0 for those of the second. */
export function madeTogether(first: FromAhead, second: FromAhead, rules: string): FromAhead {
  const join = (a: Made, b: Made): Made => {
    const keys = new Map([...a, ...b].map((l) => [lineKey(l), l]));
    return [...keys.values()].map(({ account, segment }) => {
      const parts = [a, b].flatMap((of, k) =>
        (madeOn(of, { account, segment })?.parts ?? []).map((p) => ({
          of: p.of,
          amounts: p.amounts.map((v, i) => (rules[i] === (k === 0 ? '1' : '0') ? v : 0)),
        })),
      );
      return { account, segment, parts };
    });
  };
  return { made: join(first.made, second.made), beyond: join(first.beyond, second.beyond) };
}

/** What is never paid, and interest, that no line of the plan takes, by account; null for none of the book. */
export function unborneOf({
  projected,
  forecast,
  creditLine,
  bearers,
  input,
}: CashView): readonly { readonly account: AccountId | null; readonly amount: number }[] {
  const out = new Map<AccountId | null, number>();
  const put = (account: AccountId, day: DayNumber, amount: number) => {
    if (amount === 0 || bearers.borneBy(account, day) === account) return;
    const of = isStandIn(account) ? null : account;
    out.set(of, (out.get(of) ?? 0) + amount);
  };
  projected.table.ids.forEach((id, place) => {
    const of = lostOf(id);
    if (of !== null)
      input.periods.forEach((p, k) => put(of, toDayNumber(p.end), projected.moved[place]?.[k] ?? 0));
  });
  for (const m of forecast.moves)
    if (m.what === 'interest') put(creditLine?.interest ?? STAND_INS.interest, m.day, -m.amount);
  return [...out].map(([account, amount]) => ({ account, amount }));
}
