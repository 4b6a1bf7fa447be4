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
  { begin, length, isBank, periodOfDay, months, bySource, moved }: Sums,
  { postings, source }: Part,
  sign: 1 | -1,
): void {
  const sums = bySource[source];
  const { columns, first, count } = postings;
  const { day, account, amount } = columns;
  for (let i = first; i < first + count; i++) {
    const d = day[i]! - begin - 1;
    if (d >= length) continue;
    const place = account[i]!;
    const signed = sign * amount[i]!;
    (moved[place] ??= new Float64Array(months))[periodOfDay[d]!]! += signed;
    if (isBank[place] === 1) sums[d]! += signed;
  }
}

/** Copies of sums: what is added to them later changes none that were handed out. */
export const copied = ({
  bySource,
  moved,
}: {
  readonly bySource: Readonly<Sums['bySource']>;
  readonly moved: readonly (Float64Array | undefined)[];
}): Pick<Sums, 'bySource' | 'moved'> => ({
  bySource: Object.fromEntries(
    Object.entries(bySource).map(([source, sums]) => [source, sums.slice()]),
  ) as Sums['bySource'],
  moved: moved.map((m) => m?.slice()),
});
