'use client';

import { useMemo } from 'react';
import { Button } from '@mantine/core';
import { columnLetters } from '@/core/files';
import { columnsRead, type ColumnRead } from '@/core/intake';
import type { Ground } from '@/core/ground';
import { setMapping, type OpenIntake } from '@/store/intake';
import { roleOptions, roleValue, withRole } from './roleOptions';
import classes from './Books.module.css';

/** Which column was taken for what, with what is unsure of it, and what was left out. */
export function IntakeColumns({
  ground: { book },
  now: { mapping, file, guess },
}: {
  readonly ground: Ground;
  readonly now: OpenIntake;
}) {
  const { rows } = file.sheets[mapping.sheet]!;
  const all = useMemo(() => columnsRead(mapping, rows), [mapping, rows]);
  const names = new Map(roleOptions(mapping, book.calendar).map((o) => [o.value, o.label]));
  const isOut = (c: ColumnRead) => roleValue(c.role) === 'ignore';
  // Months and trial balances stand by their own heads above; what is said here is what the other columns are.
  const taken = all.filter((c) => !isOut(c) && (typeof c.role === 'string' || !('day' in c.role)));
  const out = all.filter(isOut);
  const unsure = (c: ColumnRead) =>
    guess.unsure?.includes(c.column) === true && guess.mapping.columns[c.column] === c.role;
  const axisOf = (c: ColumnRead) =>
    c.role === 'segment'
      ? book.axes.find((a) => a.columns.some((h) => h.toLowerCase() === c.head.toLowerCase()))
      : undefined;
  const shared = taken.filter((c) => {
    const axis = axisOf(c);
    return axis && taken.some((o) => o.column < c.column && axisOf(o) === axis && o.head !== c.head);
  });
  return (
    <div className={classes.fact}>
      <div className="label">Columns</div>
      <table>
        <tbody>
          {taken.map((c) => (
            <tr key={c.column}>
              <td className={classes.columnHead}>{headOf(c)}</td>
              <td className={unsure(c) ? classes.doubt : undefined}>
                {names.get(roleValue(c.role))?.toLowerCase()}
                {unsure(c) &&
                  `, by its head: it could be ${c.role === 'name' ? 'the counterparty' : 'the account’s name'}`}
              </td>
            </tr>
          ))}
          {out.slice(0, MOST).map((c) => (
            <tr key={c.column}>
              <td className={classes.columnHead}>{headOf(c)}</td>
              <td className={c.mayBeSegment ? classes.doubt : undefined}>
                left out{c.texts.length > 0 && `: ${c.texts.join(', ')}${c.texts.length === 3 ? ' …' : ''}`}
                {c.mayBeSegment && (
                  <>
                    , again and again.{' '}
                    <Button
                      onClick={() => setMapping(withRole(mapping, c.column, 'segment'))}
                      aria-label={`Take “${c.head || columnLetters(c.column + 1)}” as a segment`}
                    >
                      Take it as a segment
                    </Button>
                  </>
                )}
              </td>
            </tr>
          ))}
          {out.length > MOST && (
            <tr>
              <td />
              <td>and {out.length - MOST} more left out</td>
            </tr>
          )}
        </tbody>
      </table>
      {shared.map((c) => (
        <p key={c.column} className={classes.doubt}>
          “{c.head}” is another column of “{axisOf(c)!.name}”: where both say something of an entry, the first
          of them counts.
        </p>
      ))}
    </div>
  );
}

const MOST = 12;

const headOf = ({ column, head }: ColumnRead) =>
  `${columnLetters(column + 1)}${head === '' ? '' : ` ${head}`}`;
