'use client';

import { memo } from 'react';
import { CellSelect } from '@/components/CellSelect';
import { cellText, columnLetters } from '@/core/files';
import type { Ground } from '@/core/ground';
import { setMapping, type OpenIntake } from '@/store/intake';
import { DateChoice } from './DateChoice';
import { roleOptions, roleValue, withRole } from './roleOptions';
import { ShapeFields } from './ShapeFields';
import { useSteps } from './useSteps';
import { DOUBTS, FORMAT_NAMES, ROW_MEANINGS } from './intakeWords';
import { count } from './words';
import classes from './Books.module.css';

/** What a file's name says it is where it is something else; empty where the two agree. */
function nameLies(name: string, format: OpenIntake['file']['format']): string {
  const ending = /\.([a-z]{3,4})$/i.exec(name)?.[1]?.toLowerCase() ?? '';
  const said =
    ending === 'xlsx' || ending === 'xls'
      ? 'workbook'
      : ['csv', 'tsv', 'txt'].includes(ending)
        ? 'delimited'
        : null;
  if (said === null || format === 'feed' || said === format) return '';
  return `Its name says that it is ${said === 'workbook' ? 'a workbook' : 'text'}, but it is ${FORMAT_NAMES[format]}. It is read as what it is.`;
}

/** Rows of the file that are shown, in so many steps. */
const PREVIEWED = 40;
const STEPS = 4;
const FIGURES = new Set(['debit', 'credit', 'amount', 'balance', 'month', 'total']);

/** How the file is read: the guess, drawn over its own first rows, each part of it open to correction. */
export const IntakeShape = memo(function IntakeShape({
  ground,
  now,
}: {
  readonly ground: Ground;
  readonly now: OpenIntake;
}) {
  const { mapping, file, guess, draft } = now;
  const step = useSteps(STEPS - 1);
  const sheet = file.sheets[mapping.sheet]!;
  const options = roleOptions(mapping, ground.book.calendar);
  const asksDates = guess.doubts.includes('dates') && !now.datesSaid;
  const doubts = guess.doubts.filter((d) => d !== 'dates');
  const lies = nameLies(now.fileName, file.format);
  const label = new Map(options.map((o) => [o.value, o.label]));
  return (
    <section className={classes.step} aria-label="Shape">
      <h2>
        {now.fileName}
        <small>
          {count(draft.rows.read, 'row')}, {FORMAT_NAMES[file.format]}
          {file.encoding ? `, ${file.encoding.toUpperCase()}` : ''} · fingerprint{' '}
          {file.fingerprint.slice(0, 12)}
        </small>
      </h2>
      {guess.keptFrom && <p className={classes.kept}>Read as {guess.keptFrom} was: it has the same heads.</p>}
      {lies && <p className={classes.doubt}>{lies}</p>}
      {asksDates && <DateChoice now={now} />}
      {doubts.length > 0 && (
        <p className={classes.doubt}>Please look at: {doubts.map((d) => DOUBTS[d]).join('; ')}.</p>
      )}
      <div className={classes.fields}>
        <ShapeFields ground={ground} now={now} />
      </div>
      <div className={classes.preview} tabIndex={0} role="region" aria-label="First rows of the file">
        <table>
          <thead>
            <tr>
              <th className={classes.narrow} aria-label="Row" />
              <th className={classes.narrow} scope="col">
                Read as
              </th>
              {mapping.columns.map((role, i) => (
                <th key={i} scope="col">
                  <CellSelect
                    aria-label={`Column ${columnLetters(i + 1)} holds`}
                    value={roleValue(role)}
                    data={
                      label.has(roleValue(role))
                        ? options
                        : [...options, { value: roleValue(role), label: roleValue(role) }]
                    }
                    onChange={(e) => setMapping(withRole(mapping, i, e.currentTarget.value))}
                  />
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {sheet.rows.slice(0, (PREVIEWED / STEPS) * (1 + step)).map((row, r) => {
              const meaning = draft.rows.head[r] ?? 'blank';
              return (
                <tr key={r} data-meaning={meaning}>
                  <td className={classes.rowNumber}>{r + 1}</td>
                  <td className={classes.meaning}>{ROW_MEANINGS[meaning]}</td>
                  {mapping.columns.map((role, c) => {
                    const as = typeof role === 'string' ? role : role.as;
                    return (
                      <td
                        key={c}
                        className={FIGURES.has(as) ? classes.amount : undefined}
                        data-unused={as === 'ignore' || undefined}
                      >
                        {typeof row[c] === 'string' ? row[c].trimEnd() : cellText(row[c])}
                      </td>
                    );
                  })}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </section>
  );
}, drawnAlike);

/** What it is drawn from: a proof that comes, or an account's kind, is none of it. */
function drawnAlike(
  a: { readonly ground: Ground; readonly now: OpenIntake },
  b: { readonly ground: Ground; readonly now: OpenIntake },
): boolean {
  const parts = ['fileName', 'file', 'guess', 'mapping', 'draft', 'datesSaid'] as const;
  return a.ground === b.ground && parts.every((k) => a.now[k] === b.now[k]);
}
