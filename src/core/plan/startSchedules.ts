import { assertNever } from '@/core/assertNever';
import { indexOfId, yearsBefore, type FiscalCalendar, type Period, type PeriodId } from '@/core/calendar';
import { percentOf, plus, minor, type Minor, type Percent } from '@/core/money';
import {
  blankLine,
  lineKey,
  linesOfRow,
  segmentsOfRow,
  type Budget,
  type Line,
  type ScheduleRow,
  type SegmentId,
} from '@/core/model';

/** Why a row of another budget does not come along. */
export type RowLeft = { readonly name: string; readonly because: 'over' | 'segment' | 'driver' };

export type CarriedSchedules = {
  readonly schedules: readonly ScheduleRow[];
  /** The lines, those that the rows make by schedule. */
  readonly lines: readonly Line[];
  readonly left: readonly RowLeft[];
};

/**
 * The schedules of another budget in one that starts from it. A line that they make there is made by them here too, with
 * what it has beside them in the months so many years before, raised like the rest. What is over before the first month,
 * belongs to segments that the new one has not, or works by drivers that stay behind does not come along, and is named: its lines follow the
 * other budget's months.
 */
export function carriedSchedules(
  other: Pick<Budget, 'schedules' | 'lines'>,
  empty: Pick<Budget, 'axis' | 'segments'> & { readonly otherAxis: string | null },
  lines: readonly Line[],
  {
    calendar,
    periods,
    years,
    drivers,
    upliftOf,
  }: {
    readonly calendar: FiscalCalendar;
    readonly periods: readonly Period[];
    readonly years: number;
    /** The drivers that come along as well. */
    readonly drivers?: ReadonlySet<string>;
    readonly upliftOf: (account: string) => Percent;
  },
): CarriedSchedules {
  const left: RowLeft[] = [];
  const first = periods[0]!.start;
  // A budget of the whole company has what all segments of the other have.
  const whole = empty.axis === null && empty.otherAxis !== null;
  const schedules = other.schedules.flatMap((row): ScheduleRow[] => {
    const own = whole ? ofCompany(row) : row;
    const fits =
      (empty.axis === empty.otherAxis ||
        empty.axis === null ||
        segmentsOfRow(own).every((s) => s === null)) &&
      segmentsOfRow(own).every((s) => empty.segments.includes(s));
    const because = isOver(own, first, calendar)
      ? 'over'
      : !fits
        ? 'segment'
        : own.kind === 'staff' &&
            own.pay.per === 'hour' &&
            own.pay.hours.of === 'driver' &&
            !drivers?.has(own.pay.hours.driver)
          ? 'driver'
          : null;
    if (because === null) return [own];
    left.push({ name: row.name, because });
    return [];
  });
  const besides = new Map<string, Record<PeriodId, Minor>>();
  for (const { account, segment, method } of other.lines) {
    if (method.kind !== 'schedule') continue;
    const key = lineKey({ account, segment: whole ? null : segment });
    const sums = besides.get(key) ?? {};
    for (const p of periods) {
      const from = yearsBefore(calendar, p.index, years);
      const amount = from === null ? null : (method.beside[calendar.period(from).id] ?? null);
      if (amount === null) continue;
      const raised = plus(amount, percentOf(amount, upliftOf(account)));
      sums[p.id] = minor(plus(sums[p.id] ?? 0, raised));
    }
    besides.set(key, sums);
  }
  // Years beyond the other budget's follow the first of the new one, as its other lines do.
  for (const sums of besides.values())
    for (const p of periods) {
      const from = yearsBefore(calendar, p.index);
      const again = from === null || sums[p.id] !== undefined ? undefined : sums[calendar.period(from).id];
      if (again !== undefined && p.year !== periods[0]!.year) sums[p.id] = again;
    }
  const made = new Map<string, Line>();
  for (const row of schedules)
    for (const account of linesOfRow(row))
      for (const segment of segmentsOfRow(row)) {
        const beside = besides.get(lineKey({ account, segment }));
        if (beside)
          made.set(lineKey({ account, segment }), {
            ...blankLine({ account, segment }),
            method: { kind: 'schedule', beside },
          });
      }
  const kept = lines.map((l) => {
    const key = lineKey(l);
    const own = made.get(key);
    made.delete(key);
    return own ?? l;
  });
  return { schedules, lines: [...kept, ...made.values()], left };
}

const ofCompany = (row: ScheduleRow): ScheduleRow => {
  switch (row.kind) {
    case 'staff':
      return { ...row, split: [{ segment: null as SegmentId, percent: '100' as Percent }] };
    case 'equity':
      return row;
    default:
      return { ...row, segment: null };
  }
};

/** Whether nothing of a row falls on or after a day, as far as the row itself says. */
function isOver(row: ScheduleRow, first: string, calendar: FiscalCalendar): boolean {
  switch (row.kind) {
    case 'staff':
      return row.until !== null && row.until < first;
    case 'asset':
      return row.sold !== null && row.sold.day < first;
    case 'equity':
      return row.repeat === null && row.first < first;
    case 'release': {
      const from = indexOfId(calendar, row.from);
      return from !== null && calendar.period(from + row.months - 1).end < first;
    }
    case 'loan':
    case 'incomeTax':
      return false;
    default:
      return assertNever(row);
  }
}
