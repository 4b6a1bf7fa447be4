import { cashOf, type Ground, type ShownItem } from '@/core/ground';
import { fromDayNumber, type Day } from '@/core/calendar';
import type { ReadItem } from '@/core/cash';
import { cutText, LIMITS, type ItemChange, type OpenItem, type Refusal } from '@/core/model';
import { instant } from './actions';
import { dispatch } from './bookStore';
import { recordedName } from './person';

/**
 * Takes a list of open items in, in place of the one that is in force on the sides that it speaks of. What someone decided of the ledger's own items
 * goes over to those that stand in their place.
 */
export function takeOpenItems(
  ground: Ground,
  name: string,
  sides: readonly OpenItem['side'][],
  read: readonly ReadItem[],
  day: Day | null,
): Refusal | null {
  const { book } = ground;
  const from = cutText(name, LIMITS.fileName);
  const items: OpenItem[] = [];
  const byList: Record<string, ItemChange> = {};
  const [by, at] = [recordedName(), instant()];
  read.forEach(({ said, ...item }, n) => {
    const id = `o${book.nextId + n}`;
    items.push({ ...item, from, id });
    if (said) byList[id] = { ...said, by, at };
  });
  const own = new Map<string, ItemChange>();
  for (const i of cashOf(ground, null)?.items ?? [])
    if (i.from === null && i.change) own.set(ledgerKey(i), i.change);
  const decided = Object.fromEntries(
    items.flatMap((i) => {
      const change = own.get(fileKey(i));
      return change ? [[i.id, change]] : [];
    }),
  );
  return dispatch({ type: 'takeOpenItems', from, sides, items, day, by, at, decided, byList });
}

/** An item of the ledger and one of a list are the same when all of these are. */
const ledgerKey = (i: ShownItem) => [i.side, i.counterparty, fromDayNumber(i.dated), i.open].join('\n');
const fileKey = (i: OpenItem) => [i.side, i.counterparty, i.dated, i.open].join('\n');
