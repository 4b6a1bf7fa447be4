'use client';

import { useMemo } from 'react';
import { fromDayNumber } from '@/core/calendar';
import { owedOn, type Owed } from '@/core/front';
import { cashOf, type Ground } from '@/core/ground';
import { minor } from '@/core/money';
import { dayText, moneyFormat } from '@/store/format';
import classes from './Front.module.css';

/** So many of those who are late are named. */
const MOST = 3;

/** Who owes the company and whom it owes, and who is late. */
export function OwedLines({ ground, onOpen }: { readonly ground: Ground; readonly onOpen: () => void }) {
  const { book } = ground;
  const view = useMemo(() => cashOf(ground, null), [ground]);
  if (!view) return null;
  const day = view.forecast.today;
  const sides = (['in', 'out'] as const).flatMap((side) => owedOn(view, side, day) ?? []);
  if (sides.length === 0) return null;
  const money = moneyFormat(book);
  const text = (amount: number) => money.text(minor(amount));
  const whom = (of: Owed): string => {
    const named = of.by.slice(0, MOST);
    const rest = of.late - named.reduce((t, b) => t + b.amount, 0);
    return [
      ...named.map(
        (b) =>
          `${b.counterparty || 'not named'} ${text(b.amount)}, ${b.days} ${b.days === 1 ? 'day' : 'days'} late`,
      ),
      ...(rest === 0 ? [] : [`${of.by.length - named.length} others ${text(rest)}`]),
    ].join('; ');
  };
  const late = (of: Owed): string =>
    of.known === 'due'
      ? 'overdue'
      : `open longer than ${of.side === 'in' ? 'customers take' : 'it takes'} as a rule`;
  return (
    <section aria-label="Who owes">
      <h2 className="label">Who owes, on {dayText(fromDayNumber(day), book.locale)}</h2>
      {sides.map((of) => (
        <p key={of.side} className={classes.sentence}>
          {of.side === 'in' ? 'Customers owe ' : 'Suppliers wait for '}
          <button type="button" className={classes.link} onClick={onOpen}>
            {text(of.open)}
          </button>
          {of.late === 0
            ? `, nothing of it ${late(of)}.`
            : `, ${text(of.late)} of it ${late(of)}: ${whom(of)}.`}
        </p>
      ))}
    </section>
  );
}
