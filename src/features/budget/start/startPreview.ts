import { percent, type Minor } from '@/core/money';
import type { Budget } from '@/core/model';
import { startLines, type StartChoice } from '@/core/plan';
import { budgetRows, fillStatement, rowTotal, type StatementRow } from '@/core/report';
import { aside, lastYearOf, reckoned, type Ground, type Memory } from '@/core/ground';

/** What a start would come to, row by row of the statement, beside what it starts from. */
export type StartPreview = {
  readonly rows: readonly {
    readonly row: StatementRow;
    readonly before: Minor | null;
    readonly plan: Minor | null;
  }[];
  /** What stands before it: a year of the ledger, the outlook of a budget, or the budget itself. */
  readonly beside: 'lastYear' | 'outlook' | 'otherBudget';
  /** Months of the budget whose counterparts are there; a change is only one of all of them. */
  readonly known: number;
};

/**
 * A budget as it would be, beside what it is taken from: like with like. The outlook or another budget stands beside
 * it as they are, without uplift or rounding; any other start is compared with the year before, as far as it is there.
 */
export function startPreview(
  asked: Ground,
  empty: Budget,
  choice: StartChoice,
  memory: Memory,
): StartPreview & { readonly lines: Budget['lines'] } {
  const ground = aside(asked, memory);
  const { accounts } = ground.book;
  const { covers, segments, length } = empty;
  const { facts } = reckoned(ground, empty);
  const linesOf = (c: StartChoice, of = accounts) => startLines(c, of, facts, covers, segments);
  const lines = linesOf(choice);
  const whole = reckoned(ground, { ...empty, lines });

  const beside =
    choice.other && (choice.from === 'outlook' || choice.from === 'otherBudget') ? choice.from : 'lastYear';
  // Accounts no longer used belong to what was, though no line is made of them.
  const source = beside !== 'lastYear' && {
    ...empty,
    id: `${empty.id}/beside`,
    lines: linesOf(
      { ...choice, uplift: percent('0'), upliftByKind: {}, round: 0 },
      accounts.map((a) => (a.active ? a : { ...a, active: true })),
    ),
  };
  const was = source && reckoned(ground, source);
  const before = (id: string) => (was ? was.amounts(id) : lastYearOf(facts, id, segments));

  const statement = budgetRows(accounts, covers);
  const plan = fillStatement(statement, length, (id) => whole.amounts(id));
  const past = fillStatement(statement, length, before);
  const known = accounts.map(({ id }) => before(id));
  const there = facts.periods.filter((_, i) => known.some((months) => (months?.[i] ?? null) !== null));
  return {
    lines,
    rows: statement.map((row, r) => ({
      row,
      before: rowTotal(row, past[r]!),
      plan: rowTotal(row, plan[r]!),
    })),
    beside,
    known: there.length,
  };
}
