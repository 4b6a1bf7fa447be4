import fc from 'fast-check';
import { minor, splitEven, splitLike, sum, sumBlank, type Minor, type Percent } from '@/core/money';
import { balancesOf } from '@/core/ledger';
import { applyCommand, type Budget, type Line, type Method, type Ref, type RoundUnit } from '@/core/model';
import {
  componentsOf,
  createReckoner,
  evenTotal,
  explainMonth,
  spreadTotal,
  startLines,
  totalCommand,
  typedBeyond,
} from '.';
import {
  account,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  factsOver,
  factsWith,
  formula,
  lastYear,
  line,
  of,
  pattern,
  pct,
  periodIds,
  phased,
  planOf,
  runRate,
  share,
} from '../test/build';

const sales = account('a1', 'income');
const wages = account('a2', 'expense');
const accounts = [sales, wages];
const season = [100, 200, 300, 400, 500, 600, 700, 800, 900, 1000, 1100, 1200];
const facts = factsWith(accounts, {
  a1: season,
  a2: [50, null, null, 50, null, null, null, null, null, null, null, null],
});
const reckonOne = (method: Method, overrides: Line['overrides'] = {}, f = facts) =>
  createReckoner()(planOf(line('a1', method, overrides)), f).lines.get(of('a1'))!;
const none = pct('0');
const ids = periodIds(2026);

describe('methods', () => {
  test.each<[string, Method, number[]]>([
    ['last year as it was', lastYear(), season],
    ['last year and 10 percent', lastYear({ uplift: pct('10') }), season.map((v) => v * 1.1).map(Math.round)],
    ['an even amount', phased(1000), splitEven(minor(1000), 12)],
    ['last year’s total in twelfths', phased(null), splitEven(minor(7800), 12)],
    ['the average month', runRate(), new Array(12).fill(650)],
    [
      'the last month carried on',
      runRate({ over: { of: 'last', months: 1 }, uplift: pct('50') }),
      new Array(12).fill(1800),
    ],
    ['a pattern with an amount of its own', pattern(78000), season.map((v) => v * 10)],
    ['a pattern of last year with uplift', pattern(null, { uplift: pct('100') }), season.map((v) => v * 2)],
  ])('%s', (_name, method, expected) => expect(reckonOne(method).amounts).toEqual(expected));

  test('rounding keeps the rounded year', () => {
    const big = factsWith(accounts, { a1: season.map((v) => v * 101 + 37) });
    const { amounts, total } = reckonOne(lastYear({ uplift: pct('3'), round: 10 }), {}, big);
    expect(amounts.every((a) => a! % 1000 === 0)).toBe(true);
    const exact = sum(season.map((v) => minor(Math.round((v * 101 + 37) * 1.03))));
    expect(total).toBe(Math.round(exact / 1000) * 1000);
  });

  test('a silent month stays blank, and a zero is not blank', () => {
    const f = factsWith(accounts, { a1: [0, null, 5, null, null, null, null, null, null, null, null, null] });
    expect(reckonOne(lastYear(), {}, f).amounts.slice(0, 3)).toEqual([0, null, 5]);
  });
  test('the average of two months of a young business, blank months of one account counting as zero', () => {
    const young = factsWith(accounts, {
      a1: [null, null, null, null, null, null, null, null, null, null, 100, 300],
      a2: [null, null, null, null, null, null, null, null, null, null, 60, null],
    });
    const reckoned = createReckoner()(planOf(line('a1', runRate()), line('a2', runRate())), young);
    expect(reckoned.lines.get(of('a1'))!.total).toBe(2400);
    expect(reckoned.lines.get(of('a2'))!.total).toBe(360);
  });
  test('nothing last year is said, not invented', () => {
    const empty = factsWith(accounts, {});
    expect(reckonOne(lastYear(), {}, empty)).toMatchObject({
      issue: 'noLastYear',
      total: null,
    });
    expect(reckonOne(pattern(1200), {}, empty)).toMatchObject({ issue: 'nothingToFollow', total: 1200 });
  });
  test('a pattern that cancels out is spread evenly and says so', () => {
    const f = factsWith(accounts, { a1: [100, -100] });
    expect(reckonOne(pattern(1200), {}, f)).toMatchObject({
      issue: 'nothingToFollow',
      total: 1200,
    });
  });
  test('a pattern that all but cancels out stays blank and says so, and nothing else falls', () => {
    const f = factsWith(accounts, { a1: [9999994, -9999982, -11] });
    expect(reckonOne(pattern(900720466), {}, f)).toMatchObject({ issue: 'tooLarge', total: null });
  });
  test('an override stands over the method, and a typed blank is blank', () => {
    const r = reckonOne(lastYear(), { [ids[1]!]: minor(7), [ids[2]!]: null });
    expect(r.amounts.slice(0, 4)).toEqual([100, 7, null, 400]);
    expect(r.method.slice(0, 4)).toEqual([100, 200, 300, 400]);
    expect(r.typed.slice(0, 4)).toEqual([false, true, true, false]);
  });
});

