import { fromDayNumber, rangeLabel, type PeriodRange } from '@/core/calendar';
import { aheadOf, budgetOn, type Ground } from '@/core/ground';
import { isProfitAndLoss, natural, profitSign, type Account, type Budget } from '@/core/model';
import { minor, plus } from '@/core/money';
import type { ReportCell, ReportColumn, ReportRow, ReportTable } from '@/core/report';
import { BETTER, OUTCOME_IDS, type Outcomes } from '@/core/whatif';
import { decimalsOf, OUTCOME_WORDS, sizeIn, sizeText, whenWords } from '@/store/caseWords';
import { dayText } from '@/store/format';
import { steadyGround } from '@/store/questions';
import type { CaseLook } from './useCases';

/* What is tried over a plan as tables, for whoever reads it elsewhere: what is assumed, what it comes to, and what it moves. */

export type Shown = {
  readonly ground: Ground;
  readonly looked: Budget | null;
  readonly range: PeriodRange;
  readonly base: Outcomes | null;
  readonly cases: readonly CaseLook[];
  /** What the plan is called. */
  readonly over: string;
};

const column = (key: string, label: string, change: Partial<ReportColumn> = {}): ReportColumn => ({
  key,
  group: '',
  label,
  kind: 'text',
  of: 'note',
  formula: null,
  ...change,
});
const row = (
  key: string,
  label: string,
  cells: readonly ReportCell[],
  change: Partial<ReportRow> = {},
): ReportRow => ({
  kind: 'line',
  key,
  account: null,
  code: '',
  label,
  cells,
  terms: [],
  flagged: false,
  ...change,
});

/** The plan, each case, and each case beside the plan: money. */
function beside(cases: readonly CaseLook[], name: (c: CaseLook) => string): readonly ReportColumn[] {
  const money = (key: string, label: string, change: Partial<ReportColumn>) =>
    column(key, label, { kind: 'money', ...change });
  return [
    money('plan', 'As planned', { of: 'plan' }),
    ...cases.map((c) => money(c.case.id, name(c), { of: 'outlook' })),
    ...cases.map((c) =>
      money(`less ${c.case.id}`, name(c), {
        group: 'Beside the plan',
        of: 'difference',
        formula: { op: 'minus', left: c.case.id, right: 'plan' },
      }),
    ),
  ];
}
const amounts = (plan: number | null, own: readonly (number | null)[]): readonly ReportCell[] => [
  plan,
  ...own,
  ...own.map((v) => (v === null || plan === null ? null : v - plan)),
];

/** What is assumed in each case, how much of it, when, why and by whom. */
function assumed({ ground, cases }: Shown, head: Head): ReportTable {
  const { book, calendar } = ground;
  return {
    ...head('What is assumed'),
    columns: [
      column('when', 'When', { short: true }),
      ...cases.map((c) => column(c.case.id, c.case.name, { short: true })),
      column('why', 'Why'),
      column('by', 'By'),
      column('at', 'Said'),
    ],
    rows: book.adjustments.map((a) =>
      row(a.id, a.off ? `${a.name} (switched off)` : a.name, [
        whenWords(calendar, a),
        ...cases.map((c) => {
          const size = sizeIn(c.case, a.id);
          return size === null ? '' : sizeText(a.what, size, book, decimalsOf(book, a.what));
        }),
        a.why,
        a.by,
        dayText(a.at, book.locale),
      ]),
    ),
  };
}

