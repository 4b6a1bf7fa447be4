import { assertNever } from '@/core/assertNever';
import {
  BASE,
  evaluate,
  nameOfKey,
  parseFormula,
  type BaseName,
  type Name,
  type Parsed,
} from '@/core/formula';
import type { AmountWay } from '@/core/model';
import {
  addRatio,
  compounded,
  divideRatio,
  minor,
  multiplyRatio,
  plus,
  ratio,
  roundRatio,
  ZERO,
  type Minor,
  type Ratio,
} from '@/core/money';
import { percentOfSize, ratioOfSize } from './sizes';

/*
 * Amounts of a line, or values of a driver, as an adjustment leaves them. Each is rounded by month, half away from zero,
 * before the next one takes it on.
 */

type Amounts = readonly (Minor | null)[];

/** What changes amounts, in the order in which it does: an adjustment, or what stands before all of them. */
export type AmountChange =
  | {
      readonly as: 'way';
      /** The adjustment. */
      readonly id: string;
      readonly way: AmountWay;
      readonly size: number;
      /** For the how many-th time it comes in each month; 0 where it does not, as in months that are closed. */
      readonly times: readonly number[];
      readonly ramp: number | null;
    }
  /** So many months later (earlier: negative); what leaves the open months is left out. */
  | {
      readonly as: 'moved';
      readonly id: string;
      readonly months: number;
      readonly covered: readonly boolean[];
      readonly open: readonly boolean[];
    }
  /** What rows that an adjustment adds come to on it, beside its own amounts. */
  | {
      readonly as: 'rows';
      readonly id: string;
      readonly rows: readonly string[];
      readonly open: readonly boolean[];
    }
  /** What an approved line has beyond what its method gives today. */
  | { readonly as: 'approved'; readonly amounts: Amounts };

/** What a change looks at beyond the amounts that it changes. */
export type ChangeGround = {
  /** The month before the budget's first, or a closed one: what it came to. */
  readonly actual: (i: number) => Minor | null;
  /** A name of a formula, so many months before the i-th. */
  readonly value: (name: Name, i: number) => Ratio | null;
  /** What rows come to in the i-th month. */
  readonly rows: (rows: readonly string[], i: number) => number;
  /** Units of a whole: cents of a dollar, 10^decimals of a driver. */
  readonly unit: number;
};

const read = new Map<string, Parsed<Name | BaseName>>();
const LIMIT = 1000;

/** A formula of an adjustment, in which `"base"` is the amount before it. */
export function baseFormula(text: string): Parsed<Name | BaseName> {
  let parsed = read.get(text);
  if (!parsed) {
    if (read.size > LIMIT) read.clear();
    parsed = parseFormula<Name | BaseName>(text, (name) => (name === 'base' ? BASE : nameOfKey(name)));
    read.set(text, parsed);
  }
  return parsed;
}

/** The names beyond the base that a formula follows, and how many months earlier. */
export function namesOfWay(way: AmountWay): readonly { readonly name: Name; readonly lag: number }[] {
  if (way.as !== 'formula') return [];
  const parsed = baseFormula(way.formula);
  return parsed.ok
    ? parsed.names.flatMap(({ name, prior }) => (name.of === 'base' ? [] : [{ name, lag: prior }]))
    : [];
}

/** All months after a change; the same list where it changes none. */
export function changedBy(change: AmountChange, amounts: Amounts, ground: ChangeGround): Amounts {
  switch (change.as) {
    case 'approved':
      return amounts.map((a, i) => added(a, change.amounts[i] ?? null));
    case 'rows':
      return amounts.map((a, i) => {
        const own = change.open[i] ? ground.rows(change.rows, i) : 0;
        return own === 0 ? a : minor(plus(a ?? 0, own));
      });
    case 'moved':
      return movedBy(change, amounts, ground);
    case 'way': {
      const out = [...amounts];
      for (let i = 0; i < out.length; i++) if (change.times[i]! > 0) out[i] = wayAt(change, out, i, ground);
      return out;
    }
    default:
      return assertNever(change);
  }
}

const added = (a: Minor | null, b: Minor | null): Minor | null =>
  b === null ? a : a === null ? b : minor(plus(a, b));

