'use client';

import {
  memo,
  useContext,
  useId,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent,
  type ReactNode,
} from 'react';
import type { Minor } from '@/core/money';
import { moved, type Bounds, type Place } from '@/core/sheet';
import type { ReportCell, ReportColumn, ReportRow, ReportTable } from '@/core/report';
import { UnitContext } from '../unit';
import { NAME } from '../sheet/geometry';
import { moveOf } from '../sheet/moveOf';
import { useSight } from '../sheet/useSight';
import { columnStarts, GAP, type FigureText } from './geometry';
import { Sense } from './Sense';
import classes from './ReportGrid.module.css';

export type ReportGridProps = {
  readonly label: string;
  readonly table: ReportTable;
  readonly text: FigureText;
  readonly exact: FigureText;
  readonly percent: (perMille: number) => string;
  /** The row and column that the hand is on, by their keys; the name where the column is null. */
  readonly at: { readonly row: string; readonly column: string | null } | null;
  readonly onAt: (row: ReportRow, column: ReportColumn | null) => void;
  /** Enter on a figure or name. */
  readonly onOpen: (row: ReportRow, column: ReportColumn | null) => void;
  /** What stands in the head of the names, of a column, and at the end of a row's name. */
  readonly corner: ReactNode;
  readonly head: (column: ReportColumn, id: string) => ReactNode;
  /** Another one when columns have come, gone or moved: what was opened in a head closes then, and stays open else. */
  readonly headVersion: number;
  readonly rowEnd?: (row: ReportRow) => ReactNode;
  /** A key that the grid itself knows nothing of; true when it was taken. */
  readonly onKey?: (e: KeyboardEvent) => boolean;
};

const HEAD_HEIGHT = 46;
const isEnterable = (row: ReportRow | undefined): boolean =>
  row !== undefined && row.kind !== 'section' && row.kind !== 'blank';

/**
 * A report as a grid: drawn only where it is seen, moved over by keyboard and mouse. Its heads are part of it: above the
 * first row stand the columns' own, where what they show is changed.
 */
