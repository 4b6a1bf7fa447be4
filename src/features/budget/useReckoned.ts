import { useMemo } from 'react';
import { lineKey, type Budget, type Line, type LineRef } from '@/core/model';
import { reckoned, type Ground, type Reckoned } from '@/store/derived';

/** A budget as it is reckoned now, and its lines by their place. */
export function useReckoned(
  ground: Ground,
  budget: Budget,
): { readonly whole: Reckoned; readonly lineOf: (ref: LineRef) => Line | undefined } {
  const whole = reckoned(ground, budget);
  const { lines } = budget;
  const table = useMemo(() => new Map(lines.map((l) => [lineKey(l), l])), [lines]);
  return { whole, lineOf: (ref) => table.get(lineKey(ref)) };
}
