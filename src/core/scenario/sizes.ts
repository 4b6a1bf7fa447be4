import { assertNever } from '@/core/assertNever';
import { toDayNumber, type Day } from '@/core/calendar';
import type { Adjusts, AmountWay, RowField } from '@/core/model';
import { MOST_AMOUNT, percent, ratio, type Percent, type Ratio } from '@/core/money';

/** What a size is counted in. `quantity`: in the last decimal of the driver. */
export type SizeUnit =
  'percent' | 'money' | 'days' | 'months' | 'count' | 'payments' | 'day' | 'quantity' | 'yes';

const FIELD_UNITS: Readonly<Record<RowField, SizeUnit>> = {
  pay: 'money',
  count: 'count',
  from: 'day',
  until: 'day',
  rate: 'percent',
  amount: 'money',
  payments: 'payments',
  bought: 'day',
  cost: 'money',
  price: 'money',
};

const wayUnit = (way: AmountWay, plain: 'money' | 'quantity'): SizeUnit => {
  switch (way.as) {
    case 'percent':
    case 'growth':
      return 'percent';
    case 'amount':
    case 'new':
    case 'onBefore':
      return plain;
    case 'formula':
      return 'yes';
    default:
      return assertNever(way);
  }
};

/** What the sizes of an adjustment are counted in. */
export function unitOfSize(what: Adjusts): SizeUnit {
  switch (what.on) {
    case 'amounts':
      return wayUnit(what.way, 'money');
    case 'driver':
      return wayUnit(what.way, 'quantity');
    case 'linesMoved':
    case 'rowMoved':
    case 'datedMoved':
      return 'months';
    case 'rowAdded':
      return what.by === 'day' ? 'day' : 'yes';
    case 'rowGone':
    case 'termsNew':
      return 'yes';
    case 'rowField':
      return what.by === 'percent' ? 'percent' : FIELD_UNITS[what.field];
    case 'pay':
    case 'oncosts':
    case 'termsLost':
      return 'percent';
    case 'termsDays':
      return 'days';
    case 'items':
      return what.as === 'later' ? 'days' : what.as === 'paid' ? 'percent' : 'yes';
    case 'rate':
      return what.of === 'limit' || what.of === 'floor' ? 'money' : 'percent';
    default:
      return assertNever(what);
  }
}

/** The smallest step by which sizes are sought, in what they are counted in: 0.01 %, a minor unit, a day, a month, a person. */
export const SIZE_STEP: Readonly<Record<SizeUnit, number>> = {
  percent: 10,
  money: 1,
  days: 1,
  months: 1,
  count: 100,
  payments: 1,
  day: 1,
  quantity: 1,
  yes: 1,
};

/** The least and the most that a size may be; what a file says beyond them counts as the bound. */
export const SIZE_BOUNDS: Readonly<Record<SizeUnit, readonly [number, number]>> = {
  percent: [-1_000_000, 10_000_000],
  money: [-MOST_AMOUNT, MOST_AMOUNT],
  quantity: [-MOST_AMOUNT, MOST_AMOUNT],
  days: [-1000, 1000],
  months: [-120, 120],
  count: [0, 10_000_000],
  payments: [1, 600],
  day: [toDayNumber('1990-01-01' as Day), toDayNumber('2199-12-31' as Day)],
  yes: [1, 1],
};

/** A size within what sizes of its kind may be. */
export function boundedSize(what: Adjusts, size: number): number {
  const [least, most] = SIZE_BOUNDS[unitOfSize(what)];
  return Math.min(most, Math.max(least, size));
}

/** Thousandths of a percent in one. */
const PERCENT = 1000;

/** A size of percent as a fraction of one. */
export const ratioOfSize = (size: number): Ratio => ratio(size, 100 * PERCENT);

/** A size of percent as a percentage: 4,125 is 4.125 %. */
export function percentOfSize(size: number): Percent {
  const whole = Math.abs(size);
  const [units, rest] = [Math.floor(whole / PERCENT), whole % PERCENT];
  return percent(`${size < 0 ? '-' : ''}${units}.${String(rest).padStart(3, '0')}`);
}

/** A percentage as a size; what is beyond its thousandths is rounded off. */
export const sizeOfPercent = (p: string): number => Math.round(Number(p) * PERCENT);
