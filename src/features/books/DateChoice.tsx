'use client';

import { Button } from '@mantine/core';
import { fromDayNumber } from '@/core/calendar';
import { cellText } from '@/core/files';
import { parseDate, type DateOrder } from '@/core/intake';
import { chooseDates, type OpenIntake } from '@/store/intake';
import { dayText } from '@/store/format';
import classes from './Books.module.css';

const ORDERS: readonly { readonly order: DateOrder; readonly label: string }[] = [
  { order: 'dmy', label: 'The day comes first' },
  { order: 'mdy', label: 'The month comes first' },
];
const SHOWN = 5;

/** When every day is 12 or less, both readings stand side by side over the first rows, and one must be chosen. */
export function DateChoice({ now }: { readonly now: OpenIntake }) {
  const { mapping, file } = now;
  if (mapping.shape !== 'entries') return null;
  const column = mapping.columns.indexOf('date');
  const cells = file.sheets[mapping.sheet]!.rows.slice(mapping.headerRow + 1)
    .map((r) => r[column])
    .filter((c) => c !== undefined && parseDate(c, 'dmy') !== parseDate(c, 'mdy'))
    .slice(0, SHOWN);
  const read = (cell: (typeof cells)[number], order: DateOrder) => {
    const day = cell === undefined ? null : parseDate(cell, order);
    return day === null ? 'no day' : dayText(fromDayNumber(day));
  };
  return (
    <div className={classes.doubt} role="group" aria-label="How dates are written">
      <p style={{ margin: '0 0 6px' }}>
        Every day in it is 12 or less, so the dates can be read both ways. Which is right?
      </p>
      <table className={classes.table} style={{ maxWidth: 520 }}>
        <thead>
          <tr>
            <th>In the file</th>
            {ORDERS.map(({ order, label }) => (
              <th key={order}>
                <Button size="compact-sm" onClick={() => chooseDates(order)}>
                  {label}
                </Button>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {cells.map((cell, i) => (
            <tr key={i}>
              <td>{cellText(cell)}</td>
              {ORDERS.map(({ order }) => (
                <td key={order}>{read(cell, order)}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
