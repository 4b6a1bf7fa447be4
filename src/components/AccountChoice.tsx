'use client';

import { NativeSelect } from '@mantine/core';
import type { Account, AccountId } from '@/core/model';

/** One of some accounts, or none of them. */
export const AccountChoice = ({
  label,
  none,
  accounts,
  value,
  readOnly = false,
  onValue,
}: {
  readonly label: string;
  /** What no account means here. */
  readonly none: string;
  readonly accounts: readonly Account[];
  readonly value: AccountId | null;
  readonly readOnly?: boolean;
  readonly onValue: (account: AccountId | null) => void;
}) => (
  <NativeSelect
    label={label}
    disabled={readOnly}
    value={value ?? ''}
    data={[{ value: '', label: none }, ...accounts.map((a) => ({ value: a.id, label: a.name }))]}
    onChange={(e) => onValue(e.currentTarget.value || null)}
  />
);
