'use client';

import { memo, type KeyboardEvent } from 'react';
import type { Minor } from '@/core/money';
import { cellOf, type ReportRow, type ReportTable, type VarianceKey } from '@/core/report';
import { percentText, type MoneyFormat } from '@/store/format';
import type { Figure } from './VariancePanel';
import classes from './Variance.module.css';

/** The variance report as a table: month, year to date, full year. A figure opens what it is made of. */
export function VarianceTable({
  table,
  money,
  figure,
  onFigure,
}: {
  readonly table: ReportTable;
  readonly money: MoneyFormat;
  readonly figure: Figure | null;
  readonly onFigure: (figure: Figure) => void;
}) {
  const month = table.columns[0]!.group;
  const largest = Math.max(
    1,
    ...table.rows
      .filter((r) => r.kind === 'line')
      .map((r) => Math.abs((cellOf(r, 'monthDiff') as number | null) ?? 0)),
  );
  const onKeyDown = (e: KeyboardEvent<HTMLTableElement>) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[e.key];
    if (!step || !(e.target instanceof HTMLButtonElement)) return;
    // Up and down lead to the same figure of the neighboring line.
    const name = e.target.dataset.figure;
    const all = [...e.currentTarget.querySelectorAll<HTMLButtonElement>(`button[data-figure="${name}"]`)];
    const next = all[all.indexOf(e.target) + step];
    if (!next) return;
    e.preventDefault();
    next.focus();
    next.click();
  };
  return (
    <div className={classes.scroll} tabIndex={0} role="region" aria-label="Variance report">
      <table className={classes.table} onKeyDown={onKeyDown}>
        <thead>
          <tr>
            <td />
            <th colSpan={6} scope="colgroup">
              {month}
            </th>
            <th colSpan={5} scope="colgroup" className={classes.start}>
              Year to date
            </th>
            <th colSpan={4} scope="colgroup" className={classes.start}>
              Full year
            </th>
            <td />
          </tr>
          <tr>
            <th scope="col" className={classes.name}>
              Line
            </th>
            {['Actual', 'Budget', 'Diff.', '%', 'F/U'].map((h) => (
              <th key={h} scope="col">
                {h}
              </th>
            ))}
            <th scope="col" aria-label="Picture of the difference" />
            {['Actual', 'Budget', 'Diff.', '%', 'F/U'].map((h, i) => (
              <th key={h} scope="col" className={i === 0 ? classes.start : undefined}>
                {h}
              </th>
            ))}
            {['Budget', 'Outlook', 'Diff.', 'F/U'].map((h, i) => (
              <th key={h} scope="col" className={i === 0 ? classes.start : undefined}>
                {h}
              </th>
            ))}
            <th scope="col">Note</th>
          </tr>
        </thead>
        <tbody>
          {table.rows.map((row) => (
            <Row
              key={row.key}
              row={row}
              money={money}
              largest={largest}
              chosen={figure?.account === row.account && row.account !== null ? figure!.span : null}
              onFigure={onFigure}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
}

const Row = memo(function Row({
  row,
  money,
  largest,
  chosen,
  onFigure,
}: {
  readonly row: ReportRow;
  readonly money: MoneyFormat;
  readonly largest: number;
  readonly chosen: Figure['span'] | null;
  readonly onFigure: (figure: Figure) => void;
}) {
  if (row.kind === 'section')
    return (
      <tr data-kind="section">
        <th scope="row" colSpan={17}>
          {row.label}
        </th>
      </tr>
    );
  const amount = (key: VarianceKey) => cellOf(row, key) as Minor | null;
  const exact = (key: VarianceKey) => (amount(key) === null ? undefined : money.exact(amount(key)));
  const open = (key: VarianceKey, span: Figure['span']) =>
    row.account === null ? (
      money.text(amount(key))
    ) : (
      <button
        type="button"
        data-figure={key}
        className={classes.figure}
        title={exact(key)}
        aria-label={`${row.label}, actual ${money.exact(amount(key)) || 'nothing'}: show entries`}
        onClick={() => onFigure({ account: row.account!, span })}
      >
        {money.text(amount(key)) || '·'}
      </button>
    );
  const plain = (key: VarianceKey, tone?: string) => (
    <td className={tone} title={exact(key)}>
      {money.text(amount(key))}
    </td>
  );
  const note = cellOf(row, 'note');
  return (
    <tr
      data-kind={row.kind}
      data-result={row.kind === 'result' ? row.key : undefined}
      data-chosen={chosen ?? undefined}
    >
      <th scope="row" className={classes.name}>
        {row.account === null ? (
          row.label
        ) : (
          <button
            type="button"
            data-figure="name"
            className={classes.nameButton}
            aria-pressed={chosen !== null}
            onClick={() => onFigure({ account: row.account!, span: 'month' })}
          >
            {row.label}
          </button>
        )}
      </th>
      <td>{open('monthActual', 'month')}</td>
      {plain('monthBudget', classes.plan)}
      {plain('monthDiff')}
      <td className={classes.percent}>{percentText(cellOf(row, 'monthPercent') as number | null)}</td>
      <Sense sense={cellOf(row, 'monthSense') as 'F' | 'U' | null} />
      <td className={classes.bar}>
        {row.kind === 'line' && (
          <Bar
            value={amount('monthDiff') ?? 0}
            largest={largest}
            sense={cellOf(row, 'monthSense') as 'F' | 'U' | null}
          />
        )}
      </td>
      <td className={classes.start}>{open('ytdActual', 'ytd')}</td>
      {plain('ytdBudget', classes.plan)}
      {plain('ytdDiff')}
      <td className={classes.percent}>{percentText(cellOf(row, 'ytdPercent') as number | null)}</td>
      <Sense sense={cellOf(row, 'ytdSense') as 'F' | 'U' | null} />
      {plain('yearBudget', `${classes.plan} ${classes.start}`)}
      {plain('yearOutlook', classes.outlook)}
      {plain('yearDiff')}
      <Sense sense={cellOf(row, 'yearSense') as 'F' | 'U' | null} />
      <td className={classes.note}>
        {note !== '' && note !== null ? (
          <span className={classes.dot} role="img" aria-label={String(note)} title={String(note)} />
        ) : (
          row.flagged && (
            <button
              type="button"
              data-figure="explain"
              className={classes.explain}
              onClick={() => onFigure({ account: row.account!, span: 'month' })}
            >
              explain
            </button>
          )
        )}
      </td>
    </tr>
  );
});

function Sense({ sense }: { readonly sense: 'F' | 'U' | null }) {
  return (
    <td className={classes.sense}>
      {sense && (
        <abbr data-sense={sense} title={sense === 'F' ? 'favorable' : 'unfavorable'}>
          {sense}
        </abbr>
      )}
    </td>
  );
}

/** A bar left or right of the middle, as long as the difference is large beside the largest one. */
function Bar({
  value,
  largest,
  sense,
}: {
  readonly value: number;
  readonly largest: number;
  readonly sense: 'F' | 'U' | null;
}) {
  const half = 19;
  const length = Math.max(value === 0 ? 0 : 1, (Math.abs(value) / largest) * half);
  return (
    <svg width={half * 2} height={13} aria-hidden>
      <line x1={half} x2={half} y1={0} y2={13} className={classes.axis} />
      <rect
        x={value < 0 ? half - length : half}
        y={3}
        width={length}
        height={7}
        data-sense={sense ?? undefined}
        className={classes.barMark}
      />
    </svg>
  );
}
