import type { Minor } from '@/core/money';
import {
  fiscalYearLabel,
  fiscalYearsLabel,
  fromDayNumber,
  indexOfId,
  quarterRange,
  rangeLabel,
  yearRange,
  type Period,
  type PeriodId,
  type PeriodIndex,
  type PeriodRange,
} from '@/core/calendar';
import { isApproved, reckoned, yearBefore, type Comparison, type Ground } from '@/core/ground';
import { segmentName, type Layout, type LayoutColumn, type Line, type VarianceNote } from '@/core/model';
import {
  comparesWith,
  goesAhead,
  layoutAxis,
  onlyBudget,
  usedPerMille,
  type Compared,
  type LayoutWords,
  type Scope,
  type ShownSpan,
} from '@/core/report';
import { isActual } from '@/core/plan';
import { dayText, moneyFormat, percentText, shortDay } from './format';
import { lineBadge } from './methodWords';

/** The words of a comparison: "Plan FY27", "North of Plan FY27", "Plan North and Plan South together". */
export function comparisonName({ of, parts, axis, segments }: Comparison): string {
  const names = parts.map((p) => p.budget.name);
  switch (of) {
    case 'budget':
      return names[0]!;
    case 'segment':
      return `${segmentName(axis ?? undefined, segments[0]!)} of ${names[0]!}`;
    case 'together':
      return `${names.slice(0, -1).join(', ')} and ${names.at(-1)!} together`;
  }
}

/** Whose actuals are compared. */
export const scopeWords = (comparison: Comparison | null): string =>
  !comparison || comparison.company || comparison.axis === null
    ? 'the whole company'
    : `${comparison.axis.name} ${comparison.segments.map((s) => segmentName(comparison.axis!, s)).join(', ')} only`;

/** How the budgets of a comparison stand: approved and when, a draft, or superseded since. */
export function standingWords({ parts }: Comparison): string {
  const [first, ...rest] = parts.map(({ budget }) =>
    budget.state === 'draft'
      ? 'a draft'
      : `approved ${dayText(budget.approved?.at ?? '')}${isApproved(budget) ? '' : ', superseded since'}`,
  );
  return rest.every((s) => s === first) ? first! : 'some approved, some drafts';
}

/** What actuals are compared with, in a sentence: "Plan FY27, approved 1 Jun 2026, and last year". */
export function againstWords({ comparison, first, second, kept }: Compared): string {
  const named = (which: Comparison | 'comparison' | 'lastYear' | 'outlook'): string =>
    which === 'lastYear'
      ? 'last year'
      : which === 'outlook'
        ? 'the outlook'
        : which === 'comparison'
          ? comparison
            ? `${comparisonName(comparison)}, ${standingWords(comparison)}`
            : 'no budget'
          : comparisonName(which);
  const one = kept ? `the forecast “${kept.name}”` : named(first);
  return second === null ? one : `${one}, and ${named(second)}`;
}

/** Why a month has no result; empty where it has. */
export function silenceOf({ closedThrough, balances }: Ground, month: PeriodIndex): string {
  if (closedThrough !== null && month > closedThrough) return 'not closed';
  return balances.has(month) ? '' : 'no entries';
}

/** Periods by their runs: "Jul – Oct", "Jul – Sep, Nov". */
export function runsLabel(calendar: Ground['calendar'], periods: readonly PeriodIndex[]): string {
  if (periods.length === 0) return 'none';
  const runs: PeriodRange[] = [];
  for (const p of periods) {
    const open = runs.at(-1);
    if (open && open.last === p - 1) runs[runs.length - 1] = { ...open, last: p };
    else runs.push({ first: p, last: p });
  }
  return runs.map((r) => rangeLabel(calendar, r, 'short')).join(', ');
}