describe('lines that depend on lines', () => {
  test('a share follows what is typed over its line', () => {
    const r = createReckoner()(
      planOf(line('a2', share('a1', '30')), line('a1', lastYear(), { [ids[0]!]: minor(1000) })),
      facts,
    );
    expect(r.lines.get(of('a2'))!.amounts.slice(0, 2)).toEqual([300, 60]);
  });
  test('a cycle is named; all other lines stand', () => {
    const r = createReckoner()(
      planOf(
        line('a1', share('a2', '30')),
        line('a2', share('a1', '30')),
        line('a3', byMonth({ [ids[0]!]: minor(5) })),
      ),
      facts,
    );
    expect([...r.cyclic].sort()).toEqual(['a1', 'a2']);
    expect(r.lines.get(of('a1'))!.issue).toBe('cycle');
    expect(r.lines.get(of('a3'))!.total).toBe(5);
  });
  test('a line of itself is a cycle', () =>
    expect([...createReckoner()(planOf(line('a1', share('a1', '30'))), facts).cyclic]).toEqual(['a1']));
  test('a share of a line that is not there says so', () => {
    const r = createReckoner()(planOf(line('a2', share('gone', '30'))), facts);
    expect(r.lines.get(of('a2'))).toMatchObject({ issue: 'lineMissing', total: null });
  });
  test('a chain of ten thousand lines does not overflow', () => {
    const components = componentsOf(10_000, (n) => (n === 9999 ? [] : [{ node: n + 1, lag: 0 }]));
    expect(components[0]).toEqual({ kind: 'one', node: 9999 });
    expect(components).toHaveLength(10_000);
  });
  const edges = fc.array(fc.array(fc.tuple(fc.nat(20), fc.nat(1)), { maxLength: 3 }), {
    minLength: 21,
    maxLength: 21,
  });
  test('in any graph each component comes after all it needs, and what it holds is right', () => {
    fc.assert(
      fc.property(edges, (raw) => {
        const needs = raw.map((list) => list.map(([node, lag]) => ({ node, lag })));
        const components = componentsOf(needs.length, (n) => needs[n]!);
        const nodesOf = (c: (typeof components)[number]) => (c.kind === 'one' ? [c.node] : c.nodes);
        const place = new Map(components.flatMap((c, i) => nodesOf(c).map((n) => [n, i] as const)));
        expect([...place.keys()].sort((a, b) => a - b)).toEqual(needs.map((_, i) => i));
        const reach = (from: number, lag: (l: number) => boolean) => {
          const seen = new Set<number>();
          const walk = (n: number) =>
            needs[n]!.forEach((e) => lag(e.lag) && !seen.has(e.node) && (seen.add(e.node), walk(e.node)));
          walk(from);
          return seen;
        };
        needs.forEach((list, n) =>
          list.forEach((e) => expect(place.get(e.node)! <= place.get(n)!).toBe(true)),
        );
        for (const c of components) {
          // Nodes stand together exactly when each can be reached from the other.
          for (const a of nodesOf(c)) {
            const seen = reach(a, () => true);
            for (const b of nodesOf(c)) if (c.kind !== 'one') expect(seen.has(b)).toBe(true);
            if (c.kind === 'one') expect(seen.has(a)).toBe(false);
          }
          const circle = nodesOf(c).some((n) => reach(n, (l) => l === 0).has(n));
          expect(c.kind === 'cycle').toBe(circle);
        }
      }),
    );
  });
});

