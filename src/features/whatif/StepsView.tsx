'use client';

import { useEffect, useMemo, useState } from 'react';
import { NativeSelect } from '@mantine/core';
import { rangeLabel, type PeriodRange } from '@/core/calendar';
import { groundAssuming, type Ground } from '@/core/ground';
import type { Budget } from '@/core/model';
import { minor } from '@/core/money';
import { assumedIn, type Assumed } from '@/core/scenario';
import { BETTER, stepsOf, type OutcomeId, type Steps } from '@/core/whatif';
import { Waterfall } from '@/components/Waterfall';
import type { WaterfallStep } from '@/components/waterfallDrawing';
import stage from '@/components/Stage.module.css';
import { OUTCOME_WORDS } from '@/store/caseWords';
import { moneyFormat } from '@/store/format';
import { whenIdle } from '@/store/whenIdle';
import { outcomesOn, steadyGround, type CaseLook } from './useCases';
import classes from './WhatIf.module.css';

const TOLD: readonly OutcomeId[] = ['netProfit', 'lowBank', 'closingBank', 'income', 'grossMargin', 'equity'];
const NAMES = { good: 'F: better', bad: 'U: worse', budget: 'As planned', outlook: 'The case' };

/** From the plan to a case, adjustment by adjustment: as they stand in the list, each alone, and what they only do together. */
export function StepsView({
  ground,
  looked,
  range,
  cases,
}: {
  readonly ground: Ground;
  readonly looked: Budget | null;
  readonly range: PeriodRange;
  readonly cases: readonly CaseLook[];
}) {
  const { book, calendar } = ground;
  const money = moneyFormat(book);
  const [id, setId] = useState(cases.at(-1)?.case.id ?? '');
  const [outcome, setOutcome] = useState<OutcomeId>('closingBank');
  const one = cases.find((c) => c.case.id === id) ?? cases.at(-1) ?? null;
  const assumed = useMemo(() => (one ? assumedIn(book, one.case) : []), [book, one]);
  const told = useSteps(ground, looked, range, assumed, outcome);
  if (!one)
    return (
      <div className={classes.body}>
        <p className="faded">There is no case yet whose steps could be told.</p>
      </div>
    );
  const effect = (label: string, amount: number): WaterfallStep => ({
    label,
    value: minor(amount),
    kind: amount >= 0 === (BETTER[outcome] === 'more') ? 'good' : 'bad',
    text: money.signed(minor(amount)),
  });
  const steps: readonly WaterfallStep[] = told
    ? [
        {
          label: 'As planned',
          value: minor(told.begin),
          kind: 'budget',
          text: money.text(minor(told.begin)),
        },
        ...told.steps.map((s) => effect(s.of.adjustment.name, s.effect)),
        { label: one.case.name, value: minor(told.end), kind: 'outlook', text: money.text(minor(told.end)) },
      ]
    : [];
  return (
    <>
      <div className={stage.tools}>
        <NativeSelect
          aria-label="Case"
          value={one.case.id}
          data={cases.map((c) => ({ value: c.case.id, label: c.case.name }))}
          onChange={(e) => setId(e.currentTarget.value)}
        />
        <NativeSelect
          aria-label="Outcome"
          value={outcome}
          data={TOLD.map((o) => ({ value: o, label: OUTCOME_WORDS[o] }))}
          onChange={(e) => setOutcome(e.currentTarget.value as OutcomeId)}
        />
      </div>
      <div className={classes.body}>
        {told === undefined && <p className="faded">It is being reckoned…</p>}
        {told === null && <p className="faded">Nothing tells this outcome over these months.</p>}
        {told && (
          <>
            <Waterfall
              steps={steps}
              label={`${OUTCOME_WORDS[outcome]} from the plan to ${one.case.name}, ${rangeLabel(calendar, range)}`}
              fileName={`${one.case.name} step by step`}
              names={NAMES}
            />
            <table className={classes.matrix} style={{ marginTop: 12 }}>
              <thead>
                <tr>
                  <th>In the order of the list</th>
                  <th data-figure>On what those above left</th>
                  <th data-figure>Alone</th>
                  <th>Why</th>
                </tr>
              </thead>
              <tbody>
                {told.steps.map((s, i) => (
                  <tr key={s.of.adjustment.id}>
                    <td>{s.of.adjustment.name}</td>
                    <td data-figure>{money.signed(minor(s.effect))}</td>
                    <td data-figure>{money.signed(minor(told.alone[i]!.effect))}</td>
                    <td className={classes.why}>{s.of.adjustment.why}</td>
                  </tr>
                ))}
                <tr>
                  <td>What they only do together</td>
                  <td data-figure />
                  <td data-figure>{money.signed(minor(told.together))}</td>
                  <td />
                </tr>
                <tr data-total>
                  <td>From the plan to {one.case.name}</td>
                  <td data-figure>{money.signed(minor(told.end - told.begin))}</td>
                  <td data-figure>{money.signed(minor(told.end - told.begin))}</td>
                  <td />
                </tr>
              </tbody>
            </table>
          </>
        )}
      </div>
    </>
  );
}

/** The steps, each reckoned when the page is idle; undefined until all are. */
function useSteps(
  ground: Ground,
  looked: Budget | null,
  range: PeriodRange,
  assumed: Assumed,
  outcome: OutcomeId,
): Steps<Assumed[number]> | null | undefined {
  const { first, last } = range;
  const wanted = useMemo(
    () => ({ ground, looked, first, last, assumed, outcome }),
    [ground, looked, first, last, assumed, outcome],
  );
  const [made, setMade] = useState<{
    readonly of: object;
    readonly steps: Steps<Assumed[number]> | null;
  } | null>(null);
  useEffect(() => {
    const known = new Map<string, number | null>();
    const keyOf = (list: Assumed) => list.map((a) => a.adjustment.id).join();
    const reckon = (list: Assumed) => {
      const own = groundAssuming(steadyGround(ground), 'steps', list);
      const found = outcomesOn(own, looked, { first, last });
      known.set(keyOf(list), found?.of[outcome]?.amount ?? null);
    };
    const lists = [[], ...assumed.map((_, i) => assumed.slice(0, i + 1)), ...assumed.map((a) => [a])];
    return whenIdle(
      [
        ...lists.map((list) => () => reckon(list)),
        () => setMade({ of: wanted, steps: stepsOf(assumed, (list) => known.get(keyOf(list)) ?? null) }),
      ],
      REST_MS,
    );
  }, [ground, looked, first, last, assumed, outcome, wanted]);
  return made?.of === wanted ? made.steps : undefined;
}
const REST_MS = 30;
