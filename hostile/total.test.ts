import fc from 'fast-check';
import { isAmount, MOST_AMOUNT, parseAmount, parsePercent, type Percent } from '@/core/money';
import { planWorkbook } from '@/core/exchange/planWorkbook';
import { parseBookFile } from '@/core/exchange/bookJson';
import { isDateCode } from '@/core/files/workbookParts';
import { neutralize, readFile } from '@/core/files';
import { keptFormula, parseFormula, shownFormula } from '@/core/formula';
import {
  findMonthInText,
  guessKind,
  likeness,
  parseDate,
  parseMonthHead,
  splitAccountCell,
} from '@/core/intake';
import { createReckoner, explainMonth } from '@/core/plan';
import { budgetRows, fillStatement, statementRows } from '@/core/report';
import { fromTsv } from '@/core/sheet';
import {
  applyCommand,
  methodSchema,
  openBook,
  type Command,
  type Driver,
  type Method,
  type Phasing,
} from '@/core/model';
import { account, bookWith, budgetOf, factsWith, line, of, periodIds } from '@/core/test/build';
import { counted, seed, times } from './count';

/* No text, paste, file or parameter of a method makes any function of the core throw, or take long. */

const runs = { numRuns: times(5000, 300), seed: seed(20261129) };
const some = { ...runs, numRuns: times(4000, 150) };

const text = fc.oneof(
  fc.string({ maxLength: 60 }),
  fc.string({ unit: 'binary', maxLength: 60 }),
  fc.string({ unit: fc.constantFrom(...'0123456789.,-–() \u00a0’CRDRcr%/JanFY26P:"'), maxLength: 40 }),
  fc
    .tuple(
      fc.constantFrom('1', '-', ' ', '.', ',', '(', 'a', '1/', 'Jan ', '4-', '"', '\u00a0', '0 '),
      fc.nat(5000),
    )
    .map(([t, n]) => t.repeat(n)),
);

/** Longer than anything that is a pattern gone wrong. */
const LONG_MS = 1000;
function quickly<T>(work: () => T): T {
  const from = performance.now();
  const value = work();
  expect(performance.now() - from).toBeLessThan(LONG_MS);
  return value;
}

test('any text', () => {
  fc.assert(
    fc.property(text, fc.constantFrom(0, 2, 3), (t, digits) =>
      quickly(() => {
        for (const format of [
          { decimal: '.', group: ',' },
          { decimal: ',', group: '.' },
          { decimal: ',', group: ' ' },
        ] as const) {
          const parsed = parseAmount(t, digits, format);
          if (parsed.ok && parsed.value !== null) expect(isAmount(parsed.value)).toBe(true);
        }
        parsePercent(t);
        for (const order of ['ymd', 'dmy', 'mdy'] as const) parseDate(t, order);
        const head = parseMonthHead(t);
        if (head?.year) expect(head.year >= 1900 && head.year <= 2199).toBe(true);
        findMonthInText(t);
        splitAccountCell(t);
        guessKind({ code: t, name: t, type: t, sections: [t], total: 1 });
        likeness(t, t.slice(1));
        isDateCode(t);
        fromTsv(t);
        expect(neutralize(t)).not.toMatch(/^[=+\-@\t\r\n\uff1d\uff0b\uff0d\uff20]/);
        const parsed = parseFormula(t, () => null);
        expect(typeof parsed.ok).toBe('boolean');
        shownFormula(t, () => null);
        keptFormula(t, () => null);
        parseBookFile(t);
        openBook({ format: 'tellan.book', version: 2, [t]: t });
      }),
    ),
    runs,
  );
});

test('any bytes', async () => {
  const bytes = fc.oneof(
    fc.uint8Array({ maxLength: 300 }),
    fc.uint8Array({ maxLength: 300 }).map((b) => new Uint8Array([0x50, 0x4b, 3, 4, ...b])),
    text.map((t) => new TextEncoder().encode(t)),
    text.map((t) =>
      new TextEncoder().encode(`<?xml version="1.0" encoding="${t.slice(0, 20)}"?><AuditFile>${t}`),
    ),
  );
  await fc.assert(
    fc.asyncProperty(bytes, async (b) => {
      const read = await readFile(b);
      expect(typeof read.ok).toBe('boolean');
    }),
    runs,
  );
});

const money = fc
  .oneof(fc.integer({ min: -100, max: 100 }), fc.constantFrom(MOST_AMOUNT, -MOST_AMOUNT, 1e12, 0, 1, -1))
  .map((n) => n as never);
