import { indexOfId, toDayNumber, type DayNumber, type Period } from '@/core/calendar';
import { defaultBank, type BalanceTarget, type ProjectionInput, type ScheduledRow } from '@/core/cash';
import { lastOf } from '@/core/lastOf';
import {
  isProfitAndLoss,
  naturalSign,
  type Account,
  type AccountId,
  type CashSource,
  type DueRule,
  type MovedTo,
  type RowOf,
  type ScheduleRow,
  type Terms,
} from '@/core/model';
import type { RowResult } from '@/core/plan';
import {
  accountFor,
  daysOf,
  isStandIn,
  lineAccount,
  occurrenceNumbers,
  taxPayments,
  type RowPosting,
} from '@/core/schedule';
import type { MonthsOfPlan } from './cashPlan';
import type { Ground } from './ground';
import { rowsAdded } from './inCase';
import { isOn } from '@/core/scenario';
import { countedLater, eventsOfRow, type MissedEvent } from './missed';
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

/** Rows of closed months: as they were planned, whatever a case assumes. */
function pastRowsOf(ground: Ground, plan: MonthsOfPlan): PlannedRow[] {
  const base = ground.inCase?.base;
  const budget = base?.book.budgets.find((b) => b.id === plan.budget.id);
  return base && budget ? rowsOf(base, { ...plan, budget }) : rowsOf(ground, plan);
}

/** Staff that a case adds: what is withheld of pay of months that have closed since is due when it would have been. */
const staffAdded = (ground: Ground, plan: MonthsOfPlan): PlannedRow[] =>
  ground.inCase === null || !ground.inCase.assumed.some((a) => isOn(a, 'rowAdded'))
    ? []
    : rowsOf(ground, plan).filter(
        ({ made: { row } }) => row.kind === 'staff' && rowsAdded(ground.inCase!, plan.budget).includes(row),
      );

const all = () => true;

type PendingRow = {
  readonly source: CashSource;
  readonly postings: readonly RowPosting[];
  readonly owes: ScheduledRow['pastOwes'];
};

const owed = new WeakMap<readonly RowPosting[], NonNullable<ScheduledRow['pastOwes']>>();
/** The taxes of postings, the same list for the same ones. */
function owesOf(postings: readonly RowPosting[]): ScheduledRow['pastOwes'] {
  let own = owed.get(postings);
  if (!own) owed.set(postings, (own = postings.map((p) => p.owes!)));
  return own;
}

/**
 * The events of closed months that the ledger must show, by the rows of the budgets that ruled them. Where a balance is said
 * as well, or a credit line moves, an account's entries do not tell what a row brought about.
 */
export function closedEvents(
  ground: Ground,
  pastPlans: readonly MonthsOfPlan[],
  accounts: ReadonlyMap<AccountId, Account>,
  start: DayNumber,
): ReturnType<typeof eventsOfRow>[] {
  const { book } = ground;
  const { creditLine } = book.cash;
  return pastPlans.flatMap((plan) => {
    const { budget } = plan;
    const spared = new Set((budget.approved?.lines ?? budget.lines).map((l) => l.account));
    if (creditLine) spared.add(lineAccount(creditLine, book.accounts));
    return pastRowsOf(ground, plan)
      .filter(({ made }) => !spared.has(made.row.account))
      .map(({ made, postings }) => eventsOfRow(made, budget.id, postings('all', all), accounts, start))
      .filter((events) => events.length > 0);
  });
}

/** What rows of budgets still move after the start of events in closed months that they ruled: pay withheld, bills of purchases. */
function pendingRows(
  ground: Ground,
  plans: readonly MonthsOfPlan[],
  start: DayNumber,
  missed: readonly MissedEvent[],
): ReadonlyMap<string, PendingRow> {
  const out = new Map<string, PendingRow>();
  for (const plan of plans) {
    for (const { made, postings } of [...pastRowsOf(ground, plan), ...staffAdded(ground, plan)]) {
      if (made.row.kind === 'incomeTax') continue;
      const key = `${plan.budget.id} ${made.row.id}`;
      // What did not happen is paid when it does.
      const none = new Set(missed.filter((m) => m.row === key).map((m) => m.day));
      const of = `${start} ${[...none].join()}`;
      const own = postings(`pending ${of}`, (p) => p.day > start && p.of <= start && !none.has(p.of));
      const taxed = postings(`taxed ${of}`, (p) => p.owes !== undefined && p.of <= start && !none.has(p.of));
      if (own.length > 0 || taxed.length > 0)
        out.set(key, {
          source: SOURCES[made.row.kind],
          postings: own,
          owes: owesOf(taxed),
        });
    }
  }
  return out;
}

