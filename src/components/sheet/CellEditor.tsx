import { useLayoutEffect, useRef, useState } from 'react';
import classes from './Sheet.module.css';

export type Leave = 'down' | 'up' | 'right' | 'left' | 'stay';

const ARROWS: Readonly<Record<string, Leave>> = {
  ArrowUp: 'up',
  ArrowDown: 'down',
  ArrowLeft: 'left',
  ArrowRight: 'right',
};

/**
 * The field over the active cell. What is typed is its owner's, so that it is there again when the cell was scrolled
 * out of sight and back. `onCommit` gives what is wrong, or null when the value was taken.
 */
export function CellEditor({
  text,
  fresh,
  onText,
  label,
  onCommit,
  onCancel,
}: {
  readonly text: string;
  /** What is there is being typed over: arrows take it and move on. Otherwise they move within it. */
  readonly fresh: boolean;
  readonly onText: (text: string) => void;
  readonly label: string;
  readonly onCommit: (text: string, leave: Leave) => string | null;
  /** Left without taking what was typed: by Escape, or because it cannot be read. */
  readonly onCancel: (byKey: boolean) => void;
}) {
  const [trouble, setTrouble] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const settled = useRef(false);

  // Before anything is painted: a key that follows at once must find the field.
  useLayoutEffect(() => {
    const field = input.current!;
    field.focus({ preventScroll: true });
    field.setSelectionRange(field.value.length, field.value.length);
  }, []);

  const commit = (leave: Leave) => {
    // Settled first: taking the value moves the focus, and the blur that follows must not take it again.
    settled.current = true;
    const wrong = onCommit(text, leave);
    setTrouble(wrong);
    settled.current = wrong === null;
  };

  return (
    <>
      <input
        ref={input}
        className={classes.editor}
        value={text}
        aria-label={label}
        aria-invalid={trouble !== null}
        autoComplete="off"
        inputMode="decimal"
        onChange={(e) => {
          onText(e.currentTarget.value);
          setTrouble(null);
        }}
        onBlur={() => {
          // Leaving by the mouse keeps what is typed, as Enter does; what cannot be read is not kept.
          if (!settled.current && onCommit(text, 'stay') !== null) onCancel(false);
        }}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Enter') commit(e.shiftKey ? 'up' : 'down');
          else if (ARROWS[e.key] && (fresh || e.key === 'ArrowUp' || e.key === 'ArrowDown') && !e.shiftKey) {
            e.preventDefault();
            commit(ARROWS[e.key]!);
          } else if (e.key === 'Tab') {
            e.preventDefault();
            commit(e.shiftKey ? 'left' : 'right');
          } else if (e.key === 'Escape') {
            settled.current = true;
            onCancel(true);
          }
        }}
      />
      {trouble && (
        <span role="alert" className={classes.trouble}>
          {trouble}
        </span>
      )}
    </>
  );
}
