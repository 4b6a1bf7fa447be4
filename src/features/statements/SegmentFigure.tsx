'use client';

import { useMemo } from 'react';
import { minor, sumBlank, type Minor } from '@/core/money';
import { rangeLabel, type PeriodIndex, type PeriodRange } from '@/core/calendar';
import { plannedAt, reckoned, type Ahead, type Ground } from '@/core/ground';
import { entriesOf, viewOfSegments } from '@/core/ledger';
import { natural, segmentName, type Account, type Axis, type SegmentId } from '@/core/model';
import { EntriesPanel } from '@/components/EntriesPanel';
import { dayText, moneyFormat } from '@/store/format';
import classes from './Statements.module.css';

/** What a figure of one segment is made of: its entries in closed periods, what budgets plan of it in those ahead. */
export function SegmentFigure({
  ground,
  ahead,
  account,
  range,
  axis,
  value,
}: {
  readonly ground: Ground;
  readonly ahead: Ahead;
  readonly account: Account;
  readonly range: PeriodRange;
  readonly axis: Axis;
  readonly value: SegmentId;
}) {
  const { book, calendar, blocks } = ground;
  const money = moneyFormat(book);
  const { first } = range;
  const last = Math.min(range.last, ahead.start);
  const entries = useMemo(
    () =>
      last >= first
        ? entriesOf(
            blocks,
            calendar,
            account.id,
            { first, last },
            viewOfSegments(ground.view, [{ axis, values: [value] }]),
          )
        : [],
    [ground, blocks, calendar, account, first, last, axis, value],
  );
  const months: { readonly period: PeriodIndex; readonly name: string; readonly amount: Minor }[] = [];
  const blind = new Set<string>();
  for (const { budget, periods } of ahead.view.plans)
    for (const { index } of periods) {
      if (index < first || index > range.last) continue;
      if (budget.axis !== axis.id) blind.add(budget.name);
      else {
        const { amount } = plannedAt(reckoned(ground, budget), account.id, value, index);
        if (amount !== null) months.push({ period: index, name: budget.name, amount });
      }
    }
  const total = minor(entries.reduce((t, e) => t + e.amount, 0));
  return (
    <>
      <h2>{account.name}</h2>
      <div className="faded" style={{ fontSize: 12.5 }}>
        {[account.code, `${axis.name} ${segmentName(axis, value)}`, rangeLabel(calendar, range)]
          .filter(Boolean)
          .join(' · ')}
      </div>
      {entries.length > 0 && (
        <section>
          <div className="label">Entries, {rangeLabel(calendar, { first, last })}</div>
          <EntriesPanel
            entries={entries}
            kind={account.kind}
            dayText={dayText}
            total={natural(account.kind, total)}
            exact={money.exact}
            sourceOf={(block) => book.sources.find((s) => s.block === block)?.fileName ?? ''}
          />
        </section>
      )}
      {range.last > ahead.start && (
        <section>
          <div className="label">Ahead, as planned</div>
          {months.length === 0 && <p className="faded">No budget plans anything of it.</p>}
          {months.map(({ period, name, amount }) => (
            <div key={period} className={classes.pair}>
              <span>
                {calendar.period(period).label} · {name}
              </span>
              <b>{money.exact(amount)}</b>
            </div>
          ))}
          {months.length > 1 && (
            <div className={classes.pair}>
              <span>Together</span>
              <b>{money.exact(sumBlank(months.map((m) => m.amount)))}</b>
            </div>
          )}
          {value === null && (
            <p className="faded" style={{ fontSize: 12.5 }}>
              What is unassigned is the company’s amount less that of its segments: what no budget plans of a
              segment, such as a credit line’s interest, stands here too.
            </p>
          )}
          {[...blind].map((name) => (
            <p key={name} className="faded" style={{ fontSize: 12.5 }}>
              {name} tells no {axis.name.toLowerCase()} apart: all that it plans is unassigned.
            </p>
          ))}
        </section>
      )}
    </>
  );
}
