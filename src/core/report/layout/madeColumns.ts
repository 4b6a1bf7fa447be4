import { compare } from '@/core/variance';
import type { PeriodIndex } from '@/core/calendar';
import { sameName, type LayoutColumn } from '@/core/model';
import type { ReportColumn } from '../table';
import {
  columnKey,
  comparesWith,
  figuresOf,
  perMille,
  varianceIn,
  type Against,
  type ColumnSides,
  type Made,
  type Needs,
} from './columns';
import { overMonths, perUnit, type UnitSeries } from './quantities';
import type { Scope } from './sides';
import { spansOf, type ShownSpan, type SpanGround } from './spans';
import type { LayoutWords } from './words';

/** A year of days with three figures of each is what a report can be; more is refused before it is made. */
export const MOST_COLUMNS = 1_200;

/** How many columns a layout comes to. */
export const columnCount = (
  spanGround: SpanGround,
  shown: readonly { readonly column: LayoutColumn }[],
  across: number,
): number => {
  const counts = new Map<string, number>();
  return shown.reduce((t, { column }) => {
    if (isWords(column)) return t + 1;
    const key = JSON.stringify(column.span);
    let count = counts.get(key);
    if (count === undefined) counts.set(key, (count = spansOf(spanGround, column.span).length));
    return t + count * (across + 1);
  }, 0);
};

/** Columns in their order: neighbours over the same parts of a longer span go part by part; segments stand side by side. */
export function madeColumns(
  spanGround: SpanGround,
  shown: readonly { readonly column: LayoutColumn; readonly place: number }[],
  across: readonly Scope[],
  sides: ColumnSides,
  needs: Needs,
  units: readonly UnitSeries[],
  words: LayoutWords,
): Made[] {
  const runs: { readonly spans: readonly ShownSpan[]; readonly columns: typeof shown }[] = [];
  const aside = shown.filter(({ column }) => isWords(column));
  let last = '';
  for (const one of shown) {
    if (isWords(one.column)) continue;
    const key = JSON.stringify(one.column.span);
    if (key === last) (runs.at(-1)!.columns as (typeof one)[]).push(one);
    else runs.push({ spans: spansOf(spanGround, one.column.span), columns: [one] });
    last = key;
  }
  const out: Made[] = [];
  const met = new Map<string, number>();
  const add = (spec: LayoutColumn, place: number, span: ShownSpan | null, scope: Scope) => {
    const plain = columnKey(spec, span, scope);
    const times = met.get(plain) ?? 0;
    met.set(plain, times + 1);
    out.push(
      madeColumn(
        spec,
        place,
        span,
        scope,
        times === 0 ? plain : `${plain}#${times}`,
        spanGround,
        sides,
        needs,
        units,
        words,
      ),
    );
  };
  // The segments first, then the whole that they add up to.
  for (const scope of [...across, 'all' as const])
    for (const run of runs)
      for (const span of run.spans)
        for (const { column, place } of run.columns)
          // Where nothing is said of whole years, a column for it would be empty.
          if (column.show !== 'unphased' || sides.hasWholes('first', span.years))
            add(column, place, span, scope);
  for (const { column, place } of aside) add(column, place, null, 'all');
  return out;
}

/** Columns of words, which are of no span and stand at the end. */
const WORDS = new Set(['note', 'keeper', 'method', 'planNote'] as const);
type WordShow = typeof WORDS extends Set<infer W> ? W : never;
const isWord = (show: LayoutColumn['show']): show is WordShow => (WORDS as ReadonlySet<string>).has(show);
export const isWords = ({ show }: Pick<LayoutColumn, 'show'>): boolean => isWord(show);

