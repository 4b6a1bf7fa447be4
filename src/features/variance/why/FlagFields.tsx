'use client';

import { Button, NativeSelect, Stack } from '@mantine/core';
import { useState } from 'react';
import { formatAmount, percent, ZERO } from '@/core/money';
import type { Account, Book, Flag } from '@/core/model';
import { flagOf } from '@/core/report';
import { PanelButton } from '@/components/Opens';
import { MoneyInput, PercentInput } from '@/components/MoneyInput';
import { dispatch } from '@/store/bookStore';
import { KIND_NAMES } from '@/store/kindNames';

/** When lines are flagged: of the whole book, of a kind, of the line that is looked at. */
export function FlagFields({
  book,
  account,
  readOnly,
}: {
  readonly book: Book;
  readonly account: Account | null;
  readonly readOnly: boolean;
}) {
  const { settings, flags } = book;
  const [of, setOf] = useState<'book' | 'kind' | 'account'>('book');
  const whose = account === null ? 'book' : of;
  const key = whose === 'kind' ? account!.kind : (account?.id ?? '');
  const own: Flag | undefined =
    whose === 'book' ? undefined : whose === 'kind' ? flags.kinds[key] : flags.accounts[key];
  const said: Flag =
    whose === 'book' || !account
      ? { amount: settings.flagAmount, percent: settings.flagPercent }
      : (own ??
        flagOf({ flags: { kinds: whose === 'kind' ? {} : flags.kinds, accounts: {} }, settings }, account));
  const put = (flag: Flag | null) => {
    if (whose !== 'book')
      dispatch({ type: 'setFlag', of: whose === 'kind' ? 'kinds' : 'accounts', key, flag });
    else if (flag)
      dispatch({
        type: 'setSettings',
        settings: { flagAmount: flag.amount, flagPercent: flag.percent },
      });
  };
  const amount = formatAmount(settings.flagAmount, book.currency, book.locale, {
    cents: false,
    negatives: 'minus',
    zero: '0',
  });
  return (
    <PanelButton
      width={280}
      button={
        <Button title={`Lines are flagged over ${amount} and ${settings.flagPercent}%`}>Flags ▾</Button>
      }
    >
      <Stack gap={6}>
        <p className="faded" style={{ margin: 0, fontSize: 12.5 }}>
          A line asks for a word when the month’s difference exceeds both.
        </p>
        {account && (
          <NativeSelect
            label="Of"
            value={whose}
            data={[
              { value: 'book', label: 'All lines' },
              { value: 'kind', label: KIND_NAMES[account.kind] },
              { value: 'account', label: account.name },
            ]}
            onChange={(e) => setOf(e.currentTarget.value as 'book')}
          />
        )}
        <MoneyInput
          label="Amount"
          value={said.amount}
          currency={book.currency}
          locale={book.locale}
          disabled={readOnly}
          onCommit={(a) => put({ ...said, amount: a !== null && a < 0 ? ZERO : (a ?? ZERO) })}
        />
        <PercentInput
          label="Percent of the budget"
          value={said.percent}
          disabled={readOnly}
          onCommit={(p) => put({ ...said, percent: p.startsWith('-') ? percent('0') : p })}
        />
        {own && (
          <Button disabled={readOnly} onClick={() => put(null)}>
            As all lines again
          </Button>
        )}
      </Stack>
    </PanelButton>
  );
}
