import type { PeriodId } from '@/core/calendar';
import {
  lineKey,
  type Adjusts,
  type AdjustsOf,
  type AppliedAdjustment,
  type Budget,
  type Cash,
  type Driver,
  type Line,
  type Method,
  type ScheduleRow,
} from '@/core/model';
import { minor, type Minor } from '@/core/money';
import { NO_CHANGES, planChanges, type PlanChanges, type Reckoning, type Unreached } from '@/core/plan';
import {
  countedIn,
  isOn,
  reachesItem,
  type AmountChange,
  type Assumed,
  type Assumption,
} from '@/core/scenario';
import { cashOf } from './cash';
import type { Ground } from './ground';
import { groundAssuming, lastKnown, rowsAdded } from './inCase';
import { reckoned } from './reckoned';

/*
 * A case taken into a draft. What it makes of lines and terms goes on following from it there, by name; what it makes of rows and
 * quantities is written into them, and so is what a line has that was typed over: nobody should type a figure and see another.
 */

/** Why an adjustment is not taken in. */
export type NotApplied = Unreached['because'] | 'noRow' | 'nothing' | 'already';

/** What taking assumptions into a draft makes of it, as the command asks for it. */
export type Applying = {
  readonly applied: readonly AppliedAdjustment[];
  readonly lines: readonly Line[];
  readonly drivers: readonly Driver[];
  /** All rows; null where they stay as they are. */
  readonly schedules: readonly ScheduleRow[] | null;
  /** What changes of the company's money: every plan has it. */
  readonly cash: Pick<Cash, 'floor' | 'creditLine' | 'dated'> | null;
  readonly left: readonly { readonly adjustment: string; readonly because: NotApplied }[];
};

/** Taking assumptions into a draft that stands on the ground: afterwards the draft is what the case was over it. */
export function applying(ground: Ground, draft: Budget, asked: Assumed): Applying {
  const assumed = countedIn(asked, draft);
  const left: Applying['left'][number][] = asked
    .filter((a) => !assumed.includes(a))
    .map((a) => ({ adjustment: a.adjustment.id, because: 'already' }));
  const closed = lastKnown(ground);
  const after = closed === null ? null : ground.calendar.period(closed).id;
  const own = groundAssuming(ground, `apply ${draft.id}`, assumed);
  const there = own.book.budgets.find((b) => b.id === draft.id)!;
  const { facts, reckoning } = reckoned(own, there);
  const rows = own.inCase === null ? [] : rowsAdded(own.inCase, there);
  const changes = planChanges(there, facts, assumed, closed, rows, NO_CHANGES);
  const open = facts.periods.map((p) => closed === null || p.index > closed);
  const ids = facts.periods.map((p) => p.id);
  const { lines, written } = writtenLines(draft, changes, reckoning, ids, open);
  const drivers = draft.drivers.flatMap((d) => {
    const made = reckoning.drivers.get(d.id)?.values;
    return changes.drivers.has(d.id) && made ? typedDriver(d, made, ids, open) : [];
  });
  // As the case has them; what another plan wrote into the company's money already is none of it.
  const { schedules } = there;
  const { cash } = own.book;
  const applied: AppliedAdjustment[] = [];
  for (const a of assumed) {
    const because = whyNot(a, draft, rows, changes, ground);
    if (because === null)
      applied.push({
        adjustment: { ...a.adjustment, off: false, what: frozen(a, draft, changes, written) },
        size: a.size,
        after,
      });
    else left.push({ adjustment: a.adjustment.id, because });
  }
  return {
    applied,
    lines,
    drivers,
    schedules: schedules === draft.schedules ? null : schedules,
    cash:
      cash === ground.book.cash
        ? null
        : { floor: cash.floor, creditLine: cash.creditLine, dated: cash.dated },
    left,
  };
}

/** Why an assumption comes to nothing in a draft; null where it does something. */
function whyNot(
  a: Assumption,
  draft: Budget,
  added: readonly ScheduleRow[],
  changes: PlanChanges,
  ground: Ground,
): NotApplied | null {
  const { id } = a.adjustment;
  if (isOn(a, 'amounts', 'linesMoved', 'driver'))
    return changes.unreached.find((u) => u.adjustment === id)?.because ?? null;
  if (isOn(a, 'rowMoved', 'rowGone', 'rowField'))
    return [...draft.schedules, ...added].some((r) => r.id === a.adjustment.what.row) ? null : 'noRow';
  if (isOn(a, 'items'))
    return cashOf(ground, draft)?.items.some((i) => reachesItem(a.adjustment.what, i)) ? null : 'nothing';
  if (isOn(a, 'datedMoved'))
    return ground.book.cash.dated.some((d) => d.id === a.adjustment.what.item) ? null : 'nothing';
  return null;
}

