'use client';

import { saveBookFile } from '@/store/bookFile';

/** The frame itself broke: what can still be done stands here without it. */
export default function GlobalError({ error, reset }: { readonly error: Error; readonly reset: () => void }) {
  return (
    <html lang="en-US">
      <body
        style={{ font: '15px/1.5 Georgia, serif', maxWidth: 560, margin: '12vh auto', padding: '0 24px' }}
      >
        <h1 style={{ fontSize: 26 }}>The program stopped</h1>
        <p>
          The book is as it was saved last. What happened: <q>{error.message}</q>
        </p>
        <p>
          <button type="button" onClick={reset}>
            Start it again
          </button>{' '}
          <button type="button" onClick={() => void saveBookFile()}>
            Save the open book as a file
          </button>
        </p>
      </body>
    </html>
  );
}
