'use client';

import { useMemo, useState } from 'react';
import { Button, NativeSelect } from '@mantine/core';
import { minor, plus, type Minor } from '@/core/money';
import { rangeLabel, toDayNumber, type PeriodRange } from '@/core/calendar';
import { causesOn } from '@/core/cash';
import { lineMovesOn, type Ahead, type Ground } from '@/core/ground';
import { entriesOf } from '@/core/ledger';
import {
  FLOW_CLASSES,
  isProfitAndLoss,
  natural,
  type Account,
  type Axis,
  type FlowClass,
  type SegmentId,
} from '@/core/model';
import type { ReportRow } from '@/core/report';
import { flowClassOf } from '@/core/statements';
import { EntriesPanel } from '@/components/EntriesPanel';
import { dispatch, useBookStore } from '@/store/bookStore';
import { causeWords, onDay } from '@/store/cashWords';
import { dayText, moneyFormat } from '@/store/format';
import { SegmentFigure } from './SegmentFigure';
import { TryChange } from './TryChange';
import { tunablesOf } from './tunables';
import classes from './Statements.module.css';

const SHOWN = 12;
const CLASS_NAMES: Readonly<Record<FlowClass, string>> = {
  cash: 'The bank itself',
  operating: 'Operating',
  adjustment: 'No money (write-offs, allowances)',
  investing: 'Investing',
  financing: 'Financing',
};

/** What a figure of a statement is made of: the ledger's entries in closed periods, what causes it in those ahead. */
export function FigurePanel({
  ground,
  ahead,
  row,
  range,
  stands,
  of,
}: {
  readonly ground: Ground;
  readonly ahead: Ahead;
  readonly row: ReportRow | null;
  readonly range: PeriodRange;
  /** The statement shows what accounts stand at, not what they moved by. */
  readonly stands: boolean;
  /** The value of an axis that the figure is of; null for the whole company. */
  readonly of: { readonly axis: Axis; readonly value: SegmentId } | null;
}) {
  const account = ahead.accounts.find((a) => a.id === row?.account) ?? null;
  if (!row) return <p className="faded">Choose a figure to see the entries or causes that it is made of.</p>;
  if (!account)
    return (
      <>
        <h2>{row.label}</h2>
        <p className="faded">
          {row.terms.length > 0
            ? 'The rows above add up to it. Choose one of them to see what it is made of.'
            : 'It follows from the other rows of the statement.'}
        </p>
      </>
    );
  if (of) return <SegmentFigure {...{ ground, ahead, account, range, ...of }} />;
  return <AccountFigure {...{ ground, ahead, account, range, stands }} />;
}

