import { minor, type Minor } from '@/core/money';
import { fromDayNumber, toDayNumber, yearLength, type Period } from '@/core/calendar';
import { oddMonths, type OddMonth } from '@/core/ledger';
import type { Account, AccountId, AccountKind, Budget, Line, Method, WorkWeek } from '@/core/model';
import type { Facts } from './facts';
import { occurrenceNumbers } from '@/core/schedule';

/** What people forget in a first budget, in the order in which it is asked (common practice of the trade). */
export const FORGOTTEN = [
  'oneOffs',
  'renewals',
  'prices',
  'hires',
  'loans',
  'equipment',
  'taxes',
  'draws',
] as const;
export type Forgotten = (typeof FORGOTTEN)[number];

/** A month of last year that stands out, and what of it is beyond the account's usual month. */
export type Lump = {
  readonly period: Period;
  readonly value: Minor;
  /** How it stands out; a month with three paydays of a pay every other week is no accident. */
  readonly kind: OddMonth['kind'] | 'threePaydays';
  /** The budget's period of the same number; null when it has none. */
  readonly again: Period | null;
  /** What a budget without the lump would take out; null for the whole month. */
  readonly beyond: Minor | null;
};

export type Reminder = {
  readonly of: Forgotten;
  readonly accounts: readonly { readonly account: AccountId; readonly lumps: readonly Lump[] }[];
};

type Finder = { readonly kinds: readonly AccountKind[] | null; readonly words: RegExp | null };

const COSTS: readonly AccountKind[] = ['costOfSales', 'expense', 'otherExpense'];
const FINDERS: Record<Exclude<Forgotten, 'oneOffs'>, Finder> = {
  renewals: {
    kinds: COSTS,
    words: /insur|licen[cs]|permit|registration|subscription|membership|\bdues\b|certif|warrant|domain/i,
  },
  prices: { kinds: ['income'], words: null },
  hires: {
    kinds: COSTS,
    words: /wage|salar|payroll|\bpay\b|pension|social security|benefit|bonus|train|staff|employ/i,
  },
  loans: { kinds: null, words: /loan|interest|mortgage|financ|lease/i },
  equipment: { kinds: null, words: /equip|machine|tool|vehicle|comput|furnit|deprecia|plant\b|renew/i },
  taxes: { kinds: null, words: /\btax|\bvat\b|\bgst\b|duty|levy|rates\b/i },
  draws: { kinds: ['equity'], words: /draw|dividend|distribut|owner/i },
};

/**
 * Things that a budget made from last year easily misses, each with the accounts that it is about and the lumps and odd
 * months that the ledger has of them. Reminders about accounts that the book does not have are left out.
 */
export function remindersFor(facts: Facts, accounts: readonly Account[]): Reminder[] {
  const active = accounts.filter((a) => a.active);
  const of = (list: readonly Account[], years: 1 | 2) =>
    list.map((a) => ({ account: a.id, lumps: lumpsOf(facts, a, years) }));
  return FORGOTTEN.flatMap((code): Reminder[] => {
    if (code === 'oneOffs') {
      // A lump that came once: what comes every year, and what a name tells is renewed, is asked about elsewhere.
      const found = active.filter(
        (a) =>
          COSTS.concat('income', 'otherIncome').includes(a.kind) && !FINDERS.renewals.words!.test(a.name),
      );
      const list = of(found, 2).filter((x) => x.lumps.some((l) => l.kind === 'lump' || l.kind === 'double'));
      return list.length > 0 ? [{ of: code, accounts: list }] : [];
    }
    const { kinds, words } = FINDERS[code];
    const list = active.filter(
      (a) =>
        (kinds === null || kinds.includes(a.kind)) && (words === null || words.test(`${a.name} ${a.group}`)),
    );
    return list.length > 0 ? [{ of: code, accounts: of(list, 1) }] : [];
  });
}

const NO_MONTHS: ReadonlySet<number> = new Set();

/**
 * The months of the base year that stand out: within that year, or against two years, where what comes every year is a
 * habit and stands out no more.
 */
function lumpsOf(facts: Facts, account: Account, years: 1 | 2): Lump[] {
  if (facts.isBalance(account.id)) return [];
  const end = facts.window.at(-1)?.index;
  if (end === undefined) return [];
  const length = yearLength(facts.calendar, end) * years;
  const first = end - length + 1;
  const values = Array.from({ length }, (_, i) =>
    facts.has(first + i) ? facts.actual(account.id, null, first + i) : null,
  );
  const base = new Map(facts.window.map((p) => [p.index, p]));
  const odd = oddMonths(values);
  const span = values.map((_, i) => facts.calendar.period(first + i));
  const three = odd[0] ? threePaydays(span, values, odd[0].usual) : NO_MONTHS;
  return odd.flatMap(({ at, kind, usual }): Lump[] => {
    const period = base.get(first + at);
    const value = values[at];
    if (!period || value === null || value === undefined) return [];
    return [
      {
        period,
        value,
        kind: three.has(at) ? 'threePaydays' : kind,
        again: facts.periods.find((p) => p.number === period.number) ?? null,
        beyond: usual === 0 ? null : minor(value - usual),
      },
    ];
  });
}

/**
 * The months with three paydays among months that follow one another, if they are such: pay that comes every other week
 * falls three times in two or three months of a year (common practice of payroll), which are then half as much again as
 * the others. Some fortnight must explain all of them and none of the others; none where none does.
 */
export function threePaydays(
  periods: readonly Period[],
  values: readonly (Minor | null)[],
  usual: Minor,
): ReadonlySet<number> {
  const share = (v: Minor | null) => (usual === 0 ? 0 : (v ?? 0) / usual);
  const high = values.flatMap((v, i) => (Math.abs(share(v) - 1.5) < 0.08 ? [i] : []));
  if (high.length === 0) return new Set();
  const week: WorkWeek = { weekdays: [], holidays: [] };
  const start = toDayNumber(periods[0]!.start);
  for (let shift = 0; shift < 14; shift++) {
    const on = { of: 'weeks' as const, every: 2, from: fromDayNumber(start + shift) };
    const times = periods.map((p) => occurrenceNumbers(p, on, week).length);
    if (values.every((v, i) => v === null || (times[i] === 3) === high.includes(i))) return new Set(high);
  }
  return new Set();
}

/** A line's method with a lump left out of its basis; null when its method takes no such basis over. */
export function withoutLump(line: Line, lump: Lump): Method | null {
  const { method } = line;
  if (method.kind !== 'lastYear' || !lump.again) return null;
  return { ...method, skip: { ...method.skip, [lump.again.id]: lump.beyond } };
}

/** Whether a line leaves a lump out already. */
export const leavesOut = ({ method }: Line, lump: Lump): boolean =>
  method.kind === 'lastYear' && lump.again !== null && Object.hasOwn(method.skip, lump.again.id);

/** Whether the budget's whole income is taken over from last year without any change of prices. */
export const pricesUntouched = (budget: Budget, isIncome: (account: AccountId) => boolean): boolean =>
  budget.lines
    .filter((l) => isIncome(l.account))
    .every((l) => l.method.kind === 'lastYear' && l.method.uplift === '0' && l.method.add === 0);
