'use client';

import { Trouble } from '@/components/Trouble';

/** A screen broke: what it was, and that the book itself is safe. */
export default function ErrorPage({ error, reset }: { readonly error: Error; readonly reset: () => void }) {
  return (
    <Trouble title="This screen stopped" action={{ label: 'Show it again', run: reset }}>
      The book is safe: it is saved after every change. What happened: <q>{error.message}</q>
    </Trouble>
  );
}
