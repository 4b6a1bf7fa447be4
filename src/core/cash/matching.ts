import { minor, type Minor } from '@/core/money';
import type { DayNumber } from '@/core/calendar';
import { CLOSING, OPENING, textAt, type LedgerBlock, type View } from '@/core/ledger';
import type { AccountId } from '@/core/model';

/** An invoice or bill that the ledger shows unpaid, or paid in part. */
export type LedgerItem = {
  /** The block and the entry's place in it. */
  readonly key: string;
  readonly side: 'in' | 'out';
  readonly account: AccountId;
  readonly counterparty: string;
  readonly reference: string;
  readonly dated: DayNumber;
  readonly amount: Minor;
  readonly open: Minor;
  /** It stands for invoices from before the ledger. */
  readonly brought: boolean;
};

/** A part of an invoice that was paid so many days after it. */
export type Settled = {
  /** The block and the invoice's place in it. */
  readonly key: string;
  readonly counterparty: string;
  readonly days: number;
  readonly amount: number;
  /** When it was paid. */
  readonly paid: DayNumber;
};

export type Matched = {
  readonly items: readonly LedgerItem[];
  readonly settled: readonly Settled[];
  /** Payments that no invoice answers to: paid ahead, or for what stood open before the ledger. */
  readonly ahead: number;
};

type Open = { readonly item: LedgerItem; left: number };

/** Items in time, of which those before `head` are settled. */
export class Queue<T extends { readonly item: { readonly reference: string }; left: number }> {
  private head = 0;
  private readonly all: T[] = [];
  private readonly byReference = new Map<string, T[]>();

  get any(): boolean {
    return this.all.length > 0;
  }

  push(open: T): void {
    this.all.push(open);
    const { reference } = open.item;
    if (reference === '') return;
    const same = this.byReference.get(reference);
    if (same) same.push(open);
    else this.byReference.set(reference, [open]);
  }

  names = (reference: string): boolean => this.byReference.has(reference);

  /** Settles an amount by the items of a reference, then the oldest; what is left of it. */
  settle(amount: number, reference: string, paid: (open: T, amount: number) => void): number {
    let left = reference === '' ? amount : this.settleNamed(amount, reference, paid);
    while (left > 0 && this.head < this.all.length) {
      const open = this.all[this.head]!;
      left = take(open, left, paid);
      if (open.left === 0) this.head++;
    }
    return left;
  }

  /** Settles an amount by the items of a reference alone; what is left of it. */
  settleNamed(amount: number, reference: string, paid: (open: T, amount: number) => void): number {
    let left = amount;
    for (const open of this.byReference.get(reference) ?? []) left = take(open, left, paid);
    return left;
  }
}

/** Takes what there is of an amount off an item; what is left of the amount. */
function take<T extends { left: number }>(
  open: T,
  amount: number,
  paid: (open: T, amount: number) => void,
): number {
  const part = Math.min(amount, open.left);
  if (part > 0) {
    open.left -= part;
    paid(open, part);
  }
  return amount - part;
}

/**
 * Matches the payments on a receivable or payable to its invoices, up to a day: by the same reference first, else the oldest
 * of the counterparty (common practice); a payment of somebody who has no invoices pays the oldest of all. `sign` is +1 for
 * receivables, whose invoices are debits, −1 for payables.
 */
