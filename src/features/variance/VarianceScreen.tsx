'use client';

import { useEffect, useMemo, useState } from 'react';
import { useRouter } from 'next/navigation';
import { Button, NativeSelect } from '@mantine/core';
import { type Minor } from '@/core/money';
import { fiscalYearLabel, periodsOf } from '@/core/calendar';
import { comparisonFor, comparisonsAt, rulerRange } from '@/core/ground';
import { cellOf, ROW_NAMES, type LineFilter, type SectionKind } from '@/core/report';
import { LIMITS, nameWith } from '@/core/model';
import { bridgeOf, effectOf } from '@/core/variance';
import { KindsFilter } from '@/components/KindsFilter';
import { ExportMenu } from '@/components/ExportMenu';
import { StageHead } from '@/components/StageHead';
import { Trouble } from '@/components/Trouble';
import { Waterfall, type WaterfallStep } from '@/components/Waterfall';
import stage from '@/components/Stage.module.css';
import { useBookStore } from '@/store/bookStore';
import { useOpenGround } from '@/store/ground';
import { exportCsv, exportXlsx } from '@/store/exports';
import { moneyFormat } from '@/store/format';
import { draftOutlook } from '@/store/actions';
import { say, setSession, useSession } from '@/store/session';
import { FlagFields } from './FlagFields';
import { FlaggedList } from './FlaggedList';
import { VariancePanel, type Figure } from './VariancePanel';
import { VarianceTable } from './VarianceTable';
import { comparisonName, scopeWords, spanWords, standingWords, varianceTable } from './varianceData';

const LINES: readonly { readonly value: LineFilter['lines']; readonly label: string }[] = [
  { value: 'withFigures', label: 'Lines with figures' },
  { value: 'all', label: 'All lines' },
  { value: 'withBudget', label: 'Lines with a budget' },
];
const COSTS: readonly SectionKind[] = ['costOfSales', 'expense', 'otherExpense'];
const SHOWN: LineFilter = { lines: 'withFigures', sections: [] };

