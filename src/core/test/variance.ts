import { minor, type Minor } from '@/core/money';
import type { PeriodId, PeriodIndex } from '@/core/calendar';
import { makeGround, type Ground } from '@/core/ground';
import { isProfitAndLoss, type Account, type Book, type Layout, type Line } from '@/core/model';
import {
  comparedWith,
  layoutReport,
  SHIPPED,
  type LayoutReport,
  type LayoutWords,
  type ReportTable,
} from '@/core/report';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  line,
  pct,
  sourceOf,
  unphased,
} from './build';

type Side = (account: Account, period: PeriodIndex) => Minor | null;

/** The words of a report in a test: keys for names. */
export const plainWords = (change: Partial<LayoutWords> = {}): LayoutWords => ({
  title: 'Variance',
  subtitle: '',
  span: (s) => s.key,
  scope: (s) => String(s),
  column: (c) => c.show,
  hint: () => '',
  used: (amount, of) => `${amount ?? 0} of ${of} used`,
  apart: 'apart',
  only: (label, periods) => `${label} of ${periods.length}`,
  lacks: (column, periods) => `${column.show} lacks ${periods.length}`,
  untold: (column) => `${column.show} tells no segments`,
  notation: 'F and U',
  came: (from) => from.map((f) => `${f.amount} from ${f.from}`).join(),
  method: (line) => line.method.kind,
  planNote: (line) => line.note?.text ?? '',
  note: (n) => n.text,
  ...change,
});

export const STANDARD: Layout = { ...SHIPPED[0]!, filter: 'all', rows: { ...SHIPPED[0]!.rows, set: 'both' } };

/** A layout's report of a ground, as the screen makes it. */
export function reportOf(
  ground: Ground,
  layout: Layout,
  month: PeriodIndex,
  chosen: string | null = null,
  words: Partial<LayoutWords> = {},
): LayoutReport {
  const compared = comparedWith(ground, month, layout, chosen);
  return layoutReport({ ground, layout, month, compared, words: plainWords(words) });
}

/**
 * A book of a year from January 2026 whose ledger has `actual` in each period up to `through` (of balance accounts: what
 * they stand at), and whose budget has `budget`, and `whole` for the year.
 */
export function groundWith({
  accounts,
  actual,
  budget,
  whole = () => null,
  through,
  change = {},
}: {
  readonly accounts: readonly Account[];
  readonly actual: Side;
  readonly budget: Side;
  readonly whole?: (account: Account) => Minor | null;
  readonly through: PeriodIndex;
  readonly change?: Partial<Book>;
}): Ground {
  const first = calendar.firstOfYear(2026);
  const periods = Array.from({ length: 12 }, (_, i) => calendar.period(first + i));
  const keeper = account('keeper', 'bank', 'Keeps every month alive');
  const all = [...accounts, keeper];
  const entries = all.flatMap((a) => {
    let stood = 0;
    return periods.flatMap((p) => {
      if (p.index > through) return [];
      if (a === keeper) return [[`${p.start.slice(0, 8)}15`, a.id, 1] as const];
      const value = actual(a, p.index);
      if (value === null) return [];
      const moved = isProfitAndLoss(a.kind) ? value : value - stood;
      stood = value;
      return [[`${p.start.slice(0, 8)}15`, a.id, moved] as const];
    });
  });
  const block = blockOf(all, entries);
  const lines = accounts.map((a) => {
    const year = whole(a);
    return line(
      a.id,
      year === null
        ? byMonth(Object.fromEntries(periods.map((p) => [p.id, budget(a, p.index)])))
        : unphased(year),
    );
  });
  return makeGround(
    bookWith(all, {
      name: 'Book',
      sources: [sourceOf()],
      closedThrough: through < first ? null : calendar.period(through).id,
      budgets: [budgetOf(lines, 'b1', { covers: 'both' })],
      ...change,
      settings: { ...bookWith([]).settings, flagAmount: minor(1), flagPercent: pct('1'), ...change.settings },
    }),
    new Map([[block.id, block]]),
  );
}

/** The standard report of such a book, without the account that only keeps its months alive. */
export function varianceTableOf({
  month,
  words,
  layout,
  ...of
}: Parameters<typeof groundWith>[0] & {
  readonly month: PeriodIndex;
  readonly layout?: Layout;
  readonly words?: Partial<LayoutWords>;
}): ReportTable {
  const ground = groundWith(of);
  const set = of.accounts.every((a) => isProfitAndLoss(a.kind)) ? 'profitAndLoss' : 'both';
  const standard = { ...STANDARD, rows: { ...STANDARD.rows, set } } as const;
  const { table } = reportOf(ground, layout ?? standard, month, null, words);
  return { ...table, rows: table.rows.filter((r) => r.account !== 'keeper') };
}

/**
 * A book whose ledger has these amounts of accounts in the months of 2025 (natural, all of whose months are closed), and
 * whose draft "Plan" has these lines for 2026.
 */
export function groundOfPlan({
  accounts,
  lastYear = () => [],
  lines,
  change = {},
}: {
  readonly accounts: readonly Account[];
  readonly lastYear?: (account: Account) => readonly (number | null)[];
  readonly lines: readonly Line[];
  readonly change?: Partial<Book>;
}): Ground {
  const entries = accounts.flatMap((a) =>
    lastYear(a).flatMap((value, i) =>
      value === null ? [] : [[`2025-${String(i + 1).padStart(2, '0')}-15`, a.id, value] as const],
    ),
  );
  const block = blockOf(accounts, entries);
  const closed =
    entries
      .map(([date]) => date.slice(0, 7))
      .sort()
      .at(-1) ?? null;
  return makeGround(
    bookWith(accounts, {
      name: 'Book',
      sources: [sourceOf()],
      closedThrough: closed as PeriodId | null,
      budgets: [budgetOf(lines, 'b1', { name: 'Plan' })],
      ...change,
    }),
    new Map([[block.id, block]]),
  );
}

/** The report of that plan: the layout that ships, with all its columns in sight, by months, quarters or years. */
export function budgetTableOf(
  of: Parameters<typeof groundOfPlan>[0],
  {
    by = 'month',
    words = {},
  }: { readonly by?: 'month' | 'quarter' | 'year'; readonly words?: Partial<LayoutWords> } = {},
): ReportTable {
  const ships = SHIPPED.find((l) => l.id === 'std-budget')!;
  const columns = ships.columns.map((c) => ({
    ...c,
    hidden: false,
    span: c.span.of === 'each' ? { ...c.span, by } : c.span,
  }));
  const ground = groundOfPlan(of);
  return reportOf(ground, { ...ships, columns }, calendar.firstOfYear(2026), 'b1', words).table;
}
