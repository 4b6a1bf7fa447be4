'use client';

import { useMemo, useState } from 'react';
import { Button, NativeSelect, SegmentedControl } from '@mantine/core';
import { fromDayNumber, toDayNumber, type Day } from '@/core/calendar';
import { type BankEntry, type BankStand, type Movement } from '@/core/cash';
import type { CashView, Ground, TodayView } from '@/core/ground';
import { minor } from '@/core/money';
import type { Account, BankBalance } from '@/core/model';
import { DayInput } from '@/components/DayInput';
import { MoneyInput } from '@/components/MoneyInput';
import stage from '@/components/Stage.module.css';
import { instant, today as todayText } from '@/store/actions';
import { dispatch, useBookStore } from '@/store/bookStore';
import { causeWords, onDay } from '@/store/cashWords';
import { moneyFormat, type MoneyFormat } from '@/store/format';
import { recordedName } from '@/store/person';
import { say } from '@/store/session';
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
      <Banks ground={ground} view={view} money={money} readOnly={readOnly} />
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

/** Each bank account with what the bank says of it, and the statements that are there. */
function Banks({
  ground,
  view,
  money,
  readOnly,
}: {
  readonly ground: Ground;
  readonly view: CashView;
  readonly money: MoneyFormat;
  readonly readOnly: boolean;
}) {
  const { book } = ground;
  const { banks } = book.cash;
  const accounts = book.accounts.filter(
    (a) => a.kind === 'bank' && (a.active || view.input.opening.get(a.id)),
  );
  const put = (account: Account, balance: Pick<BankBalance, 'day' | 'amount'> | null) =>
    dispatch({
      type: 'setBankBalance',
      account: account.id,
      balance: balance && { ...balance, by: recordedName(), at: instant() },
    });
  const start = fromDayNumber(view.input.start);
  const end = view.input.periods.at(-1)?.end ?? start;
  const usual = view.today
    ? fromDayNumber(view.today.day)
    : todayText() > start && todayText() <= end
      ? (todayText() as Day)
      : fromDayNumber(view.input.start + 1);
  return (
    <table className={classes.table} aria-label="Banks" style={{ marginBottom: 10 }}>
      <thead>
        <tr>
          <th>Account</th>
          <th className={classes.figure}>Ledger, {onDay(view.input.start)}</th>
          <th className={classes.figure}>Typed: at the bank</th>
          <th>at the end of</th>
          <th className={classes.figure}>It holds</th>
          <th>Known by</th>
        </tr>
      </thead>
      <tbody>
        {accounts.map((a) => {
          const said = banks.balances.find((b) => b.account === a.id);
          const stand = view.today?.stands.find((s) => s.account === a.id);
          return (
            <tr key={a.id}>
              <td>{a.name}</td>
              <td className={classes.figure}>{money.exact(minor(view.input.opening.get(a.id) ?? 0))}</td>
              <td className={classes.figure}>
                <MoneyInput
                  aria-label={`${a.name}: at the bank`}
                  size="xs"
                  w={120}
                  disabled={readOnly}
                  currency={book.currency}
                  locale={book.locale}
                  value={said?.amount ?? null}
                  onCommit={(amount) => put(a, amount === null ? null : { day: said?.day ?? usual, amount })}
                />
              </td>
              <td>
                {said && (
                  <DayInput
                    aria-label={`${a.name}: day of the balance`}
                    size="xs"
                    w={130}
                    disabled={readOnly}
                    value={said.day}
                    onCommit={(day: Day | null) => day && put(a, { day, amount: said.amount })}
                  />
                )}
              </td>
              <td className={classes.figure}>
                {stand && (
                  <>
                    {money.exact(minor(stand.amount))} <span className="faded">{onDay(stand.day)}</span>
                  </>
                )}
              </td>
              <td>
                {stand ? (
                  <Known stand={stand} today={view.today!} money={money} start={view.input.start} />
                ) : said ? (
                  <span className={classes.guess}>
                    {said.day <= start
                      ? `older than the day closed, ${onDay(view.input.start)}: not used any more`
                      : `beyond the months ahead: not used`}
                  </span>
                ) : (
                  <span className="faded">the ledger and the plan</span>
                )}
                <Statements account={a} ground={ground} start={view.input.start} readOnly={readOnly} />
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** How much of a bank's days is known, and what does not come to what it says. */
function Known({
  stand,
  today,
  money,
  start,
}: {
  readonly stand: BankStand;
  readonly today: TodayView;
  readonly money: MoneyFormat;
  readonly start: number;
}) {
  const off = today.off.get(stand.account);
  const gap = stand.gaps[0];
  const unknown = stand.gaps.reduce((t, g) => t + g.to - g.from + 1, 0);
  const parts = [
    gap === undefined
      ? `every day since ${onDay(start)}`
      : unknown === stand.day - start
        ? 'its balance alone: what was planned until then counts as come; move what has not'
        : `not the ${unknown} ${unknown === 1 ? 'day' : 'days'} from ${onDay(gap.from)}: what was planned then counts as come`,
    off && off.atStart !== 0
      ? `on ${onDay(start)} the bank had ${money.exact(minor(Math.abs(off.atStart)))} ${off.atStart > 0 ? 'more' : 'less'} than ledger and uncleared entries say`
      : '',
    off && off.atEnd !== 0
      ? `it holds ${money.exact(minor(Math.abs(off.atEnd)))} ${off.atEnd > 0 ? 'more' : 'less'} than what is known to have moved`
      : '',
  ].filter(Boolean);
  return (
    <span className={gap || off?.atStart || off?.atEnd ? classes.guess : undefined}>{parts.join('; ')}</span>
  );
}

/** The statements of an account that tell days after the closed one, and how many older ones there are. */
function Statements({
  account,
  ground,
  start,
  readOnly,
}: {
  readonly account: Account;
  readonly ground: Ground;
  readonly start: number;
  readonly readOnly: boolean;
}) {
  const own = ground.book.cash.banks.statements.filter((s) => s.account === account.id);
  const later = own.filter((s) => toDayNumber(s.last) > start);
  return (
    <>
      {later.map((s) => (
        <div key={s.id}>
          <b>{s.from}</b>, {onDay(toDayNumber(s.first))} to {onDay(toDayNumber(s.last))}, {s.movements.length}{' '}
          {s.movements.length === 1 ? 'movement' : 'movements'}
          <Button
            ml={8}
            disabled={readOnly}
            aria-label={`Take back the statement ${s.from}`}
            onClick={() => {
              dispatch({ type: 'removeBankStatement', statement: s.id });
              say(`${s.from} is taken back. Ctrl+Z brings it in again.`);
            }}
          >
            Take back
          </Button>
        </div>
      ))}
      {own.length > later.length && (
        <div className="faded">
          {own.length - later.length} {own.length - later.length === 1 ? 'statement' : 'statements'} of closed
          days
        </div>
      )}
    </>
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
                      {said[m.key] ? 'nothing planned, as said' : 'nothing planned'}
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
            {(rows.length - shown).toLocaleString('en-US')} more
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
