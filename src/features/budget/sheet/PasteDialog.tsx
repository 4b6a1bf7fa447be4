'use client';

import { Button } from '@mantine/core';
import { Dialog } from '@/components/Dialog';
import type { Book } from '@/core/model';
import { moneyFormat } from '@/store/format';
import { many } from '../edit/edits';
import type { Pasted } from '../edit/paste';
import classes from '../Budget.module.css';

const SHOWN = 200;

/** What a paste would change, before it does. */
export function PasteDialog({
  pasted,
  book,
  onTake,
  onClose,
}: {
  readonly pasted: Pasted;
  readonly book: Book;
  readonly onTake: () => void;
  readonly onClose: () => void;
}) {
  const money = moneyFormat(book);
  const nameOf = (id: string) => {
    const a = book.accounts.find((x) => x.id === id);
    return a ? `${a.code} ${a.name}`.trim() : id;
  };
  const doubt = new Map(pasted.doubts.map((d) => [d.account, d.of]));
  const left = [...pasted.unknownLines, ...pasted.unknownMonths];
  const trouble = 'trouble' in pasted.edit ? pasted.edit.trouble : null;
  return (
    <Dialog opened onClose={onClose} size="lg" title={<span className="title">Before it is pasted</span>}>
      <p style={{ marginTop: 0 }}>
        {pasted.how === 'matched'
          ? 'The block names accounts in its first columns and months in its first row, so each figure goes to its line and month, wherever they stand.'
          : pasted.how === 'byLine'
            ? 'The block names accounts in its first columns, and no months: each row goes to its line, its figures to the months from the selected one on.'
            : `The block covers ${many(pasted.lines.length, 'line')}.`}
      </p>
      {trouble && <p className={classes.issue}>{trouble}</p>}
      {pasted.outside > 0 && (
        <p className={classes.issue}>
          {many(pasted.outside, 'cell')} of the block {pasted.outside === 1 ? 'lies' : 'lie'} outside the
          lines and months here, and would be left out.
        </p>
      )}
      {doubt.size > 0 && (
        <p className={classes.issue}>
          {many(doubt.size, 'line')} would turn in sign or change more than tenfold. They are marked below.
        </p>
      )}
      {left.length > 0 && (
        <p className={classes.issue}>
          Left out, as nothing here is called that: {left.slice(0, 12).join('; ')}
          {left.length > 12 ? ` and ${left.length - 12} more` : ''}.
        </p>
      )}
      {pasted.unread.length > 0 && (
        <p className={classes.issue}>
          Left out, as it is no amount:{' '}
          {pasted.unread
            .slice(0, 6)
            .map((u) => `“${u.text.slice(0, 20)}” (row ${u.row}, column ${u.column})`)
            .join('; ')}
          {pasted.unread.length > 6 ? ` and ${pasted.unread.length - 6} more` : ''}.
        </p>
      )}
      <div className={classes.changes} tabIndex={0} role="region" aria-label="What would change">
        <table>
          <thead>
            <tr>
              <th>Line</th>
              <th>Months</th>
              <th>Now</th>
              <th>Then</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {pasted.lines.slice(0, SHOWN).map((l) => (
              <tr key={l.account}>
                <td>{nameOf(l.account)}</td>
                <td>{l.months}</td>
                <td>{money.text(l.before)}</td>
                <td>{money.text(l.after)}</td>
                <td style={{ color: 'var(--bad)' }}>
                  {doubt.get(l.account) === 'sign' ? 'turns sign' : doubt.has(l.account) ? 'tenfold' : ''}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className={classes.apply}>
        <Button data-autofocus variant="filled" disabled={trouble !== null} onClick={onTake}>
          Paste
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </div>
    </Dialog>
  );
}
