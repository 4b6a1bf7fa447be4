'use client';

import { useMemo } from 'react';
import { SegmentedControl } from '@mantine/core';
import type { Minor } from '@/core/money';
import { type PeriodIndex } from '@/core/calendar';
import { entriesOf } from '@/core/ledger';
import type { AccountId } from '@/core/model';
import { cellOf, type ReportRow, type ReportTable, type VarianceBlock } from '@/core/report';
import type { VarianceSpan } from '@/core/variance';
import { EntriesPanel } from '@/components/EntriesPanel';
import { entriesView, type Comparison, type Ground } from '@/core/ground';
import { dayText, moneyFormat, percentText, type MoneyFormat } from '@/store/format';
import { ExplainForm } from './ExplainForm';
import { comparisonName } from './varianceData';
import stage from '@/components/Stage.module.css';

/** A figure of the report: an account's actual of the month, or of the year to date. */
export type Figure = { readonly account: AccountId; readonly span: VarianceBlock };

const SENSE = { F: 'favorable', U: 'unfavorable' } as const;

/** Why a line is over or under: its note, and the ledger entries that its actual is made of. */
export function VariancePanel({
  ground,
  comparison,
  span: { month, monthIsActual, toDate },
  toDateWords,
  figure,
  table,
  readOnly,
  onFigure,
}: {
  readonly ground: Ground;
  readonly comparison: Comparison;
  readonly span: VarianceSpan;
  readonly toDateWords: string;
  readonly figure: Figure | null;
  readonly table: ReportTable;
  readonly readOnly: boolean;
  readonly onFigure: (figure: Figure) => void;
}) {
  const { book, calendar, blocks } = ground;
  const account = book.accounts.find((a) => a.id === figure?.account);
  const row = table.rows.find((r) => r.account === figure?.account);
  const span = figure?.span ?? 'month';
  const id = account?.id;
  const view = useMemo(() => entriesView(ground, comparison), [ground, comparison]);
  const entries = useMemo(() => {
    const periods: readonly PeriodIndex[] = span === 'month' ? (monthIsActual ? [month] : []) : toDate;
    if (!id || periods.length === 0) return [];
    // A month without actuals among those of the year has no entries either.
    return entriesOf(blocks, calendar, id, { first: periods[0]!, last: periods.at(-1)! }, view);
  }, [blocks, calendar, id, month, monthIsActual, toDate, span, view]);
  if (!account || !row)
    return <p className="faded">Choose a line or a figure to see why it is what it is.</p>;
  const money = moneyFormat(book);
  const period = calendar.period(month);
  // An explanation is of one budget: its outlook follows from it, no other's.
  const against = comparison.of === 'budget' ? comparison.parts[0]!.budget.id : null;
  const at = (key: 'Actual' | 'Diff' | 'Percent' | 'Sense') => cellOf(table, row, `${span}${key}`);
  const difference = at('Diff') as Minor | null;
  const sense = at('Sense') as 'F' | 'U' | null;
  return (
    <>
      <h2>{account.name}</h2>
      <div className="faded" style={{ fontSize: 12.5 }}>
        {span === 'month' ? period.label : toDateWords}:{' '}
        {difference === null
          ? 'no result to compare'
          : difference === 0
            ? 'as budgeted'
            : `${money.text(Math.abs(difference) as Minor)} ${difference > 0 ? 'over' : 'under'} ${comparisonName(comparison)}${sense ? `, ${SENSE[sense]}` : ''}${at('Percent') === null ? '' : `, ${percentText(at('Percent') as number)}`}`}
      </div>
      <section>
        <div className="label" id="why">
          Why, in {period.label}
        </div>
        <ExplainForm
          ground={ground}
          account={account.id}
          month={month}
          difference={cellOf(table, row, 'monthDiff') as Minor | null}
          against={against}
          disabled={readOnly}
        />
      </section>
      <OutlookWay table={table} row={row} money={money} />
      <section>
        <SegmentedControl
          size="xs"
          aria-label="Entries of"
          value={span}
          onChange={(v) => onFigure({ account: account.id, span: v as Figure['span'] })}
          data={[
            { value: 'month', label: period.short },
            { value: 'toDate', label: 'Year to date' },
          ]}
        />
        <div className="label" style={{ margin: '10px 0 4px' }}>
          {entries.length} {entries.length === 1 ? 'entry' : 'entries'}
        </div>
        <EntriesPanel
          key={`${account.id} ${figure?.span}`}
          entries={entries}
          kind={account.kind}
          dayText={dayText}
          total={at('Actual') as Minor | null}
          exact={money.exact}
          sourceOf={(block) => ground.book.sources.find((s) => s.block === block)?.fileName ?? ''}
        />
      </section>
    </>
  );
}

/** The way from the year's budget to its outlook: what is over or under so far, and what is carried on. */
function OutlookWay({
  table,
  row,
  money,
}: {
  readonly table: ReportTable;
  readonly row: ReportRow;
  readonly money: MoneyFormat;
}) {
  const at = (key: string) => cellOf(table, row, key) as Minor | null;
  const [budget, outlook, soFar] = [at('yearBudget'), at('yearOutlook'), at('toDateDiff')];
  if (budget === null || outlook === null || soFar === null || at('yearDiff') === null) return null;
  const carried = (outlook - budget - soFar) as Minor;
  return (
    <section aria-label="Way to the outlook">
      <div className="label">From budget to outlook</div>
      <div className={stage.pair}>
        <span>Budget for the year</span>
        <span>{money.text(budget)}</span>
      </div>
      <div className={stage.pair}>
        <span>{soFar >= 0 ? 'Over' : 'Under'} so far</span>
        <span>{money.signed(soFar)}</span>
      </div>
      {carried !== 0 && (
        <div className={stage.pair}>
          <span>Comes back or goes on</span>
          <span>{money.signed(carried)}</span>
        </div>
      )}
      <div className={stage.pair}>
        <b>Outlook</b>
        <b>{money.text(outlook)}</b>
      </div>
    </section>
  );
}
