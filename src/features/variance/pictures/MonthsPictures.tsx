'use client';

import { useCallback, useMemo, useState } from 'react';
import { Button, SegmentedControl } from '@mantine/core';
import type { PeriodIndex } from '@/core/calendar';
import type { Ground } from '@/core/ground';
import type { Minor } from '@/core/money';
import { cellOf, type Compared, type ReportRow } from '@/core/report';
import stage from '@/components/Stage.module.css';
import { Picture, type Drawing, type KeyEntry, type Token } from '@/components/Picture';
import { escapeTags } from '@/components/waterfallDrawing';
import type { MoneyFormat } from '@/store/format';
import type { MonthFacts } from '@/store/monthFacts';
import { linesOf, marksOf } from './marks';
import { yearSeries, type YearSeries } from './series';

const KEYS: readonly KeyEntry[] = [
  { mark: 'solid', label: 'Actual' },
  { mark: 'hatched', label: 'Outlook' },
  { mark: 'outlined', label: 'Budget' },
  { mark: 'gray', label: 'Last year' },
];
/** So many lines stand side by side. */
const MANY = 12;

type Common = {
  readonly ground: Ground;
  readonly compared: Compared;
  readonly month: PeriodIndex;
  readonly money: MoneyFormat;
};

const axisOf = (token: Token, labels: readonly string[], every: number) => ({
  tickvals: labels.map((_, i) => i).filter((i) => i % every === 0),
  ticktext: labels.filter((_, i) => i % every === 0),
  tickfont: { family: token('--font-words'), size: 10.5, color: token('--faded') },
  tickangle: 0,
  showgrid: false,
  zeroline: false,
  fixedrange: true,
});
const amounts = (token: Token) => ({
  tickfont: { family: token('--font-figures'), size: 10.5, color: token('--faded') },
  tickformat: ',.3~s',
  gridcolor: token('--rule'),
  gridwidth: 0.5,
  zerolinecolor: token('--ink'),
  zerolinewidth: 0.8,
  nticks: 4,
  fixedrange: true,
});
const title = (text: string, x: number, y: number, token: Token, size = 12) => ({
  text: escapeTags(text),
  xref: 'paper',
  yref: 'paper',
  x,
  y,
  xanchor: 'left',
  yanchor: 'bottom',
  showarrow: false,
  font: { family: token('--font-words'), size, color: token('--ink') },
});

const tableOf = (series: YearSeries, rows: readonly ReportRow[], money: MoneyFormat) => ({
  head: ['Line', ...series.labels],
  rows: rows.flatMap((row) => {
    const { actual, budget, lastYear, outlook } = series.of(row);
    return (
      [
        ['actual', actual],
        ['budget', budget],
        ['last year', lastYear],
        ['outlook', outlook],
      ] as const
    ).map(([name, months]) => [`${row.label}, ${name}`, ...months.map((m) => money.text(m))]);
  }),
});

/** One line's twelve months, and what they add up to. */
export function LinePicture({
  rowKey,
  unit,
  ...of
}: Common & { readonly rowKey: string | null; readonly unit: number }) {
  const { ground, compared, month, money } = of;
  const series = useMemo(() => yearSeries(ground, compared, month), [ground, compared, month]);
  const row =
    series.rows.find((r) => r.key === rowKey && r.kind !== 'section') ??
    series.rows.find((r) => r.key === 'netProfit') ??
    null;
  const draw = useCallback(
    (token: Token): Drawing =>
      row === null
        ? { data: [], layout: {} }
        : {
            data: [
              ...marksOf(series, row, token, { xaxis: 'x', yaxis: 'y' }, 1 / unit),
              ...linesOf(series, row, token, { xaxis: 'x2', yaxis: 'y2' }, 1 / unit),
            ],
            layout: {
              barmode: 'overlay',
              margin: { l: 44, r: 10, t: 24, b: 22 },
              grid: { rows: 1, columns: 2, pattern: 'independent', xgap: 0.1 },
              xaxis: axisOf(token, series.labels, 1),
              xaxis2: axisOf(token, series.labels, 1),
              yaxis: amounts(token),
              yaxis2: amounts(token),
              annotations: [
                title(`${row.label}, by month`, 0, 1.02, token),
                title('Since the year began', 0.55, 1.02, token),
              ],
            },
          },
    [series, row, unit],
  );
  if (!row) return null;
  return (
    <Picture
      label={`${row.label}, month by month`}
      draw={draw}
      height={190}
      keys={KEYS}
      fileName={`${row.label} by month`}
      table={tableOf(series, [row], money)}
    />
  );
}

const SCALES = { own: 'Each to its own scale', one: 'All to one scale' } as const;