const percent = fc.constantFrom(
  '0',
  '-100',
  '999999999',
  '-999999999',
  '0.000001',
  '33.333333',
  '-50',
) as fc.Arbitrary<Percent>;
const period = fc.constantFrom(
  ...periodIds(2026),
  '1900-01' as never,
  '2199-12' as never,
  '2026-99' as never,
);
const round = fc.constantFrom(0, 1, 10, 100, 1000) as fc.Arbitrary<0>;
const lifted = { uplift: percent, round };
const small = fc.integer({ min: 1, max: 120 });
const ref = fc.oneof(
  fc.record({ of: fc.constant('account' as const), account: fc.constantFrom('s', 'w', 'x', 'gone') }),
  fc.record({
    of: fc.constant('kind' as const),
    kind: fc.constantFrom('income' as const, 'expense' as const),
  }),
  fc.record({
    of: fc.constant('group' as const),
    kind: fc.constant('income' as const),
    group: fc.constantFrom('', 'G'),
  }),
);
const wholes = fc.record({
  per: fc.constantFrom('year' as const, 'quarter' as const),
  amounts: fc.array(fc.option(money), { minLength: 1, maxLength: 8 }),
});
const phasing: fc.Arbitrary<Phasing> = fc.oneof(
  fc.constantFrom<Phasing>(
    { by: 'even' },
    { by: 'days' },
    { by: 'workingDays' },
    { by: 'weeks', pattern: '4-4-5' },
  ),
  fc.record({
    by: fc.constant('months' as const),
    numbers: fc.array(fc.integer({ min: 1, max: 99 }), { minLength: 1, maxLength: 5 }),
  }),
  fc.record({ by: fc.constant('every' as const), first: period, months: small }),
  fc.record({ by: fc.constant('weights' as const), weights: fc.constantFrom('k', 'z', 'gone') }),
) as fc.Arbitrary<Phasing>;
const change = fc.oneof(
  fc.record({ of: fc.constant('amount' as const), amount: money }),
  fc.record({ of: fc.constant('percent' as const), percent, compounding: fc.boolean() }),
);
const FORMULAS = [
  '"account:s" * "account:s" * "account:s"',
  '"account:s" / ("account:w" - "account:w")',
  'prior "account:f" * 1000000',
  '"driver:d" * "driver:d" * "driver:e"',
  `${'"kind:income" * '.repeat(120)}1`,
  `${'('.repeat(900)}1${')'.repeat(900)}`,
  'round("account:s", 0) + max("account:gone", 1)',
  '1 / 3 / 7 / 11 / 13 * "account:s"',
];
const method: fc.Arbitrary<Method> = fc.oneof(
  fc.record({ kind: fc.constant('byMonth' as const), amounts: fc.dictionary(period, fc.option(money)) }),
  fc.record({
    kind: fc.constant('lastYear' as const),
    from: fc.oneof(
      fc.record({ of: fc.constant('actuals' as const), years: fc.integer({ min: 1, max: 20 }) }),
      fc.record({ of: fc.constant('budget' as const), budget: fc.constant('gone'), years: fc.nat(20) }),
    ),
    add: money,
    skip: fc.dictionary(period, fc.option(money)),
    ...lifted,
  }),
  fc.record({
    kind: fc.constant('runRate' as const),
    over: fc.oneof(
      fc.constant({ of: 'all' as const }),
      fc.record({ of: fc.constant('last' as const), months: small }),
      fc.record({ of: fc.constant('range' as const), first: period, last: period }),
    ),
    add: money,
    ...lifted,
  }),
  fc.record({ kind: fc.constant('phased' as const), amounts: fc.option(wholes), by: phasing, ...lifted }),
  fc.record({
    kind: fc.constant('pattern' as const),
    amounts: fc.option(wholes),
    like: fc.option(ref),
    years: fc.array(fc.integer({ min: 1, max: 20 }), { minLength: 1, maxLength: 4 }),
    ...lifted,
  }),
  fc.record({
    kind: fc.constant('step' as const),
    start: fc.option(money),
    first: period,
    every: small,
    change,
    round,
  }),
  fc.record({
    kind: fc.constant('share' as const),
    of: ref,
    percent: fc.option(percent),
    lag: fc.nat(36),
    round,
  }),
  fc.record({
    kind: fc.constant('occurrence' as const),
    amount: money,
    on: fc.oneof(
      fc.record({
        of: fc.constant('weeks' as const),
        every: fc.integer({ min: 1, max: 52 }),
        from: fc.constantFrom('1900-01-01', '2026-01-02', '2199-12-31'),
      }),
      fc.record({
        of: fc.constant('monthDays' as const),
        days: fc.array(fc.integer({ min: 1, max: 31 }), { minLength: 1, maxLength: 4 }),
      }),
      fc.constant({ of: 'workingDays' as const }),
    ),
  }),
  fc.record({
    kind: fc.constant('driver' as const),
    factors: fc.array(fc.constantFrom('d', 'e', 'gone'), { minLength: 1, maxLength: 6 }),
    round,
  }),
  fc.record({ kind: fc.constant('formula' as const), formula: fc.constantFrom(...FORMULAS), round }),
  fc.record({ kind: fc.constant('unphased' as const), amounts: wholes }),
) as fc.Arbitrary<Method>;
const series: fc.Arbitrary<Driver['series']> = fc.oneof(
  fc.record({ kind: fc.constant('typed' as const), values: fc.dictionary(period, fc.option(money)) }),
  fc.record({ kind: fc.constant('step' as const), start: money, first: period, every: small, change }),
  fc.record({
    kind: fc.constant('seasonal' as const),
    level: money,
    weights: fc.constantFrom('k', 'z', 'gone'),
  }),
  fc.record({
    kind: fc.constant('formula' as const),
    formula: fc.constantFrom('prior "driver:e" * 1000 + 1', '"driver:d" * "driver:d"', '"driver:e" / 0'),
  }),
) as fc.Arbitrary<Driver['series']>;

