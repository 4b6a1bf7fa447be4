'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useRouter } from 'next/navigation';
import { Button, NativeSelect } from '@mantine/core';
import type { Minor } from '@/core/money';
import { periodsOf } from '@/core/calendar';
import { cameInto, comparisonsAt, reclassifiedOf, rulerRange } from '@/core/ground';
import { cellOf, keptId, type ReportColumn, type ReportRow } from '@/core/report';
import { lastOf } from '@/core/lastOf';
import { LIMITS, nameWith, type Layout } from '@/core/model';
import { documents, ExportMenu } from '@/components/ExportMenu';
import { FiguresPanel } from '@/components/report/layout/FiguresPanel';
import { LayoutGrid } from '@/components/report/layout/LayoutGrid';
import { LayoutPanel } from '@/components/report/layout/LayoutPanel';
import { StageHead } from '@/components/StageHead';
import { Trouble } from '@/components/Trouble';
import stage from '@/components/Stage.module.css';
import { useBookStore } from '@/store/bookStore';
import { useOpenGround } from '@/store/openGround';
import { exportCsv, exportPdf, exportXlsx } from '@/store/exports';
import { Framed } from '@/components/Framed';
import { UnitContext } from '@/components/unit';
import { figureTexts, layoutMoney, layoutUnit, percentText } from '@/store/format';
import { draftOutlook, writeMessage } from '@/store/actions';
import {
  againstWords,
  cameWords,
  comparisonName,
  noteWords,
  scopeWords,
  silenceOf,
} from '@/store/layoutWords';
import { draftMessage } from '@/store/messageWords';
import { say, setSession, useSession } from '@/store/session';
import { useLayout } from '@/store/useLayout';
import { useAfterPaint } from '@/components/useAfterPaint';
import { whenIdle } from '@/store/whenIdle';
import { MessageLine } from './MessageLine';
import { Pictured, PICTURES, type PictureKind } from './pictures/Pictured';
import { lookAt } from './varianceData';
import classes from './Variance.module.css';
import { FlagFields } from './why/FlagFields';
import { FlaggedList } from './why/FlaggedList';
import { StillWaiting } from './why/StillWaiting';
import { UnitPanel } from './why/UnitPanel';
import { VariancePanel } from './why/VariancePanel';

const FILTERS: readonly { readonly value: Layout['filter']; readonly label: string }[] = [
  { value: 'withFigures', label: 'Lines with figures' },
  { value: 'all', label: 'All lines' },
  { value: 'withBudget', label: 'Lines with a budget' },
  { value: 'flagged', label: 'Flagged lines' },
  { value: 'silent', label: 'Lines with nothing' },
];

/** Sets of rows of whose result there is something to say. */
const TELLS_PROFIT: ReadonlySet<Layout['rows']['set']> = new Set(['profitAndLoss', 'both']);
/** What was to be, by what it is compared with. */
const BESIDE = { comparison: 'budgeted', lastYear: 'made a year before', outlook: 'expected' } as const;

const REST_MS = 60;
/** So many months to each side of the one looked at are made ready. */
const READY = 6;

