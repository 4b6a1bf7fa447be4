import { periodsOf, toDayNumber, yearsBefore, type PeriodIndex } from '@/core/calendar';
import { actualOf, entriesOf, oddMonths, type OddMonth } from '@/core/ledger';
import { divideRounded, minor, plus, sumBlank, ZERO, type Minor } from '@/core/money';
import { lineOf, natural, segmentName, type Account, type Axis, type Line } from '@/core/model';
import { occurrencesIn } from '@/core/schedule';
import { actualsOf } from './actuals';
import { actualsIn, entriesView, type Comparison } from './comparison';
import { flexibleOf } from './flexible';
import type { Ground } from './ground';
import { plannedAt } from './outlook';
import { reckoned } from './reckoned';
import { partsOf, type Sized, type ToldPart } from './toldParts';

/** Why an account of a month came to something else than was planned. */
export type Told = {
  /**
   * What comes to the difference, exactly, largest first: entries that stand elsewhere, more or fewer units at planned rates,
   * and what the entries tell of the rest.
   */
  readonly parts: readonly (
    | ToldPart
    | { readonly of: 'elsewhere'; readonly amount: Minor; readonly entries: readonly never[] }
    /** By drivers that were counted, or by what lines are a share of. */
    | {
        readonly of: 'activity';
        readonly by: 'drivers' | 'share';
        readonly amount: Minor;
        readonly entries: readonly never[];
      }
  )[];
  /** The month that the plan goes by; null where it goes by none. */
  readonly basis: PeriodIndex | null;
  /** Where it came about, where places differ: the parts come to the difference as well. */
  readonly places: { readonly axis: string; readonly parts: readonly Place[]; readonly sure: boolean } | null;
  /** What is odd about the month by itself. */
  readonly odd: OddMonth['kind'] | null;
};

type Place = { readonly name: string; readonly amount: Minor };

/** The months whose entries are looked at beside a month's. */
const BEFORE = 12;
const AFTER = 2;

/**
 * What the entries tell of a difference (natural, actual − compared) in a month. `comparison`: of which part of the company it
 * is, and what was planned of it; `beside`: what the difference is to.
 */
export function toldOf(
  ground: Ground,
  account: Account,
  month: PeriodIndex,
  difference: Minor,
  comparison: Comparison | null,
  beside: 'plan' | 'lastYear',
): Told {
  const { calendar, blocks } = ground;
  const view = comparison ? entriesView(ground, comparison) : ground.view;
  const plan = beside === 'plan' ? comparison : null;
  const lines = plan ? linesIn(plan, account) : [];
  const bases = plan ? lines.map((line) => basisOf(ground, line, month)) : [yearsBefore(calendar, month)];
  // Lines that go by different months go by none together.
  const goesBy = bases.length > 0 && bases.every((b) => b === bases[0]) ? bases[0]! : null;
  const first = Math.min(month - BEFORE, goesBy ?? month);
  const all = entriesOf(blocks, calendar, account.id, { first, last: month + AFTER }, view)
    .filter((e) => e.mark === 'activity')
    .map((entry): Sized => ({
      entry,
      size: natural(account.kind, entry.amount),
      name: entry.counterparty || entry.memo || entry.reference,
      period: calendar.indexOfDay(toDayNumber(entry.day)),
    }));
  const now = all.filter((e) => e.period === month);
  const came = now.reduce((t, e) => plus(t, e.size), 0);
  const elsewhere = sumBlank(actualsIn(ground, comparison).map((a) => a.moved(account, month))) ?? ZERO;
  const planned = minor(came + elsewhere - difference);
  const activity = plan ? activityOf(ground, plan, account, month) : ZERO;
  const by = lines.every((line) => line.method.kind === 'share') ? ('share' as const) : ('drivers' as const);
  const parts = partsOf({
    now,
    around: all.filter((e) => e.period !== month && e.period >= month - BEFORE),
    month,
    planned: minor(planned + activity),
    basis: goesBy === null ? null : all.filter((e) => e.period === goesBy),
    paydays: paydaysOf(ground, lines, month),
    regular: !lines.some((line) => line.method.kind === 'schedule'),
  });
  return {
    parts: [
      ...(elsewhere === 0 ? [] : [{ of: 'elsewhere' as const, amount: elsewhere, entries: [] }]),
      ...(activity === 0 ? [] : [{ of: 'activity' as const, by, amount: activity, entries: [] }]),
      ...parts,
    ].toSorted((a, b) => rank(b) - rank(a)),
    basis: goesBy,
    places: placesOf(ground, account, month, difference, comparison, plan, goesBy, planned),
    odd: oddOf(ground, account, month),
  };
}

/** The largest first, the rest last. */
const rank = ({ of, amount }: { readonly of: string; readonly amount: Minor }): number =>
  of === 'rest' ? -1 : Math.abs(amount);

const linesIn = ({ parts }: Comparison, { id }: Account): Line[] =>
  parts.flatMap(({ budget, segments }) =>
    segments.flatMap((segment) => lineOf(budget, { account: id, segment }) ?? []),
  );