const OF: Readonly<Record<LayoutColumn['show'], ReportColumn['of']>> = {
  actual: 'actual',
  reclassified: 'actual',
  compared: 'plan',
  difference: 'difference',
  percent: 'difference',
  reached: 'difference',
  sense: 'difference',
  bar: 'difference',
  flexible: 'plan',
  activity: 'difference',
  activitySense: 'difference',
  rate: 'difference',
  rateSense: 'difference',
  mix: 'difference',
  outlook: 'outlook',
  rest: 'plan',
  unphased: 'plan',
  change: 'difference',
  changePercent: 'difference',
  share: 'actual',
  comparedShare: 'plan',
  perUnit: 'actual',
  comparedPerUnit: 'plan',
  note: 'note',
  keeper: 'note',
  method: 'note',
  planNote: 'note',
};

const KIND: Readonly<Record<LayoutColumn['show'], ReportColumn['kind']>> = {
  actual: 'money',
  reclassified: 'money',
  compared: 'money',
  difference: 'money',
  percent: 'perMille',
  reached: 'perMille',
  sense: 'sense',
  bar: 'bar',
  flexible: 'money',
  activity: 'money',
  activitySense: 'sense',
  rate: 'money',
  rateSense: 'sense',
  mix: 'money',
  outlook: 'money',
  rest: 'money',
  unphased: 'money',
  change: 'money',
  changePercent: 'perMille',
  share: 'perMille',
  comparedShare: 'perMille',
  perUnit: 'money',
  comparedPerUnit: 'money',
  note: 'text',
  keeper: 'text',
  method: 'text',
  planNote: 'text',
};

/** The side by which a column may be of some of its span's periods alone. */
const sideOf = ({ show, against }: LayoutColumn): Against => (comparesWith(show) ? against : 'first');
const mayLack = (show: LayoutColumn['show']): boolean => comparesWith(show) || BY_PLAN.has(show);
const BY_PLAN: ReadonlySet<LayoutColumn['show']> = new Set([
  'flexible',
  'activity',
  'activitySense',
  'rate',
  'rateSense',
  'mix',
]);

/** The periods that a column is of, where it is not of all of its span's that count; null where it is. */
function onlyOf(spec: LayoutColumn, figures: ReturnType<typeof figuresOf>): readonly PeriodIndex[] | null {
  if (spec.show === 'outlook') return figures.unexpected();
  if (!mayLack(spec.show)) return null;
  const side = sideOf(spec);
  return (DIFFERS.has(spec.show) ? figures.pairOf(side)?.only : null) ?? figures.lacking(side);
}
/** The periods of a span that count, and are not among some. */
const missing = ({ counts, known, periods }: ShownSpan, only: readonly PeriodIndex[]) =>
  (counts === 'soFar' ? known : periods).filter((p) => !only.includes(p));
const DIFFERS: ReadonlySet<LayoutColumn['show']> = new Set(['difference', 'percent', 'sense', 'bar']);

