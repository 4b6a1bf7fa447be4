import { minor, type Minor } from '@/core/money';
import type { ExplanationPart } from '@/core/model';

/** A variance with what its explanation says of it. */
export type Explained = {
  /** Each part with what it explains, in the order of the explanation. */
  readonly parts: readonly { readonly part: ExplanationPart; readonly amount: Minor }[];
  /** What no part explains. */
  readonly left: Minor;
  /** The parts explain more than there is, or the other way round. */
  readonly beyond: boolean;
};

/** Parts and what is left come to the difference, always: a part without an amount is all that the others leave. */
export function explain(difference: Minor, parts: readonly ExplanationPart[]): Explained {
  const said = parts.reduce((t, p) => t + (p.amount ?? 0), 0);
  const rest = minor(difference - said);
  const takesRest = parts.some((p) => p.amount === null);
  return {
    parts: parts.map((part) => ({ part, amount: part.amount ?? rest })),
    left: takesRest ? minor(0) : rest,
    beyond:
      said !== 0 && (Math.sign(said) !== Math.sign(difference) || Math.abs(said) > Math.abs(difference)),
  };
}
