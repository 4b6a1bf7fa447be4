import { useEffect, useMemo, useReducer } from 'react';
import type { PeriodRange } from '@/core/calendar';
import { groundAssuming, type Ground } from '@/core/ground';
import type { Budget, Case } from '@/core/model';
import { assumedIn } from '@/core/scenario';
import { outcomesOf, type Outcomes } from '@/core/whatif';
import { steadyGround } from '@/store/questions';
import { whenIdle } from '@/store/whenIdle';

/** A case with its ground and what it comes to; `outcomes` undefined while that is not reckoned yet. */
export type CaseLook = {
  readonly case: Case;
  readonly ground: Ground;
  readonly outcomes: Outcomes | null | undefined;
};

/** What a question is asked with: the plan, the months, and the case that it is about. */
export type AboutCase = {
  readonly ground: Ground;
  readonly looked: Budget | null;
  readonly range: PeriodRange;
  readonly cases: readonly CaseLook[];
  readonly one: CaseLook;
  readonly onCase: (id: string) => void;
};

type Found = Outcomes | null;
const found = new WeakMap<Ground, Map<string, Found>>();
/** Memories in which a case was reckoned once: the next time only what changed is reckoned again. */
const warm = new WeakSet<Ground['memory']>();

const nameOf = (looked: Budget | null, { first, last }: PeriodRange): string =>
  `${looked?.id ?? ''} ${first} ${last}`;

/** What a ground comes to, reckoned when it is first asked for. */
export function outcomesOn(ground: Ground, looked: Budget | null, range: PeriodRange): Found {
  let own = found.get(ground);
  if (!own) found.set(ground, (own = new Map()));
  const name = nameOf(looked, range);
  let known = own.get(name);
  if (known === undefined) {
    own.set(name, (known = outcomesOf(ground, looked, range)));
    warm.add(ground.memory);
  }
  return known;
}

/** What is known of a ground already, or would be at once. */
const soon = (ground: Ground, looked: Budget | null, range: PeriodRange): Found | undefined => {
  const known = found.get(ground)?.get(nameOf(looked, range));
  return known !== undefined || !warm.has(ground.memory) ? known : outcomesOn(ground, looked, range);
};

/**
 * The plan and its cases, with what they come to. A case that was never reckoned is so when the page is idle, one after
 * another; after that a change of it is reckoned with the screen that shows it.
 */
export function useCases(
  ground: Ground,
  looked: Budget | null,
  range: PeriodRange,
): { readonly base: Found; readonly cases: readonly CaseLook[] } {
  const [turn, again] = useReducer((n: number) => n + 1, 0);
  const { cases } = ground.book;
  const still = steadyGround(ground);
  const { first, last } = range;
  const looks = useMemo(() => {
    void turn;
    return cases.map((c): CaseLook => {
      const own = groundAssuming(still, c.id, assumedIn(ground.book, c));
      return { case: c, ground: own, outcomes: soon(own, looked, { first, last }) };
    });
  }, [ground, still, cases, looked, first, last, turn]);
  const base = useMemo(() => outcomesOn(still, looked, { first, last }), [still, looked, first, last]);
  useEffect(() => {
    const cold = looks.filter((l) => l.outcomes === undefined);
    if (cold.length === 0) return;
    return whenIdle(
      cold.map((l) => () => {
        outcomesOn(l.ground, looked, { first, last });
        again();
      }),
      REST_MS,
    );
  }, [looks, looked, first, last]);
  return { base, cases: looks };
}
const REST_MS = 30;
