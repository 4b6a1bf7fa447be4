'use client';

import { useRouter } from 'next/navigation';
import { useCallback, useMemo, useState } from 'react';
import { Button, SegmentedControl } from '@mantine/core';
import { minor, type Minor } from '@/core/money';
import { periodsOf, type PeriodIndex, type PeriodRange } from '@/core/calendar';
import type { Ahead, Ground } from '@/core/ground';
import { segmentName } from '@/core/model';
import { CAPITAL_PARTS, conversionDays, workingCapital, type CapitalPart } from '@/core/statements';
import { Picture, type Drawing, type Token } from '@/components/Picture';
import stage from '@/components/Stage.module.css';
import { termsWords } from '@/store/cashWords';
import { moneyFormat } from '@/store/format';
import { setSession } from '@/store/session';
import { ratioText } from '@/store/statementWords';
import { figureAxis, periodAxis, periodBars, PERIOD_KEYS } from './periodBars';
import { RatioTable } from './RatioTable';
import classes from './Statements.module.css';

const NAMES: Readonly<
  Record<CapitalPart, { readonly stands: string; readonly days: string; readonly of: string }>
> = {
  receivable: { stands: 'Receivables', days: 'Receivable days', of: 'income' },
  inventory: { stands: 'Inventory', days: 'Inventory days', of: 'cost of sales' },
  payable: { stands: 'Payables', days: 'Payable days', of: 'cost of sales' },
};
type Span = 'month' | 'quarter' | 'year';
/** How terms count days, which the coming months' figures follow from. */
const IN_DAYS: ReadonlySet<string> = new Set(['onAccount', 'daysOutstanding', 'fromStock']);
const SHOWN = 12;

/** What business binds money in, by period: who owes it, what lies in stock, what is owed, each in days; and by which terms. */
export function CapitalView({
  ground,
  ahead,
  range,
}: {
  readonly ground: Ground;
  readonly ahead: Ahead;
  readonly range: PeriodRange;
}) {
  const { book, calendar } = ground;
  const money = moneyFormat(book);
  const [span, setSpan] = useState<Span>('year');
  const { start } = ahead;
  const { first, last } = range;
  const periods = useMemo(
    () => periodsOf(calendar, { first, last: Math.min(last, ahead.last) }),
    [calendar, first, last, ahead.last],
  );
  const figures = useMemo(
    () =>
      periods.map(({ index, year }) =>
        workingCapital(
          ahead.balances,
          ahead.accounts,
          calendar,
          index,
          span === 'month' ? 1 : span === 'quarter' ? 3 : calendar.periodsIn(year),
        ),
      ),
    [periods, ahead, calendar, span],
  );
  const draw = useCallback(
    (token: Token): Drawing => ({
      data: CAPITAL_PARTS.flatMap((part, i) =>
        periodBars(
          token,
          periods,
          start,
          figures.map((f) => (f[part].days === null ? null : f[part].days / 1000)),
          i === 0 ? '' : String(i + 1),
        ),
      ),
      layout: {
        barmode: 'overlay',
        margin: { l: 44, r: 8, t: 16, b: 22 },
        xaxis: { ...periodAxis(token, periods), anchor: 'y3' },
        ...Object.fromEntries(
          CAPITAL_PARTS.map((_, i) => [
            i === 0 ? 'yaxis' : `yaxis${i + 1}`,
            { ...figureAxis(token, 3), rangemode: 'tozero', domain: [1 - (i + 1) / 3, 1 - i / 3 - 0.09] },
          ]),
        ),
        annotations: CAPITAL_PARTS.map((part, i) => ({
          text: NAMES[part].days,
          xref: 'paper',
          yref: 'paper',
          x: 0,
          y: 1 - i / 3 - 0.09,
          xanchor: 'left',
          yanchor: 'bottom',
          showarrow: false,
          font: { family: token('--font-words'), size: 11, color: token('--ink') },
        })),
      },
    }),
    [periods, figures, start],
  );
  const daysText = (days: number | null) => ratioText(days, 'days', money);
  const bound = (f: (typeof figures)[number]): Minor | null =>
    f.receivable.stands === null
      ? null
      : minor(f.receivable.stands + f.inventory.stands! - f.payable.stands!);
  const rows = [
    ...CAPITAL_PARTS.flatMap((part) => [
      {
        key: part,
        name: NAMES[part].stands,
        hint: 'What it stands at at the end of the period',
        total: false,
        cells: figures.map((f) => money.text(f[part].stands)),
      },
      {
        key: `${part} days`,
        name: NAMES[part].days,
        hint: `${NAMES[part].stands.toLowerCase()} ÷ ${NAMES[part].of} of the ${span} × its days`,
        total: false,
        cells: figures.map((f) => daysText(f[part].days)),
      },
    ]),
    {
      key: 'bound',
      name: 'Money bound',
      hint: 'receivables + inventory − payables',
      total: true,
      cells: figures.map((f) => money.text(bound(f))),
    },
    {
      key: 'conversion',
      name: 'Cash conversion',
      hint: 'receivable days + inventory days − payable days',
      total: false,
      cells: figures.map((f) => daysText(conversionDays(f))),
    },
  ];
  return (
    <div className={stage.work}>
      <div className={stage.left} style={{ overflow: 'auto' }}>
        <div className={stage.tools}>
          <SegmentedControl
            size="xs"
            aria-label="Flows that the days are of"
            value={span}
            onChange={(v) => setSpan(v as Span)}
            data={[
              { value: 'month', label: 'Of the month' },
              { value: 'quarter', label: 'Of three months' },
              { value: 'year', label: 'Of the year' },
            ]}
          />
        </div>
        <Picture
          label="Working capital in days by period"
          draw={draw}
          height={250}
          fileName="Working capital"
          keys={PERIOD_KEYS}
          table={{
            head: ['Period', ...CAPITAL_PARTS.map((part) => NAMES[part].days)],
            rows: periods.map((p, i) => [
              p.label,
              ...CAPITAL_PARTS.map((part) => daysText(figures[i]![part].days)),
            ]),
          }}
        />
        <div style={{ marginTop: 10 }}>
          <RatioTable label="Working capital by period" head="At the end of" periods={periods}>
            {rows.map((row) => (
              <tr key={row.key} data-total={row.total || undefined}>
                <td title={row.hint}>{row.name}</td>
                {row.cells.map((text, i) => (
                  <td key={periods[i]!.index} data-ahead={periods[i]!.index > start || undefined}>
                    {text || '·'}
                  </td>
                ))}
              </tr>
            ))}
          </RatioTable>
        </div>
      </div>
      <aside tabIndex={0} className={stage.panel} aria-label="Days applied ahead">
        <Applied ground={ground} ahead={ahead} last={Math.min(last, ahead.last)} />
      </aside>
    </div>
  );
}

