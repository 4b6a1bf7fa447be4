import fc from 'fast-check';
import { HyperFormula } from 'hyperformula';
import { toDayNumber, type Day } from '@/core/calendar';
import { createMemory, groundAssuming, makeGround } from '@/core/ground';
import { minor } from '@/core/money';
import { blockOf, calendar, periodIds, sourceOf } from '@/core/test/build';
import { assumption, percentOn, range, smallPlan } from '@/core/test/smallPlan';
import { answered, answering, FLOOR, outcomeOf, outcomesOf, type Asked } from '.';

/* Questions about a plan of three months, answered by hand and by the cases that they are about. */

const first = calendar.firstOfYear(2026);
const ids = periodIds(2026);
const asked = (ground = smallPlan()): Asked => ({ ground, look: null, range });
const day = (text: string) => toDayNumber(text as Day);
const atBank = {
  ownRatios: [{ id: 'o1', name: 'At the bank', formula: '"account:bank"', unit: 'money' as const }],
  covenants: [
    {
      id: 'n1',
      name: 'Owners',
      ratio: { own: 'o1' },
      bound: 'least' as const,
      limit: 2_000,
      from: ids[0]!,
      tested: 'period' as const,
    },
  ],
};

test('a sought size, put back, meets the goal, and one step less does not', () => {
  const ground = smallPlan();
  // January's rent and goods are 1,400 of the 1,000 that there are: 400 less of 600 is two thirds of the rent.
  const { size } = answered(asked(ground), {
    ask: 'seek',
    assumed: [percentOn('goods', 0), percentOn('rent', -1_000)],
    adjustment: 'rent',
    outcome: 'lowBank',
    goal: 0,
    origin: 0,
    ends: [-100_000, 0],
  });
  // Of 600 a hundredth of a percent is 0.06: 66.6 % leaves 200, rounded.
  expect(size).toBe(-66_590);
  const low = (s: number) =>
    outcomeOf(groundAssuming(ground, 'x', [percentOn('rent', s)]), null, range, 'lowBank')!.amount;
  expect(low(size!)).toBe(0);
  expect(low(size! + 10)).toBe(-1);
});

test('an outcome that is better for being less is sought from above', () => {
  const answer = answered(asked(), {
    ask: 'seek',
    assumed: [percentOn('goods', 0)],
    adjustment: 'goods',
    outcome: 'daysUnder',
    goal: 0,
    origin: 0,
    ends: [-100_000, 100_000],
  });
  // 400 of January's 800, and nothing is under the floor.
  expect(answer.size).toBe(-49_940);
});

describe('steps', () => {
  test('in order, alone, together; and at the ends that were said', () => {
    const assumed = [
      { ...percentOn('sales', 10_000), low: 0, high: 20_000 },
      {
        ...assumption(
          'all',
          { on: 'amounts', reach: { lines: [{ of: 'income' }] }, way: { as: 'percent' } },
          50_000,
        ),
        low: null,
        high: null,
      },
      { ...percentOn('rent', 10_000), low: null, high: 50_000 },
    ];
    const steps = answered(asked(), { ask: 'steps', assumed, outcome: 'netProfit' })!;
    expect(steps).toEqual({
      begin: 900,
      // 4,000 → 4,400 → 6,600; rent 1,800 → 1,980.
      end: 6_600 - 1_300 - 1_980,
      steps: [
        { of: 'sales', effect: 400 },
        { of: 'all', effect: 2_200 },
        { of: 'rent', effect: -180 },
      ],
      alone: [
        { of: 'sales', effect: 400 },
        { of: 'all', effect: 2_000 },
        { of: 'rent', effect: -180 },
      ],
      together: 200,
      swings: [
        { low: 6_000 - 1_300 - 1_980, high: 7_200 - 1_300 - 1_980 },
        { low: null, high: null },
        { low: null, high: 6_600 - 1_300 - 2_700 },
      ],
    });
  });

  test('the same adjustment at its own size is reckoned once', () => {
    const way = answering(asked(), {
      ask: 'steps',
      assumed: [{ ...percentOn('sales', 10_000), low: 10_000, high: null }],
      outcome: 'netProfit',
    });
    expect([...way].at(-1)).toBe(1);
  });
});

