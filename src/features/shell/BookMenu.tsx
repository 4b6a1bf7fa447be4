'use client';

import { useRef, useState } from 'react';
import dynamic from 'next/dynamic';
import { MenuButton } from '@/components/Opens';
import type { MenuEntry } from '@/components/Opened';
import { saveBookFile } from '@/store/bookFile';
import { addDemoBook, openKept, useBookStore, type ShelfItem } from '@/store/bookStore';
import { say } from '@/store/session';
import type { Asking, Unopened } from './BookDialogs';
import classes from './Shell.module.css';

const BookDialogs = dynamic(() => import('./BookDialogs').then((m) => m.BookDialogs));

const ofBook = (ask: (dialog: Asking) => void): MenuEntry[] => [
  'line',
  { label: 'Save the book as a file', run: () => void saveBookFile() },
  { label: 'Rename…', run: () => ask('rename') },
  { label: 'Duplicate…', run: () => ask('duplicate') },
  { label: 'Delete…', run: () => ask('delete'), takesAway: true },
];

/** The open book's name, and everything that can be done with books. */
export function BookMenu() {
  const book = useBookStore((s) => s.history?.book ?? null);
  const shelf = useBookStore((s) => s.shelf);
  const [dialog, setDialog] = useState<Asking>(null);
  const [unopened, setUnopened] = useState<Unopened | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const openOr = async (item: ShelfItem) => {
    const opening = await openKept(item.id);
    if (opening.ok) return;
    const { issueWords } = await import('./words');
    setUnopened({ item, why: issueWords(opening.issue) });
  };

  return (
    <>
      <MenuButton
        width={290}
        button={
          <button
            type="button"
            className={classes.bookButton}
            aria-label={`Book: ${book?.name ?? 'none open'}`}
          >
            {book?.name ?? 'No book open'} ▾
          </button>
        }
        entries={[
          ...shelf.map((s) => ({
            key: s.id,
            label: `${s.unreadable ? `A book that cannot be read (${s.id})` : s.name}${s.id === book?.id ? ' ✓' : ''}`,
            current: s.id === book?.id,
            run: () => void openOr(s),
          })),
          'line',
          { label: 'New book…', run: () => setDialog('new') },
          { label: 'Open a book file…', run: () => file.current?.click() },
          { label: 'Add the demo book afresh', run: () => void addDemoBook() },
          ...(book ? ofBook(setDialog) : []),
        ]}
      />
      <input
        ref={file}
        type="file"
        accept=".json"
        hidden
        aria-label="Book file"
        onChange={async (e) => {
          const [chosen] = e.currentTarget.files ?? [];
          e.currentTarget.value = '';
          if (!chosen) return;
          const { openBookFile } = await import('@/store/openBookFile');
          const trouble = await openBookFile(chosen);
          if (trouble) say(trouble, 'trouble');
          else say(`${chosen.name} is open.`);
        }}
      />
      {(dialog !== null || unopened !== null) && (
        <BookDialogs
          dialog={dialog}
          unopened={unopened}
          onDone={() => {
            setDialog(null);
            setUnopened(null);
          }}
        />
      )}
    </>
  );
}