const accounts = [
  account('s', 'income'),
  { ...account('f', 'income'), group: 'G' },
  account('w', 'expense'),
  account('b', 'bank'),
  account('x', 'costOfSales'),
];
const pasts = [
  factsWith(accounts, {
    s: new Array<number>(12).fill(MOST_AMOUNT),
    w: new Array<number>(12).fill(-MOST_AMOUNT),
    b: [1],
  }),
  factsWith(accounts, { s: [1, null, 3], f: new Array<number>(12).fill(1), w: [-1, 1, 0] }),
  factsWith(accounts, {}),
].map((f) => ({
  ...f,
  weights: (id: string) => (id === 'k' ? [1, 2, 3, 1_000_000] : id === 'z' ? [0, 0, 0] : null),
}));
const fitting = <T extends { safeParse: (v: unknown) => { success: boolean } }>(schema: T, v: unknown) =>
  schema.safeParse(v).success;

test('any parameters of methods and drivers, over any past', () => {
  let lines = 0;
  fc.assert(
    fc.property(
      fc.array(method, { minLength: 1, maxLength: 5 }),
      fc.tuple(series, series),
      fc.constantFrom(...pasts),
      fc.boolean(),
      (methods, [d, e], facts, typed) => {
        const kept = methods.filter((m) => fitting(methodSchema, m));
        const ids = ['s', 'f', 'w', 'b', 'x'];
        const own = kept.map((m, i) =>
          line(ids[i]!, m, typed ? { [periodIds(2026)[3]!]: MOST_AMOUNT as never } : {}),
        );
        const driver = (id: string, s: Driver['series'], decimals: number): Driver => ({
          id,
          name: id,
          unit: '',
          decimals,
          opening: MOST_AMOUNT,
          series: s,
          note: '',
        });
        const drivers = [driver('d', d, 0), driver('e', e, 6)];
        const run = createReckoner()({ lines: own, drivers }, facts);
        for (const [l, result] of run.lines) {
          lines++;
          for (const a of [...result.amounts, ...result.wholes])
            if (a !== null) expect([l.method, isAmount(a)]).toEqual([l.method, true]);
          for (let i = 0; i < facts.periods.length; i++) explainMonth(l, result, run, i);
        }
        for (const { values } of run.drivers.values())
          for (const v of values) if (v !== null) expect(isAmount(v)).toBe(true);
        const statement = statementRows(accounts);
        fillStatement(statement, 12, (id) => run.lines.figures(id, 'all')?.amounts ?? null);
        planWorkbook({
          book: 'B',
          title: 'T',
          subtitle: '',
          currency: 'USD',
          rows: budgetRows(accounts, 'both'),
          accounts,
          lines: own,
          drivers,
          facts,
          reckoning: run,
          approved: null,
          methodName: () => '',
          segments: [{ id: null, name: '' }],
        });
        // What a command takes in would open again.
        const book = bookWith(accounts, { budgets: [budgetOf([])] });
        const command: Command = {
          type: 'setMethods',
          budget: 'b1',
          lines: methods.map((m, i) => ({ ...of(ids[i]!), method: m })),
        };
        const applied = applyCommand(book, command);
        expect(applied.ok).toBe(kept.length === methods.length);
        if (applied.ok)
          expect(openBook(JSON.parse(JSON.stringify(applied.book)))).toMatchObject({
            ok: true,
            setAside: [],
          });
      },
    ),
    some,
  );
  counted('parameters of methods', { runs: some.numRuns, lines });
}, 1_800_000);