/** The lines that moved most, side by side in small. */
export function AllLines({
  facts,
  unit,
  ...of
}: Common & { readonly facts: MonthFacts; readonly unit: number }) {
  const { ground, compared, month, money } = of;
  const series = useMemo(() => yearSeries(ground, compared, month), [ground, compared, month]);
  const [page, setPage] = useState(0);
  const [scale, setScale] = useState<'own' | 'one'>('own');
  const all = useMemo(() => {
    const size = (r: ReportRow) => Math.abs(Number(cellOf(facts.table, r, 'toDateDiff') ?? 0)) || 0;
    const keys = facts.table.rows
      .filter((r) => r.kind === 'line' && size(r) > 0)
      .sort((a, b) => size(b) - size(a));
    return keys.flatMap((fact) => {
      const row = series.rows.find((r) => r.key === fact.key);
      return row ? [{ row, fact }] : [];
    });
  }, [facts, series]);
  const pages = Math.ceil(all.length / MANY);
  const at = Math.min(page, Math.max(0, pages - 1));
  const rows = useMemo(() => all.slice(at * MANY, (at + 1) * MANY), [all, at]);
  const draw = useCallback(
    (token: Token): Drawing => {
      const across = 4;
      const down = Math.max(1, Math.ceil(rows.length / across));
      const layout: Record<string, unknown> = {
        barmode: 'overlay',
        margin: { l: 8, r: 8, t: 26, b: 18 },
        grid: { rows: down, columns: across, pattern: 'independent', xgap: 0.08, ygap: 0.5 },
      };
      const titles: object[] = [];
      const data = rows.flatMap(({ row, fact }, i) => {
        const n = i === 0 ? '' : String(i + 1);
        layout[`xaxis${n}`] = axisOf(
          token,
          series.labels.map((l) => l.slice(0, 1)),
          1,
        );
        layout[`yaxis${n}`] = {
          ...amounts(token),
          showticklabels: false,
          nticks: 3,
          ...(scale === 'one' && i > 0 ? { matches: 'y' } : {}),
        };
        const difference = cellOf(facts.table, fact, 'toDateDiff') as Minor;
        const sense = cellOf(facts.table, fact, 'toDateSense') ?? '';
        const name = row.label.length > 22 ? `${row.label.slice(0, 21)}…` : row.label;
        const step = (1 + 0.08 / across) / across;
        titles.push(
          title(
            `${name} ${money.signed(difference)} ${String(sense)}`,
            (i % across) * step,
            1 - Math.floor(i / across) * ((1 + 0.5 / (down + 1)) / down) + 0.01,
            token,
            11,
          ),
        );
        return marksOf(series, row, token, { xaxis: `x${n}`, yaxis: `y${n}` }, 1 / unit);
      });
      return { data, layout: { ...layout, annotations: titles } };
    },
    [rows, series, facts, money, unit, scale],
  );
  if (rows.length === 0) return null;
  return (
    <>
      <Picture
        label={`The lines that moved most, month by month, ${SCALES[scale].toLowerCase()}`}
        draw={draw}
        height={Math.ceil(rows.length / 4) * 112 + 24}
        keys={KEYS}
        fileName="All lines by month"
        table={tableOf(
          series,
          rows.map((r) => r.row),
          money,
        )}
      />
      <div className={stage.tools} role="group" aria-label="Which lines, and how">
        <SegmentedControl
          size="xs"
          aria-label="Scale of the pictures"
          value={scale}
          onChange={(v) => setScale(v as 'own' | 'one')}
          data={[
            { value: 'own', label: SCALES.own },
            { value: 'one', label: SCALES.one },
          ]}
        />
        {pages > 1 && (
          <>
            <Button disabled={at === 0} onClick={() => setPage(at - 1)}>
              ← The {MANY} before
            </Button>
            <span className="faded">
              {at * MANY + 1}–{at * MANY + rows.length} of {all.length} lines, by size of difference
            </span>
            <Button disabled={at === pages - 1} onClick={() => setPage(at + 1)}>
              The next →
            </Button>
          </>
        )}
      </div>
    </>
  );
}

/** The year on one page, for owners: income, costs of it, and the profit that adds up. */
export function YearPage({ unit, ...of }: Common & { readonly unit: number }) {
  const { ground, compared, month, money } = of;
  const series = useMemo(() => yearSeries(ground, compared, month), [ground, compared, month]);
  const rows = useMemo(
    () =>
      ['total-income', 'total-costOfSales', 'total-expense', 'netProfit'].flatMap(
        (key) => series.rows.find((r) => r.key === key) ?? [],
      ),
    [series],
  );
  const draw = useCallback(
    (token: Token): Drawing => {
      const layout: Record<string, unknown> = {
        barmode: 'overlay',
        margin: { l: 44, r: 10, t: 26, b: 20 },
        grid: { rows: 2, columns: 2, pattern: 'independent', xgap: 0.1, ygap: 0.34 },
      };
      const titles: object[] = [];
      const data = rows.flatMap((row, i) => {
        const n = i === 0 ? '' : String(i + 1);
        const axes = { xaxis: `x${n}`, yaxis: `y${n}` };
        layout[`xaxis${n}`] = axisOf(token, series.labels, 1);
        const last = row.key === 'netProfit';
        // Months compare with months; sums since the year began have a scale of their own, and say so.
        layout[`yaxis${n}`] = { ...amounts(token), ...(i > 0 && !last ? { matches: 'y' } : {}) };
        titles.push(
          title(
            last ? `${row.label}, since the year began (to a scale of its own)` : row.label,
            (i % 2) * 0.525,
            i < 2 ? 1.01 : 0.432,
            token,
          ),
        );
        return last
          ? linesOf(series, row, token, axes, 1 / unit)
          : marksOf(series, row, token, axes, 1 / unit);
      });
      return { data, layout: { ...layout, annotations: titles } };
    },
    [rows, series, unit],
  );
  return (
    <Picture
      label="The year on one page"
      draw={draw}
      height={340}
      keys={KEYS}
      fileName="The year on one page"
      table={tableOf(series, rows, money)}
    />
  );
}
