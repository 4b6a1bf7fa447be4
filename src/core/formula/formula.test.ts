import fc from 'fast-check';
import { HyperFormula } from 'hyperformula';
import { ratio, type Ratio } from '@/core/money';
import {
  evaluate,
  keptFormula,
  keyOfName,
  nameOfKey,
  parseFormula,
  shownFormula,
  type Expression,
  type Name,
} from '.';

const names: Record<string, Name> = {
  Sales: { of: 'account', account: 'a1' },
  'Rent "north"': { of: 'account', account: 'a2' },
  'Total income': { of: 'kind', kind: 'income' },
  'Total Berths': { of: 'group', kind: 'income', group: 'Berths: all' },
  Members: { of: 'driver', driver: 'd1' },
};
const resolve = (text: string) => names[text] ?? null;
const values: Record<string, number> = {
  'account:a1': 100,
  'account:a2': 40,
  'kind:income': 300,
  'driver:d1': 12,
};
const run = (text: string, valueOf = (n: Name, prior: number) => (values[keyOfName(n)] ?? 0) - prior) => {
  const parsed = parseFormula(text, resolve);
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.issue));
  const { value, error } = evaluate(parsed.expression, (n, p) => ratio(valueOf(n, p)));
  return error ?? (value === null ? null : Number(value.n) / Number(value.d));
};

describe('what a formula comes to', () => {
  test.each<[string, number]>([
    ['1 + 2 * 3', 7],
    ['(1 + 2) × 3', 9],
    ['8 ÷ 2 ÷ 2', 2],
    ['-"Sales" + 1', -99],
    ['10 − 2 - 3', 5],
    ['"Sales" * 4%', 4],
    ['.5 + 0.25', 0.75],
    ['"Rent ""north""" * 2', 80],
    ['prior "Sales" + prior 3 "Sales"', 99 + 97],
    ['min(3, "Members", 1) + max(2, 5)', 6],
    ['round("Sales" / 3 to 10)', 30],
    ['round(5 to 10) + round(-5 to 10)', 0],
    ['round(7.5 to 0)', 7.5],
    ['if "Sales" > 50 then 1 else 2', 1],
    ['if "Sales" ≤ 50 or "Members" = 12 and 1 ≠ 2 then 1 else 2', 1],
    ['if 1 < 1 then 1 else if 2 >= 2 then 5 else 6', 5],
    ['1 + (if 1 = 2 then 3 else 4)', 5],
    ['"Total Berths" + "Total income"', 300],
  ])('%s', (text, expected) => expect(run(text)).toBe(expected));

  test('a part of a third is exact', () => expect(run('1 / 3 * 3')).toBe(1));
  test('division by zero has no value', () => expect(run('1 / ("Members" - 12)')).toBe('dividesByZero'));
  test('a blank counts as zero beside what is not blank, and is blank by itself', () => {
    const parsed = parseFormula('"Sales" + "Members"', resolve);
    if (!parsed.ok) throw new Error();
    const blank = (n: Name): Ratio | null => (n.of === 'driver' ? ratio(5) : null);
    expect(evaluate(parsed.expression, blank).value).toEqual(ratio(5));
    expect(evaluate(parsed.expression, () => null).value).toBeNull();
  });
});

describe('an error points at its place', () => {
  test.each<[string, string, number]>([
    ['', 'empty', 0],
    ['"Sales" * "Slaes"', 'unknownName', 10],
    ['1 +', 'unfinished', 3],
    ['1 2', 'unexpected', 2],
    ['(1', 'unfinished', 2],
    ['1 & 2', 'strange', 2],
    ['"Sales', 'strange', 0],
    ['if 1 then 2 else 3', 'unexpected', 5],
    ['if 1 < 2 then 3', 'unfinished', 15],
    ['prior 0 "Sales"', 'badNumber', 6],
    ['min()', 'unexpected', 4],
    ['Sales', 'unexpected', 0],
    ['('.repeat(80) + '1' + ')'.repeat(80), 'tooDeep', 60],
  ])('%p: %s at %d', (text, code, at) => {
    const parsed = parseFormula(text, resolve);
    expect(parsed.ok ? parsed : parsed.issue).toMatchObject({ code, at });
  });
});

