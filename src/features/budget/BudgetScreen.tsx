'use client';

import { memo, useEffect, useState } from 'react';
import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { Button } from '@mantine/core';
import { periodsOf, type FiscalCalendar, type PeriodIndex } from '@/core/calendar';
import type { Budget } from '@/core/model';
import { StageHead } from '@/components/StageHead';
import { ViewBar } from '@/components/ViewBar';
import { Trouble } from '@/components/Trouble';
import stage from '@/components/Stage.module.css';
import { useSteady } from '@/components/useSteady';
import { useBookStore } from '@/store/bookStore';
import { chosenBudget, reckoned, rulerRange, type Ground } from '@/core/ground';
import { useOpenGround } from '@/store/openGround';
import { dayText } from '@/store/format';
import { say, setSession, useSession, type BudgetView } from '@/store/session';
import { BudgetMenu } from './menu/BudgetMenu';
import { BudgetWork } from './sheet/BudgetWork';
import { useSetup } from './sheet/setup';
import classes from './Budget.module.css';

const StartBudget = dynamic(() => import('./start/StartBudget').then((m) => m.StartBudget));
const DriversSheet = dynamic(() => import('./drivers/DriversSheet').then((m) => m.DriversSheet));
const SchedulesView = dynamic(() => import('./schedules/SchedulesView').then((m) => m.SchedulesView));
const HandoutsView = dynamic(() => import('./handouts/HandoutsView').then((m) => m.HandoutsView));
const FirstPass = dynamic(() => import('./start/FirstPass').then((m) => m.FirstPass));
const CompareBudgets = dynamic(() => import('./views/CompareBudgets').then((m) => m.CompareBudgets));
const BudgetHistory = dynamic(() => import('./views/BudgetHistory').then((m) => m.BudgetHistory));
const ReportView = dynamic(() => import('./views/ReportView').then((m) => m.ReportView));

const VIEWS: readonly { readonly value: BudgetView; readonly label: string }[] = [
  { value: 'sheet', label: 'Worksheet' },
  { value: 'firstPass', label: 'First pass' },
  { value: 'drivers', label: 'Drivers' },
  { value: 'schedules', label: 'Schedules' },
  { value: 'handouts', label: 'Handouts' },
  { value: 'report', label: 'Report' },
  { value: 'compare', label: 'Side by side' },
  { value: 'history', label: 'History' },
];

/** Going through a budget line by line; or starting one. */
export function BudgetScreen() {
  const ground = useOpenGround();
  const router = useRouter();
  const [starting, setStarting] = useState(false);
  const id = useSession((s) => s.budgetId);
  const budget = chosenBudget(ground.book.budgets, id);

  if (ground.book.accounts.length === 0)
    return (
      <Trouble
        tone="empty"
        title="A budget starts from the ledger"
        action={{ label: 'Take in a ledger file', run: () => router.push('/books') }}
      >
        This book has no accounts yet. Take in last year’s ledger first: a CSV or XLSX file of entries, or of
        accounts with months across.
      </Trouble>
    );
  if (starting || !budget)
    return (
      <StartBudget
        onDone={(started, view) => {
          if (started) setSession({ budgetId: started, budgetView: view });
          setStarting(false);
        }}
        canCancel={budget !== null}
      />
    );
  return <OneBudget key={budget.id} ground={ground} budget={budget} onStart={() => setStarting(true)} />;
}

const STATE_WORDS: Record<Budget['state'], string> = {
  draft: 'Draft',
  approved: 'Approved',
  superseded: 'Superseded',
};

/** Who approved a budget and when, or what it revises and why, in a line. */
function standing({ book, calendar, closedThrough }: Ground, budget: Budget): string {
  const { approved, revises } = budget;
  const of = revises && book.budgets.find((b) => b.id === revises.budget)?.name;
  return [
    approved
      ? `${STATE_WORDS[budget.state]} ${dayText(approved.at)}${approved.by ? ` by ${approved.by}` : ''}`
      : STATE_WORDS[budget.state],
    revises ? `revises ${of ?? 'a budget that is gone'}${revises.reason ? `: ${revises.reason}` : ''}` : '',
    `closed through ${closedThrough === null ? 'nothing yet' : calendar.period(closedThrough).label}`,
  ]
    .filter(Boolean)
    .join(' · ');
}

