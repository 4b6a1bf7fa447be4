import { plus } from '@/core/money';
import { compare } from '@/core/variance';
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
import { perUnit, type UnitSeries } from './quantities';
import type { Scope } from './sides';
import { spansOf, type ShownSpan, type SpanGround } from './spans';
import type { LayoutWords } from './words';

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
        for (const { column, place } of run.columns) add(column, place, span, scope);
  for (const { column, place } of aside) add(column, place, null, 'all');
  return out;
}

const isWords = ({ show }: LayoutColumn): boolean => show === 'note' || show === 'keeper';

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
  rate: 'difference',
  mix: 'difference',
  outlook: 'outlook',
  rest: 'plan',
  share: 'actual',
  comparedShare: 'plan',
  perUnit: 'actual',
  comparedPerUnit: 'plan',
  note: 'note',
  keeper: 'note',
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
  rate: 'money',
  mix: 'money',
  outlook: 'money',
  rest: 'money',
  share: 'perMille',
  comparedShare: 'perMille',
  perUnit: 'money',
  comparedPerUnit: 'money',
  note: 'text',
  keeper: 'text',
};

function madeColumn(
  spec: LayoutColumn,
  place: number,
  span: ShownSpan | null,
  scope: Scope,
  key: string,
  sides: ColumnSides,
  needs: Needs,
  units: readonly UnitSeries[],
  words: LayoutWords,
): Made {
  const group =
    span === null
      ? ''
      : [scope === 'all' ? '' : words.scope(scope), words.span(span)].filter(Boolean).join(' · ');
  const of = OF[spec.show] === 'plan' && spec.against === 'lastYear' ? 'prior' : OF[spec.show];
  const column: ReportColumn = {
    key,
    block: span === null ? '' : `${scope === 'all' ? '' : `${scope ?? 'none'}:`}${span.key}`,
    group,
    label: words.column(spec, span),
    kind: KIND[spec.show],
    of,
    formula: null,
    hint: words.hint(spec, span),
    place,
    ...(span && opensOf(spec, span, scope)),
  };
  const base = { column, spec, span, scope, shows: null, pair: null };
  if (span === null)
    return {
      ...base,
      cell: spec.show === 'keeper' ? (row) => row.keeper() : (row) => row.note(),
    };
  const figures = figuresOf(needs, sides, span);
  const money = (need: number): Made => ({ ...base, shows: need, cell: (row) => row.value(need) });
  switch (spec.show) {
    case 'actual':
      return money(figures.actual);
    case 'reclassified':
      return money(figures.reclassified());
    case 'compared':
      return money(figures.compared(spec.against));
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
            ? variance.perMille
            : show === 'sense'
              ? variance.sense
              : variance.difference;
        },
      };
    }
    case 'flexible':
      return money(figures.flexible());
    case 'mix':
      return money(figures.mix());
    case 'activity':
    case 'rate': {
      // activity = flexible − planned; rate = actual − flexible: the two come to the whole.
      const flexible = figures.flexible();
      const [left, right] =
        spec.show === 'activity' ? [flexible, figures.plan()] : [figures.actual, flexible];
      return {
        ...base,
        cell: (row) => compare(row.value(left), row.value(right), row.effect)?.difference ?? null,
      };
    }
    case 'reached': {
      const budget = figures.compared(spec.against);
      return { ...base, cell: (row) => perMille(row.value(figures.actual), row.value(budget)) };
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
      const periods = planned && span.counts !== 'soFar' ? span.periods : span.known;
      const quantity = unit
        ? sumOf(periods.map((p) => (planned ? unit.planned(p) : (unit.counted(p) ?? unit.planned(p)))))
        : null;
      return { ...base, cell: (row) => perUnit(row.value(need), quantity, unit?.decimals ?? 0) };
    }
    case 'note':
    case 'keeper':
      return { ...base, cell: () => null };
  }
}

const sumOf = (values: readonly (number | null)[]): number | null =>
  values.some((v) => v !== null) ? values.reduce<number>((t, v) => plus(t, v ?? 0), 0) : null;

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
export function withFormulas(columns: readonly Made[]): Made[] {
  const keyed = (from: Made, show: LayoutColumn['show'], against: Against): string | null =>
    columns.find(
      (c) =>
        c.spec.show === show &&
        c.span?.key === from.span?.key &&
        c.scope === from.scope &&
        (!comparesWith(show) || c.spec.against === against),
    )?.column.key ?? null;
  return columns.map((made) => {
    const { show, against } = made.spec;
    const left = keyed(made, made.span?.counts === 'year' ? 'outlook' : 'actual', 'first');
    const right = keyed(made, 'compared', against);
    const difference = keyed(made, 'difference', against);
    const formula: ReportColumn['formula'] =
      show === 'difference' && left && right
        ? { op: 'minus', left, right }
        : show === 'percent' && difference && right
          ? { op: 'share', part: difference, of: right }
          : show === 'reached' && right && keyed(made, 'actual', 'first')
            ? { op: 'share', part: keyed(made, 'actual', 'first')!, of: right }
            : null;
    return formula ? { ...made, column: { ...made.column, formula } } : made;
  });
}
