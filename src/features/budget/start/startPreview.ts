import { minor, percent, type Minor } from '@/core/money';
import { yearsBefore } from '@/core/calendar';
import type { Budget, Line } from '@/core/model';
import {
  carriedDrivers,
  carriedSchedules,
  startLines,
  type CarriedDrivers,
  type CarriedSchedules,
  type Facts,
  type StartChoice,
} from '@/core/plan';
import { budgetRows, fillStatement, rowTotal, type StatementRow } from '@/core/report';
import { aside, lastYearOf, reckoned, type Ground, type Memory } from '@/core/ground';

/** What a start would come to, row by row of the statement, beside what it starts from. */
export type StartPreview = {
  readonly rows: readonly {
    readonly row: StatementRow;
    readonly before: Minor | null;
    readonly plan: Minor | null;
    /** The change over the months whose counterparts are there; null where none are. */
    readonly change: Minor | null;
  }[];
  /** What stands before it: a year of the ledger, the outlook of a budget, or the budget itself. */
  readonly beside: 'lastYear' | 'outlook' | 'otherBudget';
  /** How many of the budget's months have counterparts that are there: a change is one of those alone. */
  readonly known: number;
};

/**
 * A budget as it would be, beside what it is taken from: like with like. The outlook or another budget stands beside
 * it as they are, without uplift or rounding; any other start is compared with the year before, as far as it is there.
 * `carried`: the budget whose schedules come along, `driven`: the one whose drivers do; null for none.
 */
export function startPreview(
  asked: Ground,
  empty: Budget,
  choice: StartChoice,
  memory: Memory,
  carried: Budget | null = null,
  driven: Budget | null = null,
): StartPreview & CarriedSchedules & Omit<CarriedDrivers, 'lines'> {
  const ground = aside(asked, memory);
  const { accounts } = ground.book;
  const { covers, segments, length } = empty;
  const { facts } = reckoned(ground, empty);
  const linesOf = (c: StartChoice, of = accounts) => startLines(c, of, facts, covers, segments);
  const plain = linesOf(choice);
  const kinds = new Map(accounts.map((a) => [a.id, a.kind]));
  const byDrivers =
    driven && choice.other ? driversOf(ground, driven, plain, facts, choice.other.years) : null;
  const drivers = byDrivers?.drivers ?? [];
  const { schedules, lines, left } =
    carried && choice.other
      ? carriedSchedules(carried, { ...empty, otherAxis: carried.axis }, byDrivers?.lines ?? plain, {
          calendar: facts.calendar,
          periods: facts.periods,
          years: choice.other.years,
          drivers: new Set(drivers.map((d) => d.id)),
          upliftOf: (account) => choice.upliftByKind[kinds.get(account)!] ?? choice.uplift,
        })
      : { schedules: [], lines: byDrivers?.lines ?? plain, left: [] };
  const whole = reckoned(ground, {
    ...empty,
    lines: [...lines],
    drivers: [...drivers],
    schedules: [...schedules],
  });

  const beside =
    choice.other && (choice.from === 'outlook' || choice.from === 'otherBudget') ? choice.from : 'lastYear';
  // Accounts no longer used belong to what was, though no line is made of them.
  const source = beside !== 'lastYear' && {
    ...empty,
    id: `${empty.id}/beside`,
    lines: linesOf(
      { ...choice, uplift: percent('0'), upliftByKind: {}, round: 0 },
      accounts.map((a) => (a.active ? a : { ...a, active: true })),
    ),
  };
  const was = source && reckoned(ground, source);
  const before = (id: string) => (was ? was.amounts(id) : lastYearOf(facts, id, segments));

  const statement = budgetRows(accounts, covers);
  const plan = fillStatement(statement, length, (id) => whole.amounts(id));
  const past = fillStatement(statement, length, before);
  const known = facts.periods.map((p) => {
    if (was) return true;
    const q = yearsBefore(facts.calendar, p.index);
    return q !== null && q < facts.periods[0]!.index && facts.isActual(q);
  });
  const only = <T>(months: readonly T[]) => months.filter((_, i) => known[i]);
  return {
    lines,
    schedules,
    left,
    drivers,
    follow: byDrivers?.follow ?? 0,
    rows: statement.map((row, r) => {
      const before = rowTotal(row, only(past[r]!));
      const same = rowTotal(row, only(plan[r]!));
      return {
        row,
        before,
        plan: rowTotal(row, plan[r]!),
        change: before === null && same === null ? null : minor((same ?? 0) - (before ?? 0)),
      };
    }),
    beside,
    known: known.filter(Boolean).length,
  };
}

/** The drivers of a budget in one that starts from it, with what they came to where it planned them. */
function driversOf(
  ground: Ground,
  other: Budget,
  lines: readonly Line[],
  { calendar, periods }: Facts,
  years: number,
): CarriedDrivers {
  const { facts, reckoning } = reckoned(ground, other);
  const first = facts.periods[0]!.index;
  return carriedDrivers(other, lines, {
    calendar,
    periods,
    years,
    valueOf: (id, period) => reckoning.drivers.get(id)?.values[period - first] ?? null,
  });
}
