import { toDayNumber, type DayNumber } from '@/core/calendar';
import type { CashSource } from '@/core/model';
import type { ProjectionInput } from './input';
import type { Part } from './projected';

/** What parts come to: money into the banks by day and source, and what every account moves by planned period. */
export type Sums = {
  /** The day before the first, and how many days there are. */
  readonly begin: DayNumber;
  readonly length: number;
  /** 1 for the places of banks: asked a million times. */
  readonly isBank: Uint8Array;
  readonly periodOfDay: Int16Array;
  readonly months: number;
  readonly bySource: Record<CashSource, Float64Array>;
  /** By the account's place. */
  readonly moved: (Float64Array | undefined)[];
  /** Sums that nobody but the holder has: others were handed out, and are copied before anything is added to them. */
  readonly own: { readonly sources: Set<CashSource>; readonly places: Set<number> };
};

/** The planned period of each day after the start. */
export function periodsByDay(periods: ProjectionInput['periods'], start: number, length: number): Int16Array {
  const out = new Int16Array(length);
  let day = 0;
  periods.forEach((p, m) => {
    for (const end = toDayNumber(p.end) - start; day < end; day++) out[day] = m;
  });
  return out;
}

/** Adds a part to the sums, or takes it off. */
export function addPart(
  { begin, length, isBank, periodOfDay, months, bySource, moved, own }: Sums,
  { postings, source }: Part,
  sign: 1 | -1,
): void {
  if (postings.count === 0) return;
  if (!own.sources.has(source)) {
    own.sources.add(source);
    bySource[source] = bySource[source].slice();
  }
  const sums = bySource[source];
  const { columns, first, count } = postings;
  const { day, account, amount } = columns;
  let last = -1;
  let sum!: Float64Array;
  for (let i = first; i < first + count; i++) {
    const d = day[i]! - begin - 1;
    if (d >= length) continue;
    const place = account[i]!;
    const signed = sign * amount[i]!;
    // Postings of a part are of two or three accounts, one after another.
    if (place !== last) {
      last = place;
      if (!own.places.has(place)) {
        own.places.add(place);
        moved[place] = moved[place]?.slice() ?? new Float64Array(months);
      }
      sum = moved[place]!;
    }
    sum[periodOfDay[d]!]! += signed;
    if (isBank[place] === 1) sums[d]! += signed;
  }
}

/** None of the sums is the holder's own: all were handed out. */
export const nothingOwn = (): Sums['own'] => ({ sources: new Set(), places: new Set() });

/** Hands sums out: what is added to them later changes none that were handed out. */
export function handedOut({ bySource, moved, own }: Pick<Sums, 'bySource' | 'moved' | 'own'>): {
  readonly bySource: Readonly<Sums['bySource']>;
  readonly moved: readonly (Float64Array | undefined)[];
} {
  own.sources.clear();
  own.places.clear();
  return { bySource: { ...bySource }, moved: [...moved] };
}