const percents = fc.integer({ min: -50, max: 200 }).map((n) => pct(String(n)));
const rounds = fc.constantFrom<RoundUnit>(0, 1, 10);
const money = fc.integer({ min: -1e9, max: 1e9 }).map(minor);
const refs = fc.constantFrom<Ref>(
  { of: 'account', account: 'a1' },
  { of: 'account', account: 'a2' },
  { of: 'account', account: 'a3' },
  { of: 'kind', kind: 'income' },
  { of: 'group', kind: 'expense', group: 'Yard' },
);
const anyMethod: fc.Arbitrary<Method> = fc.oneof(
  fc.tuple(percents, rounds).map(([uplift, round]) => lastYear({ uplift, round })),
  fc.tuple(money, percents, rounds).map(([a, uplift, round]) => phased(a, { uplift, round })),
  fc.tuple(percents, rounds).map(([uplift, round]) => runRate({ uplift, round })),
  fc
    .tuple(fc.option(fc.integer({ min: 0, max: 1e9 })), percents, rounds)
    .map(([a, uplift, round]) => pattern(a, { uplift, round })),
  fc.tuple(refs, percents, fc.nat(2)).map(([ref, p, lag]) => share('', '0', { of: ref, percent: p, lag })),
  fc
    .constantFrom(
      '"account:a1" * 2 - prior "account:a3"',
      'prior "account:a2" + 1',
      'if "account:a1" > 3 then max("kind:income", 2) else "group:expense:Yard" / 3',
      '"account:a2" / "account:a1"',
    )
    .map((text) => formula(text)),
  money.map((start) => ({
    kind: 'step' as const,
    start,
    first: ids[3]!,
    every: 2,
    change: { of: 'percent' as const, percent: pct('1.5'), compounding: true },
    round: 0 as const,
  })),
);
const LINES = ['a1', 'a2', 'a3'] as const;
const overrides = fc.dictionary(fc.constantFrom(...ids), fc.option(money), { maxKeys: 2 });
const anyLine = (id: string) => fc.tuple(anyMethod, overrides).map(([m, o]) => line(id, m, o));
const anyLines = fc.tuple(...LINES.map(anyLine)).map((lines) => lines as Line[]);

