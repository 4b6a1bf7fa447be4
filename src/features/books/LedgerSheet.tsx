'use client';

import { useCallback, useEffect, useMemo, useState } from 'react';
import { Button } from '@mantine/core';
import { editText, sumBlank, type Minor } from '@/core/money';
import { periodsOf, type PeriodRange } from '@/core/calendar';
import { entriesOf } from '@/core/ledger';
import { isProfitAndLoss, naturalSign } from '@/core/model';
import { fillStatement, rowName, statementRows } from '@/core/report';
import { at, rectOf, type Selection } from '@/core/sheet';
import { EntriesList } from '@/components/EntriesList';
import { SheetView } from '@/components/sheet/SheetView';
import type { CellFormat } from '@/components/sheet/SheetRowView';
import type { SheetColumn, SheetRow } from '@/components/sheet/types';
import stage from '@/components/Stage.module.css';
import type { Ground } from '@/store/derived';
import { moneyFormat } from '@/store/format';
import { say, setSession } from '@/store/session';
import { KIND_NAMES } from './words';

const none: readonly boolean[] = [];
const bare = { code: '', badge: '', badgeTone: 'quiet', hasNote: false, typed: none, ghost: null } as const;

/** Accounts down, months across: the profit-and-loss statement of the ledger, then the movements of all other accounts. */
function ledgerRows(ground: Ground, range: PeriodRange): { rows: SheetRow[]; columns: SheetColumn[] } {
  const { book, calendar } = ground;
  const periods = periodsOf(calendar, range);
  const long = periods.length > 12;
  const columns: SheetColumn[] = [
    ...periods.map((p): SheetColumn => ({
      key: p.id,
      label: long ? `${p.short} ${String(p.start).slice(2, 4)}` : p.short,
      kind: 'amount',
    })),
    { key: 'total', label: 'Total', kind: 'total' },
  ];
  const byId = new Map(book.accounts.map((a) => [a.id, a]));
  const values = (id: string) => periods.map((p) => ground.actual(byId.get(id)!, p.index));
  const statement = statementRows(book.accounts);
  const filled = fillStatement(statement, periods.length, values);
  const withTotal = (v: readonly (Minor | null)[]) => [...v, sumBlank(v)];
  const rows = statement.map((row, r): SheetRow => ({
    ...bare,
    ...rowName(row),
    kind: row.kind,
    code: row.kind === 'line' ? row.account.code : '',
    values: row.kind === 'section' ? [] : withTotal(filled[r]!),
    enterable: row.kind === 'line',
  }));
  const others = book.accounts.filter((a) => !isProfitAndLoss(a.kind));
  if (others.length > 0) {
    rows.push({
      ...bare,
      key: 'others',
      kind: 'section',
      label: 'Balance sheet, movement',
      values: [],
      enterable: false,
    });
    for (const a of others)
      rows.push({
        ...bare,
        key: a.id,
        kind: 'line',
        label: a.name,
        code: a.code,
        values: withTotal(values(a.id)),
        enterable: true,
      });
  }
  return { rows, columns };
}

/** The ledger month by month; the selected amount's entries beside it. */
export function LedgerSheet({ ground, range }: { readonly ground: Ground; readonly range: PeriodRange }) {
  const { book, calendar, blocks, view } = ground;
  const { rows, columns } = useMemo(() => ledgerRows(ground, range), [ground, range]);
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
  const money = moneyFormat(book);
  const clamp = (p: { row: number; column: number }) => ({
    row: Math.min(p.row, rows.length - 1),
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

  const rect = rectOf(selection);
  const chosen = rows
    .slice(rect.top, rect.bottom + 1)
    .flatMap((r) => (r.enterable ? r.values.slice(rect.left, rect.right + 1) : []));
  const sum = money.text(sumBlank(chosen.map((v) => v ?? null)));
  const filledCount = String(chosen.filter((v) => v !== null).length);
  const net = rows.find((r) => r.key === 'netProfit')?.values.at(-1) ?? null;
  const netText = money.text(net);
  useEffect(() => {
    setSession({
      facts: [
        { label: 'Selected', value: filledCount },
        { label: 'Sum', value: sum },
        { label: 'Net profit shown', value: netText },
      ],
    });
    return () => setSession({ facts: [] });
  }, [filledCount, sum, netText]);

  const refused = () =>
    say('The ledger is read, never typed over: correct it where it is kept, and take the file in again.');
  return (
    <div className={stage.work} style={{ height: '100%' }}>
      <div className={stage.left} style={{ paddingTop: 0 }}>
        <Button
          className={stage.toggle}
          onClick={() => setPanelOpen(!panelOpen)}
          style={{ alignSelf: 'flex-end', marginBottom: 8 }}
        >
          Entries
        </Button>
        <div className={stage.fill}>
          <SheetView
            label="Ledger by month"
            rows={rows}
            columns={columns}
            methodHead={null}
            tone="actual"
            selection={selection}
            onSelection={setSelection}
            format={format}
            exact={exact}
            edit={(r, c) =>
              editText((rows[r]?.values[c] ?? null) as Minor | null, book.currency, book.locale)
            }
            readOnly
            onType={() => null}
            onPaste={refused}
            onFill={refused}
            onClear={refused}
            onRestore={refused}
            onNote={() => undefined}
            onRefused={refused}
          />
        </div>
      </div>
      <aside tabIndex={0} className={stage.panel} data-open={panelOpen || undefined} aria-label="Entries">
        {account ? (
          <>
            <h2>{account.name}</h2>
            <div className="faded" style={{ fontSize: 12 }}>
              {[account.code, KIND_NAMES[account.kind]].filter(Boolean).join(' · ')}
            </div>
            <section>
              <div className="label" style={{ marginBottom: 4 }}>
                {span.first === span.last
                  ? calendar.period(span.first).label
                  : `${calendar.period(span.first).label} – ${calendar.period(span.last).label}`}
                {entries.length > 0
                  ? ` · ${entries.length} ${entries.length === 1 ? 'entry' : 'entries'}`
                  : ''}
              </div>
              <EntriesList
                entries={entries}
                natural={naturalSign(account.kind)}
                total={row?.values[selection.focus.column] ?? null}
                exact={money.exact}
                dayText={(d) => d.slice(5)}
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
