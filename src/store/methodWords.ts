import { assertNever } from '@/core/assertNever';
import type { PeriodId } from '@/core/calendar';
import type { Line, Method, MethodKind, Phasing } from '@/core/model';

/** What methods are called, on the screen and in files. */
export const METHOD_NAMES: Record<MethodKind, string> = {
  byMonth: 'By month',
  lastYear: 'Last year',
  runRate: 'Run rate',
  phased: 'Phased',
  pattern: 'Pattern',
  step: 'Step',
  share: 'Share',
  occurrence: 'Paydays',
  driver: 'Drivers',
  formula: 'Formula',
  unphased: 'Unphased',
  schedule: 'Schedule',
};

/** How many of a budget's months are typed over what a line's method makes. */
export const typedMonths = ({ overrides }: Line, periods: readonly { readonly id: PeriodId }[]): number =>
  periods.filter((p) => Object.hasOwn(overrides, p.id)).length;

/** Whether every month is typed over what the method makes. */
export const isAllTyped = (line: Line, periods: readonly { readonly id: PeriodId }[]): boolean =>
  periods.length > 0 && typedMonths(line, periods) === periods.length;

/** How a line is made, in a word: by its method, unless every month is typed over what that makes. */
export const lineBadge = (line: Line, periods: readonly { readonly id: PeriodId }[]): string =>
  isAllTyped(line, periods) ? 'Typed' : methodBadge(line.method);

const signed = (p: string) => (p.startsWith('-') ? `−${p.slice(1)}` : `+${p}`);

/** The badge of a line: the method in a word, with its uplift. */
export function methodBadge(method: Method): string {
  const lift = 'uplift' in method && method.uplift !== '0' ? ` ${signed(method.uplift)}%` : '';
  switch (method.kind) {
    case 'lastYear':
      return `${method.from.of === 'actuals' ? (method.from.years === 1 ? 'Last year' : `${method.from.years} years ago`) : method.from.of === 'outlook' ? 'Outlook' : 'Budget'}${lift}`;
    case 'runRate':
      return `${method.over.of === 'last' && method.over.months === 1 ? 'Last month' : 'Run rate'}${lift}`;
    case 'phased':
      return `${PHASING_BADGES[method.by.by]}${lift}`;
    case 'share':
      return method.percent === null ? 'Share' : `Share ${method.percent}%`;
    case 'pattern':
      return `Pattern${lift}`;
    case 'byMonth':
    case 'step':
    case 'occurrence':
    case 'driver':
    case 'formula':
    case 'unphased':
    case 'schedule':
      return METHOD_NAMES[method.kind];
    default:
      return assertNever(method);
  }
}

const PHASING_BADGES: Record<Phasing['by'], string> = {
  even: 'Even',
  days: 'By days',
  workingDays: 'Work days',
  weeks: 'By weeks',
  months: 'Some months',
  every: 'Every …',
  weights: 'Weights',
};
