import { indexOfId, type DayNumber, type Period } from '@/core/calendar';
import { defaultBank, type BalanceTarget, type ProjectionInput, type ScheduledRow } from '@/core/cash';
import { lastOf } from '@/core/lastOf';
import {
  isProfitAndLoss,
  naturalSign,
  type AccountId,
  type CashSource,
  type RowOf,
  type ScheduleRow,
} from '@/core/model';
import type { RowResult } from '@/core/plan';
import { daysOf, occurrenceNumbers, STAND_INS, taxPayments, type RowPosting } from '@/core/schedule';
import type { MonthsOfPlan } from './cashPlan';
import type { Ground } from './ground';
import { reckoned } from './reckoned';

/* What schedules and balance lines of the budgets ahead bring to the projection. */

const SOURCES: Record<ScheduleRow['kind'], CashSource> = {
  staff: 'payroll',
  loan: 'loans',
  asset: 'other',
  release: 'other',
  incomeTax: 'taxes',
  equity: 'owners',
};

type Kept = { readonly of: string; readonly postings: readonly RowPosting[] };
const keptOf = new WeakMap<readonly RowPosting[], Map<string, Kept>>();

/** The postings of some events, the same list for the same ones. */
function kept(
  all: readonly RowPosting[],
  name: string,
  of: string,
  keep: (p: RowPosting) => boolean,
): readonly RowPosting[] {
  let own = keptOf.get(all);
  if (!own) keptOf.set(all, (own = new Map()));
  let there = own.get(name);
  if (there?.of !== of) own.set(name, (there = { of, postings: all.filter(keep) }));
  return there!.postings;
}

type PlannedRow = {
  readonly made: RowResult;
  readonly postings: (name: string, keep: (p: RowPosting) => boolean) => readonly RowPosting[];
};

/** Rows as they are posted: those events that fall into months which their budget plans. */
function rowsOf(ground: Ground, { budget, periods }: MonthsOfPlan): PlannedRow[] {
  const { calendar } = ground;
  const planned = new Set(periods.map((p) => p.index));
  const of = [...planned].join();
  return [...reckoned(ground, budget).reckoning.rows.values()].map((made) => ({
    made,
    postings: (name, keep) =>
      kept(made.postings, name, of, (p) => planned.has(calendar.indexOfDay(p.of)) && keep(p)),
  }));
}

const all = () => true;

/** The rows of the budgets that plan the months ahead. */
export function scheduledRows(ground: Ground, plans: readonly MonthsOfPlan[]): ScheduledRow[] {
  return plans.flatMap((plan) =>
    plan.budget.schedules.length === 0
      ? []
      : rowsOf(ground, plan).flatMap(({ made: { row }, postings }): ScheduledRow[] => {
          const key = `${plan.budget.id} ${row.id}`;
          if (row.kind !== 'asset')
            return [{ key, source: SOURCES[row.kind], postings: postings('all', all), cost: null }];
          return [
            { key, source: 'other', postings: postings('own', (p) => p.what !== 'sale'), cost: row.account },
            {
              key: `${key} sale`,
              source: 'disposals',
              postings: postings('sale', (p) => p.what === 'sale'),
              cost: null,
            },
          ];
        }),
  );
}

/** Payments of income taxes: of each account that they are owed on, by the first row that names it. */
export const makeTaxPaid = () =>
  lastOf(
    (
      calendar: Ground['calendar'],
      bank: AccountId,
      opening: ReadonlyMap<AccountId, number>,
      start: DayNumber,
      until: DayNumber,
      ...rows: readonly (RowOf<'incomeTax'> | readonly RowPosting[])[]
    ): ScheduledRow[] => {
      const out: ScheduledRow[] = [];
      const met = new Map<AccountId, { row: RowOf<'incomeTax'>; accruals: RowPosting[] }>();
      for (let i = 0; i < rows.length; i += 2) {
        const row = rows[i] as RowOf<'incomeTax'>;
        const owed = row.payable ?? STAND_INS.incomeTax;
        const there = met.get(owed);
        const accruals = rows[i + 1] as readonly RowPosting[];
        if (there) there.accruals.push(...accruals);
        else met.set(owed, { row, accruals: [...accruals] });
      }
      for (const [owed, { row, accruals }] of met)
        out.push({
          key: `paid ${row.id}`,
          source: 'taxes',
          cost: null,
          postings: taxPayments(row, { calendar, bank }, accruals, {
            after: start,
            until,
            stood: -(opening.get(owed) ?? 0),
          }),
        });
      return out;
    },
  );

