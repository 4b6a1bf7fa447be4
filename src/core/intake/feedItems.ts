import * as z from 'zod/mini';
import { formed, list, text } from '@/core/bounded';
import { parseIsoDay } from '@/core/calendar';
import { minorDigits, parseAmount, type Minor } from '@/core/money';
import type { Account, OpenItem } from '@/core/model';

const amount = formed(/^-?\d{1,15}(\.\d{1,4})?$/);
const day = formed(/^\d{4}-\d{2}-\d{2}$/);

/** What is unpaid, ordered or to be sold at the feed's last closed day: `GET /feed/v1/open`. */
export const feedOpenSchema = z.object({
  /** The day that it is of. */
  through: day,
  items: list(
    z.object({
      side: z.enum(['in', 'out']),
      kind: z.enum(['invoice', 'order', 'disposal']),
      number: text(200),
      counterparty: text(300),
      dated: day,
      due: day,
      amount,
      open: amount,
      /** Code of the receivable or payable, of an order's line, or of what is sold; empty for the usual one. */
      account: text(60),
    }),
    0,
    50_000,
  ),
});

export type FeedOpen = z.infer<typeof feedOpenSchema>;

/** Items that are no items of the book are named, with why. */
export type FeedItems = {
  readonly items: readonly Omit<OpenItem, 'id'>[];
  readonly setAside: readonly {
    readonly number: string;
    readonly because: 'noSuchAccount' | 'noDay' | 'noAmount';
  }[];
};

/** The feed's open items as a book's: accounts by their codes, amounts in minor units. */
export function feedItems(
  { items }: FeedOpen,
  from: string,
  book: { readonly currency: string; readonly accounts: readonly Account[] },
): FeedItems {
  const byCode = new Map(book.accounts.flatMap((a) => (a.code ? [[a.code, a.id] as const] : [])));
  const digits = minorDigits(book.currency);
  const out: Omit<OpenItem, 'id'>[] = [];
  const setAside: FeedItems['setAside'][number][] = [];
  for (const item of items) {
    const account = item.account === '' ? null : byCode.get(item.account);
    const [dated, due] = [parseIsoDay(item.dated), parseIsoDay(item.due)];
    const [of, open] = [amountOf(item.amount, digits), amountOf(item.open, digits)];
    const aside = (because: FeedItems['setAside'][number]['because']) =>
      void setAside.push({ number: `${item.counterparty} ${item.number}`.trim(), because });
    if (account === undefined) aside('noSuchAccount');
    else if (!dated || !due || due < dated) aside('noDay');
    else if (of === null || open === null || Math.abs(open) > Math.abs(of)) aside('noAmount');
    else if (open !== 0) out.push({ ...item, account, dated, due, amount: of, open, from });
  }
  return { items: out, setAside };
}

function amountOf(text: string, digits: number): Minor | null {
  const parsed = parseAmount(text, digits, { decimal: '.', group: '' });
  return parsed.ok ? parsed.value : null;
}
