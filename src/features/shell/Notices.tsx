'use client';

import { Button } from '@mantine/core';
import { saveBookFile } from '@/store/bookFile';
import { takeOver, useBookStore } from '@/store/bookStore';
import classes from './Shell.module.css';

/** What must be said at once: the storage refused a write, or another tab holds the book. */
export function Notices() {
  const save = useBookStore((s) => s.save);
  const readOnly = useBookStore((s) => s.readOnly && s.history !== null);
  return (
    <div>
      {save.state === 'failed' && (
        <div className={classes.notice} data-tone="trouble" role="alert">
          <span>
            Not saved: this browser’s storage refused the last change ({save.why}). The book is whole in this
            tab and in its last saved state. Save it as a file before closing.
          </span>
          <Button onClick={() => void saveBookFile()}>Save the book as a file</Button>
        </div>
      )}
      {readOnly && (
        <div className={classes.notice} role="status">
          <span>
            This book is open in another tab. Here it can be read, and it follows what is saved there.
          </span>
          <Button onClick={() => void takeOver()}>Work on it here</Button>
        </div>
      )}
    </div>
  );
}
