import type { Minor } from '@/core/money';
import type { ReportRow } from '@/core/report';
import type { Token } from '@/components/Picture';
import { cumulated, type YearSeries } from './series';

/** Marks of months, the same wherever they are drawn: actual solid, budget outlined, last year gray, outlook hatched. */
export function marksOf(
  { labels, of }: YearSeries,
  row: ReportRow,
  token: Token,
  axes: { readonly xaxis: string; readonly yaxis: string },
  scale: number,
): object[] {
  const { actual, budget, lastYear, outlook } = of(row);
  const y = (months: readonly (Minor | null)[]) =>
    months.map((m) => (m === null || Number.isNaN(m) ? null : m * scale));
  const coming = outlook.map((m, i) => (actual[i] === null ? m : null));
  const x = labels.map((_, i) => i);
  const bar = (months: readonly (Minor | null)[], width: number, marker: object) => ({
    type: 'bar',
    x,
    y: y(months),
    width,
    marker,
    hoverinfo: 'skip',
    ...axes,
  });
  return [
    bar(lastYear, 0.86, { color: token('--prior'), opacity: 0.45 }),
    bar(budget, 0.66, { color: 'rgba(0,0,0,0)', line: { color: token('--plan-line'), width: 1.3 } }),
    bar(coming, 0.38, {
      color: token('--sheet'),
      line: { color: token('--plan-line'), width: 0.8 },
      pattern: { shape: '/', fgcolor: token('--plan-line'), size: 5, solidity: 0.3 },
    }),
    bar(actual, 0.38, { color: token('--ink') }),
  ];
}

/** Sums from the year's first month on, as lines: budget dashed, last year gray, outlook dotted after the actual. */
export function linesOf(
  { labels, of }: YearSeries,
  row: ReportRow,
  token: Token,
  axes: { readonly xaxis: string; readonly yaxis: string },
  scale: number,
): object[] {
  const { actual, budget, lastYear, outlook } = of(row);
  const x = labels.map((_, i) => i);
  const line = (months: readonly (Minor | null)[], color: string, dash: string, width: number) => ({
    type: 'scatter',
    mode: 'lines',
    x,
    y: cumulated(months).map((m) => (m === null ? null : m * scale)),
    line: { color, dash, width },
    hoverinfo: 'skip',
    ...axes,
  });
  return [
    line(lastYear, token('--prior'), 'solid', 2),
    line(budget, token('--plan-line'), 'solid', 1.5),
    line(outlook, token('--plan-line'), 'dot', 2),
    line(actual, token('--ink'), 'solid', 2.4),
  ];
}
