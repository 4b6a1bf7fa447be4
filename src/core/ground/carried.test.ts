import { minor } from '@/core/money';
import { toDayNumber, type Day } from '@/core/calendar';
import type { Book, ExplanationPart, VarianceNote } from '@/core/model';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  line,
  periodIds,
  sourceOf,
} from '@/core/test/build';
import { carriedBy, makeGround, outlookMonths, reckoned } from '.';

const ids = periodIds(2026);
const at = (i: number) =>
  calendar.indexOfDay(toDayNumber(`2026-${String(i + 1).padStart(2, '0')}-01` as Day));
const note = (parts: readonly ExplanationPart[], against: string | null = 'b1'): VarianceNote => ({
  text: '',
  against,
  parts: [...parts],
  at: '',
});
const timing = (...back: readonly (readonly [month: number, amount: number])[]): ExplanationPart => ({
  kind: 'timing',
  amount: null,
  back: back.map(([m, amount]) => ({ period: ids[m]!, amount: minor(amount) })),
});
const lasting = (monthly: number, until: number | null = null): ExplanationPart => ({
  kind: 'lasting',
  amount: null,
  monthly: minor(monthly),
  until: until === null ? null : ids[until]!,
});
const year = (notes: Book['varianceNotes'], budget = 'b1') => {
  const carried = carriedBy(notes, calendar, budget);
  return ids.map((_, i) => carried('s', at(i)));
};

describe('what explained variances carry', () => {
  test('timing comes back in the months that are said, whole or in part; several months’ add up', () => {
    expect(
      year({
        [ids[2]!]: { s: note([timing([4, 300], [5, 200])]) },
        [ids[3]!]: { s: note([timing([5, 50])]) },
      }),
    ).toEqual([0, 0, 0, 0, 300, 250, 0, 0, 0, 0, 0, 0]);
  });
  test('lasting goes on from the month after, up to one that is said', () => {
    expect(year({ [ids[2]!]: { s: note([lasting(40, 6)]) } })).toEqual([
      0, 0, 0, 40, 40, 40, 40, 0, 0, 0, 0, 0,
    ]);
  });
  test('what was said last of lasting takes the place of what was said before; once leaves it', () => {
    const notes = {
      [ids[1]!]: { s: note([lasting(40)]) },
      [ids[4]!]: { s: note([lasting(10), lasting(5)]) },
      [ids[6]!]: { s: note([{ kind: 'once', amount: null }]) },
    };
    expect(year(notes)).toEqual([0, 0, 40, 40, 40, 15, 15, 15, 15, 15, 15, 15]);
  });
  test('nothing comes back before it was explained; months that the calendar has not are left out', () => {
    const gone = { period: '2026-40' as (typeof ids)[number], amount: minor(9) };
    const parts = [timing([1, 300], [2, 30]), { kind: 'timing' as const, amount: minor(1), back: [gone] }];
    expect(year({ [ids[2]!]: { s: note(parts) } }).every((v) => v === 0)).toBe(true);
    expect(year({ ['2026-40' as string]: { s: note([lasting(3)]) } }).every((v) => v === 0)).toBe(true);
  });
  test('is of the budget that it was explained against, and of no other', () => {
    const notes = { [ids[2]!]: { s: note([lasting(40)]) }, [ids[3]!]: { s: note([timing([5, 7])], null) } };
    expect(year(notes, 'b2').every((v) => v === 0)).toBe(true);
    expect(year(notes)[5]).toBe(40);
  });
  test('the outlook is actuals, then the plan with what is carried', () => {
    const accounts = [account('s', 'income'), account('bank', 'bank')];
    const block = blockOf(accounts, [
      ['2026-01-10', 's', 70],
      ['2026-02-10', 's', 110],
    ]);
    const plan = byMonth(Object.fromEntries(ids.map((p) => [p, minor(100)])));
    const ground = makeGround(
      bookWith(accounts, {
        budgets: [budgetOf([line('s', plan)])],
        sources: [sourceOf()],
        closedThrough: ids[1]!,
        varianceNotes: {
          [ids[0]!]: { s: note([timing([1, 5], [3, 30])]) },
          [ids[1]!]: { s: note([lasting(10, 4)]) },
        },
      }),
      new Map([[block.id, block]]),
    );
    expect(outlookMonths(reckoned(ground, ground.book.budgets[0]!), 's', [null]).slice(0, 6)).toEqual([
      70, 110, 110, 140, 110, 100,
    ]);
  });
});