/** What a span of a report is called. */
export function spanWords(ground: Ground, month: PeriodIndex, span: ShownSpan): string {
  const { calendar } = ground;
  const at = (p: PeriodIndex) => calendar.period(p);
  const last = span.known.at(-1);
  /** The periods that are in a span's name and have no actuals. */
  const without = (periods: readonly PeriodIndex[]): string => {
    const silent = periods.filter((p) => !span.known.includes(p));
    return silent.length > 0 ? ` without ${runsLabel(calendar, silent)}` : '';
  };
  switch (span.of) {
    case 'month': {
      const why = silenceOf(ground, span.periods[0]!);
      const { label } = at(span.periods[0]!);
      return why && span.key === 'month' ? `${label}: ${why}` : label;
    }
    case 'week':
    case 'day': {
      const { first, last: end } = span.days!;
      return first === end
        ? shortDay(fromDayNumber(first))
        : `${shortDay(fromDayNumber(first))} – ${shortDay(fromDayNumber(end))}`;
    }
    case 'quarter': {
      const p = span.periods[0] ?? month;
      const name = `Q${at(p).quarter} ${fiscalYearLabel(at(p).year)}`;
      if (span.counts !== 'whole') return last === undefined ? name : `${name} to ${at(last).short}`;
      const whole = quarterRange(calendar, p);
      return span.periods.length === whole.last - whole.first + 1
        ? name
        : `${name}, ${rangeLabel(calendar, { first: p, last: span.periods.at(-1)! }, 'short')}`;
    }
    case 'toDate': {
      if (last === undefined) return 'Year to date: nothing closed';
      return `Year to ${at(last).label}${without(span.periods.filter((p) => p < last))}`;
    }
    case 'budget':
      return fiscalYearsLabel(span.periods.map(at));
    case 'year': {
      const of = span.years[0] ?? at(month).year;
      const year = fiscalYearLabel(of);
      const all = yearRange(calendar, of);
      const whole = span.periods.length === all.last - all.first + 1;
      return whole || span.periods.length === 0
        ? year
        : `${year}, ${at(span.periods[0]!).short} to ${at(span.periods.at(-1)!).short}`;
    }
    case 'rolling':
      return last === undefined
        ? 'Twelve months: nothing closed'
        : `Twelve months to ${at(span.periods.at(-1)!).label}${without(span.periods)}`;
    case 'range': {
      if (span.periods.length === 0) return 'Range';
      const range = rangeLabel(calendar, { first: span.periods[0]!, last: span.periods.at(-1)! });
      return last === undefined ? `${range}: nothing closed` : `${range}${without(span.periods)}`;
    }
  }
}

/** What stands in a column, in a word. */
const SHOWN: Readonly<Record<LayoutColumn['show'], string>> = {
  actual: 'Actual',
  reclassified: 'Moved',
  compared: 'Budget',
  difference: 'Diff.',
  percent: '%',
  reached: 'Reached',
  sense: 'F/U',
  bar: '',
  flexible: 'Flexible',
  activity: 'Activity',
  activitySense: 'F/U',
  rate: 'Rate',
  rateSense: 'F/U',
  mix: 'of it mix',
  outlook: 'Outlook',
  rest: 'Rest',
  unphased: 'Unphased',
  change: 'Change',
  changePercent: 'Change %',
  share: 'Share',
  comparedShare: 'Budget share',
  perUnit: 'Per unit',
  comparedPerUnit: 'Budget per unit',
  note: 'Note',
  keeper: 'Keeper',
  method: 'Method',
  planNote: 'Note',
};

/** What stands on the compared side of a column: the budget, last year, the outlook, or another budget by name. */
export const nameOfAgainst = (compared: Compared, against: LayoutColumn['against']): string => {
  if (against === 'lastYear') return 'Last year';
  if (against === 'first' && compared.kept) return 'Forecast';
  const which = against === 'first' ? compared.first : compared.second;
  if (which === 'lastYear') return 'Last year';
  if (which === 'outlook') return 'Outlook';
  if (against === 'first' || which === null) return 'Budget';
  return typeof which === 'object' ? comparisonName(which) : 'Budget';
};

export function columnWords(compared: Compared, { show, against, unit }: LayoutColumn): string {
  const name = nameOfAgainst(compared, against);
  const mark = against === 'first' ? '' : against === 'lastYear' ? ' LY' : ' 2';
  switch (show) {
    case 'compared':
      return name;
    case 'difference':
      return `Diff.${mark}`;
    case 'percent':
      return `%${mark}`;
    case 'sense':
      return `F/U${mark}`;
    case 'rest':
      return 'Rest of budget';
    case 'comparedShare':
      return `${name} share`;
    case 'perUnit':
      return `Per ${unit || 'unit'}`;
    case 'comparedPerUnit':
      return `${name} per ${unit || 'unit'}`;
    default:
      return SHOWN[show];
  }
}

