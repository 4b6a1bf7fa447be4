'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useRouter } from 'next/navigation';
import { Button, NativeSelect } from '@mantine/core';
import type { Minor } from '@/core/money';
import { periodsOf } from '@/core/calendar';
import { comparisonsAt, rulerRange } from '@/core/ground';
import { cellOf, unitsOf, type ReportColumn, type ReportRow } from '@/core/report';
import { LIMITS, nameWith, type Layout } from '@/core/model';
import { ExportMenu } from '@/components/ExportMenu';
import { ReportGrid } from '@/components/report/ReportGrid';
import { StageHead } from '@/components/StageHead';
import { Trouble } from '@/components/Trouble';
import stage from '@/components/Stage.module.css';
import { useBookStore } from '@/store/bookStore';
import { useOpenGround } from '@/store/ground';
import { exportCsv, exportPdf, exportXlsx } from '@/store/exports';
import { layoutMoney, percentText } from '@/store/format';
import { draftOutlook } from '@/store/actions';
import { againstWords, comparisonName, noteWords, scopeWords, silenceOf } from '@/store/layoutWords';
import { say, setSession, useSession } from '@/store/session';
import { ColumnHead } from './layout/ColumnHead';
import { FiguresPanel } from './layout/FiguresPanel';
import { LayoutPanel } from './layout/LayoutPanel';
import { OwnRow } from './layout/OwnRow';
import { RowsPanel } from './layout/RowsPanel';
import { useLayout } from './layout/useLayout';
import { Pictured, PICTURES, type PictureKind } from './pictures/Pictured';
import { lookAt } from './varianceData';
import classes from './Variance.module.css';
import { FlagFields } from './why/FlagFields';
import { FlaggedList } from './why/FlaggedList';
import { UnitPanel } from './why/UnitPanel';
import { VariancePanel } from './why/VariancePanel';

const FILTERS: readonly { readonly value: Layout['filter']; readonly label: string }[] = [
  { value: 'withFigures', label: 'Lines with figures' },
  { value: 'all', label: 'All lines' },
  { value: 'withBudget', label: 'Lines with a budget' },
  { value: 'flagged', label: 'Flagged lines' },
  { value: 'silent', label: 'Lines with nothing' },
];

const REST_MS = 60;

