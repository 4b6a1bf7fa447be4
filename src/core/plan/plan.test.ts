import fc from 'fast-check';
import { minor, splitEven, sum, sumBlank, type Minor, type Percent } from '@/core/money';
import { applyCommand, type Line, type Method, type RoundUnit } from '@/core/model';
import { createReckoner, dependencyOrder, explainMonth, spreadTotal, startLines, totalCommand } from '.';
import { account, bookWith, budgetOf, factsWith, line, pct, periodIds } from '../test/build';

const sales = account('a1', 'income');
const wages = account('a2', 'expense');
const accounts = [sales, wages];
const season = [100, 200, 300, 400, 500, 600, 700, 800, 900, 1000, 1100, 1200];
const facts = factsWith(accounts, {
  a1: season,
  a2: [50, null, null, 50, null, null, null, null, null, null, null, null],
});
const reckonOne = (method: Method, overrides: Line['overrides'] = {}, f = facts) =>
  createReckoner()({ a1: line('a1', method, overrides) }, f).lines.get('a1')!;
const none = pct('0');
const ids = periodIds(2026);

describe('methods', () => {
  test.each<[string, Method, number[]]>([
    ['last year as it was', { kind: 'lastYear', uplift: none, round: 0 }, season],
    [
      'last year and 10 percent',
      { kind: 'lastYear', uplift: pct('10'), round: 0 },
      season.map((v) => v * 1.1).map(Math.round),
    ],
    [
      'an even amount',
      { kind: 'even', basis: { of: 'amount', annual: minor(1000) }, uplift: none, round: 0 },
      splitEven(minor(1000), 12),
    ],
    [
      'last year’s total in twelfths',
      { kind: 'even', basis: { of: 'lastYear' }, uplift: none, round: 0 },
      splitEven(minor(7800), 12),
    ],
    [
      'the average month',
      { kind: 'even', basis: { of: 'average' }, uplift: none, round: 0 },
      new Array(12).fill(650),
    ],
    [
      'the last month carried on',
      { kind: 'even', basis: { of: 'lastMonth' }, uplift: pct('50'), round: 0 },
      new Array(12).fill(1800),
    ],
    [
      'a pattern with an amount of its own',
      { kind: 'pattern', annual: minor(78000), uplift: none, round: 0 },
      season.map((v) => v * 10),
    ],
    [
      'a pattern of last year with uplift',
      { kind: 'pattern', annual: null, uplift: pct('100'), round: 0 },
      season.map((v) => v * 2),
    ],
  ])('%s', (_name, method, expected) => expect(reckonOne(method).amounts).toEqual(expected));

  test('rounding keeps the rounded year', () => {
    const big = factsWith(accounts, { a1: season.map((v) => v * 101 + 37) });
    const { amounts, total } = createReckoner()(
      { a1: line('a1', { kind: 'lastYear', uplift: pct('3'), round: 10 }) },
      big,
    ).lines.get('a1')!;
    expect(amounts.every((a) => a! % 1000 === 0)).toBe(true);
    const exact = sum(season.map((v) => minor(Math.round((v * 101 + 37) * 1.03))));
    expect(total).toBe(Math.round(exact / 1000) * 1000);
  });

  test('a silent month stays blank, and a zero is not blank', () => {
    const f = factsWith(accounts, { a1: [0, null, 5, null, null, null, null, null, null, null, null, null] });
    expect(reckonOne({ kind: 'lastYear', uplift: none, round: 0 }, {}, f).amounts.slice(0, 3)).toEqual([
      0,
      null,
      5,
    ]);
  });
  test('the average of two months of a young business, blank months of one account counting as zero', () => {
    const young = factsWith(accounts, {
      a1: [null, null, null, null, null, null, null, null, null, null, 100, 300],
      a2: [null, null, null, null, null, null, null, null, null, null, 60, null],
    });
    const reckoned = createReckoner()(
      {
        a1: line('a1', { kind: 'even', basis: { of: 'average' }, uplift: none, round: 0 }),
        a2: line('a2', { kind: 'even', basis: { of: 'average' }, uplift: none, round: 0 }),
      },
      young,
    );
    expect(reckoned.lines.get('a1')!.total).toBe(2400);
    expect(reckoned.lines.get('a2')!.total).toBe(360);
  });
  test('nothing last year is said, not invented', () => {
    const empty = factsWith(accounts, {});
    expect(reckonOne({ kind: 'lastYear', uplift: none, round: 0 }, {}, empty)).toMatchObject({
      issue: 'noLastYear',
      total: null,
    });
    expect(
      reckonOne({ kind: 'pattern', annual: minor(1200), uplift: none, round: 0 }, {}, empty),
    ).toMatchObject({ issue: 'nothingToFollow', total: 1200 });
  });
  test('a pattern that cancels out is spread evenly and says so', () => {
    const f = factsWith(accounts, { a1: [100, -100] });
    expect(reckonOne({ kind: 'pattern', annual: minor(1200), uplift: none, round: 0 }, {}, f)).toMatchObject({
      issue: 'nothingToFollow',
      total: 1200,
    });
  });
  test('a pattern that all but cancels out stays blank and says so, and nothing else falls', () => {
    const f = factsWith(accounts, { a1: [9999994, -9999982, -11] });
    expect(
      reckonOne({ kind: 'pattern', annual: minor(900720466), uplift: none, round: 0 }, {}, f),
    ).toMatchObject({ issue: 'tooLarge', total: null });
  });
  test('an override stands over the method, and a typed blank is blank', () => {
    const r = reckonOne(
      { kind: 'lastYear', uplift: none, round: 0 },
      { [ids[1]!]: minor(7), [ids[2]!]: null },
    );
    expect(r.amounts.slice(0, 4)).toEqual([100, 7, null, 400]);
    expect(r.method.slice(0, 4)).toEqual([100, 200, 300, 400]);
    expect(r.typed.slice(0, 4)).toEqual([false, true, true, false]);
  });
});