/** How a column's figures come about, in the open. */
export function hintWords(compared: Compared, column: LayoutColumn, span: ShownSpan | null): string {
  const { show, against, unit } = column;
  const name = nameOfAgainst(compared, against).toLowerCase();
  const left = span?.counts === 'year' ? 'outlook' : 'actual';
  switch (show) {
    case 'actual':
      return 'From the ledger’s entries; wrong entries where they belong';
    case 'reclassified':
      return 'What of the actual stands elsewhere in the ledger';
    case 'difference':
      return `${left} − ${name}`;
    case 'percent':
      return `(${left} − ${name}) ÷ ${name}; nothing where that is below zero`;
    case 'reached':
      return `actual so far ÷ ${name}; nothing where that is below zero`;
    case 'sense':
    case 'activitySense':
    case 'rateSense':
      return 'F: helps profit; U: hurts it';
    case 'bar':
      return `${left} − ${name}, beside the largest`;
    case 'outlook':
      return 'Actuals so far, then what is expected';
    case 'rest':
      return 'Budget of the months without actuals';
    case 'unphased':
      return 'Said of fiscal years as a whole, in no month';
    case 'change':
      return `${nameOfAgainst(compared, 'first').toLowerCase()} − last year, of the months of which both are known`;
    case 'changePercent':
      return 'change ÷ last year; nothing where that is below zero';
    case 'planNote':
      return 'Notes of the budget’s line and of its months';
    case 'flexible':
      return 'The budget’s own methods at the quantities that were counted; shares follow the activity of what they are a share of';
    case 'activity':
      return 'Flexible budget − budget: more or fewer units at planned rates';
    case 'rate':
      return 'Actual − flexible budget: dearer or cheaper units, or more of them used';
    case 'mix':
      return 'Planned rate × (counted − all that was counted × planned share), for drivers of one unit; the rest of activity is quantity';
    case 'share':
      return `${left} ÷ income`;
    case 'comparedShare':
      return `${name} ÷ its income`;
    case 'perUnit':
      return `actual ÷ ${unit || 'a driver'} counted (planned, where nothing is counted)`;
    case 'comparedPerUnit':
      return `${name} ÷ ${unit || 'a driver'} planned`;
    default:
      return '';
  }
}

/** What became of what was to come back. */
export const SETTLED_WORDS = { givenUp: 'given up', elsewhere: 'came another way' } as const;

const KIND_WORDS = { timing: 'Timing', lasting: 'Lasting', once: 'Once', wrongEntry: 'Wrong entry' } as const;

/** An explanation in a line: the kinds of its parts with their amounts and what follows, then its words. */
export function noteWords({ book, calendar }: Ground, { parts, text }: VarianceNote): string {
  const money = moneyFormat(book);
  const label = (id: string) => {
    const at = indexOfId(calendar, id as PeriodId);
    return at === null ? id : calendar.period(at).label;
  };
  const said = parts.map((p) => {
    const amount = p.amount === null ? '' : ` ${money.signed(p.amount)}`;
    return `${KIND_WORDS[p.kind]}${amount}${follows(p)}`;
  });
  return [said.join('; '), text].filter(Boolean).join(': ');

  function follows(p: VarianceNote['parts'][number]): string {
    switch (p.kind) {
      case 'timing':
        // Each with its amount, unless all of it comes at once.
        return p.back.length > 0
          ? `, back in ${p.back
              .map(
                (b) =>
                  `${label(b.period)}${p.back.length > 1 || (p.amount !== null && b.amount !== -p.amount) ? ` ${money.signed(b.amount)}` : ''}${b.settled ? ` (${SETTLED_WORDS[b.settled]})` : ''}`,
              )
              .join(' and ')}`
          : '';
      case 'lasting':
        return p.monthly === 0
          ? ''
          : `, ${money.signed(p.monthly)} a month${p.until === null ? '' : ` until ${label(p.until)}`}`;
      case 'wrongEntry':
        return `, belongs to ${book.accounts.find((a) => a.id === p.to)?.name ?? p.to}`;
      case 'once':
        return '';
    }
  }
}

/** What stands in a line though the ledger has it in others: "1,840 of it from Office supplies"; empty for nothing. */
export const cameWords = (
  { book }: Ground,
  from: readonly { readonly from: string; readonly amount: Minor }[],
): string =>
  from
    .map(
      (f) =>
        `${moneyFormat(book).text(f.amount)} of it from ${book.accounts.find((a) => a.id === f.from)?.name ?? f.from}`,
    )
    .join(', ');

/** Why a column is of some of its periods alone. */
function lackWords(
  { calendar }: Ground,
  compared: Compared,
  { show, against }: LayoutColumn,
  periods: readonly PeriodIndex[],
): string {
  const when = runsLabel(calendar, periods);
  if (show === 'outlook') return `nothing is planned for ${when}`;
  const name = nameOfAgainst(compared, comparesWith(show) ? against : 'first');
  const { comparison } = compared;
  switch (name) {
    case 'Last year':
      return `the ledger has nothing of a year before ${when}`;
    case 'Budget':
      return `${comparison ? comparisonName(comparison) : 'the budget'} has no plan for ${when}`;
    default:
      return `${name === 'Outlook' || name === 'Forecast' ? `the ${name.toLowerCase()}` : name} has nothing for ${when}`;
  }
}

