'use client';

import { useMemo } from 'react';
import { fromDayNumber, toDayNumber } from '@/core/calendar';
import { heldAt } from '@/core/cash';
import { cashOf, type Ground } from '@/core/ground';
import { minor } from '@/core/money';
import { dayText, moneyFormat } from '@/store/format';
import { usePlan } from '@/store/plan';
import { useSession } from '@/store/session';
import classes from './Front.module.css';

const WIDTH = 300;
const HEIGHT = 64;

/** The bank balance ahead in a line, its low point in a sentence. */
export function BankAhead({
  ground,
  onOpen,
  onTry,
}: {
  readonly ground: Ground;
  readonly onOpen: () => void;
  readonly onTry: () => void;
}) {
  const { book } = ground;
  const forecastId = useSession((s) => s.cashForecast) ?? book.cash.own;
  const { looked: budget, name } = usePlan(ground);
  const view = useMemo(() => cashOf(ground, budget, forecastId), [ground, budget, forecastId]);
  const money = moneyFormat(book);
  if (!view) return null;
  const { forecast, items, plans } = view;
  const { low, closing, below } = forecast;
  const { floor } = book.cash;
  // Where nobody plans the bank stands still: that is no forecast, and is not drawn.
  const planned = Math.max(0, ...plans.flatMap((p) => p.periods.map((x) => toDayNumber(x.end))));
  const drawn = planned > forecast.start ? closing.subarray(0, planned - forecast.start) : closing;
  const lacks = low === null || floor === null ? 0 : floor - low.amount;
  const waits = items.filter((i) => i.state === 'waiting').length;
  return (
    <section aria-label="The bank ahead">
      <h2 className="label">The bank ahead{name === null ? '' : ` by ${name}`}</h2>
      {view.opening === 'unknown' && !view.today ? (
        <p className={classes.sentence}>
          <button type="button" className={classes.link} onClick={onOpen}>
            What the bank holds is not known yet
          </button>
        </p>
      ) : (
        <>
          <Line closing={drawn} floor={floor} />
          <p className={classes.sentence}>
            From {money.text(minor(heldAt(forecast)))} on {dayText(fromDayNumber(forecast.today))}
            {low && (
              <>
                , lowest on {dayText(fromDayNumber(low.day))} at{' '}
                <button
                  type="button"
                  className={classes.link}
                  data-bad={below.length > 0 || low.amount < 0 || undefined}
                  onClick={onOpen}
                >
                  {money.text(minor(low.amount))}
                </button>
              </>
            )}
            {floor !== null &&
              (below.length > 0
                ? `, under the floor of ${money.text(floor)}`
                : `, above the floor of ${money.text(floor)}`)}
            .
            {low && lacks > 0 && below.length > 0 && (
              <>
                {' '}
                {money.text(minor(lacks))} more by {dayText(fromDayNumber(below[0]!.from))} would keep it:{' '}
                <button type="button" className={classes.link} onClick={onTry}>
                  try what mends it
                </button>
                .
              </>
            )}
            {planned > forecast.start && drawn.length < closing.length && (
              <span className="faded"> Planned until {dayText(fromDayNumber(planned))}.</span>
            )}
          </p>
          {waits > 0 && (
            <p className={classes.sentence}>
              <button type="button" className={classes.link} onClick={onOpen}>
                {waits} open {waits === 1 ? 'item waits' : 'items wait'} for a look
              </button>
            </p>
          )}
        </>
      )}
    </section>
  );
}

/** The closing balance day by day; the floor dashed. A picture: the sentence beneath says what matters of it. */
function Line({ closing, floor }: { readonly closing: Float64Array; readonly floor: number | null }) {
  const low = Math.min(0, floor ?? 0, ...closing);
  const high = Math.max(1, ...closing);
  const x = (i: number) => (i / Math.max(1, closing.length - 1)) * WIDTH;
  const y = (v: number) => 2 + (1 - (v - low) / (high - low)) * (HEIGHT - 4);
  const path = Array.from(closing, (v, i) => `${i === 0 ? 'M' : 'L'}${x(i).toFixed(1)} ${y(v).toFixed(1)}`);
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className={classes.line} aria-hidden preserveAspectRatio="none">
      <path d={`M0 ${y(0).toFixed(1)}H${WIDTH}`} className={classes.zero} />
      {floor !== null && <path d={`M0 ${y(floor).toFixed(1)}H${WIDTH}`} className={classes.floor} />}
      <path d={path.join('')} className={classes.curve} />
    </svg>
  );
}
