import { yearsBefore, type PeriodIndex } from '@/core/calendar';
import { FLOW_OF, FLOWS, type Flow } from '@/core/cash';
import { actualsOf, cashByFlow, type Ground } from '@/core/ground';
import { sumBlank, type Minor } from '@/core/money';
import { newAccount, type Account, type Budget, type CashSource } from '@/core/model';
import { budgetPeriods } from '@/core/plan';
import type { PlainRow } from './rows';
import type { RowSet } from './rowSet';
import type { Side } from './sides';

/** What flows are called. */
export const FLOW_NAMES: Readonly<Record<Flow, string>> = {
  customers: 'From customers',
  suppliers: 'To suppliers',
  payroll: 'Pay',
  taxes: 'Taxes',
  loans: 'Loans and credit line',
  owners: 'Owners',
  other: 'Other',
};

const OPENING = newAccount('cash-opening', '', 'Opening balance', 'bank');
const CLOSING = newAccount('cash-closing', '', 'Closing balance', 'bank');
const flowAccount = new Map(FLOWS.map((f) => [f, newAccount(`cash-${f}`, '', FLOW_NAMES[f], 'otherIncome')]));
const flowOf = new Map([...flowAccount].map(([flow, account]) => [account.id, flow]));

const row = (account: Account, change: Partial<PlainRow>): PlainRow => ({
  kind: 'line',
  key: account.id,
  code: '',
  label: account.name,
  account: null,
  members: [account],
  section: null,
  effect: 1,
  roll: 'sum',
  terms: [],
  own: null,
  ...change,
});

/** Money through the banks by whom it came from and went to, between two balances; a budget's as it was approved. */
export const cashSet: RowSet = {
  accounts: () => [OPENING, ...flowAccount.values(), CLOSING],
  rows: () => {
    const flows = [...flowAccount.values()].map((a) => row(a, {}));
    return [
      row(OPENING, { roll: 'first' }),
      ...flows,
      row(CLOSING, {
        kind: 'subtotal',
        key: 'cash-net',
        label: 'Change of the bank',
        members: [],
        terms: flows.map((_, i) => ({ row: i + 1, sign: 1 })),
      }),
      row(CLOSING, { kind: 'result', roll: 'last' }),
    ];
  },
  rollOf: (a) => (a === OPENING ? 'first' : a === CLOSING ? 'last' : 'sum'),
  sides(ground, { comparison, first }) {
    const { calendar, book, balances } = ground;
    const banks = book.accounts.filter((a) => a.kind === 'bank');
    const ledger = actualsOf(ground, null, 'all');
    const standing = (p: PeriodIndex) => sumBlank(banks.map((a) => ledger.ledger(a, p)));
    const flows = cashByFlow(ground, comparison?.parts.length === 1 ? comparison.parts[0]!.budget : null);
    const side = (
      flow: (flow: Flow, p: PeriodIndex) => Minor | null,
      closing: (p: PeriodIndex) => Minor | null,
      opening: (p: PeriodIndex) => Minor | null,
    ): Side => ({
      at(account, scope, p) {
        if (scope !== 'all') return null;
        if (account.id === OPENING.id) return opening(p);
        if (account.id === CLOSING.id) return closing(p);
        return flow(flowOf.get(account.id)!, p);
      },
      whole: () => null,
      tells: (scope) => scope === 'all',
      covers: () => true,
      days: () => null,
    });
    const { range } = balances;
    // Before the ledger's first month the banks stand at what it opens with.
    const before = (p: PeriodIndex): Minor | null =>
      range && p === range.first ? sumBlank(banks.map((a) => balances.opening(a.id))) : standing(p - 1);
    const actual = side(flows, standing, before);
    const lastYear: Side = {
      ...actual,
      at(account, scope, p) {
        const q = yearsBefore(calendar, p);
        return q === null ? null : actual.at(account, scope, q);
      },
    };
    const budget = comparison?.parts.length === 1 ? comparison.parts[0]!.budget : null;
    const planned = budget ? approvedSide(ground, budget, side) : { ...actual, at: () => null };
    const nothing: Side = { ...actual, at: () => null };
    const outlook: Side = {
      ...actual,
      at: (account, scope, p) =>
        (balances.has(p) ? actual.at(account, scope, p) : null) ?? planned.at(account, scope, p),
    };
    return {
      actual,
      reclassified: nothing,
      flexible: nothing,
      mix: nothing,
      outlook,
      lastYear,
      first: first === 'lastYear' ? lastYear : first === 'outlook' ? outlook : planned,
      second: lastYear,
    };
  },
};

/** Cash as it was approved: its sources by flow, and what the banks were to stand at. */
function approvedSide(
  ground: Ground,
  budget: Budget,
  side: (
    flow: (flow: Flow, p: PeriodIndex) => Minor | null,
    closing: (p: PeriodIndex) => Minor | null,
    opening: (p: PeriodIndex) => Minor | null,
  ) => Side,
): Side {
  const cash = budget.approved?.cash ?? null;
  const first = budgetPeriods(ground.calendar, budget)[0]?.index ?? 0;
  const banks = ground.book.accounts.filter((a) => a.kind === 'bank');
  const closing = (p: PeriodIndex) =>
    cash && p >= first && p < first + budget.length
      ? sumBlank(banks.map((a) => cash.closing[a.id]?.[p - first] ?? null))
      : null;
  const flow = (of: Flow, p: PeriodIndex): Minor | null => {
    if (!cash || p < first || p >= first + budget.length) return null;
    return sumBlank(
      Object.entries(cash.sources).map(([source, months]) =>
        FLOW_OF[source as CashSource] === of ? (months[p - first] ?? null) : null,
      ),
    );
  };
  const opening = (p: PeriodIndex): Minor | null => {
    const end = closing(p);
    const moved = sumBlank(FLOWS.map((f) => flow(f, p)));
    return end === null ? null : ((end - (moved ?? 0)) as Minor);
  };
  return side(flow, closing, opening);
}