describe('names', () => {
  const label = (n: Name) => Object.keys(names).find((k) => keyOfName(names[k]!) === keyOfName(n)) ?? null;
  test('are kept by id and shown by name; what is gone stays', () => {
    const text = 'max("Sales",  prior 2 "Rent ""north""") * 2 + "Total Berths" - "Members"';
    const kept = keptFormula(text, resolve)!;
    expect(kept).toBe(
      'max("account:a1",  prior 2 "account:a2") * 2 + "group:income:Berths: all" - "driver:d1"',
    );
    expect(shownFormula(kept, label)).toBe(text);
    expect(shownFormula('"account:gone" + 1', label)).toBe('"account:gone" + 1');
    expect(keptFormula('"Nobody"', resolve)).toBeNull();
  });
  test('every key means what it was made of, and nothing else means anything', () => {
    for (const n of Object.values(names)) expect(nameOfKey(keyOfName(n))).toEqual(n);
    for (const text of ['Sales', 'kind:nothing', 'group:income', 'account:', 'x:y'])
      expect(nameOfKey(text)).toBeNull();
  });
});

/* Any arithmetic beside a general spreadsheet engine, which reckons in binary figures. */
type Tree = { readonly ours: string; readonly theirs: string };
const leaf: fc.Arbitrary<Tree> = fc.oneof(
  fc.integer({ min: 0, max: 999 }).map((n) => ({ ours: String(n), theirs: String(n) })),
  fc.integer({ min: 1, max: 99 }).map((n) => ({ ours: `${n}%`, theirs: `(${n}/100)` })),
  fc.constant({ ours: '"Sales"', theirs: '100' }),
);
const { tree } = fc.letrec<{ tree: Tree }>((tie) => ({
  tree: fc.oneof(
    { maxDepth: 4 },
    leaf,
    fc.tuple(tie('tree'), fc.constantFrom('+', '-', '*'), tie('tree')).map(([a, op, b]) => ({
      ours: `(${a.ours} ${op} ${b.ours})`,
      theirs: `(${a.theirs}${op}${b.theirs})`,
    })),
    fc.tuple(tie('tree'), tie('tree')).map(([a, b]) => ({
      ours: `min(${a.ours}, max(${b.ours}, 7))`,
      theirs: `MIN(${a.theirs},MAX(${b.theirs},7))`,
    })),
    fc.tuple(tie('tree'), tie('tree'), tie('tree')).map(([a, b, c]) => ({
      ours: `(if ${a.ours} < ${b.ours} then ${c.ours} else ${a.ours})`,
      theirs: `IF(${a.theirs}<${b.theirs},${c.theirs},${a.theirs})`,
    })),
  ),
}));

test('any formula comes to what a spreadsheet engine comes to', () => {
  fc.assert(
    fc.property(tree, ({ ours, theirs }) => {
      const engine = HyperFormula.buildFromArray([[`=${theirs}`]], { licenseKey: 'gpl-v3' });
      const expected = engine.getCellValue({ sheet: 0, row: 0, col: 0 }) as number;
      engine.destroy();
      const got = run(ours) as number;
      expect(Math.abs(got - expected)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(expected)));
    }),
    { numRuns: 60 },
  );
});
test('what is shown is kept again as it was, whatever it is', () => {
  fc.assert(
    fc.property(tree, ({ ours }) => {
      const kept = keptFormula(ours, resolve)!;
      const again: Expression | null = ((p) => (p.ok ? p.expression : null))(parseFormula(kept));
      expect(again).not.toBeNull();
      expect(
        keptFormula(
          shownFormula(
            kept,
            (n) => Object.keys(names).find((k) => keyOfName(names[k]!) === keyOfName(n)) ?? null,
          ),
          resolve,
        ),
      ).toBe(kept);
    }),
  );
});
test('any text is read or refused, never thrown at', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 60 }), (text) => {
      const parsed = parseFormula(text, resolve);
      if (!parsed.ok) expect(parsed.issue.at).toBeLessThanOrEqual(text.length);
    }),
    { numRuns: 500 },
  );
});
