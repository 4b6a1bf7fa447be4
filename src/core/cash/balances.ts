import { lostOf, STAND_INS } from '@/core/schedule';
import type { DayNumber } from '@/core/calendar';
import type { AccountId, CreditLine } from '@/core/model';
import type { LineMove } from './creditLine';
import { type Projected } from './projected';

/**
 * Who bears what is never paid, and the interest of a credit line, on a day: the account itself, or what stands against
 * amounts that are planned of it otherwise.
 */
export type BorneBy = (account: AccountId, day: DayNumber) => AccountId;

export type LineOn = {
  readonly moves: readonly LineMove[];
  readonly rules: CreditLine | null;
  readonly bank: AccountId;
  readonly borneBy: BorneBy;
};

/**
 * What accounts stand at at the ends of ranges of days, debits positive: their opening figures and every posting up to
 * each day, the credit line's moves among them. Only accounts that stand at something or move are in it.
 */
export function balancesAt(
  projected: Projected,
  opening: ReadonlyMap<AccountId, number>,
  ends: readonly DayNumber[],
  line: LineOn,
): ReadonlyMap<AccountId, Float64Array> {
  const n = ends.length;
  const placeOfDay = placesOf(ends, projected.start);
  const by: (Float64Array | undefined)[] = [];
  const sums = (place: number) => (by[place] ??= new Float64Array(n));
  const lost = projected.table.ids.map(lostOf);
  const borne = new Map<AccountId, Float64Array>();
  for (const { postings } of projected.parts.values()) {
    const { columns, first, count } = postings;
    for (let i = first; i < first + count; i++) {
      const at = placeOfDay(columns.day[i]!);
      if (at >= n) continue;
      const of = lost[columns.account[i]!] ?? null;
      const own =
        of === null
          ? sums(columns.account[i]!)
          : sumsOf(borne, line.borneBy(of, Math.max(columns.day[i]!, projected.start + 1)), n);
      own[at]! += columns.amount[i]!;
    }
  }
  return standing(projected, by, borne, opening, placeOfDay, n, line);
}

/** The same at the ends of the planned periods, from sums that the projector keeps. */
export function balancesByPeriod(
  projected: Projected,
  opening: ReadonlyMap<AccountId, number>,
  ends: readonly DayNumber[],
  line: LineOn,
): ReadonlyMap<AccountId, Float64Array> {
  // Copies: they are added up in place. An account that nothing moves any more is none that moves.
  const by = projected.moved.map((m) => (m?.some((v) => v !== 0) ? m.slice() : undefined));
  const borne = new Map<AccountId, Float64Array>();
  projected.table.ids.forEach((id, place) => {
    const of = lostOf(id);
    if (of === null) return;
    by[place]?.forEach((amount, k) => {
      if (amount !== 0) sumsOf(borne, line.borneBy(of, ends[k]!), ends.length)[k]! += amount;
    });
    by[place] = undefined;
  });
  return standing(projected, by, borne, opening, placesOf(ends, projected.start), ends.length, line);
}

function sumsOf(of: Map<AccountId, Float64Array>, account: AccountId, n: number): Float64Array {
  let own = of.get(account);
  if (!own) of.set(account, (own = new Float64Array(n)));
  return own;
}

function standing(
  { table }: Projected,
  by: readonly (Float64Array | undefined)[],
  borne: ReadonlyMap<AccountId, Float64Array>,
  opening: ReadonlyMap<AccountId, number>,
  placeOfDay: (day: DayNumber) => number,
  n: number,
  line: LineOn,
): ReadonlyMap<AccountId, Float64Array> {
  const out = new Map<AccountId, Float64Array>();
  const of = (id: AccountId): Float64Array => sumsOf(out, id, n);
  by.forEach((moved, place) => moved && out.set(table.ids[place]!, moved));
  for (const [id, amounts] of borne) {
    const own = of(id);
    amounts.forEach((amount, k) => (own[k]! += amount));
  }
  for (const move of line.moves) {
    const { day, amount } = move;
    const at = placeOfDay(day);
    if (at >= n) continue;
    of(line.bank)[at]! += amount;
    of(otherSide(move, line))[at]! -= amount;
  }
  for (const id of opening.keys()) of(id);
  for (const [id, moved] of out) {
    let stands = opening.get(id) ?? 0;
    for (let k = 0; k < n; k++) moved[k] = stands += moved[k]!;
  }
  return out;
}

/** The account that a move of a credit line stands against the bank on. */
export const otherSide = (
  { what, day }: Pick<LineMove, 'what' | 'day'>,
  { rules, borneBy }: Pick<LineOn, 'rules' | 'borneBy'>,
): AccountId =>
  what === 'interest'
    ? borneBy(rules?.interest ?? STAND_INS.interest, day)
    : (rules?.account ?? STAND_INS.creditLine);

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
