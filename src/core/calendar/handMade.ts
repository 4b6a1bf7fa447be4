import { dayOf, fromDayNumber, partsOf, toDayNumber, type Day, type DayNumber } from './day';
import { periodId, type FiscalCalendar, type Period } from './calendar';

/** A period that someone made by hand. */
export type HandMadePeriod = {
  readonly year: number;
  readonly name: string;
  readonly start: Day;
  readonly end: Day;
};

export type PeriodFault = {
  readonly code: 'none' | 'noName' | 'endsBeforeStart' | 'gap' | 'overlap' | 'yearOrder' | 'tooMany';
  /** Place in the list, from 0. */
  readonly at: number;
};

/** What stands in the way of a list of periods: every day between the first and the last must lie in exactly one. */
export function periodFaults(periods: readonly HandMadePeriod[]): PeriodFault[] {
  if (periods.length === 0) return [{ code: 'none', at: 0 }];
  const faults: PeriodFault[] = [];
  periods.forEach((p, at) => {
    if (p.name.trim() === '') faults.push({ code: 'noName', at });
    if (p.end < p.start) faults.push({ code: 'endsBeforeStart', at });
    const before = periods[at - 1];
    if (!before) return;
    const step = toDayNumber(p.start) - toDayNumber(before.end);
    if (step > 1) faults.push({ code: 'gap', at });
    if (step < 1) faults.push({ code: 'overlap', at });
    if (p.year !== before.year && p.year !== before.year + 1) faults.push({ code: 'yearOrder', at });
  });
  const counts = new Map<number, number>();
  periods.forEach((p, at) => {
    const n = (counts.get(p.year) ?? 0) + 1;
    counts.set(p.year, n);
    if (n === 100) faults.push({ code: 'tooMany', at });
  });
  return faults;
}

type Made = { readonly year: number; readonly number: number; readonly name: string } & {
  start: DayNumber;
  end: DayNumber;
};

/**
 * The calendar of hand-made periods (without faults, see `periodFaults`). Years before the first and after the last
 * repeat the shape of that year, moved by whole calendar years, so that any day lies in a period. Index 0 is the
 * first hand-made period.
 */
export function handMadeCalendar(periods: readonly HandMadePeriod[]): FiscalCalendar {
  const years = new Map<number, Made[]>();
  for (const p of periods) {
    const list = years.get(p.year) ?? [];
    list.push({
      year: p.year,
      number: list.length + 1,
      name: p.name,
      start: toDayNumber(p.start),
      end: toDayNumber(p.end),
    });
    years.set(p.year, list);
  }
  const low = Math.min(...years.keys());
  const high = Math.max(...years.keys());
  const base = new Map<number, number>([[low, 0]]);
  for (let y = low + 1; y <= high; y++) base.set(y, base.get(y - 1)! + years.get(y - 1)!.length);

  /** Periods of a year; those outside the list are the nearest listed year, moved. */
  function yearOf(year: number): readonly Made[] {
    const known = years.get(year);
    if (known) return known;
    const by = year < low ? year - low : year - high;
    const model = yearOf(year < low ? low : high);
    const list = model.map((p) => ({
      ...p,
      year,
      start: moved(p.start, by),
      end: moved(p.end + 1, by) - 1,
    }));
    // The seam: no day between two years may be lost to a leap day or to a first year of another length.
    if (year > high) list[0]!.start = yearOf(year - 1).at(-1)!.end + 1;
    else list.at(-1)!.end = yearOf(year + 1)[0]!.start - 1;
    years.set(year, list);
    return list;
  }
  const firstOfYear = (year: number): number => {
    if (year < low) return (year - low) * years.get(low)!.length;
    if (year > high)
      return base.get(high)! + years.get(high)!.length + (year - high - 1) * years.get(high)!.length;
    return base.get(year)!;
  };
  const made = new Map<number, Period>();
  const whereIs = (index: number): Made => {
    let year = index < 0 ? low + Math.floor(index / years.get(low)!.length) : low;
    while (index >= firstOfYear(year + 1)) year++;
    return yearOf(year)[index - firstOfYear(year)]!;
  };

  return {
    period(index) {
      let p = made.get(index);
      if (p) return p;
      const m = whereIs(index);
      const count = yearOf(m.year).length;
      const listed = m.year >= low && m.year <= high;
      p = {
        index,
        id: periodId(m.year, m.number),
        year: m.year,
        number: m.number,
        quarter: Math.min(4, Math.ceil(m.number / Math.max(1, Math.floor(count / 4)))),
        start: fromDayNumber(m.start),
        end: fromDayNumber(m.end),
        label:
          listed && /\d{2}/.test(m.name) ? m.name : `${m.name} FY${String(m.year % 100).padStart(2, '0')}`,
        short: m.name,
        tick: m.name[0] ?? '·',
      };
      made.set(index, p);
      return p;
    },
    indexOfDay(n) {
      let year = partsOf(fromDayNumber(n)).year;
      while (yearOf(year).at(-1)!.end < n) year++;
      while (yearOf(year)[0]!.start > n) year--;
      const list = yearOf(year);
      return firstOfYear(year) + list.findIndex((p) => p.end >= n);
    },
    firstOfYear,
    periodsIn: (year) => yearOf(year).length,
  };
}

/** The same date some calendar years on; 29 February falls back to the 28th. */
function moved(n: DayNumber, years: number): DayNumber {
  const { year, month, date } = partsOf(fromDayNumber(n));
  return toDayNumber((dayOf(year + years, month, date) ?? dayOf(year + years, month, 28))!);
}
