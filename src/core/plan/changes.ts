import { indexOfId, type PeriodIndex } from '@/core/calendar';
import {
  blankLine,
  isProfitAndLoss,
  lineKey,
  linesOfRow,
  segmentsOfRow,
  type Account,
  type Budget,
  type Line,
  type Reach,
  type ScheduleRow,
  type SegmentId,
} from '@/core/model';
import {
  isOfOneLine,
  isOn,
  leftOutBy,
  namesOfWay,
  reaches,
  timesIn,
  type AmountChange,
  type Assumed,
  type AssumptionOf,
} from '@/core/scenario';
import type { Facts } from './facts';
import { needsOf } from './methods/table';
import type { Reckoning } from './results';
import type { Minor } from '@/core/money';

/* What a case makes of a budget's lines and drivers: which lines an adjustment reaches, and what it does to each. */

/** Why an adjustment does not reach a line that it names. */
export type Unreached = {
  readonly adjustment: string;
  readonly because: 'noLine' | 'bySchedule' | 'severalLines' | 'noDriver';
};

/** By line, or driver, in the order of the list; the same list while nothing of it changes. */
type ByKey = ReadonlyMap<string, readonly AmountChange[]>;

export type PlanChanges = {
  readonly lines: ByKey;
  readonly drivers: ByKey;
  /** What was taken into the plan: before what is typed over it, and before all else. */
  readonly first: { readonly lines: ByKey; readonly drivers: ByKey };
  /** Lines that only the case has. */
  readonly added: readonly Line[];
  /** What lines need because of their changes; another text, another order of reckoning. */
  readonly needs: string;
  readonly unreached: readonly Unreached[];
};

export const NO_CHANGES: PlanChanges = {
  lines: new Map(),
  drivers: new Map(),
  first: { lines: new Map(), drivers: new Map() },
  added: [],
  needs: '',
  unreached: [],
};

type Wide = Exclude<Reach['lines'][number], { readonly of: 'account' }>;
const isWide = (l: Reach['lines'][number]): l is Wide => l.of !== 'account';

type Change = AssumptionOf<'amounts' | 'linesMoved'>;

/** What an assumption does in each month of the plan, and by what it is known to be the same. */
type Made = { readonly change: AmountChange; readonly sign: string };

/**
 * What assumptions do to the lines of a budget, and what was taken into it does. `closed`: the last period that nothing is
 * changed in by assumptions; `rows`: the rows that assumptions add to it, which a line by schedule takes, and another has beside
 * its own amounts; `was`: the last time.
 */
export function planChanges(
  budget: Pick<Budget, 'lines' | 'drivers' | 'segments' | 'applied'>,
  facts: Facts,
  assumed: Assumed,
  closed: PeriodIndex | null,
  rows: readonly ScheduleRow[],
  was: PlanChanges,
): PlanChanges {
  const openAfter = (last: PeriodIndex | null) => facts.periods.map((p) => last === null || p.index > last);
  const isOpen = openAfter(closed);
  const unreached: Unreached[] = [];
  const accounts = new Map(facts.accounts.map((a) => [a.id, a]));
  const added: Line[] = [];
  const lines: Gathered = new Map();
  const drivers: Gathered = new Map();
  const first = { lines: new Map() as Gathered, drivers: new Map() as Gathered };
  const put = (on: Gathered, key: string, { change, sign }: Made): void => {
    let there = on.get(key);
    if (!there) on.set(key, (there = { changes: [], signs: [] }));
    there.changes.push(change);
    there.signs.push(sign);
  };
  for (const { adjustment, size, after } of budget.applied) {
    const a = { adjustment, size };
    const open = openAfter(after === null ? null : indexOfId(facts.calendar, after));
    if (isOn(a, 'driver')) {
      // What was typed of a quantity was written anew.
      const driver = budget.drivers.find((d) => d.id === a.adjustment.what.driver);
      if (driver && driver.series.kind !== 'typed') put(first.drivers, driver.id, madeOf(a, facts, open));
    } else if (isOn(a, 'amounts', 'linesMoved'))
      for (const key of linesReached(a, budget, facts, accounts, [], []))
        put(first.lines, key, madeOf(a, facts, open));
  }
  // Rows come first: what is said of all of a line is said of them too where it takes them.
  const own = new Map(rows.length === 0 ? [] : budget.lines.map((l) => [lineKey(l), l]));
  for (const { account, segment, ids } of linesWithRows(rows)) {
    const line = own.get(lineKey({ account, segment }));
    if (line === undefined) added.push(bySchedule(account, segment));
    else if (line.method.kind !== 'schedule') {
      const change: AmountChange = { as: 'rows', id: ids[0]!, rows: ids, open: isOpen };
      put(lines, lineKey(line), { change, sign: JSON.stringify(change) });
    }
  }
  for (const a of assumed) {
    const { id } = a.adjustment;
    if (isOn(a, 'driver')) {
      const { driver } = a.adjustment.what;
      if (budget.drivers.some((d) => d.id === driver)) put(drivers, driver, madeOf(a, facts, isOpen));
      else unreached.push({ adjustment: id, because: 'noDriver' });
    } else if (isOn(a, 'amounts', 'linesMoved')) {
      const reached = linesReached(a, budget, facts, accounts, added, unreached);
      if (reached.length === 0) continue;
      const made = madeOf(a, facts, isOpen);
      for (const key of reached) put(lines, key, made);
    }
  }
  return {
    lines: steady(lines, was.lines),
    drivers: steady(drivers, was.drivers),
    first: {
      lines: steady(first.lines, was.first.lines),
      drivers: steady(first.drivers, was.first.drivers),
    },
    added: sameLines(added, was.added) ? was.added : added,
    needs: [needsText(first.lines), needsText(lines)].join('\n\n'),
    unreached,
  };
}

