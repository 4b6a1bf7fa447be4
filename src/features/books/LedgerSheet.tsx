'use client';

import dynamic from 'next/dynamic';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Button } from '@mantine/core';
import { editText, sumBlank, type Minor } from '@/core/money';
import { rangeLabel, type PeriodRange } from '@/core/calendar';
import { balancesOf, entriesOf, viewOfSegments } from '@/core/ledger';
import { at, rectOf, type Selection } from '@/core/sheet';
import { documents, ExportMenu } from '@/components/ExportMenu';
import { SheetView } from '@/components/sheet/SheetView';
import type { CellFormat } from '@/components/sheet/SheetRowView';
import type { LeadColumn } from '@/components/sheet/types';
import stage from '@/components/Stage.module.css';
import type { Ground } from '@/core/ground';
import { AS_THE_BOOK, countText, dayText, moneyFormat } from '@/store/format';
import { say, setSession } from '@/store/session';
import { LedgerFilters, type SegmentChoice } from './LedgerFilters';
import { filteredLedger, ledgerRows, NO_FILTER, oddities, partWords, type LedgerFilter } from './ledgerRows';
import { KIND_NAMES } from '@/store/kindNames';

/** What saves files is loaded with the first one. */
const saving = () => import('@/store/exports');

/** Loaded with the first amount that is chosen. */
const EntriesPanel = dynamic(() => import('@/components/EntriesPanel').then((m) => m.EntriesPanel));

const LEAD: readonly LeadColumn[] = [{ key: 'picture', label: 'Shape', width: 82 }];

