import { MONTH_NAMES, type FiscalCalendar } from '@/core/calendar';
import type { Name } from '@/core/formula';
import type { MethodKind, Phasing, Ref } from '@/core/model';
import type { LineIssue, Reason, StartFrom } from '@/core/plan';
import { minor, type Minor, type Ratio } from '@/core/money';
import { kindWords } from '@/components/formula/kindWords';
import type { MoneyFormat } from '@/store/format';

export const METHOD_HINTS: Record<MethodKind, string> = {
  byMonth: 'Each month as you type it. A blank month says nothing; zero says zero.',
  lastYear: 'Each month as it was in an earlier year, in the outlook or in another budget, with an uplift.',
  runRate: 'The average of some months, carried on.',
  phased: 'One amount for the year or the quarter, divided over the months by a rule.',
  pattern: 'One amount for the year, shaped like the months of an account or a group.',
  step: 'A start amount that goes up or down once and again.',
  share: 'A percentage of another line, a group or all of a kind.',
  occurrence: 'An amount for each payday, week, weekday or working day in the month.',
  driver: 'Quantities from the drivers sheet, multiplied: units × price.',
  formula: 'Arithmetic over lines, groups and drivers.',
  unphased: 'An amount for the year as a whole, with nothing said of its months.',
  schedule:
    'What the rows of the schedules come to (staff, loans, assets, taxes), what is never paid and the credit line’s interest.',
};

const signed = (p: string) => (p.startsWith('-') ? `−${p.slice(1)}` : `+${p}`);

export const PHASING_WORDS: Record<Phasing['by'], string> = {
  even: 'evenly',
  days: 'by the days of the month',
  workingDays: 'by working days',
  weeks: 'by weeks of a quarter',
  months: 'in chosen months only',
  every: 'every so many months',
  weights: 'by own weights',
};

export const ISSUE_WORDS: Record<LineIssue, string> = {
  noLastYear: 'There is nothing for this account in the earlier months, so there is nothing to take over.',
  nothingToFollow: 'The months it should follow are empty or cancel out; what can be is spread evenly.',
  cycle:
    'This line depends on itself through other lines. Choose another line or method; all other lines are reckoned.',
  lineMissing: 'A line that it depends on is not in this budget.',
  budgetMissing: 'The budget that it takes over is gone, or is itself made from this one.',
  driverMissing: 'A driver that it needs is not on the drivers sheet.',
  weightsMissing: 'The weights it is divided by are gone or all zero.',
  noMonths: 'No month of a year or quarter is chosen, so its amount has nowhere to go.',
  noSchedule: 'No row of a schedule posts to this line. Add one under Schedules, or choose another method.',
  noShare: 'There is no share to take from last year.',
  badFormula: 'The formula cannot be read.',
  dividesByZero: 'The formula divides by zero in some month; that month is blank.',
  notForBalances: 'This way of making months is for profit and loss; a balance is not divided over months.',
  tooLarge: 'Its months would be larger than any amount can be: what it follows may all but cancel out.',
};

export const START_WORDS: Record<StartFrom, { readonly name: string; readonly hint: string }> = {
  sameMonth: {
    name: 'The same month last year',
    hint: 'Keeps the seasons: lumps stay in their months.',
  },
  yearOverTwelve: {
    name: 'Last year’s total, spread evenly',
    hint: 'For costs and income without seasons.',
  },
  average: {
    name: 'The average of the months there are',
    hint: 'For a business with only some months behind it.',
  },
  thisYear: {
    name: 'This year so far',
    hint: 'The average month of the fiscal year that runs.',
  },
  lastMonth: {
    name: 'The last closed month carried on',
    hint: 'For a business that has changed.',
  },
  outlook: {
    name: 'The outlook',
    hint: 'Closed months as they were, a budget for the rest.',
  },
  otherBudget: { name: 'Another budget', hint: 'Its months, or a percentage on them.' },
  empty: { name: 'Empty', hint: 'Every line is typed. Blank until then.' },
};

/** A fraction as a short decimal. */
export function ratioText(value: Ratio | null): string {
  if (value === null) return 'blank';
  const text = (Number(value.n) / Number(value.d)).toFixed(6).replace(/\.?0+$/, '');
  return text.replace('-', '−');
}

export type Naming = {
  readonly calendar: FiscalCalendar;
  readonly money: MoneyFormat;
  readonly account: (id: string) => string;
  readonly driver: (id: string) => string;
  /** A row of a schedule. */
  readonly row: (id: string) => string;
  /** An adjustment of a case. */
  readonly adjustment: (id: string) => string;
};

/** What is referred to, as the sheet labels it. */
export function refWords(ref: Ref, naming: Pick<Naming, 'account'>): string {
  if (ref.of === 'account') return naming.account(ref.account);
  return ref.of === 'group' ? `Total ${ref.group}` : `Total ${kindWords(ref.kind)}`;
}

const nameWords = (name: Name, naming: Naming): string =>
  name.of === 'driver' ? naming.driver(name.driver) : refWords(name, naming);