type Gathered = Map<string, { changes: AmountChange[]; signs: string[] }>;

/** What an assumption does in each month of the plan. */
function madeOf(
  { adjustment: { id, what, when }, size }: Change | AssumptionOf<'driver'>,
  { calendar, periods }: Facts,
  open: readonly boolean[],
): Made {
  const timesOf = (stays: boolean, closedToo: boolean): number[] => {
    const times = timesIn(calendar, when, stays);
    return periods.map((p, i) => (open[i] || closedToo ? times(p.index) : 0));
  };
  const change: AmountChange =
    what.on === 'linesMoved'
      ? {
          as: 'moved',
          id,
          months: size,
          // What was moved out of a month that has closed since is still to come.
          covered: timesOf(false, true).map((k) => k > 0),
          open,
        }
      : {
          as: 'way',
          id,
          way: what.way,
          size,
          times: timesOf(what.way.as === 'growth' && what.way.stays, false),
          ramp: when.ramp,
        };
  return { change, sign: JSON.stringify(change) };
}

/** The same lists for lines whose changes are the same as before. */
function steady(
  now: ReadonlyMap<string, { readonly changes: readonly AmountChange[]; readonly signs: readonly string[] }>,
  was: ReadonlyMap<string, readonly AmountChange[]>,
): ReadonlyMap<string, readonly AmountChange[]> {
  const out = new Map<string, readonly AmountChange[]>();
  for (const [key, { changes, signs }] of now) {
    const before = was.get(key);
    const same = before?.length === changes.length && before.every((c, i) => signOf(c) === signs[i]);
    out.set(key, same ? before : changes);
    for (const [i, c] of changes.entries()) known.set(c, signs[i]!);
  }
  return out;
}
const known = new WeakMap<AmountChange, string>();
const signOf = (c: AmountChange): string => known.get(c) ?? JSON.stringify(c);

const sameLines = (a: readonly Line[], b: readonly Line[]): boolean =>
  a.length === b.length &&
  a.every((l, i) => lineKey(l) === lineKey(b[i]!) && l.method.kind === b[i]!.method.kind);

/** What lines follow because of their changes. */
function needsText(lines: ReadonlyMap<string, { readonly changes: readonly AmountChange[] }>): string {
  const out: string[] = [];
  for (const [key, { changes }] of lines)
    for (const c of changes)
      if (c.as === 'rows') out.push(`${key} ${c.rows.join()}`);
      else if (c.as === 'way' && c.way.as === 'formula')
        out.push(`${key} ${JSON.stringify(namesOfWay(c.way))}`);
  return out.join('\n');
}

/** The lines of profit and loss that rows make, each with the rows. */
function linesWithRows(rows: readonly ScheduleRow[]) {
  const out = new Map<string, { account: string; segment: SegmentId; ids: string[] }>();
  for (const row of rows)
    for (const account of linesOfRow(row))
      for (const segment of segmentsOfRow(row)) {
        const key = lineKey({ account, segment });
        const there = out.get(key);
        if (!there) out.set(key, { account, segment, ids: [row.id] });
        else if (!there.ids.includes(row.id)) there.ids.push(row.id);
      }
  return out.values();
}

const bySchedule = (account: string, segment: SegmentId): Line => ({
  ...blankLine({ account, segment }),
  method: { kind: 'schedule', beside: {} },
});
const byMonth = (account: string, segment: SegmentId): Line => ({
  ...blankLine({ account, segment }),
  method: { kind: 'byMonth', amounts: {} },
});

