'use client';

import { useState } from 'react';
import { Button } from '@mantine/core';
import { useBookStore } from '@/store/bookStore';
import { Notice, SaveAsFile } from './Notice';
import { issueWords, setAsideWords } from './words';

/** An older state than the last one, or a part of the book that had to be left out. */
export function NotWhole() {
  const passedOver = useBookStore((s) => s.passedOver);
  const setAside = useBookStore((s) => s.setAside);
  const [seen, setSeen] = useState<readonly unknown[]>([]);
  if (passedOver.length > 0 && !seen.includes(passedOver))
    return (
      <Notice
        tone="trouble"
        actions={
          <>
            <SaveAsFile />
            <Button onClick={() => setSeen([...seen, passedOver])}>I have seen it</Button>
          </>
        }
      >
        This is not the last state of the book: a newer one could not be opened ({issueWords(passedOver[0]!)}
        ). It is kept; look whether the last things done are here.
      </Notice>
    );
  if (setAside.length > 0 && !seen.includes(setAside))
    return (
      <Notice
        tone="trouble"
        actions={
          <>
            <SaveAsFile />
            <Button onClick={() => setSeen([...seen, setAside])}>I have seen it</Button>
          </>
        }
      >
        Opened without {setAside.slice(0, 3).map(setAsideWords).join('; ')}
        {setAside.length > 3 ? `; and ${setAside.length - 3} more` : ''}. The rest is whole.
      </Notice>
    );
  return null;
}
