import fc from 'fast-check';
import { day, toDayNumber, type Day } from '@/core/calendar';
import { createReckoner } from '@/core/plan';
import {
  applyCommand,
  BOOK_VERSION,
  isProfitAndLoss,
  natural,
  openBook,
  type Book,
  type Budget,
  type Line,
  type Method,
  type ScheduleRow,
} from '@/core/model';
import { minor, percent } from '@/core/money';
import { loanTable, principalAt } from '@/core/schedule';
import { cashAccounts, flowAmount, flowLines } from '@/core/statements';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  didAll,
  line,
  periodIds,
  refusalOf,
  siteAxis,
  sourceOf,
} from '@/core/test/build';
import { atOnce, onAccount, terms, written } from '@/core/test/cash';
import {
  assetRow,
  equityRow,
  loanRow,
  releaseRow,
  SCHEDULE_ACCOUNTS as accounts,
  staffRow,
  taxRow,
} from '@/core/test/schedule';
import {
  aheadOf,
  cashOf,
  covenantsOf,
  linesApart,
  makeGround,
  offBalance,
  ratiosOf,
  reckoned,
  scheduleTies,
  type Ground,
} from '.';

const ids = periodIds(2026);
const at = (month: number) => calendar.firstOfYear(2026) + month - 1;
const OPENING: readonly (readonly [string, string, number])[] = [
  ['2025-12-01', 'bank', 9_000_000],
  ['2025-12-01', 'loan', 2_000_000],
  ['2025-12-01', 'boats', 1_000_000],
  ['2025-12-01', 'accumulated', -200_000],
  ['2025-12-01', 'prepaid', 100_000],
  ['2025-12-31', 'withheld', 40_000],
  ['2025-12-31', 'taxOwed', 5_000],
  ['2025-12-31', 'shares', 7_855_000],
];
const block = blockOf(accounts, OPENING);

const groundOf = (budgets: readonly Budget[], change: Partial<Book> = {}, blocks = [block]): Ground =>
  makeGround(
    bookWith(accounts, {
      sources: [sourceOf({ lastDay: '2025-12-31' as Day })],
      closedThrough: periodIds(2025)[11]!,
      budgets: [...budgets],
      ...change,
    }),
    new Map(blocks.map((b) => [b.id, b])),
  );

const bySchedule = (beside: Record<string, number> = {}): Method =>
  ({
    kind: 'schedule',
    beside: Object.fromEntries(Object.entries(beside).map(([p, a]) => [p, minor(a)])),
  }) as Method;
const MADE = ['wages', 'oncosts', 'tools', 'insurance', 'depreciation', 'gain', 'interest', 'tax'];
const sales = (amount: number): Line =>
  line('sales', byMonth(Object.fromEntries(ids.map((p) => [p, minor(amount)]))));

/** A budget of 2026 with these rows, its other lines made by them. */
const plan = (schedules: readonly ScheduleRow[], change: Partial<Budget> = {}): Budget =>
  budgetOf([sales(1_000_000), ...MADE.map((a) => line(a, bySchedule()))], 'b1', {
    schedules: [...schedules],
    terms: [terms('sales', ['100', onAccount([['100', { days: 30 }]])])],
    ...change,
  });

const LOAN = loanRow({
  begins: { of: 'stands', day: day('2025-12-31'), amount: minor(2_000_000) },
  first: day('2026-01-31'),
});
const BOATS = assetRow({
  bought: day('2024-01-01'),
  residual: minor(0),
  standing: { day: day('2025-12-31'), accumulated: minor(200_000), months: 40 },
});
const ALL: readonly ScheduleRow[] = [
  staffRow({
    withheld: percent('20'),
    remitted: { of: 'months', months: 1, day: 15 },
    oncosts: [{ name: 'Pension', percent: percent('10'), cap: null, year: 'fiscal' }],
    oncostAccount: 'oncosts',
  }),
  LOAN,
  BOATS,
  assetRow({
    id: 'r7',
    name: 'Dinghy',
    bought: day('2026-05-05'),
    sold: { day: day('2026-11-03'), price: minor(900_000), gain: 'gain' },
  }),
  releaseRow(),
  taxRow({ installments: [{ months: 5, day: 15, amount: minor(50_000) }] }),
  equityRow(),
];

