'use client';

import { useMemo, useState } from 'react';
import { Button, TextInput } from '@mantine/core';
import { found } from '@/core/finding';
import { eventKey, type Event, type Movement } from '@/core/cash';
import type { CashView, Ground, TodayView } from '@/core/ground';
import { minor } from '@/core/money';
import { Dialog } from '@/components/Dialog';
import { instant } from '@/store/actions';
import { dispatch } from '@/store/bookStore';
import { causeWords, onDay } from '@/store/cashWords';
import type { MoneyFormat } from '@/store/format';
import { recordedName } from '@/store/person';
import classes from './Cash.module.css';

type Choice = {
  readonly key: string;
  readonly name: string;
  readonly why: string;
  readonly day: number;
  readonly left: number;
};
const MOST = 40;

/** Says what a movement is: something planned or open, or nothing of it; or lets it be found again. */
export function MovementDialog({
  ground,
  view,
  today,
  movement,
  money,
  onClose,
}: {
  readonly ground: Ground;
  readonly view: CashView;
  readonly today: TodayView;
  readonly movement: Movement;
  readonly money: MoneyFormat;
  readonly onClose: () => void;
}) {
  const [sought, setSought] = useState('');
  const said = ground.book.cash.banks.said[movement.key];
  const choices = useMemo(() => {
    const own = new Map<string, Choice>();
    // What it is taken for now can be chosen too.
    const mine = new Map<Event, number>();
    for (const c of today.matching.claims)
      if (c.of === 'event' && c.movement === movement) mine.set(c.event, c.amount);
    for (const [event, rest] of today.matching.left) {
      const left = rest + (mine.get(event) ?? 0);
      if (left * movement.amount <= 0) continue;
      const key = eventKey(event);
      const was = own.get(key);
      const words = was ?? causeWords(ground, view, event);
      own.set(key, {
        key,
        name: words.name,
        why: words.why,
        day: was ? Math.min(was.day, event.day) : event.day,
        left: left + (was?.left ?? 0),
      });
    }
    const far = (c: Choice) => Math.abs(c.left - movement.amount);
    return [...own.values()].sort((a, b) => far(a) - far(b) || a.day - b.day);
  }, [ground, view, today, movement]);
  const offered = found(choices, (c) => `${c.name} ${c.why}`, sought);
  const put = (as: string | null) => {
    const movements = [
      { key: movement.key, said: as === null ? null : { as, by: recordedName(), at: instant() } },
    ];
    if (!dispatch({ type: 'sayMovements', movements })) onClose();
  };
  return (
    <Dialog
      opened
      onClose={onClose}
      size="lg"
      title={`${movement.counterparty || movement.memo || 'A movement'} of ${onDay(movement.day)}, ${money.exact(minor(movement.amount))}`}
    >
      <div style={{ display: 'flex', gap: 8, marginBottom: 10 }}>
        <TextInput
          size="xs"
          style={{ flex: 1 }}
          data-autofocus
          aria-label="Find what it is"
          placeholder="Find among what is planned and open"
          value={sought}
          onChange={(e) => setSought(e.currentTarget.value)}
        />
        <Button onClick={() => put('')}>Nothing that is planned</Button>
        {said && <Button onClick={() => put(null)}>Let it be found</Button>}
      </div>
      <div
        className={classes.scroll}
        style={{ maxHeight: 340 }}
        tabIndex={0}
        role="region"
        aria-label="What it may be"
      >
        <table className={classes.table}>
          <tbody>
            {offered.slice(0, MOST).map((c) => (
              <tr key={c.key} data-chosen={said?.as === c.key}>
                <td>{c.name}</td>
                <td className="faded">{c.why}</td>
                <td>{onDay(c.day)}</td>
                <td className={classes.figure}>{money.exact(minor(c.left))}</td>
                <td>
                  <Button aria-label={`It is ${c.name} of ${onDay(c.day)}`} onClick={() => put(c.key)}>
                    This
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {offered.length === 0 && <p className="faded">Nothing in this direction is planned or open.</p>}
        {offered.length > MOST && (
          <p className="faded">{offered.length - MOST} more: say some of its words above.</p>
        )}
      </div>
    </Dialog>
  );
}
