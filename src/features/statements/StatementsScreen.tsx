'use client';

import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import { Button, NativeSelect, SegmentedControl, Switch } from '@mantine/core';
import type { Minor } from '@/core/money';
import {
  fiscalYearsLabel,
  periodsOf,
  rangeLabel,
  yearRange,
  type PeriodIndex,
  type PeriodRange,
} from '@/core/calendar';
import { aheadOf, comparisonsAt, reckoned, rulerRange, type Ahead, type Ground } from '@/core/ground';
import type { Budget, Layout, LayoutColumn } from '@/core/model';
import {
  comparedWith,
  layoutAxis,
  layoutReport,
  scheduleReports,
  shippedLayout,
  STATEMENT_LAYOUTS,
  type ReportColumn,
  type ReportRow,
  type ReportTable,
} from '@/core/report';
import { documents, ExportMenu } from '@/components/ExportMenu';
import { FiguresPanel } from '@/components/report/layout/FiguresPanel';
import { GrainChoice, type Grain } from '@/components/report/layout/GrainChoice';
import { LayoutGrid } from '@/components/report/layout/LayoutGrid';
import { StageHead } from '@/components/StageHead';
import { PlanChoice, ViewBar } from '@/components/ViewBar';
import { Trouble } from '@/components/Trouble';
import stage from '@/components/Stage.module.css';
import { useBookStore } from '@/store/bookStore';
import { exportCsv, exportPdf, exportXlsx } from '@/store/exports';
import { UnitContext } from '@/components/unit';
import { figureTexts, layoutMoney, layoutUnit, percentText } from '@/store/format';
import { useOpenGround } from '@/store/openGround';
import { layoutWords } from '@/store/layoutWords';
import { ROW_LINES, SCHEDULE_NAMES } from '@/store/scheduleWords';
import { setSession, STATEMENT_PAGES, useSession, type StatementPage } from '@/store/session';
import { planCalled, usePlan } from '@/store/plan';
import { useLayout } from '@/store/useLayout';
import { FigurePanel } from './FigurePanel';
import classes from './Statements.module.css';

const WayView = dynamic(() => import('./WayView').then((m) => m.WayView));
const CapitalView = dynamic(() => import('./CapitalView').then((m) => m.CapitalView));
const RatiosView = dynamic(() => import('./RatiosView').then((m) => m.RatiosView));

const PAGES: Readonly<Record<StatementPage, string>> = {
  profit: 'Profit and loss',
  balance: 'Balance sheet',
  flow: 'Cash flow',
  way: 'From profit to cash',
  capital: 'Working capital',
  ratios: 'Ratios',
};
const VIEWS = STATEMENT_PAGES.map((value) => ({ value, label: PAGES[value] }));
const isPart = ({ span, show }: LayoutColumn): boolean =>
  span.of === 'each' && span.over === 'ruler' && show === 'actual';
const isLastYear = ({ against, show }: LayoutColumn): boolean =>
  show === 'compared' && against === 'lastYear';

const isBeside = ({ against, show }: LayoutColumn): boolean =>
  against === 'second' && (show === 'compared' || show === 'difference');

/** The periods that statements show until others are chosen: the fiscal year of the first one ahead. */
const usualRange = ({ calendar }: Ground, { start }: Ahead): PeriodRange =>
  yearRange(calendar, calendar.period(start + 1).year);

/** Profit and loss, balance sheet and cash flow, closed and ahead, in one row of periods. */
export function StatementsScreen() {
  const ground = useOpenGround();
  const router = useRouter();
  const page = useSession((s) => s.statementPage);
  const chosen = useSession((s) => s.statementRange);
  const { book, calendar, closedThrough } = ground;
  const { looked: budget, name } = usePlan(ground);
  const ahead = useMemo(() => aheadOf(ground, budget), [ground, budget]);
  if (!ahead)
    return (
      <Trouble
        tone="empty"
        title="Statements need a ledger or a plan"
        action={{ label: 'Take in a ledger file', run: () => router.push('/books') }}
      >
        Nothing is closed and no budget is started yet. Take in the actuals, or start a budget; then profit
        and loss, balance sheet and cash flow stand here, closed months and coming ones in one row.
      </Trouble>
    );
  const known = rulerRange(ground);
  const first = Math.min(known?.first ?? ahead.start + 1, ahead.start + 1);
  const last = Math.max(known?.last ?? ahead.last, ahead.last);
  const wanted = chosen ?? usualRange(ground, ahead);
  const range = { first: Math.max(first, wanted.first), last: Math.min(last, wanted.last) };
  return (
    <div className={stage.stage}>
      <StageHead
        title={PAGES[page]}
        subtitle={`${rangeLabel(calendar, range)}${name === null ? '' : ` · ahead by ${name}`}`}
        ruler={{
          periods: periodsOf(calendar, { first, last }),
          closedThrough,
          range,
          choose: 'many',
          onChange: (statementRange) => setSession({ statementRange }),
          label: 'Months of the statements',
        }}
      />
      <div className={classes.page}>
        <ViewBar views={VIEWS} view={page} onView={(statementPage) => setSession({ statementPage })}>
          <PlanChoice
            budgets={book.budgets}
            looked={budget}
            inForce={planCalled(ground, null) ?? 'nothing'}
            onLook={(planId) => setSession({ planId })}
          />
        </ViewBar>
        {page === 'way' ? (
          <WayView ground={ground} ahead={ahead} range={range} />
        ) : page === 'capital' ? (
          <CapitalView ground={ground} ahead={ahead} range={range} />
        ) : page === 'ratios' ? (
          <RatiosView ground={ground} ahead={ahead} range={range} />
        ) : (
          <Statement key={page} ground={ground} ahead={ahead} budget={budget} range={range} page={page} />
        )}
      </div>
    </div>
  );
}

