import { STAND_INS } from '@/core/schedule';
import type { DayNumber } from '@/core/calendar';
import type { AccountId, CreditLine } from '@/core/model';
import type { LineMove } from './creditLine';
import { type Projected } from './projected';

type Line = {
  readonly moves: readonly LineMove[];
  readonly rules: CreditLine | null;
  readonly bank: AccountId;
};

/**
 * What accounts stand at at the ends of ranges of days, debits positive: their opening figures and every posting up to
 * each day, the credit line's moves among them. Only accounts that stand at something or move are in it.
 */
export function balancesAt(
  projected: Projected,
  opening: ReadonlyMap<AccountId, number>,
  ends: readonly DayNumber[],
  line: Line,
): ReadonlyMap<AccountId, Float64Array> {
  const n = ends.length;
  const placeOfDay = placesOf(ends, projected.start);
  const by: Float64Array[] = [];
  const sums = (place: number) => (by[place] ??= new Float64Array(n));
  for (const { postings } of projected.parts.values()) {
    const { columns, first, count } = postings;
    for (let i = first; i < first + count; i++) {
      const at = placeOfDay(columns.day[i]!);
      if (at < n) sums(columns.account[i]!)[at]! += columns.amount[i]!;
    }
  }
  return standing(projected, by, opening, placeOfDay, n, line);
}

/** The same at the ends of the planned periods, from sums that the projector keeps. */
export function balancesByPeriod(
  projected: Projected,
  opening: ReadonlyMap<AccountId, number>,
  ends: readonly DayNumber[],
  line: Line,
): ReadonlyMap<AccountId, Float64Array> {
  // Copies: they are added up in place. An account that nothing moves any more is none that moves.
  const by = projected.moved.map((m) => (m?.some((v) => v !== 0) ? m.slice() : undefined));
  return standing(projected, by, opening, placesOf(ends, projected.start), ends.length, line);
}

function standing(
  { table }: Projected,
  by: readonly (Float64Array | undefined)[],
  opening: ReadonlyMap<AccountId, number>,
  placeOfDay: (day: DayNumber) => number,
  n: number,
  line: Line,
): ReadonlyMap<AccountId, Float64Array> {
  const out = new Map<AccountId, Float64Array>();
  const of = (id: AccountId): Float64Array => {
    let there = out.get(id);
    if (!there) out.set(id, (there = new Float64Array(n)));
    return there;
  };
  by.forEach((moved, place) => moved && out.set(table.ids[place]!, moved));
  for (const { day, what, amount } of line.moves) {
    const at = placeOfDay(day);
    if (at >= n) continue;
    of(line.bank)[at]! += amount;
    const other =
      what === 'interest'
        ? (line.rules?.interest ?? STAND_INS.interest)
        : (line.rules?.account ?? STAND_INS.creditLine);
    of(other)[at]! -= amount;
  }
  for (const id of opening.keys()) of(id);
  for (const [id, moved] of out) {
    let stands = opening.get(id) ?? 0;
    for (let k = 0; k < n; k++) moved[k] = stands += moved[k]!;
  }
  return out;
}

/** Which range a day belongs to: the first that ends on it or later; as many as there are for one after all of them. */
function placesOf(ends: readonly DayNumber[], start: DayNumber): (day: DayNumber) => number {
  const last = ends.at(-1) ?? start;
  const places = new Int32Array(Math.max(0, last - start)).fill(ends.length);
  let day = start + 1;
  ends.forEach((end, k) => {
    for (; day <= end; day++) places[day - start - 1] = k;
  });
  return (d) => (d <= start ? 0 : (places[d - start - 1] ?? ends.length));
}