/** The ledger month by month; the selected amount's entries beside it. */
export function LedgerSheet({ ground, range }: { readonly ground: Ground; readonly range: PeriodRange }) {
  const { book, calendar } = ground;
  const [filter, setFilter] = useState<LedgerFilter>(NO_FILTER);
  const [segments, setSegments] = useState<SegmentChoice>({});
  const [source, setSource] = useState<string | null>(null);
  const blocks = useMemo(
    () => (source === null ? ground.blocks : ground.blocks.filter((b) => b.id === source)),
    [ground.blocks, source],
  );
  const money = moneyFormat(book);
  const view = useMemo(
    () =>
      viewOfSegments(
        ground.view,
        book.axes.flatMap((axis) => {
          const value = segments[axis.id];
          return value === undefined ? [] : [{ axis, values: [value || null] }];
        }),
      ),
    [ground.view, book.axes, segments],
  );
  const balances = useMemo(
    () =>
      view === ground.view && blocks === ground.blocks ? ground.balances : balancesOf(blocks, calendar, view),
    [view, ground.view, ground.blocks, ground.balances, blocks, calendar],
  );
  const odd = useMemo(() => oddities(ground, balances, range), [ground, balances, range]);
  const part = partWords(book, filter, segments, source);
  const table = useMemo(
    () => filteredLedger(ground, balances, range, filter, odd, part),
    [ground, balances, range, filter, odd, part],
  );
  const { rows, columns } = useMemo(
    () => ledgerRows(ground, range, table, odd, money.text),
    [ground, range, table, odd, money],
  );
  const [picked, setSelection] = useState<Selection>(() =>
    at(
      Math.max(
        0,
        rows.findIndex((r) => r.enterable),
      ),
      0,
    ),
  );
  const [panelOpen, setPanelOpen] = useState(false);
  const clamp = (p: { row: number; column: number }) => ({
    row: Math.max(0, Math.min(p.row, rows.length - 1)),
    column: Math.min(p.column, columns.length - 1),
  });
  const selection: Selection = { anchor: clamp(picked.anchor), focus: clamp(picked.focus) };
  const format = useCallback<CellFormat>((v) => money.text(v), [money]);
  const exact = useCallback<CellFormat>((v) => money.exact(v), [money]);
  const row = rows[selection.focus.row];
  const account = book.accounts.find((a) => a.id === row?.key);
  const isTotal = columns[selection.focus.column]?.kind === 'total';
  const span = useMemo<PeriodRange>(
    () =>
      isTotal
        ? range
        : { first: range.first + selection.focus.column, last: range.first + selection.focus.column },
    [isTotal, range, selection.focus.column],
  );
  const entries = useMemo(
    () => (account ? entriesOf(blocks, calendar, account.id, span, view) : []),
    [account, blocks, calendar, span, view],
  );
  const sources = useMemo(
    () => new Map(book.sources.map((s) => [s.block, s.fileName] as const)),
    [book.sources],
  );

  const rect = rectOf(selection);
  const chosen = rows
    .slice(rect.top, rect.bottom + 1)
    .flatMap((r) => (r.enterable ? r.values.slice(rect.left, rect.right + 1) : []));
  const sum = money.text(sumBlank(chosen.map((v) => v ?? null)));
  const filledCount = String(chosen.filter((v) => v !== null).length);
  const net = rows.find((r) => r.key === 'netProfit');
  const netText = money.text(net?.values.at(-1) ?? null);
  const netLabel = net?.label ?? 'Net profit';
  useEffect(() => {
    setSession({
      facts: [
        { label: 'Selected', value: filledCount },
        { label: 'Sum', value: sum },
        { label: netLabel, value: netText },
      ],
    });
    return () => setSession({ facts: [] });
  }, [filledCount, sum, netText, netLabel]);

  const refused = () =>
    say('The ledger is read, never typed over: correct it where it is kept, and take the file in again.');
  const why = row?.odd?.[selection.focus.column];
  return (
    <div className={stage.work} style={{ height: '100%' }}>
      <div className={stage.left} style={{ paddingTop: 0 }}>
        <LedgerFilters
          book={book}
          filter={filter}
          onFilter={setFilter}
          segments={segments}
          onSegments={setSegments}
          source={source}
          onSource={setSource}
          oddCount={odd.size}
        >
          <ExportMenu
            onCsv={() => saving().then((m) => m.exportCsv(table))}
            onXlsx={() => void saving().then((m) => m.exportXlsx(table))}
            more={documents(
              (paper) => void saving().then((m) => m.exportPdf(ground, [table], AS_THE_BOOK, paper)),
            )}
          />
        </LedgerFilters>
        <Button
          className={stage.toggle}
          onClick={() => setPanelOpen(!panelOpen)}
          style={{ alignSelf: 'flex-end', marginBottom: 8 }}
        >
          Entries
        </Button>
        <div className={stage.fill}>
          {rows.length === 0 ? (
            <p className="faded">No account passes the filters.</p>
          ) : (
            <SheetView
              label="Ledger by month"
              rows={rows}
              columns={columns}
              lead={LEAD}
              tone="actual"
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
          )}
        </div>
      </div>
      <aside tabIndex={0} className={stage.panel} data-open={panelOpen || undefined} aria-label="Entries">
        {account ? (
          <>
            <h2>{account.name}</h2>
            <div className="faded" style={{ fontSize: 12 }}>
              {[account.code, KIND_NAMES[account.kind], account.group].filter(Boolean).join(' · ')}
            </div>
            <section>
              {why && (
                <p className={stage.odd} role="note">
                  {why}
                </p>
              )}
              <div className="label" style={{ marginBottom: 4 }}>
                {rangeLabel(calendar, span)}
                {entries.length > 0
                  ? ` · ${countText(entries.length)} ${entries.length === 1 ? 'entry' : 'entries'}`
                  : ''}
              </div>
              <EntriesPanel
                key={`${account.id}-${span.first}-${span.last}`}
                entries={entries}
                kind={account.kind}
                dayText={dayText}
                total={row?.values[selection.focus.column] ?? null}
                exact={money.exact}
                sourceOf={(block) => sources.get(block) ?? ''}
              />
            </section>
          </>
        ) : (
          <p className="faded">Choose an amount to see the entries it is made of.</p>
        )}
      </aside>
    </div>
  );
}
