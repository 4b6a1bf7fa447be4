'use client';

import { useEffect, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import type { FiscalCalendar } from '@/core/calendar';
import type { Adjustment, AppliedAdjustment, Book, Budget } from '@/core/model';
import { minor } from '@/core/money';
import { BETTER, OUTCOME_IDS, type Outcome, type OutcomeId, type Outcomes } from '@/core/whatif';
import {
  decimalsOf,
  OUTCOME_WORDS,
  readSize,
  sizeDraft,
  sizeIn,
  sizeText,
  whenWords,
} from '@/store/caseWords';
import { onDay } from '@/store/cashWords';
import { moneyFormat, type MoneyFormat } from '@/store/format';
import type { CaseLook } from './useCases';
import { STROKES, PLAN_STROKE } from './CaseChart';
import classes from './WhatIf.module.css';

/** A cell: an adjustment (or none of them) in a case; no case is its name. */
/** An adjustment as a plan has it. */
export type Taken = AppliedAdjustment & { readonly budget: Budget };

export type At = { readonly adjustment: string; readonly case: string | null };

/**
 * Adjustments by case, each cell with its size, and beneath them what each case comes to. Arrows move, Enter or typing changes
 * a size, Delete empties it; on a name, Enter opens the adjustment and the space bar switches it off and on.
 */
export function CaseMatrix({
  book,
  calendar,
  base,
  cases,
  outcomes,
  taken,
  at,
  readOnly,
  onAt,
  onSize,
  onOpen,
  onSwitch,
  onCase,
}: {
  readonly book: Book;
  readonly calendar: FiscalCalendar;
  readonly base: Outcomes | null;
  readonly cases: readonly CaseLook[];
  /** The outcomes that are shown. */
  readonly outcomes: readonly OutcomeId[];
  /** What was taken into the plan, by adjustment: there no case has it a second time. */
  readonly taken: ReadonlyMap<string, Taken>;
  readonly at: At | null;
  readonly readOnly: boolean;
  readonly onAt: (at: At) => void;
  readonly onSize: (at: { readonly adjustment: string; readonly case: string }, size: number | null) => void;
  readonly onOpen: (adjustment: Adjustment) => void;
  readonly onSwitch: (adjustment: Adjustment) => void;
  /** What is done with a case: its head was pressed. */
  readonly onCase: (id: string) => ReactNode;
}) {
  const money = moneyFormat(book);
  const grid = useRef<HTMLTableElement>(null);
  const [typed, setTyped] = useState<string | null>(null);
  const { adjustments } = book;
  const columns = [null, ...cases.map((c) => c.case.id)];
  const row = adjustments.findIndex((a) => a.id === at?.adjustment);
  const column = Math.max(0, columns.indexOf(at?.case ?? null));
  const current = adjustments[row] ?? null;
  const go = (r: number, c: number) => {
    const target = adjustments[Math.max(0, Math.min(adjustments.length - 1, r))];
    const place = columns[Math.max(0, Math.min(columns.length - 1, c))];
    setTyped(null);
    if (target) onAt({ adjustment: target.id, case: place ?? null });
  };
  const sizeHere = () => {
    const own = cases.find((c) => c.case.id === at?.case);
    return current && own ? sizeIn(own.case, current.id) : null;
  };
  const edit = (text: string | null) => {
    if (readOnly || !current || at?.case == null) return;
    const size = sizeHere();
    const begin = size === null ? '' : sizeDraft(current.what, size, book, decimalsOf(book, current.what));
    setTyped(text ?? begin);
  };
  const done = (then: () => void) => {
    setTyped(null);
    grid.current?.focus({ preventScroll: true });
    then();
  };
  const onKeyDown = (e: KeyboardEvent) => {
    if (e.target !== e.currentTarget || e.altKey || e.ctrlKey || e.metaKey) return;
    const moves: Record<string, readonly [number, number]> = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
    };
    const move = moves[e.key];
    if (move) {
      e.preventDefault();
      return go(row < 0 ? 0 : row + move[0], row < 0 ? 0 : column + move[1]);
    }
    if (e.key === 'Home' || e.key === 'End') {
      e.preventDefault();
      return go(row, e.key === 'Home' ? 0 : columns.length - 1);
    }
    if (!current) return;
    if (at?.case == null) {
      if (e.key === 'Enter' || e.key === ' ') {
        e.preventDefault();
        (e.key === 'Enter' ? onOpen : onSwitch)(current);
      }
      return;
    }
    if (e.key === 'Enter' || e.key === 'F2') {
      e.preventDefault();
      edit(null);
    } else if (e.key === 'Delete' || e.key === 'Backspace') {
      e.preventDefault();
      if (!readOnly) onSize({ adjustment: current.id, case: at.case }, null);
    } else if (e.key.length === 1 && e.key !== ' ') {
      e.preventDefault();
      edit(e.key);
    }
  };
  const idOf = (r: number, c: number) => `case-cell-${r}-${c}`;
  return (
    <table
      ref={grid}
      className={classes.matrix}
      role="grid"
      tabIndex={0}
      aria-label="Adjustments by case"
      aria-activedescendant={row >= 0 ? idOf(row, column) : undefined}
      onKeyDown={onKeyDown}
    >
      <thead>
        <tr role="row">
          <th role="columnheader">What changes</th>
          <th role="columnheader">When</th>
          <th role="columnheader" data-figure>
            <Stroke pattern={PLAN_STROKE} />
            As planned
          </th>
          {cases.map((c, i) => (
            <th key={c.case.id} role="columnheader" data-figure>
              <Stroke pattern={STROKES[i % STROKES.length]!} />
              {onCase(c.case.id)}
            </th>
          ))}
          <th role="columnheader">Why</th>
        </tr>
      </thead>
      <tbody>
        <tr data-head role="row">
          <td role="gridcell" colSpan={cases.length + 4}>
            Adjustments
          </td>
        </tr>
        {adjustments.map((a, r) => (
          <tr
            key={a.id}
            role="row"
            data-off={a.off || undefined}
            data-row={a.id === at?.adjustment || undefined}
          >
            <td
              role="gridcell"
              id={idOf(r, 0)}
              data-at={(r === row && column === 0) || undefined}
              onPointerDown={() => go(r, 0)}
              onDoubleClick={() => onOpen(a)}
            >
              {a.name}
              {a.off && <small> · off</small>}
            </td>
            <td role="gridcell" className={classes.when}>
              {whenWords(calendar, a)}
            </td>
            <td
              role="gridcell"
              data-figure
              title={taken.has(a.id) ? `In ${taken.get(a.id)!.budget.name}` : undefined}
            >
              {taken.has(a.id) ? (
                <>
                  in it{' '}
                  <small>{sizeText(a.what, taken.get(a.id)!.size, book, decimalsOf(book, a.what))}</small>
                </>
              ) : (
                '–'
              )}
            </td>
            {cases.map((c, k) => {
              const here = r === row && column === k + 1;
              const size = sizeIn(c.case, a.id);
              return (
                <td
                  key={c.case.id}
                  role="gridcell"
                  id={idOf(r, k + 1)}
                  data-figure
                  data-size={size === null ? undefined : true}
                  data-in={(size !== null && taken.has(a.id)) || undefined}
                  data-at={here || undefined}
                  onPointerDown={() => {
                    if (!here) go(r, k + 1);
                  }}
                  onDoubleClick={() => edit(null)}
                >
                  {here && typed !== null ? (
                    <SizeField
                      adjustment={a}
                      book={book}
                      typed={typed}
                      label={`${a.name} in ${c.case.name}`}
                      onTyped={setTyped}
                      onTake={(next, move) =>
                        done(() => {
                          if (next !== size) onSize({ adjustment: a.id, case: c.case.id }, next);
                          if (move === 'down') go(r + 1, k + 1);
                          if (move === 'right') go(r, k + 2);
                        })
                      }
                      onLeave={() => done(() => undefined)}
                    />
                  ) : size === null ? (
                    '–'
                  ) : (
                    sizeText(a.what, size, book, decimalsOf(book, a.what))
                  )}
                </td>
              );
            })}
            <td role="gridcell" className={classes.why} title={a.why}>
              {a.why}
            </td>
          </tr>
        ))}
        <tr data-head role="row">
          <td role="gridcell" colSpan={cases.length + 4}>
            Outcomes
          </td>
        </tr>
        {OUTCOME_IDS.filter((id) => outcomes.includes(id)).map((id) => (
          <OutcomeRow key={id} id={id} base={base} cases={cases} money={money} floor={book.cash.floor} />
        ))}
        {(base?.covenants ?? []).map(({ covenant }) => (
          <CovenantRow
            key={covenant.id}
            name={covenant.name}
            id={covenant.id}
            base={base}
            cases={cases}
            calendar={calendar}
          />
        ))}
      </tbody>
    </table>
  );
}

