'use client';

import { useState } from 'react';
import { TextInput, type TextInputProps } from '@mantine/core';
import {
  editText,
  minorDigits,
  mostAmountText,
  numberFormatOf,
  readTyped,
  parsePercent,
  type Minor,
  type Percent,
} from '@/core/money';
import { readScaled, scaledText } from './readScaled';
import { typingTaken } from './typing';

type Common = Omit<TextInputProps, 'value' | 'onChange'> & {
  /** Enter was pressed, after the value was taken. */
  readonly onEnter?: () => void;
};

/** A field for an amount, read and written in the book's locale; blank is `null`. Says at once what it cannot read. */
export function MoneyInput({
  value,
  currency,
  locale,
  onCommit,
  ...rest
}: Common & {
  readonly value: Minor | null;
  readonly currency: string;
  readonly locale: string;
  readonly onCommit: (value: Minor | null) => void;
}) {
  const shown = editText(value, currency, locale);
  const read = (text: string) => {
    const parsed = readTyped(text, minorDigits(currency), numberFormatOf(locale));
    if (parsed.ok && !parsed.percent) return { value: parsed.value };
    return !parsed.ok && parsed.code === 'tooLarge' ? `${mostAmountText(currency, locale)} at most` : null;
  };
  return <DraftInput {...rest} shown={shown} read={read} onCommit={onCommit} trouble="Not an amount" />;
}

/** A field for a percentage. Blank is zero percent. */
export function PercentInput({
  value,
  onCommit,
  ...rest
}: Common & { readonly value: Percent; readonly onCommit: (value: Percent) => void }) {
  const read = (text: string) => {
    const p = text.trim() === '' ? ('0' as Percent) : parsePercent(text);
    return p === null ? null : { value: p };
  };
  return (
    <DraftInput
      {...rest}
      shown={value}
      read={read}
      onCommit={onCommit}
      trouble="Not a percentage"
      rightSection={<span className="faded">%</span>}
    />
  );
}

/** Keeps what is typed until Enter or leaving; Escape takes it back. */
function DraftInput<T>({
  shown,
  read,
  onCommit,
  trouble,
  onEnter,
  ...rest
}: Common & {
  readonly shown: string;
  /** The value; null, or what is wrong where that is more than `trouble`. */
  readonly read: (text: string) => { readonly value: T } | string | null;
  readonly onCommit: (value: T) => void;
  readonly trouble: string;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const now = draft === null ? null : read(draft);
  const bad = draft === null || (now !== null && typeof now !== 'string') ? null : (now ?? trouble);
  const commit = () => {
    if (draft === null || draft === shown) return setDraft(null);
    const parsed = read(draft);
    if (parsed === null || typeof parsed === 'string') return;
    setDraft(null);
    onCommit(parsed.value);
  };
  return (
    <TextInput
      {...rest}
      value={draft ?? shown}
      error={bad ?? undefined}
      inputMode="decimal"
      styles={{
        input: {
          textAlign: 'right',
          fontFamily: 'var(--font-figures)',
          fontVariantNumeric: 'tabular-nums',
          // In a table it is written as the table's other figures are.
          fontSize: rest.variant === 'unstyled' ? 'inherit' : 14,
        },
      }}
      onChange={(e) => setDraft(e.currentTarget.value)}
      // A figure that stands there is replaced by what is typed: the first click takes all of it.
      onMouseDown={(e) => {
        if (document.activeElement === e.currentTarget) return;
        e.preventDefault();
        e.currentTarget.focus();
      }}
      onFocus={(e) => e.currentTarget.select()}
      onBlur={commit}
      onKeyDown={(e) => {
        if (e.key === 'Enter') {
          // Enter takes the figure; it must not also send off the form around it.
          e.preventDefault();
          commit();
          if (bad) return;
          typingTaken(e.currentTarget);
          onEnter?.();
        }
        if (e.key === 'Escape' && draft !== null) {
          e.stopPropagation();
          setDraft(null);
        }
      }}
    />
  );
}

/** A field for a plain number within bounds. */
export function NumberInput({
  value,
  least,
  most,
  onCommit,
  ...rest
}: Common & {
  readonly value: number;
  readonly least: number;
  readonly most: number;
  readonly onCommit: (value: number) => void;
}) {
  const read = (text: string) => {
    const n = /^-?\d{1,9}$/.test(text.trim()) ? Number(text) : NaN;
    return n >= least && n <= most ? { value: n } : null;
  };
  return (
    <DraftInput
      {...rest}
      shown={String(value)}
      read={read}
      onCommit={onCommit}
      trouble={`A whole number from ${least} to ${most}`}
    />
  );
}

/** A field for a number with so many decimals at most, kept as a whole number of its last decimal; blank is `null`. */
export function ScaledInput({
  value,
  decimals,
  locale,
  onCommit,
  ...rest
}: Common & {
  readonly value: number | null;
  readonly decimals: number;
  readonly locale: string;
  readonly onCommit: (value: number | null) => void;
}) {
  return (
    <DraftInput
      {...rest}
      shown={scaledText(value, decimals, locale)}
      read={(text) => readScaled(text, decimals, locale)}
      onCommit={onCommit}
      trouble={`${decimals === 0 ? 'A whole number' : `A number, ${decimals} decimals at most`}, and no larger than an amount can be`}
    />
  );
}
