'use client';

import { useState } from 'react';
import { Button, Group } from '@mantine/core';
import type { Minor } from '@/core/money';
import type { PeriodIndex } from '@/core/calendar';
import { triedOf, type Ahead, type Ground, type Moves } from '@/core/ground';
import type { Account, Budget, Command, Line } from '@/core/model';
import { MoneyInput } from '@/components/MoneyInput';
import { dispatch, useBookStore } from '@/store/bookStore';
import { moneyFormat, type MoneyFormat } from '@/store/format';
import { say } from '@/store/session';
import classes from './Statements.module.css';

/** So many of the accounts that a change moves are named. */
const MOST_NAMED = 4;

/** Another amount for a month ahead: what it moves in all three statements stands here before it is applied. */
export function TryAmount({
  ground,
  ahead,
  account,
  period,
}: {
  readonly ground: Ground;
  readonly ahead: Ahead;
  readonly account: Account;
  readonly period: PeriodIndex;
}) {
  const { book, calendar } = ground;
  const money = moneyFormat(book);
  const readOnly = useBookStore((s) => s.readOnly);
  const [amount, setAmount] = useState<Minor | null>(null);
  const [moves, setMoves] = useState<readonly Moves[] | null>(null);
  const own = draftLine(ahead, account, period);
  if (readOnly || !own) return null;
  const { budget, line } = own;
  const command = (value: Minor | null): Command => ({
    type: 'setCells',
    budget: budget.id,
    how: 'typed',
    cells: [{ account: line.account, segment: line.segment, period: calendar.period(period).id, value }],
  });
  const look = (value: Minor | null) => {
    setAmount(value);
    const tried = triedOf(ground, budget, command(value), { first: ahead.start + 1, last: ahead.last });
    if (!tried.ok) return say('The budget does not take this amount.', 'trouble');
    setMoves(tried.moves);
  };
  return (
    <section>
      <div className="label">What if it were</div>
      <Group gap={6} align="end">
        <MoneyInput
          aria-label={`${account.name} in ${calendar.period(period).label}`}
          value={amount}
          currency={book.currency}
          locale={book.locale}
          onCommit={look}
        />
        <Button
          disabled={moves === null || moves.length === 0}
          onClick={() => {
            if (!dispatch(command(amount))) say('Applied to the budget. Ctrl+Z takes it back.');
          }}
        >
          Apply
        </Button>
      </Group>
      {moves !== null && moves.length === 0 && <p className="faded">Then nothing moves.</p>}
      {moves &&
        spells(moves, (m) => movesWords(m, money)).map(({ first, last, words }) => (
          <div key={first} className={classes.cause}>
            <b>
              {calendar.period(first).label}
              {last === first ? '' : ` – ${calendar.period(last).label}`}
            </b>
            <span />
            <small>{words}</small>
          </div>
        ))}
    </section>
  );
}

/** What moves in a period, in words: "profit −1,200, accounts receivable +400, bank −800". */
const movesWords = ({ profit, accounts, bank }: Moves, money: MoneyFormat): string =>
  [
    profit === 0 ? '' : `profit ${money.signed(profit)}`,
    ...accounts.slice(0, MOST_NAMED).map((a) => `${a.account.name.toLowerCase()} ${money.signed(a.amount)}`),
    accounts.length > MOST_NAMED ? `${accounts.length - MOST_NAMED} more accounts` : '',
    bank === 0 ? '' : `bank ${money.signed(bank)}`,
  ]
    .filter(Boolean)
    .join(', ');

/** Periods one after another of which the same is said, as one. */
function spells(moves: readonly Moves[], wordsOf: (m: Moves) => string) {
  const out: { first: PeriodIndex; last: PeriodIndex; words: string }[] = [];
  for (const m of moves) {
    const words = wordsOf(m);
    const before = out.at(-1);
    if (before?.words === words && before.last === m.period - 1) before.last = m.period;
    else out.push({ first: m.period, last: m.period, words });
  }
  return out;
}

/** The one line of a draft that plans an account in a month; null where none does, or several do. */
function draftLine(
  ahead: Ahead,
  account: Account,
  period: PeriodIndex,
): { readonly budget: Budget; readonly line: Pick<Line, 'account' | 'segment'> } | null {
  const plans = new Map(ahead.view.plans.map((p) => [p.budget.id, new Set(p.periods.map((x) => x.index))]));
  const own = [...ahead.view.lines.values()].filter(
    ({ budget, line }) =>
      line.account.id === account.id && budget.state === 'draft' && plans.get(budget.id)?.has(period),
  );
  const [only] = own;
  return own.length === 1
    ? { budget: only!.budget, line: { account: account.id, segment: only!.line.segment } }
    : null;
}
