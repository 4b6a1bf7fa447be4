'use client';

import { useState } from 'react';
import { Button, Group, NativeSelect, TextInput } from '@mantine/core';
import type { PeriodRange } from '@/core/calendar';
import type { Ground } from '@/core/ground';
import type { Adjustment, Budget } from '@/core/model';
import { minor } from '@/core/money';
import { unitOfSize } from '@/core/scenario';
import type { AskOf, OutcomeId } from '@/core/whatif';
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
import { useAnswer } from '@/store/questions';
import { assumedWith, usualRange } from './asked';
import type { CaseLook } from './useCases';

const SOUGHT: readonly OutcomeId[] = [
  'lowBank',
  'lowAfterLine',
  'netProfit',
  'closingBank',
  'equity',
  'income',
];

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
  const [question, setQuestion] = useState<AskOf<'seek'> | null>(null);
  const asking = useAnswer(ground, looked, range, question);
  const rest = () => setQuestion(null);
  const read = ends.map((text) => readSize(what, text, book, decimals));
  const [low, high] = read.map((r) => (r.ok ? r.size : null));
  const turned = low != null && high != null && low > high;
  const begin = () => {
    if (low == null || high == null || turned) return;
    const size = sizeIn(one.case, adjustment.id);
    setQuestion({
      ask: 'seek',
      assumed: assumedWith(book, one.case, adjustment, size ?? low),
      adjustment: adjustment.id,
      outcome,
      goal,
      origin: isChange(what) ? 0 : Math.min(high, Math.max(low, size ?? low)),
      ends: [low, high],
    });
  };
  const sized = (size: number) => sizeText(what, size, book, decimals);
  const known = asking.state === 'answered' ? asking.answer : null;
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
          rest();
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
          rest();
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
              rest();
            }}
          />
        ))}
      </Group>
      {turned && <p className="faded">The range ends before it begins.</p>}
      <Group gap={8} pt={8}>
        {asking.state === 'asking' ? (
          <Button onClick={rest}>Stop ({Math.round(asking.share * 100)}%)</Button>
        ) : (
          <Button onClick={begin} disabled={low == null || high == null || turned}>
            Seek
          </Button>
        )}
        {known !== null && known.size !== null && !readOnly && (
          <Button onClick={() => onSize(known.size!)}>Put it in {one.case.name}</Button>
        )}
      </Group>
      {asking.state === 'failed' && <p className="faded">It could not be reckoned: {asking.why}</p>}
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
