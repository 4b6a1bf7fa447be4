import { day, type PeriodId } from '@/core/calendar';
import type { Adjustment, Adjusts, Book, CaseSize, Command, RowOf, When } from '@/core/model';
import { minor } from '@/core/money';

/* What the treasurer tries over the autumn revision: a better, a likely and a worse winter. */

const AT = '2026-11-19T10:00:00.000Z';
const BY = 'Treasurer';

export const demoCases: Command = {
  type: 'addCases',
  cases: ['Better', 'Likely', 'Worse'].map((name) => ({ name, by: BY, at: AT })),
  like: null,
};

type Sizes = readonly [better: number | null, likely: number | null, worse: number | null];

/** The adjustments with their sizes, once the cases are there. */
export function demoAdjustments(book: Book): Command[] {
  const id = (code: string): string => book.accounts.find((a) => a.code === code)!.id;
  const line = (code: string) => ({ lines: [{ of: 'account' as const, account: id(code) }] });
  const rigger = book.budgets.flatMap((b) => b.schedules).find((r) => r.name === 'Rigger') as RowOf<'staff'>;
  const launch = book.budgets.flatMap((b) => b.schedules).find((r) => r.name === 'Launch Merganser')!;
  const when = (from: string, until: string | null = null): When => ({
    from: from as PeriodId,
    until: until as PeriodId | null,
    every: 1,
    times: null,
    ramp: null,
  });
  const adjusts = (
    name: string,
    why: string,
    what: Adjusts,
    time: When,
    sizes: Sizes,
    spread: Partial<CaseSize> = {},
  ): Command => {
    const adjustment: Omit<Adjustment, 'id'> = { name, why, by: BY, at: AT, what, when: time, off: false };
    const cells = book.cases.flatMap((c, i): [string, CaseSize][] => {
      const size = sizes[i] ?? null;
      return size === null ? [] : [[c.id, { low: null, high: null, ...(i === 2 ? spread : {}), size }]];
    });
    return { type: 'addAdjustment', adjustment, sizes: Object.fromEntries(cells) };
  };
  // The fiscal year begins in July: its seventh month is January.
  return [
    adjusts(
      'Repair and refit jobs',
      'Two yards open upstream; one of them does refits.',
      { on: 'amounts', reach: line('4100'), way: { as: 'percent' } },
      when('2027-07', '2027-12'),
      [12_000, null, -12_000],
    ),
    adjusts(
      'Customers pay later',
      'As in the spring of 2025, when reminders went out late.',
      { on: 'termsDays', reach: { lines: [{ of: 'income' }] } },
      when('2027-05'),
      [null, 8, 20],
      { low: 8, high: 28 },
    ),
    adjusts(
      'Power and water',
      'The tariff letter of October 3.',
      { on: 'amounts', reach: line('6200'), way: { as: 'growth', compounding: true, stays: false } },
      when('2027-07'),
      [null, 1_000, 2_500],
    ),
    adjusts(
      'A rigger more',
      'The board asked for it on September 18: masts wait for weeks.',
      {
        on: 'rowAdded',
        by: 'yes',
        row: {
          ...rigger,
          id: 'new',
          name: 'Second rigger',
          from: day('2027-02-01'),
          raises: [],
          once: [{ account: id('6420'), name: 'Tools and harness', amount: minor(95_000) }],
        },
      },
      when('2027-08'),
      [1, 1, null],
    ),
    adjusts(
      'Launch Merganser is late',
      'The builder may ask for two months more; Teal stays until then.',
      { on: 'rowMoved', row: launch.id },
      when('2027-10'),
      [null, null, 2],
    ),
    adjusts(
      'Berth fees for the season',
      'What would mend it: other yards on the creek ask 6% more.',
      {
        on: 'amounts',
        reach: { lines: ['4010', '4015'].map((code) => ({ of: 'account' as const, account: id(code) })) },
        way: { as: 'percent' },
      },
      when('2027-07'),
      [6_000, null, null],
    ),
  ];
}
