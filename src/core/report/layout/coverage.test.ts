import { makeGround, type Ground } from '@/core/ground';
import type { Budget, Layout, LayoutColumn } from '@/core/model';
import { minor } from '@/core/money';
import { cellOf, comparedWith } from '..';
import { account, blockOf, bookWith, budgetOf, byMonth, calendar, line, sourceOf } from '../../test/build';
import { reportOf, STANDARD } from '../../test/variance';

/*
 * A column is what its head says: every span beside every comparison, whichever of its months the budget covers, held against
 * plain sums over months.
 */

const first = calendar.firstOfYear(2026);
const sales = account('s', 'income', 'Sales');
/** Every amount and every sum of some of them is another one. */
const actual = (p: number) => 1000 + 2 ** (p - first + 12);
const planned = (p: number) => 3 ** (p - first);
const CLOSED = first + 8;
const FROM = first - 12;
/** Two years of actuals, up to September 2026. */
const block = blockOf(
  [sales],
  Array.from({ length: CLOSED - FROM + 1 }, (_, i) => [
    `${calendar.period(FROM + i).start.slice(0, 8)}15`,
    's',
    actual(FROM + i),
  ]),
);
const budget = (from: number, length: number): Budget =>
  budgetOf(
    [
      line(
        's',
        byMonth(
          Object.fromEntries(
            Array.from({ length }, (_, i) => [
              calendar.period(first + from + i).id,
              minor(planned(first + from + i)),
            ]),
          ),
        ),
      ),
    ],
    'b1',
    { first: calendar.period(first + from).id, length },
  );
const groundOf = (own: Budget | null): Ground =>
  makeGround(
    bookWith([sales], {
      sources: [sourceOf()],
      closedThrough: calendar.period(CLOSED).id,
      budgets: own ? [own] : [],
    }),
    new Map([[block.id, block]]),
  );

const COVERS: readonly (readonly [string, Budget | null])[] = [
  ['the whole year', budget(0, 12)],
  ['the year from July on', budget(6, 6)],
  ['July to June', budget(6, 12)],
  ['the year until August', budget(0, 8)],
  ['one month', budget(7, 1)],
  ['none of it', null],
];

type Span = LayoutColumn['span'];
const SPANS: readonly (readonly [
  string,
  Span,
  (month: number) => readonly number[],
  'whole' | 'soFar' | 'year',
])[] = [
  ['month', { of: 'month', back: 0 }, (m) => [m], 'whole'],
  ['the month before', { of: 'month', back: 1 }, (m) => [m - 1], 'whole'],
  ['quarter', { of: 'quarter' }, (m) => run(m - ((m - first) % 3), m), 'soFar'],
  ['year to date', { of: 'toDate' }, (m) => run(first, m), 'soFar'],
  ['year', { of: 'year' }, () => run(first, first + 11), 'year'],
  ['twelve months', { of: 'rolling' }, (m) => run(m - 11, m), 'soFar'],
  [
    'a range',
    { of: 'range', first: calendar.period(first - 2).id, last: calendar.period(first + 7).id },
    () => run(first - 2, first + 7),
    'soFar',
  ],
];
const run = (from: number, to: number): readonly number[] =>
  Array.from({ length: to - from + 1 }, (_, i) => from + i);
const total = (months: readonly number[], of: (p: number) => number): number | null =>
  months.length === 0 ? null : months.reduce((t, p) => t + of(p), 0);

/** In tenths of a percent of the size of what it is beside, half away from zero. */
const perMille = (part: number, whole: number): number =>
  Math.sign(part) * Math.floor((2000 * Math.abs(part) + Math.abs(whole)) / (2 * Math.abs(whole))) || 0;

const column = (
  show: LayoutColumn['show'],
  span: Span,
  against: LayoutColumn['against'] = 'first',
): LayoutColumn => ({
  show,
  against,
  span,
  hidden: false,
  unit: '',
});

