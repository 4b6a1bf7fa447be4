'use client';

import { useEffect, useRef, useState } from 'react';
import { Button, Group, NativeSelect, TextInput } from '@mantine/core';
import { toDayNumber, type PeriodRange } from '@/core/calendar';
import { groundAssuming, lastKnown, type Ground } from '@/core/ground';
import type { Adjustment, Budget } from '@/core/model';
import { minor, unitOf } from '@/core/money';
import { assumedIn, SIZE_STEP, unitOfSize, type SizeUnit } from '@/core/scenario';
import { BETTER, outcomesOf, seek, type Answer, type OutcomeId } from '@/core/whatif';
import { MoneyInput } from '@/components/MoneyInput';
import {
  decimalsOf,
  isChange,
  OUTCOME_WORDS,
  readSize,
  sizeDraft,
  sizeIn,
  sizeText,
} from '@/store/caseWords';
import { moneyFormat } from '@/store/format';
import { steadyGround, type CaseLook } from './useCases';

const SOUGHT: readonly OutcomeId[] = [
  'lowBank',
  'lowAfterLine',
  'netProfit',
  'closingBank',
  'equity',
  'income',
];

/** Between which sizes is sought unless others are said. */
function usualRange(unit: SizeUnit, ground: Ground, range: PeriodRange): readonly [number, number] {
  const { calendar, book } = ground;
  switch (unit) {
    case 'percent':
      return [-50_000, 50_000];
    case 'money':
    case 'quantity':
      return [-10_000 * unitOf(book.currency), 10_000 * unitOf(book.currency)];
    case 'days':
      return [-30, 90];
    case 'months':
      return [-12, 12];
    case 'count':
      return [0, 1_000];
    case 'payments':
      return [1, 120];
    case 'day': {
      const first = (lastKnown(ground) ?? range.first - 1) + 1;
      return [toDayNumber(calendar.period(first).start), toDayNumber(calendar.period(range.last).end)];
    }
    case 'yes':
      return [0, 1];
  }
}