/** A report's title, and what stands beneath it. */
function headOf(
  ground: Ground,
  { name, rows: { set }, segments }: Layout,
  month: PeriodIndex,
  compared: Compared,
  ruler: PeriodRange,
): Pick<LayoutWords, 'title' | 'subtitle'> {
  const { calendar, book } = ground;
  const { comparison } = compared;
  if (goesAhead(set)) {
    const plan = onlyBudget(compared)?.name;
    return {
      title: name,
      subtitle: [rangeLabel(calendar, ruler), plan && `ahead by ${plan}`].filter(Boolean).join(' · '),
    };
  }
  if (set === 'ledger') return { title: name, subtitle: rangeLabel(calendar, ruler) };
  const budget = onlyBudget(compared);
  if (set === 'budget' && budget && comparison) {
    const { approved } = budget;
    const by = approved?.by ? ` by ${approved.by}` : '';
    const axis = book.axes.find((a) => a.id === budget.axis);
    const of =
      comparison.segments.length < budget.segments.length ||
      (segments.place === 'none' && budget.segments.length === 1 && axis)
        ? ` · ${comparison.segments.map((s) => segmentName(axis, s)).join(', ')}`
        : '';
    return {
      title: budget.name,
      subtitle: `${approved ? `Approved ${dayText(approved.at)}${by}` : 'Draft'}${of}`,
    };
  }
  return {
    title: `${name} ${calendar.period(month).label}`,
    subtitle: `Actual of ${scopeWords(comparison)} against ${againstWords(compared)}`,
  };
}

/** A line's note and those of its months, as one text. */
const planNotes = ({ note, cellNotes }: Line, periods: readonly Period[]): string =>
  [note?.text ?? '', ...periods.map((p) => (cellNotes[p.id] ? `${p.label}: ${cellNotes[p.id]!.text}` : ''))]
    .filter(Boolean)
    .join(' · ');

/** The words of a layout's report in a month; `ruler` is what is chosen there. */
export function layoutWords(
  ground: Ground,
  layout: Layout,
  month: PeriodIndex,
  compared: Compared,
  ruler: PeriodRange = { first: month, last: month },
): LayoutWords {
  const { calendar, book } = ground;
  const money = moneyFormat(book);
  const axis = layoutAxis(book, layout.segments) ?? undefined;
  const budget = onlyBudget(compared);
  const whole = budget && reckoned(ground, budget);
  const lastYear = whole && layout.rows.set === 'budget' ? yearBefore(ground, whole).label : null;
  return {
    ...headOf(ground, layout, month, compared, ruler),
    span: (span) => spanWords(ground, month, span),
    scope: (scope: Scope) => (scope === 'all' ? 'All' : segmentName(axis, scope)),
    column: (column, span) =>
      column.show === 'actual' && span && goesAhead(layout.rows.set)
        ? actualWord(ground, span)
        : lastYear !== null && column.show === 'compared' && column.against === 'lastYear'
          ? lastYear
          : columnWords(compared, column),
    hint: (column, span) => hintWords(compared, column, span),
    used: (amount, of) => {
      const share = usedPerMille(amount, of);
      return `${money.text(amount) || '0'} of ${money.text(of)} for the year${share === null ? '' : ` (${percentText(share).replace('+', '')})`}`;
    },
    apart: 'difference without lines budgeted for the year as a whole',
    only: (label, periods) => `${label}, ${runsLabel(calendar, periods)}`,
    lacks: (column, periods) => lackWords(ground, compared, column, periods),
    untold: (column) => {
      const name = nameOfAgainst(compared, column.against);
      const whole = name === 'Budget' && compared.comparison ? comparisonName(compared.comparison) : name;
      return `${whole} is of the whole company: nothing in it by ${axis?.name.toLowerCase() ?? 'segment'}`;
    },
    notation: 'F helps profit, U hurts it',
    came: (from) => cameWords(ground, from),
    method: (line) => lineBadge(line, whole?.facts.periods ?? []),
    planNote: (line) => planNotes(line, whole?.facts.periods ?? []),
    note: (note) => noteWords(ground, note),
  };
}

/** What stands in a column of a statement: what was, what is ahead, or both. */
function actualWord({ balances, closedThrough }: Ground, { periods }: ShownSpan): string {
  const closed = periods.filter((p) => isActual(balances, closedThrough, p)).length;
  return closed === periods.length ? 'Actual' : closed === 0 ? 'Ahead' : 'Outlook';
}
