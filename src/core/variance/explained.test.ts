import fc from 'fast-check';
import { minor } from '@/core/money';
import type { ExplanationPart } from '@/core/model';
import { explain } from '.';

describe('parts of an explanation', () => {
  const part: fc.Arbitrary<ExplanationPart> = fc.oneof(
    fc.record({ kind: fc.constant('once' as const), amount: fc.integer({ min: -999, max: 999 }).map(minor) }),
    fc.record({
      kind: fc.constant('timing' as const),
      amount: fc.integer({ min: -999, max: 999 }).map(minor),
      back: fc.constant<Extract<ExplanationPart, { kind: 'timing' }>['back']>([]),
    }),
  );
  test('and what they leave come to the difference, whatever they are', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: -5_000, max: 5_000 }),
        fc.array(part),
        fc.boolean(),
        (difference, said, rest) => {
          const parts: ExplanationPart[] = rest ? [...said, { kind: 'once', amount: null }] : said;
          const { parts: all, left } = explain(minor(difference), parts);
          expect(all.reduce((t, p) => t + p.amount, left as number)).toBe(difference);
          if (rest) expect(left).toBe(0);
        },
      ),
    ));
  test.each<[string, number, number[], boolean]>([
    ['within it', -500, [-300, -200], false],
    ['less than it', -500, [-300], false],
    ['more than there is', -500, [-300, -201], true],
    ['the other way', -500, [300], true],
    ['a difference of nothing', 0, [5], true],
    ['no amount at all', -500, [], false],
  ])('%s', (_n, difference, amounts, beyond) => {
    const parts = amounts.map((a): ExplanationPart => ({ kind: 'once', amount: minor(a) }));
    expect(explain(minor(difference), parts).beyond).toBe(beyond);
  });
});
