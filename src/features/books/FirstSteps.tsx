'use client';

import { Button } from '@mantine/core';
import classes from './Books.module.css';

/** What a new book shows: three lines, and where the first file goes. */
export function FirstSteps({
  onTakeIn,
  over,
  readOnly,
}: {
  readonly onTakeIn: () => void;
  readonly over: boolean;
  readonly readOnly: boolean;
}) {
  return (
    <div className={classes.first}>
      <h2 className="title">Three steps from a ledger to a report</h2>
      <ol className={classes.steps}>
        <li>
          <b>Take in last year’s ledger</b> — a CSV or XLSX file of entries, or of accounts with months
          across.
        </li>
        <li>
          <b>Start next year’s budget from it</b> — and go through the lines: type, fill, phase an annual
          amount.
        </li>
        <li>
          <b>Take in each closed month</b> — and read budget against actual, down to the entry.
        </li>
      </ol>
      <div className={classes.dropArea} data-over={over || undefined}>
        <Button size="md" variant="filled" onClick={onTakeIn} disabled={readOnly}>
          Choose a ledger file…
        </Button>
        <span className="faded">or drop it anywhere on this page. Nothing leaves this computer.</span>
      </div>
      <p className="faded">
        To try it with the demo company’s files:{' '}
        <a href="/demo/pellow-creek-ledger-fy25.csv">year to June 2025</a>,{' '}
        <a href="/demo/pellow-creek-ledger-fy26.csv">year to June 2026</a>,{' '}
        <a href="/demo/pellow-creek-ledger-fy27-to-october.csv">July to October 2026</a>.
      </p>
    </div>
  );
}