function OneBudget({
  ground,
  budget,
  onStart,
}: {
  readonly ground: Ground;
  readonly budget: Budget;
  readonly onStart: () => void;
}) {
  const view = useSession((s) => s.budgetView);
  const bookReadOnly = useBookStore((s) => s.readOnly);
  const wholeWindow = useSetup((s) => s.wholeWindow) && view === 'sheet';
  const [wanted, setWanted] = useState<number | null>(null);
  const { facts } = reckoned(ground, budget);
  const { periods } = facts;
  const ruler = rulerRange(ground);
  useEffect(() => {
    document.documentElement.toggleAttribute('data-whole-window', wholeWindow);
    return () => document.documentElement.removeAttribute('data-whole-window');
  }, [wholeWindow]);

  const onRuler = (index: number) => {
    const inside = periods.findIndex((p) => p.index === index);
    if (inside >= 0) return setWanted(inside);
    const other = ground.book.budgets.findLast((b) =>
      reckoned(ground, b).facts.periods.some((p) => p.index === index),
    );
    if (other) setSession({ budgetId: other.id });
    else say('No budget covers that month. Start one with “New budget”.');
  };

  const steady = useSteady({ onRuler });
  return (
    <div className={stage.stage}>
      {wholeWindow ? (
        <span />
      ) : (
        <Head
          id={budget.id}
          subtitle={standing(ground, budget)}
          calendar={ground.calendar}
          from={ruler?.first ?? null}
          to={ruler?.last ?? null}
          closedThrough={ground.closedThrough}
          first={periods[0]!.index}
          last={periods.at(-1)!.index}
          {...steady}
        />
      )}
      <div className={classes.views}>
        <ViewBar views={VIEWS} view={view} onView={(budgetView) => setSession({ budgetView })}>
          <Button onClick={onStart} disabled={bookReadOnly}>
            New budget
          </Button>
        </ViewBar>
        {view === 'sheet' && (
          <BudgetWork
            ground={ground}
            budget={budget}
            wanted={wanted}
            onArrived={() => setWanted(null)}
            onStart={onStart}
          />
        )}
        {view === 'drivers' && <DriversSheet ground={ground} budget={budget} />}
        {view === 'schedules' && <SchedulesView ground={ground} budget={budget} />}
        {view === 'handouts' && <HandoutsView ground={ground} budget={budget} />}
        {view === 'firstPass' && <FirstPass ground={ground} budget={budget} />}
        {view === 'compare' && <CompareBudgets ground={ground} budget={budget} />}
        {view === 'history' && <BudgetHistory ground={ground} budget={budget} />}
        {view === 'report' && <ReportView ground={ground} budget={budget} />}
      </div>
    </div>
  );
}

/** The band over the budget; what is typed into its sheet is no reason to draw it again. */
const Head = memo(function Head({
  id,
  subtitle,
  calendar,
  from,
  to,
  closedThrough,
  first,
  last,
  onRuler,
}: {
  readonly id: string;
  readonly subtitle: string;
  readonly calendar: FiscalCalendar;
  /** The months of the ruler; null while there are none. */
  readonly from: PeriodIndex | null;
  readonly to: PeriodIndex | null;
  readonly closedThrough: PeriodIndex | null;
  /** The months of the budget. */
  readonly first: PeriodIndex;
  readonly last: PeriodIndex;
  readonly onRuler: (period: PeriodIndex) => void;
}) {
  return (
    <StageHead
      title={<BudgetMenu id={id} />}
      subtitle={subtitle}
      ruler={
        from === null || to === null
          ? null
          : {
              periods: periodsOf(calendar, { first: from, last: to }),
              closedThrough,
              range: { first, last },
              choose: 'one',
              onChange: (r) => onRuler(r.last),
              label: 'Months of the book; choosing one moves the sheet to it',
            }
      }
    />
  );
});
