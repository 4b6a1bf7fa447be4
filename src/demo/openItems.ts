import { fromDayNumber, toDayNumber, type Day } from '@/core/calendar';
import { matchItems } from '@/core/cash';
import type { FeedOpen } from '@/core/intake';
import { BlockBuilder, OPENING, type View } from '@/core/ledger';
import { minor, plainDecimal } from '@/core/money';
import { STOOD_OPEN, type DemoRow } from './ledger';

const VIEW: View = { merged: new Map(), keep: null };
/** The service says when its invoices and bills are due. */
const TERMS_DAYS = 30;

/** Orders and a planned sale that the service knows of: shown from the day they were agreed to the day they are invoiced. */
const AGREED = [
  ['2026-10-05', '2026-12-04', 'in', 'order', 'SO-118', 'Petrel Charters', 1_480_000, '4100'],
  ['2026-10-26', '2027-01-15', 'in', 'order', 'SO-121', 'Heron Charter Line', 2_150_000, '4100'],
  ['2026-11-17', '2027-02-12', 'in', 'order', 'SO-124', 'Egret Charters', 960_000, '4100'],
  ['2026-10-19', '2026-12-09', 'out', 'order', 'PO-77', 'Harrow Marine Supply', 685_000, '5010'],
  ['2026-11-20', '2027-01-20', 'out', 'order', 'PO-80', 'Harrow Marine Supply', 410_000, '5010'],
  ['2026-10-12', '2027-02-08', 'in', 'disposal', 'Old workboat', 'Saltmarsh Boat Sales', 620_000, '1510'],
] as const;

/** What is unpaid, ordered and to be sold at the end of a day, out of the demo ledger. */
export function openAt(rows: readonly DemoRow[], through: Day): FeedOpen {
  const end = toDayNumber(through);
  const builder = new BlockBuilder(rows.length);
  const codes = ['1200', '2010'];
  // What stood open before the ledger begins is settled first.
  [STOOD_OPEN.receivable, -STOOD_OPEN.payable].forEach((stood, account) =>
    builder.add(toDayNumber(rows[0]!.day), account, stood, 0, 0, 0, 0, OPENING),
  );
  rows.forEach((r, i) => {
    const account = codes.indexOf(r.code);
    if (account < 0 || r.day > through) return;
    builder.add(
      toDayNumber(r.day),
      account,
      r.debit - r.credit,
      i + 1,
      builder.text(r.party),
      builder.once(r.journal),
    );
  });
  const block = builder.build('feed', codes);
  const money = (cents: number) => plainDecimal(minor(cents), 'USD');
  const unpaid = codes.flatMap((code, i) =>
    matchItems([block], VIEW, code, i === 0 ? 1 : -1, end).items.map((item) => ({
      side: item.side,
      kind: 'invoice' as const,
      number: item.reference,
      counterparty: item.counterparty,
      dated: fromDayNumber(item.dated),
      due: fromDayNumber(item.dated + TERMS_DAYS),
      amount: money(item.amount),
      open: money(item.open),
      account: code,
    })),
  );
  const agreed = AGREED.filter(([from, until]) => from <= through && until > through).map(
    ([, until, side, kind, number, counterparty, cents, account]) => ({
      side,
      kind,
      number,
      counterparty,
      dated: until,
      due: fromDayNumber(toDayNumber(until as Day) + (kind === 'disposal' ? 0 : TERMS_DAYS)),
      amount: money(cents),
      open: money(cents),
      account,
    }),
  );
  return { through, items: [...unpaid, ...agreed] };
}
