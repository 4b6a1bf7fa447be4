'use client';

import { useState } from 'react';
import { Button, Group, TextInput } from '@mantine/core';
import { LIMITS } from '@/core/model';
import { Dialog } from '@/components/Dialog';

/** Asks what a case is called. */
export function CaseDialog({
  name,
  onClose,
  onName,
}: {
  readonly name: string;
  readonly onClose: () => void;
  readonly onName: (name: string) => void;
}) {
  const [text, setText] = useState(name);
  return (
    <Dialog opened onClose={onClose} title={name === '' ? 'A new case' : `“${name}” under another name`}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (text.trim() !== '') onName(text.trim());
        }}
      >
        <TextInput
          label="Name"
          data-autofocus
          maxLength={LIMITS.budgetName}
          value={text}
          onChange={(e) => setText(e.currentTarget.value)}
        />
        <Group justify="flex-end" mt="md">
          <Button variant="default" onClick={onClose}>
            Leave it
          </Button>
          <Button type="submit" disabled={text.trim() === ''}>
            {name === '' ? 'Add it' : 'Name it'}
          </Button>
        </Group>
      </form>
    </Dialog>
  );
}
