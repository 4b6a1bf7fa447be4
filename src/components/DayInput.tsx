'use client';

import { useState } from 'react';
import { TextInput, type TextInputProps } from '@mantine/core';
import { parseIsoDay, type Day } from '@/core/calendar';

/** A field for a day, taken when it is left or Enter is pressed; blank is null. */
export function DayInput({
  value,
  onCommit,
  ...rest
}: Omit<TextInputProps, 'value' | 'onChange'> & {
  readonly value: Day | null;
  readonly onCommit: (day: Day | null) => void;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const day = draft === null || draft === '' ? null : parseIsoDay(draft);
  const bad = draft !== null && draft !== '' && (day === null || day < '1990' || day >= '2200');
  const commit = () => {
    if (draft === null || bad) return;
    setDraft(null);
    if (day !== value) onCommit(day);
  };
  return (
    <TextInput
      size="xs"
      type="date"
      {...rest}
      value={draft ?? value ?? ''}
      error={bad ? 'Not a day from 1990 to 2199' : undefined}
      onChange={(e) => setDraft(e.currentTarget.value)}
      onBlur={commit}
      onKeyDown={(e) => {
        if (e.key === 'Enter') {
          e.preventDefault();
          commit();
        }
        if (e.key === 'Escape' && draft !== null) {
          e.stopPropagation();
          setDraft(null);
        }
      }}
    />
  );
}
