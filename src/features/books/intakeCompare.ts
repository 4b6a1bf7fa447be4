import { minor, type Minor } from '@/core/money';
import type { PeriodIndex } from '@/core/calendar';
import { balancesOf, ledgerChanges, type AccountChange, type LedgerBlock } from '@/core/ledger';
import type { AccountChoice, DraftAccount, Proof } from '@/core/intake';
import { isProfitAndLoss, type Account, type Source } from '@/core/model';
import type { Ground } from '@/core/ground';

export type NamedChange = AccountChange & { readonly name: string; readonly code: string };

/** What the book's profit is in a month, or null where it has no activity. */
export function bookProfit({ book, balances }: Ground, period: PeriodIndex): Minor | null {
  if (!balances.has(period)) return null;
  let profit = 0;
  for (const a of book.accounts) if (isProfitAndLoss(a.kind)) profit -= balances.movement(a.id, period) ?? 0;
  return minor(profit);
}

/** Accounts with activity in the year up to the file's last month, of which the file says nothing at all. */
export function silentAccounts(
  ground: Ground,
  proof: Proof,
  choices: readonly AccountChoice[],
): readonly Account[] {
  const last = proof.months.at(-1)?.period;
  if (last === undefined) return [];
  const met = new Set(choices.flatMap((c) => (c.existing ? [c.existing] : [])));
  const active = (a: Account) => {
    for (let p = last - 11; p <= last; p++) if (ground.balances.movement(a.id, p)) return true;
    return false;
  };
  return ground.book.accounts.filter((a) => !met.has(a.id) && active(a));
}

const without = (ground: Ground, sources: readonly string[]): LedgerBlock[] => {
  const gone = new Set(ground.book.sources.filter((s) => sources.includes(s.id)).map((s) => s.block));
  return ground.blocks.filter((b) => !gone.has(b.id));
};

/** What taking sources away, and putting the open file in their place, changes by account and month. */
export function changesBy(
  ground: Ground,
  replaces: readonly string[],
  file: {
    readonly proof: Proof;
    readonly accounts: readonly DraftAccount[];
    readonly choices: readonly AccountChoice[];
  } | null,
): NamedChange[] {
  const { book, calendar, balances, view } = ground;
  const left = balancesOf(without(ground, replaces), calendar, view);
  const added = new Map<string, Map<PeriodIndex, number>>();
  const fresh: { id: string; name: string; code: string }[] = [];
  for (const { account, period, amount } of file?.proof.cells ?? []) {
    const key = file!.choices[account]!.existing ?? `new-${account}`;
    let byPeriod = added.get(key);
    if (!byPeriod) {
      added.set(key, (byPeriod = new Map()));
      if (key.startsWith('new-')) fresh.push({ id: key, ...file!.accounts[account]! });
    }
    byPeriod.set(period, (byPeriod.get(period) ?? 0) + amount);
  }
  const periods = [
    ...(balances.range ? [balances.range.first, balances.range.last] : []),
    ...(file?.proof.months.map((m) => m.period) ?? []),
  ];
  if (periods.length === 0) return [];
  const all = new Map([...book.accounts, ...fresh].map((a) => [a.id, a]));
  return ledgerChanges(
    [...all.keys()],
    { first: Math.min(...periods), last: Math.max(...periods) },
    balances.movement,
    (id, p) => {
      const plus = added.get(id)?.get(p);
      const rest = left.movement(id, p);
      return plus === undefined ? rest : minor((rest ?? 0) + plus);
    },
  ).map((c) => ({ ...c, name: all.get(c.account)!.name, code: all.get(c.account)!.code }));
}

/**
 * How many sums of a month and account are what the book has there already: entries that come again as sums, or the other
 * way round, are alike in no row.
 */
export function sumsHere(
  { balances }: Ground,
  { cells }: Pick<Proof, 'cells'>,
  choices: readonly AccountChoice[],
): { readonly here: number; readonly of: number } {
  const said = cells.filter((c) => c.amount !== 0);
  const here = said.filter(({ account, period, amount }) => {
    const existing = choices[account]?.existing;
    return existing && balances.movement(existing, period) === amount;
  });
  return { here: here.length, of: said.length };
}

/** The sources that a file takes the place of when it replaces: the same file, or those with some of its days. */
export const clashesOf = (proof: Proof): readonly Source[] => (proof.same ? [proof.same] : proof.overlapping);