test('a cell of a table is the case with its sizes, and says what breaks newly and what breaks in the plan', () => {
  const ground = smallPlan({}, atBank);
  const size = fc.integer({ min: -60_000, max: 60_000 });
  fc.assert(
    fc.property(
      fc.array(size, { minLength: 1, maxLength: 3 }),
      fc.array(size, { minLength: 1, maxLength: 3 }),
      (down, across) => {
        const table = answered(asked(ground), {
          ask: 'table',
          assumed: [percentOn('sales', 0), percentOn('rent', 5_000), percentOn('goods', 0)],
          down: { adjustment: 'sales', sizes: down },
          across: { adjustment: 'goods', sizes: across },
          outcome: 'closingBank',
        });
        down.forEach((a, i) =>
          across.forEach((b, k) => {
            const own = groundAssuming(ground, 'own', [
              percentOn('sales', a),
              percentOn('rent', 5_000),
              percentOn('goods', b),
            ]);
            const made = outcomesOf(own, null, range)!;
            const cell = table.cells[i]![k]!;
            expect(cell.outcome).toEqual(made.of.closingBank);
            // As planned the floor breaks on 10 January and the covenant in January: nothing is new but nothing.
            expect(cell.newly).toEqual([]);
            expect(cell.asPlanned.includes(FLOOR)).toBe(made.of.lowBank!.amount < 0);
            expect(cell.asPlanned.includes('n1')).toBe(made.covenants[0]!.broken !== null);
          }),
        );
      },
    ),
    { numRuns: 15 },
  );
});

test('what a plan keeps and a case breaks is new', () => {
  const ground = smallPlan({ floor: minor(-400) });
  const { cells } = answered(asked(ground), {
    ask: 'table',
    assumed: [percentOn('rent', 0), percentOn('goods', 0)],
    down: { adjustment: 'rent', sizes: [0, 10_000] },
    across: { adjustment: 'goods', sizes: [-10_000, 0] },
    outcome: 'lowBank',
  });
  // 60 of rent more and 80 of goods less.
  expect(cells.map((row) => row.map((c) => [c.outcome!.amount, c.newly, c.asPlanned]))).toEqual([
    [
      [-320, [], []],
      [-400, [], []],
    ],
    [
      [-380, [], []],
      [-460, [FLOOR], []],
    ],
  ]);
});

test('a table of lowest days is what a general spreadsheet engine makes of the same days', () => {
  // Money of the plan by day, as the sheet adds it up: rent on the 5th, goods on the 10th, sales on the 20th of each month.
  const days: readonly (readonly [number, 'rent' | 'goods' | 'sales'])[] = [
    [-600, 'rent'],
    [-800, 'goods'],
    [2_000, 'sales'],
    [-600, 'rent'],
    [-500, 'goods'],
    [2_000, 'sales'],
    [-600, 'rent'],
  ];
  const [sales, goods] = [
    [-60_000, -33_330, -12_345, 0, 4_170],
    [-50_000, 0, 7_777, 66_660],
  ] as const;
  const cells = answered(asked(), {
    ask: 'table',
    assumed: [percentOn('sales', 0), percentOn('goods', 0), percentOn('rent', 12_500)],
    down: { adjustment: 'sales', sizes: sales },
    across: { adjustment: 'goods', sizes: goods },
    outcome: 'lowBank',
  }).cells.map((row) => row.map((c) => c.outcome!.amount));
  // D1, E1, F1: thousandths of a percent of each; A: planned, B: adjusted, C: the bank.
  const column = { sales: '$D$1', goods: '$E$1', rent: '$F$1' };
  const engine = HyperFormula.buildFromArray(
    [
      ...days.map(([amount, of], i) => [
        amount,
        `=SIGN(A${i + 1})*ROUND(ABS(A${i + 1})*(1+${column[of]}/100000),0)`,
        i === 0 ? '=1000+B1' : `=C${i}+B${i + 1}`,
      ]),
      [`=MIN(1000,C1:C${days.length})`],
    ],
    { licenseKey: 'gpl-v3' },
  );
  const at = (row: number, col: number) => ({ sheet: 0, row, col });
  engine.setCellContents(at(0, 5), 12_500);
  sales.forEach((a, i) =>
    goods.forEach((b, k) => {
      engine.setCellContents(at(0, 3), a);
      engine.setCellContents(at(0, 4), b);
      expect(cells[i]![k]).toBe(engine.getCellValue(at(days.length, 0)));
    }),
  );
  expect(new Set(cells.flat()).size).toBeGreaterThan(8);
});

