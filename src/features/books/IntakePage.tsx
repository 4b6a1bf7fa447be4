'use client';

import { Button, Progress } from '@mantine/core';
import { Trouble } from '@/components/Trouble';
import type { Ground } from '@/store/derived';
import type { Intake } from '@/store/useIntake';
import { AcceptBar } from './AcceptBar';
import { IntakeAccounts } from './IntakeAccounts';
import { IntakeProof } from './IntakeProof';
import { IntakeShape } from './IntakeShape';
import { FILE_ISSUES } from './words';
import classes from './Books.module.css';

/** A file on its way in, on one page from top to bottom: shape, accounts, proof, accept. */
export function IntakePage({
  ground,
  intake,
  onOther,
}: {
  readonly ground: Ground;
  readonly intake: Intake;
  readonly onOther: () => void;
}) {
  const { state, proof } = intake;
  switch (state.phase) {
    case 'idle':
      return null;
    case 'reading':
      return (
        <div className={classes.reading} role="status">
          <p className="title" style={{ fontSize: 20 }}>
            Reading {state.fileName}…
          </p>
          <Progress
            value={state.share * 100}
            color="ochre"
            size="md"
            aria-label="Share of the file read"
            mb="md"
          />
          <Button onClick={intake.cancel}>Stop</Button>
        </div>
      );
    case 'refused':
      return (
        <div>
          <Trouble
            title={`${state.fileName} was not taken in`}
            action={{ label: 'Choose another file…', run: onOther }}
          >
            {state.issue
              ? `It cannot be read: ${FILE_ISSUES[state.issue]}.`
              : `The reader stopped: ${state.message}.`}{' '}
            Nothing in the book has changed.
          </Trouble>
          <p style={{ textAlign: 'center' }}>
            <Button onClick={intake.cancel}>Back to the books</Button>
          </p>
        </div>
      );
    case 'open':
      return (
        <div className={classes.intake}>
          <IntakeShape ground={ground} intake={intake} state={state} />
          {state.draft && (
            <>
              <IntakeAccounts draft={state.draft} choices={state.choices} onKind={intake.setKind} />
              {proof && <IntakeProof ground={ground} draft={state.draft} proof={proof} />}
              {proof && (
                <AcceptBar
                  key={state.file.fingerprint}
                  ground={ground}
                  intake={intake}
                  draft={state.draft}
                  proof={proof}
                  busy={state.busy}
                />
              )}
            </>
          )}
        </div>
      );
  }
}
