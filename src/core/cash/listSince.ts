import type { DayNumber } from '@/core/calendar';
import { textAt, type LedgerBlock, type View } from '@/core/ledger';
import type { AccountId, OpenItem } from '@/core/model';
import { rowsInTime, Queue } from './matching';

/** An invoice of a list of open items. */
export type Listed = Pick<OpenItem, 'id' | 'number' | 'counterparty' | 'open'> & {
  readonly dated: DayNumber;
};

type Left = { readonly item: { readonly key: string; readonly reference: string }; left: number };

/**
 * What of a list of open items is still open at a later day, by the entries of its account since the day of the list: what
 * they paid is settled, by the number it names first, else the oldest of the same counterparty, else the only one of just
 * that amount. What they invoiced is open beside it, with what they paid of it. Entries that name neither number nor
 * counterparty (monthly totals) tell nothing of invoices, and settle none.
 *
 * @param sign +1 for receivables, whose invoices are debits, −1 for payables
 * @returns what is left by the id of an item of the list (0: settled), and by the key of the ledger's own invoice
 */
export function listSince(
  listed: readonly Listed[],
  blocks: readonly LedgerBlock[],
  view: View,
  account: AccountId,
  sign: 1 | -1,
  day: DayNumber,
  until: DayNumber,
): { readonly items: ReadonlyMap<string, number>; readonly since: ReadonlyMap<string, number> } {
  const everyone = new Queue<Left>();
  const of = new Map<string, Queue<Left>>();
  const queueOf = (counterparty: string): Queue<Left> => {
    const name = plainName(counterparty);
    let queue = of.get(name);
    if (!queue) of.set(name, (queue = new Queue()));
    return queue;
  };
  const all: Left[] = [];
  const add = (key: string, counterparty: string, reference: string, left: number): void => {
    const open: Left = { item: { key, reference: plainName(reference) }, left };
    all.push(open);
    everyone.push(open);
    if (counterparty !== '') queueOf(counterparty).push(open);
  };
  const credits = new Map<string, number>();
  for (const i of [...listed].sort((a, b) => a.dated - b.dated))
    if (i.open > 0) add(i.id, i.counterparty, i.number, i.open);
    else credits.set(i.id, i.open);
  const count = all.length;
  for (const { block, i } of rowsInTime(blocks, view, account, sign, until)) {
    if (block.day[i]! <= day) continue;
    const amount = block.amount[i]! * sign;
    const counterparty = textAt(block.texts, block.counterparty[i]!);
    const reference = textAt(block.texts, block.reference[i]!);
    if (counterparty === '' && reference === '') continue;
    if (amount >= 0) {
      add(`${block.id}:${i}`, counterparty, reference, amount);
      continue;
    }
    const named = plainName(reference);
    let left = -amount;
    if (named !== '') left = everyone.settleNamed(left, named, ignore);
    if (left > 0 && counterparty !== '') left = queueOf(counterparty).settle(left, '', ignore);
    if (left === -amount) {
      const just = all.filter((o) => o.left === left);
      if (just.length === 1) just[0]!.left = 0;
    }
  }
  return {
    items: new Map([...credits, ...all.slice(0, count).map((o) => [o.item.key, o.left] as const)]),
    since: new Map(all.slice(count).map((o) => [o.item.key, o.left])),
  };
}

const ignore = (): void => {};

/** A name or number without what two programs write differently: case, spaces, marks. */
export const plainName = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');
