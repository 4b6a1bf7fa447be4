'use client';

import { Button, Textarea } from '@mantine/core';
import { assertNever } from '@/core/assertNever';
import type { Ground, Reckoned } from '@/core/ground';
import {
  LIMITS,
  linesOfRow,
  type Book,
  type Budget,
  type RowOf,
  type ScheduleKind,
  type ScheduleRow,
} from '@/core/model';
import { dispatch } from '@/store/bookStore';
import { ROW_ISSUES, SCHEDULE_NAMES } from '@/store/scheduleWords';
import { say, setSession } from '@/store/session';
import { useTry } from '@/store/useTry';
import { RowHistory } from '../reasoning/FigureHistory';
import { LoanFields } from './LoanFields';
import { AssetFields, EquityFields, IncomeTaxFields, ReleaseFields } from './OtherFields';
import { StaffFields } from './StaffFields';
import classes from './Schedules.module.css';

/** What the fields of a row work on. */
export type RowFieldsProps<K extends ScheduleKind> = {
  readonly row: RowOf<K>;
  readonly book: Book;
  readonly budget: Budget;
  readonly facts: Reckoned['facts'];
  readonly readOnly: boolean;
  readonly onRow: (row: ScheduleRow) => void;
  /** Of an asset: a loan of what it costs, drawn on the day it is bought. */
  readonly onLoan?: () => void;
};

function Fields(props: RowFieldsProps<ScheduleKind>) {
  const { row } = props;
  switch (row.kind) {
    case 'staff':
      return <StaffFields {...props} row={row} />;
    case 'loan':
      return <LoanFields {...props} row={row} />;
    case 'asset':
      return <AssetFields {...props} row={row} />;
    case 'release':
      return <ReleaseFields {...props} row={row} />;
    case 'incomeTax':
      return <IncomeTaxFields {...props} row={row} />;
    case 'equity':
      return <EquityFields {...props} row={row} />;
    default:
      return assertNever(row);
  }
}

/** One row of a schedule: the rest of what is said of it, which lines it makes, its history. */
export function RowPanel({
  ground,
  reckoned,
  row,
  readOnly,
  onRow,
  onLoan,
}: {
  readonly ground: Ground;
  readonly reckoned: Reckoned;
  readonly row: ScheduleRow;
  readonly readOnly: boolean;
  readonly onRow: (row: ScheduleRow) => void;
  readonly onLoan: (asset: RowOf<'asset'>) => void;
}) {
  const tryThis = useTry();
  const { book } = ground;
  const { budget, facts, reckoning } = reckoned;
  const issue = reckoning.rows.get(row.id)?.issue ?? null;
  return (
    <>
      <h2>{row.name}</h2>
      <p className="faded" style={{ margin: 0 }}>
        {SCHEDULE_NAMES[row.kind]}
      </p>
      {issue && (
        <p className={classes.tie} data-off role="status">
          {ROW_ISSUES[issue]}
        </p>
      )}
      <Fields
        row={row}
        book={book}
        budget={budget}
        facts={facts}
        readOnly={readOnly}
        onRow={onRow}
        onLoan={row.kind === 'asset' ? () => onLoan(row) : undefined}
      />
      <section>
        {linesOfRow(row).length > 0 && <div className="label">Makes the lines</div>}
        {[...new Set(linesOfRow(row))].map((account) => (
          <Button
            key={account}
            mt={4}
            mr={4}
            onClick={() => setSession({ budgetView: 'sheet', soughtAccount: account })}
          >
            {book.accounts.find((a) => a.id === account)?.name ?? account}
          </Button>
        ))}
        <Textarea
          key={row.note}
          mt={8}
          aria-label="Note on the row"
          placeholder="Why, or where it comes from"
          defaultValue={row.note}
          rows={2}
          maxLength={LIMITS.note}
          disabled={readOnly}
          onBlur={(e) => e.currentTarget.value !== row.note && onRow({ ...row, note: e.currentTarget.value })}
        />
        {tryThis && (
          <Button mt={8} mr={8} onClick={() => tryThis({ of: { row: row.id }, from: null })}>
            Try a change of it…
          </Button>
        )}
        <Button
          mt={8}
          c="var(--bad)"
          disabled={readOnly}
          onClick={() => {
            if (dispatch({ type: 'removeScheduleRows', budget: budget.id, rows: [row.id] })) return;
            say(`${row.name} is taken away. Ctrl+Z brings it back.`);
          }}
        >
          Take it away
        </Button>
      </section>
      <RowHistory budget={budget} row={row.id} />
    </>
  );
}
