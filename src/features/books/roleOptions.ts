import { assertNever } from '@/core/assertNever';
import { calendarFrom, toDayNumber, type CalendarSpec, type Day } from '@/core/calendar';
import type { BalanceRole, EntryRole, Mapping, MonthsRole } from '@/core/intake';
import { ROLE_NAMES } from './intakeWords';

export type Option = { readonly value: string; readonly label: string };

type DatedRole = Extract<MonthsRole | BalanceRole, { day: unknown }>;

const valueOf = (role: MonthsRole | BalanceRole): string =>
  'day' in role ? `${role.as}@${role.day ?? ''}` : role.as;

/** A role as the value of a select, and back. */
export const roleValue = (role: EntryRole | MonthsRole | BalanceRole): string =>
  typeof role === 'string' ? role : valueOf(role);

/** What a column may hold, under the mapping's shape. */
export function roleOptions(mapping: Mapping, spec: CalendarSpec): Option[] {
  switch (mapping.shape) {
    case 'entries':
      return Object.entries(ROLE_NAMES).map(([value, label]) => ({ value, label }));
    case 'months':
      return [
        { value: 'account', label: 'Account' },
        { value: 'code', label: 'Account code' },
        { value: 'name', label: 'Account name' },
        { value: 'total', label: 'Total of the row' },
        { value: 'ignore', label: 'Leave out' },
        ...dayOptions(mapping.columns, spec).map((o) => ({ value: `month@${o.value}`, label: o.label })),
      ];
    case 'balances': {
      const fixed = [
        { value: 'account', label: 'Account' },
        { value: 'code', label: 'Account code' },
        { value: 'name', label: 'Account name' },
        { value: 'type', label: 'Account type' },
        { value: 'ignore', label: 'Leave out' },
        { value: 'debit@', label: 'Debit' },
        { value: 'credit@', label: 'Credit' },
        { value: 'balance@', label: 'Balance, debit positive' },
      ];
      if (!mapping.columns.some((c) => 'day' in c && c.day !== null)) return fixed;
      return [
        ...fixed,
        ...dayOptions(mapping.columns, spec).flatMap((o) =>
          (['balance', 'debit', 'credit'] as const).map((as) => ({
            value: `${as}@${o.value}`,
            label: `${o.label}, ${as}`,
          })),
        ),
      ];
    }
    default:
      return assertNever(mapping);
  }
}

/** Last days of the periods around those that the columns name. */
export function dayOptions(
  columns: readonly (MonthsRole | BalanceRole)[],
  spec: CalendarSpec,
  around = 12,
): Option[] {
  const calendar = calendarFrom(spec);
  const known = columns.flatMap((c) =>
    'day' in c && c.day ? [calendar.indexOfDay(toDayNumber(c.day))] : [],
  );
  const low = known.length ? Math.min(...known) : calendar.indexOfDay(20000);
  const high = known.length ? Math.max(...known) : low + 36;
  return Array.from({ length: high - low + 1 + 2 * around }, (_, i) => {
    const p = calendar.period(low - around + i);
    return { value: p.end, label: p.label };
  });
}

/** The mapping with one column's role changed; in entries a role other than a segment is held by one column only. */
export function withRole(mapping: Mapping, at: number, value: string): Mapping {
  switch (mapping.shape) {
    case 'entries': {
      const role = value as EntryRole;
      const single = role !== 'ignore' && role !== 'segment';
      return {
        ...mapping,
        columns: mapping.columns.map((r, i) => (i === at ? role : single && r === role ? 'ignore' : r)),
      };
    }
    case 'months':
      return {
        ...mapping,
        columns: mapping.columns.map((r, i) => (i === at ? parsed<MonthsRole>(value) : r)),
      };
    case 'balances':
      return {
        ...mapping,
        columns: mapping.columns.map((r, i) => (i === at ? parsed<BalanceRole>(value) : r)),
      };
    default:
      return assertNever(mapping);
  }
}

function parsed<R extends MonthsRole | BalanceRole>(value: string): R {
  const [as, day] = value.split('@');
  return (day === undefined ? { as } : { as, day: day === '' ? null : (day as Day) }) as R;
}

/** Moves every month or trial balance by whole fiscal years. */
export function movedByYears(mapping: Mapping, spec: CalendarSpec, years: number): Mapping {
  const calendar = calendarFrom(spec);
  const move = (day: Day): Day => {
    const p = calendar.period(calendar.indexOfDay(toDayNumber(day)));
    return calendar.period(calendar.firstOfYear(p.year + years) + p.number - 1).end;
  };
  const role = <R extends MonthsRole | BalanceRole>(r: R): R =>
    'day' in r && r.day ? ({ ...(r as DatedRole), day: move(r.day) } as R) : r;
  switch (mapping.shape) {
    case 'entries':
      return mapping;
    case 'months':
      return { ...mapping, columns: mapping.columns.map(role) };
    case 'balances':
      return {
        ...mapping,
        columns: mapping.columns.map(role),
        sheets: mapping.sheets.map((s) => ({ ...s, day: s.day && move(s.day) })),
      };
    default:
      return assertNever(mapping);
  }
}

/** The fiscal year of the first month that the columns name; null when they name none. */
export function firstYear(mapping: Mapping, spec: CalendarSpec): number | null {
  if (mapping.shape === 'entries') return null;
  const calendar = calendarFrom(spec);
  for (const c of mapping.columns)
    if ('day' in c && c.day) return calendar.period(calendar.indexOfDay(toDayNumber(c.day))).year;
  return null;
}