/** Debit-positive sums of postings by account and month of 2026, by plain loops over every one. */
function plainly(ground: Ground, budget: Budget) {
  const view = cashOf(ground, budget)!;
  const moves = new Map<string, number[]>();
  const days = new Map<number, number>();
  for (const p of written(view.projected)) {
    const months = moves.get(p.account) ?? new Array<number>(12).fill(0);
    const m = calendar.indexOfDay(p.day) - at(1);
    if (m < 12) months[m]! += p.amount;
    moves.set(p.account, months);
    days.set(p.day, (days.get(p.day) ?? 0) + p.amount);
  }
  return { view, moves, days };
}

/** What must hold of any projection: PROJECTION §6, 1 to 4. */
function holds(ground: Ground, budget: Budget): void {
  const { view, moves, days } = plainly(ground, budget);
  const whole = reckoned(ground, budget);
  for (const a of accounts)
    if (isProfitAndLoss(a.kind)) {
      const posted = moves.get(a.id) ?? new Array<number>(12).fill(0);
      const said = (whole.amounts(a.id) ?? new Array<null>(12).fill(null)).map((v) => v ?? 0);
      expect([a.id, ...posted.map((v) => natural(a.kind, minor(v)) || 0)]).toEqual([
        a.id,
        ...said.map((v) => v || 0),
      ]);
    }
  expect([...days.values()].every((v) => v === 0)).toBe(true);
  // The statements by the plain double entry of the test.
  const ahead = aheadOf(ground, budget)!;
  for (const a of ahead.accounts) {
    let stands = OPENING.reduce(
      (t, [, id, v]) =>
        id === a.id
          ? t +
            (a.kind === 'loan' ||
            a.kind === 'equity' ||
            a.kind === 'otherLiability' ||
            a.kind === 'taxPayable'
              ? -v
              : v)
          : t,
      0,
    );
    for (let m = 1; m <= 12; m++) {
      stands += moves.get(a.id)?.[m - 1] ?? 0;
      expect([a.id, m, ahead.balances.balance(a.id, at(m), true)]).toEqual([a.id, m, stands]);
    }
  }
  let bank = view.projected.opening;
  for (let m = 1; m <= 12; m++) {
    expect(offBalance(ahead, at(m))).toBe(0);
    const change = (id: string) => moves.get(id)?.[m - 1] ?? 0;
    // Indirect: profit and what every other account gave or took; direct: the bank's own postings.
    const profit = -ahead.accounts.reduce((t, a) => (isProfitAndLoss(a.kind) ? t + change(a.id) : t), 0);
    const sales = ahead.sales();
    const lines = flowLines(ahead.accounts, {}, sales.gains).reduce(
      (t, l) => t + (flowAmount(l, ahead.balances, sales, at(m)) ?? 0),
      0,
    );
    const banks = cashAccounts(ahead.accounts, {}).reduce((t, a) => t + change(a.id), 0);
    expect(profit + lines).toBe(banks);
    bank += banks;
    expect(view.forecast.closing[toDayNumber(calendar.period(at(m)).end) - view.input.start - 1]).toBe(bank);
  }
}

