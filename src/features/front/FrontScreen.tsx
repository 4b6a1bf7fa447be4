'use client';

import { useEffect, useMemo, type ReactNode } from 'react';
import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { fiscalYearLabel, periodsOf, yearRange } from '@/core/calendar';
import { whyOf } from '@/core/front';
import { isActual } from '@/core/plan';
import { comparisonsAt, isApproved, plansIn, rulerRange } from '@/core/ground';
import type { Minor } from '@/core/money';
import { cellOf, comparedWith, SHIPPED, type ReportRow } from '@/core/report';
import { Sense } from '@/components/report/Sense';
import { StageHead } from '@/components/StageHead';
import { useChecks } from '@/store/ground';
import { useOpenGround } from '@/store/openGround';
import { moneyFormat, unitWords } from '@/store/format';
import { againstWords, comparisonName, runsLabel } from '@/store/layoutWords';
import { monthFacts } from '@/store/monthFacts';
import { setSession, useSession, type Session } from '@/store/session';
import classes from './Front.module.css';

const CovenantLines = dynamic(() => import('./CovenantLines').then((m) => m.CovenantLines));
const BankAhead = dynamic(() => import('./BankAhead').then((m) => m.BankAhead));
const WhyLines = dynamic(() => import('./WhyLines').then((m) => m.WhyLines));
const BankBesideLines = dynamic(() => import('./BankBesideLines').then((m) => m.BankBesideLines));
const OwedLines = dynamic(() => import('./OwedLines').then((m) => m.OwedLines));
const SinceLines = dynamic(() => import('./SinceLines').then((m) => m.SinceLines));

const BLOCKS = ['month', 'toDate'] as const;
type Side = 'Actual' | 'Budget' | 'Diff';

/** So many lines over and under are named. */
const MOST = 5;
const NO_NOTES = {};