export function ReportGrid(props: ReportGridProps) {
  const { table, text, at } = props;
  const { rows, columns } = table;
  const id = useId();
  const unit = useContext(UnitContext);
  const scroller = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  const [onHead, setOnHead] = useState(false);
  useLayoutEffect(() => {
    const box = scroller.current!;
    const look = new ResizeObserver(() => setWidth(box.clientWidth));
    look.observe(box);
    return () => look.disconnect();
  }, []);
  const starts = useMemo(() => columnStarts(table, text, width), [table, text, width]);
  const row = Math.max(
    rows.findIndex((r) => r.key === at?.row),
    rows.findIndex(isEnterable),
  );
  const column = at?.column == null ? -1 : columns.findIndex((c) => c.key === at.column);
  const cursor = useMemo<Place>(() => ({ row, column }), [row, column]);
  const { virtual, shift, setShift, from, to } = useSight(
    scroller,
    rows as readonly object[],
    false,
    starts,
    cursor,
    HEAD_HEIGHT,
  );
  // Names are the column before the first.
  const bounds: Bounds = {
    rows: rows.length,
    columns: columns.length + 1,
    enterable: (r) => isEnterable(rows[r]),
  };
  const largest = useMemo(() => largestOf(table), [table]);
  const go = (place: Place) => {
    const target = rows[place.row];
    if (target) props.onAt(target, columns[place.column] ?? null);
  };
  const headId = (c: number) => `${id}-h${c}`;
  const openHead = () => document.getElementById(headId(column))?.click();

  const onKeyDown = (e: KeyboardEvent) => {
    if (e.target !== e.currentTarget || e.altKey) return;
    if (props.onKey?.(e)) return e.preventDefault();
    const ctrl = e.ctrlKey || e.metaKey;
    const move = moveOf(e);
    if (move && !(ctrl && e.key.startsWith('Arrow'))) {
      e.preventDefault();
      if (!at) return go({ row, column: 0 });
      if (onHead && move !== 'left' && move !== 'right') {
        if (move !== 'up') setOnHead(false);
        return;
      }
      const now = { row, column: column + 1 };
      const next = moved(now, move, bounds);
      if (move === 'up' && next.row === row) return setOnHead(true);
      return go({ row: next.row, column: next.column - 1 });
    }
    if (e.key === 'Enter') {
      e.preventDefault();
      if (onHead) return openHead();
      const target = rows[row];
      if (target) props.onOpen(target, columns[column] ?? null);
    }
  };
  const onPointerDown = (e: PointerEvent) => {
    const cell = (e.target as HTMLElement).closest<HTMLElement>('[data-row]');
    if (!cell || e.button !== 0 || (e.target as HTMLElement).closest('button')) return;
    setOnHead(false);
    const place = { row: Number(cell.dataset.row), column: Number(cell.dataset.column) };
    if (isEnterable(rows[place.row])) go(place);
  };
  const items = virtual.getVirtualItems();
  const total = starts.at(-1)!;
  const groups = useMemo(() => groupsOf(columns, starts), [columns, starts]);
  const inSight = (c: number) => c >= from && c < to;
  return (
    <div
      ref={scroller}
      className={classes.grid}
      role="grid"
      tabIndex={0}
      aria-label={props.label}
      aria-rowcount={rows.length + 2}
      aria-colcount={columns.length + 1}
      aria-readonly
      aria-activedescendant={onHead ? headId(column) : at ? `${id}-active` : undefined}
      onScroll={(e) => setShift(e.currentTarget.scrollLeft)}
      onKeyDown={onKeyDown}
      onPointerDown={onPointerDown}
      onDoubleClick={(e) => {
        if ((e.target as HTMLElement).closest('[data-row]') && rows[row])
          props.onOpen(rows[row], columns[column] ?? null);
      }}
    >
      <div className={classes.heads} style={{ width: total, minWidth: '100%' }} role="rowgroup">
        <div role="row" aria-rowindex={1} className={classes.groupRow}>
          <div
            role="columnheader"
            aria-label={unit ? `Rows, ${unit}` : 'Rows'}
            className={classes.corner}
            style={{ width: NAME }}
          >
            {unit}
          </div>
          {groups
            .filter((g) => g.to > from && g.from < to)
            .map((g) => (
              <div
                key={g.from}
                role="columnheader"
                aria-colspan={g.to - g.from}
                aria-colindex={g.from + 2}
                className={classes.group}
                style={{ left: g.left, width: g.width }}
              >
                <span>{g.label}</span>
              </div>
            ))}
        </div>
        <div role="row" aria-rowindex={2} className={classes.headRow}>
          <div
            role="columnheader"
            id={headId(-1)}
            className={classes.cornerHead}
            style={{ width: NAME }}
            data-active={(onHead && column < 0) || undefined}
          >
            {props.corner}
          </div>
          {columns.map((c, i) =>
            inSight(i) ? (
              <div
                key={`${props.headVersion} ${i}`}
                role="columnheader"
                aria-colindex={i + 2}
                className={classes.head}
                data-kind={c.kind}
                data-active={(onHead && i === column) || undefined}
                style={placeOf(starts, columns, i)}
                title={c.hint}
              >
                {props.head(c, headId(i))}
              </div>
            ) : null,
          )}
        </div>
      </div>
      <div
        role="rowgroup"
        className={classes.body}
        style={{ height: virtual.getTotalSize(), width: total, minWidth: '100%' }}
      >
        {shift > 0 && (
          // Names that each stay in place would each be a layer to the browser; so they stand here once more.
          <div className={classes.names} style={{ width: NAME }} aria-hidden>
            {items.map(({ index, start }) => (
              <div
                key={rows[index]!.key}
                className={classes.nameAgain}
                data-kind={rows[index]!.kind}
                data-current={(at !== null && index === row) || undefined}
                style={{ top: start }}
              >
                <span className={classes.label}>{rows[index]!.label}</span>
              </div>
            ))}
          </div>
        )}
        {items.map(({ index, start }) => (
          <Row
            key={rows[index]!.key}
            id={id}
            row={rows[index]!}
            index={index}
            top={start}
            columns={columns}
            starts={starts}
            from={from}
            to={to}
            active={at !== null && index === row && !onHead ? column : -2}
            current={at !== null && index === row}
            largest={largest}
            text={text}
            exact={props.exact}
            percent={props.percent}
            end={props.rowEnd?.(rows[index]!) ?? null}
          />
        ))}
      </div>
    </div>
  );
}

const placeOf = (starts: readonly number[], columns: readonly ReportColumn[], i: number) => {
  const gap = i > 0 && columns[i]!.block !== columns[i - 1]!.block ? GAP : 0;
  return { left: starts[i]! + gap, width: starts[i + 1]! - starts[i]! - gap };
};

/** Runs of columns under one head. */
function groupsOf(columns: readonly ReportColumn[], starts: readonly number[]) {
  const out: { label: string; from: number; to: number; left: number; width: number }[] = [];
  columns.forEach((c, i) => {
    const last = out.at(-1);
    const { left, width } = placeOf(starts, columns, i);
    if (last && c.block === columns[i - 1]!.block) {
      last.to = i + 1;
      last.width = left + width - last.left;
    } else out.push({ label: c.group, from: i, to: i + 1, left, width });
  });
  return out.filter((g) => g.label !== '');
}

