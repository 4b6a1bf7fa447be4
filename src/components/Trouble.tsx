'use client';

import type { ReactNode } from 'react';
import { Button } from '@mantine/core';
import classes from './Trouble.module.css';

/** A page that could not be shown, or has nothing yet: what, why, and what to do. */
export function Trouble({
  title,
  children,
  action,
  more,
  tone = 'trouble',
}: {
  readonly title: string;
  readonly children: ReactNode;
  readonly action?: { readonly label: string; readonly run: () => void };
  /** Further ways on, beside the first. */
  readonly more?: ReactNode;
  readonly tone?: 'trouble' | 'empty';
}) {
  return (
    <section className={classes.page} role={tone === 'trouble' ? 'alert' : undefined}>
      <h1 className="title">{title}</h1>
      <div className={classes.words}>{children}</div>
      <div className={classes.actions}>
        {action && (
          <Button size="sm" variant="filled" onClick={action.run}>
            {action.label}
          </Button>
        )}
        {more}
      </div>
    </section>
  );
}
