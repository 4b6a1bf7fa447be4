import type { DayNumber } from '@/core/calendar';
import type { AccountId, CashSource } from '@/core/model';
import { accountFor, STAND_INS, WHAT, type RowPosting } from '@/core/schedule';
import type { ProjectionInput, ScheduledRow } from './input';
import type { Fixed } from './lineParts';
import { OWED } from './pending';
import type { PostingBuilder, Postings } from './postings';
import { type Part } from './projected';

/** A row of a schedule as it was posted, with what is owed of a tax by it. */
export type PostedRow = {
  readonly from: ScheduledRow;
  readonly part: Part;
  readonly pending: Postings;
  readonly early: Postings;
  readonly owed: Postings | null;
  readonly scheme: string | null;
  /** What was owed of a tax on payment in closed periods, and to which tax. */
  readonly pastOwed: Postings | null;
  readonly pastScheme: string | null;
};

/** The month that an event belongs to: its place among the planned ones; −1 for none. */
function monthOf({ starts, ends }: Fixed, day: DayNumber): number {
  let [low, high] = [0, ends.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (ends[middle]! < day) low = middle + 1;
    else high = middle;
  }
  return ends.length > 0 && day >= starts[low]! && day <= ends[low]! ? low : -1;
}

/** Posts what a schedule's row brings about after the start. */
export function postRow(b: Fixed, input: ProjectionInput, from: ScheduledRow): PostedRow {
  let scheme: string | null = null;
  for (const p of from.postings) {
    const of = p.owes && input.taxes.find((t) => t.id === p.owes!.scheme);
    if (of?.owed === 'net') {
      scheme = of.id;
      b.tax.add(of.on === 'payment' ? p.owes!.paid : p.day, 0, p.owes!.amount, -1, 0, p.day);
    }
    // What was paid before the start though it belongs to a month after it has been paid, if all went as planned.
    (p.day <= input.start ? b.early : b.out).add(
      p.day,
      b.table.of(p.owes ? taxAccount(input, from, p) : p.account),
      p.amount,
      monthOf(b, p.of),
      WHAT[p.what],
      p.of,
    );
  }
  const postings = b.out.take();
  const onPayment = (from.pastOwes ?? []).filter((o) => {
    const of = input.taxes.find((t) => t.id === o.scheme);
    return of?.owed === 'net' && of.on === 'payment';
  });
  (from.pending ?? []).forEach((p, i) => {
    b.pending.add(p.day, b.table.of(p.account), p.amount, -1, WHAT[p.what], p.of);
    // The tax of a purchase falls due with its payment.
    if (i % 2 === 1)
      for (const o of onPayment)
        if (o.paid === p.day && o.paid > input.start)
          b.pending.add(o.paid, OWED, o.amount, -1, WHAT.tax, o.paid);
  });
  for (const o of onPayment) if (o.paid <= input.start) b.pastTax.add(o.paid, 0, o.amount, -1, 0, o.paid);
  const pastOwed = b.pastTax.take();
  const owed = b.tax.take();
  return {
    from,
    part: { of: 'schedule', key: `schedule ${from.key}`, source: from.source, postings },
    pending: b.pending.take(),
    early: b.early.take(),
    owed: scheme === null ? null : owed,
    pastOwed: pastOwed.count > 0 ? pastOwed : null,
    pastScheme: onPayment[0]?.scheme ?? null,
    scheme,
  };
}

/** Where the tax on a purchase stands: at what is owed of it where it is had back, else it is part of the cost. */
function taxAccount(
  { taxes, accounts }: ProjectionInput,
  { cost }: ScheduledRow,
  { owes }: RowPosting,
): AccountId {
  const scheme = taxes.find((t) => t.id === owes!.scheme);
  if (scheme?.owed !== 'net') return cost ?? STAND_INS.other;
  return scheme.payable ?? accountFor(accounts, 'tax');
}

/** Where the money of a balance that is brought about belongs. */
const SOURCE_OF_KIND: Partial<Record<string, CashSource>> = {
  loan: 'loans',
  equity: 'owners',
  receivable: 'newSales',
  payable: 'newPurchases',
  taxPayable: 'taxes',
};

/**
 * What brings accounts to the closing balances that a budget says: the difference on the last day of each month, against
 * the account that was chosen. `moved`: what accounts move by period, with what was posted to this end `before`. Those that others stand against come after these, so that each closes as it was said.
 */
export function balanceParts(
  b: Fixed,
  input: ProjectionInput,
  moved: readonly (Float64Array | undefined)[],
  before: readonly Part[],
  out: PostingBuilder,
): Part[] {
  if (input.balances.length === 0) return [];
  const { ends, table } = b;
  const targets = inOrder(input.balances);
  const watched = new Map<number, Float64Array>();
  for (const { account } of targets) {
    const place = table.of(account);
    watched.set(place, moved[place]?.slice() ?? new Float64Array(ends.length));
  }
  // What was posted to the same end before is taken off: it is what is looked for.
  for (const { postings } of before) {
    const { columns, first, count } = postings;
    for (let i = first; i < first + count; i++) {
      const sums = watched.get(columns.account[i]!);
      if (sums) sums[columns.month[i]!]! -= columns.amount[i]!;
    }
  }
  const stands = new Map<number, number>();
  for (const { account } of targets) stands.set(table.of(account), input.opening.get(account) ?? 0);
  const made = new Map<string, { day: number; amount: number; month: number }[]>();
  for (let m = 0; m < ends.length; m++) {
    for (const [place, sums] of watched) stands.set(place, stands.get(place)! + sums[m]!);
    for (const { key, account, against, amounts } of targets) {
      const target = amounts[m] ?? null;
      if (target === null) continue;
      const place = table.of(account);
      const missing = target - stands.get(place)!;
      if (missing === 0) continue;
      stands.set(place, target);
      const other = table.of(against);
      if (stands.has(other)) stands.set(other, stands.get(other)! - missing);
      const list = made.get(key) ?? [];
      list.push({ day: ends[m]!, amount: missing, month: m });
      made.set(key, list);
    }
  }
  return targets.flatMap(({ key, account, against, kind }): Part[] => {
    const list = made.get(key);
    if (!list) return [];
    for (const { day, amount, month } of list) {
      out.add(day, table.of(account), amount, month, WHAT.balance, day);
      out.add(day, table.of(against), -amount, month, WHAT.balance, day);
    }
    return [
      {
        of: 'balance',
        key: `balance ${key}`,
        source: SOURCE_OF_KIND[kind] ?? 'other',
        postings: out.take(),
      },
    ];
  });
}

type Target = ProjectionInput['balances'][number];

/** Accounts before those that they stand against; in a circle the first said comes first. */
function inOrder(targets: readonly Target[]): readonly Target[] {
  const of = new Map(targets.map((t) => [t.account, t]));
  const out = new Set<Target>();
  const open = new Set<Target>();
  const put = (t: Target): void => {
    if (out.has(t) || open.has(t)) return;
    open.add(t);
    for (const other of targets) if (other.against === t.account) put(other);
    out.add(t);
  };
  for (const t of of.values()) put(t);
  return [...out];
}
