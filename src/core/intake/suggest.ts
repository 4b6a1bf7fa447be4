import { isProfitAndLoss, profitSign, type AccountKind } from '@/core/model';
import type { Draft } from './draft';
import type { AccountChoice } from './match';
import type { ControlResult } from './proof';

/** Accounts whose kinds would make totals of the file agree that do not agree now. */
export type KindHint = {
  readonly accounts: readonly { readonly account: number; readonly kind: AccountKind }[];
  /** How many totals more would agree. */
  readonly ties: number;
};

/** So many accounts at most are tried together, in pairs; a chart of a thousand takes a fraction of a second. */
const MOST = 1500;

/**
 * Finds the fewest accounts (two at most) that, taken for income where they were costs or the other way about, make the
 * file's nets agree. A net takes costs off income, so an account on the wrong side is off by twice its amounts.
 */
export function kindsThatTie(
  draft: Draft,
  choices: readonly AccountChoice[],
  controls: readonly ControlResult[],
): KindHint | null {
  if (draft.sign !== 'natural') return null;
  const off = draft.controls.flatMap((c, i) =>
    c.mode === 'net' && controls[i]!.mismatches.length > 0 ? [i] : [],
  );
  if (off.length === 0) return null;
  // The first net that fails decides; what explains it is then held against all of them.
  const control = draft.controls[off[0]!]!;
  const days = control.theirs.map((t) => t.day);
  const { block } = draft;
  const rows = new Map<number, number[]>();
  const over = new Set(control.over);
  for (let i = 0; i < block.count; i++) {
    const account = block.account[i]!;
    if (!over.has(account) || !isProfitAndLoss(choices[account]!.kind)) continue;
    let row = rows.get(account);
    if (!row) rows.set(account, (row = days.map(() => 0)));
    days.forEach((d, k) => {
      if (d === null || d === block.day[i]) row[k]! += block.amount[i]!;
    });
  }
  const signOf = (account: number) => profitSign(choices[account]!.kind) as 1 | -1;
  const ours = days.map((_, k) => [...rows].reduce((t, [a, r]) => t + signOf(a) * r[k]!, 0));
  const need = control.theirs.map((t, k) => t.value - ours[k]!);
  if (need.every((v) => v === 0) || rows.size > MOST) return null;
  const turns = [...rows].flatMap(([account, r]) =>
    r.every((v) => v === 0) ? [] : [{ account, by: r.map((v) => -2 * signOf(account) * v) }],
  );
  const key = (v: readonly number[]) => v.join();
  const byTurn = new Map(turns.map((t) => [key(t.by), t.account]));
  const found = findTurns(turns, need, byTurn, key);
  if (!found) return null;
  const kinds = found.map((account) => ({
    account,
    kind: (signOf(account) > 0 ? 'expense' : 'income') as AccountKind,
  }));
  const turned = new Set(found);
  const ties = off.filter((i) => {
    const c = draft.controls[i]!;
    const span = new Set(c.over);
    return c.theirs.every((t) => {
      let sum = 0;
      for (let r = 0; r < block.count; r++) {
        const a = block.account[r]!;
        if (!span.has(a) || (t.day !== null && block.day[r] !== t.day)) continue;
        const cost = profitSign(choices[a]!.kind) < 0;
        sum += (cost !== turned.has(a) ? -1 : 1) * block.amount[r]!;
      }
      return sum === t.value;
    });
  }).length;
  return ties === 0 ? null : { accounts: kinds, ties };
}

function findTurns(
  turns: readonly { readonly account: number; readonly by: readonly number[] }[],
  need: readonly number[],
  byTurn: ReadonlyMap<string, number>,
  key: (v: readonly number[]) => string,
): number[] | null {
  const one = byTurn.get(key(need));
  if (one !== undefined) return [one];
  for (const { account, by } of turns) {
    const other = byTurn.get(key(need.map((v, k) => v - by[k]!)));
    if (other !== undefined && other !== account) return [account, other];
  }
  return null;
}
