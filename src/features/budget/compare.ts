import type { Minor } from '@/core/money';
import type { Period } from '@/core/calendar';
import { lineOf, type AccountId, type Budget, type SegmentId } from '@/core/model';
import { wholeRow } from '@/core/plan';
import { budgetRows, fillStatement, rowName, rowTotal, type StatementRow } from '@/core/report';
import { reckoned, type Ground, type Reckoned, type Slots } from '@/store/derived';
import { methodBadge } from '@/store/methodWords';

/** How a line is made in either budget; of which segment, where the budgets have segments. */
export type Way = { readonly segment: string | null; readonly from: string; readonly to: string };

export type ComparedRow = {
  readonly key: string;
  readonly label: string;
  readonly code: string;
  readonly kind: StatementRow['kind'];
  readonly left: Minor | null;
  readonly right: Minor | null;
  readonly change: Minor;
  /** The change of each month that both budgets have. */
  readonly months: readonly Minor[];
  /** Where the line is made another way. */
  readonly ways: readonly Way[];
};

export type Compared = {
  readonly rows: readonly ComparedRow[];
  /** The months that both budgets have. */
  readonly months: readonly Period[];
};

/** Whether the two differ in a row: its total, any month of it, or how it is made. */
export const differs = (row: ComparedRow): boolean =>
  row.change !== 0 || row.ways.length > 0 || row.months.some((m) => m !== 0);

/**
 * Two budgets, row by row: totals of each one's own months and years, the change of every month that both have, and
 * where a line is made another way. A row with the same total may still have moved from month to month.
 */
export function compareBudgets(ground: Ground, other: Budget, budget: Budget, slots?: Slots): Compared {
  const { accounts } = ground.book;
  const [left, right] = [reckoned(ground, other, slots), reckoned(ground, budget, slots)];
  const statement = budgetRows(accounts, budget.covers === other.covers ? budget.covers : 'both');
  const [was, is] = [fill(statement, left), fill(statement, right)];
  const at = new Map(left.facts.periods.map((p, i) => [p.index, i]));
  const shared = right.facts.periods.flatMap((period, i) => {
    const before = at.get(period.index);
    return before === undefined ? [] : [{ period, before, i }];
  });
  const total = (row: StatementRow, values: readonly (Minor | null)[], { facts }: Reckoned) =>
    rowTotal(row, values.slice(0, facts.periods.length), values.slice(facts.periods.length));
  const rows = statement.map((row, r): ComparedRow => {
    const [a, b] = [total(row, was[r]!, left), total(row, is[r]!, right)];
    return {
      ...rowName(row),
      kind: row.kind,
      code: row.kind === 'line' ? row.account.code : '',
      left: a,
      right: b,
      change: lessOf(b, a),
      months: shared.map(({ before, i }) => lessOf(is[r]![i] ?? null, was[r]![before] ?? null)),
      ways: row.kind === 'line' ? waysOf(ground, other, budget, row.account.id) : [],
    };
  });
  return { rows, months: shared.map((s) => s.period) };
}

const lessOf = (a: Minor | null, b: Minor | null): Minor => ((a ?? 0) - (b ?? 0)) as Minor;

/** Months, and then what is said of whole years, of every row. */
function fill(statement: readonly StatementRow[], r: Reckoned) {
  const years = r.facts.years.length;
  return fillStatement(statement, r.facts.periods.length + years, (id) => wholeRow(r.figures(id), years));
}

function waysOf({ book }: Ground, other: Budget, budget: Budget, account: AccountId): Way[] {
  const way = (of: Budget, segment: SegmentId): string => {
    const line = lineOf(of, { account, segment });
    if (!line) return 'no line';
    return `${methodBadge(line.method)}${Object.keys(line.overrides).length > 0 ? ', typed over' : ''}`;
  };
  // Budgets of different axes have no lines in common: neither says how the other's came about.
  if (other.axis !== budget.axis) return [];
  const axis = book.axes.find((a) => a.id === budget.axis);
  const name = (s: SegmentId) => (axis ? (axis.values.find((v) => v.id === s)?.name ?? 'Unassigned') : null);
  return [...new Set([...budget.segments, ...other.segments])].flatMap((s) => {
    const [from, to] = [way(other, s), way(budget, s)];
    return from === to ? [] : [{ segment: name(s), from, to }];
  });
}
