'use client';

import { useState } from 'react';
import { Button, NativeSelect, TextInput } from '@mantine/core';
import { Dialog } from '@/components/Dialog';
import { LIMITS, ACCOUNT_KINDS, newAccount, type AccountKind } from '@/core/model';
import { guessKind } from '@/core/intake';
import { dispatch } from '@/store/bookStore';
import type { Ground } from '@/core/ground';
import { say } from '@/store/session';
import { KIND_NAMES } from '@/store/kindNames';

/** An account that the ledger does not have yet: planned for, and found by code or name when its first entry comes. */
export function AddAccount({
  ground,
  opened,
  onClose,
}: {
  readonly ground: Ground;
  readonly opened: boolean;
  readonly onClose: () => void;
}) {
  const [code, setCode] = useState('');
  const [name, setName] = useState('');
  const [kind, setKind] = useState<AccountKind | null>(null);
  const { accounts, nextId } = ground.book;
  const guess = guessKind({ code, name, type: '', sections: [], total: 0 }).kind;
  const taken = code.trim() !== '' && accounts.find((a) => a.code === code.trim());
  const close = () => {
    setCode('');
    setName('');
    setKind(null);
    onClose();
  };
  return (
    <Dialog opened={opened} onClose={close} title={<span className="title">Add an account</span>}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (taken || name.trim() === '') return;
          dispatch({
            type: 'addAccount',
            account: newAccount(`a${nextId}`, code.trim(), name.trim(), kind ?? guess),
          });
          say(`${name.trim()} is added. Its first entry in a ledger file is found by its code or name.`);
          close();
        }}
      >
        <TextInput
          label="Code"
          value={code}
          maxLength={LIMITS.accountCode}
          error={taken ? `${taken.name} has this code` : undefined}
          onChange={(e) => setCode(e.currentTarget.value)}
        />
        <TextInput
          label="Name"
          mt="xs"
          data-autofocus
          value={name}
          maxLength={LIMITS.accountName}
          onChange={(e) => setName(e.currentTarget.value)}
        />
        <NativeSelect
          label="Kind"
          mt="xs"
          value={kind ?? guess}
          data={ACCOUNT_KINDS.map((k) => ({ value: k, label: KIND_NAMES[k] }))}
          onChange={(e) => setKind(e.currentTarget.value as AccountKind)}
        />
        <Button mt="md" type="submit" variant="filled" disabled={!!taken || name.trim() === ''}>
          Add the account
        </Button>
      </form>
    </Dialog>
  );
}
