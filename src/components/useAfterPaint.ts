import { useEffect, useState } from 'react';

/** A value as it was when the screen was last painted: what is dear to draw follows the hand one frame later. */
export function useAfterPaint<T>(value: T): T {
  const [painted, setPainted] = useState(value);
  useEffect(() => {
    if (Object.is(painted, value)) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const frame = requestAnimationFrame(() => (timer = setTimeout(setPainted, 0, () => value)));
    // A page that nobody sees has no frames, and must not stay behind.
    const late = setTimeout(setPainted, LATE_MS, () => value);
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
      clearTimeout(late);
    };
  }, [painted, value]);
  return painted;
}

const LATE_MS = 300;
