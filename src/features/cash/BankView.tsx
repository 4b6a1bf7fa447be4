'use client';

import { useMemo, useState } from 'react';
import { Button, NativeSelect, SegmentedControl } from '@mantine/core';
import type { BankEntry, Movement } from '@/core/cash';
import type { CashView, Ground, TodayView } from '@/core/ground';
import { minor } from '@/core/money';
import stage from '@/components/Stage.module.css';
import { instant } from '@/store/actions';
import { dispatch, useBookStore } from '@/store/bookStore';
import { causeWords, onDay } from '@/store/cashWords';
import { countText, moneyFormat, type MoneyFormat } from '@/store/format';
import { recordedName } from '@/store/person';
import { BanksTable } from './BanksTable';
import { claimsWords } from './claimWords';
import { MovementDialog } from './MovementDialog';
import { TakeBank } from './TakeBank';
import classes from './Cash.module.css';

type Shows = 'moved' | 'left' | 'uncleared';
const STEP = 200;

/** What banks say of days after the closed one: balances and statements, what moved and what it is, and what has not. */
export function BankView({ ground, view }: { readonly ground: Ground; readonly view: CashView }) {
  const readOnly = useBookStore((s) => s.readOnly);
  const [shows, setShows] = useState<Shows>('moved');
  const money = moneyFormat(ground.book);
  const { today } = view;
  const moved = today?.stands.flatMap((s) => s.movements.filter((m) => m.day > view.input.start)) ?? [];
  const counts: Record<Shows, number> = {
    moved: moved.length,
    left: new Set(today?.waiting.map((w) => `${w.event.part.key} ${w.event.month}`)).size,
    uncleared: today?.matching.uncleared.size ?? 0,
  };
  const label = (text: string, of: Shows) => `${text}${counts[of] > 0 ? ` (${counts[of]})` : ''}`;
  return (
    <div className={stage.left} style={{ flex: 1, paddingRight: 18 }}>
      <div className={stage.tools}>
        <SegmentedControl
          size="xs"
          aria-label="What is shown of the banks"
          value={shows}
          onChange={(v) => setShows(v as Shows)}
          data={[
            { value: 'moved', label: label('Moved', 'moved') },
            { value: 'left', label: label('Has not moved', 'left') },
            { value: 'uncleared', label: label('Not cleared', 'uncleared') },
          ]}
        />
        <span className={stage.push} />
        <TakeBank ground={ground} view={view} />
      </div>
      <BanksTable ground={ground} view={view} money={money} readOnly={readOnly} />
      {today === null ? (
        <p className="faded" style={{ maxWidth: 720 }}>
          The bank ahead begins at the ledger’s balance on {onDay(view.input.start)}. Type what a bank holds
          on a later day, or take in its statement: then it begins on that day, from what the bank says.
        </p>
      ) : (
        <>
          {shows === 'moved' && (
            <Moved
              ground={ground}
              view={view}
              today={today}
              moved={moved}
              money={money}
              readOnly={readOnly}
            />
          )}
          {shows === 'left' && <Left ground={ground} view={view} today={today} money={money} />}
          {shows === 'uncleared' && <Uncleared today={today} money={money} readOnly={readOnly} />}
        </>
      )}
    </div>
  );
}

