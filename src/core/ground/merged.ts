import { sumBlank, type Minor } from '@/core/money';
import { indexOfId, type FiscalCalendar, type PeriodId } from '@/core/calendar';
import {
  ownerOf,
  lineKey,
  renamedContras,
  renamedMethod,
  renamedAdjusts,
  renamedRow,
  renamedSeries,
  renamedTerms,
  type Book,
  type Budget,
  type Line,
} from '@/core/model';

/**
 * Budgets as they are shown through the merges of accounts. What was approved never changes: its lines keep the
 * accounts of the time, and are read under the account that each has become. Two that have become one account are one
 * line of their added amounts. The same list when no merge touches any.
 */
export function throughMerges(
  budgets: Book['budgets'],
  merged: Book['merged'],
  calendar: FiscalCalendar,
): Book['budgets'] {
  if (Object.keys(merged).length === 0) return budgets;
  const out = budgets.map((b) => shown(b, merged, calendar));
  return out.every((b, i) => b === budgets[i]) ? budgets : out;
}

const made = new WeakMap<Budget, { readonly merged: Book['merged']; readonly shown: Budget }>();

function shown(budget: Budget, merged: Book['merged'], calendar: FiscalCalendar): Budget {
  if (!budget.approved) return budget;
  let kept = made.get(budget);
  if (kept?.merged !== merged)
    made.set(budget, (kept = { merged, shown: asMerged(budget, merged, calendar) }));
  return kept!.shown;
}

type Frozen = NonNullable<Budget['approved']>['lines'][number];

function asMerged(budget: Budget, merged: Book['merged'], calendar: FiscalCalendar): Budget {
  const owner = ownerOf(merged);
  const gone = (l: { readonly account: string }) => owner(l.account) !== l.account;
  const { lines, approved } = budget;
  if (!approved || (!lines.some(gone) && !approved.lines.some(gone))) return budget;

  const figures = new Map<string, Frozen>();
  const joined = new Set<string>();
  for (const line of approved.lines) {
    const now = { ...line, account: owner(line.account) };
    const key = lineKey(now);
    const there = figures.get(key);
    if (there) joined.add(key);
    figures.set(
      key,
      there
        ? {
            ...there,
            amounts: added(there.amounts, line.amounts),
            wholes: added(there.wholes, line.wholes),
          }
        : now,
    );
  }
  const first = indexOfId(calendar, budget.first) ?? 0;
  const shownLines = new Map<string, Line>();
  for (const line of lines) {
    const account = owner(line.account);
    const key = lineKey({ account, segment: line.segment });
    const there = shownLines.get(key);
    const now = { ...line, account, method: renamedMethod(line.method, owner) };
    if (!there) shownLines.set(key, now);
    else
      shownLines.set(key, { ...there, note: there.note ?? line.note, looked: there.looked ?? line.looked });
  }
  for (const key of joined) {
    const line = shownLines.get(key);
    if (!line) continue;
    // Two ways of making months make no third: what was approved of both stands by month.
    const amounts: Record<PeriodId, Minor | null> = {};
    figures.get(key)!.amounts.forEach((a, i) => {
      if (a !== null) amounts[calendar.period(first + i).id] = a;
    });
    shownLines.set(key, { ...line, method: { kind: 'byMonth', amounts }, overrides: {} });
  }
  return {
    ...budget,
    lines: [...shownLines.values()],
    drivers: budget.drivers.map((d) => ({ ...d, series: renamedSeries(d.series, owner) })),
    terms: budget.terms.map((t) => renamedTerms(t, owner)),
    schedules: budget.schedules.map((r) => renamedRow(r, owner)),
    applied: budget.applied.map((a) => ({
      ...a,
      adjustment: { ...a.adjustment, what: renamedAdjusts(a.adjustment.what, owner) },
    })),
    contras: renamedContras(budget.contras, owner),
    approved: { ...approved, lines: [...figures.values()] },
  };
}

const added = (a: Frozen['amounts'], b: Frozen['amounts']): Frozen['amounts'] =>
  Array.from({ length: Math.max(a.length, b.length) }, (_, i) => sumBlank([a[i] ?? null, b[i] ?? null]));
