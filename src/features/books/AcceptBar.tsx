'use client';

import { countText } from '@/store/format';
import { LIMITS } from '@/core/model';
import { useMemo, useState } from 'react';
import { Button, NativeSelect, TextInput } from '@mantine/core';
import type { Proof } from '@/core/intake';
import type { PeriodId } from '@/core/calendar';
import type { Ground } from '@/core/ground';
import {
  acceptGuesses,
  acceptIntake,
  acceptOnward,
  cancelIntake,
  leaveOut,
  proposedClose,
  useIntake,
  type AcceptOptions,
  type OpenIntake,
} from '@/store/intake';
import { say } from '@/store/session';
import { ChangeTable } from './ChangeTable';
import { changesBy, clashesOf, sumsHere } from './intakeCompare';
import { FAULTS } from './intakeWords';
import { count } from './words';
import classes from './Books.module.css';

/** The end of the page: what is closed with this file, what it replaces, and the one step that takes it in. */
export function AcceptBar({
  ground,
  now,
  proof,
}: {
  readonly ground: Ground;
  readonly now: OpenIntake;
  readonly proof: Proof;
}) {
  const { calendar, closedThrough } = ground;
  const { draft, busy, here } = now;
  const waiting = useIntake((s) => s.waiting.length);
  const proposed = proposedClose(ground, proof, now.pull);
  const [closed, setClosed] = useState<string | null>(null);
  const [answer, setAnswer] = useState<string | null>(null);
  const [reason, setReason] = useState('');
  const clashes = clashesOf(proof);
  const asked = clashes.length > 0;
  const empty = proof.faults.includes('nothing');
  // What the book nearly holds would be in it twice: that wants a reason, a few alike ones a second look.
  const sums = useMemo(() => sumsHere(ground, proof, now.choices), [ground, proof, now.choices]);
  const adds = answer === 'add';
  const inSums = 2 * sums.here > sums.of;
  const nearlyHere = adds && (2 * here > draft.count || inSums);
  const excused = (proof.ties && !nearlyHere) || reason.trim() !== '';
  const unsure = now.choices.filter((c) => !c.sure).length;
  const counted = (n: number) =>
    draft.mapping.shape === 'entries' ? count(n, 'entry', 'entries') : count(n, 'amount');
  // What stands in the way, said beside the button; and what is asked about once before it goes in.
  const blocks = [
    empty ? 'there is nothing in it to take in' : '',
    now.guess.doubts.includes('dates') && !now.datesSaid ? 'say above how its dates are written' : '',
    proof.twice.length > 0 ? 'a month stands twice in it' : '',
    asked && answer === null ? 'say what becomes of the source that has these days' : '',
    nearlyHere && !excused
      ? `${2 * here > draft.count ? `${countText(here)} of its ${counted(draft.count)}` : `${countText(sums.here)} of its ${count(sums.of, 'sum')} by month and account`} are in the book already and would count twice: replace the source, or give the reason why they go in again`
      : '',
    !proof.ties && !excused && !empty ? 'it does not tie: give the reason why it goes in all the same' : '',
  ].filter(Boolean);
  const asks = [
    adds && here > 0 && !nearlyHere
      ? `${countText(here)} of its ${counted(draft.count)} ${here === 1 ? 'is' : 'are'} like one in the book`
      : '',
    unsure > 0 ? `${count(unsure, 'account')} ${unsure === 1 ? 'is' : 'are'} unsure` : '',
    proof.missing.length > 0
      ? `${count(proof.missing.length, 'month')} between its first and last ${proof.missing.length === 1 ? 'is' : 'are'} not in it`
      : '',
    proof.gap.length > 0
      ? `${count(proof.gap.length, 'month')} between the book and it ${proof.gap.length === 1 ? 'stays' : 'stay'} empty`
      : '',
  ].filter(Boolean);
  const [agreed, setAgreed] = useState('');
  const question = asks.join('; ');
  const ready = !busy && blocks.length === 0;
  const close = (closed ?? proposed ?? '') as PeriodId | '';
  // What is closed now stays on offer beside the months of the file.
  const indexes = new Set([
    ...(closedThrough === null ? [] : [closedThrough]),
    ...proof.months.slice(-12).map((m) => m.period),
  ]);
  const options = [...indexes].sort((x, y) => x - y).map((i) => calendar.period(i));
  const chosen =
    answer === 'replace' ? clashes.map((s) => s.id) : clashes.some((s) => s.id === answer) ? [answer!] : [];
  const accept = async (how: (options: AcceptOptions) => Promise<string | null>) => {
    // Once: what was asked and agreed to is not asked again.
    if (question !== '' && agreed !== question) return setAgreed(question);
    if (unsure > 0) acceptGuesses();
    const trouble = await how({
      replaces: chosen,
      closedThrough: close === '' ? null : close,
      reason: proof.ties && !nearlyHere ? '' : reason,
    });
    if (trouble) say(trouble, 'trouble');
    else say(`${counted(draft.count)} taken in. Ctrl+Z takes the file out again.`);
  };

  return (
    <>
      {asked && answer !== null && (
        <Replacement ground={ground} now={now} proof={proof} replaces={chosen.join()} />
      )}
      <div className={classes.accept} role="group" aria-label="Accept">
        {asked && (
          <NativeSelect
            label={
              proof.same
                ? `This very file was taken in on ${proof.same.takenAt.slice(0, 10)}`
                : `${count(clashes.length, 'source')} in the book ${clashes.length === 1 ? 'has' : 'have'} some of these days`
            }
            value={answer ?? ''}
            onChange={(e) => setAnswer(e.currentTarget.value || null)}
            data={[
              { value: '', label: 'Choose…' },
              {
                value: 'replace',
                label: `Replace ${clashes
                  .map((s) => s.fileName)
                  .join(', ')
                  .slice(0, 60)}`,
              },
              ...(clashes.length > 1
                ? clashes.map((s) => ({ value: s.id, label: `Replace ${s.fileName} only`.slice(0, 80) }))
                : []),
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
        {((!proof.ties && !empty) || nearlyHere) && (
          <TextInput
            label={`${proof.ties ? 'It is in the book already' : `It does not tie (${proof.faults.map((f) => FAULTS[f]).join(', ')})`}. Take it in because`}
            placeholder="The reason goes to the journal"
            w={380}
            maxLength={LIMITS.reason}
            value={reason}
            onChange={(e) => setReason(e.currentTarget.value)}
          />
        )}
        <span className={classes.push} />
        {!busy && blocks.length > 0 && (
          <p className={classes.why} role="status">
            Not yet: {blocks.join('; ')}.
          </p>
        )}
        {ready && question !== '' && agreed === question && (
          <p className={classes.why} role="alert">
            {question[0]!.toUpperCase() + question.slice(1)}. Press again to take it in as it stands.
          </p>
        )}
        {waiting > 0 && (
          <Button size="sm" disabled={!ready} onClick={() => void accept(acceptOnward)}>
            Accept this and the next that tie
          </Button>
        )}
        <Button size="sm" variant="filled" disabled={!ready} onClick={() => void accept(acceptIntake)}>
          Accept {counted(draft.count)}
          {unsure > 0 ? `, ${unsure} unsure` : ''}
        </Button>
        <Button size="sm" onClick={leaveOut}>
          Leave the file out
        </Button>
        {waiting > 0 && (
          <Button size="sm" onClick={cancelIntake}>
            Stop
          </Button>
        )}
      </div>
    </>
  );
}

/**
 * What the book has now and then. Apart from the bar, since it adds up the whole ledger: not again for every letter of
 * a reason. `replaces`: ids of sources, by commas.
 */
function Replacement({
  ground,
  now: { draft, choices },
  proof,
  replaces,
}: {
  readonly ground: Ground;
  readonly now: OpenIntake;
  readonly proof: Proof;
  readonly replaces: string;
}) {
  const { accounts } = draft;
  const changes = useMemo(
    () => changesBy(ground, replaces.split(','), { proof, accounts, choices }),
    [ground, replaces, proof, accounts, choices],
  );
  return (
    <section className={classes.step} aria-label="Changes">
      <h2>What changes in the book</h2>
      <ChangeTable ground={ground} changes={changes} />
    </section>
  );
}
