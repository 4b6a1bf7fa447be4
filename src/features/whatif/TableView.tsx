'use client';

import { useState } from 'react';
import { Button, NativeSelect, NumberInput, TextInput } from '@mantine/core';
import type { Ground } from '@/core/ground';
import type { Adjustment } from '@/core/model';
import { minor } from '@/core/money';
import { SIZE_STEP, unitOfSize } from '@/core/scenario';
import {
  FLOOR,
  MOST_SIZES,
  OUTCOME_IDS,
  sizesAcross,
  type AskOf,
  type Cell,
  type OutcomeId,
} from '@/core/whatif';
import stage from '@/components/Stage.module.css';
import { decimalsOf, OUTCOME_WORDS, readSize, sizeDraft, sizeIn, sizeText } from '@/store/caseWords';
import { moneyFormat } from '@/store/format';
import { useAnswer } from '@/store/questions';
import { assumedWith, usualRange } from './asked';
import { CaseChoice, OutcomeChoice, Waits } from './Choices';
import type { AboutCase, CaseLook } from './useCases';
import classes from './WhatIf.module.css';

type Side = { readonly adjustment: string; readonly ends: readonly [string, string]; readonly count: number };

const isSized = (a: Adjustment): boolean => unitOfSize(a.what) !== 'yes';

/** Two sizes of a case against one outcome. */
export function TableView({ ground, looked, range, cases, one, onCase }: AboutCase) {
  const { book } = ground;
  const choices = book.adjustments.filter(isSized);
  // What is on in the case is what one would vary.
  const first = [...choices].sort(
    (a, b) => Number(sizeIn(one.case, b.id) !== null) - Number(sizeIn(one.case, a.id) !== null),
  );
  const sideOf = (a: Adjustment | undefined): Side => {
    if (!a) return { adjustment: '', ends: ['', ''], count: 7 };
    const [low, high] = usualRange(unitOfSize(a.what), ground, range);
    const near = unitOfSize(a.what) === 'percent' ? ([-20_000, 20_000] as const) : ([low, high] as const);
    const draft = (size: number) => sizeDraft(a.what, size, book, decimalsOf(book, a.what));
    return { adjustment: a.id, ends: [draft(near[0]), draft(near[1])], count: 7 };
  };
  const [outcome, setOutcome] = useState<OutcomeId>('lowBank');
  const [down, setDown] = useState(() => sideOf(first[0]));
  const [across, setAcross] = useState(() => sideOf(first[1]));
  const [question, setQuestion] = useState<AskOf<'table'> | null>(null);
  const asking = useAnswer(ground, looked, range, question);
  const told = asking.state === 'answered' ? asking.answer : null;
  const sides = [down, across].map((side) => {
    const a = book.adjustments.find((x) => x.id === side.adjustment) ?? null;
    const read = a ? side.ends.map((t) => readSize(a.what, t, book, decimalsOf(book, a.what))) : [];
    const [low, high] = read.map((r) => (r.ok ? r.size : null));
    const faults = read.map((r) => (r.ok ? (r.size === null ? 'A size' : null) : r.why));
    const ok = a !== null && low != null && high != null && low < high;
    const present = a && sizeIn(one.case, a.id);
    return {
      a,
      faults,
      turned: low != null && high != null && low >= high,
      sizes: ok ? sizesAcross([low, high], side.count, SIZE_STEP[unitOfSize(a.what)], present) : null,
    };
  });
  const [d, a] = sides as [(typeof sides)[number], (typeof sides)[number]];
  const same = down.adjustment === across.adjustment;
  const begin = () => {
    if (!d.a || !a.a || !d.sizes || !a.sizes || same) return;
    let assumed = assumedWith(book, one.case, d.a, sizeIn(one.case, d.a.id) ?? d.sizes[0]!);
    const other = assumedWith(book, one.case, a.a, sizeIn(one.case, a.a.id) ?? a.sizes[0]!);
    const all = new Map([...assumed, ...other].map((x) => [x.adjustment.id, x]));
    assumed = book.adjustments.flatMap((x) => all.get(x.id) ?? []);
    setQuestion({
      ask: 'table',
      assumed,
      down: { adjustment: d.a.id, sizes: d.sizes },
      across: { adjustment: a.a.id, sizes: a.sizes },
      outcome,
    });
  };
  const change =
    <T,>(set: (v: T) => void) =>
    (v: T) => {
      set(v);
      setQuestion(null);
    };
  if (choices.length < 2)
    return (
      <div className={classes.body}>
        <p className="faded">A table needs two adjustments that have sizes.</p>
      </div>
    );
  return (
    <>
      <div className={stage.tools}>
        <CaseChoice cases={cases} one={one} onCase={change(onCase)} />
        <OutcomeChoice of={OUTCOME_IDS} outcome={outcome} onOutcome={change(setOutcome)} />
      </div>
      <div className={classes.body}>
        <div className={classes.sides}>
          {(
            [
              ['Down', down, change(setDown), d],
              ['Across', across, change(setAcross), a],
            ] as const
          ).map(([label, side, set, read]) => (
            <fieldset key={label}>
              <legend className="label">{label}</legend>
              <NativeSelect
                size="xs"
                aria-label={`${label}: what is varied`}
                value={side.adjustment}
                data={choices.map((c) => ({ value: c.id, label: c.name }))}
                onChange={(e) => set(sideOf(choices.find((c) => c.id === e.currentTarget.value)))}
              />
              {(['from', 'to'] as const).map((end, i) => (
                <TextInput
                  key={end}
                  size="xs"
                  aria-label={`${label}: ${end}`}
                  leftSection={<small className="faded">{end}</small>}
                  leftSectionWidth={38}
                  value={side.ends[i]}
                  error={read.faults[i]}
                  onChange={(e) => {
                    const text = e.currentTarget.value;
                    set({
                      ...side,
                      ends: (i === 0 ? [text, side.ends[1]] : [side.ends[0], text]) as Side['ends'],
                    });
                  }}
                />
              ))}
              <NumberInput
                size="xs"
                aria-label={`${label}: how many`}
                min={2}
                max={MOST_SIZES}
                clampBehavior="strict"
                allowDecimal={false}
                suffix=" sizes"
                value={side.count}
                onChange={(v) => set({ ...side, count: Number(v) || 2 })}
              />
            </fieldset>
          ))}
          <Button onClick={begin} disabled={!d.sizes || !a.sizes || same}>
            Reckon
          </Button>
        </div>
        {same && <p className="faded">The two are the same adjustment: choose another.</p>}
        {(d.turned || a.turned) && <p className="faded">A range ends before it begins.</p>}
        <Waits asking={asking} onStop={() => setQuestion(null)} />
        {question === null && !same && (
          <p className="faded">
            Each cell is {one.case.name} with the two sizes that meet there, all else as it is.
          </p>
        )}
        {told && question && d.a && a.a && (
          <Cells ground={ground} one={one} down={d.a} across={a.a} told={told} outcome={outcome} />
        )}
      </div>
    </>
  );
}