/** What size of an adjustment it would take for an outcome of a case to meet a goal, all else of the case as it is. */
export function TakesPart({
  ground,
  looked,
  range,
  adjustment,
  one,
  readOnly,
  onSize,
}: {
  readonly ground: Ground;
  readonly looked: Budget | null;
  readonly range: PeriodRange;
  readonly adjustment: Adjustment;
  readonly one: CaseLook;
  readonly readOnly: boolean;
  readonly onSize: (size: number) => void;
}) {
  const { book } = ground;
  const { what } = adjustment;
  const unit = unitOfSize(what);
  const decimals = decimalsOf(book, what);
  const money = moneyFormat(book);
  const [outcome, setOutcome] = useState<OutcomeId>('lowBank');
  const [goal, setGoal] = useState(book.cash.floor ?? minor(0));
  const [ends, setEnds] = useState(() =>
    usualRange(unit, ground, range).map((size) => sizeDraft(what, size, book, decimals)),
  );
  const [done, setDone] = useState<number | null>(null);
  const [answer, setAnswer] = useState<{
    readonly of: CaseLook;
    readonly outcome: OutcomeId;
    readonly answer: Answer;
  } | null>(null);
  const stop = useRef<() => void>(() => undefined);
  useEffect(() => () => stop.current(), []);
  const read = ends.map((text) => readSize(what, text, book, decimals));
  const [low, high] = read.map((r) => (r.ok ? r.size : null));
  const turned = low != null && high != null && low > high;
  const begin = () => {
    if (low == null || high == null || turned) return;
    const assumed = assumedIn(book, one.case);
    const ask = (size: number): number | null => {
      const all = assumed.some((a) => a.adjustment.id === adjustment.id)
        ? assumed.map((a) => (a.adjustment.id === adjustment.id ? { ...a, size } : a))
        : book.adjustments.flatMap((a) =>
            a.id === adjustment.id
              ? [{ adjustment: { ...a, off: false }, size }]
              : assumed.filter((x) => x.adjustment.id === a.id),
          );
      return (
        outcomesOf(groundAssuming(steadyGround(ground), 'sought', all), looked, range)?.of[outcome]?.amount ??
        null
      );
    };
    const way = seek({
      ask,
      goal,
      meets: BETTER[outcome] === 'more' ? 'atLeast' : 'atMost',
      origin: isChange(what) ? 0 : Math.min(high, Math.max(low, sizeIn(one.case, adjustment.id) ?? low)),
      least: low,
      most: high,
      step: SIZE_STEP[unit],
    });
    let stopped = false;
    stop.current = () => {
      stopped = true;
      setDone(null);
    };
    setDone(0);
    setAnswer(null);
    const go = () => {
      if (stopped) return;
      const until = performance.now() + SLICE_MS;
      while (performance.now() < until) {
        const next = way.next();
        if (next.done) {
          setDone(null);
          return setAnswer({ of: one, outcome, answer: next.value });
        }
        setDone(next.value);
      }
      setTimeout(go, 0);
    };
    setTimeout(go, 0);
  };
  const sized = (size: number) => sizeText(what, size, book, decimals);
  const known = answer?.of === one && answer.outcome === outcome ? answer.answer : null;
  return (
    <section aria-label="What it takes">
      <div className="label">What it takes</div>
      <NativeSelect
        size="xs"
        aria-label="Outcome that is sought"
        value={outcome}
        data={SOUGHT.filter((id) => id !== 'lowAfterLine' || book.cash.creditLine !== null).map((id) => ({
          value: id,
          label: `${OUTCOME_WORDS[id]} of at least`,
        }))}
        onChange={(e) => {
          setOutcome(e.currentTarget.value as OutcomeId);
          setAnswer(null);
        }}
      />
      <MoneyInput
        size="xs"
        mt={6}
        aria-label="Goal"
        currency={book.currency}
        locale={book.locale}
        value={goal}
        onCommit={(v) => {
          setGoal(v ?? minor(0));
          setAnswer(null);
        }}
      />
      <Group gap={6} mt={6} grow>
        {(['From', 'to'] as const).map((label, i) => (
          <TextInput
            key={label}
            size="xs"
            label={label}
            value={ends[i]}
            error={read[i]!.ok ? undefined : (read[i] as { why: string }).why}
            onChange={(e) => {
              const text = e.currentTarget.value;
              setEnds((all) => all.map((t, k) => (k === i ? text : t)));
              setAnswer(null);
            }}
          />
        ))}
      </Group>
      {turned && <p className="faded">The range ends before it begins.</p>}
      <Group gap={8} pt={8}>
        {done === null ? (
          <Button onClick={begin} disabled={low == null || high == null || turned}>
            Seek
          </Button>
        ) : (
          <Button onClick={() => stop.current()}>Stop ({Math.round(done * 100)}%)</Button>
        )}
        {known !== null && known.size !== null && !readOnly && (
          <Button onClick={() => onSize(known.size!)}>Put it in {one.case.name}</Button>
        )}
      </Group>
      {known && (
        <p role="status" style={{ margin: '8px 0 0' }}>
          {known.size === null ? (
            <>
              No size in this range does it: with {sized(low!)} it comes to{' '}
              {known.atLeast === null ? 'nothing known' : money.text(minor(known.atLeast))}, with{' '}
              {sized(high!)} to {known.atMost === null ? 'nothing known' : money.text(minor(known.atMost))}.
            </>
          ) : (
            <>
              {known.size === 0 && isChange(what) ? (
                'It holds as it is. '
              ) : (
                <>
                  <b>{sized(known.size)}</b> is the smallest change that does it.{' '}
                </>
              )}
              {known.runs
                .map((r) =>
                  r.from === r.to ? `With ${sized(r.from)}` : `From ${sized(r.from)} to ${sized(r.to)}`,
                )
                .join(', and ')
                .concat(' it holds.')}
            </>
          )}
          {known.untried > 0 &&
            ` Sizes were tried ${sized(known.untried)
              .replace(/^\+/, '')
              .replace(/ (later|earlier)$/, '')} apart, and one by one where it turns.`}
        </p>
      )}
    </section>
  );
}
const SLICE_MS = 25;
