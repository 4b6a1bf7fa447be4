import { memo, type ReactNode } from 'react';
import type { Minor } from '@/core/money';
import { Spark } from '../Spark';
import { sameRow, type SheetColumn, type SheetRow } from './types';
import classes from './Sheet.module.css';

export type CellFormat = (value: Minor | null, column: SheetColumn) => string;

export type SheetRowProps = {
  readonly id: string;
  readonly index: number;
  readonly row: SheetRow;
  readonly columns: readonly SheetColumn[];
  readonly withMethod: boolean;
  readonly top: number;
  readonly format: CellFormat;
  readonly exact: CellFormat;
  /** Selected columns of this row, −1 and −2 for none; the active column, −1 when it is elsewhere. */
  readonly left: number;
  readonly right: number;
  readonly active: number;
  /** Whether the line is the one under the cursor: it shows its ghost. */
  readonly current: boolean;
  readonly editor: ReactNode;
};

const cellTitle = (exact: string, odd: string | undefined): string | undefined =>
  [exact, odd].filter(Boolean).join(' — ') || undefined;

/** One row of the sheet, drawn again only when something in it changes. */
export const SheetRowView = memo(
  function SheetRowView({
    id,
    index,
    row,
    columns,
    withMethod,
    top,
    format,
    exact,
    left,
    right,
    active,
    current,
    editor,
  }: SheetRowProps) {
    return (
      <div
        role="row"
        aria-rowindex={index + 2}
        className={classes.row}
        data-kind={row.kind}
        data-result={row.kind === 'result' ? row.key : undefined}
        data-current={current || undefined}
        style={{ transform: `translateY(${top}px)` }}
      >
        <div role="rowheader" className={classes.name} title={row.label}>
          {row.code && <span className={classes.code}>{row.code}</span>}
          <span className={classes.label}>{row.label}</span>
          {row.hasNote && (
            <span className={classes.noteMark} title="Has a note" role="img" aria-label="has a note" />
          )}
        </div>
        {withMethod && (
          <div role="gridcell" className={classes.method}>
            {row.picture && <Spark values={row.picture} />}
            {row.badge && (
              <span className={classes.badge} data-tone={row.badgeTone}>
                {row.badge}
              </span>
            )}
          </div>
        )}
        {columns.map((column, c) => {
          const value = row.values[c] ?? null;
          const selected = c >= left && c <= right;
          return (
            <div
              key={column.key}
              id={active === c ? `${id}-active` : undefined}
              role="gridcell"
              aria-colindex={c + (withMethod ? 3 : 2)}
              aria-selected={row.enterable ? selected : undefined}
              data-row={index}
              data-column={c}
              data-kind={column.kind}
              data-selected={selected || undefined}
              data-active={active === c || undefined}
              data-typed={row.typed[c] || undefined}
              data-odd={row.odd?.[c] ? true : undefined}
              className={classes.cell}
              title={cellTitle(value === null ? '' : exact(value, column), row.odd?.[c])}
            >
              {active === c && editor ? editor : row.kind === 'section' ? null : format(value, column)}
            </div>
          );
        })}
        {current && row.ghost && (
          <div className={classes.ghost} aria-hidden>
            <div className={classes.ghostLabel}>{row.ghost.label}</div>
            {columns.map((column, c) => (
              <div key={column.key} className={classes.ghostCell}>
                {column.kind === 'info' ? '' : format(row.ghost!.values[c] ?? null, column)}
              </div>
            ))}
          </div>
        )}
      </div>
    );
  },
  (a, b) =>
    sameRow(a.row, b.row) &&
    a.index === b.index &&
    a.top === b.top &&
    a.left === b.left &&
    a.right === b.right &&
    a.active === b.active &&
    a.current === b.current &&
    a.editor === b.editor &&
    a.columns === b.columns &&
    a.format === b.format &&
    a.exact === b.exact &&
    a.id === b.id,
);