/** What a manager sees first: how the month and the year stand, what moved them, the bank ahead, and what waits. */
export function FrontScreen() {
  const ground = useOpenGround();
  const { book, calendar, balances, closedThrough } = ground;
  const chosen = useSession((s) => s.varianceMonth);
  const router = useRouter();
  const month = chosen ?? closedThrough ?? balances.range?.last ?? null;
  const compared = useMemo(
    () => (month === null ? null : comparedWith(ground, month, SHIPPED[0]!, null)),
    [ground, month],
  );
  const facts = useMemo(
    () => (compared && month !== null ? monthFacts(ground, month, compared) : null),
    [ground, compared, month],
  );
  const empty = month === null;
  useEffect(() => {
    // Nothing to show yet: the books come first.
    if (empty) router.replace('/books');
  }, [empty, router]);
  if (!facts || !compared || month === null) return null;
  const money = moneyFormat(book);
  const { table, net } = facts;
  const rowOf = (key: string) => table.rows.find((r) => r.key === key) ?? null;
  const at = (row: ReportRow | null, key: string) => (row ? (cellOf(table, row, key) as Minor | null) : null);
  const go = (path: string, change: Partial<Session> = {}) => {
    setSession(change);
    router.push(path);
  };
  const toLine = (row: ReportRow) => go('/variance', { varianceMonth: month, varianceRow: row.key });
  const label = calendar.period(month).label;
  const toDate = table.columns.find((c) => c.block === 'toDate')?.group ?? '';
  const hasBudget = compared.comparison !== null;
  const moved = whyOf(table, book.accounts, 'toDate', NO_NOTES).lines.slice(0, MOST);
  const planned = at(net, 'yearBudget');
  const plannedOf = table.columns.find((c) => c.key === 'yearBudget')?.only;
  const outlook = at(net, 'yearOutlook');
  // Where nothing is planned, nothing is to be expected.
  const unplanned = periodsOf(calendar, yearRange(calendar, calendar.period(month).year)).filter(
    (p) => !isActual(balances, closedThrough, p.index) && plansIn(ground, p.index, 'profit').length === 0,
  );
  return (
    <div className={classes.screen}>
      <StageHead
        title={label}
        subtitle={`${book.name} against ${againstWords(compared)}`}
        ruler={{
          periods: periodsOf(calendar, rulerRange(ground)!),
          closedThrough,
          range: { first: month, last: month },
          choose: 'one',
          onChange: (r) => setSession({ varianceMonth: r.last }),
          label: 'Month to look at',
        }}
      />
      <div className={classes.page}>
        <section aria-label="Profit">
          <Headline
            label={label}
            actual={at(net, 'monthActual')}
            budget={at(net, 'monthBudget')}
            words={money.told}
            compares={hasBudget}
          />
          <table className={classes.figures}>
            <thead>
              <tr>
                <td className={classes.unitOf}>{unitWords(book)}</td>
                <th scope="colgroup" colSpan={3}>
                  {label}
                </th>
                <th scope="colgroup" colSpan={3}>
                  {toDate}
                </th>
              </tr>
              <tr className={classes.small}>
                <td />
                {BLOCKS.map((block) => [
                  <th key={`a${block}`} scope="col">
                    Actual
                  </th>,
                  <th key={`b${block}`} scope="col">
                    {table.columns.find((c) => c.key === `${block}Budget`)?.label}
                  </th>,
                  <th key={`s${block}`} scope="col" aria-label="Favorable or unfavorable" />,
                ])}
              </tr>
            </thead>
            <tbody>
              {(['income', 'costs', 'net'] as const).map((which) => (
                <tr key={which} data-kind={which}>
                  <th scope="row">
                    <button
                      type="button"
                      className={classes.link}
                      onClick={() => go('/variance', { varianceMonth: month })}
                    >
                      {which === 'income' ? 'Income' : which === 'costs' ? 'Costs' : 'Net profit'}
                    </button>
                  </th>
                  {BLOCKS.map((block) => {
                    const figure = (side: Side) => sideOf(which, block, side);
                    const [a, b] = [figure('Actual'), figure('Budget')];
                    // As the report compares them: over the months that both are known of.
                    const d = (figure('Diff') ?? 0) * (which === 'costs' ? -1 : 1);
                    return [
                      <td key={`${block}a`} title={money.exact(a)}>
                        {money.text(a)}
                      </td>,
                      <td key={`${block}b`} className={classes.plan} title={money.exact(b)}>
                        {money.text(b)}
                      </td>,
                      <td key={`${block}s`} className={classes.sense}>
                        {d !== 0 && <Sense sense={d > 0 ? 'F' : 'U'} />}
                      </td>,
                    ];
                  })}
                </tr>
              ))}
            </tbody>
          </table>

          <WhyLines
            table={table}
            accounts={book.accounts}
            notes={hasBudget ? (book.varianceNotes[calendar.period(month).id] ?? NO_NOTES) : NO_NOTES}
            label={label}
            beside={compared.comparison ? comparisonName(compared.comparison) : 'last year'}
            money={money}
            onLine={toLine}
          />
          <h2 className="label">Over and under most, {toDate.toLowerCase()}</h2>
          <ul className={classes.moved}>
            {moved.map(({ row, difference, effect }) => (
              <li key={row.key}>
                <button type="button" className={classes.link} onClick={() => toLine(row)}>
                  {row.label}
                </button>
                <span>
                  {money.text(Math.abs(difference) as Minor)} {difference > 0 ? 'over' : 'under'}{' '}
                  <Sense sense={effect > 0 ? 'F' : 'U'} />
                </span>
              </li>
            ))}
            {moved.length === 0 && <li className="faded">Nothing to compare so far.</li>}
          </ul>
        </section>

        <div className={classes.aside}>
          <section aria-label="Outlook">
            <h2 className="label">The year {fiscalYearLabel(calendar.period(month).year)}</h2>
            <p className={classes.sentence}>
              {outlook === null ? (
                'Nothing is known of it yet.'
              ) : (
                <>
                  Net profit of{' '}
                  <button
                    type="button"
                    className={classes.link}
                    onClick={() => go('/variance', { varianceMonth: month })}
                  >
                    {money.text(outlook)}
                  </button>{' '}
                  {unplanned.length > 0
                    ? `came or is planned so far. ${unplanned.length === 1 ? 'A month' : `${unplanned.length} months`} of the year, from ${unplanned[0]!.label} on, ${unplanned.length === 1 ? 'is' : 'are'} not planned: what the year comes to is not to be told`
                    : 'is to be expected'}
                  {planned === null || !hasBudget || unplanned.length > 0
                    ? '.'
                    : `, where ${money.text(planned)} was budgeted${plannedOf ? ` of ${runsLabel(calendar, plannedOf)}` : ''}.`}
                </>
              )}
            </p>
          </section>
          <SinceLines ground={ground} month={month} />
          <BankAhead
            ground={ground}
            onOpen={() => go('/cash', { cashPage: 'ahead' })}
            onTry={() => go('/whatif')}
          />
          <BankBesideLines
            ground={ground}
            month={month}
            onOpen={() => go('/variance', { varianceMonth: month, layoutId: 'std-cash' })}
          />
          <OwedLines ground={ground} onOpen={() => go('/cash', { cashPage: 'items' })} />
          <CovenantLines ground={ground} onOpen={() => go('/statements', { statementPage: 'ratios' })} />
          <Waits items={[...flagWaits(), ...monthWaits(), ...draftWaits(), <Failing key="checks" />]} />
        </div>
      </div>
    </div>
  );

  function sideOf(which: 'income' | 'costs' | 'net', block: (typeof BLOCKS)[number], side: Side) {
    const result = at(net, `${block}${side}`);
    if (which === 'net') return result;
    const parts = ['total-income', 'total-otherIncome'].map((k) => at(rowOf(k), `${block}${side}`));
    const income = parts.some((p) => p !== null)
      ? (parts.reduce<number>((t, p) => t + (p ?? 0), 0) as Minor)
      : null;
    if (which === 'income') return income;
    return income === null && result === null ? null : (((income ?? 0) - (result ?? 0)) as Minor);
  }

  function flagWaits(): ReactNode[] {
    const notes = book.varianceNotes[calendar.period(month!).id] ?? {};
    const open = table.rows.filter((r) => r.flagged && !notes[r.account!]).length;
    return open === 0
      ? []
      : [
          <Wait key="flags" onOpen={() => go('/variance', { varianceMonth: month!, layoutId: null })}>
            {open} flagged {open === 1 ? 'line asks' : 'lines ask'} for a word
          </Wait>,
        ];
  }

  function monthWaits(): ReactNode[] {
    const last = balances.range?.last ?? null;
    if (last === null || closedThrough === null || last <= closedThrough) return [];
    return [
      <Wait key="month" onOpen={() => go('/books', { booksView: 'calendar' })}>
        {calendar.period(closedThrough + 1).label} has entries and is not closed
      </Wait>,
    ];
  }

  function draftWaits(): ReactNode[] {
    const here = comparisonsAt(ground, month!);
    if (here.some((c) => c.parts.every((p) => isApproved(p.budget)))) return [];
    const draft = here[0]?.parts[0]?.budget;
    return [
      <Wait key="draft" onOpen={() => go('/budget', draft ? { budgetId: draft.id } : {})}>
        {draft ? `${draft.name} is a draft: nothing is approved` : `No budget covers ${label}`}
      </Wait>,
    ];
  }
}

