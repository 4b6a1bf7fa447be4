'use client';

import { useRef, useState, type DragEvent } from 'react';
import dynamic from 'next/dynamic';
import { Button, SegmentedControl } from '@mantine/core';
import { indexOfId, periodsOf } from '@/core/calendar';
import { StageHead } from '@/components/StageHead';
import stage from '@/components/Stage.module.css';
import { useBookStore } from '@/store/bookStore';
import { rulerRange } from '@/core/ground';
import { useOpenGround } from '@/store/openGround';
import { setSession, useSession, type BooksView } from '@/store/session';
import { useIntake } from '@/store/intakeState';
import { DemoHint } from './DemoHint';
import { count } from './words';
import classes from './Books.module.css';

/** Loaded when the first file is chosen: most visits read the ledger and take nothing in. */
const IntakePage = dynamic(() => import('./IntakePage').then((m) => m.IntakePage));
/** An empty book has no ledger to draw: its first screen goes without the sheet and all that reckons it. */
const LedgerSheet = dynamic(() => import('./LedgerSheet').then((m) => m.LedgerSheet));
const FirstSteps = dynamic(() => import('./FirstSteps').then((m) => m.FirstSteps));
const AccountsTable = dynamic(() => import('./AccountsTable').then((m) => m.AccountsTable));
const SourcesTable = dynamic(() => import('./SourcesTable').then((m) => m.SourcesTable));
const TrialBalance = dynamic(() => import('./TrialBalance').then((m) => m.TrialBalance));
const Segments = dynamic(() => import('./Segments').then((m) => m.Segments));
const CalendarSettings = dynamic(() => import('./CalendarSettings').then((m) => m.CalendarSettings));
const FeedPanel = dynamic(() => import('./FeedPanel').then((m) => m.FeedPanel));
const JournalList = dynamic(() => import('./JournalList').then((m) => m.JournalList));

/** The ledger of the book: what came in, what it says month by month, and the way in for more. */
export function BooksScreen() {
  const ground = useOpenGround();
  const { book, calendar, balances } = ground;
  const readOnly = useBookStore((s) => s.readOnly);
  const view = useSession((s) => s.booksView);
  const [over, setOver] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const phase = useIntake((s) => s.now.phase);
  const chosen = useSession((s) => s.ledgerRange);

  const all = rulerRange(ground);
  // Without a choice, the fiscal year of the last month in the ledger.
  const lastYear = balances.range ? calendar.period(balances.range.last).year : null;
  const range =
    chosen ??
    (lastYear === null
      ? null
      : {
          first: calendar.firstOfYear(lastYear),
          last: calendar.firstOfYear(lastYear) + calendar.periodsIn(lastYear) - 1,
        });
  const closed = book.closedThrough === null ? null : indexOfId(calendar, book.closedThrough);

  const takeUp = (files: FileList | null) => {
    const list = [...(files ?? [])];
    // What takes files in is loaded with the first of them.
    if (!readOnly) void import('@/store/intake').then((m) => m.takeFiles(list));
  };
  const onDrop = (e: DragEvent) => {
    e.preventDefault();
    setOver(false);
    takeUp(e.dataTransfer.files);
  };
  const choose = () => file.current?.click();
  // Accounts, calendar and feed of an empty book can be set before its first file comes.
  const empty = balances.entries === 0 && book.sources.length === 0;

  return (
    <div
      className={stage.stage}
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={(e) => e.currentTarget === e.target && setOver(false)}
      onDrop={onDrop}
    >
      <input
        ref={file}
        type="file"
        hidden
        multiple
        aria-label="Ledger file"
        accept=".csv,.tsv,.txt,.xlsx,.xml"
        onChange={(e) => {
          takeUp(e.currentTarget.files);
          e.currentTarget.value = '';
        }}
      />
      <StageHead
        title={phase === 'idle' ? 'Books' : 'Taking in a file'}
        subtitle={
          balances.entries === 0
            ? 'Nothing in the ledger yet'
            : `${count(balances.entries, 'entry', 'entries')}, closed through ${closed === null ? 'nothing yet' : calendar.period(closed).label}`
        }
        ruler={
          all && phase === 'idle'
            ? {
                periods: periodsOf(calendar, all),
                closedThrough: closed,
                range,
                choose: 'many',
                onChange: (r) => setSession({ ledgerRange: r }),
                label: 'Months of the book; drag to choose what is shown',
              }
            : null
        }
      />
      {phase !== 'idle' ? (
        <IntakePage ground={ground} onOther={choose} />
      ) : (
        <div className={classes.books}>
          {book.id.startsWith('demo-') ? <DemoHint /> : <span />}
          <div className={stage.tools} style={{ padding: '12px 18px' }}>
            <SegmentedControl
              size="xs"
              aria-label="View"
              value={view}
              onChange={(v) => setSession({ booksView: v as BooksView })}
              data={[
                { value: 'ledger', label: 'Ledger' },
                { value: 'trial', label: 'Trial balance' },
                { value: 'accounts', label: `Accounts ${book.accounts.length}` },
                { value: 'segments', label: 'Segments' },
                { value: 'sources', label: `Sources ${book.sources.length}` },
                { value: 'feed', label: 'Feed' },
                { value: 'calendar', label: 'Calendar' },
                { value: 'journal', label: 'Journal' },
              ]}
            />
            <span className={stage.push} />
            <Button variant="filled" onClick={choose} disabled={readOnly}>
              Take in ledger files…
            </Button>
          </div>
          {over && <div className={classes.drop}>Drop the file to take it in</div>}
          <div className={classes.view}>
            {view === 'ledger' && empty && <FirstSteps onTakeIn={choose} over={over} readOnly={readOnly} />}
            {view === 'ledger' && !empty && range && <LedgerSheet ground={ground} range={range} />}
            {view === 'trial' && <TrialBalance ground={ground} />}
            {view === 'segments' && <Segments ground={ground} readOnly={readOnly} />}
            {view === 'feed' && <FeedPanel ground={ground} readOnly={readOnly} />}
            {view === 'calendar' && (
              <CalendarSettings key={JSON.stringify(book.calendar)} ground={ground} readOnly={readOnly} />
            )}
            {view === 'accounts' && <AccountsTable ground={ground} readOnly={readOnly} />}
            {view === 'sources' && <SourcesTable ground={ground} readOnly={readOnly} onTakeIn={choose} />}
            {view === 'journal' && <JournalList />}
          </div>
        </div>
      )}
    </div>
  );
}
