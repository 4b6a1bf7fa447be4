'use client';

import type { Change } from '@/core/model';
import { useBookStore } from '@/store/bookStore';
import { changeWords, placesOf } from '@/store/changeWords';
import { timeText } from '@/store/format';
import { count } from './words';
import classes from './Books.module.css';

const SHOWN = 500;
const NONE: readonly Change[] = [];

/** What was changed and when, latest first. Undone changes stay in the list: the journal only grows. */
export function JournalList() {
  const journal = useBookStore((s) => s.history?.journal ?? NONE);
  const bySeq = new Map(journal.map((c) => [c.seq, c]));
  if (journal.length === 0)
    return (
      <p className="faded" style={{ padding: '0 18px' }}>
        Nothing has been changed yet.
      </p>
    );
  return (
    <div className={classes.page} tabIndex={0} role="region" aria-label="Journal">
      <table className={classes.table}>
        <thead>
          <tr>
            <th>When</th>
            <th>Who</th>
            <th>What</th>
            <th>Where</th>
          </tr>
        </thead>
        <tbody>
          {journal
            .slice(-SHOWN)
            .reverse()
            .map((c) => (
              <tr key={c.seq}>
                <td className="figure">{timeText(c.at)}</td>
                <td>{c.by ?? ''}</td>
                <td>
                  {changeWords(c)}
                  {'why' in c && c.why ? <span className="faded"> — “{c.why}”</span> : null}
                  {'of' in c && bySeq.has(c.of) ? `: ${changeWords(bySeq.get(c.of)!).toLowerCase()}` : ''}
                </td>
                <td className="faded">{placesOf('of' in c ? (bySeq.get(c.of) ?? c) : c)}</td>
              </tr>
            ))}
        </tbody>
      </table>
      {journal.length > SHOWN && (
        <p className="faded">
          The latest {SHOWN} of {count(journal.length, 'change')}. The book file holds all of them.
        </p>
      )}
    </div>
  );
}