function Headline({
  label,
  actual,
  budget,
  words,
  compares,
}: {
  readonly label: string;
  readonly actual: Minor | null;
  readonly budget: Minor | null;
  readonly words: (amount: Minor | null) => string;
  readonly compares: boolean;
}) {
  if (actual === null) return <p className={classes.headline}>{label} has no result yet.</p>;
  const name = actual < 0 ? 'loss' : 'profit';
  const size = words(Math.abs(actual) as Minor);
  const beside = budget === null ? null : words(Math.abs(budget) as Minor);
  const what = compares ? 'was budgeted' : 'was made a year before';
  return (
    <p className={classes.headline}>
      {label} made a {name} of <b data-bad={actual < 0 || undefined}>{size}</b>
      {beside === null
        ? '.'
        : `, where ${budget! < 0 !== actual < 0 ? `a ${budget! < 0 ? 'loss' : 'profit'} of ` : ''}${beside} ${what}.`}
    </p>
  );
}

/** What waits for somebody, each with where it is done. */
function Waits({ items }: { readonly items: readonly ReactNode[] }) {
  return (
    <section aria-label="What waits">
      <h2 className="label">What waits</h2>
      <ul className={classes.waits}>{items}</ul>
    </section>
  );
}

const Wait = ({ children, onOpen }: { readonly children: ReactNode; readonly onOpen: () => void }) => (
  <li>
    <button type="button" className={classes.link} onClick={onOpen}>
      {children}
    </button>
  </li>
);

/** The checks in a line: all hold, or which do not. */
function Failing() {
  const checks = useChecks();
  const broken = checks.filter((c) => !c.holds && !c.notice).length;
  const rules = checks.filter((c) => c.holds || !c.notice).length;
  if (rules === 0) return null;
  return (
    <li data-broken={broken > 0 || undefined}>
      {broken === 0
        ? `All ${rules} checks hold`
        : `${broken} of ${rules} checks ${broken === 1 ? 'fails' : 'fail'}: see the foot of the page`}
    </li>
  );
}