/** A month of the budget that goes on after the closed ones. */
const monthOf = (ahead: Ahead, budget: Budget | null): PeriodIndex =>
  (budget ? ahead.view.plans.find((p) => p.budget.id === budget.id) : ahead.view.plans[0])?.periods[0]
    ?.index ?? ahead.start;

/** What a statement is compared with: the budget that goes on after the closed months. */
const comparedAhead = (ground: Ground, ahead: Ahead, budget: Budget | null, layout: Layout) =>
  comparedWith(ground, monthOf(ahead, budget), layout, budget?.id ?? null);

function statementOf(
  ground: Ground,
  ahead: Ahead,
  budget: Budget | null,
  layout: Layout,
  ruler: PeriodRange,
) {
  const compared = comparedAhead(ground, ahead, budget, layout);
  const words = layoutWords(ground, layout, ruler.last, compared, ruler);
  const { table } = layoutReport({ ground, layout, month: ruler.last, compared, words, ruler });
  return { table, compared };
}

/** The three statements over a range, as they leave together. */
function allOf(
  ground: Ground,
  ahead: Ahead,
  budget: Budget | null,
  layouts: readonly Layout[],
  range: PeriodRange,
  direct: boolean,
): readonly [ReportTable, ReportTable, ReportTable] {
  const of = (kind: keyof typeof STATEMENT_LAYOUTS) =>
    statementOf(
      ground,
      ahead,
      budget,
      layouts.find((l) => l.id === STATEMENT_LAYOUTS[kind]) ?? shippedLayout(STATEMENT_LAYOUTS[kind])!,
      range,
    ).table;
  return [of('profit'), of('balance'), of(direct ? 'direct' : 'flow')];
}

/** The schedules behind them, as they leave: pay by account alone. */
const schedulesOf = (ground: Ground, budget: Budget): readonly ReportTable[] =>
  scheduleReports(ground, budget, {
    kinds: SCHEDULE_NAMES,
    lines: ROW_LINES,
    total: fiscalYearsLabel(reckoned(ground, budget).facts.periods),
    subtitle: budget.name,
  });

