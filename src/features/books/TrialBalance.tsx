'use client';

import { useState } from 'react';
import { NativeSelect } from '@mantine/core';
import { subtract } from '@/core/money';
import { periodsOf } from '@/core/calendar';
import { trialBalance } from '@/core/ledger';
import { trialReport } from '@/core/report';
import { documents, ExportMenu } from '@/components/ExportMenu';
import type { Ground } from '@/core/ground';
import { exportCsv, exportPdf, exportXlsx } from '@/store/exports';
import { AS_THE_BOOK, moneyFormat } from '@/store/format';
import classes from './Books.module.css';

const UNCLOSED = 'Results of earlier years, not closed to equity in the ledger';

/** The trial balance at any month-end, with whether it balances and why it may not. */
export function TrialBalance({ ground }: { readonly ground: Ground }) {
  const { book, calendar, balances, closedThrough } = ground;
  const money = moneyFormat(book);
  const { range } = balances;
  const [chosen, setChosen] = useState<number | null>(null);
  if (!range) return <p className="faded">The ledger has no activity yet.</p>;
  const at = Math.max(range.first, Math.min(chosen ?? closedThrough ?? range.last, range.last));
  const trial = trialBalance(book.accounts, balances, calendar, at);
  const off = subtract(trial.debit, trial.credit);
  const table = trialReport(trial, {
    book: book.name,
    currency: book.currency,
    title: 'Trial balance',
    subtitle: `At the end of ${calendar.period(at).label}, before the year’s closing entries`,
    unclosed: UNCLOSED,
  });
  const opened = book.accounts.some((a) => balances.opening(a.id) !== 0);
  return (
    <div className={classes.page}>
      <div className={classes.fields}>
        <NativeSelect
          label="At the end of"
          w={200}
          value={String(at)}
          onChange={(e) => setChosen(Number(e.currentTarget.value))}
          data={periodsOf(calendar, range)
            .reverse()
            .map((p) => ({ value: String(p.index), label: `${p.label} (${p.end})` }))}
        />
        <ExportMenu
          onCsv={() => exportCsv(table)}
          onXlsx={() => void exportXlsx(table)}
          more={documents((paper) => void exportPdf(ground, [table], AS_THE_BOOK, paper))}
        />
      </div>
      <table className={classes.table} aria-label="Trial balance" style={{ maxWidth: 720 }}>
        <thead>
          <tr>
            <th>Code</th>
            <th>Account</th>
            <th className={classes.num}>Debit</th>
            <th className={classes.num}>Credit</th>
          </tr>
        </thead>
        <tbody>
          {trial.rows.map(({ account, debit, credit }) => (
            <tr key={account.id}>
              <td className="figure">{account.code}</td>
              <td>{account.name}</td>
              <td className={classes.num}>{debit === 0 ? '' : money.exact(debit)}</td>
              <td className={classes.num}>{credit === 0 ? '' : money.exact(credit)}</td>
            </tr>
          ))}
          {trial.unclosed !== 0 && (
            <tr>
              <td />
              <td>
                <i>{UNCLOSED}</i>
              </td>
              <td className={classes.num}>{trial.unclosed > 0 ? money.exact(trial.unclosed) : ''}</td>
              <td className={classes.num}>
                {trial.unclosed < 0 ? money.exact(subtract(0 as never, trial.unclosed)) : ''}
              </td>
            </tr>
          )}
        </tbody>
        <tfoot>
          <tr className={classes.sum}>
            <td />
            <td className={off === 0 ? classes.good : classes.bad}>
              {off === 0 ? '✓ Debits equal credits' : `Debits and credits differ by ${money.exact(off)}`}
            </td>
            <td className={classes.num}>{money.exact(trial.debit)}</td>
            <td className={classes.num}>{money.exact(trial.credit)}</td>
          </tr>
        </tfoot>
      </table>
      <p className="faded" style={{ maxWidth: 720 }}>
        {opened
          ? 'Before this year’s closing entries. Balance-sheet accounts stand with their openings.'
          : 'Before this year’s closing entries. The files gave no opening balances, so balance-sheet accounts show what has moved since the ledger begins.'}
      </p>
    </div>
  );
}
