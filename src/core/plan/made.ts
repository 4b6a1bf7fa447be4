import { minor, plus } from '@/core/money';
import { lineKey, type AccountId, type LineRef } from '@/core/model';
import type { Amounts } from './rule';

/**
 * What money ahead brings to an account of profit and loss: what terms never collect, and the interest of the credit line. A
 * line by schedule takes it as it takes what schedules post. No method, formula or sum follows such an account, so nothing
 * turns in a circle; taxes on profit do, month by month.
 */
export type MadeLine = LineRef & {
  readonly parts: readonly {
    /** `approved`: as it was when the budget was approved; `inCase`: what a case moves of that. */
    readonly of: 'lost' | 'interest' | 'approved' | 'beyond' | 'inCase';
    /** By period of the budget, natural. */
    readonly amounts: readonly number[];
  }[];
};

/** The same list while nothing of it changes. */
export type Made = readonly MadeLine[];

export const NOTHING_MADE: Made = [];

/**
 * What money ahead brings to a budget: to its own lines, and beyond them to accounts that someone said something of beside the
 * plan (dated items, orders on top). The first is a part of the plan, the second of the outlook alone.
 */
export type FromAhead = { readonly made: Made; readonly beyond: Made };

export const NOTHING_AHEAD: FromAhead = { made: NOTHING_MADE, beyond: NOTHING_MADE };

/** What is made of an account in a segment; null where nothing is. */
export const madeOn = (made: Made, { account, segment }: LineRef): MadeLine | null =>
  made.find((m) => m.account === account && m.segment === segment) ?? null;

export const madeAccounts = (made: Made): ReadonlySet<AccountId> => new Set(made.map((m) => m.account));

/** What is made in the i-th period, in all. */
export const madeAt = (line: MadeLine | null, i: number): number =>
  line === null ? 0 : line.parts.reduce((t, { amounts }) => plus(t, amounts[i] ?? 0), 0);

/** Amounts of schedules with what money ahead brings. */
export const withMade = (amounts: Amounts, line: MadeLine): Amounts =>
  amounts.map((a, i) => minor(plus(a ?? 0, madeAt(line, i))));

/**
 * What was made of a plan when it was approved, moved by what a case makes otherwise than the plan as it is: the same list where
 * it makes nothing otherwise.
 */
export function movedMade(then: Made, today: Made, inCase: Made): Made {
  if (sameLines(today, inCase)) return then;
  const refs = new Map([...then, ...today, ...inCase].map((m) => [lineKey(m), m]));
  return [...refs.values()].map(({ account, segment }): MadeLine => {
    const [was, before, now] = [then, today, inCase].map((made) => madeOn(made, { account, segment })) as [
      MadeLine | null,
      MadeLine | null,
      MadeLine | null,
    ];
    const length = (was ?? before ?? now)!.parts[0]!.amounts.length;
    const moved = Array.from({ length }, (_, i) => madeAt(now, i) - madeAt(before, i));
    return { account, segment, parts: [...(was?.parts ?? []), { of: 'inCase', amounts: moved }] };
  });
}

/** Whether two lists are of the same lines, so that what follows from them is in the same order. */
export const sameMadeLines = (a: Made, b: Made): boolean =>
  a === b ||
  (a.length === b.length && a.every((m, i) => m.account === b[i]!.account && m.segment === b[i]!.segment));

/** Whether two lines are made of the same amounts. */
export const sameMadeLine = (a: MadeLine, b: MadeLine): boolean =>
  a === b ||
  (a.parts.length === b.parts.length &&
    a.parts.every(
      (p, k) => p.of === b.parts[k]!.of && p.amounts.every((v, i) => v === b.parts[k]!.amounts[i]),
    ));

const sameLines = (a: Made, b: Made): boolean =>
  sameMadeLines(a, b) && a.every((m, i) => sameMadeLine(m, b[i]!));

/** Whether money ahead brings the same to a budget, however often it was reckoned. */
export const sameAhead = (a: FromAhead, b: FromAhead): boolean =>
  a === b || (sameLines(a.made, b.made) && sameLines(a.beyond, b.beyond));
