'use client';

import dynamic from 'next/dynamic';
import { useBookStore } from '@/store/bookStore';
import { Notice, SaveAsFile } from './Notice';

const ReadOnly = dynamic(() => import('./ReadOnly').then((m) => m.ReadOnly));
const NotWhole = dynamic(() => import('./NotWhole').then((m) => m.NotWhole));

/** What must be said at once: what is not on disk, who holds the book, and what of it could not be opened. */
export function Notices() {
  const save = useBookStore((s) => s.save);
  const open = useBookStore((s) => s.history !== null);
  const readOnly = useBookStore((s) => s.readOnly);
  const waiting = useBookStore((s) => s.waiting);
  const id = useBookStore((s) => s.history?.book.id);
  const partly = useBookStore((s) => s.passedOver.length + s.setAside.length > 0);
  return (
    <div>
      {open && <NotSaved />}
      {waiting.length > 0 && (
        <Notice tone="trouble">
          Not saved yet: {waiting.map((w) => w.name).join(', ')}. The storage refused the last changes; they
          are tried again while this tab is open. Open the book to save it as a file.
        </Notice>
      )}
      {open && readOnly && save.state !== 'lost' && <ReadOnly key={id} />}
      {open && partly && <NotWhole />}
    </div>
  );
}

function NotSaved() {
  const save = useBookStore((s) => s.save);
  switch (save.state) {
    case 'saved':
      return null;
    case 'saving':
      return save.slow ? (
        <Notice actions={<SaveAsFile />}>
          Not saved yet: the storage is slow to answer. Keep this tab open, or save the book as a file.
        </Notice>
      ) : null;
    case 'failed':
      return (
        <Notice tone="trouble" actions={<SaveAsFile />}>
          Not saved: this browser’s storage refused the last change ({save.why}). The book is whole in this
          tab, and saving is tried again. Save it as a file before closing.
        </Notice>
      );
    case 'lost':
      return (
        <Notice tone="trouble" actions={<SaveAsFile />}>
          Not saved: another tab took this book over before the last changes made here were written. They are
          in this tab only. Save them as a file; opening the book anew shows what the other tab has.
        </Notice>
      );
  }
}