/** What each case comes to, beside the plan. */
function outcomes({ base, cases, ground }: Shown, head: Head): ReportTable {
  const known = cases.map((c) => c.outcomes ?? null);
  const { calendar } = ground;
  const day = (d: number | null | undefined) => (d == null ? '' : fromDayNumber(d));
  const shown = OUTCOME_IDS.filter((id) => base?.of[id] || known.some((k) => k?.of[id]));
  return {
    ...head('What it comes to'),
    columns: [
      ...beside(cases, (c) => c.case.name),
      column('day plan', 'As planned', { group: 'On the day', short: true }),
      ...cases.map((c) => column(`day ${c.case.id}`, c.case.name, { group: 'On the day', short: true })),
    ],
    rows: [
      ...shown.map((id) =>
        row(
          id,
          OUTCOME_WORDS[id],
          [
            ...amounts(
              base?.of[id]?.amount ?? null,
              known.map((k) => k?.of[id]?.amount ?? null),
            ),
            day(base?.of[id]?.day),
            ...known.map((k) => day(k?.of[id]?.day)),
          ],
          {
            effect: BETTER[id] === 'more' ? 1 : -1,
            ...(id === 'daysUnder' ? { unit: { name: 'days', decimals: 0 } } : {}),
          },
        ),
      ),
      ...(base?.covenants ?? []).map(({ covenant }) => {
        const fares = (of: Outcomes | null) => {
          const state = of?.covenants.find((c) => c.covenant.id === covenant.id);
          if (!state || state.tested === 0) return '';
          if (state.broken !== null) return `breaks ${calendar.period(state.broken).label}`;
          return state.unknown.length > 0 ? 'not known' : 'kept';
        };
        const none = [null, ...known.flatMap(() => [null, null])];
        return row(`covenant ${covenant.id}`, covenant.name, [...none, fares(base), ...known.map(fares)]);
      }),
    ],
  };
}

/** Net profit and the bank at the end of each month. */
function byMonth({ ground: { calendar }, base, cases }: Shown, head: Head): ReportTable {
  const all = [
    { id: 'plan', name: 'As planned', of: base },
    ...cases.map((c) => ({ id: c.case.id, name: c.case.name, of: c.outcomes ?? null })),
  ];
  const group = (key: string, words: string) =>
    all.map((c) =>
      column(`${key} ${c.id}`, c.name, {
        group: words,
        kind: 'money',
        of: c.id === 'plan' ? 'plan' : 'outlook',
      }),
    );
  return {
    ...head('By month'),
    columns: [...group('profit', 'Net profit'), ...group('bank', 'Bank at the end')],
    rows: (base?.months ?? []).map(({ period }, i) =>
      row(`${period}`, calendar.period(period).label, [
        ...all.map((c) => c.of?.months[i]?.profit ?? null),
        ...all.map((c) => c.of?.months[i]?.bank ?? null),
      ]),
    ),
  };
}

/** What the cases move, account by account: over the months of profit and loss, at their end of the balance sheet. */
function moved({ ground, looked, range, cases }: Shown, head: Head): ReportTable {
  const plan = aheadOf(steadyGround(ground), looked);
  const own = cases.map((c) => aheadOf(c.ground, budgetOn(c.ground, looked)));
  const accounts = new Map<string, Account>();
  for (const a of [plan, ...own]) for (const account of a?.accounts ?? []) accounts.set(account.id, account);
  const amountOf = (of: typeof plan, { id, kind }: Account): number => {
    if (!of) return 0;
    const last = Math.min(range.last, of.last);
    if (!isProfitAndLoss(kind)) return natural(kind, minor(of.balances.balance(id, last, true)));
    let sum = 0;
    for (let p = range.first; p <= last; p++) sum = plus(sum, of.balances.movement(id, p) ?? 0);
    return natural(kind, minor(sum));
  };
  return {
    ...head('What it moves'),
    columns: beside(cases, (c) => c.case.name),
    rows: [...accounts.values()].flatMap((account) => {
      const was = amountOf(plan, account);
      const now = own.map((o) => amountOf(o, account));
      if (now.every((v) => v === was)) return [];
      const effect = isProfitAndLoss(account.kind) ? profitSign(account.kind) : 0;
      return [
        row(account.id, account.name, amounts(was, now), { account: account.id, code: account.code, effect }),
      ];
    }),
  };
}

type Head = (title: string) => Pick<ReportTable, 'title' | 'subtitle' | 'book' | 'currency'>;

/** The cases as tables: assumptions, outcomes, months, and what moves. */
export function caseTables(shown: Shown): readonly [ReportTable, ...ReportTable[]] {
  const { ground, range, over } = shown;
  const head: Head = (title) => ({
    title,
    subtitle: `${shown.cases.map((c) => c.case.name).join(', ') || 'No case'} over ${over}, ${rangeLabel(ground.calendar, range)}`,
    book: ground.book.name,
    currency: ground.book.currency,
  });
  return [assumed(shown, head), outcomes(shown, head), byMonth(shown, head), moved(shown, head)];
}
