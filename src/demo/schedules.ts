import { day, type PeriodId } from '@/core/calendar';
import { reckoned, type Ground } from '@/core/ground';
import { besideSchedule } from '@/core/plan';
import {
  newAccount,
  type Book,
  type Command,
  type Covenant,
  type OwnRatio,
  type RowOf,
  type ScheduleRow,
} from '@/core/model';
import { minor, percent } from '@/core/money';

/* The boatyard's schedules: the hoist's loan since June; in November staff by position, the register of assets, a launch that
 * is replaced in spring on a new loan, members' shares and the tax on trading. */

const base = { note: '', segment: null, bank: null };
const GAIN = '7030';
const LAUNCH_LOAN = '2510';
const LAUNCH_INTEREST = '8020';
const INCOME_TAX = '9010';
const TAX_OWED = '2210';

const BIWEEKLY = { of: 'weeks', every: 2, from: day('2024-07-05') } as const;

/** The hoist's loan, as the bank wrote it: sixty payments of 1,193.74 from October 2025 on, at 7.2 percent. */
export function hoistLoan(book: Book): RowOf<'loan'> {
  const id = idsOf(book);
  return {
    kind: 'loan',
    id: 'r1',
    name: 'Boat hoist loan',
    ...base,
    note: 'First Estuary Bank, September 2025.',
    account: id('2500'),
    interest: id('8010'),
    accrued: null,
    begins: { of: 'drawn', day: day('2025-09-03'), amount: minor(6_000_000) },
    rate: percent('7.2'),
    rates: [],
    repay: { of: 'level', payment: minor(119_374) },
    first: day('2025-10-03'),
    every: 1,
    payments: 60,
    grace: 0,
    days: '30/360',
    extra: [],
    afterExtra: 'shorter',
  };
}

const idsOf = (book: Book) => {
  const byCode = new Map(book.accounts.map((a) => [a.code, a.id]));
  return (code: string) => byCode.get(code)!;
};

/** A position by payday: what the office and the yard were paid in October, to the dollar. */
const position = (
  book: Book,
  place: number,
  name: string,
  count: number,
  pay: RowOf<'staff'>['pay'],
  account: string,
  change: Partial<RowOf<'staff'>> = {},
): RowOf<'staff'> => {
  const id = idsOf(book);
  return {
    kind: 'staff',
    id: `r${place}`,
    name,
    note: '',
    account: id(account),
    oncostAccount: id('6040'),
    through: id('2100'),
    bank: null,
    count,
    pay,
    from: null,
    until: null,
    raises: [{ from: day('2027-01-01'), change: { of: 'percent', percent: percent('2.5') } }],
    paydays: BIWEEKLY,
    moved: 'stays',
    oncosts: [{ name: 'Employer’s payroll tax', percent: percent('9'), cap: null, year: 'fiscal' }],
    withheld: percent('14'),
    remitted: { of: 'days', days: 3 },
    once: [],
    split: [{ segment: null, percent: percent('100') }],
    ...change,
  };
};

function staffOf(book: Book): ScheduleRow[] {
  const id = idsOf(book);
  const perPayday = (amount: number) => ({ per: 'payday', amount: minor(amount) }) as const;
  return [
    position(book, 2, 'Yard manager', 100, perPayday(231_000), '6010'),
    position(book, 3, 'Shipwrights', 200, perPayday(194_000), '6010'),
    position(book, 4, 'Rigger', 100, perPayday(169_000), '6010'),
    position(book, 5, 'Yard hands', 200, perPayday(151_000), '6010'),
    position(book, 6, 'Yard hand for the summer', 100, perPayday(148_000), '6010', {
      from: day('2027-05-03'),
      until: day('2027-09-30'),
      raises: [],
      once: [{ account: id('6420'), name: 'Tools and boots', amount: minor(42_000) }],
    }),
    position(book, 7, 'Office manager', 80, perPayday(235_850), '6030'),
    position(
      book,
      8,
      'Sailing instructors',
      100,
      { per: 'hour', amount: minor(2_600), hours: { of: 'driver', driver: 'd3' } },
      '6020',
      { raises: [] },
    ),
  ];
}

const asset = (
  book: Book,
  place: number,
  name: string,
  cost: number,
  bought: string,
  change: Partial<RowOf<'asset'>>,
): RowOf<'asset'> => {
  const id = idsOf(book);
  return {
    kind: 'asset',
    id: `r${place}`,
    name,
    note: '',
    account: id('1510'),
    expense: id('6500'),
    accumulated: id('1590'),
    segment: null,
    bought: day(bought),
    cost: minor(cost),
    standing: null,
    residual: minor(0),
    way: { of: 'straight', months: 120 },
    paid: { due: { of: 'days', days: 0 }, through: null, bank: null },
    tax: null,
    sold: null,
    ...change,
  };
};

