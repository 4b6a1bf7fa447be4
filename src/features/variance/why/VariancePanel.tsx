'use client';

import { useMemo, useState } from 'react';
import { SegmentedControl } from '@mantine/core';
import { minor, plus, sumBlank, type Minor } from '@/core/money';
import { fromDayNumber, periodsOf, rangeLabel, yearToDate, type PeriodIndex } from '@/core/calendar';
import { entriesOf, viewOfSegments } from '@/core/ledger';
import { isProfitAndLoss, naturalSign, type Account, type AccountId, type Layout } from '@/core/model';
import {
  cellOf,
  layoutAxis,
  type Compared,
  type ReportColumn,
  type ReportTable,
  type Scope,
} from '@/core/report';
import { EntriesPanel } from '@/components/EntriesPanel';
import { actualsIn, actualsOf, entriesView, type Ground } from '@/core/ground';
import { dayText, moneyFormat, percentText } from '@/store/format';
import { comparisonName } from '@/store/layoutWords';
import { ExplainForm } from './ExplainForm';
import { OutlookWay } from './OutlookWay';
import { Promised } from './Promised';
import { ToldList } from './ToldList';
import { BelongsElsewhere } from './WrongEntries';

const SENSE = { F: 'favorable', U: 'unfavorable' } as const;

/** Why a line is over or under: its explanation, what the year comes to, and the entries that its actual is made of. */
export function VariancePanel({
  ground,
  compared,
  layout,
  month,
  everything,
  toDateWords,
  account: id,
  opens,
  scope,
  readOnly,
}: {
  readonly ground: Ground;
  readonly compared: Compared;
  readonly layout: Layout;
  readonly month: PeriodIndex;
  /** Every line with month, year to date and full year. */
  readonly everything: ReportTable;
  readonly toDateWords: string;
  readonly account: AccountId | null;
  /** What the figure that is looked at is made of; null: the month's. */
  readonly opens: ReportColumn['opens'] | null;
  readonly scope: Scope;
  readonly readOnly: boolean;
}) {
  const { book, calendar } = ground;
  const [span, setSpan] = useState<'month' | 'toDate'>('month');
  const account = book.accounts.find((a) => a.id === id);
  const row = everything.rows.find((r) => r.account === id);
  if (!account) return <p className="faded">Choose a line or a figure to see why it is what it is.</p>;
  const money = moneyFormat(book);
  const shown: NonNullable<ReportColumn['opens']> = opens ?? {
    range: span === 'month' ? { first: month, last: month } : yearToDate(calendar, month),
    days: null,
    scope,
  };
  const { comparison } = compared;
  // An explanation is of one budget: its outlook follows from it, no other's.
  const only = comparison?.of === 'budget' ? comparison.parts[0]!.budget : null;
  const at = (key: string) => (row ? cellOf(everything, row, key) : null);
  const difference = at(`${span}Diff`) as Minor | null;
  const sense = at(`${span}Sense`) as 'F' | 'U' | null;
  const percent = at(`${span}Percent`) as number | null;
  return (
    <>
      <h2>{account.name}</h2>
      <div className="faded" style={{ fontSize: 12.5 }}>
        {span === 'month' ? calendar.period(month).label : toDateWords}:{' '}
        {difference === null
          ? 'no result to compare'
          : difference === 0
            ? 'as budgeted'
            : `${money.text(Math.abs(difference) as Minor)} ${difference > 0 ? 'over' : 'under'} ${namesOf(compared)}${sense ? `, ${SENSE[sense]}` : ''}${percent === null ? '' : `, ${percentText(percent)}`}`}
      </div>
      {row && (
        <>
          <section>
            <div className="label" id="why">
              Why, in {calendar.period(month).label}
            </div>
            <ExplainForm
              ground={ground}
              account={account}
              month={month}
              moved={sumBlank(actualsIn(ground, comparison).map((a) => a.moved(account, month)))}
              row={row}
              table={everything}
              against={only?.id ?? null}
              disabled={readOnly}
            />
          </section>
          <Promised ground={ground} account={account.id} month={month} money={money} readOnly={readOnly} />
          {at('monthDiff') !== null && at('monthDiff') !== 0 && (
            <ToldList
              ground={ground}
              account={account}
              month={month}
              difference={at('monthDiff') as Minor}
              comparison={comparison}
              beside={compared.first === 'lastYear' ? 'lastYear' : 'plan'}
              against={only?.id ?? null}
              note={book.varianceNotes[calendar.period(month).id]?.[account.id] ?? null}
              readOnly={readOnly}
            />
          )}
          <OutlookWay
            ground={ground}
            table={everything}
            row={row}
            budget={only?.axis === null && isProfitAndLoss(account.kind) ? only : null}
            inForce={comparison?.inForceIn != null}
            account={account}
            month={month}
            money={money}
            readOnly={readOnly}
          />
        </>
      )}
      <section>
        {!opens && (
          <SegmentedControl
            size="xs"
            aria-label="Entries of"
            value={span}
            onChange={(v) => setSpan(v as 'month')}
            data={[
              { value: 'month', label: calendar.period(month).short },
              { value: 'toDate', label: 'Year to date' },
            ]}
          />
        )}
        <Entries
          key={`${account.id} ${JSON.stringify(shown)}`}
          {...{ ground, compared, layout, month, account, readOnly }}
          opens={shown}
          against={only?.id ?? null}
        />
      </section>
    </>
  );
}