const idsOf = (list: readonly AmountChange[]): readonly string[] =>
  list.flatMap((c) => (c.as === 'way' || c.as === 'moved' ? [c.id] : []));

/** An adjustment as a budget keeps it: of lines those that it reaches today, and that nothing was written into. */
function frozen(a: Assumption, draft: Budget, changes: PlanChanges, written: ReadonlySet<string>): Adjusts {
  if (!isOn(a, 'amounts', 'linesMoved')) return a.adjustment.what;
  const { id, what } = a.adjustment;
  const reached = draft.lines.filter((l) => {
    const key = lineKey(l);
    return !written.has(key) && idsOf(changes.lines.get(key) ?? []).includes(id);
  });
  const accounts = [...new Set(reached.map((l) => l.account))];
  return {
    ...what,
    reach: { ...what.reach, lines: accounts.map((account) => ({ of: 'account' as const, account })) },
  } as AdjustsOf<'amounts' | 'linesMoved'>;
}

/** Whether a change looks at no other month than the one that it changes. */
const isOfItsMonth = (c: AmountChange): boolean => c.as === 'way' && c.way.as !== 'onBefore';

/**
 * Lines into which something is written, whole; and of which of them all of it is, so that nothing follows from adjustments
 * there any more.
 */
function writtenLines(
  draft: Budget,
  changes: PlanChanges,
  reckoning: Reckoning,
  ids: readonly PeriodId[],
  open: readonly boolean[],
): { readonly lines: readonly Line[]; readonly written: ReadonlySet<string> } {
  const written = new Set<string>();
  const lines: Line[] = [];
  const months = (line: Line, only: (i: number) => boolean, less: (i: number) => number = () => 0) => {
    const amounts = reckoning.lines.get(line)?.amounts ?? [];
    return Object.fromEntries(
      ids.flatMap((id, i): [PeriodId, Minor | null][] => {
        const amount = amounts[i] ?? null;
        const rest = amount === null && less(i) === 0 ? null : minor((amount ?? 0) - less(i));
        return only(i) ? [[id, rest]] : [];
      }),
    );
  };
  const given = (all: Record<PeriodId, Minor | null>) =>
    Object.fromEntries(Object.entries(all).filter(([, v]) => v !== null));
  const put = (line: Line, method: Method, overrides: Line['overrides']) => {
    lines.push({ ...line, method, overrides });
    written.add(lineKey(line));
  };
  for (const line of changes.added)
    put(
      line,
      line.method.kind === 'schedule'
        ? line.method
        : { kind: 'byMonth', amounts: given(months(line, () => true)) },
      {},
    );
  const split = splitAccounts(draft, changes);
  for (const line of draft.lines) {
    const key = lineKey(line);
    const own = changes.lines.get(key);
    if (own === undefined) continue;
    const typed = (i: number) => open[i]! && Object.hasOwn(line.overrides, ids[i]!);
    const isTyped = ids.some((_, i) => typed(i));
    if (own.some((c) => c.as === 'rows')) {
      // What rows come to stands on top of what it has of its own.
      const made = reckoning.scheduled(line) ?? [];
      put(
        line,
        {
          kind: 'schedule',
          beside: given(
            months(
              line,
              () => true,
              (i) => made[i] ?? 0,
            ),
          ),
        },
        {},
      );
    } else if (split.has(line.account) || (isTyped && !own.every(isOfItsMonth)))
      put(line, line.method, { ...line.overrides, ...months(line, (i) => open[i]!) });
    else if (isTyped) lines.push({ ...line, overrides: { ...line.overrides, ...months(line, typed) } });
  }
  return { lines, written };
}

/** Accounts of which an adjustment reaches the line of one segment and not that of another: by account alone it would reach both. */
function splitAccounts(draft: Budget, changes: PlanChanges): ReadonlySet<string> {
  const met = new Map<string, string>();
  const split = new Set<string>();
  for (const line of draft.lines) {
    if (line.method.kind === 'schedule') continue;
    const ids = idsOf(changes.lines.get(lineKey(line)) ?? []).join();
    if ((met.get(line.account) ?? ids) !== ids) split.add(line.account);
    met.set(line.account, ids);
  }
  return split;
}

/** A quantity that was typed, with what it becomes typed; of another none: it goes on by its rule, and what changes it follows. */
function typedDriver(
  driver: Driver,
  made: readonly (number | null)[],
  ids: readonly PeriodId[],
  open: readonly boolean[],
): Driver[] {
  const { series } = driver;
  if (series.kind !== 'typed') return [];
  const values = { ...series.values };
  ids.forEach((id, i) => {
    if (open[i] && (made[i] ?? null) !== null) values[id] = made[i]!;
  });
  return [{ ...driver, series: { ...series, values } }];
}