function AccountFigure({
  ground,
  ahead,
  account,
  range,
  stands,
}: {
  readonly ground: Ground;
  readonly ahead: Ahead;
  readonly account: Account;
  readonly range: PeriodRange;
  readonly stands: boolean;
}) {
  const { book, calendar, blocks, view } = ground;
  const money = moneyFormat(book);
  const readOnly = useBookStore((s) => s.readOnly);
  const [all, setAll] = useState(false);
  const closed = { first: range.first, last: Math.min(range.last, ahead.start) };
  const coming = { first: Math.max(range.first, ahead.start + 1), last: Math.min(range.last, ahead.last) };
  const entries = useMemo(
    () =>
      closed.last >= closed.first
        ? entriesOf(blocks, calendar, account.id, { first: closed.first, last: closed.last }, view)
        : [],
    [blocks, calendar, account, closed.first, closed.last, view],
  );
  const days = useMemo(
    () =>
      coming.last >= coming.first
        ? {
            from: toDayNumber(calendar.period(coming.first).start),
            to: toDayNumber(calendar.period(coming.last).end),
          }
        : null,
    [calendar, coming.first, coming.last],
  );
  const causes = useMemo(
    () => (days ? causesOn(ahead.view.projected, account.id, days, ahead.view.bearers.borneBy) : []),
    [ahead, account, days],
  );
  const moves = useMemo(
    () => (days ? lineMovesOn(ahead.view, account.id, days) : []),
    [ahead, account, days],
  );
  const single = coming.first === coming.last && closed.last < closed.first ? coming.first : null;
  const tunables = useMemo(
    () => tunablesOf(ground, ahead, account, isProfitAndLoss(account.kind) ? single : null, causes),
    [ground, ahead, account, single, causes],
  );
  const moved = ({ first, last }: PeriodRange): Minor => {
    let sum = 0;
    for (let p = first; p <= last; p++) sum = plus(sum, ahead.balances.movement(account.id, p) ?? 0);
    return natural(account.kind, minor(sum));
  };
  const inBook = book.accounts.some((a) => a.id === account.id);
  const label = (r: PeriodRange) => rangeLabel(calendar, r);
  return (
    <>
      <h2>{account.name}</h2>
      <div className="faded" style={{ fontSize: 12.5 }}>
        {[account.code, label(range)].filter(Boolean).join(' · ')}
      </div>
      {stands && (
        <section>
          <div className={classes.pair}>
            <span>Stood at the start</span>
            <b>
              {money.exact(natural(account.kind, ahead.balances.balance(account.id, range.first - 1, true)))}
            </b>
          </div>
          <div className={classes.pair}>
            <span>Moved by</span>
            <b>{money.exact(moved(range))}</b>
          </div>
          <div className={classes.pair}>
            <span>Stands at the end</span>
            <b>{money.exact(natural(account.kind, ahead.balances.balance(account.id, range.last, true)))}</b>
          </div>
        </section>
      )}
      <TryChange ground={ground} ahead={ahead} tunables={tunables} />
      {entries.length > 0 && (
        <section>
          <div className="label">Entries, {label(closed)}</div>
          <EntriesPanel
            entries={entries}
            kind={account.kind}
            dayText={dayText}
            total={moved(closed)}
            exact={money.exact}
            sourceOf={(block) => book.sources.find((s) => s.block === block)?.fileName ?? ''}
          />
        </section>
      )}
      {coming.last >= coming.first && (
        <section>
          <div className="label">Ahead, {label(coming)}</div>
          {causes.length + moves.length === 0 && <p className="faded">Nothing moves it.</p>}
          {causes.slice(0, all ? causes.length : SHOWN).map((c) => {
            const words = causeWords(ground, ahead.view, c);
            return (
              <div key={`${c.part.key} ${c.month} ${c.amount > 0}`} className={classes.cause}>
                <b>{words.name}</b>
                <span>{money.exact(natural(account.kind, minor(c.amount)))}</span>
                <small>
                  from {onDay(c.day)} · {words.why}
                </small>
              </div>
            );
          })}
          {moves.map((m) => (
            <div key={`${m.day} ${m.what}`} className={classes.cause}>
              <b>Credit line, {m.what}</b>
              <span>{money.exact(natural(account.kind, minor(m.debits)))}</span>
              <small>
                {onDay(m.day)} · {money.text(minor(m.stands))} drawn after it
              </small>
            </div>
          ))}
          {causes.length > SHOWN && !all && (
            <Button mt={8} onClick={() => setAll(true)}>
              {causes.length - SHOWN} more
            </Button>
          )}
        </section>
      )}
      {inBook && account.kind !== 'bank' && (
        <section>
          <NativeSelect
            label="On the cash-flow statement"
            disabled={readOnly}
            value={book.flowClasses[account.id] ?? ''}
            data={[
              { value: '', label: `By its kind: ${CLASS_NAMES[flowClassOf(account, {})].toLowerCase()}` },
              ...FLOW_CLASSES.filter(
                (c) => !isProfitAndLoss(account.kind) || c === 'investing' || c === 'financing',
              ).map((c) => ({ value: c, label: CLASS_NAMES[c] })),
            ]}
            onChange={(e) =>
              dispatch({
                type: 'setFlowClass',
                accounts: [account.id],
                flow: (e.currentTarget.value || null) as FlowClass | null,
              })
            }
          />
        </section>
      )}
    </>
  );
}
