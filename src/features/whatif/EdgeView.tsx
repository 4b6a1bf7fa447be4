'use client';

import { useMemo, useState } from 'react';
import { Button, NativeSelect } from '@mantine/core';
import type { PeriodRange } from '@/core/calendar';
import { budgetOn, type Ground } from '@/core/ground';
import type { Adjustment, Budget } from '@/core/model';
import { minor } from '@/core/money';
import { assumedIn, unitOfSize } from '@/core/scenario';
import { edgesOf, type AskOf, type Edge, type HowFar } from '@/core/whatif';
import stage from '@/components/Stage.module.css';
import { decimalsOf, sizeIn, sizeText } from '@/store/caseWords';
import { moneyFormat } from '@/store/format';
import { steadyGround, useAnswer } from '@/store/questions';
import { usualRange } from './asked';
import { Waits } from './Choices';
import type { AboutCase, CaseLook } from './useCases';
import classes from './WhatIf.module.css';

const PLAN = '';

type Row = {
  readonly label: string;
  readonly of: (e: Edge) => number | null;
  readonly as?: 'percent' | 'times';
  readonly total?: true;
};
const ROWS: readonly Row[] = [
  { label: 'Income', of: (e) => e.income },
  { label: 'Costs that rise with it', of: (e) => -e.variable },
  { label: 'Contribution', of: (e) => e.income - e.variable, total: true },
  { label: 'Fixed costs', of: (e) => -e.fixed },
  { label: 'Operating profit', of: (e) => e.income - e.variable - e.fixed, total: true },
  { label: 'Break-even, of operations', of: (e) => e.operations },
  { label: 'Break-even, before tax', of: (e) => e.beforeTax },
  { label: 'Margin of safety', of: (e) => e.safety?.amount ?? null },
  { label: 'Margin of safety, of income', of: (e) => e.safety?.percent ?? null, as: 'percent' },
  { label: 'Operating leverage', of: (e) => e.leverage, as: 'times' },
];