describe('lines that depend on lines', () => {
  const share = (of: string, percent = '30') => ({ kind: 'share', of, percent: pct(percent) }) as const;
  test('a share follows what is typed over its line', () => {
    const r = createReckoner()(
      {
        a2: line('a2', share('a1')),
        a1: line('a1', { kind: 'lastYear', uplift: none, round: 0 }, { [ids[0]!]: minor(1000) }),
      },
      facts,
    );
    expect(r.lines.get('a2')!.amounts.slice(0, 2)).toEqual([300, 60]);
  });
  test('a cycle is named; all other lines stand', () => {
    const r = createReckoner()(
      {
        a1: line('a1', share('a2')),
        a2: line('a2', share('a1')),
        a3: line('a3', { kind: 'byMonth', amounts: { [ids[0]!]: minor(5) } }),
      },
      facts,
    );
    expect([...r.cyclic].sort()).toEqual(['a1', 'a2']);
    expect(r.lines.get('a1')!.issue).toBe('cycle');
    expect(r.lines.get('a3')!.total).toBe(5);
  });
  test('a line of itself is a cycle', () =>
    expect([...createReckoner()({ a1: line('a1', share('a1')) }, facts).cyclic]).toEqual(['a1']));
  test('a share of a line that is not there says so', () => {
    expect(createReckoner()({ a2: line('a2', share('gone')) }, facts).lines.get('a2')).toMatchObject({
      issue: 'lineMissing',
      total: null,
    });
  });
  test('a chain of ten thousand lines does not overflow', () => {
    const ids = Array.from({ length: 10000 }, (_, i) => `n${i}`);
    const { order, cyclic } = dependencyOrder(ids, (n) =>
      n === 'n9999' ? [] : [`n${Number(n.slice(1)) + 1}`],
    );
    expect(order[0]).toBe('n9999');
    expect(cyclic.size).toBe(0);
  });
  test('any acyclic graph is put in an order in which needs come first', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.nat(30), { maxLength: 4 }), { minLength: 1, maxLength: 30 }),
        (raw) => {
          const needs = raw.map((r, i) => r.filter((n) => n < i).map(String));
          const { order } = dependencyOrder(
            needs.map((_, i) => String(needs.length - 1 - i)),
            (n) => needs[Number(n)]!,
          );
          needs.forEach((list, i) =>
            list.forEach((n) => expect(order.indexOf(n)).toBeLessThan(order.indexOf(String(i)))),
          );
        },
      ),
    );
  });
});

const percents = fc.integer({ min: -50, max: 200 }).map((n) => pct(String(n)));
const rounds = fc.constantFrom<RoundUnit>(0, 1, 10);
const anyMethod: fc.Arbitrary<Method> = fc.oneof(
  fc.record({ kind: fc.constant('lastYear' as const), uplift: percents, round: rounds }),
  fc.record({
    kind: fc.constant('even' as const),
    basis: fc.record({
      of: fc.constant('amount' as const),
      annual: fc.integer({ min: -1e9, max: 1e9 }).map(minor),
    }),
    uplift: percents,
    round: rounds,
  }),
  fc.record({
    kind: fc.constant('pattern' as const),
    annual: fc.option(fc.integer({ min: 0, max: 1e9 }).map(minor)),
    uplift: percents,
    round: rounds,
  }),
  fc.record({
    kind: fc.constant('share' as const),
    of: fc.constantFrom('a1', 'a2', 'a3'),
    percent: percents,
  }),
);
const anyLines = fc
  .record({ a1: anyMethod, a2: anyMethod, a3: anyMethod })
  .map((m) => Object.fromEntries(Object.entries(m).map(([id, method]) => [id, line(id, method)])));