export function matchItems(
  blocks: readonly LedgerBlock[],
  view: View,
  account: AccountId,
  sign: 1 | -1,
  until: DayNumber,
): Matched {
  const all: Open[] = [];
  const settled: Settled[] = [];
  const of = new Map<string, Queue<Open>>();
  const everyone = new Queue<Open>();
  let ahead = 0;
  const early = new Map<string, number>();
  let opened: DayNumber | null = null;
  const rows = rowsInTime(blocks, view, account, sign, until);
  const invoiced = new Map<string, number>();
  for (const { block, i } of rows)
    if (block.amount[i]! * sign >= 0) {
      const reference = textAt(block.texts, block.reference[i]!);
      if (reference !== '') invoiced.set(reference, (invoiced.get(reference) ?? 0) + 1);
    }
  for (const { block, i } of rows) {
    const isOpening = block.mark[i] === OPENING;
    const dated = block.day[i]!;
    // The first balance brought forward stands for invoices of which nothing else is known; later ones repeat.
    if (isOpening && (opened ??= dated) !== dated) continue;
    const amount = block.amount[i]! * sign;
    const counterparty = isOpening ? '' : textAt(block.texts, block.counterparty[i]!);
    const reference = textAt(block.texts, block.reference[i]!);
    let queue = of.get(counterparty);
    if (!queue) of.set(counterparty, (queue = new Queue()));
    if (amount >= 0) {
      const open: Open = {
        item: {
          key: `${block.id}:${i}`,
          side: sign === 1 ? 'in' : 'out',
          account,
          counterparty,
          reference,
          dated,
          amount: minor(amount),
          open: minor(amount),
          brought: isOpening,
        },
        left: amount,
      };
      // What was paid before it was invoiced names the invoice.
      const before = reference === '' ? 0 : Math.min(amount, early.get(reference) ?? 0);
      if (before > 0) {
        early.set(reference, early.get(reference)! - before);
        ahead -= before;
        open.left -= before;
        if (counterparty !== '')
          settled.push({ key: open.item.key, counterparty, days: 0, amount: before, paid: dated });
      }
      if (reference !== '') invoiced.set(reference, invoiced.get(reference)! - 1);
      queue.push(open);
      everyone.push(open);
      all.push(open);
      continue;
    }
    const paid = ({ item }: Open, part: number): void => {
      if (item.counterparty !== '')
        settled.push({
          key: item.key,
          counterparty: item.counterparty,
          days: dated - item.dated,
          amount: part,
          paid: dated,
        });
    };
    // What names an invoice that comes later is paid ahead, and settles no other.
    if (!everyone.names(reference) && (invoiced.get(reference) ?? 0) > 0) {
      ahead -= amount;
      early.set(reference, (early.get(reference) ?? 0) - amount);
      continue;
    }
    const known = queue.any && counterparty !== '';
    let left = (known ? queue : everyone).settle(-amount, reference, paid);
    // What stood open before the ledger is paid by whoever has nothing else open.
    if (left > 0 && known) left = of.get('')?.settle(left, '', paid) ?? left;
    ahead += left;
  }
  return {
    // What is nobody's and has no number is no invoice, but a part of what the account stands at.
    items: all
      .filter(
        ({ left, item }) => left > 0 && (item.counterparty !== '' || item.reference !== '' || item.brought),
      )
      .map(({ item, left }) => ({ ...item, open: minor(left) })),
    settled,
    ahead,
  };
}

/** The entries of an account up to a day, in time; on one day invoices before payments. */
export function rowsInTime(
  blocks: readonly LedgerBlock[],
  view: View,
  account: AccountId,
  sign: 1 | -1,
  until: DayNumber,
): { readonly block: LedgerBlock; readonly i: number }[] {
  const rows: { block: LedgerBlock; i: number }[] = [];
  for (const block of blocks) {
    const places = new Set(
      block.accounts.flatMap((a, p) => ((view.merged.get(a) ?? a) === account ? [p] : [])),
    );
    if (places.size === 0) continue;
    for (let i = 0; i < block.count; i++)
      if (places.has(block.account[i]!) && block.day[i]! <= until && block.mark[i] !== CLOSING)
        rows.push({ block, i });
  }
  const isPayment = ({ block, i }: (typeof rows)[number]) => Number(block.amount[i]! * sign < 0);
  return rows.sort((a, b) => a.block.day[a.i]! - b.block.day[b.i]! || isPayment(a) - isPayment(b));
}

/** The day by which half of the money had come, weighted by amount; null where nothing was paid. */
export function medianDays(settled: readonly Settled[]): number | null {
  const sorted = [...settled].sort((a, b) => a.days - b.days);
  const half = sorted.reduce((t, s) => t + s.amount, 0) / 2;
  let sum = 0;
  for (const s of sorted) if ((sum += s.amount) >= half && sum > 0) return s.days;
  return null;
}

/** How fast money came, as shares after so many days. */
export type MeasuredShares = readonly { readonly percent: number; readonly days: number }[];

/** Edges of the spans that payments are told apart by: at once, within two weeks, a month, six weeks, two months, longer. */
const EDGES = [3, 14, 31, 45, 62, Infinity];

/** Settlements in shares by spans of days, each at its median day; whole percents that come to 100. */
export function sharesOf(settled: readonly Settled[]): MeasuredShares {
  const total = settled.reduce((t, s) => t + s.amount, 0);
  if (total <= 0) return [];
  const spans = EDGES.map((edge, i) =>
    settled.filter((s) => s.days <= edge && s.days > (EDGES[i - 1] ?? -Infinity)),
  );
  const found = spans
    .map((all) => ({
      share: (100 * all.reduce((t, s) => t + s.amount, 0)) / total,
      days: Math.max(0, medianDays(all) ?? 0),
    }))
    .filter(({ share }) => share > 0);
  // Shares below 5 % join the largest: what is rare is no term.
  const large = found.filter(({ share }) => share >= 5);
  const kept = large.length > 0 ? large : found;
  const sum = kept.reduce((t, s) => t + s.share, 0);
  const whole = kept.map((s) => Math.floor((100 * s.share) / sum));
  const largest = kept.reduce((at, s, i) => (s.share > kept[at]!.share ? i : at), 0);
  whole[largest]! += 100 - whole.reduce((a, b) => a + b, 0);
  return kept.map(({ days }, i) => ({ percent: whole[i]!, days }));
}
