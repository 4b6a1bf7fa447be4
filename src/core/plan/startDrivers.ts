import { yearsBefore, type FiscalCalendar, type Period, type PeriodId } from '@/core/calendar';
import { lineKey, type Budget, type Driver, type Line } from '@/core/model';
import { formulaOf } from './methods/formula';

/** The drivers that come along into a budget that starts from another, and the lines that follow them there too. */
export type CarriedDrivers = {
  readonly drivers: readonly Driver[];
  readonly lines: readonly Line[];
  readonly follow: number;
};

/**
 * The drivers of another budget in one that starts from it. What was typed of their months is typed of the months so many
 * years later, and of further years as of the first; what steps goes on stepping from where it began, what has a season or a
 * formula stays so. A line that followed drivers there follows them here. Before the first month stands what the other
 * budget has of the month before it, where it plans that.
 *
 * @param valueOf what a driver of the other budget comes to in a period; null where it does not plan it
 */
export function carriedDrivers(
  other: Pick<Budget, 'drivers' | 'lines'>,
  lines: readonly Line[],
  {
    calendar,
    periods,
    years,
    valueOf,
  }: {
    readonly calendar: FiscalCalendar;
    readonly periods: readonly Period[];
    readonly years: number;
    readonly valueOf: (driver: string, period: number) => number | null;
  },
): CarriedDrivers {
  const before = periods[0]!.index - 1;
  const drivers = other.drivers.map((d): Driver => {
    const opening = valueOf(d.id, before) ?? d.opening;
    if (d.series.kind !== 'typed') return { ...d, opening };
    const was = d.series.values;
    const values: Record<PeriodId, number | null> = {};
    for (const p of periods) {
      const from = yearsBefore(calendar, p.index, years);
      const again = yearsBefore(calendar, p.index);
      const first = from === null ? undefined : was[calendar.period(from).id];
      // Years beyond the other budget's follow the first of the new one, as its other lines do.
      const value = first !== undefined || again === null ? first : values[calendar.period(again).id];
      if (value !== undefined) values[p.id] = value;
    }
    return { ...d, opening, series: { kind: 'typed', values } };
  });
  const known = new Set(drivers.map((d) => d.id));
  const followers = new Map<string, Line['method']>();
  for (const l of other.lines) if (follows(l.method, known)) followers.set(lineKey(l), l.method);
  let follow = 0;
  const kept = lines.map((l) => {
    const method = followers.get(lineKey(l));
    if (method === undefined) return l;
    follow++;
    return { ...l, method };
  });
  return { drivers, lines: kept, follow };
}

/** Whether a method is of drivers that are there. */
function follows(method: Line['method'], known: ReadonlySet<string>): boolean {
  if (method.kind === 'driver') return method.factors.every((f) => known.has(f));
  if (method.kind !== 'formula') return false;
  const parsed = formulaOf(method.formula);
  if (!parsed.ok) return false;
  const named = parsed.names.flatMap((n) => (n.name.of === 'driver' ? [n.name.driver] : []));
  return named.length > 0 && named.every((d) => known.has(d));
}