/** The month whose entries a line's month is planned by; null where it is planned by none. */
function basisOf({ calendar }: Ground, { method, overrides }: Line, month: PeriodIndex): PeriodIndex | null {
  if (Object.hasOwn(overrides, calendar.period(month).id)) return null;
  switch (method.kind) {
    case 'lastYear':
      return method.from.of === 'budget' ? null : yearsBefore(calendar, month, method.from.years);
    case 'pattern':
      return method.like === null && method.years.length === 1
        ? yearsBefore(calendar, month, method.years[0]!)
        : null;
    default:
      return null;
  }
}

/** How often the one line of an account has it paid in a month; null where it does not say. */
function paydaysOf({ calendar, book }: Ground, lines: readonly Line[], month: PeriodIndex): number | null {
  const [only, ...more] = lines;
  if (!only || more.length > 0 || only.method.kind !== 'occurrence') return null;
  return occurrencesIn(calendar.period(month), only.method.on, book.workWeek).length;
}

/** The part of a difference that is more or fewer units, at planned rates. */
function activityOf(ground: Ground, { parts }: Comparison, { id }: Account, month: PeriodIndex): Minor {
  const changes = parts.flatMap(({ budget, segments }) => {
    const whole = reckoned(ground, budget);
    const flexible = flexibleOf(ground, whole);
    return segments.flatMap((s) => {
      const [was, is] = [plannedAt(whole, id, s, month).amount, flexible.at(id, s, month)];
      return was === null || is === null ? [] : [minor(is - was)];
    });
  });
  return sumBlank(changes) ?? ZERO;
}

/**
 * A difference by the values of an axis: of budgets that tell them apart as they do; else by what each had of the month that
 * the plan goes by. Nothing where it is of one place, or where all of them have their part of it.
 */
function placesOf(
  ground: Ground,
  account: Account,
  month: PeriodIndex,
  difference: Minor,
  comparison: Comparison | null,
  plan: Comparison | null,
  basis: PeriodIndex | null,
  planned: Minor,
): Told['places'] {
  const { axes } = ground.book;
  const own = plan && plan.axis !== null && plan.segments.length > 1 ? plan.axis : null;
  for (const axis of own ? [own] : comparison && !comparison.company ? [] : axes) {
    const parts = own
      ? plannedApart(ground, account, month, plan!, own)
      : basis === null
        ? null
        : apartBy(ground, account, month, axis, basis, planned);
    if (!parts) continue;
    const said = parts.filter((p) => p.amount !== 0);
    const most = Math.max(...said.map((p) => Math.abs(p.amount)), 0);
    const sum = said.reduce((t, p) => t + p.amount, 0);
    // Sums that are rounded, or entries that stand elsewhere, are no news of a place.
    if (said.length < 2 || Math.abs(sum - difference) > said.length) continue;
    if (most * 100 >= Math.abs(difference) * 60)
      return {
        axis: axis.name,
        parts: said.toSorted((a, b) => Math.abs(b.amount) - Math.abs(a.amount)),
        sure: own !== null,
      };
  }
  return null;
}

function plannedApart(
  ground: Ground,
  account: Account,
  month: PeriodIndex,
  { parts }: Comparison,
  axis: Axis,
): Place[] {
  return parts.flatMap(({ budget, segments }) => {
    const whole = reckoned(ground, budget);
    return segments.map((s) => {
      const now = actualsOf(ground, axis.id, s).shown(account, month) ?? ZERO;
      const planned = plannedAt(whole, account.id, s, month).amount ?? ZERO;
      return { name: segmentName(axis, s), amount: minor(now - planned) };
    });
  });
}

function apartBy(
  ground: Ground,
  account: Account,
  month: PeriodIndex,
  axis: Axis,
  basis: PeriodIndex,
  planned: Minor,
): Place[] | null {
  const values = [...axis.values.map((v) => v.id), null];
  const at = (p: PeriodIndex) => values.map((s) => actualsOf(ground, axis.id, s).shown(account, p) ?? ZERO);
  const [now, then] = [at(month), at(basis)];
  const all = then.reduce((t, v) => plus(t, v), 0);
  if (all === 0) return null;
  return values.map((s, i) => ({
    name: segmentName(axis, s),
    amount: minor(now[i]! - divideRounded(planned, then[i]!, all, 'halfAwayFromZero')),
  }));
}

/** Whether a month is odd beside the account's own months in a way that says something of it by itself. */
function oddOf({ calendar, balances }: Ground, account: Account, month: PeriodIndex): Told['odd'] {
  const { range } = balances;
  if (!range || month < range.first || month > range.last) return null;
  const months = periodsOf(calendar, { first: range.first, last: month });
  const odd = oddMonths(
    months.map((p) => actualOf(balances, account, p.index)),
    account.usual,
  ).find((o) => o.at === months.length - 1);
  return odd && (odd.kind === 'sign' || odd.kind === 'outside') ? odd.kind : null;
}