const Stroke = ({ pattern }: { readonly pattern: string }) => (
  <svg className={classes.key} viewBox="0 0 26 8" aria-hidden>
    <line x1="0" x2="26" y1="4" y2="4" stroke="currentColor" strokeWidth="2" strokeDasharray={pattern} />
  </svg>
);

/** A field for a size in its cell: Enter takes it and goes down, Tab goes right, Escape leaves it as it was. */
function SizeField({
  adjustment,
  book,
  typed,
  label,
  onTyped,
  onTake,
  onLeave,
}: {
  readonly adjustment: Adjustment;
  readonly book: Book;
  readonly typed: string;
  readonly label: string;
  readonly onTyped: (text: string) => void;
  readonly onTake: (size: number | null, move: 'down' | 'right' | 'stay') => void;
  readonly onLeave: () => void;
}) {
  const field = useRef<HTMLInputElement>(null);
  const read = readSize(adjustment.what, typed, book, decimalsOf(book, adjustment.what));
  useEffect(() => field.current?.focus(), []);
  /** Taken or left: what leaves the field afterwards says nothing more. */
  const over = useRef(false);
  const once = (what: () => void) => {
    if (over.current) return;
    over.current = true;
    what();
  };
  return (
    <span className={classes.editing}>
      <input
        ref={field}
        className={classes.edit}
        aria-label={label}
        aria-invalid={!read.ok}
        value={typed}
        onChange={(e) => onTyped(e.currentTarget.value)}
        onPointerDown={(e) => e.stopPropagation()}
        onBlur={() => once(() => (read.ok ? onTake(read.size, 'stay') : onLeave()))}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Escape') return once(onLeave);
          if (e.key !== 'Enter' && e.key !== 'Tab') return;
          e.preventDefault();
          if (read.ok) once(() => onTake(read.size, e.key === 'Enter' ? 'down' : 'right'));
        }}
      />
      {!read.ok && (
        <span className={classes.fault} role="alert">
          {read.why}
        </span>
      )}
    </span>
  );
}

