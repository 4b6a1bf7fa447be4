'use client';

import { useMemo, useState } from 'react';
import { Button } from '@mantine/core';
import { Dialog } from '@/components/Dialog';
import { toDayNumber as dayNumber } from '@/core/calendar';
import type { Source } from '@/core/model';
import { useBookStore, dispatch } from '@/store/bookStore';
import type { Ground } from '@/core/ground';
import { useChecks } from '@/store/ground';
import { countText, moneyFormat } from '@/store/format';
import { say } from '@/store/session';
import { ChangeTable } from './ChangeTable';
import { changesBy } from './intakeCompare';
import { MonthEnd } from './MonthEnd';
import { FAULTS, FORMAT_NAMES, LEFT_OUT, SHAPE_WORDS } from './intakeWords';
import { count } from './words';
import classes from './Books.module.css';

/** The files the ledger came from, each with its fingerprint, totals and state; and what is closed. */
export function SourcesTable({
  ground,
  readOnly,
  onTakeIn,
}: {
  readonly ground: Ground;
  readonly readOnly: boolean;
  readonly onTakeIn: () => void;
}) {
  const { book, calendar } = ground;
  const money = moneyFormat(book);
  const checks = useChecks();
  const [leaving, setLeaving] = useState<Source | null>(null);
  const periodsOf = (s: Source) => {
    const labels = [s.firstDay, s.lastDay].map(
      (d) => calendar.period(calendar.indexOfDay(dayNumber(d))).label,
    );
    return labels[0] === labels[1] ? labels[0] : labels.join(' – ');
  };
  return (
    <div className={classes.page}>
      <MonthEnd ground={ground} readOnly={readOnly} />
      <table className={classes.table} aria-label="Sources">
        <thead>
          <tr>
            <th>File</th>
            <th>Taken in</th>
            <th>Months</th>
            <th className={classes.num}>Rows used</th>
            <th className={classes.num}>Debits</th>
            <th className={classes.num}>Credits</th>
            <th>State</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {book.sources.map((s) => {
            const out = s.rows.read - s.rows.used;
            const broken = checks.filter((c) => !c.holds && c.subject === s.fileName);
            return (
              <tr key={s.id}>
                <td>
                  {s.fileName}
                  {s.sheet ? ` · ${s.sheet}` : ''}
                  <div className={classes.hintLine} title={s.fingerprint}>
                    {SHAPE_WORDS[s.shape]}, {FORMAT_NAMES[s.format]} · fingerprint{' '}
                    {s.fingerprint.slice(0, 12)}
                  </div>
                </td>
                <td className="figure">{s.takenAt.slice(0, 10)}</td>
                <td className="figure">{periodsOf(s)}</td>
                <td className={classes.num}>
                  {countText(s.rows.used)} of {countText(s.rows.read)}
                  <div className={classes.hintLine}>
                    {out === 0
                      ? 'none left out'
                      : s.rows.leftOut
                          .map((l) => `${l.count} ${LEFT_OUT[l.reason as keyof typeof LEFT_OUT] ?? l.reason}`)
                          .join(', ')}
                  </div>
                </td>
                <td className={classes.num}>{money.exact(s.debit)}</td>
                <td className={classes.num}>{money.exact(s.credit)}</td>
                <td>
                  {s.untied ? (
                    <span className={classes.bad} title={s.untied.reason}>
                      ✗ {s.untied.faults.map((f) => FAULTS[f as keyof typeof FAULTS] ?? f).join(', ')}
                      <div className={classes.hintLine}>“{s.untied.reason}”</div>
                    </span>
                  ) : broken.length > 0 ? (
                    <span className={classes.bad}>✗ a check fails</span>
                  ) : (
                    <span className={classes.good}>
                      ✓ ties{s.controls > 0 ? `, ${count(s.controls, 'total')}` : ''}
                    </span>
                  )}
                  {(s.openings > 0 || s.closings > 0) && (
                    <div className={classes.hintLine}>
                      set aside:{' '}
                      {[
                        s.openings > 0 ? count(s.openings, 'opening') : '',
                        s.closings > 0 ? count(s.closings, 'closing entry', 'closing entries') : '',
                      ]
                        .filter(Boolean)
                        .join(', ')}
                    </div>
                  )}
                </td>
                <td className={classes.nowrap}>
                  <Button
                    disabled={readOnly}
                    onClick={onTakeIn}
                    title="A file with the same days asks what to replace"
                  >
                    Replace…
                  </Button>{' '}
                  <Button disabled={readOnly} onClick={() => setLeaving(s)}>
                    Take away…
                  </Button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <Dialog
        opened={leaving !== null}
        onClose={() => setLeaving(null)}
        size="xl"
        title={<span className="title">Take a source away</span>}
      >
        {leaving && <TakeAway ground={ground} source={leaving} onDone={() => setLeaving(null)} />}
      </Dialog>
    </div>
  );
}

function TakeAway({
  ground,
  source,
  onDone,
}: {
  readonly ground: Ground;
  readonly source: Source;
  readonly onDone: () => void;
}) {
  const readOnly = useBookStore((s) => s.readOnly);
  const changes = useMemo(() => changesBy(ground, [source.id], null), [ground, source.id]);
  return (
    <>
      <p>
        {count(source.entries, 'entry', 'entries')} of <b>{source.fileName}</b> leave the ledger. This is what
        the book has now and then; budgets made from these months are reckoned anew. Accounts stay. One undo
        brings it all back.
      </p>
      <ChangeTable ground={ground} changes={changes} />
      <Button
        mt="md"
        variant="filled"
        color="#a8322a"
        c="white"
        disabled={readOnly}
        onClick={() => {
          dispatch({ type: 'removeSource', source: source.id });
          say(`${source.fileName} is taken away. Ctrl+Z brings it back.`);
          onDone();
        }}
      >
        Take it away
      </Button>
    </>
  );
}
