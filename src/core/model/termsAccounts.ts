import type { AccountId } from './schema';
import type { BankBalance } from './bank';
import type { Cash, Terms, TermsRule } from './cash';

/* Which accounts terms and cash name, and how they are named anew when one is merged into another. */

type Rename = (account: AccountId) => AccountId;
type Named<T> = (of: T, rename: Rename) => T;

const one = (account: AccountId | null, rename: Rename): AccountId | null =>
  account === null ? null : rename(account);

/** Fields of rules that name an account; a rule that gets another has it here, or the program does not compile. */
const RULE_FIELDS: {
  readonly [K in TermsRule['kind']]: readonly AccountField<Extract<TermsRule, { kind: K }>>[];
} = {
  atOnce: [],
  onAccount: ['badDebt', 'through'],
  daysOutstanding: ['through'],
  fromStock: ['inventory', 'through'],
  inAdvance: ['through'],
  withoutMoney: ['against'],
  payroll: ['through'],
};
type AccountField<R> = Extract<keyof R, 'badDebt' | 'through' | 'inventory' | 'against'>;

/** A rule of terms with other accounts named. */
export const renamedRule: Named<TermsRule> = (rule, rename) => {
  const fields = RULE_FIELDS[rule.kind] as readonly string[];
  if (fields.length === 0) return rule;
  const was = rule as unknown as Record<string, AccountId | null>;
  return { ...rule, ...Object.fromEntries(fields.map((f) => [f, one(was[f]!, rename)])) };
};

/** Terms with other accounts named. */
export const renamedTerms: Named<Terms> = (terms, rename) => ({
  ...terms,
  of: terms.of.of === 'account' ? { of: 'account', account: rename(terms.of.account) } : terms.of,
  parts: terms.parts.map((p) => ({ ...p, rule: renamedRule(p.rule, rename) })),
  bank: one(terms.bank, rename),
});

/** What a company's money follows, with other accounts named. */
export function renamedCash(cash: Cash, rename: Rename): Cash {
  const amounts: Record<AccountId, number> = {};
  for (const [account, amount] of Object.entries(cash.opening?.amounts ?? {}))
    amounts[rename(account)] = (amounts[rename(account)] ?? 0) + amount;
  return {
    ...cash,
    opening: cash.opening && { ...cash.opening, amounts: amounts as typeof cash.opening.amounts },
    bank: one(cash.bank, rename),
    creditLine: cash.creditLine && {
      ...cash.creditLine,
      account: one(cash.creditLine.account, rename),
      interest: one(cash.creditLine.interest, rename),
    },
    taxes: cash.taxes.map((t) => ({ ...t, payable: one(t.payable, rename) })),
    items: cash.items.map((i) => ({ ...i, account: one(i.account, rename) })),
    runOffEnds: renamedKeys(cash.runOffEnds, rename),
    dated: cash.dated.map((d) => ({ ...d, against: one(d.against, rename), bank: one(d.bank, rename) })),
    banks: {
      ...cash.banks,
      balances: latestByAccount(cash.banks.balances.map((b) => ({ ...b, account: rename(b.account) }))),
      statements: cash.banks.statements.map((s) => ({ ...s, account: rename(s.account) })),
      numbers: Object.fromEntries(Object.entries(cash.banks.numbers).map(([n, a]) => [n, rename(a)])),
      floors: renamedKeys(cash.banks.floors, rename),
    },
  };
}

/** What is said by account, under the accounts' names of now; the account that stays keeps its own. */
const renamedKeys = <V>(of: Readonly<Record<AccountId, V>>, rename: Rename): Record<AccountId, V> =>
  Object.fromEntries(
    Object.entries(of)
      .map(([a, value]) => [rename(a), value, rename(a) === a] as const)
      .sort(([, , a], [, , b]) => Number(a) - Number(b))
      .map(([a, value]) => [a, value]),
  );

/** Of each account its latest balance: two that became one have one. */
const latestByAccount = (balances: readonly BankBalance[]): BankBalance[] =>
  balances.filter((b, i) =>
    balances.every(
      (o, k) => o.account !== b.account || k === i || o.day < b.day || (o.day === b.day && k < i),
    ),
  );

/** Every account that something names, as `renamed…` would name it anew. */
function accountsBy<T>(renamed: Named<T>): (of: T) => ReadonlySet<AccountId> {
  return (of) => {
    const named = new Set<AccountId>();
    renamed(of, (account) => {
      named.add(account);
      return account;
    });
    return named;
  };
}

export const accountsOfTerms = accountsBy(renamedTerms);

/** What names an account of the terms: terms of one target are there once. */
export const termsKey = ({ of, segment }: Pick<Terms, 'of' | 'segment'>): string =>
  [
    of.of,
    of.of === 'account' ? of.account : of.kind,
    of.of === 'group' ? of.group : '',
    segment === undefined ? '*' : (segment ?? ''),
  ].join('\n');
