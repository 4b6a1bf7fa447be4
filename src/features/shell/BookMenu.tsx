'use client';

import { useRef, useState } from 'react';
import dynamic from 'next/dynamic';
import { Menu } from '@mantine/core';
import { openBookFile, saveBookFile } from '@/store/bookFile';
import { addDemoBook, openKept, useBookStore, type ShelfItem } from '@/store/bookStore';
import { say } from '@/store/session';
import type { Asking, Unopened } from './BookDialogs';
import { issueWords } from './words';
import classes from './Shell.module.css';

const BookDialogs = dynamic(() => import('./BookDialogs').then((m) => m.BookDialogs));

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
    setUnopened({ item, why: issueWords(opening.issue) });
  };

  return (
    <>
      <Menu position="bottom-start" width={290} shadow="sm" transitionProps={{ duration: 0 }}>
        <Menu.Target>
          <button
            type="button"
            className={classes.bookButton}
            aria-label={`Book: ${book?.name ?? 'none open'}`}
          >
            {book?.name ?? 'No book open'} ▾
          </button>
        </Menu.Target>
        <Menu.Dropdown>
          {shelf.map((s) => (
            <Menu.Item key={s.id} fw={s.id === book?.id ? 600 : 400} onClick={() => void openOr(s)}>
              {s.unreadable ? `A book that cannot be read (${s.id})` : s.name}
              {s.id === book?.id ? ' ✓' : ''}
            </Menu.Item>
          ))}
          <Menu.Divider />
          <Menu.Item onClick={() => setDialog('new')}>New book…</Menu.Item>
          <Menu.Item onClick={() => file.current?.click()}>Open a book file…</Menu.Item>
          <Menu.Item onClick={() => void addDemoBook()}>Add the demo book afresh</Menu.Item>
          {book && (
            <>
              <Menu.Divider />
              <Menu.Item onClick={() => void saveBookFile()}>Save the book as a file</Menu.Item>
              <Menu.Item onClick={() => setDialog('rename')}>Rename…</Menu.Item>
              <Menu.Item onClick={() => setDialog('duplicate')}>Duplicate…</Menu.Item>
              <Menu.Item c="var(--bad)" onClick={() => setDialog('delete')}>
                Delete…
              </Menu.Item>
            </>
          )}
        </Menu.Dropdown>
      </Menu>
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
