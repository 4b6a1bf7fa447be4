/* What each of several assumptions does to an outcome. Of books nothing is known here: whoever asks says what comes out. */

/** What comes out where these assumptions hold; null where nothing is known. */
export type Ask<A> = (assumed: readonly A[]) => number | null;

export type Steps<A> = {
  /** Without any of them, and with all. */
  readonly begin: number;
  readonly end: number;
  /** One after another in the order of the list: what each adds to those before it. */
  readonly steps: readonly { readonly of: A; readonly effect: number }[];
  /** Each by itself, and what they only do together. */
  readonly alone: readonly { readonly of: A; readonly effect: number }[];
  readonly together: number;
};

/** Step by step from none of the assumptions to all, and each alone; null where an outcome is not known. */
export function stepsOf<A>(assumed: readonly A[], ask: Ask<A>): Steps<A> | null {
  const begin = ask([]);
  if (begin === null) return null;
  const steps: { of: A; effect: number }[] = [];
  const alone: { of: A; effect: number }[] = [];
  let before = begin;
  for (const [i, of] of assumed.entries()) {
    const after = ask(assumed.slice(0, i + 1));
    const own = i === 0 ? after : ask([of]);
    if (after === null || own === null) return null;
    steps.push({ of, effect: after - before });
    alone.push({ of, effect: own - begin });
    before = after;
  }
  const together = before - begin - alone.reduce((t, a) => t + a.effect, 0);
  return { begin, end: before, steps, alone, together };
}
