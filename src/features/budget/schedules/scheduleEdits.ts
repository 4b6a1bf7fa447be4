import { fromDayNumber, toDayNumber, weekdayOf, type Day, type Period } from '@/core/calendar';
import type { Reckoned } from '@/core/ground';
import {
  blankLine,
  linesOfRow,
  lineOf,
  LIMITS,
  nameWith,
  segmentsOfRow,
  type Command,
  type RowOf,
  type ScheduleRow,
} from '@/core/model';
import type { Percent } from '@/core/money';
import { besideSchedule } from '@/core/plan';
import { monthAfter, newRow, type Accounts } from '@/store/newRow';

type Put = Extract<Command, { type: 'putScheduleRows' }>;

/**
 * The command that keeps rows: the lines that they make are made by schedule from now on, each with what it has now beside
 * it. `was`: the rows before; an account that a row made already keeps whatever its line was given since.
 */
export function putRows(
  budget: Reckoned['budget'],
  reckoned: Pick<Reckoned, 'reckoning' | 'facts'>,
  rows: readonly ScheduleRow[],
  more: Pick<Put, 'replaces' | 'said'> & { readonly alone?: boolean } = {},
): Put {
  const { alone, ...rest } = more;
  const lines = new Map<string, Put['lines'][number]>();
  for (const row of rows) {
    const was = budget.schedules.find((r) => r.id === row.id);
    const before = new Set(was ? linesOfRow(was) : []);
    const segments = new Set(was ? segmentsOfRow(was) : []);
    for (const account of linesOfRow(row))
      for (const segment of new Set(segmentsOfRow(row))) {
        const ref = { account, segment };
        const line = lineOf(budget, ref) ?? blankLine(ref);
        if (line.method.kind === 'schedule' && !alone) continue;
        if (before.has(account) && segments.has(segment) && !alone) continue;
        lines.set(`${account} ${segment ?? ''}`, {
          ...ref,
          method: alone
            ? { kind: 'schedule', beside: {} }
            : besideSchedule(reckoned.reckoning.lines.get(ref), reckoned.facts),
        });
      }
  }
  return { type: 'putScheduleRows', budget: budget.id, rows, lines: [...lines.values()], ...rest };
}

/** A loan of what an asset costs, drawn on the day it is bought and first paid a month later. */
export function loanFor(
  asset: RowOf<'asset'>,
  id: string,
  reckoned: Pick<Reckoned, 'budget' | 'facts'>,
  accounts: Accounts,
): RowOf<'loan'> {
  return {
    ...newRow('loan', id, reckoned, accounts),
    name: nameWith(asset.name, ', loan', LIMITS.accountName),
    segment: asset.segment,
    begins: { of: 'drawn', day: asset.bought, amount: asset.cost },
    first: monthAfter(asset.bought),
  };
}

/** The staff rows of a budget with a raise from a day; a raise of that day is taken over by it. */
export const raised = (rows: readonly ScheduleRow[], from: Day, by: Percent): ScheduleRow[] =>
  rows.flatMap((r) =>
    r.kind !== 'staff' || (r.until !== null && r.until < from) || (r.from !== null && r.from > from)
      ? []
      : [
          {
            ...r,
            raises: [
              ...r.raises.filter((x) => x.from !== from),
              { from, change: { of: 'percent' as const, percent: by } },
            ],
          },
        ],
  );

/** Every other Friday from the first in the budget on: the commonest payday where nothing is said. */
export function everyOtherFriday(periods: readonly Period[]): RowOf<'staff'>['paydays'] {
  const start = toDayNumber(periods[0]!.start);
  return { of: 'weeks', every: 2, from: fromDayNumber(start + ((5 - weekdayOf(start) + 7) % 7)) };
}

/** The last closed day; the day before the budget where nothing is closed. */
export const closedOn = ({ calendar, closedThrough, periods }: Reckoned['facts']): Day =>
  closedThrough === null
    ? fromDayNumber(toDayNumber(periods[0]!.start) - 1)
    : calendar.period(closedThrough).end;
