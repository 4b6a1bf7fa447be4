'use client';

import { useMemo, useState } from 'react';
import { rangeLabel } from '@/core/calendar';
import type { Ground } from '@/core/ground';
import { minor } from '@/core/money';
import { BETTER, type Answers, type OutcomeId } from '@/core/whatif';
import { Waterfall } from '@/components/Waterfall';
import type { WaterfallStep } from '@/components/waterfallDrawing';
import stage from '@/components/Stage.module.css';
import { decimalsOf, OUTCOME_WORDS, sizeText } from '@/store/caseWords';
import { moneyFormat } from '@/store/format';
import { useAnswer } from '@/store/questions';
import { rangedIn } from './asked';
import { CaseChoice, OutcomeChoice, Waits } from './Choices';
import type { AboutCase, CaseLook } from './useCases';
import classes from './WhatIf.module.css';

const TOLD: readonly OutcomeId[] = ['netProfit', 'lowBank', 'closingBank', 'income', 'grossMargin', 'equity'];
const NAMES = { good: 'F: better', bad: 'U: worse', budget: 'As planned', outlook: 'The case' };

type Told = NonNullable<Answers['steps']>;

/**
 * From the plan to a case, adjustment by adjustment: as they stand in the list, each alone, and what they only do together; and
 * what each does where it comes out at its lowest or its highest.
 */
export function StepsView({ ground, looked, range, cases, one, onCase }: AboutCase) {
  const { book, calendar } = ground;
  const { adjustments } = book;
  const money = moneyFormat(book);
  const [outcome, setOutcome] = useState<OutcomeId>('closingBank');
  const assumed = useMemo(() => rangedIn({ adjustments }, one.case), [adjustments, one.case]);
  const question = useMemo(() => ({ ask: 'steps' as const, assumed, outcome }), [assumed, outcome]);
  const asking = useAnswer(ground, looked, range, question);
  const told = asking.state === 'answered' ? asking.answer : undefined;
  const known = new Map(assumed.map((a) => [a.adjustment.id, a.adjustment]));
  const effect = (id: string, amount: number): WaterfallStep => ({
    label: known.get(id)?.name ?? '',
    value: minor(amount),
    kind: amount >= 0 === (BETTER[outcome] === 'more') ? 'good' : 'bad',
    text: money.signed(minor(amount)),
  });
  const end = (label: string, amount: number, kind: 'budget' | 'outlook'): WaterfallStep => ({
    label,
    value: minor(amount),
    kind,
    text: money.text(minor(amount)),
  });
  const steps: readonly WaterfallStep[] = told
    ? [
        end('As planned', told.begin, 'budget'),
        ...told.steps.map((s) => effect(s.of, s.effect)),
        end(one.case.name, told.end, 'outlook'),
      ]
    : [];
  return (
    <>
      <div className={stage.tools}>
        <CaseChoice cases={cases} one={one} onCase={onCase} />
        <OutcomeChoice of={TOLD} outcome={outcome} onOutcome={setOutcome} />
      </div>
      <div className={classes.body}>
        <Waits asking={asking} />
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
                  <tr key={s.of}>
                    <td>{known.get(s.of)?.name}</td>
                    <td data-figure>{money.signed(minor(s.effect))}</td>
                    <td data-figure>{money.signed(minor(told.alone[i]!.effect))}</td>
                    <td className={classes.why}>{known.get(s.of)?.why}</td>
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
            <Swings ground={ground} one={one} told={told} outcome={outcome} known={known} />
          </>
        )}
      </div>
    </>
  );
}

/** What the case hangs on: each adjustment at its lowest and its highest, all else as it is, the widest first. */
function Swings({
  ground: { book },
  one,
  told,
  outcome,
  known,
}: {
  readonly ground: Ground;
  readonly one: CaseLook;
  readonly told: Told;
  readonly outcome: OutcomeId;
  readonly known: ReadonlyMap<string, Ground['book']['adjustments'][number]>;
}) {
  const money = moneyFormat(book);
  const rows = told.steps
    .flatMap((s, i) => {
      const { low, high } = told.swings[i]!;
      const adjustment = known.get(s.of);
      if (!adjustment || (low === null && high === null)) return [];
      const [down, up] = [low, high].map((v) => (v === null ? 0 : v - told.end)) as [number, number];
      return [{ adjustment, down, up, wide: Math.max(down, up, 0) - Math.min(down, up, 0) }];
    })
    .sort((a, b) => b.wide - a.wide);
  const most = Math.max(1, ...rows.flatMap((r) => [Math.abs(r.down), Math.abs(r.up)]));
  const better = BETTER[outcome] === 'more' ? 1 : -1;
  const sizeAt = (a: (typeof rows)[number]['adjustment'], end: 'low' | 'high') => {
    const size = one.case.sizes[a.id]?.[end] ?? null;
    return size === null ? '' : sizeText(a.what, size, book, decimalsOf(book, a.what));
  };
  return (
    <section>
      <h3 className={classes.heading}>What it hangs on</h3>
      {rows.length === 0 ? (
        <p className="faded">
          Nobody said how low or how high anything may come out in {one.case.name}. Say it beside a size in
          the matrix; then the widest stands first here.
        </p>
      ) : (
        <table className={classes.matrix}>
          <thead>
            <tr>
              <th>All else as it is, the widest first</th>
              <th data-figure>At its lowest</th>
              <th aria-label="Picture" />
              <th data-figure>At its highest</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((r) => (
              <tr key={r.adjustment.id}>
                <td>{r.adjustment.name}</td>
                <td data-figure>
                  {money.signed(minor(r.down))} <small>{sizeAt(r.adjustment, 'low')}</small>
                </td>
                <td>
                  <svg
                    className={classes.swing}
                    viewBox="-100 0 200 16"
                    preserveAspectRatio="none"
                    aria-hidden
                  >
                    {[r.down, r.up].map((v, i) => (
                      <rect
                        key={i}
                        data-tone={v * better >= 0 ? 'good' : 'bad'}
                        x={(Math.min(0, v) / most) * 98}
                        width={(Math.abs(v) / most) * 98}
                        y={i === 0 ? 2 : 8}
                        height="6"
                      />
                    ))}
                    <line x1="0" x2="0" y1="0" y2="16" />
                  </svg>
                </td>
                <td data-figure>
                  {money.signed(minor(r.up))} <small>{sizeAt(r.adjustment, 'high')}</small>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
