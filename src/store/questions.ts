import { useEffect, useMemo, useState } from 'react';
import type { PeriodRange } from '@/core/calendar';
import type { Ground } from '@/core/ground';
import type { Book, Budget } from '@/core/model';
import type { Answers, AskOf, Question } from '@/core/whatif';
import { Cancelled } from '@/workers/client';
import { QuestionClient } from '@/workers/questions';

/* Questions about cases, asked of a worker: the page is free meanwhile, and each may be stopped. */

/** What of a book no plan follows: a change of it changes no figure. */
const BESIDE: ReadonlySet<keyof Book> = new Set(['adjustments', 'cases', 'nextId']);
const sameBook = (a: Book, b: Book): boolean =>
  a === b || (Object.keys(b) as (keyof Book)[]).every((k) => BESIDE.has(k) || a[k] === b[k]);

let steady: Ground | null = null;
/** The ground before as long as nothing of it changed but what is tried over it: then the plan is reckoned no second time. */
export function steadyGround(ground: Ground): Ground {
  const same =
    steady !== null &&
    steady.memory === ground.memory &&
    steady.blocks === ground.blocks &&
    sameBook(steady.book, ground.book);
  return same ? steady! : (steady = ground);
}

const client = new QuestionClient();

/** Ends what is reckoned of questions: nobody looks at cases any more. */
export const closeQuestions = (): void => client.close();

/** How a question fares. */
export type Asking<K extends Question['ask']> =
  | { readonly state: 'resting' }
  | { readonly state: 'asking'; readonly share: number }
  | { readonly state: 'answered'; readonly answer: Answers[K] }
  | { readonly state: 'failed'; readonly why: string };

/**
 * The answer to a question: asked anew when the plan, the months or the question itself change, and no more while it is null.
 * The same question must be the same object.
 */
export function useAnswer<K extends Question['ask']>(
  ground: Ground,
  looked: Budget | null,
  { first, last }: PeriodRange,
  question: AskOf<K> | null,
): Asking<K> {
  const still = steadyGround(ground);
  const look = looked?.id ?? null;
  const wanted = useMemo(
    () => (question === null ? null : { still, look, first, last, question }),
    [still, look, first, last, question],
  );
  const [made, setMade] = useState<{ readonly of: object; readonly is: Asking<K> } | null>(null);
  useEffect(() => {
    if (wanted === null) return;
    const stop = new AbortController();
    const tell = (is: Asking<K>) => setMade({ of: wanted, is });
    client
      .ask<K>(
        wanted.still,
        { look: wanted.look, range: { first: wanted.first, last: wanted.last } },
        wanted.question,
        stop.signal,
        (share) => tell({ state: 'asking', share }),
      )
      .then((answer) => tell({ state: 'answered', answer }))
      .catch((error: unknown) => {
        if (error instanceof Cancelled) return;
        tell({ state: 'failed', why: error instanceof Error ? error.message : String(error) });
      });
    return () => stop.abort();
  }, [wanted]);
  if (wanted === null) return { state: 'resting' };
  return made?.of === wanted ? made.is : { state: 'asking', share: 0 };
}
