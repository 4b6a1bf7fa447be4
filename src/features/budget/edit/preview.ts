import { blankLine, lineKey, type LineRef, type Method } from '@/core/model';
import { createReckoner, type LineResult } from '@/core/plan';
import { budgetRows, resultOf } from '@/core/report';
import type { Minor } from '@/core/money';
import type { Reckoned } from '@/core/ground';
import type { Account } from '@/core/model';

/** What a budget would come to if lines were made another way. */
export type Preview = { readonly line: LineResult; readonly net: Minor | null };

/** Reckons what would be, beside the budget as it is; remembers its last run, so that typing stays quick. */
export function createPreviewer(): (
  reckoned: Reckoned,
  accounts: readonly Account[],
  methods: readonly (LineRef & { readonly method: Method })[],
  restore?: boolean,
) => Preview {
  const reckon = createReckoner();
  return ({ budget, facts, made, reckoning }, accounts, methods, restore = false) => {
    const changed = new Map(methods.map((m) => [lineKey(m), m.method]));
    const lines = [...reckoning.lines].map(([l]) => {
      const method = changed.get(lineKey(l));
      if (!method) return l;
      changed.delete(lineKey(l));
      return { ...l, method, overrides: restore || method.kind === 'byMonth' ? {} : l.overrides };
    });
    for (const m of methods) if (changed.has(lineKey(m))) lines.push({ ...blankLine(m), method: m.method });
    const run = reckon({ ...budget, lines, made }, facts);
    const rows = budgetRows(accounts, budget.covers);
    return {
      line: run.lines.get(methods[0]!)!,
      net: resultOf(rows, 'netProfit', facts, (id) => run.lines.figures(id, 'all')),
    };
  };
}