const namesOf = ({ comparison, first }: Compared): string =>
  first === 'lastYear'
    ? 'last year'
    : first === 'outlook'
      ? 'the outlook'
      : comparison
        ? comparisonName(comparison)
        : 'nothing';

/** The entries of a figure, with what can be said of them. */
function Entries({
  ground,
  compared: { comparison },
  layout,
  month,
  account,
  opens: { range, days, scope },
  against,
  readOnly,
}: {
  readonly ground: Ground;
  readonly compared: Compared;
  readonly layout: Layout;
  readonly month: PeriodIndex;
  readonly account: Account;
  readonly opens: NonNullable<ReportColumn['opens']>;
  readonly against: string | null;
  readonly readOnly: boolean;
}) {
  const { book, calendar, blocks } = ground;
  const axis = scope === 'all' ? null : layoutAxis(book, layout.segments);
  const view = useMemo(
    () =>
      axis
        ? viewOfSegments(ground.view, [{ axis, values: [scope as string | null] }])
        : comparison
          ? entriesView(ground, comparison)
          : ground.view,
    [ground, axis, scope, comparison],
  );
  const entries = useMemo(() => {
    const all = entriesOf(blocks, calendar, account.id, range, view);
    if (!days) return all;
    const [first, last] = [fromDayNumber(days.first), fromDayNumber(days.last)];
    return all.filter((e) => e.day >= first && e.day <= last);
  }, [blocks, calendar, account.id, range, days, view]);
  const total = useMemo(() => {
    if (days || !isProfitAndLoss(account.kind)) return null;
    const ledgers = axis ? [actualsOf(ground, axis.id, scope)] : actualsIn(ground, comparison);
    return sumBlank(
      ledgers.flatMap((l) => periodsOf(calendar, range).map((p) => l.ledger(account, p.index))),
    );
  }, [ground, account, axis, scope, comparison, calendar, range, days]);
  const money = moneyFormat(book);
  const known = total ?? naturalSum(entries, account);
  return (
    <>
      <div className="label" style={{ margin: '10px 0 4px' }}>
        {entries.length} {entries.length === 1 ? 'entry' : 'entries'},{' '}
        {days
          ? days.first === days.last
            ? dayText(fromDayNumber(days.first))
            : `${dayText(fromDayNumber(days.first))} – ${dayText(fromDayNumber(days.last))}`
          : rangeLabel(calendar, range)}
      </div>
      <EntriesPanel
        entries={entries}
        kind={account.kind}
        dayText={dayText}
        total={known}
        exact={money.exact}
        sourceOf={(block) => book.sources.find((s) => s.block === block)?.fileName ?? ''}
        action={
          readOnly
            ? undefined
            : (entry) => (
                <BelongsElsewhere
                  ground={ground}
                  account={account}
                  month={month}
                  entry={entry}
                  against={against}
                />
              )
        }
      />
    </>
  );
}

function naturalSum(
  entries: readonly { readonly amount: Minor; readonly mark: string }[],
  account: Account,
): Minor {
  const sign = naturalSign(account.kind);
  return minor(entries.reduce((t, e) => (e.mark === 'activity' ? plus(t, sign * e.amount) : t), 0));
}
