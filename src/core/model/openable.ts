import type { Patch } from 'immer';
import type { Line } from './budget';
import { changeFault } from './changed';
import type { Refusal } from './refusal';
import type { Book } from './schema';
import { soundBook } from './sound';

/** What is inside a line is read on its own: no other part of the book has to agree with it. */
function insideLine({ path, op, value }: Patch, before: Book): boolean {
  if (path[0] !== 'budgets' || path[2] !== 'lines' || path.length < 4) return false;
  if (path.length > 4) return path[4] !== 'account' && path[4] !== 'segment';
  const was = before.budgets[path[1] as number]?.lines[path[3] as number];
  const now = value as Partial<Line> | undefined;
  return op === 'replace' && was?.account === now?.account && was?.segment === now?.segment;
}

/**
 * Whatever is saved must open: what a command, an undo or a journal makes is held to what opening asks. Null when it
 * would open as it is; looks only at what the patches touched, and at the whole where other parts have to agree with it.
 */
export function wouldNotOpen(before: Book, next: Book, patches: readonly Patch[]): Refusal | null {
  const fault = changeFault(before, next, patches);
  if (fault) return { code: fault.kind === 'other' ? 'notSound' : fault.kind, fault };
  if (patches.every((p) => insideLine(p, before))) return null;
  const [first] = soundBook(next).setAside;
  if (!first) return null;
  return {
    code: first.because === 'noSuchPeriod' ? 'doesNotFitCalendar' : 'notSound',
    fault: { path: first.part, message: first.name },
  };
}
