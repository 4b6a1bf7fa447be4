import { lostOf, partIn, whatIn, type What } from '@/core/schedule';
import type { DayNumber } from '@/core/calendar';
import { CASH_SOURCES, type AccountId, type CashSource, type CreditLine } from '@/core/model';
import type { BorneBy } from './balances';
import { creditLineMoves, type LineMove } from './creditLine';
import type { Part, Projected } from './projected';

/** The bank ahead, day by day, from the sources that are counted. Index 0 is the day after the start. */
export type CashForecast = {
  readonly start: DayNumber;
  /** The last day that is known: low points, the floor and the credit line look at days after it. The start, or a day that banks tell. */
  readonly today: DayNumber;
  readonly opening: number;
  /** Money into the banks by day, by source; those that are not counted are absent. */
  readonly bySource: ReadonlyMap<CashSource, Float64Array>;
  /** What the banks hold at the end of each day. */
  readonly closing: Float64Array;
  readonly moves: readonly LineMove[];
  readonly low: Low | null;
  /** Spells of days that close below the floor. */
  readonly below: readonly { readonly from: DayNumber; readonly to: DayNumber; readonly least: number }[];
};

/** The day with the lowest closing balance, the earliest of equals. */
export type Low = { readonly day: DayNumber; readonly amount: number };

export type ForecastRules = {
  readonly without: readonly CashSource[];
  readonly floor: number | null;
  readonly creditLine: CreditLine | null;
  /** What of the credit line is drawn at the start. */
  readonly drawn: number;
  /** The last day that banks tell; without one the start. */
  readonly today?: DayNumber;
};

/** Money of a source that comes on another day than it is expected on, to see what that does. */
export type Shift = {
  readonly source: CashSource;
  readonly from: DayNumber;
  readonly to: DayNumber;
  readonly amount: number;
};

/** Adds up a projection, and keeps the floor by the credit line where there is one. */
export function forecastOf(
  projected: Projected,
  rules: ForecastRules,
  shifts: readonly Shift[] = [],
): CashForecast {
  const { start, days, opening } = projected;
  const known = Math.min(days, Math.max(0, (rules.today ?? start) - start));
  const bySource = new Map<CashSource, Float64Array>();
  for (const source of CASH_SOURCES) {
    if (source === 'creditLine') continue;
    // What a forecast leaves out is ahead: what moved has moved.
    const isOut = rules.without.includes(source);
    if (isOut && known === 0) continue;
    // The projection's own, unless something is written into it.
    const own = projected.bySource[source];
    const sums = isOut || shifts.some((s) => s.source === source) ? own.slice() : own;
    if (isOut) sums.fill(0, known);
    bySource.set(source, sums);
  }
  for (const { source, from, to, amount } of shifts) {
    const sums = bySource.get(source);
    if (!sums) continue;
    for (const [day, money] of [
      [from, -amount],
      [to, amount],
    ] as const) {
      const d = day - start - 1;
      if (d >= 0 && d < days) sums[d]! += money;
    }
  }
  const closing = new Float64Array(days);
  let stands = opening;
  for (let d = 0; d < days; d++) {
    for (const sums of bySource.values()) stands += sums[d]!;
    closing[d] = stands;
  }
  let moves: readonly LineMove[] = [];
  if (rules.creditLine && !rules.without.includes('creditLine')) {
    moves = creditLineMoves(rules.creditLine, rules.floor ?? 0, start, closing, rules.drawn, known);
    const own = new Float64Array(days);
    for (const m of moves) own[m.day - start - 1]! += m.amount;
    bySource.set('creditLine', own);
    let put = 0;
    for (let d = 0; d < days; d++) closing[d]! += put += own[d]!;
  }
  return {
    start,
    today: start + known,
    opening,
    bySource,
    closing,
    moves,
    low: lowOf(closing, start, known, days - 1),
    below: rules.floor === null ? [] : spellsBelow(closing, start, rules.floor, known),
  };
}

/** What the banks hold on the last day that is known: at the start, or on the day that banks tell. */
export const heldAt = ({ today, start, opening, closing }: CashForecast): number =>
  today > start ? closing[today - start - 1]! : opening;

/** The lowest closing balance between two places. */
export function lowOf(closing: Float64Array, start: DayNumber, from: number, to: number): Low | null {
  let at = -1;
  for (let d = from; d <= to; d++) if (at < 0 || closing[d]! < closing[at]!) at = d;
  return at < 0 ? null : { day: start + 1 + at, amount: closing[at]! };
}

function spellsBelow(
  closing: Float64Array,
  start: DayNumber,
  floor: number,
  known: number,
): CashForecast['below'] {
  const out: { from: DayNumber; to: DayNumber; least: number }[] = [];
  closing.forEach((amount, d) => {
    if (amount >= floor || d < known) return;
    const day = start + 1 + d;
    const last = out.at(-1);
    if (last && last.to === day - 1) {
      last.to = day;
      last.least = Math.min(last.least, amount);
    } else out.push({ from: day, to: day, least: amount });
  });
  return out;
}

