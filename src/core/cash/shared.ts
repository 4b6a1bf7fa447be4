import { minor, splitByWeights } from '@/core/money';
import type { AccountId } from '@/core/model';
import { accountFor } from '@/core/schedule';
import type { ProjectionInput } from './input';
import type { LineMonths } from './lineMonths';
import type { Shared } from './rule';
import { outstanding } from './rules/daysOutstanding';
import { stockFor } from './rules/fromStock';

/*
 * Rules that fix a balance fix an account's: what stood there at the start counts, and so do all lines that go through it,
 * whichever budget they are of. What follows is shared over the lines, by what each needs in the month alone: so nothing
 * depends on how an earlier month was shared, and a month that is closed as planned changes none of it.
 */

/** A part of a line under such a rule. */
type Sharer<R> = {
  readonly key: string;
  readonly rule: R;
  readonly months: LineMonths;
  readonly part: number;
};

/** The name of a part of a line. */
export const partKey = (line: string, part: number): string => `${line} ${part}`;

type OfKind<K> = Extract<ProjectionInput['lines'][number]['terms']['parts'][number]['rule'], { kind: K }>;

/** The parts of lines under a kind of rule, by account. */
function sharersOf<K extends 'daysOutstanding' | 'fromStock'>(
  all: readonly LineMonths[],
  kind: K,
  accountOf: (rule: OfKind<K>, months: LineMonths) => AccountId,
): ReadonlyMap<AccountId, readonly Sharer<OfKind<K>>[]> {
  const out = new Map<AccountId, Sharer<OfKind<K>>[]>();
  for (const months of all)
    months.line.terms.parts.forEach(({ rule }, part) => {
      if (rule.kind !== kind) return;
      const own = rule as OfKind<K>;
      const account = accountOf(own, months);
      const list = out.get(account) ?? [];
      list.push({ key: partKey(months.line.key, part), rule: own, months, part });
      out.set(account, list);
    });
  return out;
}

/** An amount over sharers by their weights; over all alike where none weighs anything. */
const shareOut = (amount: number, weights: readonly number[]): readonly number[] =>
  amount === 0
    ? weights.map(() => 0)
    : splitByWeights(minor(amount), weights.some((w) => w > 0) ? weights : weights.map(() => 1));

/** The stock that lines take out of. */
export const stockOf = (input: Pick<ProjectionInput, 'accounts'>, rule: OfKind<'fromStock'>): AccountId =>
  rule.inventory ?? accountFor(input.accounts, 'inventory');

/**
 * What is bought into stocks, by part and place: in closed periods what the ledger tells (what the stock grew by, and what
 * was taken out of it); in planned ones what brings it to what it should hold, never less than nothing.
 */
export function purchases(
  input: ProjectionInput,
  all: readonly LineMonths[],
  out: Map<string, Shared>,
): void {
  const first = input.past.length;
  const count = first + input.periods.length;
  const groups = sharersOf(all, 'fromStock', (rule) => stockOf(input, rule));
  for (const [account, sharers] of groups) {
    const bought = sharers.map(() => new Array<number>(count).fill(0));
    let stock = input.opening.get(account) ?? 0;
    // Of the earliest closed period nothing tells what the stock was before it.
    for (let m = Math.min(1, first); m < count; m++) {
      const closed = m < first;
      const costs = sharers.map(({ months, part }) => -months.money(part, m));
      const cost = costs.reduce((a, b) => a + b, 0);
      const plans = sharers.map(({ months }) => months.plans(m));
      if (m >= first && !plans.includes(true)) continue;
      const needs = sharers.map(({ rule, months, part }, i) =>
        plans[i] ? costs[i]! + stockFor(rule, -months.ahead(part, m + 1), input.inYear[m]!) : 0,
      );
      const total = closed
        ? input.stoodAt(account, m) - input.stoodAt(account, m - 1) + cost
        : Math.max(0, needs.reduce((a, b) => a + b, 0) - stock);
      if (!closed) stock += total - cost;
      shareOut(
        total,
        needs.map((n) => Math.max(0, n)),
      ).forEach((share, i) => (bought[i]![m] = share));
    }
    sharers.forEach(({ key, months }, i) =>
      out.set(key, { amount: bought[i]!, tax: bought[i]!.map((b) => months.taxOf(-b)), taxStood: 0 }),
    );
  }
}

