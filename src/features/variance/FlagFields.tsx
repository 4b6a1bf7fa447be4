'use client';

import { Button } from '@mantine/core';
import { formatAmount, ZERO } from '@/core/money';
import type { Book } from '@/core/model';
import { PanelButton } from '@/components/Opens';
import { MoneyInput, PercentInput } from '@/components/MoneyInput';
import { dispatch } from '@/store/bookStore';

/** When a line is flagged, and how figures are shown: settings of the book. */
export function FlagFields({ book, readOnly }: { readonly book: Book; readonly readOnly: boolean }) {
  const { settings } = book;
  const set = (change: Partial<typeof settings>) => dispatch({ type: 'setSettings', settings: change });
  const amount = formatAmount(settings.flagAmount, book.currency, book.locale, {
    cents: false,
    negatives: 'minus',
    zero: '0',
  });
  return (
    <PanelButton
      width={270}
      button={
        <Button>
          Flag over {amount} and {settings.flagPercent}%
        </Button>
      }
    >
      <p className="faded" style={{ marginTop: 0, fontSize: 12.5 }}>
        A line asks for a note when the month’s difference exceeds both.
      </p>
      <MoneyInput
        label="Amount"
        value={settings.flagAmount}
        currency={book.currency}
        locale={book.locale}
        disabled={readOnly}
        onCommit={(a) => set({ flagAmount: a ?? ZERO })}
        mb="xs"
      />
      <PercentInput
        label="Percent of the budget"
        value={settings.flagPercent}
        disabled={readOnly}
        onCommit={(flagPercent) => set({ flagPercent })}
      />
    </PanelButton>
  );
}
