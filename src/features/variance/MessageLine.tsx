'use client';

import { useState } from 'react';
import { Button, Textarea } from '@mantine/core';
import { LIMITS, type Message } from '@/core/model';
import { traced, type Drafted } from '@/store/messageWords';
import classes from './Variance.module.css';

/**
 * What the report says, in a line: drafted from its figures until somebody writes it. Each figure leads to its row; figures
 * that are others by now are said.
 */
export function MessageLine({
  message,
  drafted,
  readOnly,
  onText,
  onRow,
}: {
  readonly message: Message | null;
  readonly drafted: Drafted;
  readonly readOnly: boolean;
  /** What was written; empty: as it is drafted. */
  readonly onText: (text: string) => void;
  readonly onRow: (key: string) => void;
}) {
  const [typing, setTyping] = useState<string | null>(null);
  const text = message?.text ?? drafted.text;
  const stale = message !== null && message.draft !== '' && message.draft !== drafted.text;
  if (typing !== null) {
    const done = () => {
      const is = typing.trim();
      if (is !== text) onText(is === drafted.text ? '' : is);
      setTyping(null);
    };
    return (
      <Textarea
        autoFocus
        autosize
        minRows={1}
        mb={8}
        aria-label="What the report says"
        maxLength={LIMITS.note}
        value={typing}
        onChange={(e) => setTyping(e.currentTarget.value)}
        onBlur={done}
        onKeyDown={(e) => {
          if (e.key === 'Escape') setTyping(null);
          if (e.key === 'Enter' && !e.shiftKey) {
            e.preventDefault();
            done();
          }
        }}
      />
    );
  }
  return (
    <div className={classes.message} role="group" aria-label="Message">
      <p>
        {traced(text, drafted.figures).map((part, i) =>
          part.row === null ? (
            part.text
          ) : (
            <button key={i} type="button" onClick={() => onRow(part.row!)}>
              {part.text}
            </button>
          ),
        )}
        {stale && <i> Its figures have changed since: {drafted.text}</i>}
      </p>
      {!readOnly && (
        <span>
          <Button size="compact-xs" variant="subtle" onClick={() => setTyping(text)}>
            {text === '' ? 'Write what it says' : 'Edit'}
          </Button>
          {message !== null && drafted.text !== '' && (
            <Button size="compact-xs" variant="subtle" onClick={() => onText('')}>
              As drafted
            </Button>
          )}
        </span>
      )}
    </div>
  );
}
