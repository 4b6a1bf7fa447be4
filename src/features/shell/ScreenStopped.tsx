'use client';

import { Button } from '@mantine/core';
import { Trouble } from '@/components/Trouble';
import { saveBookFile } from '@/store/bookFile';
import { undoLast, useBookStore } from '@/store/bookStore';

/** A screen broke: what it was, that the book is safe, and the ways on from here. */
export function ScreenStopped({ error, again }: { readonly error: Error; readonly again: () => void }) {
  const canUndo = useBookStore((s) => (s.history?.done.length ?? 0) > 0 && !s.readOnly);
  const open = useBookStore((s) => s.history !== null);
  const takeBack = () => {
    undoLast();
    again();
  };
  return (
    <Trouble
      title="This screen stopped"
      action={{ label: 'Show it again', run: again }}
      more={
        open && (
          <>
            {canUndo && (
              <Button size="sm" onClick={takeBack}>
                Take the last change back
              </Button>
            )}
            <Button size="sm" onClick={() => void saveBookFile()}>
              Save the book as a file
            </Button>
          </>
        )
      }
    >
      The rest of the program goes on, and the book is as it was. What happened: <q>{error.message}</q>
    </Trouble>
  );
}