/** Where the edge is: break-even, margin of safety and leverage by month; and how far each adjustment may go. */
export function EdgeView({
  ground,
  looked,
  range,
  cases,
  one,
  onCase,
}: Omit<AboutCase, 'one'> & { readonly one: CaseLook | null }) {
  const { book, calendar } = ground;
  const money = moneyFormat(book);
  const [asPlanned, setAsPlanned] = useState(one === null);
  const { first, last } = range;
  const own = asPlanned || !one ? steadyGround(ground) : one.ground;
  const edges = useMemo(
    () => edgesOf(own, budgetOn(own, looked), { first, last }),
    [own, looked, first, last],
  );
  const text = (row: Row, e: Edge): string => {
    const value = row.of(e);
    if (value === null) return '–';
    if (row.as === undefined) return money.text(minor(value));
    const shown = (value / 1000)
      .toLocaleString(book.locale, {
        minimumFractionDigits: 1,
        maximumFractionDigits: row.as === 'percent' ? 1 : 2,
      })
      .replace('-', '−');
    return row.as === 'percent' ? `${shown}%` : `${shown} ×`;
  };
  const accounts = new Map(book.accounts.map((a) => [a.id, a.name]));
  return (
    <>
      <div className={stage.tools}>
        <NativeSelect
          aria-label="Case"
          value={asPlanned || !one ? PLAN : one.case.id}
          data={[
            { value: PLAN, label: 'As planned' },
            ...cases.map((c) => ({ value: c.case.id, label: c.case.name })),
          ]}
          onChange={(e) => {
            const id = e.currentTarget.value;
            setAsPlanned(id === PLAN);
            if (id !== PLAN) onCase(id);
          }}
        />
      </div>
      <div className={classes.body}>
        {edges && (
          <>
            <div className={classes.scroll}>
              <table className={classes.matrix}>
                <thead>
                  <tr>
                    <th>The edge</th>
                    <th data-figure>All months</th>
                    {edges.months.map((m) => (
                      <th key={m.period} data-figure>
                        {calendar.period(m.period).label}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {ROWS.map((row) => (
                    <tr key={row.label} data-total={row.total}>
                      <th scope="row">{row.label}</th>
                      <td data-figure>{text(row, edges.whole)}</td>
                      {edges.months.map((m) => (
                        <td key={m.period} data-figure>
                          {text(row, m)}
                        </td>
                      ))}
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
            <p className="faded">
              Break-even = fixed costs × income ÷ contribution; before tax other costs count too, less other
              income. None where no sale leaves anything over, and no leverage without a profit. Rise with
              income:{' '}
              {edges.costs
                .filter((c) => c.variable !== 0)
                .map((c) => {
                  const share = Math.round((100 * c.variable) / c.cost);
                  return `${accounts.get(c.account) ?? c.account}${share === 100 ? '' : ` (${share}%)`}`;
                })
                .join(', ') || 'none'}
              . What rises and what is fixed is said under Statements, Ratios.
            </p>
          </>
        )}
        {one && !asPlanned && (
          <HowFar key={one.case.id} ground={ground} looked={looked} range={range} one={one} />
        )}
      </div>
    </>
  );
}

/** How far each adjustment of a case may go, all else as it is, before the floor or a covenant breaks. */
function HowFar({
  ground,
  looked,
  range,
  one,
}: {
  readonly ground: Ground;
  readonly looked: Budget | null;
  readonly range: PeriodRange;
  readonly one: CaseLook;
}) {
  const { book } = ground;
  const [question, setQuestion] = useState<AskOf<'howFar'> | null>(null);
  const asking = useAnswer(ground, looked, range, question);
  const bound = book.cash.floor !== null || book.covenants.length > 0;
  const begin = () => {
    const assumed = assumedIn(book, one.case);
    setQuestion({
      ask: 'howFar',
      assumed,
      ends: Object.fromEntries(
        assumed.flatMap(({ adjustment: a }) => {
          const unit = unitOfSize(a.what);
          return unit === 'yes' ? [] : [[a.id, usualRange(unit, ground, range)]];
        }),
      ),
    });
  };
  const named = new Map(book.adjustments.map((a) => [a.id, a]));
  return (
    <section>
      <h3 className={classes.heading}>How far each may go in {one.case.name}</h3>
      {!bound ? (
        <p className="faded">The book has no floor and no covenant that could break.</p>
      ) : (
        <>
          {asking.state !== 'asking' && <Button onClick={begin}>Seek the edges</Button>}
          <Waits asking={asking} onStop={() => setQuestion(null)} />
          {asking.state === 'answered' && asking.answer.length === 0 && (
            <p className="faded">Nothing in {one.case.name} has a size that could go further.</p>
          )}
          {asking.state === 'answered' && asking.answer.length > 0 && (
            <table className={classes.matrix} style={{ marginTop: 10 }}>
              <thead>
                <tr>
                  <th>All else as it is</th>
                  <th data-figure>Now</th>
                  <th>What holds now holds</th>
                </tr>
              </thead>
              <tbody>
                {asking.answer.map((far) => {
                  const a = named.get(far.adjustment);
                  return a ? (
                    <tr key={far.adjustment}>
                      <td>{a.name}</td>
                      <td data-figure>
                        {sizeText(a.what, sizeIn(one.case, a.id) ?? 0, book, decimalsOf(book, a.what))}
                      </td>
                      <td>
                        {holds(
                          ground,
                          a,
                          sizeIn(one.case, a.id) ?? 0,
                          far,
                          usualRange(unitOfSize(a.what), ground, range),
                        )}
                      </td>
                    </tr>
                  ) : null;
                })}
              </tbody>
            </table>
          )}
        </>
      )}
    </section>
  );
}

/** How far one may go, in words. */
function holds(
  { book }: Ground,
  a: Adjustment,
  now: number,
  { keeps, mends }: HowFar,
  [least, most]: readonly [number, number],
): string {
  const text = (s: number) => sizeText(a.what, s, book, decimalsOf(book, a.what));
  const run = keeps.runs.find((r) => r.from <= now && now <= r.to)!;
  const ends = [
    run.from > Math.min(least, now) ? `from ${text(run.from)}` : null,
    run.to < Math.max(most, now) ? `up to ${text(run.to)}` : null,
  ].filter((e) => e !== null);
  const all = ends.length === 0 ? `in all of ${text(least)} to ${text(most)}` : ends.join(' ');
  const mended =
    mends === null
      ? ''
      : mends.size === null
        ? '; no size there mends what is broken'
        : `; ${text(mends.size)} is the smallest change that mends what is broken`;
  const apart =
    keeps.untried > 0
      ? ` (tried ${text(keeps.untried)
          .replace(/^\+/, '')
          .replace(/ (later|earlier)$/, '')} apart, and one by one where it turns)`
      : '';
  return `${all}${mended}${apart}`;
}
