'use client';

import { useMemo } from 'react';
import { yearToDate, type PeriodIndex } from '@/core/calendar';
import { bankBeside } from '@/core/front';
import { largestMoves, type Ground } from '@/core/ground';
import type { Layout } from '@/core/model';
import { comparedWith, layoutReport, onlyBudget, shippedLayout } from '@/core/report';
import { dayText, moneyFormat } from '@/store/format';
import { layoutWords } from '@/store/layoutWords';
import classes from './Front.module.css';

const CASH: Layout = { ...shippedLayout('std-cash')!, filter: 'all' };
/** So many flows are named; the others are told together. */
const MOST = 3;

/** What the bank holds beside what was planned for the month's end, and by whose money the two are apart. */
export function BankBesideLines({
  ground,
  month,
  onOpen,
}: {
  readonly ground: Ground;
  readonly month: PeriodIndex;
  readonly onOpen: () => void;
}) {
  const { book, calendar } = ground;
  const told = useMemo(() => {
    const compared = comparedWith(ground, month, CASH, null);
    const budget = onlyBudget(compared);
    if (!budget?.approved?.cash || compared.first !== 'comparison') return null;
    const words = layoutWords(ground, CASH, month, compared);
    const beside = bankBeside(layoutReport({ ground, layout: CASH, month, compared, words }).table);
    if (beside === null || beside.apart === 0) return null;
    return { budget, beside, largest: largestMoves(ground, budget, yearToDate(calendar, month)) };
  }, [ground, calendar, month]);
  if (told === null) return null;
  const money = moneyFormat(book);
  const { budget, beside, largest } = told;
  const named = beside.flows.slice(0, MOST);
  const [first] = named;
  const found = first ? largest(first.flow, first.apart > 0 ? 1 : -1) : null;
  // A payment that is small beside the difference explains nothing of it.
  const most = found && 2 * Math.abs(found.amount) >= Math.abs(first!.apart) ? found : null;
  const what = most && [most.entry.memo, most.entry.counterparty].filter(Boolean).join(', ');
  const rest = beside.apart - named.reduce((t, f) => t + f.apart, 0);
  return (
    <section aria-label="The bank beside the plan">
      <h2 className="label">The bank beside {budget.name}</h2>
      <p className={classes.sentence}>
        On {dayText(calendar.period(month).end, book.locale)} it held{' '}
        <button type="button" className={classes.link} onClick={onOpen}>
          {money.text(beside.held)}
        </button>
        , where {money.text(beside.planned)} was planned:{' '}
        {[
          ...named.map((f) => `${f.label.toLowerCase()} ${money.signed(f.apart)}`),
          ...(rest === 0 ? [] : [`all else ${money.signed(rest as typeof beside.apart)}`]),
        ].join(', ')}
        .
        {most &&
          ` The largest of ${first!.label.toLowerCase()}: ${money.signed(most.amount)} on ${dayText(most.entry.day, book.locale)}${
            what ? ` (${what})` : ''
          }.`}
      </p>
    </section>
  );
}
