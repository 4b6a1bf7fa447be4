import fc from 'fast-check';
import { sought, stepsOf, type Sought } from '.';

const base: Sought = {
  ask: (size) => size,
  goal: 0,
  meets: 'atLeast',
  origin: 0,
  least: -1_000,
  most: 1_000,
  step: 1,
};

describe('what it takes', () => {
  test('of what goes one way, the first step that meets the goal', () => {
    const a = sought({ ...base, ask: (s) => 3 * s - 100, goal: 200 });
    expect(a).toMatchObject({ size: 100, runs: [{ from: 100, to: 1_000 }] });
    expect(sought({ ...base, ask: (s) => 3 * s, goal: 200, meets: 'atMost' })).toMatchObject({
      // Nothing need change: it is met as it is.
      size: 0,
      runs: [{ from: -1_000, to: 66 }],
    });
  });

  test('in steps of a person, a month, a hundredth of a percent', () => {
    expect(sought({ ...base, ask: (s) => s, goal: 130, step: 100 }).size).toBe(200);
    expect(sought({ ...base, ask: (s) => -s, goal: 15, step: 10 }).size).toBe(-20);
  });

  test('several answers are told in order; the smallest change is the answer', () => {
    const a = sought({ ...base, least: -50, most: 50, ask: (s) => s * s, goal: 400 });
    expect(a.runs).toEqual([
      { from: -50, to: -20 },
      { from: 20, to: 50 },
    ]);
    // Of two changes of one size the one upwards.
    expect(a.size).toBe(20);
  });

  test('no answer says what stands at both ends of the range', () => {
    expect(sought({ ...base, least: -10, most: 10, ask: (s) => -s * s, goal: 5 })).toEqual({
      size: null,
      runs: [],
      untried: 0,
      atLeast: -100,
      atMost: -100,
    });
  });

  test('what is not known meets no goal, and a range that is turned around has no answer', () => {
    expect(sought({ ...base, ask: (s) => (s < 500 ? null : s), goal: 0 }).size).toBe(500);
    expect(sought({ ...base, least: 10, most: -10 }).size).toBeNull();
  });

  test('of a long range a grid is tried, and halves where it turns: it says how far apart', () => {
    const a = sought({ ...base, least: 0, most: 1_000_000, ask: (s) => s, goal: 123_457 });
    expect(a).toMatchObject({ size: 123_457, untried: 5_000 });
    // Something narrower than the grid may be missed, and that is said.
    const spike = sought({
      ...base,
      least: 0,
      most: 1_000_000,
      ask: (s) => (s > 7_001 && s < 7_900 ? 1 : 0),
      goal: 1,
    });
    expect(spike).toMatchObject({ size: null, untried: 5_000 });
  });

  test('put back, an answer meets the goal and one step less does not', () => {
    const shape = fc.record({
      a: fc.integer({ min: -5, max: 5 }),
      b: fc.integer({ min: -50, max: 50 }),
      c: fc.integer({ min: -500, max: 500 }),
      goal: fc.integer({ min: -3_000, max: 3_000 }),
      most: fc.integer({ min: 1, max: 3_000 }),
      meets: fc.constantFrom('atLeast' as const, 'atMost' as const),
      step: fc.constantFrom(1, 10, 100),
    });
    fc.assert(
      fc.property(shape, ({ a, b, c, goal, most, meets, step }) => {
        const ask = (s: number) => Math.floor((a * s * s) / 1_000) + b * s + c;
        const answer = sought({ ask, goal, meets, origin: 0, least: -most, most, step });
        const isMet = (s: number) => (meets === 'atLeast' ? ask(s) >= goal : ask(s) <= goal);
        if (answer.size === null) {
          if (answer.untried === 0)
            for (let s = 0; s <= most; s += step) expect(isMet(s) || isMet(-s)).toBe(false);
          return;
        }
        expect(isMet(answer.size)).toBe(true);
        if (answer.size !== 0) expect(isMet(answer.size - Math.sign(answer.size) * step)).toBe(false);
      }),
    );
  });
});

describe('step by step', () => {
  const ask = (all: readonly number[]) => all.reduce((t, x) => t * (1 + x / 100), 1_000);

  test('each step adds to those before it; alone, what they only do together is told apart', () => {
    const steps = stepsOf([10, 20], ask)!;
    expect(steps.begin).toBe(1_000);
    expect(steps.end).toBeCloseTo(1_320);
    expect(steps.steps.map((s) => Math.round(s.effect))).toEqual([100, 220]);
    expect(steps.alone.map((s) => Math.round(s.effect))).toEqual([100, 200]);
    expect(Math.round(steps.together)).toBe(20);
  });

  test('steps come to the end, and so do all alone with what they do together', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -50, max: 50 }), { maxLength: 6 }), (all) => {
        const whole = (list: readonly number[]) => Math.round(ask(list));
        const { begin, end, steps, alone, together } = stepsOf(all, whole)!;
        expect(begin + steps.reduce((t, s) => t + s.effect, 0)).toBe(end);
        expect(begin + alone.reduce((t, s) => t + s.effect, 0) + together).toBe(end);
        expect(end).toBe(whole(all));
      }),
    );
  });

  test('an outcome that nobody knows has no steps', () => {
    expect(stepsOf([1], (all) => (all.length === 0 ? 5 : null))).toBeNull();
    expect(stepsOf([], () => null)).toBeNull();
  });
});