describe('how far each may go', () => {
  const ends = { rent: [-100_000, 100_000], goods: [-100_000, 100_000] } as const;

  test('until the floor breaks, all else as it is', () => {
    const ground = smallPlan({ floor: minor(-500) });
    const answers = answered(asked(ground), {
      ask: 'howFar',
      assumed: [percentOn('rent', 5_000), percentOn('goods', 0)],
      ends,
    });
    // At −400 − 30: 70 more. Of 600 it is up to 100.49, of 800 up to 70.49.
    expect(answers.map((a) => [a.adjustment, a.mends, a.keeps.size, a.keeps.runs])).toEqual([
      ['rent', null, 5_000, [{ from: -100_000, to: 16_740 }]],
      ['goods', null, 0, [{ from: -100_000, to: 8_810 }]],
    ]);
  });

  test('what is broken already does not hide what else would break', () => {
    // The covenant asks for 1,500 at each month's end, of 1,600, 2,500 and 1,900: 100 of January's 600 more breaks it.
    const book = { ...atBank, covenants: [{ ...atBank.covenants[0]!, limit: 1_500 }] };
    const [rent] = answered(asked(smallPlan({}, book)), {
      ask: 'howFar',
      assumed: [percentOn('rent', 0)],
      ends: { rent: [-10_000, 40_000] },
    });
    expect(rent!.keeps.runs).toEqual([{ from: -10_000, to: 16_740 }]);
    expect(rent!.mends!.size).toBeNull();
  });

  test('what is broken already says what would mend it; a range is widened to the size that is', () => {
    const [rent] = answered(asked(), {
      ask: 'howFar',
      assumed: [percentOn('rent', 5_000)],
      ends: { rent: [-90_000, 0] },
    });
    expect(rent!.mends!.size).toBe(-66_590);
    expect(rent!.mends!.runs.at(-1)!.to).toBe(-66_590);
    // Nothing else can break.
    expect(rent!.keeps.runs).toEqual([{ from: -90_000, to: 5_000 }]);
  });
});

describe('draws', () => {
  const ranged = { ...percentOn('rent', 0), low: -80_000, high: 0 };

  test('the bank by week, and how often the floor breaks', () => {
    const draws = answered(asked(), { ask: 'draws', assumed: [ranged], seed: 1, count: 201 });
    // From 1 January to 31 March: 13 weeks less a day.
    expect(draws.weeks[0]).toBe(day('2026-01-07'));
    expect(draws.weeks.at(-1)).toBe(day('2026-03-31'));
    expect(draws.weeks).toHaveLength(13);
    expect(draws.fan).toHaveLength(13);
    // After the rent of the 5th: 400 and up to 480 more.
    const [low, middle, high] = draws.fan[0]!;
    expect(low).toBeGreaterThanOrEqual(400);
    expect(low).toBeLessThan(middle);
    expect(middle).toBeLessThan(high);
    expect(high).toBeLessThanOrEqual(880);
    // The floor holds from −66.6 % on: that is (13.4 ÷ 80)² of all, one in 36.
    expect(draws.broken.get(FLOOR)).toBe(draws.any);
    expect(draws.any).toBeGreaterThan(185);
    expect(draws.any).toBeLessThan(201);
    expect(draws.hangsOn).toHaveLength(1);
  });

  test('weeks end with the months: a last week that is whole is there once', () => {
    const february = { ground: smallPlan(), look: null, range: { first: first + 1, last: first + 1 } };
    const { weeks } = answered(february, { ask: 'draws', assumed: [ranged], seed: 1, count: 2 });
    expect(weeks).toEqual(['2026-02-07', '2026-02-14', '2026-02-21', '2026-02-28'].map(day));
  });

  test('without a low or a high nothing varies: it is the case', () => {
    const ground = smallPlan();
    const assumed = [{ ...percentOn('rent', 20_000), low: null, high: null }];
    const draws = answered(asked(ground), { ask: 'draws', assumed, seed: 1, count: 3 });
    const { plain, start } = outcomesOf(groundAssuming(ground, 'own', assumed), null, range)!.bank;
    expect(draws.fan).toEqual(
      draws.weeks.map((w) => [plain[w - start - 1], plain[w - start - 1], plain[w - start - 1]]),
    );
    expect(draws.any).toBe(3);
  });
});

