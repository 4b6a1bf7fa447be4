'use client';

import { useMemo } from 'react';
import { Button, Checkbox, NativeSelect } from '@mantine/core';
import { minor, percent, unitOf, type Minor } from '@/core/money';
import { fromDayNumber } from '@/core/calendar';
import { DayInput } from '@/components/DayInput';
import { kindsOf, type Account, type Cash, type CreditLine, type DatedItem } from '@/core/model';
import { accountFor } from '@/core/schedule';
import { bankFloors, unborneOf, type CashView, type Ground, type Transfer } from '@/core/ground';
import { MoneyInput, NumberInput, PercentInput } from '@/components/MoneyInput';
import { dispatch, useBookStore } from '@/store/bookStore';
import { moneyFormat } from '@/store/format';
import { onDay } from '@/store/cashWords';
import { say } from '@/store/session';
import { AccountChoice } from '@/components/AccountChoice';
import { AddCost } from './AddCost';
import classes from './Cash.module.css';

/** Where the bank stands, the least it should hold, and the credit line that keeps it there. */
export function RulesView({ ground, view }: { readonly ground: Ground; readonly view: CashView }) {
  const readOnly = useBookStore((s) => s.readOnly);
  const { book } = ground;
  const { cash } = book;
  const money = moneyFormat(book);
  const set = (change: Partial<Omit<Cash, 'items' | 'lists' | 'dated' | 'changes'>>) =>
    dispatch({ type: 'setCash', change });
  const field = { size: 'xs' as const, currency: book.currency, locale: book.locale, disabled: readOnly };
  const banks = book.accounts.filter((a) => a.kind === 'bank');
  const line = cash.creditLine;
  const costs = book.accounts.filter((a) => kindsOf('interest').includes(a.kind));
  const setLine = (change: Partial<CreditLine>) => line && set({ creditLine: { ...line, ...change } });
  const drawnOn = book.accounts.find((a) => a.id === accountFor(book.accounts, 'creditLine'));
  const costOf = book.accounts.find((a) => a.id === accountFor(book.accounts, 'interest'));
  const interestName = book.accounts.find((a) => a.id === line?.interest)?.name ?? costOf?.name;
  const loans = book.accounts.filter((a) => a.kind === 'loan' || a.kind === 'otherLiability');
  return (
    <div className={classes.fields}>
      <h2>What the bank holds</h2>
      {view.opening === 'ledger' ? (
        <p>
          The ledger says {money.exact(minor(view.projected.opening))} on {onDay(view.input.start)}, over{' '}
          {banks.length} bank {banks.length === 1 ? 'account' : 'accounts'}.
        </p>
      ) : (
        <Opening ground={ground} view={view} readOnly={readOnly} />
      )}
      {banks.length > 1 && (
        <NativeSelect
          label="Pays and receives unless said otherwise"
          value={cash.bank ?? banks[0]!.id}
          disabled={readOnly}
          data={banks.map((a) => ({ value: a.id, label: a.name }))}
          onChange={(e) => set({ bank: e.currentTarget.value })}
        />
      )}
      <h2>The floor</h2>
      <div className={classes.row}>
        <MoneyInput
          {...field}
          label="The least it should hold (blank: none)"
          value={cash.floor}
          onCommit={(floor) => set({ floor })}
        />
        <NumberInput
          size="xs"
          label="Balances without items run off over so many days"
          disabled={readOnly}
          least={1}
          most={1000}
          value={cash.runOff}
          onCommit={(runOff) => set({ runOff })}
        />
      </div>
      {banks.length > 1 && <BankFloors ground={ground} view={view} banks={banks} readOnly={readOnly} />}
      <h2>Credit line</h2>
      <Checkbox
        label="There is one that may be drawn to keep the floor"
        checked={line !== null}
        disabled={readOnly}
        onChange={(e) =>
          set({
            creditLine: e.currentTarget.checked
              ? {
                  account: null,
                  interest: null,
                  limit: minor(10_000 * unitOf(book.currency)),
                  rate: percent('8'),
                  step: minor(1_000 * unitOf(book.currency)),
                }
              : null,
          })
        }
      />
      {line && (
        <div className={classes.row}>
          <MoneyInput
            {...field}
            label="Limit"
            value={line.limit}
            onCommit={(v) => setLine({ limit: Math.abs(v ?? 0) as Minor })}
          />
          <PercentInput
            size="xs"
            label="Rate a year"
            disabled={readOnly}
            value={line.rate}
            onCommit={(rate) => setLine({ rate })}
          />
          <MoneyInput
            {...field}
            label="Drawn in steps of"
            value={line.step}
            onCommit={(v) => setLine({ step: Math.max(1, Math.abs(v ?? 1)) as Minor })}
          />
          <AccountChoice
            label="Its account"
            none={drawnOn ? `${drawnOn.name}, by its name` : 'none in the ledger yet'}
            accounts={loans}
            value={line.account}
            readOnly={readOnly}
            onValue={(account) => setLine({ account })}
          />
          <AccountChoice
            label="Its interest is a cost of"
            none={costOf ? `${costOf.name}, by its name` : 'no account, so in no plan'}
            accounts={costs}
            value={line.interest}
            readOnly={readOnly}
            onValue={(interest) => setLine({ interest })}
          />
          <DayInput
            {...field}
            label="Granted until"
            description="Blank: it can be called"
            value={line.until ?? null}
            onCommit={(until) => setLine({ until })}
          />
        </div>
      )}
      {line && line.interest === null && <AddCost accounts={book.accounts} bears="interest" />}
      {unborneOf(view).some((u) => u.account !== null && u.account === view.creditLine?.interest) && (
        <p className={classes.note} role="note">
          {interestName} has amounts of its own in the plan, so the interest of the line is in none of its
          lines: it stands against what was written off. Make that line by schedule in the Budget, or name
          another account.
        </p>
      )}
      {line && cash.floor === null && (
        <p className={classes.note} role="note">
          Without a floor, the line is drawn when the bank would fall below nothing.
        </p>
      )}
    </div>
  );
}