/** The rows of the budgets that plan the months ahead, and of those that ruled the closed ones before. */
export function scheduledRows(
  ground: Ground,
  plans: readonly MonthsOfPlan[],
  pastPlans: readonly MonthsOfPlan[],
  start: DayNumber,
  missed: readonly MissedEvent[],
): ScheduledRow[] {
  const pending = pendingRows(ground, pastPlans, start, missed);
  const met = new Set<string>();
  const rows = plans.flatMap((plan) =>
    plan.budget.schedules.length === 0
      ? []
      : rowsOf(ground, plan).flatMap(({ made: { row }, postings }): ScheduledRow[] => {
          const key = `${plan.budget.id} ${row.id}`;
          met.add(key);
          const own = pending.get(key)?.postings ?? NO_POSTINGS;
          const pastOwes = pending.get(key)?.owes;
          if (row.kind !== 'asset')
            return [
              { key, source: SOURCES[row.kind], postings: postings('all', all), cost: null, pending: own },
            ];
          return [
            {
              key,
              source: 'other',
              postings: postings('own', (p) => p.what !== 'sale'),
              cost: row.account,
              pending: own,
              ...(pastOwes ? { pastOwes } : {}),
            },
            {
              key: `${key} sale`,
              source: 'disposals',
              postings: postings('sale', (p) => p.what === 'sale'),
              cost: null,
              pending: NO_POSTINGS,
            },
          ];
        }),
  );
  for (const [key, { source, postings, owes }] of pending)
    if (!met.has(key))
      rows.push({
        key,
        source,
        postings: NO_POSTINGS,
        cost: null,
        pending: postings,
        ...(owes ? { pastOwes: owes } : {}),
      });
  for (const event of missed)
    if (event.row !== null)
      rows.push({
        key: `${event.row} ${event.key}`,
        source: event.source,
        postings: countedLater(event),
        cost: event.account,
      });
  return rows;
}

const NO_POSTINGS: readonly RowPosting[] = [];

/** So many closed months back paydays are looked for whose remittance may be due yet. */
const MONTHS_BACK = 6;

/** Payments of income taxes: of each account that they are owed on, by the first row that names it. */
export const makeTaxPaid = () =>
  lastOf(
    (
      calendar: Ground['calendar'],
      accounts: readonly Account[],
      bank: AccountId,
      opening: ReadonlyMap<AccountId, number>,
      start: DayNumber,
      until: DayNumber,
      credited: (account: AccountId, from: DayNumber, to: DayNumber) => number,
      ...rows: readonly (RowOf<'incomeTax'> | readonly RowPosting[])[]
    ): ScheduledRow[] => {
      const out: ScheduledRow[] = [];
      const met = new Map<AccountId, { row: RowOf<'incomeTax'>; accruals: RowPosting[] }>();
      for (let i = 0; i < rows.length; i += 2) {
        const row = rows[i] as RowOf<'incomeTax'>;
        const owed = row.payable ?? accountFor(accounts, 'incomeTax');
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
          postings: taxPayments(row, { calendar, bank, accounts }, accruals, {
            after: start,
            until,
            stood: -(opening.get(owed) ?? 0),
            credited: isStandIn(owed) ? null : (from, to) => credited(owed, from, to),
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

/**
 * When what stands withheld from pay at the start is paid, as far as no closed payday tells: on the first day on which
 * anything withheld by then is due.
 */
export function settledAtStart(
  { book, calendar }: Ground,
  plans: readonly MonthsOfPlan[],
  terms: readonly Terms[],
  start: DayNumber,
): ProjectionInput['settled'] {
  const days = daysOf(book.workWeek);
  const first = new Map<AccountId, DayNumber>();
  const closed = calendar.indexOfDay(start);
  const closedMonths = Array.from({ length: MONTHS_BACK }, (_, i) => calendar.period(closed - i));
  const ends = closedMonths.map((p) => toDayNumber(p.end));
  const put = (
    account: AccountId,
    paydays: (period: Period) => readonly DayNumber[],
    due: DueRule,
    moved: MovedTo,
  ): void => {
    if (isStandIn(account)) return;
    const kind = book.accounts.find((a) => a.id === account)?.kind;
    // Payables and taxes have ways of their own to be settled.
    if (kind === 'payable' || kind === 'receivable') return;
    if (book.cash.taxes.some((t) => t.payable === account)) return;
    // Whatever paydays were typed, what was withheld by a month's end is due as if it had been that day.
    const next = [...closedMonths.flatMap(paydays), ...ends]
      .map((d) => days.due(d, due, moved))
      .filter((d) => d > start);
    const day = next.length > 0 ? Math.min(...next) : start + 1;
    first.set(account, Math.min(day, first.get(account) ?? Infinity));
  };
  for (const { budget } of plans)
    for (const row of budget.schedules)
      if (row.kind === 'staff')
        put(
          row.through ?? accountFor(book.accounts, 'withheld'),
          (p) => occurrenceNumbers(p, row.paydays, book.workWeek),
          row.remitted,
          row.moved,
        );
  for (const { parts } of terms)
    for (const { rule } of parts)
      if (rule.kind === 'payroll')
        put(
          rule.through ?? accountFor(book.accounts, 'withheld'),
          (p) => days.on(rule.on, p, null),
          rule.rest,
          rule.moved,
        );
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
