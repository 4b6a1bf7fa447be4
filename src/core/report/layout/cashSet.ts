import { toDayNumber, yearsBefore, type PeriodIndex } from '@/core/calendar';
import { FLOW_OF, FLOWS, type Flow } from '@/core/cash';
import { actualsOf, cashByFlow, type Comparison, type Ground } from '@/core/ground';
import { minor, plus, sumBlank, type Minor } from '@/core/money';
import { newAccount, type Account, type Budget, type CashSource, type KeptForecast } from '@/core/model';
import { budgetPeriods } from '@/core/plan';
import { onlyBudget } from './compared';
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
  sides({ ground, compared }) {
    const { calendar, book, balances } = ground;
    const banks = book.accounts.filter((a) => a.kind === 'bank');
    const ledger = actualsOf(ground, null, 'all');
    const standing = (p: PeriodIndex) => sumBlank(banks.map((a) => ledger.ledger(a, p)));
    const budget = onlyBudget(compared);
    const flows = cashByFlow(ground, budget);
    const side: MakeSide = (flow, closing, opening) => ({
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
    const nothing: Side = { ...actual, at: () => null };
    const planned = budget ? approvedSide(ground, budget, side) : nothing;
    const outlook: Side = {
      ...actual,
      at: (account, scope, p) =>
        (balances.has(p) ? actual.at(account, scope, p) : null) ?? planned.at(account, scope, p),
    };
    const named = (which: Comparison | 'comparison' | 'lastYear' | 'outlook'): Side => {
      if (which === 'lastYear') return lastYear;
      if (which === 'outlook') return outlook;
      if (which === 'comparison') return planned;
      return which.parts.length === 1 ? approvedSide(ground, which.parts[0]!.budget, side) : nothing;
    };
    return {
      actual,
      reclassified: nothing,
      flexible: nothing,
      mix: nothing,
      outlook,
      lastYear,
      first: compared.kept ? keptSide(ground, compared.kept, side) : named(compared.first),
      second: compared.second === null ? null : named(compared.second),
    };
  },
};

type MakeSide = (
  flow: (flow: Flow, p: PeriodIndex) => Minor | null,
  closing: (p: PeriodIndex) => Minor | null,
  opening: (p: PeriodIndex) => Minor | null,
) => Side;

/** A kept forecast: its sources by flow, of the months all of whose days it tells. */
function keptSide({ calendar }: Ground, kept: KeptForecast, side: MakeSide): Side {
  const start = toDayNumber(kept.start);
  const daysOf = (p: PeriodIndex): readonly [from: number, to: number] | null => {
    const period = calendar.period(p);
    const [from, to] = [toDayNumber(period.start) - start - 1, toDayNumber(period.end) - start - 1];
    return from >= 0 && to < kept.days ? [from, to] : null;
  };
  const moved = (of: Flow | null, from: number, to: number): Minor => {
    let sum = 0;
    for (const { source, days, amounts } of kept.sources)
      if (of === null || FLOW_OF[source] === of)
        days.forEach((d, i) => {
          if (d >= from && d <= to) sum = plus(sum, amounts[i]!);
        });
    return minor(sum);
  };
  const standing = (p: PeriodIndex, at: 'start' | 'end'): Minor | null => {
    const days = daysOf(p);
    return days && minor(plus(kept.opening, moved(null, 0, at === 'end' ? days[1] : days[0] - 1)));
  };
  return {
    ...side(
      (of, p) => {
        const days = daysOf(p);
        return days && moved(of, ...days);
      },
      (p) => standing(p, 'end'),
      (p) => standing(p, 'start'),
    ),
    covers: (p) => daysOf(p) !== null,
  };
}

/** Cash as it was approved: its sources by flow, and what the banks were to stand at. */
function approvedSide(ground: Ground, budget: Budget, side: MakeSide): Side {
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
