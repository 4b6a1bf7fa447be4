import type { Minor } from '@/core/money';
import { fiscalYearLabel, indexOfId, type PeriodId, type PeriodIndex } from '@/core/calendar';
import { isInForce, type Comparison, type Ground } from '@/core/ground';
import { segmentName, type VarianceNote } from '@/core/model';
import {
  EVERY_LINE,
  usedPerMille,
  varianceOf,
  varianceSpan,
  type LineFilter,
  type ReportTable,
} from '@/core/report';
import type { VarianceSpan } from '@/core/variance';
import { dayText, moneyFormat, percentText } from '@/store/format';

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
export const scopeWords = ({ axis, segments, company }: Comparison): string =>
  company || axis === null
    ? 'the whole company'
    : `${axis.name} ${segments.map((s) => segmentName(axis, s)).join(', ')} only`;

/** How the budgets of a comparison stand: approved and when, a draft, or superseded. */
export function standingWords({ parts }: Comparison): string {
  const [first, ...rest] = parts.map(({ budget }) =>
    isInForce(budget)
      ? `approved ${dayText(budget.approved?.at ?? '')}`
      : budget.state === 'draft'
        ? 'a draft'
        : 'superseded',
  );
  return rest.every((s) => s === first) ? first! : 'some approved, some drafts';
}

/** What the periods of a report are called, and why a month has no result. */
export function spanWords(ground: Ground, span: VarianceSpan) {
  const { calendar, balances, closedThrough } = ground;
  const at = (p: PeriodIndex) => calendar.period(p);
  const month = at(span.month);
  const why =
    closedThrough !== null && span.month > closedThrough
      ? 'not closed'
      : balances.has(span.month)
        ? ''
        : 'no entries';
  const last = span.toDate.at(-1);
  const silent = span.toDate.length > 0 ? span.year.filter((p) => p < last! && !span.toDate.includes(p)) : [];
  const year = fiscalYearLabel(month.year);
  const whole = span.year.length === calendar.periodsIn(month.year);
  return {
    heads: {
      month: why ? `${month.label}: ${why}` : month.label,
      toDate:
        last === undefined
          ? 'Year to date: nothing closed'
          : `Year to ${at(last).label}${silent.length > 0 ? ` without ${silent.map((p) => at(p).short).join(', ')}` : ''}`,
      year: whole ? year : `${year}, ${at(span.year[0]!).short} to ${at(span.year.at(-1)!).short}`,
    },
    why,
  };
}

const KIND_WORDS = { timing: 'Timing', lasting: 'Lasting', once: 'Once' } as const;

/** An explanation in a line: the kinds of its parts with their amounts and what follows, then its words. */
function noteWords({ book, calendar }: Ground, { parts, text }: VarianceNote): string {
  const money = moneyFormat(book);
  const label = (id: string) => {
    const at = indexOfId(calendar, id as PeriodId);
    return at === null ? id : calendar.period(at).label;
  };
  const said = parts.map((p) => {
    const amount = p.amount === null ? '' : ` ${money.signed(p.amount)}`;
    const follows =
      p.kind === 'timing' && p.back.length > 0
        ? `, back in ${p.back.map((b) => label(b.period)).join(' and ')}`
        : p.kind === 'lasting' && p.monthly !== 0
          ? `, ${money.signed(p.monthly)} a month${p.until === null ? '' : ` until ${label(p.until)}`}`
          : '';
    return `${KIND_WORDS[p.kind]}${amount}${follows}`;
  });
  return [said.join('; '), text].filter(Boolean).join(': ');
}

/** The report of a month under a filter, and the same with every line, for what must add all of them. */
export function varianceTable(
  ground: Ground,
  comparison: Comparison,
  month: PeriodIndex,
  filter: LineFilter,
): {
  readonly table: ReportTable;
  readonly everything: ReportTable;
  readonly net: ReportTable['rows'][number] | null;
  readonly span: VarianceSpan;
} {
  const money = moneyFormat(ground.book);
  const span = varianceSpan(ground, comparison, month);
  const { heads } = spanWords(ground, span);
  const make = (f: LineFilter) =>
    varianceOf(ground, comparison, month, f, {
      title: `Variance ${ground.calendar.period(month).label}`,
      subtitle: `Actual of ${scopeWords(comparison)} against ${comparisonName(comparison)}, ${standingWords(comparison)}`,
      words: {
        heads,
        used: (amount: Minor | null, of: Minor) => {
          const share = usedPerMille(amount, of);
          return `${money.text(amount) || '0'} of ${money.text(of)} for the year${share === null ? '' : ` (${percentText(share).replace('+', '')})`}`;
        },
        apart: 'difference without lines budgeted for the year as a whole',
        note: (note) => noteWords(ground, note),
      },
    });
  const everything = make(EVERY_LINE);
  const key = comparison.covers === 'balanceSheet' ? 'netAssets' : 'netProfit';
  const net = everything.rows.find((r) => r.key === key) ?? null;
  const plain = filter.lines === 'all' && filter.sections.length === 0;
  return { table: plain ? everything : make(filter), everything, net, span };
}
