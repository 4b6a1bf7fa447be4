'use client';

import { useState } from 'react';
import { Button, Checkbox, NativeSelect } from '@mantine/core';
import type { Draft, Proof } from '@/core/intake';
import { indexOfId, type PeriodId } from '@/core/calendar';
import type { Ground } from '@/store/derived';
import { say } from '@/store/session';
import { proposedClose, type Intake } from '@/store/useIntake';
import { count } from './words';
import classes from './Books.module.css';

/** The end of the page: what is closed with this file, what it replaces, and the one step that takes it in. */
export function AcceptBar({
  ground,
  intake,
  draft,
  proof,
  busy,
}: {
  readonly ground: Ground;
  readonly intake: Intake;
  readonly draft: Draft;
  readonly proof: Proof;
  readonly busy: boolean;
}) {
  const { calendar, book } = ground;
  const proposed = proposedClose(ground, proof);
  const [closed, setClosed] = useState<string | null>(null);
  const [replace, setReplace] = useState<string | null>(null);
  const [anyway, setAnyway] = useState(false);
  const clashes = proof.same ? [proof.same] : proof.overlapping;
  const answered = clashes.length === 0 || replace !== null;
  const ready = !busy && draft.block.count > 0 && answered && (proof.ties || anyway);
  const close = (closed ?? proposed ?? '') as PeriodId | '';
  // What is closed now stays on offer beside the months of the file.
  const now = book.closedThrough === null ? null : indexOfId(calendar, book.closedThrough);
  const indexes = new Set([...(now === null ? [] : [now]), ...proof.months.slice(-12).map((m) => m.period)]);
  const options = [...indexes].sort((x, y) => x - y).map((i) => calendar.period(i));

  const accept = () => {
    const replaces = replace === 'replace' ? clashes.map((s) => s.id) : [];
    const trouble = intake.accept(replaces, close === '' ? null : close);
    if (trouble) say(trouble, 'trouble');
    else say(`${count(draft.block.count, 'amount')} taken in. Ctrl+Z takes the file out again.`);
  };

  return (
    <div className={classes.accept}>
      {clashes.length > 0 && (
        <NativeSelect
          label={
            proof.same
              ? `This very file was taken in on ${proof.same.takenAt.slice(0, 10)}`
              : `${count(clashes.length, 'source')} in the book ${clashes.length === 1 ? 'has' : 'have'} some of these days`
          }
          value={replace ?? ''}
          onChange={(e) => setReplace(e.currentTarget.value || null)}
          data={[
            { value: '', label: 'Choose…' },
            {
              value: 'replace',
              label: `Replace ${clashes
                .map((s) => s.fileName)
                .join(', ')
                .slice(0, 60)}`,
            },
            ...(proof.same ? [] : [{ value: 'add', label: 'Add to it: the two hold different entries' }]),
          ]}
        />
      )}
      <NativeSelect
        label="Closed through"
        value={close}
        onChange={(e) => setClosed(e.currentTarget.value)}
        data={[
          { value: '', label: 'Nothing yet' },
          ...options.map((p) => ({ value: p.id as string, label: p.label })),
        ]}
      />
      {!proof.ties && draft.block.count > 0 && (
        <Checkbox
          checked={anyway}
          onChange={(e) => setAnyway(e.currentTarget.checked)}
          label={
            draft.issueCount > 0
              ? `Take it in without the ${count(new Set(draft.issues.map((i) => i.row)).size, 'row')} that cannot be read`
              : 'Take it in although it does not tie'
          }
        />
      )}
      <Button size="sm" variant="filled" disabled={!ready} onClick={accept} ml="auto">
        Accept{' '}
        {count(
          draft.block.count,
          draft.mapping.shape === 'entries' ? 'entry' : 'amount',
          draft.mapping.shape === 'entries' ? 'entries' : 'amounts',
        )}
      </Button>
      <Button size="sm" onClick={intake.cancel}>
        Leave the file out
      </Button>
    </div>
  );
}
