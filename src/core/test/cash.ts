import { STAND_INS, whatIn } from '@/core/schedule';
import { dayNumberOf, fromDayNumber, type DayNumber } from '@/core/calendar';
import { minor, percent } from '@/core/money';
import type { Account, Terms, TermsOf, TermsRule } from '@/core/model';
import { type PlannedLine, type Projected, type ProjectionInput } from '@/core/cash';
import { account, calendar } from './build';

/* Small plans of money for tests: from January 2026, in months. */

export const terms = (id: string, ...parts: (readonly [string, TermsRule])[]): Terms => ({
  of: { of: 'account', account: id },
  parts: parts.map(([p, rule]) => ({ percent: percent(p), rule })),
  bank: null,
  tax: null,
});

export const onAccount = (
  shares: readonly (readonly [percent: string, due: { days: number } | { months: number; day: number }])[],
  invoiced: TermsOf<'onAccount'>['invoiced'] = { of: 'monthDay', day: 31 },
): TermsOf<'onAccount'> => ({
  kind: 'onAccount',
  invoiced,
  shares: shares.map(([p, due]) => ({
    percent: percent(p),
    due: 'days' in due ? { of: 'days', ...due } : { of: 'months', ...due },
  })),
  moved: 'stays',
  badDebt: null,
  through: null,
});

export const atOnce = (on: TermsOf<'atOnce'>['on'] = { of: 'monthDay', day: 31 }): TermsOf<'atOnce'> => ({
  kind: 'atOnce',
  on,
  moved: 'stays',
});

export const planned = (
  of: Account,
  rule: TermsRule | Terms,
  amounts: readonly (number | null)[],
): PlannedLine => ({
  key: of.id,
  account: of,
  segment: null,
  terms: 'parts' in rule ? rule : terms(of.id, ['100', rule]),
  amounts: amounts.map((a) => (a === null ? null : minor(a))),
  past: [],
  ahead: amounts.map((a) => minor(a ?? 0)),
  own: null,
});

export const NEW_YEAR = dayNumberOf(2025, 12, 31);
const BOOK = [
  account('bank', 'bank'),
  account('rec', 'receivable'),
  account('pay', 'payable'),
  account('stock', 'inventory'),
  account('vat', 'taxPayable'),
];

/** A projection's input: 12 months from January 2026 unless said otherwise. */
export function projectionOf(
  lines: readonly PlannedLine[],
  change: Partial<ProjectionInput> = {},
): ProjectionInput {
  const length = Math.max(1, ...lines.map((l) => l.amounts.length));
  const first = calendar.firstOfYear(2026);
  return {
    start: NEW_YEAR,
    periods: Array.from({ length }, (_, i) => calendar.period(first + i)),
    workWeek: { weekdays: [1, 2, 3, 4, 5], holidays: [] },
    accounts: [...BOOK, ...lines.map((l) => l.account)],
    opening: new Map(),
    lines,
    scheduled: [],
    settled: [],
    balances: [],
    items: [],
    dated: [],
    taxes: [],
    past: [],
    inYear: Array.from({ length: (change.past?.length ?? 0) + (change.periods?.length ?? length) }, () => 12),
    stoodAt: () => 0,
    taxCredits: () => 0,
    bank: null,
    runOffEnd: () => NEW_YEAR + 30,
    runsOff: [],
    ...change,
  };
}

/** All postings of a projection, written out. */
export const written = ({ parts, table }: Projected) =>
  [...parts.values()].flatMap(({ key, postings: { columns: c, first, count } }) =>
    Array.from({ length: count }, (_, n) => {
      const i = first + n;
      return {
        key,
        day: c.day[i]!,
        account: table.ids[c.account[i]!]!,
        amount: c.amount[i]!,
        month: c.month[i]!,
        what: whatIn(c.what[i]!),
        since: c.from[i]!,
      };
    }),
  );

/** Money by month of 2026 (index 0 is January): what moves the banks, or another account. */
export function byMonth(projected: Projected, of: string | null = null): number[] {
  const out: number[] = [];
  for (const p of written(projected)) {
    if (of === null ? p.account !== 'bank' && p.account !== STAND_INS.bank : p.account !== of) continue;
    const [year, month] = fromDayNumber(p.day).split('-').map(Number) as [number, number];
    const place = (year - 2026) * 12 + month - 1;
    while (out.length <= place) out.push(0);
    out[place]! += p.amount;
  }
  return out;
}

export const dayText = (day: DayNumber): string => fromDayNumber(day);