function assetsOf(book: Book): ScheduleRow[] {
  const id = idsOf(book);
  const june = (accumulated: number, months: number) => ({
    day: day('2026-06-30'),
    accumulated: minor(accumulated),
    months,
  });
  return [
    asset(book, 10, 'Yard equipment of before', 9_700_000, '2021-03-01', {
      standing: june(5_380_000, 32),
    }),
    asset(book, 11, 'Launch Teal', 2_100_000, '2020-04-01', {
      standing: june(1_460_000, 32),
      sold: { day: day('2027-04-20'), price: minor(450_000), gain: id(GAIN) },
    }),
    asset(book, 12, 'School boats', 4_100_000, '2021-05-01', {
      account: id('1530'),
      standing: june(2_180_000, 32),
    }),
    asset(book, 13, 'Boat hoist', 7_200_000, '2025-09-03', {
      account: id('1520'),
      way: { of: 'straight', months: 144 },
    }),
    asset(book, 14, 'Pontoons, North Yard', 9_600_000, '2026-03-22', {
      note: 'Nothing was written off in the ledger so far; from November on, over twenty years.',
      standing: { day: day('2026-10-31'), accumulated: minor(0), months: 240 },
      way: { of: 'straight', months: 240 },
    }),
    asset(book, 15, 'Slipway rebuild, first part', 9_800_000, '2026-09-22', {
      note: 'Not in use before the rebuild is done.',
      way: { of: 'none' },
    }),
    asset(book, 16, 'Launch Merganser', 4_800_000, '2027-04-12', {
      note: 'In place of Teal, before the season.',
      residual: minor(600_000),
      way: { of: 'straight', months: 84 },
    }),
  ];
}

/** The accounts that the schedules of November need and the ledger does not have yet. */
export const scheduleAccounts = (book: Book): Command[] =>
  (
    [
      [GAIN, 'Gain on equipment sold', 'otherIncome'],
      [LAUNCH_LOAN, 'Launch loan', 'loan'],
      [LAUNCH_INTEREST, 'Interest on launch loan', 'otherExpense'],
      [TAX_OWED, 'Income tax owed', 'taxPayable'],
      [INCOME_TAX, 'Income tax on trading', 'otherExpense'],
    ] as const
  ).map(([code, name, kind], i) => ({
    type: 'addAccount',
    account: newAccount(`a${book.nextId + i}`, code, name, kind),
  }));

/** What the treasurer enters in November, into the revision; the ledger agrees with where it begins. */
export function demoSchedules(ground: Ground, budgetId: string): Command[] {
  const { book } = ground;
  const id = idsOf(book);
  const budget = book.budgets.find((b) => b.id === budgetId)!;
  const { reckoning, facts } = reckoned(ground, budget);
  const rows: ScheduleRow[] = [
    ...staffOf(book),
    {
      ...hoistLoan(book),
      id: 'r9',
      name: 'Launch loan',
      note: 'Offered by First Estuary Bank in October: debt service must stay covered.',
      account: id(LAUNCH_LOAN),
      interest: id(LAUNCH_INTEREST),
      begins: { of: 'drawn', day: day('2027-04-12'), amount: minor(4_000_000) },
      rate: percent('7.5'),
      repay: { of: 'level', payment: null },
      first: day('2027-05-12'),
    },
    ...assetsOf(book),
    {
      kind: 'incomeTax',
      id: 'r17',
      name: 'Tax on trading',
      note: '',
      account: id(INCOME_TAX),
      payable: id(TAX_OWED),
      bank: null,
      segment: null,
      rate: percent('21'),
      losses: minor(5_200_000),
      installments: [],
      due: { of: 'months', months: 4, day: 15 },
    },
    {
      kind: 'equity',
      id: 'r18',
      name: 'Shares of new members',
      note: 'Twelve berths on the waiting list, two a month.',
      account: id('3010'),
      bank: null,
      what: 'paidIn',
      amount: minor(60_000),
      first: day('2026-11-20'),
      repeat: { every: 1, unit: 'months', until: day('2027-04-30'), times: null },
    },
  ];
  const covenant: Covenant = {
    id: 'c1',
    name: 'First Estuary Bank',
    ratio: 'debtService',
    bound: 'least',
    limit: 5000,
    from: '2027-06' as PeriodId,
    tested: 'quarter',
  };
  const payroll = ['6010', '6020', '6030', '6040'].map((code) => `"account:${id(code)}"`).join(' + ');
  const ofIncome: OwnRatio = {
    id: 'o1',
    name: 'Payroll of income',
    formula: `(${payroll}) / "kind:income"`,
    unit: 'percent',
  };
  /** What the board asks of itself. */
  const asked: Covenant = {
    id: 'c2',
    name: 'Board',
    ratio: { own: ofIncome.id },
    bound: 'most',
    limit: 405,
    from: '2027-06' as PeriodId,
    tested: 'quarter',
  };
  const made = ['6010', '6020', '6030', '6040', '6500', GAIN, LAUNCH_INTEREST, INCOME_TAX];
  return [
    { type: 'setCovenant', covenant },
    { type: 'setOwnRatio', ratio: ofIncome },
    { type: 'setCovenant', covenant: asked },
    // Instructors are paid by the hour of the courses; a third of the yard's hours follows the refits.
    { type: 'setCostBehavior', accounts: [id('6020')], variable: 100 },
    { type: 'setCostBehavior', accounts: [id('6010')], variable: 33 },
    {
      type: 'setDriver',
      budget: budget.id,
      driver: {
        id: 'd3',
        name: 'Course hours',
        unit: 'hours',
        decimals: 0,
        opening: null,
        series: {
          kind: 'typed',
          values: {
            ['2027-01' as PeriodId]: 449,
            ['2027-02' as PeriodId]: 320,
            ['2027-11' as PeriodId]: 100,
            ['2027-12' as PeriodId]: 285,
          },
        },
        note: 'Instructors, all courses together.',
      },
    },
    {
      type: 'putScheduleRows',
      budget: budget.id,
      rows,
      lines: [
        ...made.map((code) => ({
          account: id(code),
          segment: null,
          method: { kind: 'schedule' as const, beside: {} },
        })),
        // Tools for the summer come on top of the tools that are bought every year.
        {
          account: id('6420'),
          segment: null,
          method: besideSchedule(reckoning.lines.get({ account: id('6420'), segment: null }), facts),
        },
      ],
    },
  ];
}
