'use client';

import type { ReactNode } from 'react';
import { Button } from '@mantine/core';
import { saveBookFile } from '@/store/bookFile';
import classes from './Shell.module.css';

/** A line over the screen that says what must be known at once. */
export function Notice({
  children,
  tone,
  actions,
}: {
  readonly children: ReactNode;
  readonly tone?: 'trouble';
  readonly actions?: ReactNode;
}) {
  return (
    <div className={classes.notice} data-tone={tone} role={tone ? 'alert' : 'status'}>
      <span>{children}</span>
      {actions}
    </div>
  );
}

export const SaveAsFile = () => <Button onClick={() => void saveBookFile()}>Save the book as a file</Button>;