/** A report of actuals and what they are compared with, for the month chosen on the ruler, as a layout says. */
export function VarianceScreen() {
  const ground = useOpenGround();
  const { book, calendar, closedThrough, balances } = ground;
  const router = useRouter();
  const readOnly = useBookStore((s) => s.readOnly);
  const chosen = useSession((s) => s.varianceMonth);
  const since = useSession((s) => s.varianceFirst);
  const comparedId = useSession((s) => s.comparedId);
  const layoutId = useSession((s) => s.layoutId);
  const inUse = useLayout(ground, layoutId ?? 'std-months', (id) => setSession({ layoutId: id }));
  const { layout } = inUse;
  const [at, setAt] = useState<{ readonly row: string; readonly column: string | null } | null>(() => {
    const row = useSession.getState().varianceRow;
    return row === null ? null : { row, column: null };
  });
  useEffect(() => setSession({ varianceRow: null }), []);
  const [draft] = useState(() => lastOf(draftMessage));
  const [picture, setPicture] = useState<PictureKind>('month');
  const [panelOpen, setPanelOpen] = useState(false);
  const panel = useRef<HTMLElement>(null);
  const month = chosen ?? closedThrough ?? balances.range?.last ?? null;
  const money = useMemo(() => layoutMoney(book, layout.numbers), [book, layout.numbers]);
  const first = month === null ? 0 : Math.min(since ?? month, month);
  const look = useMemo(
    () => (month === null ? null : lookAt(ground, layout, month, comparedId, first)),
    [ground, layout, month, comparedId, first],
  );
  useEffect(() => {
    if (month === null) return;
    // The months around it are made ready while nobody waits, the nearest first, a piece at a time.
    const pieces = Array.from(
      { length: 2 * READY },
      (_, i) => month + (i % 2 === 0 ? -1 : 1) * ((i >> 1) + 1),
    )
      .filter((beside) => balances.has(beside))
      .flatMap((beside) => {
        const look = () => lookAt(ground, layout, beside, comparedId);
        return [look, () => look().facts()];
      });
    return whenIdle(pieces, REST_MS);
  }, [ground, layout, month, comparedId, balances]);
  // The report follows the hand at once; what stands around it comes with the next frame.
  const settled = useAfterPaint(look);
  const everything = useMemo(() => settled?.facts() ?? null, [settled]);
  const seen = settled?.ruler.last ?? null;
  const monthLabel = month === null ? '' : calendar.period(month).label;
  const flagged = useMemo(() => everything?.table.rows.filter((r) => r.flagged) ?? [], [everything]);
  const notes = seen === null ? undefined : book.varianceNotes[calendar.period(seen).id];
  const explained = flagged.filter((r) => notes?.[r.account!]).length;

  const net = everything?.net ?? null;
  const of = (key: string) => (everything && net ? cellOf(everything.table, net, key) : null);
  const text = (key: string) => money.text(of(key) as Minor | null);
  const withSense = (block: 'month' | 'toDate') =>
    of(`${block}Diff`) === null ? '' : `${of(`${block}Sense`) ?? ''} ${text(`${block}Diff`)}`;
  const why = seen === null ? '' : silenceOf(ground, seen);
  const toDateWords = everything?.table.columns.find((c) => c.block === 'toDate')?.group ?? '';
  const facts =
    net && seen !== null
      ? [
          { label: 'Explained', value: `${explained} of ${flagged.length}`, after: 'flagged lines' },
          why
            ? { label: calendar.period(seen).short, value: why }
            : {
                label: `${net.label} ${calendar.period(seen).short}`,
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

  const figures = useMemo(() => figureTexts(book, money), [book, money]);
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
  if (!look || !settled || !everything || seen === null) return null;
  const { report, compared } = look;
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
    ...(layout.rows.set === 'cash' ? book.cash.kept : []).map((k) => ({
      value: keptId(k.id),
      label: `Forecast “${k.name}”`,
    })),
  ];
  const versus =
    compared.kept !== null
      ? keptId(compared.kept.id)
      : compared.first === 'comparison'
        ? (compared.comparison?.id ?? 'lastYear')
        : compared.first;
  const toFlagged = (by: 1 | -1) => {
    const waits = flagged.filter((r) => !notes?.[r.account!]);
    const all = waits.length > 0 ? waits : flagged;
    if (all.length === 0) return say('No line is flagged this month.');
    const now = all.findIndex((r) => r.account === row?.account);
    const next = all[(now + by + all.length) % all.length]!;
    setAt({ row: next.key, column: null });
    setPanelOpen(true);
  };
  /** What is said of a line, and what of it the ledger has elsewhere. */
  const moves = reclassifiedOf(ground, null, 'all').entries.length > 0;
  const markWords = (r: ReportRow): string => {
    if (r.kind !== 'line' || r.account === null) return '';
    const note = notes?.[r.account];
    const account = moves ? book.accounts.find((a) => a.id === r.account) : undefined;
    const came = account ? cameWords(ground, cameInto(ground, account, seen)) : '';
    return [note ? noteWords(ground, note) : '', came].filter(Boolean).join(' · ');
  };
  const message = book.messages[calendar.period(seen).id]?.[layout.id] ?? null;
  const ofMonth = table.columns.some((c) => c.block === 'month');
  const drafted = TELLS_PROFIT.has(layout.rows.set)
    ? draft(
        everything,
        book.accounts,
        ofMonth ? 'month' : 'toDate',
        ofMonth ? calendar.period(seen).label : toDateWords,
        money,
        BESIDE[settled.compared.first],
      )
    : { text: '', figures: [] };
  const frame = {
    message: message?.text ?? drafted.text,
    of: `${book.name}, ${calendar.period(seen).label}, ${scopeWords(compared.comparison)} against ${againstWords(compared)}`,
  };
  const said = { ...table, message: frame.message };
  return (
    <UnitContext value={layoutUnit(book, layout.numbers)}>
      <div className={stage.stage}>
        <StageHead
          title={monthLabel}
          subtitle={`${scopeWords(compared.comparison)} against ${againstWords(compared)}`}
          ruler={{
            periods: periodsOf(calendar, rulerRange(ground)!),
            closedThrough,
            range: { first, last: month },
            choose: 'many',
            onChange: (r) =>
              setSession({ varianceMonth: r.last, varianceFirst: r.first === r.last ? null : r.first }),
            label: 'Month to compare, the last of those chosen',
          }}
        />
        <div className={stage.work}>
          <div className={stage.left}>
            <div className={stage.tools}>
              <LayoutPanel ground={ground} inUse={inUse} readOnly={readOnly} />
              <NativeSelect
                aria-label="What to compare with"
                w={140}
                value={versus}
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
                comparisons={choices.map((c) => ({ value: c.id, label: comparisonName(c) }))}
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
                onCsv={() => exportCsv(said)}
                onXlsx={() => void exportXlsx(said)}
                more={documents((paper) => void exportPdf(ground, [said], layout.numbers, paper))}
              />
            </div>
            <MessageLine
              key={`${layout.id} ${seen}`}
              message={message}
              drafted={drafted}
              readOnly={readOnly}
              onText={(said) => writeMessage(calendar.period(seen).id, layout.id, said, drafted.text)}
              onRow={(key) => {
                setAt({ row: key, column: null });
                setPanelOpen(true);
              }}
            />
            <Framed {...frame}>
              <Pictured
                kind={picture}
                ground={ground}
                compared={settled.compared}
                month={seen}
                money={money}
                facts={everything}
                rowKey={at?.row ?? null}
                label={calendar.period(seen).label}
              />
            </Framed>
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
            <LayoutGrid
              label="Variance report"
              ground={ground}
              inUse={inUse}
              compared={compared}
              ruler={{ first, last: month }}
              table={table}
              {...figures}
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
              rowEnd={(r) => {
                const words = markWords(r);
                return words ? <NoteMark words={words} /> : null;
              }}
            />
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
                comparison={settled.compared.comparison}
                name={row?.label ?? null}
                month={seen}
                readOnly={readOnly}
              />
            ) : (
              <VariancePanel
                key={`${row?.account}-${seen}`}
                ground={ground}
                compared={settled.compared}
                layout={layout}
                month={seen}
                everything={everything.table}
                toDateWords={toDateWords}
                account={row?.account ?? null}
                opens={column?.opens ?? null}
                scope={row?.scope ?? column?.opens?.scope ?? 'all'}
                readOnly={readOnly}
              />
            )}
            {!row?.account && layout.rows.set !== 'units' && (
              <>
                <FlaggedList
                  table={everything.table}
                  rows={flagged}
                  notes={notes}
                  accounts={book.accounts}
                  money={money}
                  onRow={(key) => setAt({ row: key, column: null })}
                />
                <StillWaiting
                  ground={ground}
                  layout={layout}
                  chosen={comparedId}
                  month={seen}
                  money={money}
                  readOnly={readOnly}
                  onGo={(period, account) => {
                    const key = everything.table.rows.find((r) => r.account === account)?.key;
                    setSession({ varianceMonth: period, varianceFirst: null });
                    if (key !== undefined) setAt({ row: key, column: null });
                  }}
                />
              </>
            )}
          </aside>
        </div>
      </div>
    </UnitContext>
  );
}

const NoteMark = ({ words }: { readonly words: string }) => (
  <span className={classes.dot} role="img" aria-label={`explained: ${words}`} title={words} />
);