/** What moved after the closed day, and what each movement is. */
function Moved({
  ground,
  view,
  today,
  moved,
  money,
  readOnly,
}: {
  readonly ground: Ground;
  readonly view: CashView;
  readonly today: TodayView;
  readonly moved: readonly Movement[];
  readonly money: MoneyFormat;
  readonly readOnly: boolean;
}) {
  const [asked, setAsked] = useState<Movement | null>(null);
  const [shown, setShown] = useState(STEP);
  const [only, setOnly] = useState<'all' | 'open'>('all');
  const claims = useMemo(() => {
    const of = new Map<Movement, TodayView['matching']['claims'][number][]>();
    for (const c of today.matching.claims) of.set(c.movement, [...(of.get(c.movement) ?? []), c]);
    return of;
  }, [today]);
  const rest = (m: Movement) => today.matching.rest.get(m) ?? 0;
  const rows = moved.filter((m) => only === 'all' || rest(m) !== 0);
  const open = moved.reduce((t, m) => t + rest(m), 0);
  const said = ground.book.cash.banks.said;
  return (
    <>
      <div className={classes.ages}>
        <NativeSelect
          size="xs"
          aria-label="Which movements"
          value={only}
          data={[
            { value: 'all', label: 'all movements' },
            { value: 'open', label: 'what is nothing planned' },
          ]}
          onChange={(e) => setOnly(e.currentTarget.value as 'all' | 'open')}
        />
        <span>
          moved, not posted <b>{money.text(minor(open))}</b>
        </span>
        <span className="faded">it stands so until the month is closed</span>
      </div>
      <div className={classes.scroll} tabIndex={0} role="region" aria-label="Movements">
        <table className={classes.table}>
          <thead>
            <tr>
              <th>Booked</th>
              <th>Counterparty</th>
              <th>For</th>
              <th className={classes.figure}>Amount</th>
              <th>What it is</th>
              <th className={classes.figure}>Not posted</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {rows.slice(0, shown).map((m) => (
              <tr key={m.key} data-chosen={said[m.key] !== undefined}>
                <td>{onDay(m.day)}</td>
                <td>{m.counterparty || <i>nobody named</i>}</td>
                <td>{[m.reference, m.memo].filter(Boolean).join(' · ')}</td>
                <td className={classes.figure}>{money.exact(minor(m.amount))}</td>
                <td>
                  {claimsWords(ground, view, claims.get(m) ?? [], money).map((words) => (
                    <div key={words}>{words}</div>
                  ))}
                  {(claims.get(m) ?? []).length === 0 && (
                    <span className="faded">
                      {said[m.key]?.as === '' ? 'nothing planned, as said' : 'nothing planned'}
                    </span>
                  )}
                </td>
                <td className={classes.figure}>{rest(m) === 0 ? '' : money.exact(minor(rest(m)))}</td>
                <td>
                  <Button
                    disabled={readOnly}
                    aria-label={`Say what ${m.counterparty || m.memo || 'the movement'} of ${onDay(m.day)} is`}
                    onClick={() => setAsked(m)}
                  >
                    Say…
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {rows.length === 0 && <p className="faded">No movement is known.</p>}
        {rows.length > shown && (
          <Button m={8} onClick={() => setShown(shown + 5 * STEP)}>
            {countText(rows.length - shown)} more
          </Button>
        )}
      </div>
      {asked && (
        <MovementDialog
          ground={ground}
          view={view}
          today={today}
          movement={asked}
          money={money}
          onClose={() => setAsked(null)}
        />
      )}
    </>
  );
}

/** What was planned for days that the bank tells and has not moved; and what lapsed with those days. */
function Left({
  ground,
  view,
  today,
  money,
}: {
  readonly ground: Ground;
  readonly view: CashView;
  readonly today: TodayView;
  readonly money: MoneyFormat;
}) {
  // What falls due of one thing in several parts waits as one.
  const waiting = useMemo(() => {
    const of = new Map<
      string,
      { event: TodayView['waiting'][number]['event']; amount: number; to: number }
    >();
    for (const { event, amount, to } of today.waiting) {
      const key = `${event.part.key} ${event.month}`;
      const was = of.get(key);
      if (was) was.amount += amount;
      else of.set(key, { event, amount, to });
    }
    return [...of.values()].map((w) => ({ ...w, ...causeWords(ground, view, w.event) }));
  }, [ground, view, today]);
  return (
    <div className={classes.scroll} tabIndex={0} role="region" aria-label="Has not moved">
      <table className={classes.table}>
        <thead>
          <tr>
            <th>What</th>
            <th>Follows from</th>
            <th>Planned for</th>
            <th className={classes.figure}>Money</th>
            <th>Falls on</th>
          </tr>
        </thead>
        <tbody>
          {waiting.map((w) => (
            <tr key={`${w.event.part.key} ${w.event.month}`}>
              <td>{w.name}</td>
              <td className="faded">{w.why}</td>
              <td>{onDay(w.event.day)}</td>
              <td className={classes.figure}>{money.exact(minor(w.amount))}</td>
              <td>{onDay(w.to)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {today.waiting.length === 0 && (
        <p className="faded">Everything that fell due on days that the banks tell has moved.</p>
      )}
      {today.lapsed.length > 0 && (
        <>
          <p style={{ margin: '14px 0 6px' }}>
            Planned at once for days that are past: what came and went stands in its place, and nothing of it
            is ahead any more.
          </p>
          <table className={classes.table} aria-label="Lapsed">
            <tbody>
              {today.lapsed.map((l) => (
                <tr key={l.part.key}>
                  <td>
                    {
                      causeWords(ground, view, { part: l.part, month: 0, since: today.day, day: today.day })
                        .name
                    }
                  </td>
                  <td className={classes.figure}>{money.exact(minor(l.amount))}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </div>
  );
}

const entryWords = (e: BankEntry): string =>
  [e.counterparty, e.reference].filter(Boolean).join(' ') || 'An entry without words';

/** Entries of the ledger that a bank had not cleared at the closed day, and saying so of another. */
function Uncleared({
  today,
  money,
  readOnly,
}: {
  readonly today: TodayView;
  readonly money: MoneyFormat;
  readonly readOnly: boolean;
}) {
  const { uncleared } = today.matching;
  const put = (key: string, open: boolean) =>
    dispatch({
      type: 'sayMovements',
      movements: [{ key, said: open ? { as: 'open', by: recordedName(), at: instant() } : null }],
    });
  const said = useBookStore((s) => s.history?.book.cash.banks.said) ?? {};
  const others = [...today.entries]
    .filter((e) => !uncleared.has(e))
    .sort((a, b) => b.day - a.day)
    .slice(0, 100);
  return (
    <div className={classes.scroll} tabIndex={0} role="region" aria-label="Not cleared">
      <table className={classes.table}>
        <thead>
          <tr>
            <th>In the ledger</th>
            <th>Entry</th>
            <th className={classes.figure}>Amount</th>
            <th>At the bank</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {[...uncleared].map(([e, m]) => (
            <tr key={e.key} data-chosen={said[`entry ${e.key}`] !== undefined}>
              <td>{onDay(e.day)}</td>
              <td>{entryWords(e)}</td>
              <td className={classes.figure}>{money.exact(minor(e.amount))}</td>
              <td>{m ? `cleared on ${onDay(m.day)}` : 'still ahead: it falls on the next working day'}</td>
              <td>
                {said[`entry ${e.key}`] && (
                  <Button disabled={readOnly} onClick={() => put(`entry ${e.key}`, false)}>
                    It was cleared
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {uncleared.size === 0 && (
        <p className="faded">
          Nothing is known that the ledger has and the bank had not cleared at the closed day.
        </p>
      )}
      {others.length > 0 && (
        <NativeSelect
          mt={10}
          size="xs"
          w={420}
          label="The bank had not cleared this entry either"
          value=""
          disabled={readOnly}
          data={[
            { value: '', label: 'choose an entry' },
            ...others.map((e) => ({
              value: `entry ${e.key}`,
              label: `${onDay(e.day)} · ${entryWords(e)} · ${money.exact(minor(e.amount))}`,
            })),
          ]}
          onChange={(e) => e.currentTarget.value && put(e.currentTarget.value, true)}
        />
      )}
    </div>
  );
}
