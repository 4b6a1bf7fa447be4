'use client';

import { Button, FileButton, Group } from '@mantine/core';
import { handoutState } from '@/core/handout';
import type { Ground } from '@/core/ground';
import { lineKey, type Budget, type Handout, type Round } from '@/core/model';
import { MoneyInput } from '@/components/MoneyInput';
import stage from '@/components/Stage.module.css';
import { today } from '@/store/actions';
import { dispatch } from '@/store/bookStore';
import { dayText } from '@/store/format';
import { HANDOUT_STATE_WORDS } from '@/store/handoutWords';
import { takeReturns } from '@/store/handouts';
import { say } from '@/store/session';
import type { Day } from '@/core/calendar';
import { lineLabel } from './lineLabel';

/** One handout: its lines with what they are asked to stay within, what came back, and what can be done with it. */
export function HandoutPanel({
  ground,
  budget,
  round,
  handout,
  readOnly,
  onEdit,
  onSend,
  onReturn,
}: {
  readonly ground: Ground;
  readonly budget: Budget;
  readonly round: Round;
  readonly handout: Handout;
  readonly readOnly: boolean;
  readonly onEdit: () => void;
  readonly onSend: (reminds: boolean) => void;
  readonly onReturn: (fingerprint: string) => void;
}) {
  const { book } = ground;
  const accounts = new Map(book.accounts.map((a) => [a.id, a]));
  const axis = book.axes.find((a) => a.id === budget.axis) ?? null;
  const state = handoutState(handout, round, today() as Day);
  const put = (next: Handout | null) =>
    dispatch({
      type: 'setRound',
      round: {
        ...round,
        handouts: round.handouts.flatMap((h) => (h.id !== handout.id ? [h] : next ? [next] : [])),
      },
    });
  return (
    <>
      <h2>{handout.to}</h2>
      <div className="faded" style={{ fontSize: 12.5 }}>
        {[
          handout.address,
          HANDOUT_STATE_WORDS[state],
          handout.sent && `made ${dayText(handout.sent.slice(0, 10))}`,
          handout.reminders > 0 &&
            `reminded ${handout.reminders} ${handout.reminders === 1 ? 'time' : 'times'}`,
        ]
          .filter(Boolean)
          .join(' · ')}
      </div>
      {!readOnly && (
        <Group gap={6} mt={10}>
          <Button onClick={() => onSend(false)}>{handout.sent ? 'Make it again' : 'Make the file'}</Button>
          {handout.sent && (state === 'out' || state === 'late' || state === 'partly') && (
            <Button onClick={() => onSend(true)}>Remind</Button>
          )}
          <FileButton
            accept=".csv,.txt,.tsv,.xlsx"
            multiple
            onChange={(files) => void takeReturns(files, { round: round.id, handout: handout.id })}
            inputProps={{ 'aria-label': `A file of ${handout.to}` }}
          >
            {(props) => <Button {...props}>A file of theirs…</Button>}
          </FileButton>
        </Group>
      )}
      {handout.returns.length > 0 && (
        <section>
          <div className="label">What came back</div>
          {handout.returns.map((r) => (
            <div key={r.fingerprint} className={stage.pair}>
              <span>
                {r.fileName}
                <small className="faded" style={{ display: 'block' }}>
                  {dayText(r.at.slice(0, 10))}
                  {r.known === 'names' ? ' · known by names' : ''} · {r.fingerprint.slice(0, 8)}
                  {r.merged ? ` · in the budget since ${dayText(r.merged.slice(0, 10))}` : ''}
                </small>
              </span>
              <Button size="compact-xs" onClick={() => onReturn(r.fingerprint)}>
                {r.merged ? 'Look' : 'Compare'}
              </Button>
            </div>
          ))}
        </section>
      )}
      <section>
        <div className="label">Lines, and what to stay within</div>
        {handout.lines.map((l) => {
          const name = lineLabel(accounts.get(l.account), axis, l);
          return (
            <div key={lineKey(l)} className={stage.pair}>
              <span>{name}</span>
              <MoneyInput
                aria-label={`${name}: stay within`}
                size="xs"
                w={92}
                style={{ flex: 'none' }}
                placeholder="no limit"
                value={l.target}
                currency={book.currency}
                locale={book.locale}
                disabled={readOnly}
                onCommit={(target) =>
                  put({
                    ...handout,
                    lines: handout.lines.map((o) => (lineKey(o) === lineKey(l) ? { ...o, target } : o)),
                  })
                }
              />
            </div>
          );
        })}
      </section>
      {!readOnly && (
        <Group gap={6} mt={12}>
          <Button onClick={onEdit}>Name and address</Button>
          <Button
            c="var(--bad)"
            onClick={() => {
              if (!put(null)) say(`${handout.to} is taken off the round. Ctrl+Z brings it back.`);
            }}
          >
            Take off
          </Button>
        </Group>
      )}
    </>
  );
}
