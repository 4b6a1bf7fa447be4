'use client';

import { useState } from 'react';
import { Button, Modal, NativeSelect } from '@mantine/core';
import { minor } from '@/core/money';
import { indexOfId, periodsOf, type PeriodId } from '@/core/calendar';
import type { Source } from '@/core/model';
import { dispatch } from '@/store/bookStore';
import type { Ground } from '@/store/derived';
import { moneyFormat } from '@/store/format';
import { say } from '@/store/session';
import { count, LEFT_OUT } from './words';
import classes from './Books.module.css';

/** The files the ledger came from, each with its fingerprint and totals; and what is closed. */
export function SourcesTable({ ground, readOnly }: { readonly ground: Ground; readonly readOnly: boolean }) {
  const { book, calendar, balances } = ground;
  const money = moneyFormat(book);
  const [leaving, setLeaving] = useState<Source | null>(null);
  const periods = balances.range ? periodsOf(calendar, balances.range) : [];
  return (
    <div className={classes.page}>
      <NativeSelect
        label="Closed through"
        description="Actuals up to here are final; the outlook takes the plan after it."
        w={260}
        mb="md"
        disabled={readOnly}
        value={book.closedThrough ?? ''}
        onChange={(e) =>
          dispatch({ type: 'setClosedThrough', period: (e.currentTarget.value || null) as PeriodId | null })
        }
        data={[
          { value: '', label: 'Nothing yet' },
          ...periods.map((p) => ({ value: p.id as string, label: p.label })),
        ]}
      />
      <table className={classes.table}>
        <thead>
          <tr>
            <th>File</th>
            <th>Taken in</th>
            <th>From – to</th>
            <th className={classes.num}>Rows used</th>
            <th className={classes.num}>Debits</th>
            <th className={classes.num}>Credits</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {book.sources.map((s) => {
            const out = s.rows.read - s.rows.used;
            return (
              <tr key={s.id}>
                <td>
                  {s.fileName}
                  {s.sheet ? ` · ${s.sheet}` : ''}
                  <div className="faded" style={{ fontSize: 11.5 }} title={s.fingerprint}>
                    {s.shape === 'entries' ? 'entries' : 'months across'} · fingerprint{' '}
                    {s.fingerprint.slice(0, 12)}
                  </div>
                </td>
                <td className="figure">{s.takenAt.slice(0, 10)}</td>
                <td className="figure">
                  {s.firstDay} – {s.lastDay}
                </td>
                <td className={classes.num}>
                  {s.rows.used.toLocaleString('en-US')} of {s.rows.read.toLocaleString('en-US')}
                  <div className="faded" style={{ fontSize: 11.5 }}>
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
                  <Button disabled={readOnly} onClick={() => setLeaving(s)}>
                    Take away…
                  </Button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <Modal
        opened={leaving !== null}
        onClose={() => setLeaving(null)}
        title={<span className="title">Take a source away</span>}
      >
        {leaving && (
          <>
            <p>
              {count(leaving.entries, 'entry', 'entries')} of <b>{leaving.fileName}</b> leave the ledger, from{' '}
              {leaving.firstDay} to {leaving.lastDay}: debits {money.exact(leaving.debit)}, credits{' '}
              {money.exact(leaving.credit)}
              {leaving.shape === 'entries'
                ? `, net ${money.exact(minor(leaving.debit - leaving.credit))}`
                : ''}
              . Budgets made from these months are reckoned anew. Accounts stay. One undo brings it all back.
            </p>
            <Button
              variant="filled"
              color="#a8322a"
              c="white"
              onClick={() => {
                dispatch({ type: 'removeSource', source: leaving.id });
                say(`${leaving.fileName} is taken away. Ctrl+Z brings it back.`);
                setLeaving(null);
              }}
            >
              Take it away
            </Button>
          </>
        )}
      </Modal>
      {book.closedThrough !== null && indexOfId(calendar, book.closedThrough) === null && (
        <p className="faded">The closed month is not one of this calendar.</p>
      )}
    </div>
  );
}
