'use client';

import { useEffect, useState } from 'react';
import { fromDayNumber, indexOfId, type PeriodIndex } from '@/core/calendar';
import { asOf, cashOf, madeAhead, type Ground } from '@/core/ground';
import { minor, type Minor } from '@/core/money';
import { cellOf, comparedWith, SHIPPED } from '@/core/report';
import { dayText, moneyFormat } from '@/store/format';
import { monthFacts } from '@/store/monthFacts';
import { whenIdle } from '@/store/whenIdle';
import classes from './Front.module.css';

type Expected = {
  readonly inForce: Ground['book']['inForce'];
  readonly profit: Minor | null;
  readonly low: { readonly amount: number; readonly day: number } | null;
};

/** What was to be expected as of a month: the year's profit beside its budget, and the lowest day of the bank by what is in force. */
function expectedOn(ground: Ground, month: PeriodIndex): Expected {
  const { table, net } = monthFacts(ground, month, comparedWith(ground, month, SHIPPED[0]!, null));
  return {
    inForce: ground.book.inForce,
    profit: net && (cellOf(table, net, 'yearOutlook') as Minor | null),
    low: cashOf(ground, null)?.forecast.low ?? null,
  };
}

/** What is expected otherwise than when the month before was closed, by the plan that ruled then. */
export function SinceLines({ ground, month }: { readonly ground: Ground; readonly month: PeriodIndex }) {
  const { book, calendar, closedThrough, balances } = ground;
  const before = month - 1;
  const isLast = month === closedThrough;
  const known =
    isLast && balances.has(before) && calendar.period(before).year === calendar.period(month).year;
  const [told, setTold] = useState<{
    readonly of: Ground;
    readonly then: Expected;
    readonly now: Expected;
  } | null>(null);
  // Another month is another matching of all payments: of a large ledger it is reckoned when it is asked for.
  const isLarge = ground.blocks.reduce((t, b) => t + b.count, 0) > MANY_ENTRIES;
  const [asked, setAsked] = useState(false);
  useEffect(() => {
    if (!known || (isLarge && !asked)) return;
    // A month back is another book, read once more: the page is there before.
    return whenIdle(
      [
        () =>
          setTold({
            of: ground,
            // What money ahead makes of plans is another then: neither is what the screen shows already.
            then: expectedOn({ ...asOf(ground, before), made: madeAhead }, before),
            now: expectedOn({ ...ground, made: madeAhead }, month),
          }),
      ],
      REST_MS,
    );
  }, [known, isLarge, asked, ground, before, month]);
  if (!known) return null;
  if (told?.of !== ground)
    return isLarge && !asked ? (
      <section aria-label="Since the month before">
        <button type="button" className={classes.link} onClick={() => setAsked(true)}>
          What changed since {calendar.period(before).label} was closed
        </button>
      </section>
    ) : null;
  const { then, now } = told;
  const money = moneyFormat(book);
  const moved = (was: number | null, is: number | null) => was !== null && is !== null && was !== is;
  const put = now.inForce.filter((f) => !then.inForce.includes(f));
  const said = [
    ...put.map(
      (f) =>
        `${book.budgets.find((b) => b.id === f.budget)?.name ?? ''} was put in force from ${calendar.period(indexOfId(calendar, f.from) ?? month).label} on`,
    ),
    moved(then.profit, now.profit) &&
      `the year’s net profit was to be ${money.text(then.profit)}, and is to be ${money.text(now.profit)} (${money.signed(minor(now.profit! - then.profit!))})`,
    then.low &&
      now.low &&
      moved(then.low.amount, now.low.amount) &&
      `the lowest day of the bank was to be ${dayText(fromDayNumber(then.low.day), book.locale)} at ${money.text(minor(then.low.amount))}, and is to be ${dayText(fromDayNumber(now.low.day), book.locale)} at ${money.text(minor(now.low.amount))}`,
  ].filter(Boolean);
  return (
    <section aria-label="Since the month before">
      <h2 className="label">Since {calendar.period(before).label} was closed</h2>
      <p className={classes.sentence}>
        {said.length === 0
          ? 'Nothing is expected otherwise.'
          : `${said.join('; ').replace(/^./, (c) => c.toUpperCase())}.`}
      </p>
    </section>
  );
}

const REST_MS = 200;
const MANY_ENTRIES = 200_000;