/** What a cell breaks, worst first. */
const stateOf = (c: Cell): 'newly' | 'planned' | null =>
  c.newly.length > 0 ? 'newly' : c.asPlanned.length > 0 ? 'planned' : null;

function Cells({
  ground: { book },
  one,
  down,
  across,
  told,
  outcome,
}: {
  readonly ground: Ground;
  readonly one: CaseLook;
  readonly down: Adjustment;
  readonly across: Adjustment;
  readonly told: {
    readonly down: readonly number[];
    readonly across: readonly number[];
    readonly cells: readonly (readonly Cell[])[];
  };
  readonly outcome: OutcomeId;
}) {
  const money = moneyFormat(book);
  const text = (a: Adjustment, size: number) => sizeText(a.what, size, book, decimalsOf(book, a.what));
  const covenants = new Map(book.covenants.map((c) => [c.id, c.name]));
  const nameOf = (id: string) => (id === FLOOR ? 'the floor' : (covenants.get(id) ?? 'a covenant'));
  const words = (c: Cell): string =>
    [
      c.newly.length > 0 && `breaks ${c.newly.map(nameOf).join(', ')}`,
      c.asPlanned.length > 0 && `breaks ${c.asPlanned.map(nameOf).join(', ')}, as the plan does`,
    ]
      .filter(Boolean)
      .join('; ');
  const [own, other] = [sizeIn(one.case, down.id), sizeIn(one.case, across.id)];
  const all = told.cells.flat();
  const broken = (i: number, k: number) => {
    const c = told.cells[i]?.[k];
    return c !== undefined && stateOf(c) !== null;
  };
  return (
    <>
      <table className={`${classes.matrix} ${classes.cells}`}>
        <caption className="faded">
          {OUTCOME_WORDS[outcome]}: {down.name} down, {across.name} across
        </caption>
        <thead>
          <tr>
            <td />
            {told.across.map((size) => (
              <th key={size} data-figure scope="col" data-present={size === other || undefined}>
                {text(across, size)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {told.down.map((size, i) => (
            <tr key={size}>
              <th data-figure scope="row" data-present={size === own || undefined}>
                {text(down, size)}
              </th>
              {told.cells[i]!.map((c, k) => {
                const state = stateOf(c);
                return (
                  <td
                    key={told.across[k]}
                    data-figure
                    data-breaks={state ?? undefined}
                    data-here={(size === own && told.across[k] === other) || undefined}
                    data-edge-left={(k > 0 && broken(i, k) !== broken(i, k - 1)) || undefined}
                    data-edge-top={(i > 0 && broken(i, k) !== broken(i - 1, k)) || undefined}
                    title={words(c) || undefined}
                  >
                    {c.outcome === null
                      ? '–'
                      : outcome === 'daysUnder'
                        ? c.outcome.amount
                        : money.text(minor(c.outcome.amount))}
                    {state && <span aria-label={words(c)}> {state === 'newly' ? '▾' : '▿'}</span>}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="faded">
        {[
          own !== null && other !== null && `Outlined: ${one.case.name} as it is.`,
          all.some((c) => stateOf(c) === 'newly') &&
            `▾ hatched: breaks ${[...new Set(all.flatMap((c) => c.newly))].map(nameOf).join(', ')}, which the plan keeps.`,
          all.some((c) => stateOf(c) === 'planned') &&
            `▿ dotted: breaks ${[...new Set(all.flatMap((c) => c.asPlanned))].map(nameOf).join(', ')}, as the plan does too.`,
          all.every((c) => stateOf(c) === null) && 'Nothing breaks in any of them.',
        ]
          .filter(Boolean)
          .join(' ')}
      </p>
    </>
  );
}
