'use client';

import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { Period, PeriodIndex, PeriodRange } from '@/core/calendar';
import { fiscalYearLabel } from '@/core/calendar';
import classes from './Ruler.module.css';

export type RulerProps = {
  readonly periods: readonly Period[];
  readonly closedThrough: PeriodIndex | null;
  readonly range: PeriodRange | null;
  /** `one` chooses a single month, `many` a range by dragging or with Shift. */
  readonly choose: 'one' | 'many';
  readonly onChange: (range: PeriodRange) => void;
  /** What the choice does, for the label that is read out. */
  readonly label: string;
};

/** Every month of the book: closed ones solid, open ones outlined, the selected range bracketed. */
export function Ruler({ periods, closedThrough, range, choose, onChange, label }: RulerProps) {
  const drag = useRef<PeriodIndex | null>(null);
  const first = periods[0]?.index ?? 0;
  const last = periods.at(-1)?.index ?? 0;
  // Which end of a range the keys move: the one that was reached last.
  const [end, setEnd] = useState<'first' | 'last'>('last');
  const focusIndex = range?.[end] ?? last;

  const pick = (from: PeriodIndex, to: PeriodIndex) => {
    const one = choose === 'one';
    onChange({ first: one ? to : Math.min(from, to), last: one ? to : Math.max(from, to) });
  };

  const at = (e: PointerEvent): PeriodIndex | null => {
    const index = document.elementFromPoint(e.clientX, e.clientY)?.closest<HTMLElement>('[data-period]')
      ?.dataset.period;
    return index === undefined ? null : Number(index);
  };

  const onKeyDown = (e: KeyboardEvent<HTMLDivElement>) => {
    const step = { ArrowLeft: -1, ArrowRight: 1, Home: first - focusIndex, End: last - focusIndex }[e.key];
    if (step === undefined) return;
    e.preventDefault();
    const to = Math.min(last, Math.max(first, focusIndex + step));
    const from = e.shiftKey && range ? range[end === 'first' ? 'last' : 'first'] : to;
    pick(from, to);
    setEnd(choose === 'many' && to < from ? 'first' : 'last');
    requestAnimationFrame(() =>
      (e.currentTarget ?? document).querySelector<HTMLElement>(`[data-period="${to}"]`)?.focus(),
    );
  };

  return (
    <div
      className={classes.ruler}
      role="group"
      aria-label={label}
      onKeyDown={onKeyDown}
      style={{ gridTemplateColumns: `repeat(${periods.length}, minmax(0, 1fr))` }}
      onPointerUp={() => (drag.current = null)}
      onPointerLeave={() => (drag.current = null)}
      onPointerMove={(e) => {
        const index = drag.current === null ? null : at(e);
        if (index !== null) pick(drag.current!, index);
      }}
    >
      {periods.map((p) => {
        const inside = range !== null && p.index >= range.first && p.index <= range.last;
        const closed = closedThrough !== null && p.index <= closedThrough;
        return (
          <button
            key={p.index}
            type="button"
            data-period={p.index}
            data-inside={inside || undefined}
            data-first={(inside && p.index === range.first) || undefined}
            data-last={(inside && p.index === range.last) || undefined}
            aria-pressed={inside}
            aria-label={`${p.label}, ${closed ? 'closed' : 'open'}`}
            tabIndex={p.index === Math.min(last, Math.max(first, focusIndex)) ? 0 : -1}
            className={classes.month}
            onPointerDown={(e) => {
              // The pointer must stay free to meet the months it is dragged over.
              (e.target as HTMLElement).releasePointerCapture?.(e.pointerId);
              drag.current = e.shiftKey && range ? range.first : p.index;
              pick(drag.current, p.index);
            }}
            onClick={(e) => {
              // Enter and Space come as clicks without a pointer.
              if (e.detail === 0) pick(p.index, p.index);
            }}
          >
            <span className={classes.year}>{p.number === 1 ? fiscalYearLabel(p.year) : '\u00a0'}</span>
            <span className={classes.tick}>{p.tick}</span>
            <span className={closed ? classes.closed : classes.open} />
          </button>
        );
      })}
    </div>
  );
}
