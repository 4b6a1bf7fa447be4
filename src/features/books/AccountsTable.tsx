'use client';

import { useState } from 'react';
import { NativeSelect, TextInput } from '@mantine/core';
import { ACCOUNT_KINDS, type AccountKind } from '@/core/model';
import { dispatch } from '@/store/bookStore';
import type { Ground } from '@/store/derived';
import { KIND_NAMES } from './words';
import classes from './Books.module.css';

/** The chart of accounts: names and kinds, each change one undo step. */
export function AccountsTable({ ground, readOnly }: { readonly ground: Ground; readonly readOnly: boolean }) {
  const [find, setFind] = useState('');
  const words = find.trim().toLowerCase();
  const accounts = ground.book.accounts.filter((a) => `${a.code} ${a.name}`.toLowerCase().includes(words));
  return (
    <div className={classes.page}>
      <TextInput
        label="Find an account"
        placeholder="Code or name"
        w={260}
        value={find}
        onChange={(e) => setFind(e.currentTarget.value)}
        mb="sm"
      />
      <table className={classes.table}>
        <thead>
          <tr>
            <th>Code</th>
            <th>Name</th>
            <th>Kind</th>
          </tr>
        </thead>
        <tbody>
          {accounts.map((a) => (
            <tr key={a.id}>
              <td className="figure">{a.code}</td>
              <td>
                <NameCell
                  key={a.name}
                  name={a.name}
                  readOnly={readOnly}
                  onName={(name) => dispatch({ type: 'editAccount', account: a.id, change: { name } })}
                />
              </td>
              <td>
                <NativeSelect
                  aria-label={`Kind of ${a.name}`}
                  disabled={readOnly}
                  value={a.kind}
                  data={ACCOUNT_KINDS.map((k) => ({ value: k, label: KIND_NAMES[k] }))}
                  onChange={(e) =>
                    dispatch({
                      type: 'editAccount',
                      account: a.id,
                      change: { kind: e.currentTarget.value as AccountKind },
                    })
                  }
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {accounts.length === 0 && <p className="faded">No account matches “{find}”.</p>}
    </div>
  );
}

function NameCell({
  name,
  readOnly,
  onName,
}: {
  readonly name: string;
  readonly readOnly: boolean;
  readonly onName: (name: string) => void;
}) {
  const [text, setText] = useState(name);
  const commit = () => (text.trim() && text.trim() !== name ? onName(text.trim()) : setText(name));
  return (
    <TextInput
      aria-label={`Name of ${name}`}
      variant="unstyled"
      disabled={readOnly}
      value={text}
      maxLength={200}
      onChange={(e) => setText(e.currentTarget.value)}
      onBlur={commit}
      onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
    />
  );
}