describe('schedules in the projection', () => {
  it('every schedule at once: lines, balances and cash are one', () => {
    const ground = groundOf([plan(ALL)]);
    holds(ground, ground.book.budgets[0]!);
  });

  it('holds for random rows, amounts typed over and lines made another way', () => {
    const row = fc.constantFrom(...ALL);
    fc.assert(
      fc.property(
        fc.uniqueArray(row, { maxLength: 6 }),
        fc.uniqueArray(
          fc.tuple(
            fc.constantFrom(...MADE),
            fc.integer({ min: 0, max: 11 }),
            fc.integer({ min: -9_999, max: 99_999 }),
          ),
          { maxLength: 4, selector: ([a]) => a },
        ),
        fc.integer({ min: 0, max: 3 }),
        (rows, typed, other) => {
          const base = plan(rows);
          const lines = base.lines.map((l, i) => {
            const over = typed.filter(([a]) => a === l.account);
            const method = i === other + 1 ? byMonth({ [ids[3]!]: minor(777) }) : l.method;
            return {
              ...l,
              method,
              overrides: Object.fromEntries(over.map(([, m, v]) => [ids[m]!, minor(v)])),
            };
          });
          const ground = groundOf([{ ...base, lines }]);
          holds(ground, ground.book.budgets[0]!);
        },
      ),
      { numRuns: 25 },
    );
  });

  it('what a line has beside its rows follows its own terms', () => {
    const lines = [sales(0), line('wages', bySchedule({ [ids[0]!]: 12_345 }))];
    const budget = plan([staffRow()], {
      lines,
      terms: [terms('wages', ['100', atOnce({ of: 'monthDay', day: 10 })])],
    });
    const ground = groundOf([budget]);
    expect(reckoned(ground, budget).amounts('wages')!.slice(0, 2)).toEqual([312_345, 300_000]);
    const paid = written(cashOf(ground, budget)!.projected).filter(
      (p) => p.account === 'bank' && p.key.startsWith('line'),
    );
    expect(paid.map((p) => [p.day, p.amount])).toEqual([[toDayNumber(day('2026-01-10')), -12_345]]);
    holds(ground, budget);
  });

  it('pays what stands withheld on the first day anything withheld is due, and the year before’s tax with its rest', () => {
    const ground = groundOf([plan(ALL)]);
    const of = (key: string) =>
      written(cashOf(ground, ground.book.budgets[0]!)!.projected).filter(
        (p) => p.key.startsWith(key) && p.account === 'bank',
      );
    expect(of('settled').map((p) => [p.day, p.amount])).toEqual([[toDayNumber(day('2026-01-15')), -40_000]]);
    const tax = of('schedule paid');
    expect(tax.map((p) => [p.day, p.amount])).toEqual([
      [toDayNumber(day('2026-03-15')), -5_000],
      [toDayNumber(day('2026-06-15')), -50_000],
    ]);
  });

  it('a loan in two budgets that follow each other is paid once', () => {
    const half = { ...plan([LOAN]), length: 6, id: 'b1' };
    const next = { ...plan([LOAN]), id: 'b2', first: ids[6]!, length: 6 };
    const approved = {
      at: 't',
      by: '',
      fingerprint: '',
      cash: null,
      lines: half.lines.map((l) => ({
        account: l.account,
        segment: null,
        amounts: (reckoned(groundOf([half]), half).amounts(l.account) ?? []).map((a) => a),
        wholes: [],
      })),
    };
    const ground = groundOf([{ ...half, state: 'approved', approved }, next]);
    const repaid = written(cashOf(ground, ground.book.budgets[1]!)!.projected).filter(
      (p) => p.account === 'loan',
    );
    expect(repaid).toHaveLength(12);
    expect(new Set(repaid.map((p) => calendar.indexOfDay(p.day))).size).toBe(12);
  });

  it('a purchase’s tax is had back with the return of a net tax, and is cost where it is not', () => {
    const row = assetRow({ way: { of: 'none' }, tax: { scheme: 't1', rate: percent('20') } });
    const scheme = {
      id: 't1',
      name: 'VAT',
      payable: 'vat',
      owed: 'net' as const,
      on: 'invoice' as const,
      every: 3 as const,
      ends: 3,
      due: { of: 'months' as const, months: 1, day: 10 },
      exceptions: [],
    };
    const at12 = (owed: 'net' | 'collected') => {
      const budget = plan([row], { lines: [sales(0)] });
      const ground = groundOf([budget], { cash: { ...bookWith([]).cash, taxes: [{ ...scheme, owed }] } });
      holds(ground, budget);
      const { balances } = aheadOf(ground, budget)!;
      return ['vat', 'boats', 'bank'].map((a) => balances.balance(a, at(12), true));
    };
    expect(at12('net')).toEqual([0, 2_000_000, 8_000_000]);
    expect(at12('collected')).toEqual([0, 2_200_000, 7_800_000]);
  });
});

describe('schedules by segments', () => {
  it('a position of two sites costs each its part, to the cent, and both together what it costs', () => {
    const row = staffRow({
      pay: { per: 'month', amount: minor(100_001) },
      split: [
        { segment: 'n', percent: percent('70') },
        { segment: null, percent: percent('30') },
      ],
    });
    const lines = ['n', null].map((segment) => ({ ...line('wages', bySchedule()), segment }));
    const budget = plan([row, loanRow({ segment: 'n' })], {
      axis: 'x',
      segments: ['n', null],
      lines: [...lines, { ...line('interest', bySchedule()), segment: 'n' }],
    });
    const ground = groundOf([budget], { axes: [siteAxis()] });
    const whole = reckoned(ground, budget);
    expect(['n', null].map((s) => whole.amounts('wages', s)![0])).toEqual([70_001, 30_000]);
    expect(whole.amounts('wages')![0]).toBe(100_001);
    expect(whole.amounts('interest', 'n')![1]).toBe(10_000);
    holds(ground, budget);
  });
});

