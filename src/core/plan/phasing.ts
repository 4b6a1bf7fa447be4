import { indexOfId, toDayNumber, type Period } from '@/core/calendar';
import { assertNever } from '@/core/assertNever';
import type { Phasing } from '@/core/model';
import type { Facts } from './facts';
import { workingDays } from '@/core/schedule';

/** Weeks in the first, second and third month of a quarter. */
const weeksOf = (pattern: '4-4-5' | '4-5-4' | '5-4-4'): number[] => pattern.split('-').map(Number);

const daysIn = (p: Period): number => toDayNumber(p.end) - toDayNumber(p.start) + 1;

/** The weights by which an amount is divided over periods; whole numbers, none negative. Null where the named weights are gone. */
export function phasingWeights(by: Phasing, periods: readonly Period[], facts: Facts): number[] | null {
  switch (by.by) {
    case 'even':
      return periods.map(() => 1);
    case 'days':
      return periods.map(daysIn);
    case 'workingDays':
      return periods.map((p) => workingDays(p, facts.workWeek));
    case 'weeks': {
      const weeks = weeksOf(by.pattern);
      return periods.map((p) => weeks[(p.number - 1) % 3]!);
    }
    case 'months': {
      const chosen = new Set(by.numbers);
      return periods.map((p) => (chosen.has(p.number) ? 1 : 0));
    }
    case 'every': {
      const first = indexOfId(facts.calendar, by.first);
      return periods.map((p) =>
        first !== null && p.index >= first && (p.index - first) % by.months === 0 ? 1 : 0,
      );
    }
    case 'weights': {
      const weights = facts.weights(by.weights);
      return weights && periods.map((p) => weights[p.number - 1] ?? 0);
    }
    default:
      return assertNever(by);
  }
}