describe('which case are we in', () => {
  const accounts = smallPlan().book.accounts;
  const opening = blockOf(
    accounts,
    [
      ['2025-12-31', 'bank', 1_000],
      ['2025-12-31', 'capital', 1_000],
    ],
    'l0',
  );
  // January: sales of 2,200, all else as planned.
  const january = blockOf(
    accounts,
    [
      ['2026-01-05', 'rent', 600],
      ['2026-01-05', 'bank', -600],
      ['2026-01-10', 'goods', 800],
      ['2026-01-10', 'bank', -800],
      ['2026-01-20', 'sales', 2_200],
      ['2026-01-20', 'bank', 2_200],
    ],
    'l1',
  );
  const { book: plain } = smallPlan();
  // February: 300 less rent than planned.
  const february = blockOf(
    accounts,
    [
      ['2026-02-05', 'rent', 300],
      ['2026-02-05', 'bank', -300],
      ['2026-02-10', 'goods', 500],
      ['2026-02-10', 'bank', -500],
      ['2026-02-20', 'sales', 2_000],
      ['2026-02-20', 'bank', 2_000],
    ],
    'l2',
  );
  const closed = (() => {
    const book = {
      ...plain,
      sources: [...plain.sources, sourceOf({ id: 's1', block: 'l1', fingerprint: '1'.padStart(64, '0') })],
      closedThrough: ids[0]!,
    };
    return makeGround(book, new Map([opening, january].map((b) => [b.id, b])), createMemory());
  })();
  const made = (id: string, at: string, size: number) => ({ id, at, assumed: [percentOn('sales', size)] });

  test('months that closed since, against what each said of them', () => {
    const nearest = answered(asked(closed), {
      ask: 'nearest',
      cases: [
        made('better', '2026-01-12T09:00:00Z', 12_000),
        made('worse', '2026-01-12T09:00:00Z', -12_000),
        made('new', '2026-02-03T09:00:00Z', 50_000),
      ],
    });
    const since = { first, last: first };
    expect(nearest).toEqual([
      { id: null, since, distance: { sum: 400, months: [{ profit: -200, bank: -200 }] } },
      { id: 'better', since, distance: { sum: 80, months: [{ profit: 40, bank: 40 }] } },
      { id: 'worse', since, distance: { sum: 880, months: [{ profit: -440, bank: -440 }] } },
      { id: 'new', since: null, distance: null },
    ]);
  });

  test('of several months each is told, and a case made later begins later', () => {
    const { book } = closed;
    const later = makeGround(
      {
        ...book,
        sources: [...book.sources, sourceOf({ id: 's2', block: 'l2', fingerprint: '2'.padStart(64, '0') })],
        closedThrough: ids[1]!,
      },
      new Map([opening, january, february].map((b) => [b.id, b])),
      createMemory(),
    );
    const nearest = answered(asked(later), {
      ask: 'nearest',
      cases: [made('old', '2026-01-12T09:00:00Z', 0), made('new', '2026-02-12T09:00:00Z', 0)],
    });
    expect(nearest.slice(1).map((n) => [n.id, n.since, n.distance])).toEqual([
      [
        'old',
        { first, last: first + 1 },
        {
          sum: 1_200,
          months: [
            { profit: -200, bank: -200 },
            { profit: -300, bank: -500 },
          ],
        },
      ],
      // January is known to it as it was.
      ['new', { first: first + 1, last: first + 1 }, { sum: 600, months: [{ profit: -300, bank: -300 }] }],
    ]);
  });

  test('where nothing has closed since, nothing is told', () => {
    const at = '2026-01-12T09:00:00Z';
    expect(answered(asked(), { ask: 'nearest', cases: [made('better', at, 0)] })).toEqual([
      { id: null, since: null, distance: null },
      { id: 'better', since: null, distance: null },
    ]);
    expect(answered(asked(closed), { ask: 'nearest', cases: [] })).toEqual([
      { id: null, since: null, distance: null },
    ]);
  });
});