/** What of an account's balance should be a line's at the end of a period, and the tax beside it. */
type Standing = { readonly amount: number; readonly tax: number };

/**
 * What settles receivables and payables that should stand at so many days, by part and place. `left`: what stands there at
 * the start without days of its own, debits positive; `stood`: what stood there at the end of an earlier closed period,
 * null where other things stood there too. A payment never turns round: the balance then stays off what it should be.
 */
export function settlements(
  input: ProjectionInput,
  all: readonly LineMonths[],
  left: (account: AccountId) => number,
  stood: (account: AccountId, place: number) => number | null,
  out: Map<string, Shared>,
): void {
  const first = input.past.length;
  const count = first + input.periods.length;
  const groups = sharersOf(all, 'daysOutstanding', (rule, { open }) => rule.through ?? open);
  for (const [account, sharers] of groups) {
    const paid = sharers.map(() => ({
      amount: new Array<number>(count).fill(0),
      tax: new Array<number>(count).fill(0),
      taxStood: 0,
    }));
    const should = (m: number): Standing[] =>
      sharers.map(({ rule, months, part }) => ({
        amount: outstanding(rule, months.all(part), m, input.inYear[m] ?? 0),
        tax: outstanding(rule, months.allTax(part), m, input.inYear[m] ?? 0),
      }));
    /** The tax in all that stands: in what each line should have, and in what there is beyond it or missing, shared out. */
    const parts = (own: readonly Standing[], m: number, stands: number): { readonly tax: number }[] => {
      const weights = sharers.map(
        ({ months, part }, i) => Math.abs(m < 0 ? 0 : months.money(part, m)) + Math.abs(own[i]!.amount),
      );
      const beyond = shareOut(stands - sumOf(own), weights);
      return own.map(({ tax }, i) => ({ tax: tax + sharers[i]!.months.taxIn(beyond[i]!) }));
    };
    const standsAt = (m: number, own: readonly Standing[]): number =>
      m === first - 1 || first === 0 ? left(account) : (stood(account, m) ?? sumOf(own));
    // Of the earliest closed period nothing tells what was settled in it.
    const begin = Math.min(1, first);
    let own = should(begin - 1);
    let stands = standsAt(begin - 1, own);
    let before = parts(own, begin - 1, stands);
    for (let m = begin; m < count; m++) {
      const [last, stoodBefore] = [own, stands];
      own = should(m);
      if (m === first) paid.forEach((p, i) => (p.taxStood = before[i]!.tax));
      const made = sharers.reduce(
        (t, { months, part }) => t + months.money(part, m) + months.tax(part, m),
        0,
      );
      if (m < first) stands = standsAt(m, own);
      else {
        const due = stands + made - sumOf(own);
        stands = (stands + made < 0 ? -1 : 1) * due < 0 ? stands + made : sumOf(own);
      }
      const now = parts(own, m, stands);
      const total = stoodBefore + made - stands;
      // Who pays how much of it is by what each would settle in the usual way.
      const wants = sharers.map(
        ({ months, part }, i) =>
          wanted(last[i]!) + months.money(part, m) + months.tax(part, m) - wanted(own[i]!),
      );
      const shares = shareOut(
        total,
        wants.map((w) => Math.max(0, Math.sign(total) * w)),
      );
      sharers.forEach(({ months, part }, i) => {
        paid[i]!.amount[m] = shares[i]!;
        paid[i]!.tax[m] = before[i]!.tax + months.tax(part, m) - now[i]!.tax;
      });
      before = now;
    }
    sharers.forEach(({ key }, i) => out.set(key, paid[i]!));
  }
}

const wanted = ({ amount, tax }: Standing): number => amount + tax;
const sumOf = (all: readonly Standing[]): number => all.reduce((t, s) => t + s.amount + s.tax, 0);