function madeColumn(
  spec: LayoutColumn,
  place: number,
  span: ShownSpan | null,
  scope: Scope,
  key: string,
  { isClosed }: Pick<SpanGround, 'isClosed'>,
  sides: ColumnSides,
  needs: Needs,
  units: readonly UnitSeries[],
  words: LayoutWords,
): Made {
  const group =
    span === null
      ? ''
      : [scope === 'all' ? '' : words.scope(scope), words.span(span)].filter(Boolean).join(' · ');
  const isAhead = spec.show === 'actual' && span !== null && !span.days && !span.known.every(isClosed);
  const of = isAhead
    ? 'outlook'
    : OF[spec.show] === 'plan' && spec.against === 'lastYear'
      ? 'prior'
      : OF[spec.show];
  const figures = span === null ? null : figuresOf(needs, sides, span);
  const only = figures && onlyOf(spec, figures);
  const label = words.column(spec, span);
  const side = scope !== 'all' && comparesWith(spec.show) ? sides.against(spec.against) : null;
  const lacks =
    side && !side.tells(scope)
      ? words.untold(spec)
      : only && span
        ? words.lacks(spec, missing(span, only))
        : '';
  const column: ReportColumn = {
    key,
    block: span === null ? '' : `${scope === 'all' ? '' : `${scope ?? 'none'}:`}${span.key}`,
    group,
    label: only && label !== '' ? words.only(label, only) : label,
    kind: KIND[spec.show],
    of,
    formula: null,
    hint: [words.hint(spec, span), lacks].filter(Boolean).join(' · '),
    place,
    ...(scope === 'all' ? {} : { part: true, scope }),
    ...(spec.show === 'perUnit' || spec.show === 'comparedPerUnit' ? { ratio: true } : {}),
    ...(span && !isAhead && opensOf(spec, span, scope)),
    ...(span && span.periods.length > 0
      ? { periods: { first: span.periods[0]!, last: span.periods.at(-1)! } }
      : {}),
    ...(only ? { only } : {}),
    ...(only || lacks ? { lacks } : {}),
  };
  const base = { column, spec, span, scope, shows: null, pair: null, only };
  if (span === null || figures === null || isWord(spec.show)) {
    const show = spec.show as WordShow;
    return { ...base, cell: (row) => row[show]() };
  }
  const money = (need: number): Made => ({ ...base, shows: need, cell: (row) => row.value(need) });
  switch (spec.show) {
    case 'actual':
      return money(figures.actual);
    case 'reclassified':
      return money(figures.reclassified());
    case 'compared':
      return {
        ...money(figures.compared(spec.against)),
        wholes: span.counts !== 'whole' && figures.hasWholes(spec.against),
      };
    case 'outlook':
      return money(figures.outlook());
    case 'rest':
      return money(figures.rest(spec.against));
    case 'difference':
    case 'percent':
    case 'sense':
    case 'bar': {
      const pair = figures.pairOf(spec.against);
      const show = spec.show;
      return {
        ...base,
        pair,
        cell: (row) => {
          const variance = varianceIn(pair, row);
          if (!variance) return null;
          return show === 'percent'
            ? perMille(variance.difference, row.value(pair!.compared[1]))
            : show === 'sense'
              ? variance.sense
              : variance.difference;
        },
      };
    }
    case 'unphased':
      return money(figures.unphased());
    case 'change':
    case 'changePercent': {
      const pair = figures.changePair();
      const percent = spec.show === 'changePercent';
      const of = pair?.only ? words.only(column.label, pair.only) : column.label;
      return {
        ...base,
        column: { ...column, label: of },
        pair,
        cell(row) {
          const change = varianceIn(pair, row);
          if (!change) return null;
          return percent ? perMille(change.difference, row.value(pair!.compared[1])) : change.difference;
        },
      };
    }
    case 'flexible':
      return money(figures.flexible());
    case 'mix':
      return money(figures.mix());
    case 'activity':
    case 'activitySense':
    case 'rate':
    case 'rateSense': {
      // activity = flexible − planned; rate = actual − flexible: the two come to the whole.
      const flexible = figures.flexible();
      const tellsSense = spec.show === 'activitySense' || spec.show === 'rateSense';
      const [left, right] =
        spec.show === 'activity' || spec.show === 'activitySense'
          ? [flexible, figures.plan()]
          : [figures.actualBeside('first'), flexible];
      return {
        ...base,
        cell(row) {
          const change = compare(row.value(left), row.value(right), row.effect);
          return change && (tellsSense ? change.sense : change.difference);
        },
      };
    }
    case 'reached': {
      const budget = figures.compared(spec.against);
      const soFar = figures.actualBeside(spec.against);
      return { ...base, cell: (row) => perMille(row.value(soFar), row.value(budget)) };
    }
    case 'share':
    case 'comparedShare': {
      const need =
        spec.show === 'share'
          ? span.counts === 'year'
            ? figures.outlook()
            : figures.actual
          : figures.compared(spec.against);
      return { ...base, cell: (row) => perMille(row.value(need), row.income(need)) };
    }
    case 'perUnit':
    case 'comparedPerUnit': {
      const unit = units.find((u) => sameName(u.name, spec.unit));
      const planned = spec.show === 'comparedPerUnit';
      const need = planned ? figures.compared(spec.against) : figures.actual;
      const counted = planned && span.counts !== 'soFar' ? span.periods : span.known;
      const periods = (planned && figures.lacking(spec.against)) || counted;
      const quantity = unit
        ? overMonths(
            unit.over,
            periods.map((p) => (planned ? unit.planned(p) : (unit.counted(p) ?? unit.planned(p)))),
          )
        : null;
      return { ...base, cell: (row) => perUnit(row.value(need), quantity, unit?.decimals ?? 0) };
    }
  }
}

