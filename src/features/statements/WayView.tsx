'use client';

import { useMemo } from 'react';
import { rangeLabel, type PeriodRange } from '@/core/calendar';
import type { Ahead, Ground } from '@/core/ground';
import { minor, plus, type Minor } from '@/core/money';
import { wayToCash } from '@/core/statements';
import { bridgeOf } from '@/core/variance';
import { Waterfall } from '@/components/Waterfall';
import type { WaterfallStep } from '@/components/waterfallDrawing';
import { moneyFormat } from '@/store/format';
import { SECTION_WORDS, stepWords } from '@/store/statementWords';
import classes from './Statements.module.css';

const MOST_STEPS = 8;
const NAMES = { good: 'Brings money', bad: 'Takes money', actual: 'Closed', outlook: 'Ahead' };

/** From a range's profit to the change of the bank: as a picture, and each step in a sentence. */
export function WayView({
  ground,
  ahead,
  range,
}: {
  readonly ground: Ground;
  readonly ahead: Ahead;
  readonly range: PeriodRange;
}) {
  const { book, calendar } = ground;
  const money = moneyFormat(book);
  const { first, last } = range;
  const way = useMemo(
    () =>
      wayToCash(ahead.balances, ahead.accounts, book.flowClasses, ahead.sales(), {
        first,
        last: Math.min(last, ahead.last),
      }),
    [ahead, book.flowClasses, first, last],
  );
  const words = rangeLabel(calendar, range);
  const steps = useMemo((): readonly WaterfallStep[] => {
    const parts = way.steps.map(({ line, amount }) => ({
      key: line.key,
      label: line.of === 'gains' ? `${line.account.name} on what was sold` : line.account.name,
      effect: amount,
    }));
    const bridge = bridgeOf(way.profit, parts, MOST_STEPS);
    const end = last <= ahead.start ? 'actual' : 'outlook';
    const step = (label: string, value: Minor): WaterfallStep => ({
      label,
      value,
      kind: value >= 0 ? 'good' : 'bad',
      text: money.signed(value),
    });
    return [
      { label: 'Profit', value: way.profit, kind: end, text: money.text(way.profit) },
      ...bridge.parts.map((p) => step(p.label, p.effect)),
      ...(bridge.others === 0 ? [] : [step('All others', bridge.others)]),
      { label: 'Change of the bank', value: way.change, kind: end, text: money.text(way.change) },
    ];
  }, [way, money, last, ahead.start]);
  const sum = (positive: boolean): Minor =>
    minor(way.steps.reduce((t, s) => (s.amount > 0 === positive ? plus(t, s.amount) : t), 0));
  const sorted = way.steps.toSorted((a, b) => Math.abs(b.amount) - Math.abs(a.amount));
  return (
    <div className={classes.scroll} tabIndex={0} role="region" aria-label={`From profit to cash, ${words}`}>
      <p className={classes.sentence}>
        {way.profit >= 0
          ? `A profit of ${money.text(way.profit)}`
          : `A loss of ${money.text(minor(-way.profit))}`}{' '}
        and the bank {way.change >= 0 ? 'up' : 'down'} by {money.text(minor(Math.abs(way.change)))}: from{' '}
        {money.text(way.opening)} to {money.text(way.closing)}.
      </p>
      <Waterfall
        steps={steps}
        label={`From profit to the change of the bank, ${words}`}
        fileName={`Profit to cash ${words}`}
        names={NAMES}
      />
      <table className={classes.table} style={{ marginTop: 14 }}>
        <thead>
          <tr>
            <th>Step</th>
            <th>Brings</th>
            <th>Takes</th>
            <th style={{ textAlign: 'left' }}>In words</th>
          </tr>
        </thead>
        <tbody>
          <tr data-total>
            <td>Profit</td>
            <td>{way.profit >= 0 ? money.text(way.profit) : ''}</td>
            <td>{way.profit < 0 ? money.text(minor(-way.profit)) : ''}</td>
            <td data-words>{words}</td>
          </tr>
          {sorted.map(({ line, amount }) => (
            <tr key={line.key + line.section}>
              <td>{line.account.name}</td>
              <td>{amount > 0 ? money.text(amount) : ''}</td>
              <td>{amount < 0 ? money.text(minor(-amount)) : ''}</td>
              <td data-words>
                {stepWords(line, amount, money)} <span className="faded">{SECTION_WORDS[line.section]}</span>
              </td>
            </tr>
          ))}
          <tr data-total>
            <td>Sources and uses</td>
            <td>{money.text(sum(true))}</td>
            <td>{money.text(minor(-sum(false)))}</td>
            <td data-words>beside the profit</td>
          </tr>
          <tr data-total>
            <td>Change of the bank</td>
            <td>{way.change >= 0 ? money.text(way.change) : ''}</td>
            <td>{way.change < 0 ? money.text(minor(-way.change)) : ''}</td>
            <td data-words>
              {money.text(way.opening)} → {money.text(way.closing)}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  );
}
