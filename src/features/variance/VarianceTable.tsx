'use client';

import { memo, type KeyboardEvent } from 'react';
import type { Minor } from '@/core/money';
import type { ReportCell, ReportColumn, ReportRow, ReportTable, VarianceBlock } from '@/core/report';
import { percentText, type MoneyFormat } from '@/store/format';
import type { Figure } from './VariancePanel';
import classes from './Variance.module.css';

/** A run of columns under one head; the first of them has a picture of its differences. */
type Block = {
  readonly key: string;
  readonly head: string;
  readonly pictured: boolean;
  readonly columns: readonly { readonly column: ReportColumn; readonly place: number }[];
};

function blocksOf(columns: readonly ReportColumn[]): Block[] {
  const out: { key: string; head: string; pictured: boolean; columns: Block['columns'][number][] }[] = [];
  columns.forEach((column, place) => {
    const key = column.block ?? '';
    const last = out.at(-1);
    if (last?.key === key) last.columns.push({ column, place });
    else out.push({ key, head: column.group, pictured: out.length === 0, columns: [{ column, place }] });
  });
  return out;
}

/** The variance report as a table, drawn from its own columns. A figure opens what it is made of. */
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
  const blocks = blocksOf(table.columns);
  const first = blocks[0]!;
  const pictured = first.columns.find(({ column }) => column.formula?.op === 'minus')!.place;
  const largest = Math.max(
    1,
    ...table.rows
      .filter((r) => r.kind === 'line')
      .map((r) => Math.abs((r.cells[pictured] as number | null) ?? 0)),
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
            {blocks.map((b, i) => {
              const span = b.columns.length + Number(b.pictured);
              return b.head ? (
                <th key={b.key} colSpan={span} scope="colgroup" className={i > 0 ? classes.start : undefined}>
                  {b.head}
                </th>
              ) : (
                <td key={b.key} colSpan={span} />
              );
            })}
          </tr>
          <tr>
            <th scope="col" className={classes.name}>
              Line
            </th>
            {blocks.map((b, i) => [
              ...b.columns.map(({ column }, k) => (
                <th
                  key={column.key}
                  scope="col"
                  className={i > 0 && k === 0 && b.head ? classes.start : undefined}
                >
                  {column.label}
                </th>
              )),
              b.pictured && <th key="picture" scope="col" aria-label="Picture of the difference" />,
            ])}
          </tr>
        </thead>
        <tbody>
          {table.rows.map((row) => (
            <Row
              key={row.key}
              row={row}
              columns={table.columns}
              money={money}
              largest={largest}
              pictured={pictured}
              chosen={figure?.account === row.account && row.account !== null ? figure!.span : null}
              onFigure={onFigure}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
}

const TONES: Partial<Record<ReportColumn['of'], string>> = { plan: classes.plan, outlook: classes.outlook };

const Row = memo(function Row({
  row,
  columns,
  money,
  largest,
  pictured,
  chosen,
  onFigure,
}: {
  readonly row: ReportRow;
  readonly columns: readonly ReportColumn[];
  readonly money: MoneyFormat;
  readonly largest: number;
  readonly pictured: number;
  readonly chosen: Figure['span'] | null;
  readonly onFigure: (figure: Figure) => void;
}) {
  if (row.kind === 'section')
    return (
      <tr data-kind="section">
        <th scope="row" colSpan={columns.length + 2}>
          {row.label}
        </th>
      </tr>
    );
  const senseOf = (place: number) =>
    row.cells[columns.findIndex((c) => c.kind === 'sense' && c.block === columns[place]!.block)] as Sense;
  const cell = (column: ReportColumn, place: number) => {
    const value = row.cells[place] ?? null;
    const start =
      place > 0 && column.block && column.block !== columns[place - 1]!.block ? classes.start : '';
    switch (column.kind) {
      case 'money': {
        const amount = value as Minor | null;
        const exact = amount === null ? undefined : money.exact(amount);
        if (column.of === 'actual' && row.account !== null)
          return (
            <td key={column.key} className={start} data-negative={(amount ?? 0) < 0 || undefined}>
              <button
                type="button"
                data-figure={column.key}
                className={classes.figure}
                title={exact}
                aria-label={`${row.label}, actual ${exact ?? 'nothing'}: show entries`}
                onClick={() => onFigure({ account: row.account!, span: column.block as VarianceBlock })}
              >
                {money.text(amount) || '·'}
              </button>
            </td>
          );
        return (
          <td
            key={column.key}
            className={`${TONES[column.of] ?? ''} ${start}`}
            data-negative={(amount ?? 0) < 0 || undefined}
            title={exact}
          >
            {money.text(amount)}
          </td>
        );
      }
      case 'perMille':
        return (
          <td key={column.key} className={classes.percent}>
            {percentText(value as number | null)}
          </td>
        );
      case 'sense':
        return <SenseCell key={column.key} sense={value as Sense} />;
      case 'text':
        return <NoteCell key={column.key} row={row} note={value} onFigure={onFigure} />;
    }
  };
  const cells = columns.map(cell);
  const afterFirst = columns.findIndex((c) => c.block !== columns[0]!.block);
  cells.splice(
    afterFirst < 0 ? cells.length : afterFirst,
    0,
    <td key="picture" className={classes.bar}>
      {row.kind === 'line' && (
        <Bar
          value={(row.cells[pictured] as number | null) ?? 0}
          largest={largest}
          sense={senseOf(pictured)}
        />
      )}
    </td>,
  );
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
      {cells}
    </tr>
  );
});

type Sense = 'F' | 'U' | null;

function NoteCell({
  row,
  note,
  onFigure,
}: {
  readonly row: ReportRow;
  readonly note: ReportCell;
  readonly onFigure: (figure: Figure) => void;
}) {
  return (
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
  );
}

function SenseCell({ sense }: { readonly sense: Sense }) {
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
  readonly sense: Sense;
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
