'use client';

import { useState } from 'react';
import { Button, NativeSelect } from '@mantine/core';
import { Dialog } from '@/components/Dialog';
import { naturalSign, type Account } from '@/core/model';
import { mergeAccounts } from '@/store/actions';
import type { Ground } from '@/core/ground';
import { say } from '@/store/session';
import { KIND_NAMES } from '@/store/kindNames';

/** One account takes in another: entries, lines and notes follow, and one undo parts them again. */
export function MergeAccount({
  ground,
  account,
  onClose,
}: {
  readonly ground: Ground;
  readonly account: Account | null;
  readonly onClose: () => void;
}) {
  const [into, setInto] = useState('');
  const others = ground.book.accounts.filter(
    (a) => account && a.id !== account.id && naturalSign(a.kind) === naturalSign(account.kind),
  );
  const target = others.find((a) => a.id === into);
  const close = () => {
    setInto('');
    onClose();
  };
  return (
    <Dialog opened={account !== null} onClose={close} title={<span className="title">Merge accounts</span>}>
      {account && (
        <>
          <p>
            <b>
              {account.code} {account.name}
            </b>{' '}
            goes into another account on the same side. Its entries keep their source rows; where a draft
            budget has a line of each, they become one line by month. One undo parts them again.
          </p>
          <NativeSelect
            label="Goes into"
            value={into}
            onChange={(e) => setInto(e.currentTarget.value)}
            data={[
              { value: '', label: 'Choose…' },
              ...others.map((a) => ({
                value: a.id,
                label: `${[a.code, a.name].filter(Boolean).join(' ')} (${KIND_NAMES[a.kind]})`,
              })),
            ]}
          />
          <Button
            mt="md"
            variant="filled"
            disabled={!target}
            onClick={() => {
              const refusal = mergeAccounts(ground, account.id, into);
              if (!refusal) say(`${account.name} is merged into ${target!.name}. Ctrl+Z parts them again.`);
              close();
            }}
          >
            Merge
          </Button>
        </>
      )}
    </Dialog>
  );
}