/**
 * Covered months are taken out and added so many months later or earlier to what stands there. Of one that has closed since, what
 * of it has not happened in it is still to come.
 */
function movedBy(change: MovedChange, amounts: Amounts, ground: ChangeGround): Amounts {
  const { months, covered, open } = change;
  if (months === 0) return amounts;
  const out = amounts.map((a, i) => (covered[i] && open[i] && a !== null ? ZERO : a));
  amounts.forEach((a, i) => {
    const to = i + months;
    if (to < 0 || to >= out.length || !open[to]) return;
    const moved = open[i] ? (covered[i] ? a : null) : notHappened(change, amounts, i, ground);
    if (moved) out[to] = minor(plus(out[to] ?? 0, moved));
  });
  return out;
}

type MovedChange = Extract<AmountChange, { as: 'moved' }>;

/** What a shift leaves out of amounts: months that would come to lie where nothing is planned, or in closed ones. */
export const leftOutBy = ({ months, covered, open }: MovedChange, amounts: Amounts): readonly number[] =>
  months === 0 ? [] : amounts.flatMap((a, i) => (a && covered[i] && open[i] && !open[i + months] ? [i] : []));

/** What of a closed month's plan did not happen in it, beside what was moved there from other months. */
function notHappened(
  { months, covered }: MovedChange,
  amounts: Amounts,
  i: number,
  ground: ChangeGround,
): Minor | null {
  const planned = amounts[i] ?? null;
  if (!covered[i] || planned === null) return null;
  const from = i - months;
  const came = from >= 0 && from < amounts.length && covered[from] ? (amounts[from] ?? 0) : 0;
  const rest = planned - ((ground.actual(i) ?? 0) - came);
  return minor(planned > 0 ? Math.min(planned, Math.max(0, rest)) : Math.max(planned, Math.min(0, rest)));
}

/** One of `percent` more, a part of it while it ramps up. */
const factor = (size: number, k: number, ramp: number | null): Ratio =>
  addRatio(ratio(1), partOf(ratioOfSize(size), k, ramp));
const partOf = (whole: Ratio, k: number, ramp: number | null): Ratio =>
  ramp === null || k >= ramp ? whole : divideRatio(multiplyRatio(whole, ratio(k)), ratio(ramp))!;

/** The i-th month; those before it in `amounts` are changed already. */
function wayAt(
  { way, size, times, ramp }: Extract<AmountChange, { as: 'way' }>,
  amounts: Amounts,
  i: number,
  ground: ChangeGround,
): Minor | null {
  const base = amounts[i] ?? null;
  const k = times[i]!;
  switch (way.as) {
    case 'percent':
      return base === null ? null : roundRatio(multiplyRatio(ratio(base), factor(size, k, ramp)));
    case 'amount':
      return minor(plus(base ?? 0, roundRatio(partOf(ratio(size), k, ramp))));
    case 'new':
      // It goes from what it is to what it shall be in as many steps.
      return ramp === null || k >= ramp
        ? minor(size)
        : minor(plus(base ?? 0, roundRatio(partOf(ratio(size - (base ?? 0)), k, ramp))));
    case 'growth':
      if (base === null) return null;
      return way.compounding
        ? compounded(base, percentOfSize(size), k)
        : roundRatio(
            multiplyRatio(ratio(base), addRatio(ratio(1), multiplyRatio(ratioOfSize(size), ratio(k)))),
          );
    case 'onBefore': {
      const before = i > 0 ? (ground.actual(i - 1) ?? amounts[i - 1] ?? null) : ground.actual(-1);
      return minor(plus(before ?? 0, roundRatio(partOf(ratio(size), k, ramp))));
    }
    case 'formula': {
      const parsed = baseFormula(way.formula);
      if (!parsed.ok) return base;
      const { value } = evaluate(parsed.expression, (name, prior) =>
        name.of === 'base'
          ? inUnits(i - prior < 0 ? ground.actual(i - prior) : (amounts[i - prior] ?? null), ground.unit)
          : ground.value(name, i - prior),
      );
      return value === null ? null : roundRatio(multiplyRatio(value, ratio(ground.unit)));
    }
    default:
      return assertNever(way);
  }
}

const inUnits = (amount: Minor | null, unit: number): Ratio | null =>
  amount === null ? null : ratio(amount, unit);
