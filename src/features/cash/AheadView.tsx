'use client';

import { useCallback, useMemo, useState } from 'react';
import { Button, NativeSelect, SegmentedControl } from '@mantine/core';
import { editText, minor, type Minor } from '@/core/money';
import type { PeriodIndex } from '@/core/calendar';
import { at, type Selection } from '@/core/sheet';
import { ALL_SOURCES, type CashView, type Ground } from '@/core/ground';
import { documents, ExportMenu } from '@/components/ExportMenu';
import { SheetView } from '@/components/sheet/SheetView';
import type { CellFormat } from '@/components/sheet/SheetRowView';
import stage from '@/components/Stage.module.css';
import { exportCsv, exportPdf, exportXlsx } from '@/store/exports';
import { AS_THE_BOOK, moneyFormat } from '@/store/format';
import { say, setSession, useSession } from '@/store/session';
import { aheadData, type Grain } from './aheadRows';
import { CashChart } from './CashChart';
import { CausePanel } from './CausePanel';
import { SourcesButton } from './SourcesButton';
import classes from './Cash.module.css';

const LEAD: readonly never[] = [];

/** The bank by day, and what moves it: a line over spans, a grid beneath it, and the causes of what is chosen. */
export function AheadView({
  ground,
  view,
  from,
  forecastId,
}: {
  readonly ground: Ground;
  readonly view: CashView;
  readonly from: PeriodIndex;
  readonly forecastId: string | null;
}) {
  const { book } = ground;
  const grain = useSession((s) => s.cashGrain);
  const money = moneyFormat(book);
  const data = useMemo(() => aheadData(ground, view, grain, from), [ground, view, grain, from]);
  const { rows, columns, table } = data;
  // It begins at the low point: what moves it, and what holds it down.
  const [picked, setSelection] = useState<Selection>(() => {
    const day = view.forecast.low?.day ?? 0;
    const span = table.ranges.findIndex((r) => day >= r.from && day <= r.to);
    return at(0, Math.max(0, span));
  });
  const [panelOpen, setPanelOpen] = useState(false);
  const clamp = (p: { row: number; column: number }) => ({
    row: Math.max(0, Math.min(p.row, rows.length - 1)),
    column: Math.max(0, Math.min(p.column, columns.length - 1)),
  });
  const selection: Selection = { anchor: clamp(picked.anchor), focus: clamp(picked.focus) };
  const format = useCallback<CellFormat>((v) => money.text(v), [money]);
  const exact = useCallback<CellFormat>((v) => money.exact(v), [money]);
  const refused = () =>
    say('Cash follows the budget, its terms and the open items: change those, and it moves.');
  const row = rows[selection.focus.row];
  const span = selection.focus.column;
  return (
    <div className={`${stage.work} ${classes.work}`}>
      <div className={stage.left}>
        <div className={stage.tools}>
          <SegmentedControl
            size="xs"
            aria-label="Spans"
            value={grain}
            onChange={(v) => setSession({ cashGrain: v as Grain })}
            data={[
              { value: 'months', label: 'Months' },
              { value: 'weeks', label: 'Weeks' },
              { value: 'days', label: 'Days' },
            ]}
          />
          {book.cash.forecasts.length > 0 && (
            <NativeSelect
              aria-label="Forecast"
              value={forecastId ?? ALL_SOURCES}
              data={[
                { value: ALL_SOURCES, label: 'All sources' },
                ...book.cash.forecasts.map((f) => ({
                  value: f.id,
                  label: f.id === book.cash.own ? `${f.name} (our own)` : f.name,
                })),
              ]}
              onChange={(e) => setSession({ cashForecast: e.currentTarget.value })}
            />
          )}
          <SourcesButton book={book} forecast={forecastId} />
          <span className={stage.push} />
          <Button className={stage.toggle} onClick={() => setPanelOpen(!panelOpen)}>
            Causes
          </Button>
          <ExportMenu
            onCsv={() => exportCsv(data.report)}
            onXlsx={() => void exportXlsx(data.report)}
            more={documents((paper) => void exportPdf(ground, [data.report], AS_THE_BOOK, paper))}
          />
        </div>
        {view.unplanned.length > 0 && (
          <p className={classes.note} role="note">
            No budget plans {view.unplanned[0]!.label}
            {view.unplanned.length > 1 ? ` to ${view.unplanned.at(-1)!.label}` : ''}: only what stands open,
            taxes and dated items move the bank then.
          </p>
        )}
        {view.undated.length > 0 && (
          <p className={classes.note} role="note">
            An amount for the year without months is not in it, since nobody said when it falls:{' '}
            {view.undated
              .slice(0, 4)
              .map((a) => a.name)
              .join(', ')}
            {view.undated.length > 4 ? ` and ${view.undated.length - 4} more` : ''}.
          </p>
        )}
        <CashChart
          forecast={view.forecast}
          table={table}
          heads={columns.map((c) => c.label)}
          floor={book.cash.floor}
          money={money}
          chosen={span}
          onChoose={(column) => setSelection(at(selection.focus.row, column))}
        />
        <div className={stage.fill}>
          <SheetView
            label="Cash by span"
            nameHead="Source"
            rows={rows}
            columns={columns}
            lead={LEAD}
            tone="plan"
            selection={selection}
            onSelection={setSelection}
            format={format}
            exact={exact}
            edit={(r, c) =>
              editText(
                (rows[r]?.values[c] ?? null) as Minor | null,
                book.currency,
                book.locale,
                book.settings.thousands,
              )
            }
            readOnly
            onType={() => null}
            onPaste={refused}
            onClear={refused}
            onRestore={refused}
            onRefused={refused}
          />
        </div>
      </div>
      <aside tabIndex={0} className={stage.panel} data-open={panelOpen || undefined} aria-label="Causes">
        <CausePanel
          ground={ground}
          view={view}
          range={table.ranges[span]!}
          head={columns[span]!.label}
          grain={grain}
          row={row?.key ?? 'closing'}
          amount={row?.values[span] ?? minor(0)}
        />
      </aside>
    </div>
  );
}
