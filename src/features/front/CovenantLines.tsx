'use client';

import { useMemo } from 'react';
import { aheadOf, covenantsOf, type Ground } from '@/core/ground';
import { minor } from '@/core/money';
import { moneyFormat } from '@/store/format';
import { usePlan } from '@/store/plan';
import { ratioInWords } from '@/store/ratioNames';
import classes from './Front.module.css';

/** What lenders ask of the company, each with the first period that breaks it and how much room there is. */
export function CovenantLines({ ground, onOpen }: { readonly ground: Ground; readonly onOpen: () => void }) {
  const { book, calendar } = ground;
  const { looked: budget, name } = usePlan(ground);
  const states = useMemo(() => {
    if (book.covenants.length === 0) return [];
    const ahead = aheadOf(ground, budget);
    return ahead ? covenantsOf(ground, ahead) : [];
  }, [ground, book, budget]);
  if (states.length === 0) return null;
  const money = moneyFormat(book);
  return (
    <section aria-label="Covenants">
      <h2 className="label">Covenants{name === null ? '' : ` by ${name}`}</h2>
      {states.map(({ covenant, tested, unknown, broken, tightest }) => (
        <p key={covenant.id} className={classes.sentence}>
          {covenant.name} on{' '}
          <button
            type="button"
            className={classes.link}
            data-bad={broken !== null || undefined}
            onClick={onOpen}
          >
            {ratioInWords(book, covenant.ratio)}
          </button>{' '}
          {broken !== null
            ? `breaks in ${calendar.period(broken).label}`
            : unknown.length === tested
              ? 'cannot be told: its ratio is not known'
              : unknown.length > 0
                ? `is kept in ${tested - unknown.length} of ${tested} months, and not known in the others`
                : 'is kept'}
          {tightest &&
            (tightest.room < 0
              ? `, short by ${money.text(minor(-tightest.room))} in ${calendar.period(tightest.period).label}`
              : `, with ${money.text(tightest.room)} of headroom in ${calendar.period(tightest.period).label}`)}
          .
        </p>
      ))}
    </section>
  );
}
