import { createMemory, makeGround, type Ground } from '@/core/ground';
import type { LedgerBlock } from '@/core/ledger';
import { answering, type Answers } from '@/core/whatif';
import type { QuestionAnswer, QuestionRequest } from './protocol';

const scope = self as unknown as {
  postMessage(message: QuestionAnswer): void;
  onmessage: ((e: MessageEvent<QuestionRequest>) => void) | null;
};

/** So long is reckoned before it is looked whether somebody stopped it. */
const SLICE_MS = 40;
/** No more than so often is said how far it is. */
const TELL_MS = 100;

type Way = { readonly way: Generator<number, Answers[keyof Answers], void>; told: number };

const blocks = new Map<string, LedgerBlock>();
const memory = createMemory();
let ground: Ground | null = null;
/** Questions under way, the oldest first: each has its turn. */
const ways = new Map<number, Way>();
let goes = false;

scope.onmessage = ({ data }) => {
  switch (data.type) {
    case 'ground':
      for (const id of [...blocks.keys()]) if (!data.blocks.includes(id)) blocks.delete(id);
      for (const block of data.fresh) blocks.set(block.id, block);
      ground = makeGround(data.book, new Map(blocks), memory);
      return;
    case 'stop':
      ways.delete(data.id);
      return;
    case 'ask': {
      const { book } = ground!;
      const look = book.budgets.find((b) => b.id === data.look) ?? null;
      const asked = { ground: ground!, look, range: data.range };
      ways.set(data.id, { way: answering(asked, data.question), told: performance.now() });
      if (!goes) void go();
      return;
    }
  }
};

async function go(): Promise<void> {
  goes = true;
  while (ways.size > 0) {
    for (const [id, way] of [...ways]) if (ways.has(id)) slice(id, way);
    // What was said meanwhile comes in.
    await new Promise((resolve) => setTimeout(resolve, 0));
  }
  goes = false;
}

function slice(id: number, way: Way): void {
  try {
    const until = performance.now() + SLICE_MS;
    let next = way.way.next();
    while (!next.done && performance.now() < until) next = way.way.next();
    if (next.done) {
      ways.delete(id);
      return scope.postMessage({ id, type: 'answered', answer: next.value });
    }
    if (performance.now() - way.told > TELL_MS) {
      way.told = performance.now();
      scope.postMessage({ id, type: 'progress', share: next.value });
    }
  } catch (error) {
    ways.delete(id);
    scope.postMessage({
      id,
      type: 'failed',
      message: error instanceof Error ? error.message : String(error),
    });
  }
}
