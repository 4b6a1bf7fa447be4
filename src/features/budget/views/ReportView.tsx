'use client';

import { useMemo, useState } from 'react';
import { Switch } from '@mantine/core';
import { reckoned, type Ground } from '@/core/ground';
import type { Budget, Layout, LayoutColumn, SegmentId } from '@/core/model';
import { comparedWith, layoutReport } from '@/core/report';
import { documents, ExportMenu } from '@/components/ExportMenu';
import { FiguresPanel } from '@/components/report/layout/FiguresPanel';
import { GrainChoice, type Grain } from '@/components/report/layout/GrainChoice';
import { LayoutGrid } from '@/components/report/layout/LayoutGrid';
import { LayoutPanel } from '@/components/report/layout/LayoutPanel';
import stage from '@/components/Stage.module.css';
import { useBookStore } from '@/store/bookStore';
import { exportCsv, exportLivePlan, exportPdf, exportXlsx } from '@/store/exports';
import { UnitContext } from '@/components/unit';
import { figureTexts, layoutMoney, layoutUnit, percentText } from '@/store/format';
import { layoutWords } from '@/store/layoutWords';
import { setSession, useSession } from '@/store/session';
import { useLayout } from '@/store/useLayout';
import { SegmentChoice } from '../sheet/SegmentChoice';
import { segmentShown } from '../rows/worksheetRows';
import classes from '../Budget.module.css';

const isPart = ({ span }: LayoutColumn): boolean => span.of === 'each' && span.over === 'budget';
const isLastYear = ({ show, against }: LayoutColumn): boolean =>
  show === 'change' || show === 'changePercent' || (show === 'compared' && against === 'lastYear');
const isWords = ({ show }: LayoutColumn): boolean => show === 'method' || show === 'planNote';

const byOf = (column: LayoutColumn | undefined): Grain =>
  column?.span.of === 'each' && (column.span.by === 'quarter' || column.span.by === 'year')
    ? column.span.by
    : 'month';

/** A layout's report of a budget, or of one of its segments, over all its periods. */
function budgetLook(ground: Ground, layout: Layout, budget: Budget, segment: SegmentId | 'all') {
  const { periods } = reckoned(ground, budget).facts;
  const ruler = { first: periods[0]?.index ?? 0, last: periods.at(-1)?.index ?? 0 };
  const month = Math.max(ruler.first, Math.min(ruler.last, ground.closedThrough ?? ruler.first));
  const id = segment === 'all' || budget.segments.length < 2 ? budget.id : `${budget.id} ${segment ?? ''}`;
  const compared = comparedWith(ground, month, layout, id);
  const words = layoutWords(ground, layout, month, compared, ruler);
  return {
    report: layoutReport({ ground, layout, month, compared, words, ruler }),
    compared,
    ruler,
    oneYear: periods[0]?.year === periods.at(-1)?.year,
  };
}

/** The budget as a report: a layout's table, on the screen as it leaves in files. */
export function ReportView({ ground, budget }: { readonly ground: Ground; readonly budget: Budget }) {
  const { book } = ground;
  const readOnly = useBookStore((s) => s.readOnly);
  const layoutId = useSession((s) => s.budgetLayoutId);
  const inUse = useLayout(ground, layoutId ?? 'std-budget', (id) => setSession({ budgetLayoutId: id }));
  const { layout } = inUse;
  const [chosen, setChosen] = useState<string | null | 'all'>('all');
  const [at, setAt] = useState<{ readonly row: string; readonly column: string | null } | null>(null);
  const segment = segmentShown(budget.segments, chosen);
  const { report, compared, ruler, oneYear } = useMemo(
    () => budgetLook(ground, layout, budget, segment),
    [ground, layout, budget, segment],
  );
  const money = useMemo(() => layoutMoney(book, layout.numbers), [book, layout.numbers]);
  const figures = useMemo(() => figureTexts(book, money), [book, money]);
  const { table } = report;
  const parts = layout.columns.filter(isPart);
  const grain: Grain = parts.every((c) => c.hidden) ? 'year' : byOf(parts[0]);
  const change = (of: (c: LayoutColumn) => boolean, part: (c: LayoutColumn) => Partial<LayoutColumn>) =>
    inUse.change({ columns: layout.columns.map((c) => (of(c) ? { ...c, ...part(c) } : c)) });
  const shown = (of: (c: LayoutColumn) => boolean) => layout.columns.some((c) => of(c) && !c.hidden);
  return (
    <UnitContext value={layoutUnit(book, layout.numbers)}>
      <div className={classes.reportPage}>
        <div className={stage.tools}>
          <LayoutPanel ground={ground} inUse={inUse} readOnly={readOnly} />
          {parts.length > 0 && (
            <GrainChoice
              label="Columns of the report"
              grain={grain}
              onGrain={(by) =>
                change(isPart, ({ span }) => ({
                  span: { ...span, by } as LayoutColumn['span'],
                  // The whole of a budget of one year stands there already.
                  hidden: by === 'year' && oneYear,
                }))
              }
            />
          )}
          <SegmentChoice book={book} budget={budget} value={segment} onChange={setChosen} />
          {layout.columns.some(isLastYear) && (
            <Switch
              size="xs"
              label="With last year"
              checked={shown(isLastYear)}
              onChange={(e) => {
                const hidden = !e.currentTarget.checked;
                change(isLastYear, () => ({ hidden }));
              }}
            />
          )}
          {layout.columns.some(isWords) && (
            <Switch
              size="xs"
              label="With methods and notes"
              checked={shown(isWords)}
              onChange={(e) => {
                const hidden = !e.currentTarget.checked;
                change(isWords, () => ({ hidden }));
              }}
            />
          )}
          <FiguresPanel ground={ground} layout={layout} comparisons={[]} onChange={inUse.change} />
          <span className={stage.push} />
          <ExportMenu
            xlsx="Workbook (XLSX) of this report"
            onXlsx={() => void exportXlsx(table)}
            onCsv={() => exportCsv(table)}
            more={[
              {
                label: 'Workbook (XLSX) that reckons itself, with its drivers',
                run: () => void exportLivePlan(ground, budget, segment),
              },
              ...documents((paper) => void exportPdf(ground, [table], layout.numbers, paper)),
            ]}
          />
        </div>
        <LayoutGrid
          label={table.title}
          ground={ground}
          inUse={inUse}
          compared={compared}
          ruler={ruler}
          table={table}
          {...figures}
          percent={percentText}
          at={at}
          onAt={(row, column) => setAt({ row: row.key, column: column?.key ?? null })}
          onOpen={(row, column) => setAt({ row: row.key, column: column?.key ?? null })}
        />
      </div>
    </UnitContext>
  );
}