/** Floors of single accounts, how they fare, and a transfer that would mend one that is broken. */
function BankFloors({
  ground,
  view,
  banks,
  readOnly,
}: {
  readonly ground: Ground;
  readonly view: CashView;
  readonly banks: readonly Account[];
  readonly readOnly: boolean;
}) {
  const { book } = ground;
  const money = moneyFormat(book);
  const { floors } = book.cash.banks;
  const fares = useMemo(() => new Map(bankFloors(view, floors).map((f) => [f.account, f])), [view, floors]);
  const name = (id: string) => banks.find((b) => b.id === id)?.name ?? id;
  const plan = ({ from, to, day, amount }: Transfer) => {
    const item: DatedItem = {
      id: `i${book.nextId}`,
      name: `From ${name(from)} to ${name(to)}`,
      direction: 'in',
      amount: minor(amount),
      first: fromDayNumber(day),
      repeat: null,
      against: from,
      bank: to,
      group: 'other',
    };
    if (!dispatch({ type: 'setDatedItem', item }))
      say(
        `${item.name}, ${money.text(item.amount)} on ${onDay(day)}: planned as a dated item. Ctrl+Z takes it back.`,
      );
  };
  return (
    <table className={classes.table} aria-label="Floors of accounts" style={{ marginTop: 10 }}>
      <thead>
        <tr>
          <th>Account</th>
          <th className={classes.figure}>Its own floor</th>
          <th>Lowest ahead</th>
          <th>What would mend it</th>
        </tr>
      </thead>
      <tbody>
        {banks.map((a) => {
          const fare = fares.get(a.id);
          const transfer = fare?.transfer;
          return (
            <tr key={a.id}>
              <td>{a.name}</td>
              <td className={classes.figure}>
                <MoneyInput
                  aria-label={`${a.name}: its own floor`}
                  size="xs"
                  w={120}
                  placeholder="none"
                  disabled={readOnly}
                  currency={book.currency}
                  locale={book.locale}
                  value={floors[a.id] ?? null}
                  onCommit={(floor) => dispatch({ type: 'setBankFloor', account: a.id, floor })}
                />
              </td>
              <td className={fare?.under ? classes.guess : undefined}>
                {fare && (
                  <>
                    {money.text(minor(fare.low.amount))} on {onDay(fare.low.day)}
                    {fare.under &&
                      `; under its floor from ${onDay(fare.under.from)} to ${onDay(fare.under.until)}`}
                  </>
                )}
              </td>
              <td>
                {transfer ? (
                  <>
                    {money.text(minor(transfer.amount))} from {name(transfer.from)} on {onDay(transfer.day)}
                    {fare.floor - fare.low.amount > transfer.amount && ', as much as it can spare'}
                    <Button ml={8} disabled={readOnly} onClick={() => plan(transfer)}>
                      Plan it
                    </Button>
                  </>
                ) : (
                  fare?.under && <span className="faded">no other bank can spare anything then</span>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** Opening figures for a book whose ledger has no bank. */
function Opening({
  ground: { book },
  view,
  readOnly,
}: {
  readonly ground: Ground;
  readonly view: CashView;
  readonly readOnly: boolean;
}) {
  const day = fromDayNumber(view.input.start);
  const amounts = book.cash.opening?.amounts ?? {};
  const kinds = new Set(['bank', 'receivable', 'payable', 'taxPayable', 'inventory', 'loan']);
  const accounts = book.accounts.filter((a) => kinds.has(a.kind));
  const stale = book.cash.opening !== null && book.cash.opening.day !== day;
  const put = (account: string, amount: Minor | null) => {
    const next = { ...amounts };
    if (amount === null) delete next[account];
    else next[account] = amount;
    dispatch({
      type: 'setCash',
      change: { opening: Object.keys(next).length === 0 ? null : { day, amounts: next } },
    });
  };
  return (
    <>
      <p>
        The ledger has no bank balance. Say what stood on {onDay(view.input.start)}: the bank at least, the
        rest if it is known.
      </p>
      {stale && (
        <p className={classes.note} role="note">
          These figures were said of {book.cash.opening!.day}; another month is closed since. Say them anew.
        </p>
      )}
      {accounts.length === 0 && (
        <>
          <p className="faded">The book has no bank account yet.</p>
          <Button
            disabled={readOnly}
            onClick={() =>
              dispatch({
                type: 'addAccount',
                account: {
                  id: `a${book.nextId}`,
                  code: '',
                  name: 'Bank',
                  kind: 'bank',
                  group: '',
                  active: true,
                  keeper: '',
                  usual: { low: null, high: null },
                },
              })
            }
          >
            Add a bank account
          </Button>
        </>
      )}
      <div className={classes.row}>
        {accounts.map((a) => (
          <MoneyInput
            key={a.id}
            size="xs"
            label={a.name}
            disabled={readOnly}
            currency={book.currency}
            locale={book.locale}
            value={amounts[a.id] ?? null}
            onCommit={(v) => put(a.id, v)}
          />
        ))}
      </div>
    </>
  );
}
