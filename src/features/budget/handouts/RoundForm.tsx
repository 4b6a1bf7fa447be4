'use client';

import { useState } from 'react';
import { Button, Checkbox, Group, NativeSelect, Textarea, TextInput } from '@mantine/core';
import { indexOfId, type Day } from '@/core/calendar';
import { reckoned, type Ground } from '@/core/ground';
import { LIMITS, type Budget, type Round } from '@/core/model';
import { DayInput } from '@/components/DayInput';
import { dispatch } from '@/store/bookStore';
import { recordedName } from '@/store/person';

/** A round of handouts: who asks, by when, for which months, and what those who answer see. */
export function RoundForm({
  ground,
  budget,
  round,
  onDone,
}: {
  readonly ground: Ground;
  readonly budget: Budget;
  /** Null for a new one. */
  readonly round: Round | null;
  readonly onDone: (round: string | null) => void;
}) {
  const { book, calendar, closedThrough } = ground;
  const { periods } = reckoned(ground, budget).facts;
  // Nobody is asked of months that are closed, as long as others are left.
  const open = periods.findIndex((p) => closedThrough === null || p.index > closedThrough);
  const begins = Math.max(0, open);
  const [draft, setDraft] = useState<Round>(
    () =>
      round ?? {
        id: `u${book.nextId}`,
        name: `${budget.name}, round ${book.rounds.filter((r) => r.budget === budget.id).length + 1}`,
        budget: budget.id,
        asks: recordedName(),
        address: '',
        due: null,
        message: '',
        first: periods[begins]!.id,
        length: periods.length - begins,
        answer: 'months',
        shows: { lastYear: true, draft: true, notes: false },
        handouts: [],
      },
  );
  const change = (part: Partial<Round>) => setDraft({ ...draft, ...part });
  // What is out was made for its months: they stay.
  const fixed = draft.handouts.length > 0;
  const start = periods.findIndex((p) => p.id === draft.first);
  const end = Math.min(periods.length - 1, start + draft.length - 1);
  const setSpan = (from: number, to: number) =>
    change({ first: periods[from]!.id, length: Math.max(1, to - from + 1) });
  const options = periods.map((p, i) => ({ value: String(i), label: p.label }));
  const showing = (key: keyof Round['shows'], label: string) => (
    <Checkbox
      size="xs"
      label={label}
      checked={draft.shows[key]}
      // What is out was made with it or without: an empty cell of it is read by that.
      disabled={key === 'draft' && draft.handouts.some((h) => h.sent !== null)}
      onChange={(e) => change({ shows: { ...draft.shows, [key]: e.currentTarget.checked } })}
    />
  );
  return (
    <form
      aria-label={round ? 'Round of handouts' : 'New round of handouts'}
      onSubmit={(e) => {
        e.preventDefault();
        if (indexOfId(calendar, draft.first) === null) return;
        if (!dispatch({ type: 'setRound', round: draft })) onDone(draft.id);
      }}
    >
      <TextInput
        label="Name"
        data-autofocus
        value={draft.name}
        maxLength={LIMITS.budgetName}
        onChange={(e) => change({ name: e.currentTarget.value })}
      />
      <Group gap={8} mt={6} align="end" grow>
        <TextInput
          label="Who asks"
          value={draft.asks}
          maxLength={LIMITS.person}
          onChange={(e) => change({ asks: e.currentTarget.value })}
        />
        <TextInput
          label="Address for answers"
          value={draft.address}
          maxLength={LIMITS.person}
          onChange={(e) => change({ address: e.currentTarget.value })}
        />
      </Group>
      <Group gap={8} mt={6} align="end" grow>
        <DayInput label="Due" value={draft.due as Day | null} onCommit={(due) => change({ due })} />
        <NativeSelect
          label="They answer"
          disabled={fixed}
          value={draft.answer}
          data={[
            { value: 'months', label: 'by month' },
            { value: 'whole', label: 'one amount' },
          ]}
          onChange={(e) => change({ answer: e.currentTarget.value as Round['answer'] })}
        />
      </Group>
      <Group gap={8} mt={6} align="end" grow>
        <NativeSelect
          label="From"
          disabled={fixed}
          value={String(start)}
          data={options}
          onChange={(e) =>
            setSpan(Number(e.currentTarget.value), Math.max(end, Number(e.currentTarget.value)))
          }
        />
        <NativeSelect
          label="Through"
          disabled={fixed}
          value={String(end)}
          data={options.slice(Math.max(0, start))}
          onChange={(e) => setSpan(start, Number(e.currentTarget.value))}
        />
      </Group>
      <Group gap={12} mt={10}>
        {showing('lastYear', 'They see last year')}
        {showing('draft', 'the draft')}
        {showing('notes', 'our notes')}
      </Group>
      <Textarea
        label="What you tell them"
        mt={6}
        autosize
        minRows={2}
        value={draft.message}
        maxLength={LIMITS.note}
        onChange={(e) => change({ message: e.currentTarget.value })}
      />
      <Group gap={8} mt={10}>
        <Button type="submit">{round ? 'Keep' : 'Start the round'}</Button>
        <Button onClick={() => onDone(round?.id ?? null)}>Cancel</Button>
      </Group>
    </form>
  );
}
