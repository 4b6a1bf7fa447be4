import { textAt } from './texts';
import type { LedgerBlock } from './block';

/** The rows of a block by journal entry: the k-th has the places `starts[k]` up to before `starts[k + 1]` of `order`. */
export type Journal = {
  readonly starts: Int32Array;
  /** Rows, entry by entry; null where they stand so already. */
  readonly order: Int32Array | null;
};

const known = new WeakMap<LedgerBlock, Journal>();

/**
 * The journal entries of a block: rows of one day and reference. Most files have them together; one that goes account by
 * account has them scattered, and is put in order. A row without a reference is an entry of its own.
 */
export function journalOf(block: LedgerBlock): Journal {
  let journal = known.get(block);
  if (!journal) known.set(block, (journal = readJournal(block)));
  return journal;
}

/** The row at a place of a journal. */
export const rowAt = ({ order }: Journal, place: number): number => (order === null ? place : order[place]!);

function readJournal(block: LedgerBlock): Journal {
  const together = runsOf(block, block.reference, null);
  if (isBalanced(block, together)) return together;
  const { day, count } = block;
  const reference = sameTexts(block);
  const order = Int32Array.from({ length: count }, (_, i) => i).sort(
    (a, b) => day[a]! - day[b]! || reference[a]! - reference[b]! || a - b,
  );
  return runsOf(block, reference, order);
}

/** References as numbers that are the same where their texts are: rows apart have places of their own in the texts. */
function sameTexts({ reference, count, texts }: LedgerBlock): Int32Array {
  const known = new Map<string, number>([['', 0]]);
  const out = new Int32Array(count);
  for (let i = 0; i < count; i++) {
    const text = textAt(texts, reference[i]!);
    let place = known.get(text);
    if (place === undefined) known.set(text, (place = known.size));
    out[i] = place;
  }
  return out;
}

function runsOf({ count, day }: LedgerBlock, reference: Int32Array, order: Int32Array | null): Journal {
  const starts = new Int32Array(count + 1);
  let n = 0;
  let before = -1;
  for (let i = 0; i < count; i++) {
    const row = order === null ? i : order[i]!;
    const same = before >= 0 && day[row] === day[before] && reference[row] === reference[before];
    if (!same || reference[row] === 0) starts[n++] = i;
    before = row;
  }
  starts[n] = count;
  return { starts: starts.slice(0, n + 1), order };
}

/** Whether most of the entries come to nothing, as entries do; rows without a reference say nothing of it. */
function isBalanced({ amount, reference }: LedgerBlock, { starts }: Journal): boolean {
  let balanced = 0;
  let all = 0;
  for (let k = 0; k < starts.length - 1; k++) {
    if (reference[starts[k]!] === 0) continue;
    let sum = 0;
    for (let i = starts[k]!; i < starts[k + 1]!; i++) sum += amount[i]!;
    all++;
    if (sum === 0) balanced++;
  }
  return 2 * balanced >= all;
}