describe('properties', () => {
  test('a remembered run and a run from scratch agree, after any edits', () => {
    fc.assert(
      fc.property(
        anyLines,
        fc.array(fc.tuple(fc.constantFrom('a1', 'a2', 'a3'), anyMethod), { maxLength: 6 }),
        (start, edits) => {
          const remembering = createReckoner();
          let lines: Record<string, Line> = start;
          const order = Object.keys(start);
          remembering(lines, facts, order);
          for (const [id, method] of edits) {
            lines = { ...lines, [id]: { ...lines[id]!, method } };
            const a = remembering(lines, facts, order);
            const b = createReckoner()(lines, facts);
            expect([...a.lines].sort()).toEqual([...b.lines].sort());
            expect([...a.cyclic].sort()).toEqual([...b.cyclic].sort());
          }
        },
      ),
    );
  });
  test('a steady line keeps the very same result, so that nothing of it is drawn again', () => {
    const reckon = createReckoner();
    const lines = {
      a1: line('a1', { kind: 'lastYear', uplift: none, round: 0 }),
      a2: line('a2', { kind: 'byMonth', amounts: {} }),
    };
    const order = Object.keys(lines);
    const before = reckon(lines, facts, order).lines.get('a1');
    expect(
      reckon(
        { ...lines, a2: line('a2', { kind: 'byMonth', amounts: { [ids[0]!]: minor(1) } }) },
        facts,
        order,
      ).lines.get('a1'),
    ).toBe(before);
  });
  test('explanations end at what the sheet shows, to the cent', () => {
    fc.assert(
      fc.property(anyLines, fc.nat(11), (lines, i) => {
        const r = createReckoner()(lines, facts);
        for (const [id, result] of r.lines) {
          const steps = explainMonth(lines[id]!, result, facts, i, (a) => r.lines.get(a)?.amounts ?? null);
          const last = steps.at(-1)!;
          expect(last).toEqual({ step: 'result', value: result.amounts[i] });
          // The figure before a rounding step and the rounding add up to the result.
          const rounding = steps.find((s) => s.step === 'rounding');
          const before = steps[steps.findIndex((s) => s.step === 'rounding') - 1];
          if (rounding && before && 'value' in before)
            expect((before.value as number) + rounding.difference).toBe(result.method[i]);
        }
      }),
    );
  });
  test('a typed total is met exactly and keeps proportions', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -1e9, max: 1e9 }).map(minor),
        fc.array(fc.option(fc.integer({ min: 0, max: 1e6 }).map(minor)), { minLength: 3, maxLength: 12 }),
        (total, current) => {
          const parts = spreadTotal(total, current);
          expect(sum(parts)).toBe(total);
          if (current.some((c) => c)) current.forEach((c, i) => c || expect(parts[i]).toBe(0));
        },
      ),
    );
  });
});

describe('typing a total', () => {
  const totalOf = (
    method: Method,
    total: Minor | null,
    from = 0,
    to = 12,
    overrides: Line['overrides'] = {},
  ) => {
    const l = line('a1', method, overrides);
    const result = createReckoner()({ a1: l }, facts).lines.get('a1')!;
    const command = totalCommand('b1', l, result, facts, from, to, total);
    const applied = applyCommand(bookWith(accounts, { budgets: [budgetOf([l])] }), command);
    if (!applied.ok) throw new Error(applied.refusal.code);
    return { command, after: createReckoner()(applied.book.budgets[0]!.lines, facts).lines.get('a1')! };
  };
  test('a year on “last year” becomes a pattern with that amount', () => {
    const { command, after } = totalOf({ kind: 'lastYear', uplift: pct('4'), round: 0 }, minor(15600));
    expect(command).toMatchObject({ type: 'setMethod', method: { kind: 'pattern', annual: 15600 } });
    expect(after.amounts).toEqual(season.map((v) => v * 2));
  });
  test('a quarter is spread over its months in proportion and marked', () => {
    const { after } = totalOf({ kind: 'lastYear', uplift: none, round: 0 }, minor(1200), 0, 3);
    expect(after.amounts.slice(0, 4)).toEqual([200, 400, 600, 400]);
    expect(after.typed.slice(0, 4)).toEqual([true, true, true, false]);
  });
  test('nothing to be in proportion to is split evenly', () => {
    expect(totalOf({ kind: 'byMonth', amounts: {} }, minor(1200)).after.amounts).toEqual(
      new Array(12).fill(100),
    );
  });
  test('a blank clears', () =>
    expect(totalOf({ kind: 'byMonth', amounts: { [ids[0]!]: minor(5) } }, null).after.total).toBeNull());
});

describe('starting a budget', () => {
  test('uplift by kind, rounding, and accounts that said nothing', () => {
    const three = [...accounts, account('a3', 'expense'), account('a4', 'bank')];
    const f = factsWith(three, { a1: season, a2: [100] });
    const lines = startLines(
      { from: 'sameMonth', uplift: pct('10'), upliftByKind: { expense: pct('0') as Percent }, round: 0 },
      three,
      f,
    );
    const r = createReckoner()(lines, f);
    expect(Object.keys(lines)).toEqual(['a1', 'a2', 'a3']);
    expect(r.lines.get('a1')!.total).toBe(8580);
    expect(r.lines.get('a2')!.amounts).toEqual([100, ...new Array(11).fill(null)]);
    expect(lines.a3!.method.kind).toBe('byMonth');
  });
  test('empty gives blanks only', () => {
    const lines = startLines({ from: 'empty', uplift: none, upliftByKind: {}, round: 0 }, accounts, facts);
    expect(sumBlank([...createReckoner()(lines, facts).lines].map(([, l]) => l.total))).toBeNull();
  });
});
