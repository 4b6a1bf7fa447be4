'use client';

import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Button, SegmentedControl } from '@mantine/core';
import { periodsOf, rangeLabel, type PeriodRange } from '@/core/calendar';
import { aheadOf, rulerRange } from '@/core/ground';
import type { Adjustment } from '@/core/model';
import { MenuButton } from '@/components/Opens';
import { StageHead } from '@/components/StageHead';
import { PlanChoice } from '@/components/ViewBar';
import { Trouble } from '@/components/Trouble';
import stage from '@/components/Stage.module.css';
import { dispatch, useBookStore } from '@/store/bookStore';
import { moneyFormat } from '@/store/format';
import { useOpenGround } from '@/store/openGround';
import { lookedNow, wantName } from '@/store/person';
import { planCalled, usePlan } from '@/store/plan';
import { closeQuestions, steadyGround } from '@/store/questions';
import { say, setSession, useSession } from '@/store/session';
import type { OutcomeId } from '@/core/whatif';
import { AdjustmentPanel } from './AdjustmentPanel';
import { CaseChart, PLAN_STROKE, STROKES, type ChartLine } from './CaseChart';
import { besidePlan, CaseMatrix, type At } from './CaseMatrix';
import { useCases, type AboutCase, type CaseLook } from './useCases';
import classes from './WhatIf.module.css';

const TableView = dynamic(() => import('./TableView').then((m) => m.TableView));
const DayRead = dynamic(() => import('./DayRead').then((m) => m.DayRead));
const EdgeView = dynamic(() => import('./EdgeView').then((m) => m.EdgeView));
const SureView = dynamic(() => import('./SureView').then((m) => m.SureView));
const NearestPart = dynamic(() => import('./NearestPart').then((m) => m.NearestPart));
const StepsView = dynamic(() => import('./StepsView').then((m) => m.StepsView));
const AdjustmentDialog = dynamic(() => import('./AdjustmentDialog').then((m) => m.AdjustmentDialog));
const ApplyDialog = dynamic(() => import('./ApplyDialog').then((m) => m.ApplyDialog));
const CaseExport = dynamic(() => import('./CaseExport').then((m) => m.CaseExport));
const CaseDialog = dynamic(() => import('./CaseDialog').then((m) => m.CaseDialog));

type View = 'cases' | 'steps' | 'table' | 'edge' | 'sure';
const VIEWS: readonly { readonly value: View; readonly label: string }[] = [
  { value: 'cases', label: 'Cases' },
  { value: 'steps', label: 'Step by step' },
  { value: 'table', label: 'Two at once' },
  { value: 'edge', label: 'Edge' },
  { value: 'sure', label: 'How sure' },
];

const PLAIN: readonly OutcomeId[] = [
  'income',
  'grossMargin',
  'netProfit',
  'lowBank',
  'daysUnder',
  'closingBank',
  'equity',
];
const WITH_LINE: readonly OutcomeId[] = [...PLAIN, 'lowAfterLine', 'highestDrawing'];