describe.each(COVERS)('with a budget of %s', (_, own) => {
  const ground = groundOf(own);
  const from = own ? first + Number(own.first.slice(-2)) - 1 : 0;
  const isPlanned = (p: number) => own !== null && p >= from && p < from + own.length;
  describe.each([
    ['August', first + 7],
    ['April', first + 3],
  ])('in %s', (_month, month) => {
    const compares = own !== null && isPlanned(month);
    test.each(SPANS)('%s', (_name, span, monthsOf, counts) => {
      const layout: Layout = {
        ...STANDARD,
        rows: { ...STANDARD.rows, set: 'profitAndLoss' },
        columns: [
          column('actual', span),
          column('compared', span),
          column('difference', span),
          column('percent', span),
          column('outlook', span),
          column('rest', span),
          column('compared', span, 'lastYear'),
          column('difference', span, 'lastYear'),
        ],
      };
      const showOf = (place: number) => layout.columns[place]!.show;
      const compared = comparedWith(ground, month, layout, own && 'b1');
      expect(compared.first).toBe(compares ? 'comparison' : 'lastYear');
      const { table } = reportOf(ground, layout, month, own && 'b1');
      const row = table.rows.find((r) => r.key === 's')!;
      const cells = table.columns.map((c) => cellOf(table, row, c.key));
      const months = monthsOf(month);
      const known = months.filter((p) => p <= CLOSED);
      // A year is expected to come to what happened, and what is planned of what comes.
      const expects = (p: number) => p <= CLOSED || (compares && isPlanned(p));
      const left = counts === 'year' ? (p: number) => (p <= CLOSED ? actual(p) : planned(p)) : actual;
      const counted = counts === 'soFar' ? known : months;
      /** Only a part of what counts: how many months that is; null where it is all of them, or a single month. */
      const partOf = (own: readonly number[], all = counted) =>
        all.length > 1 && own.length < all.length ? own.length : null;
      const side = (of: (p: number) => number, covers: (p: number) => boolean) => {
        const said = counted.filter(covers);
        const both = counts === 'year' ? said.filter(expects) : said;
        const compares =
          counts !== 'whole' || (both.length === months.length && known.length === months.length);
        const apart = compares && both.length > 0 ? total(both, left)! - total(both, of)! : null;
        return {
          amount: total(said, of),
          apart,
          percent: apart === null ? null : perMille(apart, total(both, of)!),
          said: partOf(said),
          compared: partOf(both),
        };
      };
      const before = (p: number) => p - 12 >= FROM;
      const lastYear = side((p) => actual(p - 12), before);
      const plan = compares ? side(planned, isPlanned) : lastYear;
      const ahead = months.filter((p) => p > CLOSED && (compares ? isPlanned(p) : before(p)));
      const expected = months.filter(expects);
      expect(table.columns[0]!.periods).toEqual({ first: months[0], last: months.at(-1) });
      expect(cells).toEqual([
        total(known, actual),
        plan.amount,
        plan.apart,
        plan.percent,
        total(counts === 'year' ? expected : known.length === months.length ? months : expected, (p) =>
          p <= CLOSED ? actual(p) : planned(p),
        ),
        total(ahead, compares ? planned : (p) => actual(p - 12)),
        // Beside nothing but last year, last year stands once.
        ...(compares ? [lastYear.amount, lastYear.apart] : []),
      ]);
      // What is of some of its months alone says so, and what holds all of them does not.
      expect(table.columns.map((c) => c.only?.length ?? null)).toEqual([
        null,
        plan.said,
        plan.compared,
        plan.compared,
        counts === 'year' ? partOf(expected, months) : null,
        plan.said,
        ...(compares ? [lastYear.said, lastYear.compared] : []),
      ]);
      for (const c of table.columns) {
        expect(c.label.includes(' of ')).toBe(c.only !== undefined);
        // How many are missing: all that count and are none of those.
        const of = c.key.includes('Outlook') ? months : counted;
        expect(c.lacks).toBe(c.only && `${showOf(c.place!)} lacks ${of.length - c.only.length}`);
      }
    });
  });
});

test('of nothing and of what is below it no percent is told; the difference and its sense are', () => {
  const fees = account('f', 'income', 'Fees');
  const month = first;
  const own = blockOf(
    [sales, fees],
    [
      ['2026-01-15', 's', 700],
      ['2026-01-15', 'f', -900],
    ],
  );
  const ground = makeGround(
    bookWith([sales, fees], {
      sources: [sourceOf()],
      closedThrough: calendar.period(month).id,
      budgets: [
        budgetOf(
          [
            line('s', byMonth({ [calendar.period(month).id]: minor(-100) })),
            line('f', byMonth({ [calendar.period(month).id]: minor(50) })),
          ],
          'b1',
        ),
      ],
    }),
    new Map([[own.id, own]]),
  );
  const span = { of: 'month', back: 0 } as const;
  const layout: Layout = {
    ...STANDARD,
    rows: { ...STANDARD.rows, set: 'profitAndLoss' },
    columns: (['difference', 'percent', 'sense', 'reached', 'share'] as const).map((show) =>
      column(show, span),
    ),
  };
  const { table } = reportOf(ground, layout, month, 'b1');
  const told = (key: string) => table.rows.find((r) => r.key === key)!.cells;
  // A loss of 100 was planned, and 700 was earned; the company's income as a whole is −200.
  expect(told('s')).toEqual([800, null, 'F', null, null]);
  expect(told('f')).toEqual([-950, -19_000, 'U', -18_000, null]);
});
