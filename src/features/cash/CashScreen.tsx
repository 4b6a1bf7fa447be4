'use client';

import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo } from 'react';
import { minor, type Minor } from '@/core/money';
import { periodsOf } from '@/core/calendar';
import { cashOf, rulerRange } from '@/core/ground';
import { StageHead } from '@/components/StageHead';
import { PlanChoice, ViewBar } from '@/components/ViewBar';
import { Trouble } from '@/components/Trouble';
import stage from '@/components/Stage.module.css';
import { useOpenGround } from '@/store/openGround';
import { moneyFormat } from '@/store/format';
import { CASH_PAGES, setSession, useSession, type CashPage } from '@/store/session';
import { planCalled, usePlan } from '@/store/plan';
import { onDay } from '@/store/cashWords';
import { heldAt } from '@/core/cash';
import { AheadView } from './AheadView';
import classes from './Cash.module.css';

const ItemsView = dynamic(() => import('./ItemsView').then((m) => m.ItemsView));
const BankView = dynamic(() => import('./BankView').then((m) => m.BankView));
const TermsView = dynamic(() => import('./TermsView').then((m) => m.TermsView));
const DatedView = dynamic(() => import('./DatedView').then((m) => m.DatedView));
const TaxesView = dynamic(() => import('./TaxesView').then((m) => m.TaxesView));
const KeptView = dynamic(() => import('./KeptView').then((m) => m.KeptView));
const RulesView = dynamic(() => import('./RulesView').then((m) => m.RulesView));

const PAGES: Record<CashPage, string> = {
  ahead: 'Ahead',
  items: 'Open items',
  bank: 'At the bank',
  terms: 'Terms',
  dated: 'Dated items',
  taxes: 'Taxes',
  rules: 'Bank and floor',
  kept: 'Then and now',
};
const VIEWS = CASH_PAGES.map((value) => ({ value, label: PAGES[value] }));

/** The bank ahead: what the budget, open items, taxes and dated items make of it, and what they follow. */
export function CashScreen() {
  const ground = useOpenGround();
  const router = useRouter();
  const page = useSession((s) => s.cashPage);
  const chosenForecast = useSession((s) => s.cashForecast);
  const month = useSession((s) => s.cashMonth);
  const { book, calendar } = ground;
  const { looked, name } = usePlan(ground);
  const forecastId = chosenForecast ?? book.cash.own;
  const view = useMemo(() => cashOf(ground, looked, forecastId), [ground, looked, forecastId]);
  const money = moneyFormat(book);
  const forecast = view?.forecast;
  const spent = forecast?.below.reduce((t, b) => t + b.to - b.from + 1, 0) ?? 0;
  const drawn = Math.max(0, ...(forecast?.moves.map((m) => m.stands) ?? []));
  const facts =
    forecast?.low && page === 'ahead'
      ? [
          {
            label: 'Low point',
            value: onDay(forecast.low.day),
            after: money.text(minor(forecast.low.amount)),
          },
          ...(book.cash.floor === null
            ? []
            : [
                spent > 0
                  ? { label: 'Under the floor', value: `${spent} ${spent === 1 ? 'day' : 'days'}` }
                  : { label: 'Floor', value: 'kept' },
              ]),
          ...(book.cash.creditLine
            ? [
                {
                  label: 'Credit line',
                  value: drawn > 0 ? `up to ${money.text(drawn as Minor)}` : 'not drawn',
                },
              ]
            : []),
        ]
      : [];
  const factsKey = JSON.stringify(facts);
  useEffect(() => {
    setSession({ facts: JSON.parse(factsKey) });
    return () => setSession({ facts: [] });
  }, [factsKey]);

  if (!view)
    return (
      <Trouble
        tone="empty"
        title="Money ahead needs a plan"
        action={{ label: 'Go to Budget', run: () => router.push('/budget') }}
      >
        Nothing is closed and no budget is started yet. Take in a ledger file, or start a budget; then the
        bank balance ahead stands here by day, week and month.
      </Trouble>
    );
  const { periods } = view.input;
  const ruler = rulerRange(ground);
  const first = Math.min(ruler?.first ?? periods[0]!.index, periods[0]!.index);
  const last = Math.max(ruler?.last ?? 0, periods.at(-1)!.index);
  const from = Math.max(periods[0]!.index, Math.min(month ?? periods[0]!.index, periods.at(-1)!.index));
  const opens =
    view.opening === 'unknown' && !view.today
      ? 'what the bank holds is not known: say it under “Bank and floor”'
      : `from ${money.text(minor(heldAt(forecast!)))} at the bank on ${onDay(forecast!.today)}`;
  return (
    <div className={stage.stage}>
      <StageHead
        title="Cash ahead"
        subtitle={`${opens}${name === null ? '' : ` · ${name}`}`}
        ruler={{
          periods: periodsOf(calendar, { first, last }),
          closedThrough: ground.closedThrough,
          range: { first: from, last: from },
          choose: 'one',
          onChange: (r) => setSession({ cashMonth: r.first }),
          label: 'Month to look at',
        }}
      />
      <div className={classes.page}>
        <ViewBar views={VIEWS} view={page} onView={(cashPage) => setSession({ cashPage })}>
          <PlanChoice
            budgets={book.budgets}
            looked={looked}
            inForce={planCalled(ground, null) ?? 'nothing'}
            onLook={(planId) => setSession({ planId })}
          />
        </ViewBar>
        {page === 'ahead' && <AheadView ground={ground} view={view} from={from} forecastId={forecastId} />}
        {page === 'items' && <ItemsView ground={ground} view={view} />}
        {page === 'bank' && <BankView ground={ground} view={view} />}
        {page === 'terms' && (
          <TermsView ground={ground} view={view} budget={looked ?? view.plans[0]?.budget ?? null} />
        )}
        {page === 'kept' && <KeptView ground={ground} view={view} />}
        {page === 'dated' && <DatedView ground={ground} view={view} />}
        {page === 'taxes' && <TaxesView ground={ground} view={view} />}
        {page === 'rules' && <RulesView ground={ground} view={view} />}
      </div>
    </div>
  );
}
