'use client';

import { useState } from 'react';
import { Button } from '@mantine/core';
import type { TakingOver } from '@/store/keeping';
import { takeOver } from '@/store/bookStore';
import { Notice } from './Notice';

/** Another tab holds the book: it can be read here, or asked for. */
export function ReadOnly() {
  const [answer, setAnswer] = useState<TakingOver | 'asking' | null>(null);
  const ask = async (byForce: boolean) => {
    setAnswer('asking');
    setAnswer(await takeOver(byForce));
  };
  if (answer === 'asking' || answer === null || answer.ok)
    return (
      <Notice
        actions={
          <Button loading={answer === 'asking'} onClick={() => void ask(false)}>
            Work on it here
          </Button>
        }
      >
        This book is open in another tab. Here it can be read, and it follows what is saved there.
      </Notice>
    );
  return (
    <Notice
      tone="trouble"
      actions={
        answer.why !== 'unreadable' && (
          <>
            <Button onClick={() => void ask(false)}>Ask again</Button>
            <Button onClick={() => void ask(true)}>Take it over without them</Button>
          </>
        )
      }
    >
      {answer.why === 'kept'
        ? `The other tab has changes that it could not save (${answer.detail}), and keeps the book. Save it there first, or take it over without them.`
        : answer.why === 'silent'
          ? 'The other tab does not answer: it may be busy or stopped. What was not saved there would stay there.'
          : 'The book cannot be read at this moment, and was not taken over.'}
    </Notice>
  );
}