/** What entries make a column's figures: of its actuals, and of nothing else. */
function opensOf(
  { show }: LayoutColumn,
  { known, days }: ShownSpan,
  scope: Scope,
): Pick<ReportColumn, 'opens'> | null {
  if (show !== 'actual' || known.length === 0) return null;
  return {
    opens: {
      range: { first: known[0]!, last: known.at(-1)! },
      days: days && { first: days.first, last: days.last },
      scope,
    },
  };
}

/** Columns that follow from others in sight say how, so that a workbook can carry the formula. */
export const withFormulas = (columns: readonly Made[]): Made[] =>
  columns.map((made) => {
    const formula = formulaOf(made, columns);
    return formula ? { ...made, column: { ...made.column, formula } } : made;
  });

type Formula = ReportColumn['formula'];

function formulaOf(made: Made, columns: readonly Made[]): Formula {
  const { show, against } = made.spec;
  const keyed = (wanted: LayoutColumn['show'], of: Against = 'first'): string | null =>
    columns.find(
      (c) =>
        c.spec.show === wanted &&
        c.span?.key === made.span?.key &&
        c.scope === made.scope &&
        (!comparesWith(wanted) || c.spec.against === of),
    )?.column.key ?? null;
  const minus = (left: string | null, right: string | null): Formula =>
    left && right ? { op: 'minus', left, right } : null;
  const share = (part: string | null, of: string | null): Formula =>
    part && of ? { op: 'share', part, of } : null;
  // What is compared of some periods alone follows from nothing that is shown.
  if (made.pair?.only || (made.only && made.spec.show !== 'compared')) return null;
  switch (show) {
    case 'actual':
    case 'compared':
      return partsOf(made, columns);
    case 'difference':
      return minus(keyed(made.span?.counts === 'year' ? 'outlook' : 'actual'), keyed('compared', against));
    case 'percent':
      return share(keyed('difference', against), keyed('compared', against));
    case 'reached':
      return share(keyed('actual'), keyed('compared', against));
    case 'change':
      return minus(keyed('compared'), keyed('compared', 'lastYear'));
    case 'changePercent':
      return share(keyed('change'), keyed('compared', 'lastYear'));
    default:
      return null;
  }
}

/** The periods whose amounts a column adds up; null where it adds up none. */
function addedIn({ spec, span }: Made): readonly PeriodIndex[] | null {
  if (!span || span.days) return null;
  if (spec.show === 'actual') return span.known;
  if (spec.show !== 'compared') return null;
  return span.counts === 'soFar' ? span.known : span.periods;
}

/** The columns in sight that a column is the sum of: the parts of its span, and what is said of its years as wholes. */
function partsOf(made: Made, columns: readonly Made[]): ReportColumn['formula'] {
  const all = addedIn(made);
  if (all === null || all.length < 2) return null;
  const { spec, span, scope } = made;
  const parts = columns.filter(
    (c) =>
      c !== made &&
      c.scope === scope &&
      c.spec.show === spec.show &&
      (!comparesWith(spec.show) || c.spec.against === spec.against) &&
      c.span?.counts === 'whole' &&
      (addedIn(c)?.length ?? all.length) < all.length,
  );
  const periods = parts.flatMap((c) => addedIn(c)!);
  if (periods.length !== all.length || periods.some((p, i) => p !== all[i])) return null;
  const wholes = columns.find(
    (c) => c.scope === scope && c.spec.show === 'unphased' && c.span?.key === span!.key,
  );
  if (spec.show === 'compared' && made.wholes && !wholes) return null;
  const of = parts.map((c) => c.column.key);
  return wholes && spec.against === 'first'
    ? { op: 'sum', of, beyond: wholes.column.key }
    : { op: 'sum', of };
}