describe('balance lines', () => {
  const held = (account: string, amounts: Record<string, number>): Line =>
    line(account, byMonth(Object.fromEntries(Object.entries(amounts).map(([p, a]) => [p, minor(a)]))));
  const both = (lines: readonly Line[], contras: Budget['contras'] = {}): Budget =>
    plan([LOAN], { covers: 'both', lines: [sales(0), line('interest', bySchedule()), ...lines], contras });
  const standing = (budget: Budget, ...of: string[]) => {
    const ground = groundOf([budget]);
    holds(ground, budget);
    const { balances } = aheadOf(ground, budget)!;
    return of.map((a) => balances.balance(a, at(2), true));
  };

  it('win over the projection, against the bank unless said otherwise', () => {
    const [prepaid, bank] = standing(both([held('prepaid', { [ids[1]!]: 150_000 })]), 'prepaid', 'bank');
    expect(prepaid).toBe(150_000);
    const plain = standing(both([]), 'bank')[0]!;
    expect(bank).toBe(plain - 50_000);
  });

  it('stand against another account, and each closes as it was said when that has a line too', () => {
    const lines = [held('accrued', { [ids[1]!]: 30_000 }), held('prepaid', { [ids[1]!]: 150_000 })];
    // 50,000 more prepaid are owed; then what is owed is brought to 30,000 from the bank.
    expect(standing(both(lines, { prepaid: 'accrued' }), 'prepaid', 'accrued')).toEqual([150_000, -30_000]);
    // In a circle the first said gives way.
    const turned = standing(both(lines, { prepaid: 'accrued', accrued: 'prepaid' }), 'prepaid', 'accrued');
    expect(turned).toContain(turned[0] === 150_000 ? 150_000 : -30_000);
  });

  it('leave a bank alone unless something was chosen to bring it about', () => {
    const bank = held('bank', { [ids[1]!]: 1 });
    expect(standing(both([bank]), 'bank')).toEqual(standing(both([]), 'bank'));
    expect(standing(both([bank], { bank: 'shares' }), 'bank')).toEqual([1]);
  });

  it('a balance by schedule is what its rows leave of it', () => {
    const ground = groundOf([both([line('loan', bySchedule())])]);
    const budget = ground.book.budgets[0]!;
    const { balances } = aheadOf(ground, budget)!;
    expect(reckoned(ground, budget).amounts('loan')!.slice(0, 3)).toEqual(
      [1, 2, 3].map((m) => -balances.balance('loan', at(m), true)),
    );
  });
});

