'use client';

import { useState } from 'react';
import { Button, Group, NativeSelect } from '@mantine/core';
import type { PeriodIndex } from '@/core/calendar';
import { triedOf, type Ahead, type Ground, type Moves } from '@/core/ground';
import type { Command } from '@/core/model';
import { MoneyInput, NumberInput, PercentInput, ScaledInput } from '@/components/MoneyInput';
import { dispatch, useBookStore } from '@/store/bookStore';
import { moneyFormat, type MoneyFormat } from '@/store/format';
import { say } from '@/store/session';
import type { Tunable } from './tunables';
import classes from './Statements.module.css';

/** So many of the accounts that a change moves are named. */
const MOST_NAMED = 4;

/** One thing behind a figure otherwise: what it moves in all three statements stands here before it is applied. */
export function TryChange({
  ground,
  ahead,
  tunables,
}: {
  readonly ground: Ground;
  readonly ahead: Ahead;
  readonly tunables: readonly Tunable[];
}) {
  const { book, calendar } = ground;
  const money = moneyFormat(book);
  const readOnly = useBookStore((s) => s.readOnly);
  const [key, setKey] = useState(tunables[0]?.key ?? '');
  const [tried, setTried] = useState<{ readonly command: Command; readonly moves: readonly Moves[] } | null>(
    null,
  );
  const own = tunables.find((t) => t.key === key) ?? tunables[0];
  if (readOnly || !own) return null;
  const look = (command: Command) => {
    const made = triedOf(ground, own.budget, command, { first: ahead.start + 1, last: ahead.last });
    if (!made.ok) return say('The budget does not take this.', 'trouble');
    setTried({ command, moves: made.moves });
  };
  return (
    <section aria-label="What if">
      <div className="label">What if it were</div>
      {tunables.length > 1 && (
        <NativeSelect
          aria-label="What is changed"
          mb={6}
          value={own.key}
          data={tunables.map((t) => ({ value: t.key, label: t.label }))}
          onChange={(e) => {
            setKey(e.currentTarget.value);
            setTried(null);
          }}
        />
      )}
      <Group gap={6} align="end">
        <Value key={own.key} tunable={own} ground={ground} onLook={look} />
        <Button
          disabled={tried === null || tried.moves.length === 0}
          onClick={() => {
            if (tried && !dispatch(tried.command)) say('Applied to the budget. Ctrl+Z takes it back.');
          }}
        >
          Apply
        </Button>
      </Group>
      {tried !== null && tried.moves.length === 0 && <p className="faded">Then nothing moves.</p>}
      {tried &&
        spells(tried.moves, (m) => movesWords(m, money)).map(({ first, last, words }) => (
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

function Value({
  tunable,
  ground: { book },
  onLook,
}: {
  readonly tunable: Tunable;
  readonly ground: Ground;
  readonly onLook: (command: Command) => void;
}) {
  const label = { 'aria-label': tunable.label };
  switch (tunable.as) {
    case 'money':
      return (
        <MoneyInput
          {...label}
          value={tunable.value}
          currency={book.currency}
          locale={book.locale}
          onCommit={(v) => onLook(tunable.command(v))}
        />
      );
    case 'percent':
      return <PercentInput {...label} value={tunable.value} onCommit={(v) => onLook(tunable.command(v))} />;
    case 'whole':
      return (
        <NumberInput
          {...label}
          least={0}
          most={tunable.most}
          value={tunable.value}
          onCommit={(v) => onLook(tunable.command(v))}
        />
      );
    case 'hundredths':
      return (
        <ScaledInput
          {...label}
          decimals={2}
          locale={book.locale}
          value={tunable.value}
          onCommit={(v) => onLook(tunable.command(v))}
        />
      );
  }
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