/** Days of one or two months in few words: "3, 17 and 31 Jul". */
function daysWords(days: readonly string[]): string {
  if (days.length === 0) return 'no such day';
  if (days.length > 6) return `${days.length} days`;
  const last = days.at(-1)!;
  const numbers = days.map((d) => String(Number(d.slice(8))));
  const list = numbers.length > 1 ? `${numbers.slice(0, -1).join(', ')} and ${numbers.at(-1)}` : numbers[0];
  return `${days.length} × on ${list} ${MONTH_NAMES[Number(last.slice(5, 7)) - 1]}`;
}

const AHEAD_WORDS: Record<Extract<Reason, { step: 'ahead' }>['of'], string> = {
  lost: 'never paid, by the terms of what is invoiced',
  interest: 'interest on the credit line, by what is drawn when the month begins',
  approved: 'never paid or interest of the credit line, as approved',
  beyond: 'beside the plan',
  inCase: 'what the case moves of it',
};

/** One step of how a month was made, in words, and its figure. */
export function reasonWords(
  reason: Reason,
  naming: Naming,
): { readonly text: string; readonly figure: string } {
  const { money, calendar } = naming;
  const blank = (v: Parameters<MoneyFormat['exact']>[0], word = 'blank') =>
    v === null ? word : money.exact(v);
  // Steps lead to the cent, whether or not the sheet shows cents.
  const signedExact = (v: Minor) => `${v < 0 ? '−' : '+'}${money.exact(minor(Math.abs(v)))}`;
  switch (reason.step) {
    case 'typed':
      return reason.instead === null
        ? { text: reason.value === null ? 'Nothing typed' : 'Typed', figure: money.exact(reason.value) }
        : { text: `Typed over ${money.exact(reason.instead)}`, figure: blank(reason.value) };
    case 'basis':
      return {
        text: `${calendar.period(reason.period).label}, ${reason.of === 'actual' ? 'actual' : reason.of === 'budget' ? 'budgeted' : 'in this budget'}`,
        figure: blank(reason.value, 'nothing'),
      };
    case 'skipped':
      return reason.value === null
        ? { text: 'a lump that will not come back', figure: 'left out' }
        : { text: 'less a lump that will not come back', figure: money.exact(reason.value) };
    case 'added':
      return { text: 'added each month', figure: signedExact(reason.value) };
    case 'average':
      return { text: `Average of ${reason.months} months`, figure: money.exact(reason.value) };
    case 'whole':
      return {
        text:
          reason.of === 'said'
            ? 'The amount to divide'
            : reason.of === 'lastYear'
              ? 'The year before, same months'
              : `for ${reason.span.to - reason.span.from} months`,
        figure: money.exact(reason.value),
      };
    case 'uplift':
      return { text: `${signed(reason.percent)}%`, figure: money.exact(reason.value) };
    case 'phasedPart':
      return {
        text:
          reason.by === 'even'
            ? 'an even part'
            : `${reason.part} of ${reason.of}, ${PHASING_WORDS[reason.by as Phasing['by']]}`,
        figure: money.exact(reason.value),
      };
    case 'patternPart':
      return {
        text: `its part of the pattern: ${money.exact(reason.part)} of ${money.exact(reason.of)}`,
        figure: money.exact(reason.value),
      };
    case 'start':
      return {
        text: reason.said ? 'Start' : 'Start: as the last month in the ledger',
        figure: money.exact(reason.value),
      };
    case 'steps':
      return {
        text: reason.times === 1 ? 'after one step' : `after ${reason.times} steps`,
        figure: money.exact(reason.value),
      };
    case 'share':
      return {
        text: `${reason.percent}%${reason.history ? ' (last year’s share)' : ''} of ${refWords(reason.of, naming)}, ${calendar.period(reason.period).label}: ${blank(reason.base)}`,
        figure: blank(reason.value),
      };
    case 'occurrences':
      return {
        text: `${daysWords(reason.days)}, ${money.exact(reason.each)} each`,
        figure: money.exact(reason.value),
      };
    case 'beside':
      return { text: 'beside what is made, as it was before', figure: money.exact(reason.value) };
    case 'ahead':
      return { text: AHEAD_WORDS[reason.of], figure: money.exact(reason.value) };
    case 'row':
      return { text: naming.row(reason.row), figure: money.exact(reason.value) };
    case 'factor':
      return { text: `× ${naming.driver(reason.driver)}`, figure: ratioText(reason.value) };
    case 'term':
      return {
        text: `${nameWords(reason.name, naming)}, ${calendar.period(reason.period).label}`,
        figure: ratioText(reason.value),
      };
    case 'computed':
      return { text: 'reckoned', figure: blank(reason.value) };
    case 'unphased':
      return { text: 'For the year as a whole', figure: blank(reason.value) };
    case 'adjusted':
      return { text: naming.adjustment(reason.adjustment), figure: blank(reason.value) };
    case 'asApproved':
      return { text: 'as it was approved', figure: blank(reason.value) };
    case 'rounding':
      return { text: 'rounding that keeps the year’s total', figure: signedExact(reason.difference) };
    case 'result':
      return { text: 'in the sheet', figure: blank(reason.value) };
  }
}
