import type { Minor } from '@/core/money';
import type { Period } from '@/core/calendar';
import { lineOf, segmentName, type AccountId, type Budget, type SegmentId } from '@/core/model';
import { budgetRows, figureRows, rowName, type StatementRow } from '@/core/report';
import { reckoned, type Ground, type Reckoned } from '@/core/ground';
import { isAllTyped, lineBadge } from '@/store/methodWords';

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
export function compareBudgets(ground: Ground, other: Budget, budget: Budget): Compared {
  const { accounts } = ground.book;
  const [left, right] = [reckoned(ground, other), reckoned(ground, budget)];
  const statement = budgetRows(accounts, budget.covers === other.covers ? budget.covers : 'both');
  const [was, is] = [left, right].map((r) => figureRows(statement, r.facts, (id) => r.figures(id)));
  const at = new Map(left.facts.periods.map((p, i) => [p.index, i]));
  const shared = right.facts.periods.flatMap((period, i) => {
    const before = at.get(period.index);
    return before === undefined ? [] : [{ period, before, i }];
  });
  const rows = statement.map((row, r): ComparedRow => {
    const [a, b] = [was![r]!, is![r]!];
    return {
      ...rowName(row),
      kind: row.kind,
      code: row.kind === 'line' ? row.account.code : '',
      left: a.total,
      right: b.total,
      change: lessOf(b.total, a.total),
      months: shared.map(({ before, i }) => lessOf(b.months[i] ?? null, a.months[before] ?? null)),
      ways: row.kind === 'line' ? waysOf(ground, left, right, row.account.id) : [],
    };
  });
  return { rows, months: shared.map((s) => s.period) };
}

const lessOf = (a: Minor | null, b: Minor | null): Minor => ((a ?? 0) - (b ?? 0)) as Minor;

function waysOf({ book }: Ground, left: Reckoned, right: Reckoned, account: AccountId): Way[] {
  const [other, budget] = [left.budget, right.budget];
  const way = ({ budget: of, facts }: Reckoned, segment: SegmentId): string => {
    const line = lineOf(of, { account, segment });
    if (!line) return 'no line';
    const isPartlyTyped = Object.keys(line.overrides).length > 0 && !isAllTyped(line, facts.periods);
    return `${lineBadge(line, facts.periods)}${isPartlyTyped ? ', typed over' : ''}`;
  };
  // Budgets of different axes have no lines in common: neither says how the other's came about.
  if (other.axis !== budget.axis) return [];
  const axis = book.axes.find((a) => a.id === budget.axis);
  return [...new Set([...budget.segments, ...other.segments])].flatMap((s) => {
    const [from, to] = [way(left, s), way(right, s)];
    return from === to ? [] : [{ segment: axis ? segmentName(axis, s) : null, from, to }];
  });
}
