'use client';

import { Button } from '@mantine/core';
import { fromDayNumber, toDayNumber, type Day } from '@/core/calendar';
import type { BankStand } from '@/core/cash';
import type { CashView, Ground, TodayView } from '@/core/ground';
import { minor } from '@/core/money';
import type { Account, BankBalance } from '@/core/model';
import { DayInput } from '@/components/DayInput';
import { MoneyInput } from '@/components/MoneyInput';
import { instant, today as todayText } from '@/store/actions';
import { dispatch } from '@/store/bookStore';
import { onDay } from '@/store/cashWords';
import type { MoneyFormat } from '@/store/format';
import { recordedName } from '@/store/person';
import { say } from '@/store/session';
import classes from './Cash.module.css';

/** Each bank account with what the bank says of it, and the statements that are there. */
export function BanksTable({
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