/** The largest difference of each column of bars, of lines alone. */
function largestOf({ columns, rows }: ReportTable): readonly number[] {
  return columns.map((c, i) =>
    c.kind !== 'bar'
      ? 0
      : rows.reduce(
          (most, r) => (r.kind === 'line' ? Math.max(most, Math.abs(Number(r.cells[i] ?? 0))) : most),
          1,
        ),
  );
}

type RowProps = {
  readonly id: string;
  readonly row: ReportRow;
  readonly index: number;
  readonly top: number;
  readonly columns: readonly ReportColumn[];
  readonly starts: readonly number[];
  readonly from: number;
  readonly to: number;
  /** The column of the active cell, −1 for the name, −2 for none. */
  readonly active: number;
  readonly current: boolean;
  readonly largest: readonly number[];
  readonly text: FigureText;
  readonly exact: FigureText;
  readonly percent: (perMille: number) => string;
  readonly end: ReactNode;
};

const TONES: Partial<Record<ReportColumn['of'], string>> = {
  plan: classes.plan,
  outlook: classes.outlook,
  prior: classes.prior,
};

const Row = memo(function Row(props: RowProps) {
  const { id, row, index, top, columns, starts, from, to, active, current } = props;
  const cells = row.cells;
  return (
    <div
      role="row"
      aria-rowindex={index + 3}
      className={classes.row}
      data-kind={row.kind}
      data-result={row.kind === 'result' ? row.key : undefined}
      data-current={current || undefined}
      data-flagged={row.flagged || undefined}
      style={{ top, width: starts.at(-1)!, minWidth: '100%' }}
    >
      <div
        role="rowheader"
        id={active === -1 ? `${id}-active` : undefined}
        className={active === -1 ? `${classes.name} ${classes.active}` : classes.name}
        style={{ width: NAME }}
        data-row={index}
        data-column={-1}
        title={row.label}
      >
        {row.flagged && <span className={classes.flag} role="img" aria-label="flagged" />}
        <span className={classes.label}>{row.label}</span>
        {props.end}
      </div>
      {row.kind !== 'section' &&
        row.kind !== 'blank' &&
        columns.slice(from, to).map((c, i) => {
          const at = from + i;
          return (
            <div
              key={c.key}
              id={active === at ? `${id}-active` : undefined}
              role="gridcell"
              aria-colindex={at + 2}
              className={`${classes.cell} ${TONES[c.of] ?? ''} ${active === at ? classes.active : ''}`}
              style={placeOf(starts, columns, at)}
              data-kind={c.kind}
              data-row={index}
              data-column={at}
              data-negative={(c.kind === 'money' && Number(cells[at] ?? 0) < 0) || undefined}
              title={c.kind === 'money' ? props.exact((cells[at] ?? null) as Minor | null, row) : undefined}
            >
              <Figure {...props} column={c} place={at} value={cells[at] ?? null} />
            </div>
          );
        })}
    </div>
  );
});

function Figure({
  column,
  place,
  value,
  row,
  text,
  percent,
  largest,
}: Pick<RowProps, 'row' | 'text' | 'percent' | 'largest'> & {
  readonly column: ReportColumn;
  readonly place: number;
  readonly value: ReportCell;
}) {
  switch (column.kind) {
    case 'money':
      return text(value as Minor | null, row);
    case 'perMille':
      return value === null ? null : percent(Number(value));
    case 'sense':
      return value ? <Sense sense={value as 'F' | 'U'} /> : null;
    case 'bar':
      return value === null || row.kind !== 'line' ? null : (
        <Bar value={Number(value)} largest={largest[place]!} effect={row.effect ?? 0} />
      );
    case 'text':
      return <span className={classes.words}>{value as string}</span>;
  }
}

/** A bar left or right of the middle, as long as the difference is large beside the largest one. */
function Bar({
  value,
  largest,
  effect,
}: {
  readonly value: number;
  readonly largest: number;
  readonly effect: 1 | 0 | -1;
}) {
  const half = 19;
  const length = Math.max(value === 0 ? 0 : 1, (Math.abs(value) / largest) * half);
  const help = value * effect;
  return (
    <svg width={half * 2} height={13} aria-hidden className={classes.bar}>
      <line x1={half} x2={half} y1={0} y2={13} className={classes.axis} />
      <rect
        x={value < 0 ? half - length : half}
        y={3}
        width={length}
        height={7}
        data-sense={help > 0 ? 'F' : help < 0 ? 'U' : undefined}
        className={classes.barMark}
      />
    </svg>
  );
}