/** A range of days, both inside. */
export type DayRange = { readonly from: DayNumber; readonly to: DayNumber };

/** What a forecast comes to in ranges of days that follow one another. */
export type CashTable = {
  readonly ranges: readonly DayRange[];
  readonly opening: readonly number[];
  readonly closing: readonly number[];
  readonly low: readonly (Low | null)[];
  readonly rows: readonly { readonly source: CashSource; readonly amounts: readonly number[] }[];
};

/** A forecast by ranges of days; sources of which nothing comes are left out. */
export function cashTable(forecast: CashForecast, ranges: readonly DayRange[]): CashTable {
  const { start, closing, opening } = forecast;
  const placesOf = ({ from, to }: DayRange) =>
    [Math.max(0, from - start - 1), Math.min(closing.length, to - start)] as const;
  const spans = ranges.map(placesOf);
  const rows = [...forecast.bySource]
    .map(([source, sums]) => ({
      source,
      amounts: spans.map(([from, to]) => {
        let sum = 0;
        for (let d = from; d < to; d++) sum += sums[d]!;
        return sum;
      }),
    }))
    .filter(({ amounts }) => amounts.some((a) => a !== 0));
  const order = new Map(CASH_SOURCES.map((s, i) => [s, i]));
  rows.sort((a, b) => order.get(a.source)! - order.get(b.source)!);
  return {
    ranges,
    opening: spans.map(([from]) => (from === 0 ? opening : (closing[from - 1] ?? closing.at(-1) ?? opening))),
    closing: spans.map(([, to]) => (to === 0 ? opening : (closing[to - 1] ?? opening))),
    low: spans.map(([from, to]) => lowOf(closing, start, from, to - 1)),
    rows,
  };
}

/** Money of one cause on one day. */
export type Cause = {
  readonly day: DayNumber;
  readonly amount: number;
  readonly part: Part;
  /** The planned month that it follows from; −1 for none. */
  readonly month: number;
  readonly what: What;
  /** The place of the part of its line's terms. */
  readonly rule: number;
  /** The day of the invoice or event that it settles. */
  readonly since: DayNumber;
};

/** What moves the banks in a range of days, by day and size: of the sources given, or of all. */
export function causesIn(
  projected: Projected,
  { from, to }: DayRange,
  sources: (source: CashSource) => boolean,
): Cause[] {
  const out: Cause[] = [];
  for (const part of projected.parts.values()) {
    if (!sources(part.source)) continue;
    for (const cause of moneyOf(projected, part)) if (cause.day >= from && cause.day <= to) out.push(cause);
  }
  return out.sort((a, b) => a.day - b.day || Math.abs(b.amount) - Math.abs(a.amount));
}

/** What moves an account in a range of days, debits positive: what follows from one thing in one month is one cause. */
export function causesOn(
  projected: Projected,
  account: AccountId,
  { from, to }: DayRange,
  borneBy: BorneBy,
): Cause[] {
  const { ids } = projected.table;
  const lost = ids.map(lostOf);
  const isOn = (place: number, day: DayNumber) =>
    lost[place] ? borneBy(lost[place], day) === account : ids[place] === account;
  const out = new Map<string, Cause>();
  for (const part of projected.parts.values()) {
    const { columns, first, count } = part.postings;
    for (let i = first; i < first + count; i++) {
      const day = columns.day[i]!;
      if (day < from || day > to || !isOn(columns.account[i]!, day)) continue;
      const month = columns.month[i]!;
      const key = `${part.key} ${month} ${partIn(columns.what[i]!)} ${columns.amount[i]! > 0}`;
      const was = out.get(key);
      out.set(key, {
        day: was?.day ?? day,
        amount: (was?.amount ?? 0) + columns.amount[i]!,
        part,
        month,
        what: whatIn(columns.what[i]!),
        rule: partIn(columns.what[i]!),
        since: was?.day ?? day,
      });
    }
  }
  return [...out.values()].sort((a, b) => Math.abs(b.amount) - Math.abs(a.amount));
}

/** The money that a part moves, with its tax in one with it: what was paid of one event on one day is one cause. */
export function moneyOf(projected: Projected, part: Part): Cause[] {
  const { columns, first, count } = part.postings;
  const { day, account, amount, month, what, from } = columns;
  const out = new Map<string, Cause>();
  for (let i = first; i < first + count; i++) {
    if (!projected.isBank(account[i]!)) continue;
    const key = `${day[i]!} ${month[i]!} ${from[i]!} ${partIn(what[i]!)}`;
    const was = out.get(key);
    const kind = whatIn(what[i]!);
    const rule = partIn(what[i]!);
    out.set(key, {
      day: day[i]!,
      amount: (was?.amount ?? 0) + amount[i]!,
      part,
      month: month[i]!,
      what: was && kind === 'tax' ? was.what : kind,
      rule,
      since: from[i]!,
    });
  }
  return [...out.values()].filter((c) => c.amount !== 0);
}