describe('a year that runs', () => {
  const closed = (to: number) => ({
    closedThrough: ids[to - 1]!,
    sources: [sourceOf(), sourceOf({ id: 's2', block: 'l2', fingerprint: 'b'.repeat(64) })],
  });
  const months = blockOf(
    accounts,
    [
      ['2026-01-10', 'sales', 500_000],
      ['2026-01-10', 'bank', 500_000],
      ['2026-02-10', 'sales', 300_000],
      ['2026-02-10', 'bank', 300_000],
    ],
    'l2',
  );
  const tax = (budget: Budget, to: number) => {
    const ground = groundOf([budget], closed(to), [block, months]);
    return (reckoned(ground, budget).reckoning.scheduled({ account: 'tax', segment: null }) ?? []).slice(
      0,
      4,
    );
  };
  const budget = plan([taxRow()], { lines: [sales(1_000_000), line('tax', bySchedule())] });

  it('a draft taxes what came in closed months with the first open one; what was approved goes by its plan', () => {
    // 20 % of 5,000 + 3,000 + 10,000 by March, of which the ledger has nothing.
    expect(tax(budget, 2)).toEqual([0, 0, 360_000, 200_000]);
    const approved = {
      at: 't',
      by: '',
      fingerprint: '',
      cash: null,
      lines: budget.lines.map((l) => ({
        account: l.account,
        segment: null,
        amounts: ids.map(() => minor(0)),
        wholes: [],
      })),
    };
    expect(tax({ ...budget, state: 'approved', approved }, 2)).toEqual([200_000, 200_000, 200_000, 200_000]);
  });

  it('rows that name no bank pay from the one that the book says, as all else does', () => {
    const budget = plan(ALL);
    const both = { accounts: [...accounts, account('savings', 'bank')] };
    const moved = (bank: string | null, of: string) => {
      const { cash } = groundOf([budget], both).book;
      const { balances } = aheadOf(groundOf([budget], { ...both, cash: { ...cash, bank } }), budget)!;
      return ids.map((_, i) => balances.movement(of, at(i + 1)) ?? 0);
    };
    const none = ids.map(() => 0);
    expect(moved(null, 'savings')).toEqual(none);
    expect(moved('savings', 'bank')).toEqual(none);
    expect(moved('savings', 'savings')).toEqual(moved(null, 'bank'));
    expect(moved(null, 'bank')).not.toEqual(none);
  });

  it('a covenant is looked at on its days; costs are as fixed as the book says', () => {
    const asked = (tested: 'period' | 'quarter' | 'year') => ({
      id: tested,
      name: 'Bank',
      ratio: 'current' as const,
      bound: 'least' as const,
      limit: 1_000_000_000,
      from: ids[0]!,
      tested,
    });
    const covenants = [asked('period'), asked('quarter'), asked('year')];
    const ground = groundOf([budget], { ...closed(2), covenants }, [block, months]);
    const ahead = aheadOf(ground, budget)!;
    expect(covenantsOf(ground, ahead).map((s) => s.broken)).toEqual([at(1), at(3), at(12)]);
    const evenAt = (variableShares: Book['variableShares']) => {
      const staffed = plan(ALL);
      const of = groundOf([staffed], { variableShares });
      return ratiosOf(of, aheadOf(of, staffed)!)('breakEven', at(12)).top[0]!.amount!;
    };
    expect(evenAt({ wages: 50 })).toBeLessThan(evenAt({}));
  });

  it('a covenant says nothing of months that nobody planned', () => {
    const half = { ...budget, length: 6 };
    const covenant = {
      id: 'c1',
      name: 'Bank',
      ratio: 'operatingMargin' as const,
      bound: 'least' as const,
      limit: 1001,
      from: ids[2]!,
      tested: 'period' as const,
    };
    const ground = groundOf([half], { ...closed(2), covenants: [covenant] }, [block, months]);
    const [state] = covenantsOf(ground, aheadOf(ground, half)!);
    // Only a year of months that nobody planned could tell a year's margin.
    expect(state).toMatchObject({ broken: null, tightest: null });
    expect(state!.unknown).toHaveLength(state!.tested);
  });

  it('a balance by schedule begins where the ledger ends, however long before the budget that is', () => {
    const next = plan([LOAN], {
      first: periodIds(2027)[0]!,
      covers: 'both',
      lines: [line('loan', bySchedule())],
    });
    const ground = groundOf([next]);
    const table = loanTable(LOAN, calendar);
    expect(reckoned(ground, next).amounts('loan')![0]).toBe(
      principalAt(LOAN, table, toDayNumber(day('2027-01-31'))),
    );
  });

  it('what stands on a payable goes its own way, and is not paid twice', () => {
    const budget = plan([staffRow({ through: 'pay' })]);
    const owed = blockOf(accounts, [
      ...OPENING,
      ['2025-12-31', 'pay', 30_000],
      ['2025-12-31', 'bank', 30_000],
    ]);
    const ground = groundOf([budget], {}, [owed]);
    const { balances } = aheadOf(ground, budget)!;
    expect(balances.balance('pay', at(3), true)).toBe(0);
  });
});

