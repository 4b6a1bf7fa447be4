import { lineKey, type AccountId, type Approved, type Budget, type SegmentId } from '@/core/model';
import { addFigures, type Figures, type Reckoning } from './results';

const tables = new WeakMap<Approved['lines'], ReadonlyMap<string, Figures>>();

function tableOf(lines: Approved['lines']): ReadonlyMap<string, Figures> {
  let table = tables.get(lines);
  if (!table) {
    const made = new Map<string, Figures>();
    for (const line of lines) {
      made.set(lineKey(line), line);
      const all = `${line.account}:*`;
      const there = made.get(all);
      made.set(
        all,
        there
          ? {
              amounts: addFigures(there.amounts, line.amounts),
              wholes: addFigures(there.wholes, line.wholes),
            }
          : line,
      );
    }
    tables.set(lines, (table = made));
  }
  return table;
}

/**
 * A budget's figures of an account, in one segment or over all of them: as frozen when it was approved, as reckoned
 * now while it is a draft. Null when it has no line.
 */
export function figuresOf(
  budget: Budget,
  reckoning: Reckoning,
  account: AccountId,
  segment: SegmentId | 'all' = 'all',
): Figures | null {
  return budget.approved
    ? frozenFigures(budget.approved, account, segment)
    : reckoning.lines.figures(account, segment);
}

/** What was approved of an account, in one segment or over all of them. */
export const frozenFigures = (
  approved: Approved,
  account: AccountId,
  segment: SegmentId | 'all',
): Figures | null =>
  tableOf(approved.lines).get(segment === 'all' ? `${account}:*` : lineKey({ account, segment })) ?? null;

/** A reckoned budget's lines as they are frozen on approval. */
export const frozenLines = (reckoning: Reckoning): Approved['lines'] =>
  [...reckoning.lines].map(([{ account, segment }, { amounts, wholes }]) => ({
    account,
    segment,
    amounts: [...amounts],
    wholes: [...wholes],
  }));

/**
 * What an approval's fingerprint is taken of: the budget's first period and, line by line in the order of their names,
 * every figure in minor units. The same figures give the same text on any machine.
 */
export const fingerprintText = (budget: Pick<Budget, 'first' | 'length'>, lines: Approved['lines']): string =>
  JSON.stringify([
    budget.first,
    budget.length,
    [...lines]
      .sort((a, b) => (lineKey(a) < lineKey(b) ? -1 : 1))
      .map((l) => [l.account, l.segment, l.amounts, l.wholes]),
  ]);
