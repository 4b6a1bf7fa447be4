'use client';

import { CloseButton } from '@mantine/core';
import { setSession, useSession } from '@/store/session';
import classes from './Books.module.css';

/** What to do, in three lines, for someone who sees the demo book first. */
export function DemoHint() {
  const gone = useSession((s) => s.hintGone);
  if (gone) return <span />;
  return (
    <section className={classes.hint} aria-label="How to begin">
      <ol>
        <li>
          This is a demo company. Look around: <b>Budget</b> has its worksheet, <b>Variance</b> its October
          report.
        </li>
        <li>
          For your own: open the menu at the company’s name, <b>New book…</b>, and take in last year’s ledger
          here.
        </li>
        <li>
          Then start the budget from it. <kbd>?</kbd> lists the keys; Ctrl Z takes back anything.
        </li>
      </ol>
      <CloseButton aria-label="Close the hint" onClick={() => setSession({ hintGone: true })} />
    </section>
  );
}
