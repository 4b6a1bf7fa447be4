'use client';

import { useMemo } from 'react';
import { rangeLabel } from '@/core/calendar';
import type { Ground } from '@/core/ground';
import type { Budget } from '@/core/model';
import { minor } from '@/core/money';
import { assumedIn } from '@/core/scenario';
import { moneyFormat } from '@/store/format';
import { useAnswer } from '@/store/questions';
import { Waits } from './Choices';
import classes from './WhatIf.module.css';

/** Which case the months that have closed are nearest to, with the measure said. */
export function NearestPart({ ground, looked }: { readonly ground: Ground; readonly looked: Budget | null }) {
  const { book, calendar, closedThrough } = ground;
  const { adjustments, cases } = book;
  const question = useMemo(
    () => ({
      ask: 'nearest' as const,
      cases: cases.map((c) => ({ id: c.id, at: c.at, assumed: assumedIn({ adjustments }, c) })),
    }),
    [adjustments, cases],
  );
  const money = moneyFormat(book);
  const range = useMemo(() => ({ first: closedThrough ?? 0, last: closedThrough ?? 0 }), [closedThrough]);
  const asking = useAnswer(ground, looked, range, question);
  if (asking.state !== 'answered') return <Waits asking={asking} />;
  const nameOf = (id: string | null) =>
    id === null ? 'as planned' : (cases.find((c) => c.id === id)?.name ?? '');
  const told = asking.answer.flatMap((n) =>
    n.distance && n.since ? [{ ...n, distance: n.distance, since: n.since }] : [],
  );
  if (!told.some((t) => t.id !== null))
    return (
      <p className={`faded ${classes.nearest}`}>
        Which case are we in? No month has closed since {cases.length === 1 ? 'it was' : 'they were'} made:
        with the first that does, the nearest is named here.
      </p>
    );
  const sorted = [...told].sort((a, b) => a.distance.sum - b.distance.sum);
  const [first] = sorted;
  return (
    <section className={classes.nearest} aria-label="Which case are we in">
      <h3 className={classes.heading}>
        {rangeLabel(calendar, first!.since)} came nearest to {nameOf(first!.id)}
      </h3>
      <p className="faded">
        {sorted
          .map(
            (t) =>
              `${nameOf(t.id)} ${money.text(minor(t.distance.sum))} off${
                t.since.first === first!.since.first ? '' : ` (${rangeLabel(calendar, t.since)})`
              }`,
          )
          .join(' · ')}
        . Off is what each month’s net profit and closing bank were otherwise than said, either way, added up.
      </p>
    </section>
  );
}