/** The income-tax rows of the budgets ahead, each followed by what it accrues. */
export const taxRows = (
  ground: Ground,
  plans: readonly MonthsOfPlan[],
): (RowOf<'incomeTax'> | readonly RowPosting[])[] =>
  plans.flatMap((plan) =>
    plan.budget.schedules.some((r) => r.kind === 'incomeTax')
      ? rowsOf(ground, plan).flatMap(({ made: { row }, postings }) =>
          row.kind === 'incomeTax' ? [row, postings('all', all)] : [],
        )
      : [],
  );

/** What stands withheld from pay at the start is paid on the first day on which anything withheld is due. */
export function settledAtStart(
  { book, calendar }: Ground,
  plans: readonly MonthsOfPlan[],
  start: DayNumber,
): ProjectionInput['settled'] {
  const days = daysOf(book.workWeek);
  const first = new Map<AccountId, DayNumber>();
  const closed = calendar.indexOfDay(start);
  for (const { budget } of plans)
    for (const row of budget.schedules) {
      if (row.kind !== 'staff' || row.through === null) continue;
      const kind = book.accounts.find((a) => a.id === row.through)?.kind;
      // Payables and taxes have ways of their own to be settled.
      if (kind === 'payable' || kind === 'receivable') continue;
      if (book.cash.taxes.some((t) => t.payable === row.through)) continue;
      const paydays = [closed - 1, closed, closed + 1].flatMap((p) =>
        occurrenceNumbers(calendar.period(p), row.paydays, book.workWeek),
      );
      const due = Math.min(
        ...paydays.map((d) => days.due(d, row.remitted, row.moved)).filter((d) => d > start),
        first.get(row.through) ?? Infinity,
      );
      if (Number.isFinite(due)) first.set(row.through, due);
    }
  return [...first].map(([account, day]) => ({ account, day, source: 'payroll' }));
}

/** Closing balances that budgets say of the months ahead; of banks only where something else was chosen to bring them about. */
export function balanceTargets(
  ground: Ground,
  plans: readonly MonthsOfPlan[],
  periods: readonly Period[],
): BalanceTarget[] {
  const { book, calendar } = ground;
  const bank = defaultBank({ bank: book.cash.bank, accounts: book.accounts });
  return plans.flatMap(({ budget, periods: own }) => {
    const whole = reckoned(ground, budget);
    const first = indexOfId(calendar, budget.first)!;
    const planned = new Set(own.map((p) => p.index));
    const ids = new Set((budget.approved?.lines ?? budget.lines).map((l) => l.account));
    return [...ids].flatMap((account): BalanceTarget[] => {
      const kind = book.accounts.find((a) => a.id === account)?.kind;
      if (kind === undefined || isProfitAndLoss(kind)) return [];
      const against = budget.contras[account] ?? bank;
      if (against === account) return [];
      const amounts = whole.amounts(account) ?? [];
      const sign = naturalSign(kind);
      const said = periods.map((p) => {
        const a = planned.has(p.index) ? (amounts[p.index - first] ?? null) : null;
        return a === null || Number.isNaN(a) ? null : sign * a;
      });
      return said.every((a) => a === null)
        ? []
        : [{ key: `${budget.id} ${account}`, account, kind, against, amounts: said }];
    });
  });
}

/** The accounts that pay goes to and through by the schedules of the months ahead. */
export const staffAccounts = (plans: readonly MonthsOfPlan[]): readonly AccountId[] => [
  ...new Set(
    plans.flatMap(({ budget }) =>
      budget.schedules.flatMap((r) =>
        r.kind === 'staff'
          ? [r.account, r.oncostAccount, r.through].filter((a): a is AccountId => a !== null)
          : [],
      ),
    ),
  ),
];
