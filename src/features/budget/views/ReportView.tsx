'use client';

import { methodBadge } from '@/store/methodWords';
import { useState } from 'react';
import { SegmentedControl, Switch } from '@mantine/core';
import { ExportMenu } from '@/components/ExportMenu';
import type { Minor } from '@/core/money';
import { lineOf, segmentName, type Budget, type Line, type LineRef } from '@/core/model';
import {
  budgetReport,
  type Grain,
  type ReportCell,
  type ReportColumn,
  type ReportTable,
} from '@/core/report';
import stage from '@/components/Stage.module.css';
import type { Period } from '@/core/calendar';
import { reckoned, type Ground } from '@/core/ground';
import { exportCsv, exportLivePlan, exportXlsx } from '@/store/exports';
import { dayText, moneyFormat, percentText, type MoneyFormat } from '@/store/format';
import { SegmentChoice } from '../sheet/SegmentChoice';
import { segmentShown } from '../rows/worksheetRows';
import { yearBefore } from '@/core/ground';

import classes from '../Budget.module.css';

/** The budget as a report: on the screen as it leaves in files. */
export function ReportView({ ground, budget }: { readonly ground: Ground; readonly budget: Budget }) {
  const { book } = ground;
  const [grain, setGrain] = useState<Grain>('months');
  const [lastYear, setLastYear] = useState(true);
  const [words, setWords] = useState(false);
  const [chosen, setChosen] = useState<string | null | 'all'>('all');
  const whole = reckoned(ground, budget);
  const before = yearBefore(ground, whole);
  const segment = segmentShown(budget.segments, chosen);
  const money = moneyFormat(book);
  const axis = book.axes.find((a) => a.id === budget.axis);
  const of = segment === 'all' || !axis ? '' : ` · ${segmentName(axis, segment)}`;
  const refOf = (account: string): LineRef | null => (segment === 'all' ? null : { account, segment });
  const lineFor = (account: string) => {
    const ref = refOf(account);
    return ref ? lineOf(budget, ref) : undefined;
  };
  const table = budgetReport({
    book: book.name,
    currency: book.currency,
    title: budget.name,
    subtitle: `${budget.approved ? `Approved ${dayText(budget.approved.at)}${budget.approved.by ? ` by ${budget.approved.by}` : ''}` : 'Draft'}${of}`,
    accounts: book.accounts,
    covers: budget.covers,
    periods: whole.facts.periods,
    grain,
    figures: (id) => whole.figures(id, segment),
    lastYear: { label: before.label, of: (id) => before.of(id, segment), known: before.known },
    methodName: (id) => {
      const line = lineFor(id);
      return line ? methodBadge(line.method) : '';
    },
    note: (id) => notesOf(lineFor(id), whole.facts.periods),
    with: { lastYear, words },
  });
  return (
    <div className={classes.page}>
      <div className={stage.tools}>
        <SegmentedControl
          size="xs"
          aria-label="Columns of the report"
          value={grain}
          onChange={(g) => setGrain(g as Grain)}
          data={[
            { value: 'months', label: 'Months' },
            { value: 'quarters', label: 'Quarters' },
            { value: 'year', label: 'Years' },
          ]}
        />
        <SegmentChoice book={book} budget={budget} value={segment} onChange={setChosen} />
        <Switch
          size="xs"
          label="With last year"
          checked={lastYear}
          onChange={(e) => setLastYear(e.currentTarget.checked)}
        />
        <Switch
          size="xs"
          label="With methods and notes"
          checked={words}
          onChange={(e) => setWords(e.currentTarget.checked)}
        />
        <span className={stage.push} />
        <ExportMenu
          xlsx="Workbook (XLSX) of this report"
          onXlsx={() => void exportXlsx(table)}
          onCsv={() => exportCsv(table)}
          more={[
            {
              label: 'Workbook (XLSX) that reckons itself, with its drivers',
              run: () => void exportLivePlan(ground, budget, segment),
            },
          ]}
        />
      </div>
      <ReportTableView table={table} money={money} />
    </div>
  );
}

function cellText(cell: ReportCell, column: ReportColumn, money: MoneyFormat): string {
  if (cell === null) return '';
  switch (column.kind) {
    case 'money':
      return column.of === 'difference' ? money.signed(cell as Minor) : money.text(cell as Minor);
    case 'perMille':
      return percentText(cell as number);
    default:
      return String(cell);
  }
}

function ReportTableView({ table, money }: { readonly table: ReportTable; readonly money: MoneyFormat }) {
  return (
    <div className={classes.report} tabIndex={0} role="region" aria-label={table.title}>
      <h2>
        {table.title} <span className="faded">{table.subtitle}</span>
      </h2>
      <table className={classes.table}>
        <thead>
          <tr>
            <th>Line</th>
            {table.columns.map((c) => (
              <th key={c.key} data-kind={c.kind}>
                {c.label}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {table.rows.map((r) => (
            <tr key={r.key} data-kind={r.kind} data-result={r.kind === 'result' ? r.key : undefined}>
              <td>
                <span className="faded">{r.code}</span> {r.label}
              </td>
              {table.columns.map((c, i) => (
                <td
                  key={c.key}
                  data-kind={c.kind}
                  className={c.of === 'plan' && r.kind === 'line' ? classes.plan : undefined}
                >
                  {r.kind === 'section' ? '' : cellText(r.cells[i] ?? null, c, money)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** A line's note and those of its months, as one text. */
const notesOf = (line: Line | undefined, periods: readonly Period[]): string =>
  [
    line?.note?.text ?? '',
    ...periods.map((p) => (line?.cellNotes[p.id] ? `${p.label}: ${line.cellNotes[p.id]!.text}` : '')),
  ]
    .filter(Boolean)
    .join(' · ');
