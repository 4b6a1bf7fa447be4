import { toDayNumber, type FiscalCalendar, type PeriodIndex } from '@/core/calendar';
import type { Account, AccountId, RowOf } from '@/core/model';
import { evenPart, minor, percentOf } from '@/core/money';
import { NEEDS_NOTHING, RowBook, type RowGround, type RowRuleOf } from './rule';
import { accountFor, STAND_INS } from './standIns';

/*
 * What is owned and used up. Straight-line: months alike from the month of use on, the last takes the rounding. Declining:
 * so many percent a year of what it stands at when the fiscal year begins, in equal parts over the year's months in use,
 * down to the residual value. Nothing in the month of its sale. (Common practice; textbooks state both.)
 */

type Asset = RowOf<'asset'>;

/** Months of a life as periods of the calendar: a year of thirteen has thirteen. */
const periodsOfLife = (months: number, perYear: number): number =>
  Math.max(1, Math.round((months * perYear) / 12));

/** What is written off of it, period by period, from the first that it counts in; it ends where nothing more is. */
export function* writtenOff(
  asset: Asset,
  calendar: FiscalCalendar,
): Generator<{ readonly period: PeriodIndex; readonly amount: number }> {
  const { standing, way, residual, cost } = asset;
  const sold = asset.sold ? calendar.indexOfDay(toDayNumber(asset.sold.day)) : Infinity;
  const start = standing
    ? calendar.indexOfDay(toDayNumber(standing.day) + 1)
    : calendar.indexOfDay(toDayNumber(asset.bought));
  let left = Math.max(0, cost - (standing?.accumulated ?? 0) - residual);
  if (way.of === 'none') return;
  if (way.of === 'straight') {
    const n = periodsOfLife(standing?.months ?? way.months, calendar.periodsIn(calendar.period(start).year));
    if (standing?.months === 0) return;
    const each = Math.round(left / n);
    for (let k = 0; k < n && start + k < sold; k++) {
      const amount = k === n - 1 ? left : Math.min(each, left);
      left -= amount;
      yield { period: start + k, amount };
    }
    return;
  }
  let book = cost - (standing?.accumulated ?? 0);
  for (let period = start; left > 0 && period < sold;) {
    const { year, number } = calendar.period(period);
    const inYear = calendar.periodsIn(year);
    const months = inYear - number + 1;
    const whole = percentOf(minor(book), way.rate);
    const ofYear = Math.min(left, Math.round((whole * months) / inYear));
    // What no longer comes to a unit a year is written off at last.
    if (ofYear <= 0) return;
    for (let k = 0; k < months && period < sold; k++, period++) {
      const amount = evenPart(ofYear, months, k);
      left -= amount;
      book -= amount;
      yield { period, amount };
    }
  }
}

/** More periods than these are no life of anything. */
const MOST = 2400;

/** What is written off up to the end of a period; what the ledger had at its standing day among it. */
export function accumulatedAt(asset: Asset, calendar: FiscalCalendar, period: PeriodIndex): number {
  let sum = asset.standing?.accumulated ?? 0;
  let met = 0;
  for (const w of writtenOff(asset, calendar)) {
    if (w.period > period || met++ > MOST) break;
    sum += w.amount;
  }
  return sum;
}

/** Cost, what is written off, and what is left of it at the end of a period; nothing before it is bought and after it is sold. */
export function assetAt(
  asset: Asset,
  calendar: FiscalCalendar,
  period: PeriodIndex,
): { readonly cost: number; readonly accumulated: number; readonly book: number } {
  const owned =
    calendar.indexOfDay(toDayNumber(asset.bought)) <= period &&
    !(asset.sold && calendar.indexOfDay(toDayNumber(asset.sold.day)) <= period);
  if (!owned) return { cost: 0, accumulated: 0, book: 0 };
  const accumulated = accumulatedAt(asset, calendar, period);
  return { cost: asset.cost, accumulated, book: asset.cost - accumulated };
}

function buy(asset: Asset, book: RowBook, { accounts, days, bank: usual }: RowGround): void {
  const { paid, tax } = asset;
  const day = toDayNumber(asset.bought);
  const due = Math.max(day, days.due(day, paid.due, 'stays'));
  const bank = [paid.bank ?? usual, null] as const;
  const owed = [paid.through ?? accountFor(accounts, 'payable'), null] as const;
  const own = [asset.account, asset.segment] as const;
  const onTop = tax ? percentOf(minor(asset.cost), tax.rate) : 0;
  const from = due === day ? bank : owed;
  book.pair(day, own, from, asset.cost, 'purchase');
  if (tax && onTop !== 0) {
    // Whose account it is follows from the tax: whoever posts it knows.
    book.pair(day, [STAND_INS.tax, null], from, onTop, 'tax');
    const debit = book.postings.at(-2)!;
    book.postings[book.postings.length - 2] = {
      ...debit,
      owes: { scheme: tax.scheme, amount: -onTop, paid: due },
    };
  }
  if (due !== day) book.pair(due, owed, bank, asset.cost + onTop, 'payment', day);
}

/** What a sale takes out of the books beside money, debits positive: what was written off, and a loss (a gain below zero). */
export type SaleOfAsset = {
  readonly period: PeriodIndex;
  readonly accumulated: { readonly account: AccountId; readonly amount: number };
  readonly gain: { readonly account: AccountId; readonly amount: number };
};

/** The sale of an asset; null of one that is not sold, or before it is bought. */
export function saleOf(
  row: Asset,
  calendar: FiscalCalendar,
  accounts: readonly Account[],
): SaleOfAsset | null {
  if (!row.sold) return null;
  const period = calendar.indexOfDay(toDayNumber(row.sold.day));
  if (period < calendar.indexOfDay(toDayNumber(row.bought))) return null;
  const accumulated = accumulatedAt(row, calendar, period - 1);
  return {
    period,
    accumulated: { account: row.accumulated ?? STAND_INS.against, amount: accumulated },
    gain: {
      account: row.sold.gain ?? accountFor(accounts, 'gain'),
      amount: row.cost - accumulated - row.sold.price,
    },
  };
}

export const asset: RowRuleOf<'asset'> = {
  needs: () => NEEDS_NOTHING,
  make(row, ground) {
    const { calendar, range, accounts } = ground;
    const book = new RowBook();
    const inside = (period: PeriodIndex) => period >= range.first && period <= range.last;
    const bought = calendar.indexOfDay(toDayNumber(row.bought));
    if (inside(bought)) buy(row, book, ground);
    const gathers = [row.accumulated ?? STAND_INS.against, null] as const;
    let met = 0;
    for (const { period, amount } of writtenOff(row, calendar)) {
      if (period > range.last || met++ > MOST) break;
      if (!inside(period)) continue;
      book.pair(
        toDayNumber(calendar.period(period).end),
        [row.expense, row.segment],
        gathers,
        amount,
        'depreciation',
      );
    }
    const sale = saleOf(row, calendar, accounts);
    if (row.sold && sale && inside(sale.period)) {
      const day = toDayNumber(row.sold.day);
      const own = [row.account, row.segment] as const;
      // What it brings, what was written off and what is gained or lost take it out of the books.
      book.pair(day, [row.paid.bank ?? ground.bank, null], own, row.sold.price, 'sale');
      book.pair(day, gathers, own, sale.accumulated.amount, 'sale');
      book.pair(day, [sale.gain.account, row.segment], own, sale.gain.amount, 'sale');
    }
    return { postings: book.postings, issue: null };
  },
};
