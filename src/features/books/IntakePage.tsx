'use client';

import { useDeferredValue } from 'react';
import { Button, Progress } from '@mantine/core';
import { Trouble } from '@/components/Trouble';
import type { Ground } from '@/core/ground';
import { cancelIntake, leaveOut, useIntake, type OpenIntake } from '@/store/intake';
import { AcceptBar } from './AcceptBar';
import { IntakeAccounts } from './IntakeAccounts';
import { IntakeProof } from './IntakeProof';
import { IntakeShape } from './IntakeShape';
import { useSteps } from './useSteps';
import { FILE_ISSUES } from '@/store/fileIssueWords';
import { count } from './words';
import classes from './Books.module.css';

/** A file on its way in, on one page from top to bottom: shape, accounts, proof, accept. */
export function IntakePage({ ground, onOther }: { readonly ground: Ground; readonly onOther: () => void }) {
  const { now, waiting, taken } = useIntake();
  switch (now.phase) {
    case 'idle':
      return null;
    case 'reading':
      return (
        <div className={classes.reading} role="status">
          <p className="title" style={{ fontSize: 20 }}>
            Reading {now.fileName}…
          </p>
          <Progress
            value={now.share * 100}
            color="ochre"
            size="md"
            aria-label="Share of the file read"
            mb="md"
          />
          <Button onClick={cancelIntake}>Stop</Button>
        </div>
      );
    case 'refused':
      return (
        <div>
          <Trouble
            title={`${now.fileName} was not taken in`}
            action={{ label: 'Choose another file…', run: onOther }}
          >
            {now.issue
              ? `It cannot be read: ${FILE_ISSUES[now.issue.code]}${now.issue.line ? ` (line ${now.issue.line})` : ''}${now.issue.encoding ? ` (${now.issue.encoding})` : ''}.`
              : `The reader stopped: ${now.message}.`}{' '}
            Nothing in the book has changed.
          </Trouble>
          <p className={classes.centered}>
            {waiting.length > 0 && <Button onClick={leaveOut}>Go on with {waiting[0]!.name}</Button>}{' '}
            <Button onClick={cancelIntake}>Back to the books</Button>
          </p>
        </div>
      );
    case 'open':
      return (
        <OpenPage key={now.file.fingerprint} ground={ground} now={now} waiting={waiting} taken={taken} />
      );
  }
}

function OpenPage({
  ground,
  now,
  waiting,
  taken,
}: {
  readonly ground: Ground;
  readonly now: OpenIntake;
  readonly waiting: readonly File[];
  readonly taken: readonly string[];
}) {
  // What came out of a large file takes long to draw and to lay out: part by part, the page stays usable meanwhile.
  const step = useSteps(3);
  return (
    <div className={classes.intake} data-busy={now.busy || undefined}>
      {(waiting.length > 0 || taken.length > 0) && (
        <p className={classes.queue} role="status">
          {taken.length > 0 && `${count(taken.length, 'file')} taken in. `}
          {waiting.length > 0 &&
            `After this one: ${waiting
              .slice(0, 4)
              .map((f) => f.name)
              .join(', ')}${waiting.length > 4 ? ` and ${waiting.length - 4} more` : ''}.`}
        </p>
      )}
      {step >= 1 && <IntakeShape ground={ground} now={now} />}
      {step >= 2 && <Results ground={ground} now={now} proved={step >= 3} />}
      {step >= 3 && now.proof && (
        <AcceptBar key={now.file.fingerprint} ground={ground} now={now} proof={now.proof} />
      )}
    </div>
  );
}

/** The accounts and the proof: they come after the shape, and follow what is changed there. */
function Results({
  ground,
  now,
  proved,
}: {
  readonly ground: Ground;
  readonly now: OpenIntake;
  readonly proved: boolean;
}) {
  const later = useDeferredValue<OpenIntake | null>(now, null);
  if (!later) return null;
  return (
    <>
      <IntakeAccounts
        key={`${later.file.fingerprint}-${later.draft.accounts.length}-${later.mapping.shape}`}
        now={later}
        accounts={ground.book.accounts}
      />
      {proved && later.proof && <IntakeProof ground={ground} now={later} proof={later.proof} />}
    </>
  );
}
