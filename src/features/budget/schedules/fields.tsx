'use client';

import type { ReactNode } from 'react';
import { Button } from '@mantine/core';
import { accountsFor, type Purpose } from '@/core/schedule';
import type { AccountId, Book } from '@/core/model';
import { Choice } from '../methods/inputs/parts';
import classes from './Schedules.module.css';

/** An account for a purpose, or none where that means something. */
export function PurposeField({
  label,
  purpose,
  none,
  book,
  value,
  readOnly,
  onValue,
}: {
  readonly label: string;
  readonly purpose: Purpose;
  /** What no account means; absent where there must be one. */
  readonly none?: string;
  readonly book: Book;
  readonly value: AccountId | null;
  readonly readOnly: boolean;
  readonly onValue: (account: AccountId | null) => void;
}) {
  const own = book.accounts.filter((a) => a.id === value);
  const all = accountsFor(book.accounts, purpose).filter((a) => a.id !== value);
  return (
    <Choice
      label={label}
      wide
      value={value ?? ''}
      disabled={readOnly}
      options={[
        ...(none === undefined ? [] : [{ value: '', label: none }]),
        ...[...own, ...all].map((a) => ({ value: a.id, label: a.name })),
      ]}
      onChange={(v) => onValue(v === '' ? null : v)}
    />
  );
}

/** A short list that grows and shrinks: raises, on-costs, extra repayments. */
export function ListField<T>({
  label,
  items,
  add,
  fresh,
  most,
  readOnly,
  onItems,
  children,
}: {
  readonly label: string;
  readonly items: readonly T[];
  readonly add: string;
  readonly fresh: () => T;
  readonly most: number;
  readonly readOnly: boolean;
  readonly onItems: (items: T[]) => void;
  readonly children: (item: T, set: (item: T) => void, place: number) => ReactNode;
}) {
  return (
    <section aria-label={label}>
      <div className="label">{label}</div>
      <ul className={classes.list}>
        {items.map((item, i) => (
          <li key={i}>
            <div>{children(item, (next) => onItems(items.map((x, k) => (k === i ? next : x))), i)}</div>
            {!readOnly && (
              <Button
                aria-label={`Take away: ${label} ${i + 1}`}
                onClick={() => onItems(items.filter((_, k) => k !== i))}
              >
                ×
              </Button>
            )}
          </li>
        ))}
      </ul>
      {!readOnly && items.length < most && (
        <Button mt={4} onClick={() => onItems([...items, fresh()])}>
          {add}
        </Button>
      )}
    </section>
  );
}
