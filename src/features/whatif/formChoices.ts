import { fromDayNumber } from '@/core/calendar';
import type { CashView, Ground } from '@/core/ground';
import { segmentName } from '@/core/model';
import { minor } from '@/core/money';
import { dayText, moneyFormat } from '@/store/format';
import { ANY, OUTSIDE, type DriverWay, type Form } from './form';

/* What the dialog offers where the book has it. */

type ShownItem = CashView['items'][number];

export const DRIVER_WAYS: readonly { readonly value: DriverWay; readonly label: string }[] = [
  { value: 'percent', label: 'so many percent more' },
  { value: 'amount', label: 'so much more each month' },
  { value: 'new', label: 'its new quantity' },
  { value: 'growth', label: 'growth, month by month' },
  { value: 'onBefore', label: 'so much on the month before' },
  { value: 'formula', label: 'a formula' },
];

/** The segments by which budgets are made; none where none is. */
export function segmentChoices({ book: { axes, budgets } }: Ground): { value: string; label: string }[] {
  const made = axes.filter((a) => budgets.some((b) => b.axis === a.id));
  return made.length === 0
    ? []
    : [
        { value: ANY, label: 'in all of them' },
        ...made.flatMap((axis) => axis.values.map((v) => ({ value: v.id, label: segmentName(axis, v.id) }))),
        { value: OUTSIDE, label: segmentName(undefined, null) },
      ];
}

/** What is open of the counterparty, each item by its number, its day and what is left of it. */
export function itemChoices(
  { book }: Ground,
  items: readonly ShownItem[],
  { side, counterparty, item }: Pick<Form, 'side' | 'counterparty' | 'item'>,
): { value: string; label: string }[] {
  const money = moneyFormat(book);
  const own = items.filter((i) => i.side === side && i.counterparty === counterparty);
  const known = own.some((i) => i.key === item) || item === '';
  return [
    ...own.map((i) => ({
      value: i.key,
      label: [i.number, dayText(fromDayNumber(i.dated), book.locale), money.text(minor(i.open))]
        .filter(Boolean)
        .join(' · '),
    })),
    ...(known ? [] : [{ value: item, label: 'an item that is no longer open' }]),
  ];
}
