'use client';

import type { ReactNode } from 'react';
import { Button } from '@mantine/core';
import { Dialog } from './Dialog';

type Issue<C extends string> = { readonly code: C; readonly row: number; readonly value: string };

/** What of a file can be taken in, and which of its rows are set aside and why; nothing is in the book before it is accepted. */
export function TakeDialog<C extends string>({
  name,
  count,
  issues,
  words,
  onAccept,
  onClose,
  ready = true,
  children,
}: {
  readonly name: string;
  /** How many of its rows can be taken in. */
  readonly count: number;
  readonly issues: readonly Issue<C>[];
  readonly words: Readonly<Record<C, string>>;
  readonly onAccept: () => void;
  readonly onClose: () => void;
  /** Nothing has to be said before. */
  readonly ready?: boolean;
  readonly children: ReactNode;
}) {
  return (
    <Dialog opened onClose={onClose} title={name}>
      {children}
      {issues.length > 0 && (
        <>
          <p>
            <b>{issues.length} rows are set aside:</b>
          </p>
          <ul style={{ maxHeight: 220, overflow: 'auto' }}>
            {issues.slice(0, 100).map((i) => (
              <li key={`${i.row} ${i.code}`}>
                row {i.row}: {words[i.code]}
                {i.value === '' ? '' : ` (“${i.value}”)`}
              </li>
            ))}
          </ul>
        </>
      )}
      <Button onClick={onAccept} disabled={count === 0 || !ready} data-autofocus mr={8}>
        Take {count} in
      </Button>
      <Button onClick={onClose}>Leave the file out</Button>
    </Dialog>
  );
}