/** The keys of the lines that an adjustment of amounts reaches. */
function linesReached(
  { adjustment: { id, what } }: Change,
  budget: Pick<Budget, 'lines' | 'segments'>,
  facts: Facts,
  accounts: ReadonlyMap<string, Account>,
  added: Line[],
  unreached: Unreached[],
): readonly string[] {
  const { reach } = what;
  const stuck = (because: Unreached['because']) => {
    unreached.push({ adjustment: id, because });
    return [];
  };
  const named = reach.lines.flatMap((l) => (l.of === 'account' ? [l.account] : []));
  if (what.on === 'amounts' && isOfOneLine(what.way)) {
    const [account] = named;
    if (named.length !== 1 || reach.lines.length !== 1 || account === undefined) return stuck('severalLines');
    const own = [...budget.lines, ...added].filter(
      (l) => l.account === account && (reach.segment === undefined || l.segment === reach.segment),
    );
    const line = own.length > 1 ? own.find((l) => l.segment === null) : own[0];
    if (own.length > 1 && !line) return stuck('severalLines');
    if (line) return line.method.kind === 'schedule' ? stuck('bySchedule') : [lineKey(line)];
    // What nobody planned yet: a line of its own.
    if (!isProfitAndLoss(accounts.get(account)?.kind ?? 'bank')) return stuck('noLine');
    const segment = budget.segments.includes(reach.segment ?? null)
      ? (reach.segment ?? null)
      : (budget.segments[0] ?? null);
    const fresh = byMonth(account, segment);
    added.push(fresh);
    return [lineKey(fresh)];
  }
  const { keys, by } = membersReached(what, budget.lines, added, facts, accounts);
  return keys.length > 0 ? keys : stuck(by > 0 ? 'bySchedule' : 'noLine');
}

/** Lines that an adjustment reaches, and of how many lines that is. */
type Members = { readonly keys: readonly string[]; readonly by: number };
/** Whom an adjustment reaches does not hang on its size: while it is tried in one after another, nothing of it is looked for again. */
const remembered = new WeakMap<
  Change['adjustment']['what'],
  WeakMap<readonly Line[], { readonly from: readonly unknown[]; readonly of: Members }>
>();

function membersReached(
  what: Change['adjustment']['what'],
  lines: readonly Line[],
  added: readonly Line[],
  facts: Facts,
  accounts: ReadonlyMap<string, Account>,
): Members {
  const from = [facts, ...added];
  let byLines = remembered.get(what);
  if (!byLines) remembered.set(what, (byLines = new WeakMap()));
  const last = byLines.get(lines);
  if (last?.from.length === from.length && last.from.every((x, i) => x === from[i])) return last.of;
  const { reach } = what;
  const there = [...lines, ...added].filter((l) => {
    const account = accounts.get(l.account);
    return account !== undefined && isProfitAndLoss(account.kind) && reaches(reach, account, l.segment);
  });
  let reached = there.filter((l) => l.method.kind !== 'schedule');
  if (reached.length > 0 && reach.lines.some(isWide)) {
    const explicit = new Set(reach.lines.flatMap((l) => (l.of === 'account' ? [l.account] : [])));
    const follows = followers(reached, lines, facts);
    reached = reached.filter((l) => explicit.has(l.account) || !follows(l));
  }
  const of = { keys: reached.map(lineKey), by: there.length };
  byLines.set(lines, { from, of });
  return of;
}

/**
 * Of lines that are reached together, those that follow nothing but lines among them: they move by themselves. A line that
 * follows a driver, or a line outside of them, does not.
 */
function followers(reached: readonly Line[], lines: readonly Line[], facts: Facts): (line: Line) => boolean {
  const inside = new Set(reached.map(lineKey));
  const all = new Set(lines.map(lineKey));
  return ({ method, segment }) => {
    const needs = needsOf(method);
    if (needs.length === 0) return false;
    return needs.every(({ name }) => {
      if (name.of === 'driver') return false;
      const members = facts
        .members(name)
        .map((account) => lineKey({ account, segment }))
        .filter((key) => all.has(key));
      return members.length > 0 && members.every((key) => inside.has(key));
    });
  };
}

/** A month's amount of a line that a shift leaves out: it would come to lie where nothing is planned, or in a closed month. */
export type LeftOut = { readonly account: string; readonly period: PeriodIndex; readonly amount: Minor };

/** What the shift of an adjustment leaves out of a plan, given the plan without it and with it alone. */
export function leftOutOf(
  adjustment: string,
  before: Pick<Reckoning, 'lines'>,
  after: Pick<Reckoning, 'lines' | 'stepsOf'>,
  { periods }: Facts,
): readonly LeftOut[] {
  return [...after.lines].flatMap(([line]) => {
    const amounts = before.lines.get(line)?.amounts ?? [];
    return after.stepsOf(line, amounts, 'case').flatMap(({ change }) =>
      change.as === 'moved' && change.id === adjustment
        ? leftOutBy(change, amounts).map((i) => ({
            account: line.account,
            period: periods[i]!.index,
            amount: amounts[i]!,
          }))
        : [],
    );
  });
}