describe('what the checks ask', () => {
  it('rows and ledger agree, or by how much they do not', () => {
    const off = { ...LOAN, begins: { ...LOAN.begins, amount: minor(1_999_000) } };
    const ground = groundOf([plan([off, BOATS, releaseRow()])]);
    expect(scheduleTies(ground, ground.book.budgets[0]!)).toEqual([
      { account: 'loan', period: at(0), ledger: 2_000_000, schedules: 1_999_000 },
      { account: 'boats', period: at(0), ledger: 1_000_000, schedules: 1_000_000 },
      { account: 'accumulated', period: at(0), ledger: -200_000, schedules: -200_000 },
      { account: 'prepaid', period: at(0), ledger: 100_000, schedules: 100_000 },
    ]);
  });
  it('names the first line that says something else than its rows', () => {
    const lines = [sales(0), line('wages', byMonth({ [ids[0]!]: minor(300_000) }))];
    const ground = groundOf([plan([staffRow()], { lines })]);
    expect(linesApart(ground, ground.book.budgets[0]!)).toEqual([
      { account: 'wages', period: at(2), by: 300_000 },
    ]);
    expect(linesApart(groundOf([plan(ALL)]), plan(ALL))).toEqual([]);
  });
});

describe('reckoning with rows', () => {
  const facts = reckoned(groundOf([plan(ALL)]), plan(ALL)).facts;
  const figures = (budget: Budget, reckon = createReckoner()) => {
    const { lines } = reckon(budget, facts);
    return budget.lines.map((l) => lines.get(l)!.amounts);
  };

  it('edits in any order come to what a run from scratch comes to', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.constantFrom('sales', 'pay', 'rate', 'away', 'method'), fc.integer({ min: 0, max: 9 })),
          { maxLength: 8 },
        ),
        (edits) => {
          const reckon = createReckoner();
          let budget = plan(ALL);
          figures(budget, reckon);
          for (const [what, n] of edits) {
            const rows = budget.schedules;
            budget =
              what === 'sales'
                ? {
                    ...budget,
                    lines: budget.lines.map((l) => (l.account === 'sales' ? sales(n * 100_000) : l)),
                  }
                : what === 'pay'
                  ? {
                      ...budget,
                      schedules: rows.map((r) => (r.kind === 'staff' ? { ...r, count: n * 10 } : r)),
                    }
                  : what === 'rate'
                    ? {
                        ...budget,
                        schedules: rows.map((r) =>
                          r.kind === 'loan' ? { ...r, rate: percent(String(n)) } : r,
                        ),
                      }
                    : what === 'away'
                      ? { ...budget, schedules: rows.filter((_, i) => i !== n) }
                      : {
                          ...budget,
                          lines: budget.lines.map((l, i) =>
                            i === n % 5 ? { ...l, method: bySchedule() } : l,
                          ),
                        };
            expect(figures(budget, reckon)).toEqual(figures(budget));
          }
        },
      ),
      { numRuns: 40 },
    );
  });

  it('a line that needs the tax which needs the line is a circle of both; all others stand', () => {
    const share: Method = {
      kind: 'share',
      of: { of: 'account', account: 'tax' },
      percent: percent('10'),
      lag: 0,
      round: 0,
    };
    const budget = plan([taxRow(), LOAN], {
      lines: [sales(1_000), line('tools', share), line('tax', bySchedule()), line('interest', bySchedule())],
    });
    const { lines, rows, cyclic } = createReckoner()(budget, facts);
    expect([...cyclic].sort()).toEqual(['tax', 'tools']);
    expect(rows.get('r5')!.issue).toBe('cycle');
    expect(lines.get({ account: 'tax', segment: null })!.issue).toBe('cycle');
    expect(lines.get({ account: 'interest', segment: null })!.amounts[0]).toBe(10_000);
    // With a lag it is a circle all the same: a row is reckoned in one.
    const lagged = plan([taxRow()], {
      lines: [sales(1_000), line('tools', { ...share, lag: 1 } as Method), line('tax', bySchedule())],
    });
    expect([...createReckoner()(lagged, facts).cyclic].sort()).toEqual(['tax', 'tools']);
  });
});