function Statement({
  ground,
  ahead,
  budget,
  range,
  page,
}: {
  readonly ground: Ground;
  readonly ahead: Ahead;
  readonly budget: Budget | null;
  readonly range: PeriodRange;
  readonly page: 'profit' | 'balance' | 'flow';
}) {
  const { book } = ground;
  const readOnly = useBookStore((s) => s.readOnly);
  const direct = useSession((s) => s.flowDirect);
  const [first, last] = [range.first, range.last];
  const inUse = useLayout(
    ground,
    STATEMENT_LAYOUTS[page === 'flow' && direct ? 'direct' : page],
    () => undefined,
  );
  const { layout } = inUse;
  const [at, setAt] = useState<{ readonly row: string; readonly column: string | null } | null>(null);
  const [panelOpen, setPanelOpen] = useState(false);
  const { table, compared } = useMemo(
    () => statementOf(ground, ahead, budget, layout, { first, last }),
    [ground, ahead, budget, layout, first, last],
  );
  const money = useMemo(() => layoutMoney(book, layout.numbers), [book, layout.numbers]);
  const figures = useMemo(() => figureTexts(book, money), [book, money]);
  const key = { profit: 'netProfit', balance: 'netAssets', flow: 'flow-closing' }[page];
  const result = table.rows.find((r) => r.key === key);
  const after = page === 'flow' ? '' : page === 'profit' ? 'in all' : 'at the end';
  const figure = result ? money.text((result.cells[table.columns.length - 1] ?? null) as Minor | null) : '';
  const label = result?.label ?? null;
  useEffect(() => {
    setSession({ facts: label === null ? [] : [{ label, value: figure, after }] });
    return () => setSession({ facts: [] });
  }, [label, figure, after]);
  const parts = layout.columns.filter(isPart);
  const by = parts[0]?.span.of === 'each' ? parts[0].span.by : 'month';
  const change = (columns: Layout['columns']) => inUse.change({ columns });
  const beside = layout.columns.some(isBeside) ? layout.against.second : '';
  // A budget that covers none of the months at hand has nothing to say of them.
  const others = comparisonsAt(ground, monthOf(ahead, budget)).filter((c) => c.of === 'budget');
  const setBeside = (id: string) =>
    inUse.change({
      against: { ...layout.against, second: id },
      columns: layout.columns
        .filter((c) => !isBeside(c))
        .flatMap((c) =>
          id !== '' && c.show === 'actual'
            ? [
                c,
                { ...c, show: 'compared' as const, against: 'second' as const },
                { ...c, show: 'difference' as const, against: 'second' as const },
              ]
            : [c],
        ),
    });
  const hasLastYear = layout.columns.some(isLastYear);
  const row = table.rows.find((r) => r.key === at?.row) ?? null;
  const column = table.columns.find((c) => c.key === at?.column) ?? null;
  const axis = layoutAxis(book, layout.segments);
  const scope = row?.scope ?? (column?.part ? column.scope! : 'all');
  const goTo = (r: ReportRow, c: ReportColumn | null) => {
    setAt({ row: r.key, column: c?.key ?? null });
    setPanelOpen(true);
  };
  const flip = () => setSession({ flowDirect: !direct });
  return (
    <UnitContext value={layoutUnit(book, layout.numbers)}>
      <div className={stage.work}>
        <div className={stage.left}>
          <div className={stage.tools}>
            {parts.length > 0 && (
              <GrainChoice
                label="Columns of the statement"
                grain={by as Grain}
                onGrain={(grain) =>
                  change(
                    layout.columns.map((c) =>
                      c.span.of === 'each' && c.span.over === 'ruler'
                        ? { ...c, span: { ...c.span, by: grain } }
                        : c,
                    ),
                  )
                }
              />
            )}
            {page === 'flow' && (
              <SegmentedControl
                size="xs"
                aria-label="Form of the cash flow"
                value={direct ? 'direct' : 'indirect'}
                onChange={flip}
                data={[
                  { value: 'indirect', label: 'From profit' },
                  { value: 'direct', label: 'By whom' },
                ]}
              />
            )}
            <Switch
              size="xs"
              label="Beside last year"
              checked={hasLastYear}
              onChange={(e) =>
                change(
                  e.currentTarget.checked
                    ? layout.columns.flatMap((c) =>
                        c.show === 'actual'
                          ? [c, { ...c, show: 'compared' as const, against: 'lastYear' as const }]
                          : [c],
                      )
                    : layout.columns.filter((c) => !isLastYear(c)),
                )
              }
            />
            {others.length > 0 && (
              <NativeSelect
                aria-label="Beside a budget"
                value={others.some((c) => c.id === beside) ? beside : ''}
                data={[
                  { value: '', label: 'Beside no budget' },
                  ...others.map((c) => ({ value: c.id, label: `Beside ${c.parts[0]!.budget.name}` })),
                ]}
                onChange={(e) => setBeside(e.currentTarget.value)}
              />
            )}
            <FiguresPanel ground={ground} layout={layout} comparisons={[]} onChange={inUse.change} />
            {!readOnly && book.layouts.some((l) => l.id === layout.id) && (
              <Button onClick={inUse.remove}>As it ships</Button>
            )}
            <span className={stage.push} />
            <Button className={stage.toggle} onClick={() => setPanelOpen(!panelOpen)}>
              Reasoning
            </Button>
            <ExportMenu
              onCsv={() => exportCsv(table)}
              onXlsx={() => void exportXlsx(table)}
              more={[
                ...documents((paper) => void exportPdf(ground, [table], layout.numbers, paper)),
                {
                  label: 'All three, one workbook (XLSX) that ties by itself',
                  run: () =>
                    void exportXlsx(...allOf(ground, ahead, budget, inUse.all, { first, last }, direct)),
                },
                ...(budget && budget.schedules.length > 0
                  ? [
                      {
                        label: 'All three with the schedules, one workbook (XLSX)',
                        run: () =>
                          void exportXlsx(
                            ...allOf(ground, ahead, budget, inUse.all, { first, last }, direct),
                            ...schedulesOf(ground, budget),
                          ),
                      },
                    ]
                  : []),
                ...documents(
                  (paper) =>
                    void exportPdf(
                      ground,
                      allOf(ground, ahead, budget, inUse.all, { first, last }, direct),
                      layout.numbers,
                      paper,
                    ),
                  'All three, document (PDF)',
                ),
              ]}
            />
          </div>
          <LayoutGrid
            label={layout.name}
            ground={ground}
            inUse={inUse}
            compared={compared}
            ruler={range}
            table={table}
            {...figures}
            percent={percentText}
            at={at}
            onAt={goTo}
            onOpen={goTo}
            onKey={(e) => {
              if (page !== 'flow' || e.key.toLowerCase() !== 'd' || e.ctrlKey || e.metaKey || e.altKey)
                return false;
              flip();
              return true;
            }}
          />
        </div>
        <aside tabIndex={0} className={stage.panel} data-open={panelOpen || undefined} aria-label="Reasoning">
          <FigurePanel
            key={`${at?.row} ${at?.column}`}
            ground={ground}
            ahead={ahead}
            row={row}
            range={column?.periods ?? range}
            stands={page === 'balance'}
            of={axis && scope !== 'all' ? { axis, value: scope } : null}
          />
        </aside>
      </div>
    </UnitContext>
  );
}
