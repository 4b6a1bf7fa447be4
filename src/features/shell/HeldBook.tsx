'use client';

import { Button } from '@mantine/core';
import { Trouble } from '@/components/Trouble';
import { saveBookFile } from '@/store/bookFile';
import { drawHeld, useBookStore } from '@/store/bookStore';

/** A book whose screen did not come to an end the last time: it is shown only when asked for, or one change earlier. */
export function HeldBook() {
  const name = useBookStore((s) => s.history?.book.name ?? '');
  const canUndo = useBookStore((s) => (s.history?.done.length ?? 0) > 0);
  return (
    <Trouble
      title={`${name} was not shown to the end`}
      action={{ label: 'Show it', run: () => drawHeld(false) }}
      more={
        <>
          {canUndo && (
            <Button size="sm" onClick={() => drawHeld(true)}>
              Show it one change earlier
            </Button>
          )}
          <Button size="sm" onClick={() => void saveBookFile()}>
            Save the book as a file
          </Button>
        </>
      }
    >
      The last time, the page was closed or stopped while this book was being drawn. If it only took long,
      show it again. If it stops once more, show it one change earlier, save it as a file, or open another
      book from the menu at the top. Nothing of it was changed.
    </Trouble>
  );
}
