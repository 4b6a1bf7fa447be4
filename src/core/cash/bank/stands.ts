import { toDayNumber, type DayNumber } from '@/core/calendar';
import { movementKey, type AccountId, type BankMovement, type Banks, type BankStatement } from '@/core/model';
import type { DayRange } from '../forecast';

/** A movement with its name and its day as a number. */
export type Movement = Omit<BankMovement, 'day'> & {
  readonly key: string;
  readonly account: AccountId;
  readonly day: DayNumber;
};

/** What a bank account holds by the bank, on the last day that is known of it. */
export type BankStand = {
  readonly account: AccountId;
  readonly day: DayNumber;
  readonly amount: number;
  /** Whether it was typed, or follows from statements (brought forward by their movements where it was typed for a day before). */
  readonly by: 'said' | 'statement';
  /** Days whose movements are known, apart from one another, in time. */
  readonly covered: readonly DayRange[];
  /** Its movements up to that day, in time. */
  readonly movements: readonly Movement[];
  /** What the bank held at the end of the closed day; null where no statement reaches back to it. */
  readonly atStart: number | null;
  /** Days after the closed day of which nothing is known. */
  readonly gaps: readonly DayRange[];
};

/** Ranges of days as one, where they meet or overlap. */
function joined(ranges: readonly DayRange[]): DayRange[] {
  const out: { from: DayNumber; to: DayNumber }[] = [];
  for (const { from, to } of [...ranges].sort((a, b) => a.from - b.from)) {
    const last = out.at(-1);
    if (last && from <= last.to + 1) last.to = Math.max(last.to, to);
    else out.push({ from, to });
  }
  return out;
}

export const isCovered = (covered: readonly DayRange[], day: DayNumber): boolean =>
  covered.some((r) => day >= r.from && day <= r.to);

/** The days between two (the first not among them) that ranges leave out. */
function leftOut(covered: readonly DayRange[], after: DayNumber, to: DayNumber): DayRange[] {
  const out: DayRange[] = [];
  let at = after + 1;
  for (const r of covered) {
    if (r.to < at) continue;
    if (r.from > to) break;
    if (r.from > at) out.push({ from: at, to: r.from - 1 });
    at = r.to + 1;
  }
  if (at <= to) out.push({ from: at, to });
  return out;
}

const rangeOf = (s: BankStatement): DayRange => ({ from: toDayNumber(s.first), to: toDayNumber(s.last) });

/**
 * What banks stand at after a closed day, by account: the latest balance that was said or that a statement closes with,
 * brought forward by movements of later days. Banks of which nothing later than the closed day is known are not among them.
 */
export function bankStands({ balances, statements }: Banks, start: DayNumber): readonly BankStand[] {
  const accounts = new Set([...balances, ...statements].map((b) => b.account));
  return [...accounts].flatMap((account) => {
    const own = statements.filter((s) => s.account === account);
    const covered = joined(own.map(rangeOf));
    const movements = own
      .flatMap((s) =>
        s.movements.map((m, n) => ({ ...m, key: movementKey(s.id, n), account, day: toDayNumber(m.day) })),
      )
      .sort((a, b) => a.day - b.day);
    const between = (after: DayNumber, to: DayNumber) =>
      movements.reduce((t, m) => (m.day > after && m.day <= to ? t + m.amount : t), 0);
    const isWhole = (after: DayNumber, to: DayNumber) => leftOut(covered, after, to).length === 0;
    const known: { day: DayNumber; amount: number; by: BankStand['by'] }[] = own.flatMap((s) => [
      ...(s.opening === null
        ? []
        : [{ day: toDayNumber(s.first) - 1, amount: s.opening, by: 'statement' as const }]),
      ...(s.closing === null
        ? []
        : [{ day: toDayNumber(s.last), amount: s.closing, by: 'statement' as const }]),
    ]);
    for (const b of balances)
      if (b.account === account) known.push({ day: toDayNumber(b.day), amount: b.amount, by: 'said' });
    if (known.length === 0) return [];
    // Of one day, what was said goes before.
    const last = known.reduce((a, b) => (b.day >= a.day ? b : a));
    const end = covered.find((r) => r.from <= last.day + 1 && r.to > last.day)?.to ?? last.day;
    if (end <= start) return [];
    const near = known
      .filter((k) => (k.day >= start ? isWhole(start, k.day) : isWhole(k.day, start)))
      .sort((a, b) => Math.abs(a.day - start) - Math.abs(b.day - start))[0];
    return [
      {
        account,
        day: end,
        amount: last.amount + between(last.day, end),
        by: end > last.day ? 'statement' : last.by,
        covered,
        movements: movements.filter((m) => m.day <= end),
        atStart:
          near === undefined
            ? null
            : near.day >= start
              ? near.amount - between(start, near.day)
              : near.amount + between(near.day, start),
        gaps: leftOut(covered, start, end),
      },
    ];
  });
}

/** What of a statement a book has not yet, and how it goes on from what is there. */
export type Joins = {
  readonly movements: readonly BankMovement[];
  readonly repeated: number;
  /** Days between the last statement before it and its first. */
  readonly gap: DayRange | null;
  /** What it opens with less what the one before closed with, where they meet. */
  readonly jump: number;
};

/**
 * How a statement joins those of its account that are there: movements of days that both tell are the same where day,
 * amount and the bank's number (else all of their words) are, each as often as it stands there.
 */
export function joins(
  read: Pick<BankStatement, 'first' | 'last' | 'opening' | 'movements'>,
  there: readonly BankStatement[],
): Joins {
  const sameness = (m: BankMovement): string =>
    [m.day, m.amount, ...(m.number ? [m.number] : [m.counterparty, m.reference, m.memo])].join('\n');
  const known = new Map<string, number>();
  for (const s of there)
    for (const m of s.movements) known.set(sameness(m), (known.get(sameness(m)) ?? 0) + 1);
  const movements = read.movements.filter((m) => {
    const left = known.get(sameness(m)) ?? 0;
    if (left > 0) known.set(sameness(m), left - 1);
    return left === 0;
  });
  const first = toDayNumber(read.first);
  const before = joined(there.map(rangeOf)).filter((r) => r.from < first);
  const to = before.at(-1)?.to ?? null;
  const meets = there.find((s) => toDayNumber(s.last) === first - 1 && s.closing !== null);
  return {
    movements,
    repeated: read.movements.length - movements.length,
    gap: to !== null && to < first - 1 ? { from: to + 1, to: first - 1 } : null,
    jump: meets && read.opening !== null ? read.opening - meets.closing! : 0,
  };
}