describe('rows in the book', () => {
  const book = bookWith(accounts, { budgets: [plan(ALL)] });
  const put = (rows: readonly ScheduleRow[]) =>
    ({ type: 'putScheduleRows', budget: 'b1', rows, lines: [] }) as const;

  it('are put, replaced, taken away and undone', () => {
    const next = { ...LOAN, name: 'Other' };
    const done = didAll(book, put([next, staffRow({ id: 'r9' })]));
    expect(done.budgets[0]!.schedules.map((r) => r.name)).toEqual([
      ...ALL.map((r) => (r.id === LOAN.id ? 'Other' : r.name)),
      'Rigger',
    ]);
    expect(
      didAll(done, { type: 'removeScheduleRows', budget: 'b1', rows: ['r9', LOAN.id] }).budgets[0]!.schedules,
    ).toHaveLength(ALL.length - 1);
    const list = didAll(book, { ...put([staffRow({ id: 'r9' })]), replaces: ALL.map((r) => r.id) });
    expect(list.budgets[0]!.schedules.map((r) => r.id)).toEqual(['r9']);
  });

  it('make lines by schedule, with nothing typed over them any more', () => {
    const typed = didAll(book, {
      type: 'setCells',
      budget: 'b1',
      how: 'typed',
      cells: [{ account: 'wages', segment: null, period: ids[0]!, value: minor(5) }],
    });
    const method = { kind: 'schedule' as const, beside: { [ids[0]!]: minor(7) } };
    const done = didAll(typed, { ...put([]), lines: [{ account: 'wages', segment: null, method }] });
    expect(done.budgets[0]!.lines.find((l) => l.account === 'wages')).toMatchObject({
      method,
      overrides: {},
    });
  });

  it('are refused where they name what is not there', () => {
    expect(refusalOf(book, put([staffRow({ account: 'zz' })]))).toBe('noSuchAccount');
    expect(refusalOf(book, put([loanRow({ segment: 'n' })]))).toBe('noSuchSegment');
    expect(refusalOf(book, put([staffRow({ split: [{ segment: null, percent: percent('99') }] })]))).toBe(
      'notSound',
    );
    expect(refusalOf(book, put([{ ...LOAN, name: ' ' }]))).toBe('emptyName');
    expect(refusalOf(book, { type: 'setContra', budget: 'b1', account: 'loan', against: 'zz' })).toBe(
      'noSuchAccount',
    );
    const frozen = { ...book, budgets: [{ ...plan(ALL), state: 'superseded' as const }] };
    expect(refusalOf(frozen, put([LOAN]))).toBe('budgetIsFrozen');
  });

  it('follow an account that is merged into another', () => {
    const named = didAll(book, { type: 'setContra', budget: 'b1', account: 'loan', against: 'shares' });
    const merged = didAll(
      named,
      { type: 'mergeAccounts', from: 'accrued', into: 'withheld', lines: [] },
      { type: 'mergeAccounts', from: 'wages', into: 'tools', lines: [] },
    );
    const row = merged.budgets[0]!.schedules.find((r) => r.kind === 'staff')!;
    expect(row).toMatchObject({ account: 'tools', through: 'withheld' });
    expect(merged.budgets[0]!.contras).toEqual({ loan: 'shares' });
    expect(openBook(JSON.parse(JSON.stringify(merged)))).toMatchObject({ ok: true, setAside: [] });
  });

  it('are set aside where a file names what is not there, and the rest opens', () => {
    const broken = {
      ...book,
      budgets: [
        {
          ...plan([staffRow({ account: 'zz' }), LOAN, LOAN, equityRow()]),
          contras: { loan: 'zz', shares: 'bank' },
        },
      ],
    };
    const opened = openBook(JSON.parse(JSON.stringify(broken)));
    if (!opened.ok) throw new Error('did not open');
    expect(opened.book.budgets[0]).toMatchObject({
      schedules: [LOAN, equityRow()],
      contras: { shares: 'bank' },
    });
    expect(opened.setAside.map((s) => [s.part, s.because])).toEqual([
      ['schedule', 'noSuchAccount'],
      ['schedule', 'twice'],
      ['schedule', 'noSuchAccount'],
    ]);
  });

  it('a book of version 7 has none', () => {
    const { schedules: _, contras: __, ...old } = plan([]);
    const opened = openBook(JSON.parse(JSON.stringify({ ...book, version: 7, budgets: [old] })));
    expect(opened).toMatchObject({
      ok: true,
      book: { version: BOOK_VERSION, budgets: [{ schedules: [], contras: {} }] },
    });
  });

  it('any command is undone by its inverse', () => {
    const done = applyCommand(book, put([staffRow({ id: 'r9' })]));
    if (!done.ok) throw new Error(done.refusal.code);
    expect(done.book.nextId).toBe(book.nextId + 1);
    expect(done.inverse.length).toBeGreaterThan(0);
  });
});
