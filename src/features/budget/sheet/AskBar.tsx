'use client';

import { useState } from 'react';
import { Button, TextInput } from '@mantine/core';
import type { Ask } from '../edit/commands';
import classes from '../Budget.module.css';

/** Asks a tool's one question above the sheet; Enter does it, Escape leaves it. */
export function AskBar({
  ask,
  onText,
  onClose,
}: {
  readonly ask: Ask;
  /** What is wrong with the text, or null when it was taken. */
  readonly onText: (text: string) => string | null;
  readonly onClose: () => void;
}) {
  const [text, setText] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  return (
    <form
      className={classes.ask}
      onSubmit={(e) => {
        e.preventDefault();
        setTrouble(onText(text));
      }}
    >
      <label htmlFor="tool-ask">{ask.label}</label>
      <TextInput
        id="tool-ask"
        autoFocus
        w={130}
        value={text}
        autoComplete="off"
        inputMode="decimal"
        onChange={(e) => {
          setText(e.currentTarget.value);
          setTrouble(null);
        }}
        onKeyDown={(e) => e.key === 'Escape' && onClose()}
      />
      <Button type="submit" variant="filled">
        Do it
      </Button>
      <Button onClick={onClose}>Leave it</Button>
      <span className={trouble ? classes.trouble : 'faded'} role={trouble ? 'alert' : undefined}>
        {trouble ?? ask.hint}
      </span>
    </form>
  );
}
