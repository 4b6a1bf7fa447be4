import { minor, plus, type Minor } from '@/core/money';
import type { Account, AccountId } from '@/core/model';
import type { Needs } from './columns';
import type { PlainRow } from './rows';
import type { Scope } from './sides';

/** Figures of one row or account in one scope, by the places of the needs. */
export type Values = readonly (Minor | null)[];

/** The additive figures of a report's rows, reckoned where they are asked for. */
export type Figures = {
  readonly ofRow: (row: number, scope: Scope) => Values;
  readonly ofAccount: (account: Account, scope: Scope) => Values;
  /** Of all the company's income. */
  readonly income: (scope: Scope) => Values;
};

/**
 * Figures of these rows: lines have those of their accounts, totals those of their rows. A total of blanks only is blank.
 * What nobody looks at is not reckoned, so that a report of many segments costs what is seen of them.
 */
export function figuresOfRows(
  accounts: readonly Account[],
  { all }: Pick<Needs, 'all'>,
  rollOf: (account: Account) => PlainRow['roll'],
): { readonly ofAccount: Figures['ofAccount']; readonly over: (rows: readonly PlainRow[]) => Figures } {
  const byScope = new Map<Scope, Map<AccountId, Values>>();
  const ofAccount = (a: Account, scope: Scope): Values => {
    let own = byScope.get(scope);
    if (!own) byScope.set(scope, (own = new Map()));
    let values = own.get(a.id);
    if (!values) {
      const roll = rollOf(a);
      const out = new Array<Minor | null>(all.length);
      for (let n = 0; n < all.length; n++) out[n] = all[n]!(a, scope, roll);
      own.set(a.id, (values = out));
    }
    return values;
  };
  const incomes = new Map<Scope, Values>();
  return {
    ofAccount,
    over(rows) {
      const made = new Map<Scope, (Values | undefined)[]>();
      const ofRow = (r: number, scope: Scope): Values => {
        const { members, terms } = rows[r]!;
        if (members.length === 1) return ofAccount(members[0]!, scope);
        let own = made.get(scope);
        if (!own) made.set(scope, (own = new Array<Values | undefined>(rows.length)));
        return (own[r] ??=
          members.length > 0
            ? addUp(members.map((a) => ofAccount(a, scope)))
            : addUp(
                terms.map((t) => ofRow(t.row, scope)),
                terms.map((t) => t.sign),
              ));
      };
      return {
        ofAccount,
        ofRow,
        income(scope) {
          let own = incomes.get(scope);
          if (!own)
            incomes.set(
              scope,
              (own = addUp(accounts.filter((a) => a.kind === 'income').map((a) => ofAccount(a, scope)))),
            );
          return own;
        },
      };
    },
  };
}

function addUp(rows: readonly Values[], signs?: readonly (1 | -1)[]): Values {
  const width = rows[0]?.length ?? 0;
  const sums = new Float64Array(width);
  const any = new Uint8Array(width);
  for (let k = 0; k < rows.length; k++) {
    const v = rows[k]!;
    const sign = signs?.[k] ?? 1;
    for (let c = 0; c < width; c++) {
      const value = v[c];
      if (value === null || value === undefined) continue;
      sums[c] = plus(sums[c]!, sign * value);
      any[c] = 1;
    }
  }
  return Array.from(sums, (s, c) => (any[c] ? minor(s) : null));
}
