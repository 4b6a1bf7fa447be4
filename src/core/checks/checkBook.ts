import { reckoned, type Ground } from '@/core/ground';
import type { LedgerBlock } from '@/core/ledger';
import { runChecks, type Check } from './checks';

/** Every check of a book: its sources, its ledger, and each budget as the screens show it. */
export const checkBook = (ground: Ground, blocks: ReadonlyMap<string, LedgerBlock>): Check[] =>
  runChecks({
    book: ground.book,
    blocks,
    balances: ground.balances,
    budgets: ground.book.budgets.map((b) => {
      const { facts, figures, reckoning } = reckoned(ground, b);
      return {
        id: b.id,
        name: b.name,
        width: facts.periods.length,
        lines: b.approved ? b.approved.lines : reckoning.lines.lines,
        covers: b.covers,
        figures,
      };
    }),
  });
