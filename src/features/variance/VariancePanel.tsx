'use client';

import { useMemo, useState } from 'react';
import { SegmentedControl, Textarea } from '@mantine/core';
import type { Minor } from '@/core/money';
import { yearToDate, type PeriodIndex } from '@/core/calendar';
import { entriesOf } from '@/core/ledger';
import { LIMITS, type AccountId, type Budget, type VarianceNote } from '@/core/model';
import { cellOf, type ReportRow } from '@/core/report';
import { EntriesPanel } from '@/components/EntriesPanel';
import { noteVariance } from '@/store/actions';
import type { Ground } from '@/core/ground';
import { moneyFormat, percentText } from '@/store/format';

/** A figure of the report: an account's actual of the month or of the year to date. */
export type Figure = { readonly account: AccountId; readonly span: 'month' | 'ytd' };

const SENSE = { F: 'favorable', U: 'unfavorable' } as const;

/** Why a line is over or under: its note, and the ledger entries that its actual is made of. */
export function VariancePanel({
  ground,
  budget,
  month,
  figure,
  rows,
  readOnly,
  onFigure,
}: {
  readonly ground: Ground;
  readonly budget: Budget;
  readonly month: PeriodIndex;
  readonly figure: Figure | null;
  readonly rows: readonly ReportRow[];
  readonly readOnly: boolean;
  readonly onFigure: (figure: Figure) => void;
}) {
  const { book, calendar, blocks } = ground;
  const account = book.accounts.find((a) => a.id === figure?.account);
  const row = rows.find((r) => r.account === figure?.account);
  const span = figure?.span ?? 'month';
  const id = account?.id;
  const entries = useMemo(
    () =>
      id
        ? entriesOf(
            blocks,
            calendar,
            id,
            span === 'month' ? { first: month, last: month } : yearToDate(calendar, month),
          )
        : [],
    [blocks, calendar, id, month, span],
  );
  if (!account || !row)
    return <p className="faded">Choose a line or a figure to see why it is what it is.</p>;
  const money = moneyFormat(book);
  const period = calendar.period(month);
  const note = book.varianceNotes[period.id]?.[account.id] ?? null;
  const at = (key: 'Actual' | 'Diff' | 'Percent' | 'Sense') => cellOf(row, `${span}${key}`);
  const difference = at('Diff') as Minor | null;
  const sense = at('Sense') as 'F' | 'U' | null;
  return (
    <>
      <h2>{account.name}</h2>
      <div className="faded" style={{ fontSize: 12.5 }}>
        {span === 'month' ? period.label : `Year to ${period.label}`}:{' '}
        {difference === null || difference === 0
          ? 'as budgeted'
          : `${money.text(Math.abs(difference) as Minor)} ${difference > 0 ? 'over' : 'under'} ${budget.name}${sense ? `, ${SENSE[sense]}` : ''}${at('Percent') === null ? '' : `, ${percentText(at('Percent') as number)}`}`}
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
            { value: 'ytd', label: 'Year to date' },
          ]}
        />
        <div className="label" style={{ margin: '10px 0 4px' }}>
          {entries.length} {entries.length === 1 ? 'entry' : 'entries'}
        </div>
        <EntriesPanel
          key={`${account.id} ${figure?.span}`}
          entries={entries}
          kind={account.kind}
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