describe('properties', () => {
  test('a remembered run and a run from scratch agree, after any edits', () => {
    fc.assert(
      fc.property(anyLines, fc.array(fc.oneof(...LINES.map(anyLine)), { maxLength: 8 }), (start, edits) => {
        const remembering = createReckoner();
        let lines = start;
        remembering(planOf(...lines), facts);
        for (const edit of edits) {
          lines = lines.map((l) => (l.account === edit.account ? edit : l));
          const a = remembering(planOf(...lines), facts);
          const b = createReckoner()(planOf(...lines), facts);
          expect([...a.lines]).toEqual([...b.lines]);
          expect([...a.cyclic].sort()).toEqual([...b.cyclic].sort());
        }
      }),
    );
  });
  test('the order of edits to different lines does not matter', () => {
    fc.assert(
      fc.property(anyLines, anyLines, fc.shuffledSubarray([0, 1, 2], { minLength: 3 }), (from, to, order) => {
        const run = (places: readonly number[]) => {
          const reckon = createReckoner();
          let lines = from;
          let last = reckon(planOf(...lines), facts);
          for (const p of places) {
            lines = lines.map((l, i) => (i === p ? to[i]! : l));
            last = reckon(planOf(...lines), facts);
          }
          return [...last.lines];
        };
        expect(run(order)).toEqual(run([0, 1, 2]));
      }),
    );
  });
  test('a steady line keeps the very same amounts, so that nothing of it is drawn again', () => {
    const reckon = createReckoner();
    const [a, b] = [line('a1', lastYear()), line('a2', byMonth())];
    const before = reckon(planOf(a, b), facts).lines.get(of('a1'));
    const after = reckon(planOf(a, line('a2', byMonth({ [ids[0]!]: minor(1) }))), facts);
    expect(after.lines.get(of('a1'))).toBe(before);
  });
  test('explanations end at what the sheet shows, to the cent', () => {
    fc.assert(
      fc.property(anyLines, fc.nat(11), (lines, i) => {
        const r = createReckoner()(planOf(...lines), facts);
        for (const [l, result] of r.lines) {
          const steps = explainMonth(l, result, r, i);
          expect(steps.at(-1)).toEqual({ step: 'result', value: result.amounts[i] });
          // The figure before a rounding step and the rounding add up to the result.
          const at = steps.findIndex((s) => s.step === 'rounding');
          const rounding = steps[at];
          const before = steps[at - 1];
          if (rounding?.step === 'rounding' && before && 'value' in before)
            expect((before.value as number) + rounding.difference).toBe(result.method[i]);
          // Without one, the figure before the result is what the method gives.
          const last = steps.findLast((s) => s.step !== 'result' && s.step !== 'typed');
          if (
            at < 0 &&
            last &&
            'value' in last &&
            typeof last.value === 'number' &&
            result.method[i] !== null
          )
            expect(last.value).toBe(result.method[i]);
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
    const result = createReckoner()(planOf(l), facts).lines.get(of('a1'))!;
    const command = totalCommand('b1', l, result, facts, from, to, total);
    const applied = applyCommand(bookWith(accounts, { budgets: [budgetOf([l])] }), command);
    if (!applied.ok) throw new Error(applied.refusal.code);
    return { command, after: createReckoner()(applied.book.budgets[0]!, facts).lines.get(of('a1'))! };
  };
  test('a year on an outlook becomes a pattern too, of the latest months that there are', () => {
    const outlook = line('a1', lastYear({ from: { of: 'outlook', budget: 'b9', years: 1 }, round: 10 }));
    const others = new Map([['b9', { has: () => true, amount: () => minor(5), plans: () => true }]]);
    const f = factsWith(accounts, { a1: season }, { others });
    const { lines } = createReckoner()(planOf(outlook), f);
    const command = totalCommand('b', outlook, lines.get(of('a1'))!, f, 0, 12, minor(7800));
    expect(command).toMatchObject({
      type: 'setMethods',
      lines: [{ method: { kind: 'pattern', amounts: { amounts: [7800] }, like: null, round: 10 } }],
    });
    const budget = line('a1', lastYear({ from: { of: 'budget', budget: 'b9', years: 1 } }));
    const { lines: theirs } = createReckoner()(planOf(budget), f);
    expect(totalCommand('b', budget, theirs.get(of('a1'))!, f, 0, 12, minor(7800)).type).toBe('setCells');
  });
  test('a year on “last year” becomes a pattern with that amount', () => {
    const { command, after } = totalOf(lastYear({ uplift: pct('4') }), minor(15600));
    expect(command).toMatchObject({
      type: 'setMethods',
      lines: [{ method: { kind: 'pattern', amounts: { amounts: [15600] } } }],
    });
    expect(after.amounts).toEqual(season.map((v) => v * 2));
  });
  test('a quarter is spread over its months in proportion and marked', () => {
    const { after } = totalOf(lastYear(), minor(1200), 0, 3);
    expect(after.amounts.slice(0, 4)).toEqual([200, 400, 600, 400]);
    expect(after.typed.slice(0, 4)).toEqual([true, true, true, false]);
  });
  test('a total of two years said at once is divided over the years by their months', () => {
    const twoYears = factsOver(accounts, balancesOf([], calendar), 18);
    const method = evenTotal(minor(18_000), twoYears);
    expect(method).toMatchObject({ kind: 'phased', amounts: { per: 'year', amounts: [12_000, 6000] } });
    const { amounts } = createReckoner()(planOf(line('a1', method)), twoYears).lines.get(of('a1'))!;
    expect(amounts).toEqual(new Array(18).fill(1000));
  });
  test('what has no shape of its own, or had it typed to zero, is shaped like last year', () => {
    const like = splitLike(minor(7800), season.map(minor));
    expect(totalOf(byMonth(), minor(7800)).after.amounts).toEqual(like);
    const zeros = byMonth(Object.fromEntries(ids.map((p) => [p, minor(0)])));
    expect(totalOf(zeros, minor(7800)).after.amounts).toEqual(like);
  });
  test('typed to zero over a method, the months that the method gives are the shape', () => {
    const ramp = {
      kind: 'step' as const,
      start: minor(100),
      first: ids[1]!,
      every: 1,
      change: { of: 'amount' as const, amount: minor(100) },
      round: 0 as const,
    };
    const l = line('a1', ramp, Object.fromEntries(ids.map((p) => [p, minor(0)])));
    const result = createReckoner()(planOf(l), facts).lines.get(of('a1'))!;
    expect(totalCommand('b', l, result, facts, 0, 12, minor(15600))).toMatchObject({
      cells: ids.map((period, i) => ({ period, value: 200 * (i + 1) })),
    });
  });
  test('what is typed over a method stays, and the other months take the rest', () => {
    const l = line('a1', lastYear(), { [ids[0]!]: minor(5000) });
    const result = createReckoner()(planOf(l), facts).lines.get(of('a1'))!;
    const command = totalCommand('b', l, result, facts, 0, 12, minor(20_000));
    const cells = command.type === 'setCells' ? command.cells : [];
    expect(cells.map((c) => c.period)).toEqual(ids.slice(1));
    expect(sum(cells.map((c) => c.value!))).toBe(15_000);
    expect(cells.map((c) => c.value)).toEqual(splitLike(minor(15_000), season.slice(1).map(minor)));
  });
  test.each<[string, number, number | null]>([
    ['what is left is of the other sign', 4000, 5000],
    ['nothing is left to be divided', 5000, null],
    ['as much as is left is divided', 5001, null],
    ['nothing in all beside something typed', 0, 5000],
    ['a total that is below zero itself', -100, null],
  ])('a total beside typed months: %s', (_n, total, beyond) => {
    const l = line('a1', lastYear(), { [ids[0]!]: minor(5000) });
    const result = createReckoner()(planOf(l), facts).lines.get(of('a1'))!;
    expect(typedBeyond(minor(total), result, facts, 'a1', 0, 12)).toBe(beyond);
    // Where all or none of them are typed they are all divided anew.
    expect(typedBeyond(minor(total), result, facts, 'a1', 0, 1)).toBeNull();
    expect(typedBeyond(minor(total), result, facts, 'a1', 1, 12)).toBeNull();
    const command = totalCommand('b', l, result, facts, 0, 12, minor(total), 'all');
    const cells = command.type === 'setCells' ? command.cells : [];
    expect([cells.length, sum(cells.map((c) => c.value!))]).toEqual([12, total]);
  });
  test('nothing to be in proportion to at all is split evenly', () => {
    const l = line('a9', byMonth());
    const result = createReckoner()(planOf(l), facts).lines.get(of('a9'))!;
    expect(totalCommand('b', l, result, facts, 0, 12, minor(1200))).toMatchObject({
      cells: ids.map((period) => ({ period, value: 100 })),
    });
  });
  test('a blank clears', () =>
    expect(totalOf(byMonth({ [ids[0]!]: minor(5) }), null).after.total).toBeNull());
});

describe('starting a budget', () => {
  const start = {
    from: 'sameMonth',
    other: null,
    uplift: none,
    upliftByKind: {},
    round: 0,
    rest: null,
  } as const;
  test('uplift by kind, rounding, and accounts that said nothing', () => {
    const three = [...accounts, account('a3', 'expense'), account('a4', 'bank')];
    const f = factsWith(three, { a1: season, a2: [100] });
    const lines = startLines(
      { ...start, from: 'sameMonth', uplift: pct('10'), upliftByKind: { expense: pct('0') as Percent } },
      three,
      f,
    );
    const r = createReckoner()(planOf(...lines), f);
    expect(lines.map((l) => l.account)).toEqual(['a1', 'a2', 'a3']);
    expect(r.lines.get(of('a1'))!.total).toBe(8580);
    expect(r.lines.get(of('a2'))!.amounts).toEqual([100, ...new Array(11).fill(null)]);
    expect(lines[2]!.method.kind).toBe('byMonth');
  });
  test('an account that is no longer active gets no line', () => {
    const idle = [sales, { ...wages, active: false }];
    expect(startLines(start, idle, facts).map((l) => l.account)).toEqual(['a1']);
  });
  test('a balance is held as the ledger has it last, unless the other budget plans balances', () => {
    const bank = account('b', 'bank');
    const f = factsWith([bank], { b: [500, 700] });
    const from = (covers: Budget['covers']) =>
      startLines(
        { ...start, from: 'outlook', other: { budget: 'b9', years: 1, covers } },
        [bank],
        f,
        'both',
      )[0]!;
    const held = from('profitAndLoss');
    expect(held.method).toMatchObject({ kind: 'step', start: null });
    const { amounts } = createReckoner()(planOf(held), f).lines.get(of('b'))!;
    expect(new Set(amounts).size).toBe(1);
    expect(amounts[0]).not.toBeNull();
    expect(from('both').method).toMatchObject({ kind: 'lastYear', from: { of: 'outlook', budget: 'b9' } });
  });
  test('empty gives blanks only', () => {
    const lines = startLines({ ...start, from: 'empty' }, accounts, facts);
    expect(sumBlank([...createReckoner()(planOf(...lines), facts).lines].map(([, l]) => l.total))).toBeNull();
  });
});
