import fc from 'fast-check';
import { minor, percent, uplift, type Minor } from '@/core/money';
import { balancesOf } from '@/core/ledger';
import type { Line, Method } from '@/core/model';
import {
  account,
  blockOf,
  calendar,
  factsOver,
  formula,
  lastYear,
  line,
  of,
  pattern,
  phased,
  runRate,
  share,
} from '../test/build';
import { createReckoner, explainMonth, type Reason } from '.';

/**
 * Follows the steps of an explanation as a reader with a calculator would, each from the one before, and gives where they
 * lead. A part of a whole is the whole times its share, but for less than the one cent that largest remainders move.
 */
function followed(steps: readonly Reason[]): Minor | null {
  let at: number | null = null;
  let whole = 0;
  for (const r of steps) {
    switch (r.step) {
      case 'basis':
      case 'average':
      case 'start':
      case 'steps':
      case 'computed':
      case 'unphased':
        at = r.value;
        break;
      case 'share':
        if (!r.history && r.base !== null)
          expect(Math.abs(r.value! - (r.base * Number(r.percent)) / 100)).toBeLessThanOrEqual(0.5000001);
        at = r.value;
        break;
      case 'skipped':
        at = r.value === null ? null : at! - r.value;
        break;
      case 'added':
        at = at! + r.value;
        break;
      case 'whole': {
        // Of an average it is that average, with what is added, so many times.
        const months = r.span.to - r.span.from;
        if (r.of === 'average') expect(Math.abs(r.value - at! * months)).toBeLessThanOrEqual(months / 2 + 1);
        at = r.value;
        break;
      }
      case 'uplift':
        at = uplift(minor(at!), r.percent);
        expect(r.value).toBe(at);
        break;
      case 'phasedPart':
      case 'patternPart':
        whole = at!;
        expect(Math.abs(r.value - (whole * r.part) / r.of)).toBeLessThan(1);
        at = r.value;
        break;
      case 'rounding':
        at = at! + r.difference;
        break;
      case 'occurrences':
        at = (at ?? 0) + r.value;
        expect(r.value).toBe(r.days.length * r.each);
        break;
      case 'typed':
        at = r.value;
        break;
      case 'factor':
      case 'term':
        break;
      case 'result':
        expect(r.value).toBe(at);
        return r.value;
    }
  }
  throw new Error('No result');
}

const accounts = [account('s', 'income'), account('t', 'income'), account('k', 'bank')];
const money = fc.integer({ min: -40_000_00, max: 90_000_00 });
const lift = fc.constantFrom('0', '10', '-3.5', '2.75').map((p) => percent(p));
const round = fc.constantFrom(0 as const, 1 as const, 10 as const, 100 as const);
const amounts = fc.oneof(
  fc.constant(null),
  fc
    .array(fc.option(money.map(minor)), { minLength: 3, maxLength: 3 })
    .map((a) => ({ per: 'year' as const, amounts: a })),
  fc
    .array(fc.option(money.map(minor)), { minLength: 12, maxLength: 12 })
    .map((a) => ({ per: 'quarter' as const, amounts: a })),
);
const months = Array.from({ length: 36 }, (_, i) => calendar.period(calendar.firstOfYear(2026) + i));
const method = fc.oneof<fc.Arbitrary<Method>[]>(
  fc
    .record({ years: fc.constantFrom(1, 2), add: money.map(minor), uplift: lift, round })
    .map(({ years, ...rest }) => lastYear({ from: { of: 'actuals', years }, ...rest })),
  fc.record({ uplift: lift, round }).map((c) => lastYear(c)),
  fc
    .record({ uplift: lift, round, skipped: fc.nat(35), out: fc.option(money.map(minor)) })
    .map(({ skipped, out, ...rest }) => lastYear({ ...rest, skip: { [months[skipped]!.id]: out } })),
  fc.record({ uplift: lift, round, add: money.map(minor) }).map((c) => runRate(c)),
  fc
    .record({ amounts, uplift: lift, round, by: fc.constantFrom('even' as const, 'days' as const) })
    .map(({ by, ...rest }) => phased(null, { ...rest, by: { by } })),
  fc.record({ amounts, uplift: lift, round }).map((c) => pattern(null, c)),
  fc
    .record({ start: fc.option(money.map(minor)), every: fc.constantFrom(1, 5), percent: lift, round })
    .map(({ percent: p, ...rest }) => ({
      kind: 'step' as const,
      ...rest,
      first: months[2]!.id,
      change: { of: 'percent' as const, percent: p, compounding: true },
    })),
  fc.record({ lag: fc.constantFrom(0, 2), round }).map((c) => share('t', '37.5', c)),
  fc.constant(formula('"account:t" * 2 + 100')),
  fc.record({ amount: money.map(minor), later: money.map(minor) }).map(({ amount, later }) => ({
    kind: 'occurrence' as const,
    amount,
    later: [{ from: months[3]!.start, amount: later }],
    on: { of: 'weeks' as const, every: 2, from: months[0]!.start },
  })),
);
const typed = fc.dictionary(fc.constantFrom(...months.map((m) => m.id)), fc.option(money.map(minor)), {
  maxKeys: 4,
});
const ledger = fc.array(fc.tuple(fc.constantFrom('s', 't', 'k'), fc.nat(27), money), { maxLength: 60 });

test('the steps of every explanation lead to the shown cent: every method, year and rounding', () => {
  fc.assert(
    fc.property(
      ledger,
      method,
      typed,
      fc.constantFrom('s', 'k'),
      fc.constantFrom(7, 12, 24, 36),
      (entries, m, over, id, length) => {
        // Two years and four months: the second year of the budget follows the first, some months of it the ledger.
        const block = blockOf(
          accounts,
          entries.map(([a, i, v]) => [calendar.period(calendar.firstOfYear(2024) + i).start, a, v] as const),
        );
        const facts = factsOver(accounts, balancesOf([block], calendar), length);
        const lines: Line[] = [line(id, m, over as Line['overrides']), line('t', lastYear())];
        const reckoning = createReckoner()({ lines, drivers: [] }, facts);
        const result = reckoning.lines.get(of(id))!;
        for (let i = 0; i < length; i++) {
          const steps = explainMonth(lines[0]!, result, reckoning, i);
          if (steps.length === 1) expect(steps[0]).toEqual({ step: 'result', value: null });
          else expect(followed(steps)).toBe(result.amounts[i]);
        }
      },
    ),
    { numRuns: 600 },
  );
});
