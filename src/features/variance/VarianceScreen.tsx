'use client';

import { useEffect, useMemo, useState } from 'react';
import { useRouter } from 'next/navigation';
import { Button, NativeSelect } from '@mantine/core';
import { type Minor } from '@/core/money';
import { fiscalYearLabel, periodsOf } from '@/core/calendar';
import { cellOf, type LineFilter } from '@/core/report';
import { bridgeOf, effectOf } from '@/core/variance';
import { ExportMenu } from '@/components/ExportMenu';
import { StageHead } from '@/components/StageHead';
import { Trouble } from '@/components/Trouble';
import { Waterfall, type WaterfallStep } from '@/components/Waterfall';
import stage from '@/components/Stage.module.css';
import { useBookStore } from '@/store/bookStore';
import { rulerRange } from '@/core/ground';
import { useOpenGround } from '@/store/ground';
import { exportCsv, exportXlsx } from '@/store/exports';
import { dayText, moneyFormat } from '@/store/format';
import { setSession, useSession } from '@/store/session';
import { FlagFields } from './FlagFields';
import { FlaggedList } from './FlaggedList';
import { VariancePanel, type Figure } from './VariancePanel';
import { VarianceTable } from './VarianceTable';
import { comparedBudget, varianceTable } from './varianceData';

const FILTERS: readonly { readonly value: LineFilter; readonly label: string }[] = [
  { value: 'withFigures', label: 'Lines with figures' },
  { value: 'all', label: 'All lines' },
  { value: 'withBudget', label: 'Lines with a budget' },
  { value: 'costs', label: 'Costs and expenses' },
];

/** Budget against actual for the month chosen on the ruler, the year to date and the full year. */
export function VarianceScreen() {
  const ground = useOpenGround();
  const { book, calendar, closedThrough, balances } = ground;
  const router = useRouter();
  const readOnly = useBookStore((s) => s.readOnly);
  const chosen = useSession((s) => s.varianceMonth);
  const comparedId = useSession((s) => s.comparedId);
  const [filter, setFilter] = useState<LineFilter>('withFigures');
  const [figure, setFigure] = useState<Figure | null>(null);
  const [bridged, setBridged] = useState<'month' | 'ytd'>('month');
  const [panelOpen, setPanelOpen] = useState(false);
  const month = chosen ?? closedThrough ?? balances.range?.last ?? null;
  const money = moneyFormat(book);
  const budget = month === null ? null : comparedBudget(ground, month, comparedId);
  const view = useMemo(
    () => (budget && month !== null ? varianceTable(ground, budget, month, filter) : null),
    [ground, budget, month, filter],
  );
  const flagged = view?.table.rows.filter((r) => r.flagged) ?? [];
  const explained = flagged.filter((r) => cellOf(r, 'note') !== '').length;
  const net = view?.table.rows.find((r) => r.key === 'netProfit') ?? view?.net ?? null;
  const text = (key: Parameters<typeof cellOf>[1]) =>
    net ? money.text(cellOf(net, key) as Minor | null) : '';
  const monthLabel = month === null ? '' : calendar.period(month).label;

  const facts =
    view && net
      ? [
          { label: 'Explained', value: `${explained} of ${flagged.length}`, after: 'flagged lines' },
          {
            label: `Net profit ${calendar.period(month!).short}`,
            value: text('monthActual'),
            after: `${cellOf(net, 'monthSense') ?? ''} ${money.text(cellOf(net, 'monthDiff') as Minor)}`,
          },
          {
            label: 'Year to date',
            value: text('ytdActual'),
            after: `${cellOf(net, 'ytdSense') ?? ''} ${money.text(cellOf(net, 'ytdDiff') as Minor)}`,
          },
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
    const [diff, budgetKey] =
      bridged === 'month' ? (['monthDiff', 'monthBudget'] as const) : (['ytdDiff', 'ytdBudget'] as const);
    const kinds = new Map(book.accounts.map((a) => [a.id, a.kind]));
    const last = full.rows.at(-1)!;
    const parts = full.rows.flatMap((r) => {
      const d = cellOf(r, diff) as Minor | null;
      return r.account && d
        ? [{ key: r.key, label: r.label, effect: (d * effectOf(kinds.get(r.account)!)) as Minor }]
        : [];
    });
    const bridge = bridgeOf((cellOf(last, budgetKey) ?? 0) as Minor, parts, 8);
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
  if (!budget || !view)
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

  const covering = book.budgets.filter((b) => comparedBudget(ground, month, b.id)?.id === b.id);
  return (
    <div className={stage.stage}>
      {head(
        `against ${budget.name}, ${budget.approved ? `approved ${dayText(budget.approved.at)}` : 'a draft'}`,
      )}
      <div className={stage.work}>
        <div className={stage.left}>
          <div className={stage.tools}>
            <NativeSelect
              aria-label="Budget to compare with"
              value={budget.id}
              data={covering.map((b) => ({ value: b.id, label: b.name }))}
              onChange={(e) => setSession({ comparedId: e.currentTarget.value })}
            />
            <NativeSelect
              aria-label="Lines shown"
              value={filter}
              data={FILTERS as { value: string; label: string }[]}
              onChange={(e) => setFilter(e.currentTarget.value as LineFilter)}
            />
            <FlagFields book={book} readOnly={readOnly} />
            <NativeSelect
              aria-label="Chart shows"
              value={bridged}
              data={[
                { value: 'month', label: 'Chart: the month' },
                { value: 'ytd', label: 'Chart: year to date' },
              ]}
              onChange={(e) => setBridged(e.currentTarget.value as 'month')}
            />
            <span className={stage.push} />
            <Button className={stage.toggle} onClick={() => setPanelOpen(!panelOpen)}>
              Entries
            </Button>
            <ExportMenu onCsv={() => exportCsv(view.table)} onXlsx={() => void exportXlsx(view.table)} />
          </div>
          <Waterfall
            steps={steps}
            label={`From budgeted to actual net profit, ${bridged === 'month' ? monthLabel : `year to ${monthLabel}`}`}
          />
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
            budget={budget}
            month={month}
            figure={figure}
            rows={view.everything.rows}
            readOnly={readOnly}
            onFigure={setFigure}
          />
          {!figure && <FlaggedList rows={flagged} money={money} onFigure={setFigure} />}
        </aside>
      </div>
    </div>
  );
}