/** A report of actuals and what they are compared with, for the month chosen on the ruler, as a layout says. */
export function VarianceScreen() {
  const ground = useOpenGround();
  const { book, calendar, closedThrough, balances } = ground;
  const router = useRouter();
  const readOnly = useBookStore((s) => s.readOnly);
  const chosen = useSession((s) => s.varianceMonth);
  const comparedId = useSession((s) => s.comparedId);
  const inUse = useLayout(ground);
  const { layout } = inUse;
  const [at, setAt] = useState<{ readonly row: string; readonly column: string | null } | null>(() => {
    const row = useSession.getState().varianceRow;
    return row === null ? null : { row, column: null };
  });
  useEffect(() => setSession({ varianceRow: null }), []);
  const [picture, setPicture] = useState<PictureKind>('month');
  const [panelOpen, setPanelOpen] = useState(false);
  const [headVersion, setHeadVersion] = useState(0);
  const setColumns = (columns: Layout['columns'], moved: boolean) => {
    inUse.change({ columns });
    if (moved) setHeadVersion((v) => v + 1);
  };
  const panel = useRef<HTMLElement>(null);
  const month = chosen ?? closedThrough ?? balances.range?.last ?? null;
  const money = layoutMoney(book, layout.numbers);
  const look = useMemo(
    () => (month === null ? null : lookAt(ground, layout, month, comparedId)),
    [ground, layout, month, comparedId],
  );
  useEffect(() => {
    if (month === null) return;
    // The months beside it are made ready while nobody waits.
    const timer = setTimeout(() => {
      for (const beside of [month - 1, month + 1])
        if (balances.has(beside)) lookAt(ground, layout, beside, comparedId);
    }, REST_MS);
    return () => clearTimeout(timer);
  }, [ground, layout, month, comparedId, balances]);
  const units = useMemo(
    () => (look ? unitsOf(ground, look.compared.comparison).map((u) => u.name) : []),
    [ground, look],
  );
  const monthLabel = month === null ? '' : calendar.period(month).label;
  const flagged = useMemo(() => look?.facts.table.rows.filter((r) => r.flagged) ?? [], [look]);
  const notes = month === null ? undefined : book.varianceNotes[calendar.period(month).id];
  const explained = flagged.filter((r) => notes?.[r.account!]).length;

  const net = look?.facts.net ?? null;
  const of = (key: string) => (look && net ? cellOf(look.facts.table, net, key) : null);
  const text = (key: string) => money.text(of(key) as Minor | null);
  const withSense = (block: 'month' | 'toDate') =>
    of(`${block}Diff`) === null ? '' : `${of(`${block}Sense`) ?? ''} ${text(`${block}Diff`)}`;
  const why = month === null ? '' : silenceOf(ground, month);
  const toDateWords = look?.facts.table.columns.find((c) => c.block === 'toDate')?.group ?? '';
  const facts =
    look && net
      ? [
          { label: 'Explained', value: `${explained} of ${flagged.length}`, after: 'flagged lines' },
          why
            ? { label: calendar.period(month!).short, value: why }
            : {
                label: `${net.label} ${calendar.period(month!).short}`,
                value: text('monthActual'),
                after: withSense('month'),
              },
          { label: toDateWords, value: text('toDateActual'), after: withSense('toDate') },
          { label: 'Outlook', value: text('yearOutlook') },
        ]
      : [];
  const factsKey = JSON.stringify(facts);
  useEffect(() => {
    setSession({ facts: JSON.parse(factsKey) });
    return () => setSession({ facts: [] });
  }, [factsKey]);

  const figure = useCallback(
    (amount: Minor | null, row: ReportRow) =>
      row.unit ? unitText(amount, row.unit, book.locale) : money.text(amount),
    [money, book.locale],
  );
  const exact = useCallback(
    (amount: Minor | null, row: ReportRow) =>
      row.unit ? unitText(amount, row.unit, book.locale) : money.exact(amount),
    [money, book.locale],
  );
  const goTo = useCallback((row: ReportRow, column: ReportColumn | null) => {
    setAt({ row: row.key, column: column?.key ?? null });
    setPanelOpen(true);
  }, []);

  if (balances.entries === 0 || month === null)
    return (
      <Trouble
        tone="empty"
        title="Nothing to compare yet"
        action={{ label: 'Take in a ledger file', run: () => router.push('/books') }}
      >
        The ledger has no entries. Take in the actuals of the months that are closed; then they stand here
        beside the budget.
      </Trouble>
    );
  if (!look) return null;
  const { report, compared, facts: everything } = look;
  const { table } = report;
  const choices = comparisonsAt(ground, month);
  const only = compared.comparison?.of === 'budget' ? compared.comparison.parts[0]!.budget : null;
  const wholeBudget = only?.axis === null ? only : null;
  const row = table.rows.find((r) => r.key === at?.row) ?? null;
  const column = table.columns.find((c) => c.key === at?.column) ?? null;
  const against = [
    ...choices.map((c) => ({ value: c.id, label: comparisonName(c) })),
    { value: 'lastYear', label: 'Last year' },
    { value: 'outlook', label: 'The outlook' },
  ];
  const first = compared.first === 'comparison' ? (compared.comparison?.id ?? 'lastYear') : compared.first;
  const toFlagged = (by: 1 | -1) => {
    const waits = flagged.filter((r) => !notes?.[r.account!]);
    const all = waits.length > 0 ? waits : flagged;
    if (all.length === 0) return say('No line is flagged this month.');
    const now = all.findIndex((r) => r.account === row?.account);
    const next = all[(now + by + all.length) % all.length]!;
    setAt({ row: next.key, column: null });
    setPanelOpen(true);
  };
  return (
    <div className={stage.stage}>
      <StageHead
        title={monthLabel}
        subtitle={`${scopeWords(compared.comparison)} against ${againstWords(compared)}`}
        ruler={{
          periods: periodsOf(calendar, rulerRange(ground)!),
          closedThrough,
          range: { first: month, last: month },
          choose: 'one',
          onChange: (r) => setSession({ varianceMonth: r.last }),
          label: 'Month to compare',
        }}
      />
      <div className={stage.work}>
        <div className={stage.left}>
          <div className={stage.tools}>
            <LayoutPanel
              ground={ground}
              all={inUse.all}
              layout={layout}
              readOnly={readOnly}
              onChoose={inUse.choose}
            />
            <NativeSelect
              aria-label="What to compare with"
              w={140}
              value={first}
              data={against}
              onChange={(e) => setSession({ comparedId: e.currentTarget.value })}
            />
            <NativeSelect
              aria-label="Lines shown"
              value={layout.filter}
              data={FILTERS as { value: string; label: string }[]}
              onChange={(e) => inUse.change({ filter: e.currentTarget.value as Layout['filter'] })}
            />
            <FiguresPanel
              ground={ground}
              layout={layout}
              comparisons={against.slice(0, -2)}
              onChange={inUse.change}
            />
            <FlagFields
              book={book}
              account={book.accounts.find((a) => a.id === row?.account) ?? null}
              readOnly={readOnly}
            />
            <NativeSelect
              aria-label="Picture"
              w={158}
              value={picture}
              data={PICTURES as { value: string; label: string }[]}
              onChange={(e) => setPicture(e.currentTarget.value as PictureKind)}
            />
            <span className={stage.push} />
            {wholeBudget && (
              <Button
                disabled={readOnly}
                title="Actuals so far, then the plan with what explanations carry on"
                onClick={() => {
                  const name = nameWith(wholeBudget.name, `, outlook ${monthLabel}`, LIMITS.budgetName);
                  const id = draftOutlook(ground, wholeBudget, name, `Outlook of ${monthLabel}`);
                  if (!id) return;
                  setSession({ budgetId: id });
                  say(`“${name}” is a new draft under Budget. Ctrl+Z takes it back.`);
                }}
              >
                Outlook as a draft
              </Button>
            )}
            <Button className={stage.toggle} onClick={() => setPanelOpen(!panelOpen)}>
              Reasoning
            </Button>
            <ExportMenu
              onCsv={() => exportCsv(table)}
              onXlsx={() => void exportXlsx(table)}
              more={(['A4', 'Letter'] as const).map((paper) => ({
                label: `Document (PDF), ${paper === 'A4' ? 'A4' : 'US Letter'}`,
                run: () => void exportPdf(ground, table, layout.numbers, paper),
              }))}
            />
          </div>
          <Pictured
            kind={picture}
            ground={ground}
            compared={compared}
            month={month}
            money={money}
            facts={everything}
            rowKey={at?.row ?? null}
            label={monthLabel}
          />
          {report.leftOut.length > 0 && (
            <p className="faded" role="note" style={{ margin: '0 0 6px', fontSize: 12.5 }}>
              In no row of this layout, though with figures:{' '}
              {report.leftOut
                .slice(0, 4)
                .map((a) => a.name)
                .join(', ')}
              {report.leftOut.length > 4 ? ` and ${report.leftOut.length - 4} more` : ''}.
            </p>
          )}
          <div
            className={stage.fill}
            data-red={layout.numbers.red === 'red' || undefined}
            data-plain={layout.numbers.red === 'plain' || undefined}
          >
            <ReportGrid
              label="Variance report"
              table={table}
              text={figure}
              exact={exact}
              percent={percentText}
              at={at}
              onAt={goTo}
              onOpen={(r, c) => {
                goTo(r, c);
                requestAnimationFrame(() => panel.current?.querySelector('textarea')?.focus());
              }}
              onKey={(e) => {
                if (e.key === ']') return (toFlagged(1), true);
                if (e.key === '[') return (toFlagged(-1), true);
                return false;
              }}
              corner={
                <RowsPanel
                  ground={ground}
                  layout={layout}
                  onRows={inUse.changeRows}
                  onColumns={(columns) => setColumns(columns, true)}
                />
              }
              headVersion={headVersion}
              head={(c, id) => (
                <ColumnHead
                  id={id}
                  column={c}
                  layout={layout}
                  units={units}
                  range={{
                    of: 'range',
                    first: calendar.period(calendar.firstOfYear(calendar.period(month).year)).id,
                    last: calendar.period(month).id,
                  }}
                  onColumns={setColumns}
                />
              )}
              rowEnd={(r) =>
                layout.rows.own.length > 0 && typeof r.own === 'number' && r.key === at?.row ? (
                  <OwnRow
                    own={layout.rows.own}
                    place={r.own}
                    accounts={book.accounts}
                    onOwn={(own) => inUse.changeRows({ own })}
                  />
                ) : r.account && r.kind === 'line' && notes?.[r.account] ? (
                  <NoteMark words={noteWords(ground, notes[r.account]!)} />
                ) : null
              }
            />
          </div>
        </div>
        <aside
          ref={panel}
          tabIndex={0}
          className={stage.panel}
          data-open={panelOpen || undefined}
          aria-label="Reasoning"
        >
          {layout.rows.set === 'units' ? (
            <UnitPanel
              ground={ground}
              comparison={compared.comparison}
              name={row?.label ?? null}
              month={month}
              readOnly={readOnly}
            />
          ) : (
            <VariancePanel
              key={`${row?.account}-${month}`}
              ground={ground}
              compared={compared}
              layout={layout}
              month={month}
              everything={everything.table}
              toDateWords={toDateWords}
              account={row?.account ?? null}
              opens={column?.opens ?? null}
              scope={row?.scope ?? column?.opens?.scope ?? 'all'}
              readOnly={readOnly}
            />
          )}
          {!row?.account && layout.rows.set !== 'units' && (
            <FlaggedList
              table={everything.table}
              rows={flagged}
              notes={notes}
              accounts={book.accounts}
              money={money}
              onRow={(key) => setAt({ row: key, column: null })}
            />
          )}
        </aside>
      </div>
    </div>
  );
}

const NoteMark = ({ words }: { readonly words: string }) => (
  <span className={classes.dot} role="img" aria-label={`explained: ${words}`} title={words} />
);

const unitText = (amount: Minor | null, unit: NonNullable<ReportRow['unit']>, locale: string): string =>
  amount === null
    ? ''
    : (amount / 10 ** unit.decimals).toLocaleString(locale, {
        minimumFractionDigits: unit.decimals,
        maximumFractionDigits: unit.decimals,
      });