/** Budget against actual for the month chosen on the ruler, the year to date and the full year. */
export function VarianceScreen() {
  const ground = useOpenGround();
  const { book, calendar, closedThrough, balances } = ground;
  const router = useRouter();
  const readOnly = useBookStore((s) => s.readOnly);
  const chosen = useSession((s) => s.varianceMonth);
  const comparedId = useSession((s) => s.comparedId);
  const [filter, setFilter] = useState<LineFilter>(SHOWN);
  const [figure, setFigure] = useState<Figure | null>(null);
  const [bridged, setBridged] = useState<'month' | 'toDate'>('month');
  const [panelOpen, setPanelOpen] = useState(false);
  const month = chosen ?? closedThrough ?? balances.range?.last ?? null;
  const money = moneyFormat(book);
  const compared = useMemo(
    () => (month === null ? null : comparisonFor(ground, month, comparedId)),
    [ground, month, comparedId],
  );
  const view = useMemo(
    () => (compared && month !== null ? varianceTable(ground, compared, month, filter) : null),
    [ground, compared, month, filter],
  );
  const flagged = view?.table.rows.filter((r) => r.flagged) ?? [];
  const explained = view ? flagged.filter((r) => cellOf(view.table, r, 'note') !== '').length : 0;
  const net = view?.net ?? null;
  const of = (key: string) => (view && net ? cellOf(view.everything, net, key) : null);
  const text = (key: string) => money.text(of(key) as Minor | null);
  const withSense = (block: 'month' | 'toDate') =>
    of(`${block}Diff`) === null ? '' : `${of(`${block}Sense`) ?? ''} ${text(`${block}Diff`)}`;
  const monthLabel = month === null ? '' : calendar.period(month).label;

  const words = view && spanWords(ground, view.span);
  const facts =
    view && net && words
      ? [
          { label: 'Explained', value: `${explained} of ${flagged.length}`, after: 'flagged lines' },
          words.why
            ? { label: `${calendar.period(month!).short}`, value: words.why }
            : {
                label: `${net.label} ${calendar.period(month!).short}`,
                value: text('monthActual'),
                after: withSense('month'),
              },
          { label: words.heads.toDate, value: text('toDateActual'), after: withSense('toDate') },
          { label: 'Outlook', value: text('yearOutlook') },
        ]
      : [];
  const factsKey = JSON.stringify(facts);
  useEffect(() => {
    setSession({ facts: JSON.parse(factsKey) });
    return () => setSession({ facts: [] });
  }, [factsKey]);

  const steps = useMemo((): readonly WaterfallStep[] => {
    if (!view) return [];
    const full = view.everything;
    const kinds = new Map(book.accounts.map((a) => [a.id, a.kind]));
    const last = view.net;
    if (!last || last.key !== 'netProfit') return [];
    const parts = full.rows.flatMap((r) => {
      const d = cellOf(full, r, `${bridged}Diff`) as Minor | null;
      const effect = r.account ? effectOf(kinds.get(r.account)!) : 0;
      return d && effect ? [{ key: r.key, label: r.label, effect: (d * effect) as Minor }] : [];
    });
    if (cellOf(full, last, `${bridged}Diff`) === null) return [];
    const bridge = bridgeOf((cellOf(full, last, `${bridged}Budget`) ?? 0) as Minor, parts, 8);
    const step = (label: string, value: Minor): WaterfallStep => ({
      label,
      value,
      kind: value >= 0 ? 'good' : 'bad',
      text: `${money.signed(value)} ${value >= 0 ? 'F' : 'U'}`,
    });
    return [
      { label: 'Budget', value: bridge.budget, kind: 'budget', text: money.text(bridge.budget) },
      ...bridge.parts.map((p) => step(p.label, p.effect)),
      ...(bridge.others !== 0 ? [step('All others', bridge.others)] : []),
      { label: 'Actual', value: bridge.actual, kind: 'actual', text: money.text(bridge.actual) },
    ];
  }, [view, bridged, book.accounts, money]);

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

  const ruler = rulerRange(ground)!;
  const head = (subtitle: string) => (
    <StageHead
      title={monthLabel}
      subtitle={subtitle}
      ruler={{
        periods: periodsOf(calendar, ruler),
        closedThrough,
        range: { first: month, last: month },
        choose: 'one',
        onChange: (r) => setSession({ varianceMonth: r.last }),
        label: 'Month to compare',
      }}
    />
  );
  if (!compared || !view || !words)
    return (
      <div className={stage.stage}>
        {head('no budget covers this month')}
        <Trouble
          tone="empty"
          title={`No budget covers ${monthLabel}`}
          action={{ label: 'Go to Budget', run: () => router.push('/budget') }}
        >
          Choose another month on the ruler, or start a budget for the fiscal year{' '}
          {fiscalYearLabel(calendar.period(month).year)}.
        </Trouble>
      </div>
    );

  const choices = comparisonsAt(ground, month);
  const only = compared.of === 'budget' ? compared.parts[0]!.budget : null;
  const wholeBudget = only?.axis === null ? only : null;
  const sections = [
    ...new Set(
      view.everything.rows.flatMap((r) => (r.kind === 'section' ? [r.key.replace('section-', '')] : [])),
    ),
  ] as SectionKind[];
  return (
    <div className={stage.stage}>
      {head(`${scopeWords(compared)} against ${comparisonName(compared)}, ${standingWords(compared)}`)}
      <div className={stage.work}>
        <div className={stage.left}>
          <div className={stage.tools}>
            <NativeSelect
              aria-label="Budget to compare with"
              value={compared.id}
              data={choices.map((c) => ({ value: c.id, label: comparisonName(c) }))}
              onChange={(e) => setSession({ comparedId: e.currentTarget.value })}
            />
            <NativeSelect
              aria-label="Lines shown"
              value={filter.lines}
              data={LINES as { value: string; label: string }[]}
              onChange={(e) => setFilter({ ...filter, lines: e.currentTarget.value as LineFilter['lines'] })}
            />
            <KindsFilter
              options={sections.map((value) => ({ value, label: ROW_NAMES[value] }))}
              presets={[{ label: 'Costs alone', values: COSTS }]}
              chosen={filter.sections}
              all="All kinds"
              onChosen={(chosenSections) => setFilter({ ...filter, sections: chosenSections })}
            />
            <FlagFields book={book} readOnly={readOnly} />
            <NativeSelect
              aria-label="Chart shows"
              value={bridged}
              data={[
                { value: 'month', label: 'Chart: the month' },
                { value: 'toDate', label: 'Chart: year to date' },
              ]}
              onChange={(e) => setBridged(e.currentTarget.value as 'month')}
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
              Entries
            </Button>
            <ExportMenu onCsv={() => exportCsv(view.table)} onXlsx={() => void exportXlsx(view.table)} />
          </div>
          {steps.length > 0 && (
            <Waterfall
              steps={steps}
              label={`From budgeted to actual net profit, ${bridged === 'month' ? monthLabel : words.heads.toDate.toLowerCase()}`}
            />
          )}
          <div className={stage.fill}>
            <VarianceTable
              table={view.table}
              money={money}
              figure={figure}
              onFigure={(f) => {
                setFigure(f);
                setPanelOpen(true);
              }}
            />
          </div>
        </div>
        <aside tabIndex={0} className={stage.panel} data-open={panelOpen || undefined} aria-label="Reasoning">
          <VariancePanel
            key={`${figure?.account}-${month}`}
            ground={ground}
            comparison={compared}
            span={view.span}
            toDateWords={words.heads.toDate}
            figure={figure}
            table={view.everything}
            readOnly={readOnly}
            onFigure={setFigure}
          />
          {!figure && <FlaggedList table={view.table} money={money} onFigure={setFigure} />}
        </aside>
      </div>
    </div>
  );
}