/** The terms that coming months follow, by how much money goes that way: where the days ahead come from. */
function Applied({
  ground,
  ahead,
  last,
}: {
  readonly ground: Ground;
  readonly ahead: Ahead;
  readonly last: PeriodIndex;
}) {
  const { book } = ground;
  const router = useRouter();
  const money = moneyFormat(book);
  const [all, setAll] = useState(false);
  const { view, start } = ahead;
  const lines = useMemo(
    () =>
      [...view.lines]
        .flatMap(([key, { budget, line }]) => {
          const parts = line.terms.parts.filter((p) => IN_DAYS.has(p.rule.kind));
          if (parts.length === 0) return [];
          let amount = 0;
          for (let i = 0; i < Math.min(line.amounts.length, Math.max(0, last - start)); i++)
            amount += line.amounts[i] ?? 0;
          const guessed = view.termsOf(line.account, line.segment).guess !== null;
          return amount === 0 ? [] : [{ key, budget, line, parts, amount: minor(amount), guessed }];
        })
        .toSorted((a, b) => Math.abs(b.amount) - Math.abs(a.amount)),
    [view, start, last],
  );
  return (
    <>
      <h2>Days applied ahead</h2>
      <p className="faded" style={{ fontSize: 12.5 }}>
        Coming months are invoiced, stocked and paid by these terms; the days above are what they lead to.
      </p>
      {lines.length === 0 && (
        <p className="faded">
          No line of the months ahead is paid on account, kept open for days, or sold from stock.
        </p>
      )}
      {lines.slice(0, all ? lines.length : SHOWN).map(({ key, budget, line, parts, amount, guessed }) => {
        const axis = book.axes.find((a) => a.id === budget.axis);
        return (
          <div key={key} className={classes.cause}>
            <b>
              {[line.account.code, line.account.name].filter(Boolean).join(' ')}
              {axis ? ` · ${segmentName(axis, line.segment)}` : ''}
            </b>
            <span>{money.text(amount)}</span>
            <small>
              {parts
                .map((p) => `${p.percent === '100' ? '' : `${p.percent}%: `}${termsWords(p.rule)}`)
                .join('; ')}
              {guessed ? ' (proposed)' : ''}
            </small>
          </div>
        );
      })}
      {lines.length > SHOWN && !all && (
        <Button mt={8} onClick={() => setAll(true)}>
          {lines.length - SHOWN} more
        </Button>
      )}
      <Button
        mt={10}
        onClick={() => {
          setSession({ cashPage: 'terms' });
          router.push('/cash');
        }}
      >
        Change the terms
      </Button>
    </>
  );
}