/** Cases over one plan: what is assumed in each, how much of it, and what each comes to. */
export function WhatIfScreen() {
  const ground = useOpenGround();
  const router = useRouter();
  const readOnly = useBookStore((s) => s.readOnly);
  const { book, calendar, closedThrough } = ground;
  const { looked, name } = usePlan(ground);
  const still = steadyGround(ground);
  const ahead = useMemo(() => aheadOf(still, looked), [still, looked]);
  const [chosen, setChosen] = useState<PeriodRange | null>(null);
  const [at, setAt] = useState<At | null>(null);
  const [view, setView] = useState<View>('cases');
  const [told, setTold] = useState<string | null>(null);
  const [plain, setPlain] = useState(true);
  const [day, setDay] = useState<number | null>(null);
  const [panelOpen, setPanelOpen] = useState(false);
  /** The adjustment that is changed, or `null` for a new one; a case that is named anew, `null` for a new one. */
  const [asked, setAsked] = useState<Adjustment | null | undefined>(undefined);
  const [taking, setTaking] = useState<string | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const [naming, setNaming] = useState<string | null | undefined>(undefined);
  useEffect(() => closeQuestions, []);
  // Begun elsewhere.
  const trying = useSession((x) => (x.trying !== null && !readOnly ? x.trying : null));
  const start = ahead?.start ?? 0;
  const last = ahead?.last ?? 0;
  const range = useMemo<PeriodRange>(() => {
    // As far as somebody plans: what follows is no profit, and no loss.
    const planned = ahead?.view.plans.flatMap((p) => p.periods.map((x) => x.index)) ?? [];
    const wanted = chosen ?? { first: start + 1, last: Math.max(start + 1, ...planned) };
    return { first: wanted.first, last: Math.min(last, Math.max(wanted.first, wanted.last)) };
  }, [chosen, start, last, ahead]);
  const { base, cases } = useCases(ground, looked, range);
  const money = moneyFormat(book);
  const taken = useMemo(
    () =>
      new Map(
        (ahead?.view.plans ?? []).flatMap(({ budget }) =>
          budget.applied.map((a) => [a.adjustment.id, { ...a, budget }] as const),
        ),
      ),
    [ahead],
  );
  const worst = cases.filter((c) => {
    const low = c.outcomes?.of.lowBank;
    return book.cash.floor !== null && low != null && low.amount < book.cash.floor;
  }).length;
  const balances = cases.every((c) => !c.outcomes || c.outcomes.balances);
  const facts = book.cash.floor === null || cases.length === 0 ? '' : `${worst} of ${cases.length} cases`;
  useEffect(() => {
    setSession({
      facts: [
        ...(facts === '' ? [] : [{ label: 'Under the floor', value: facts }]),
        ...(balances ? [] : [{ label: 'A case does not balance', value: '✗' }]),
      ],
    });
    return () => setSession({ facts: [] });
  }, [facts, balances]);
  if (!ahead)
    return (
      <Trouble
        tone="empty"
        title="Cases need a plan"
        action={{ label: 'Start a budget', run: () => router.push('/budget') }}
      >
        Nothing is closed and no budget is started yet. Start a budget; then a better and a worse case can be
        tried over it, and nothing of it changes.
      </Trouble>
    );
  const known = rulerRange(ground);
  const adjustment = book.adjustments.find((a) => a.id === at?.adjustment) ?? null;
  const one = cases.find((c) => c.case.id === at?.case) ?? null;
  const asksOf = cases.find((c) => c.case.id === told) ?? cases.at(-1) ?? null;
  const line = book.cash.creditLine !== null;
  const lines: ChartLine[] = [
    ...(base
      ? [
          {
            key: 'plan',
            name: 'as planned',
            stroke: PLAN_STROKE,
            tone: 'plan' as const,
            bank: base.bank,
            low: base.of.lowBank,
          },
        ]
      : []),
    ...cases.flatMap((c, i): ChartLine[] => {
      if (!c.outcomes) return [];
      const side = besidePlan('lowBank', c.outcomes.of.lowBank, base?.of.lowBank ?? null);
      return [
        {
          key: c.case.id,
          name: c.case.name,
          stroke: STROKES[i % STROKES.length]!,
          tone: side === null ? 'same' : side === 'F' ? 'good' : 'bad',
          bank: c.outcomes.bank,
          low: c.outcomes.of.lowBank,
        },
      ];
    }),
  ];
  const put = (adjustmentId: string, caseId: string, size: number | null) => {
    const was = book.cases.find((c) => c.id === caseId)?.sizes[adjustmentId];
    dispatch({
      type: 'setSizes',
      cells: [
        {
          case: caseId,
          adjustment: adjustmentId,
          size: size === null ? null : { low: null, high: null, ...was, size },
        },
      ],
    });
  };
  const addCases = (...names: string[]) => {
    wantName();
    const made = lookedNow();
    dispatch({ type: 'addCases', cases: names.map((n) => ({ name: n, ...made })), like: null });
  };
  const takeAway = (a: Adjustment) => {
    if (!dispatch({ type: 'removeAdjustments', adjustments: [a.id] }))
      say(`“${a.name}” was taken away. Ctrl+Z brings it back.`);
    setAt(null);
  };
  return (
    <div className={stage.stage}>
      <StageHead
        title={cases.length === 0 ? 'What if' : cases.length === 1 ? 'One case' : `${cases.length} cases`}
        subtitle={`${name === null ? 'over what is known' : `over ${name}`} · ${rangeLabel(calendar, range)}`}
        ruler={{
          periods: periodsOf(calendar, {
            first: Math.min(known?.first ?? start + 1, start + 1),
            last: Math.max(known?.last ?? last, last),
          }),
          closedThrough,
          range,
          choose: 'many',
          onChange: setChosen,
          label: 'Months that the outcomes are of',
        }}
      />
      <div className={stage.work} data-alone={view !== 'cases' || undefined}>
        <div className={stage.left}>
          <div className={stage.tools}>
            <SegmentedControl
              size="xs"
              aria-label="View"
              value={view}
              onChange={(v) => setView(v as View)}
              data={[...VIEWS]}
            />
            {line && view === 'cases' && (
              <SegmentedControl
                size="xs"
                aria-label="The bank in the picture"
                value={plain ? 'plain' : 'line'}
                onChange={(v) => setPlain(v === 'plain')}
                data={[
                  { value: 'plain', label: 'Before the line' },
                  { value: 'line', label: 'After' },
                ]}
              />
            )}
            <PlanChoice
              budgets={book.budgets}
              looked={looked}
              inForce={planCalled(ground, null) ?? 'nothing'}
              onLook={(planId) => setSession({ planId })}
            />
            <span className={stage.push} />
            {view === 'cases' && (
              <Button className={stage.toggle} onClick={() => setPanelOpen(!panelOpen)}>
                Reasoning
              </Button>
            )}
            {cases.length > 0 && cases.every((c) => c.outcomes !== undefined) && (
              <CaseExport
                shown={{
                  ground,
                  looked,
                  range,
                  base,
                  cases,
                  over: name ?? 'what is known',
                }}
              />
            )}
            {!readOnly && (
              <>
                <Button onClick={() => setAsked(null)}>Add an adjustment</Button>
                <MenuButton
                  button={<Button>{cases.length === 0 ? 'Add cases ▾' : 'Add case ▾'}</Button>}
                  entries={[
                    ...(cases.length === 0
                      ? [
                          {
                            label: 'Better, Likely and Worse',
                            run: () => addCases('Better', 'Likely', 'Worse'),
                          },
                        ]
                      : []),
                    { label: 'One case…', run: () => setNaming(null) },
                    { label: 'From another book’s file…', run: () => file.current?.click() },
                  ]}
                />
                <input
                  ref={file}
                  type="file"
                  hidden
                  accept=".json,application/json"
                  aria-label="A file of cases"
                  onChange={(e) => {
                    const [chosen] = e.currentTarget.files ?? [];
                    e.currentTarget.value = '';
                    if (chosen)
                      void import('@/store/caseFiles').then(({ importCases }) => importCases(ground, chosen));
                  }}
                />
              </>
            )}
          </div>
          {view !== 'cases' ? (
            <Asked
              view={view}
              ground={ground}
              looked={looked}
              range={range}
              cases={cases}
              one={asksOf}
              onCase={setTold}
            />
          ) : (
            <div className={classes.body}>
              <CaseChart
                lines={lines}
                range={range}
                calendar={calendar}
                floor={book.cash.floor}
                money={money}
                plain={plain}
                chosen={day}
                onChoose={setDay}
              />
              <DayRead day={day} base={base} cases={cases} before={plain} money={money} />
              {book.adjustments.length === 0 && cases.length === 0 ? (
                <Trouble
                  tone="empty"
                  title="Nothing is tried yet"
                  {...(readOnly
                    ? {}
                    : {
                        action: {
                          label: 'Add Better, Likely and Worse',
                          run: () => addCases('Better', 'Likely', 'Worse'),
                        },
                      })}
                >
                  A case is a list of changes over the plan, each with its reason: a price, a slow customer, a
                  hire. The plan stays as it is and every case moves with it. Add cases, then adjustments, and
                  say how much of each there is in each case.
                </Trouble>
              ) : (
                <CaseMatrix
                  book={book}
                  calendar={calendar}
                  base={base}
                  cases={cases}
                  outcomes={line ? WITH_LINE : PLAIN}
                  taken={taken}
                  at={at}
                  readOnly={readOnly}
                  onAt={setAt}
                  onSize={(cell, size) => put(cell.adjustment, cell.case, size)}
                  onOpen={(a) => !readOnly && setAsked(a)}
                  onSwitch={(a) =>
                    !readOnly && dispatch({ type: 'setAdjustment', adjustment: { ...a, off: !a.off } })
                  }
                  onCase={(id) => {
                    const own = book.cases.find((c) => c.id === id)!;
                    return readOnly ? (
                      own.name
                    ) : (
                      <MenuButton
                        button={<button className={classes.caseName}>{own.name} ▾</button>}
                        entries={[
                          { label: 'Take it into a plan…', run: () => setTaking(id) },
                          { label: 'Name it anew…', run: () => setNaming(id) },
                          {
                            label: 'Another case like it',
                            run: () => {
                              wantName();
                              dispatch({
                                type: 'addCases',
                                cases: [{ name: own.name, ...lookedNow() }],
                                like: id,
                              });
                            },
                          },
                          {
                            label: 'Take it away',
                            run: () => {
                              if (!dispatch({ type: 'removeCase', case: id }))
                                say(`“${own.name}” was taken away. Ctrl+Z brings it back.`);
                            },
                          },
                        ]}
                      />
                    );
                  }}
                />
              )}
              {cases.length > 0 && <NearestPart ground={ground} looked={looked} />}
            </div>
          )}
        </div>
        {view === 'cases' && (
          <AdjustmentPanel
            key={`${at?.adjustment} ${at?.case}`}
            ground={ground}
            looked={looked}
            range={range}
            base={base}
            adjustment={adjustment}
            one={one}
            open={panelOpen}
            readOnly={readOnly}
            taken={adjustment ? (taken.get(adjustment.id) ?? null) : null}
            onSize={(size) => one && adjustment && put(adjustment.id, one.case.id, size)}
            onChange={() => setAsked(adjustment)}
            onTakeAway={() => adjustment && takeAway(adjustment)}
          />
        )}
      </div>
      {(asked !== undefined || trying !== null) && (
        <AdjustmentDialog
          ground={ground}
          looked={looked}
          adjustment={asked ?? null}
          begin={trying}
          onClose={() => {
            setAsked(undefined);
            setSession({ trying: null });
          }}
          onMade={(id) => setAt({ adjustment: id, case: book.cases[0]?.id ?? null })}
        />
      )}
      {taking !== null && book.cases.some((c) => c.id === taking) && (
        <ApplyDialog
          ground={ground}
          one={book.cases.find((c) => c.id === taking)!}
          base={looked ?? ahead.view.plans.at(0)?.budget ?? null}
          onClose={() => setTaking(null)}
        />
      )}
      {naming !== undefined && (
        <CaseDialog
          name={book.cases.find((c) => c.id === naming)?.name ?? ''}
          onClose={() => setNaming(undefined)}
          onName={(text) => {
            setNaming(undefined);
            if (naming === null) addCases(text);
            else dispatch({ type: 'renameCase', case: naming, name: text });
          }}
        />
      )}
    </div>
  );
}

/** A question about one of the cases; the edge of the plan itself needs none. */
function Asked({
  view,
  one,
  ...of
}: Omit<AboutCase, 'one'> & {
  readonly view: Exclude<View, 'cases'>;
  readonly one: CaseLook | null;
}) {
  if (view === 'edge') return <EdgeView {...of} one={one} />;
  if (one === null)
    return (
      <div className={classes.body}>
        <p className="faded">There is no case yet that could be asked about.</p>
      </div>
    );
  if (view === 'steps') return <StepsView {...of} one={one} />;
  return view === 'table' ? <TableView {...of} one={one} /> : <SureView {...of} one={one} />;
}
