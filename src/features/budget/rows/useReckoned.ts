import type { Budget, Line, LineRef } from '@/core/model';
import { reckoned, type Ground, type Reckoned } from '@/core/ground';

/** A budget as it is reckoned now, and its lines by their place. */
export function useReckoned(
  ground: Ground,
  budget: Budget,
): { readonly whole: Reckoned; readonly lineOf: (ref: LineRef) => Line | undefined } {
  const whole = reckoned(ground, budget);
  const { places } = whole.reckoning.lines;
  return { whole, lineOf: (ref) => whole.reckoning.lines.lineAt(places.of(ref) ?? -1) };
}
