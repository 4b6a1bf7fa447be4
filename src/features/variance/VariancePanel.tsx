'use client';

import { useMemo, useState } from 'react';
import { SegmentedControl, Textarea } from '@mantine/core';
import type { Minor } from '@/core/money';
import { type PeriodIndex } from '@/core/calendar';
import { entriesOf } from '@/core/ledger';
import { LIMITS, type AccountId, type VarianceNote } from '@/core/model';
import { cellOf, type ReportTable, type VarianceBlock } from '@/core/report';
import type { VarianceSpan } from '@/core/variance';
import { EntriesPanel } from '@/components/EntriesPanel';
import { noteVariance } from '@/store/actions';
import { entriesView, type Comparison, type Ground } from '@/core/ground';
import { dayText, moneyFormat, percentText } from '@/store/format';
import { comparisonName } from './varianceData';

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
  const note = book.varianceNotes[period.id]?.[account.id] ?? null;
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
        <NoteForm
          key={note?.at ?? ''}
          note={note}
          disabled={readOnly}
          onNote={(text, reach) => noteVariance(period.id, account.id, text, reach)}
        />
      </section>
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

/** The note of a line in a month; kept when its field is left, and taken away when it is emptied. */
function NoteForm({
  note,
  disabled,
  onNote,
}: {
  readonly note: VarianceNote | null;
  readonly disabled: boolean;
  readonly onNote: (text: string, reach: VarianceNote['reach']) => void;
}) {
  const [text, setText] = useState(note?.text ?? '');
  const [reach, setReach] = useState<VarianceNote['reach']>(note?.reach ?? 'timing');
  const keep = (nextReach: VarianceNote['reach']) => {
    const same = text.trim() === (note?.text ?? '') && (text.trim() === '' || nextReach === note?.reach);
    if (!same) onNote(text, nextReach);
  };
  return (
    <>
      <SegmentedControl
        size="xs"
        fullWidth
        aria-label="Reach"
        disabled={disabled}
        value={reach}
        onChange={(v) => {
          setReach(v as VarianceNote['reach']);
          keep(v as VarianceNote['reach']);
        }}
        data={[
          { value: 'timing', label: 'Timing: comes later' },
          { value: 'lasting', label: 'Lasting' },
        ]}
        my={6}
      />
      <Textarea
        aria-labelledby="why"
        rows={3}
        maxLength={LIMITS.note}
        disabled={disabled}
        placeholder="What happened, and what follows"
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
        onBlur={() => keep(reach)}
        onKeyDown={(e) => {
          if (e.key === 'Escape' || (e.key === 'Enter' && (e.ctrlKey || e.metaKey))) e.currentTarget.blur();
        }}
        styles={{ input: { fontFamily: 'var(--font-title)', fontStyle: 'italic', fontSize: 15 } }}
      />
    </>
  );
}
