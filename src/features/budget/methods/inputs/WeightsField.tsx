'use client';

import { useState, type PointerEvent } from 'react';
import { Button, NativeSelect, TextInput } from '@mantine/core';
import type { Period } from '@/core/calendar';
import { LIMITS, type Book, type Weights } from '@/core/model';
import { NumberInput } from '@/components/MoneyInput';
import { dispatch } from '@/store/bookStore';
import { say } from '@/store/session';
import { shapedBy } from '../../drivers/driverEdits';
import { Field } from './parts';
import classes from './Weights.module.css';

const NAMED = 3;
/** The first few of a list, and how many more there are. */
const listOf = (names: readonly string[]): string =>
  names.length > NAMED
    ? `${names.slice(0, NAMED).join(', ')} and ${names.length - NAMED} more`
    : names.join(', ');

const TOP = 100;
const NEW = '+';

/** Weights that are all alike, under a name of their own. */
const evenWeights = (book: Book, periods: readonly Period[]): Weights => ({
  id: `w${book.nextId}`,
  name: `Weights ${book.weights.length + 1}`,
  weights: Array.from({ length: Math.max(12, ...periods.map((p) => p.number)) }, () => 10),
});

/** Keeps new even weights in the book, to be drawn on; their id. */
export function keepNewWeights(book: Book, periods: readonly Period[]): string {
  const weights = evenWeights(book, periods);
  dispatch({ type: 'setWeights', weights });
  return weights.id;
}

/** Named weights: chosen, drawn as bars with the mouse, typed, and kept in the book for other lines. */
export function WeightsField({
  id,
  book,
  periods,
  readOnly,
  onChoose,
}: {
  readonly id: string;
  readonly book: Book;
  readonly periods: readonly Period[];
  readonly readOnly: boolean;
  readonly onChoose: (id: string) => void;
}) {
  const kept = book.weights.find((w) => w.id === id);
  const size = Math.max(12, ...periods.map((p) => p.number));
  const weights = kept ?? evenWeights(book, periods);
  // While the mouse draws, nothing is kept yet: one stroke is one change.
  const [drawn, setDrawn] = useState<readonly number[] | null>(null);
  const list = drawn ?? weights.weights;
  const keep = (change: Partial<Weights>) =>
    dispatch({ type: 'setWeights', weights: { ...weights, id, ...change } });
  const labels = new Map(periods.map((p) => [p.number, p.tick]));
  const all = list.reduce((a, b) => a + b, 0);

  const draw = (e: PointerEvent<HTMLDivElement>) => {
    if (readOnly || e.buttons === 0) return;
    const box = e.currentTarget.getBoundingClientRect();
    const at = Math.floor(((e.clientX - box.left) / box.width) * size);
    const value = Math.round(Math.max(0, Math.min(1, 1 - (e.clientY - box.top) / box.height)) * TOP);
    if (at < 0 || at >= size || list[at] === value) return;
    setDrawn(Array.from({ length: size }, (_, i) => (i === at ? value : (list[i] ?? 0))));
  };
  const most = Math.max(TOP, ...list);
  const shaped = shapedBy(book, id);

  return (
    <div className={classes.weights}>
      <Field label="Weights">
        <NativeSelect
          value={id}
          disabled={readOnly}
          data={[
            ...book.weights.map((w) => ({ value: w.id, label: w.name })),
            ...(kept ? [] : [{ value: id, label: 'weights that are gone' }]),
            { value: NEW, label: 'new weights …' },
          ]}
          onChange={(e) =>
            onChoose(e.currentTarget.value === NEW ? keepNewWeights(book, periods) : e.currentTarget.value)
          }
        />
      </Field>
      <Field label="Name">
        <TextInput
          key={weights.name}
          defaultValue={weights.name}
          maxLength={LIMITS.weightsName}
          disabled={readOnly}
          onBlur={(e) => {
            const name = e.currentTarget.value.trim();
            if (name && name !== weights.name) keep({ name });
          }}
        />
      </Field>
      <div
        className={classes.bars}
        role="img"
        aria-label="Weights by month; draw them with the mouse, or type them below"
        onPointerDown={(e) => {
          e.preventDefault();
          e.currentTarget.setPointerCapture(e.pointerId);
          draw(e);
        }}
        onPointerMove={draw}
        onPointerUp={() => {
          if (drawn && drawn.some((w) => w > 0)) keep({ weights: [...drawn] });
          setDrawn(null);
        }}
      >
        {Array.from({ length: size }, (_, i) => (
          <span key={i} style={{ height: `${((list[i] ?? 0) / most) * 100}%` }} />
        ))}
      </div>
      <div className={classes.numbers}>
        {Array.from({ length: size }, (_, i) => (
          <div key={i}>
            <span>{labels.get(i + 1) ?? i + 1}</span>
            <NumberInput
              aria-label={`Weight of month ${i + 1}`}
              value={list[i] ?? 0}
              least={0}
              most={1_000_000}
              disabled={readOnly}
              onCommit={(w) => {
                const next = Array.from({ length: size }, (_, k) => (k === i ? w : (list[k] ?? 0)));
                if (next.some((x) => x > 0)) keep({ weights: next });
              }}
            />
          </div>
        ))}
      </div>
      <div className={classes.foot}>
        <span className="faded">
          All together {all}.{' '}
          {shaped.length === 0
            ? 'No line has them yet.'
            : `A change moves ${listOf(shaped.map((s) => `${s.name} (${s.budget})`))}.`}
        </span>
        {kept && shaped.length === 0 && (
          <Button
            disabled={readOnly}
            onClick={() => {
              dispatch({ type: 'removeWeights', weights: id });
              say(`${weights.name} are taken away. Ctrl+Z brings them back.`);
              const other = book.weights.find((w) => w.id !== id);
              if (other) onChoose(other.id);
            }}
          >
            Take them away
          </Button>
        )}
      </div>
    </div>
  );
}
