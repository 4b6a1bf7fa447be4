import type { PeriodIndex, PeriodRange } from '@/core/calendar';
import {
  applyCommand,
  isProfitAndLoss,
  natural,
  type Account,
  type Budget,
  type Command,
} from '@/core/model';
import { minor, plus, type Minor } from '@/core/money';
import { cashAccounts } from '@/core/statements';
import { makeGround, type Ground } from './ground';
import { createMemory } from './memory';
import { aheadOf } from './statements';

/** What a change moves in one period, before it is made: changes of profit, of what accounts stand at, and of the bank. */
export type Moves = {
  readonly period: PeriodIndex;
  readonly profit: Minor;
  /** Natural amounts, the largest first; banks and profit and loss stand apart. */
  readonly accounts: readonly { readonly account: Account; readonly amount: Minor }[];
  readonly bank: Minor;
};

/**
 * What a command would move in the three statements, by the budget that is looked at: the periods in which anything does.
 * Nothing is changed. The code of the refusal where the book would refuse it.
 */
export function triedOf(
  ground: Ground,
  budget: Budget | null,
  command: Command,
  { first, last }: PeriodRange,
): { readonly ok: true; readonly moves: readonly Moves[] } | { readonly ok: false; readonly code: string } {
  const done = applyCommand(ground.book, command);
  if (!done.ok) return { ok: false, code: done.refusal.code };
  const before = aheadOf(ground, budget);
  const blocks = new Map(ground.blocks.map((b) => [b.id, b]));
  const tried = makeGround(done.book, blocks, createMemory());
  const after = aheadOf(tried, done.book.budgets.find((b) => b.id === budget?.id) ?? null);
  if (!before || !after) return { ok: true, moves: [] };
  const accounts = [...new Map([...before.accounts, ...after.accounts].map((a) => [a.id, a])).values()];
  const banks = new Set(cashAccounts(accounts, ground.book.flowClasses));
  const moves: Moves[] = [];
  for (let period = Math.max(first, before.start + 1); period <= Math.min(last, before.last); period++) {
    let [profit, bank] = [0, 0];
    const moved: { account: Account; amount: Minor }[] = [];
    for (const a of accounts) {
      const [was, now] = [before, after].map(({ balances }) =>
        isProfitAndLoss(a.kind)
          ? (balances.movement(a.id, period) ?? 0)
          : balances.balance(a.id, period, true),
      ) as [number, number];
      const change = now - was;
      if (change === 0) continue;
      if (isProfitAndLoss(a.kind)) profit = plus(profit, -change);
      else if (banks.has(a)) bank = plus(bank, change);
      else moved.push({ account: a, amount: natural(a.kind, minor(change)) });
    }
    if (profit === 0 && bank === 0 && moved.length === 0) continue;
    moved.sort((a, b) => Math.abs(b.amount) - Math.abs(a.amount));
    moves.push({ period, profit: minor(profit), accounts: moved, bank: minor(bank) });
  }
  return { ok: true, moves };
}