/** Whether a figure is better or worse than as planned: F or U, and nothing where it is the same. */
export function besidePlan(id: OutcomeId, now: Outcome | null, plan: Outcome | null): 'F' | 'U' | null {
  if (now === null || plan === null || now.amount === plan.amount) return null;
  return now.amount > plan.amount === (BETTER[id] === 'more') ? 'F' : 'U';
}

const LOWS: ReadonlySet<OutcomeId> = new Set(['lowBank', 'lowAfterLine']);

function OutcomeRow({
  id,
  base,
  cases,
  money,
  floor,
}: {
  readonly id: OutcomeId;
  readonly base: Outcomes | null;
  readonly cases: readonly CaseLook[];
  readonly money: MoneyFormat;
  readonly floor: number | null;
}) {
  const text = (o: Outcome | null) =>
    o === null ? '' : id === 'daysUnder' ? String(o.amount) : money.text(minor(o.amount));
  const isBroken = (o: Outcome | null) => LOWS.has(id) && floor !== null && o !== null && o.amount < floor;
  const plan = base?.of[id] ?? null;
  const cell = (o: Outcome | null, key: string, side: 'F' | 'U' | null) => (
    <td
      key={key}
      role="gridcell"
      data-figure
      data-tone={side === null ? undefined : side === 'F' ? 'good' : 'bad'}
      data-broken={isBroken(o) || undefined}
      title={isBroken(o) ? 'Under the floor' : undefined}
    >
      {text(o)}
      {isBroken(o) && <span aria-label="under the floor"> ▾</span>}
      {side && <small> {side}</small>}
    </td>
  );
  const days = [plan, ...cases.map((c) => c.outcomes?.of[id] ?? null)];
  const dated = days.some((d) => d?.day != null);
  return (
    <tr role="row">
      <td role="rowheader">{OUTCOME_WORDS[id]}</td>
      <td role="gridcell">{LOWS.has(id) && floor !== null ? `floor ${money.text(minor(floor))}` : ''}</td>
      {cell(plan, 'plan', null)}
      {cases.map((c) => {
        if (c.outcomes === undefined)
          return (
            <td key={c.case.id} role="gridcell" data-figure aria-label="being reckoned">
              …
            </td>
          );
        const own = c.outcomes?.of[id] ?? null;
        return cell(own, c.case.id, besidePlan(id, own, plan));
      })}
      <td role="gridcell" className={classes.why}>
        {dated
          ? days.map((d) => (d?.day == null ? '–' : onDay(d.day).replace(/,? \d{4}$/, ''))).join(' · ')
          : ''}
      </td>
    </tr>
  );
}

function CovenantRow({
  id,
  name,
  base,
  cases,
  calendar,
}: {
  readonly id: string;
  readonly name: string;
  readonly base: Outcomes | null;
  readonly cases: readonly CaseLook[];
  readonly calendar: FiscalCalendar;
}) {
  const cell = (of: Outcomes | null | undefined, key: string) => {
    const state = of?.covenants.find((c) => c.covenant.id === id);
    const broken = state?.broken ?? null;
    const words =
      of === undefined
        ? '…'
        : state === undefined || state.tested === 0
          ? ''
          : broken !== null
            ? `breaks ${calendar.period(broken).label}`
            : state.unknown.length > 0
              ? 'not known'
              : 'kept';
    return (
      <td key={key} role="gridcell" data-figure data-tone={broken === null ? undefined : 'bad'}>
        {words}
      </td>
    );
  };
  return (
    <tr role="row">
      <td role="rowheader">{name}</td>
      <td role="gridcell">covenant</td>
      {cell(base, 'plan')}
      {cases.map((c) => cell(c.outcomes, c.case.id))}
      <td role="gridcell" />
    </tr>
  );
}
