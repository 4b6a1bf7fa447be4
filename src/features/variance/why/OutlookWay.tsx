'use client';

import { NativeSelect } from '@mantine/core';
import { minor, ZERO, type Minor } from '@/core/money';
import { periodsOf, yearRange, type PeriodIndex } from '@/core/calendar';
import { isActual } from '@/core/plan';
import { plansIn, reckoned, type Ground } from '@/core/ground';
import type { Account, Budget, OutlookWay as Way } from '@/core/model';
import { cellOf, type ReportRow, type ReportTable } from '@/core/report';
import { MoneyInput } from '@/components/MoneyInput';
import stage from '@/components/Stage.module.css';
import { dispatch } from '@/store/bookStore';
import type { MoneyFormat } from '@/store/format';

const WAYS: readonly { readonly value: string; readonly label: string; readonly way: Way | null }[] = [
  { value: 'plan', label: 'As planned and explained', way: null },
  { value: 'rate3', label: 'As the last 3 months on average', way: { kind: 'runRate', months: 3 } },
  { value: 'rate6', label: 'As the last 6 months on average', way: { kind: 'runRate', months: 6 } },
  { value: 'rate12', label: 'As the last 12 months on average', way: { kind: 'runRate', months: 12 } },
  { value: 'lastYear', label: 'As last year’s months, at this year’s level', way: { kind: 'lastYear' } },
  { value: 'typed', label: 'As typed', way: { kind: 'typed', amounts: {} } },
];

const valueOf = (way: Way | null): string =>
  way === null ? 'plan' : way.kind === 'runRate' ? `rate${way.months}` : way.kind;

/** The way from the year's budget to its outlook: what is over or under so far, and what is expected of the rest. */
export function OutlookWay({
  ground,
  table,
  row,
  budget,
  inForce,
  account,
  month,
  money,
  readOnly,
}: {
  readonly ground: Ground;
  readonly table: ReportTable;
  readonly row: ReportRow;
  /** The budget whose outlook can be expected otherwise; null where it is not one of the whole company. */
  readonly budget: Budget | null;
  /** The months are compared with what is in force in each. */
  readonly inForce: boolean;
  readonly account: Account;
  readonly month: PeriodIndex;
  readonly money: MoneyFormat;
  readonly readOnly: boolean;
}) {
  const { book, calendar, balances, closedThrough } = ground;
  const at = (key: string) => cellOf(table, row, key) as Minor | null;
  const [planned, outlook, soFar] = [at('yearBudget'), at('yearOutlook'), at('toDateDiff')];
  const inAll = at('yearDiff');
  if (planned === null || outlook === null || soFar === null || inAll === null) return null;
  const carried = (inAll - soFar) as Minor;

  // What came, or is expected, in months of the year that the budget does not have.
  const beyond = (outlook - planned - inAll) as Minor;
  // Another plan may be in force for the months to come than the one that the closed month is compared with.
  const plans = inForce && closedThrough !== null ? plansIn(ground, closedThrough + 1, 'profit') : [];
  const other = plans.length > 0 && !plans.some((b) => b.id === budget?.id);
  const ahead = !other ? budget : plans.length === 1 && plans[0]!.axis === null ? plans[0]! : null;
  const onward = other ? `${plans.map((b) => b.name).join(', ')}, in force ahead` : null;
  const way = (ahead && book.outlookWays[ahead.id]?.[account.id]) ?? null;
  const put = (next: Way | null) =>
    dispatch({ type: 'setOutlookWay', budget: ahead!.id, account: account.id, way: next });
  const value = valueOf(way);
  const coming = periodsOf(calendar, yearRange(calendar, calendar.period(month).year)).filter(
    (p) => !isActual(balances, closedThrough, p.index),
  );
  // What explanations bring back or go on with, and nothing else, stands under that name.
  const explained =
    other || way || !ahead
      ? ZERO
      : minor(coming.reduce((t, p) => t + reckoned(ground, ahead).carried(account.id, p.index), 0));
  return (
    <section aria-label="Way to the outlook">
      <div className="label">From budget to outlook</div>
      <div className={stage.pair}>
        <span>Budget for the year</span>
        <span>{money.text(planned)}</span>
      </div>
      <div className={stage.pair}>
        <span>{soFar >= 0 ? 'Over' : 'Under'} so far</span>
        <span>{money.signed(soFar)}</span>
      </div>
      {explained !== 0 && (
        <div className={stage.pair}>
          <span>Comes back or goes on, as explained</span>
          <span>{money.signed(explained)}</span>
        </div>
      )}
      {carried !== explained && (
        <div className={stage.pair}>
          <span>
            {onward ??
              (way
                ? 'Expected otherwise'
                : closedThrough !== null && month < closedThrough
                  ? `Months since ${calendar.period(month).label}`
                  : 'What money ahead makes of it')}
          </span>
          <span>{money.signed((carried - explained) as Minor)}</span>
        </div>
      )}
      {beyond !== 0 && (
        <div className={stage.pair}>
          <span>Months without a budget</span>
          <span>{money.signed(beyond)}</span>
        </div>
      )}
      <div className={stage.pair}>
        <b>Outlook</b>
        <b>{money.text(outlook)}</b>
      </div>
      {budget && ahead && coming.length > 0 && (
        <NativeSelect
          mt={6}
          label="The months to come"
          disabled={readOnly}
          value={value}
          data={[
            ...WAYS.map(({ value: v, label }) => ({ value: v, label })),
            ...(WAYS.some((w) => w.value === value)
              ? []
              : [{ value, label: `As the last ${way?.kind === 'runRate' ? way.months : ''} months` }]),
          ]}
          onChange={(e) => put(WAYS.find((w) => w.value === e.currentTarget.value)?.way ?? null)}
        />
      )}
      {way?.kind === 'typed' &&
        coming.map((p) => (
          <div key={p.id} className={stage.pair}>
            <span>{p.label}</span>
            <MoneyInput
              size="xs"
              w={104}
              aria-label={`Expected in ${p.label}`}
              placeholder="as planned"
              value={way.amounts[p.id] ?? null}
              currency={book.currency}
              locale={book.locale}
              disabled={readOnly}
              onCommit={(amount) => {
                const { [p.id]: _was, ...rest } = way.amounts;
                put({ kind: 'typed', amounts: amount === null ? rest : { ...rest, [p.id]: amount } });
              }}
            />
          </div>
        ))}
    </section>
  );
}
