import { memo, type ReactNode } from 'react';
import type { Minor } from '@/core/money';
import { Spark } from '../Spark';
import { sameList, sameRow, type LeadColumn, type SheetColumn, type SheetRow } from './types';
import classes from './Sheet.module.css';

export type CellFormat = (value: Minor | null, column: SheetColumn) => string;

export type SheetRowProps = {
  readonly id: string;
  readonly index: number;
  readonly row: SheetRow;
  readonly columns: readonly SheetColumn[];
  readonly lead: readonly LeadColumn[];
  readonly top: number;
  readonly format: CellFormat;
  readonly exact: CellFormat;
  /** Selected columns of this row, −1 and −2 for none; the active column, −1 when it is elsewhere. */
  readonly left: number;
  readonly right: number;
  readonly active: number;
  /** Whether the line is the one under the cursor. */
  readonly current: boolean;
  /** The quiet row beneath the line, by column; null for none. */
  readonly ghost: { readonly label: string; readonly values: readonly (Minor | null)[] } | null;
  /** The column at whose corner the handle to fill from stands; −1 for none. */
  readonly handle: number;
  readonly onFold: (key: string) => void;
  readonly editor: ReactNode;
};

const cellTitle = (...parts: (string | undefined)[]): string | undefined =>
  parts.filter(Boolean).join(' — ') || undefined;

/** What names a row: its code and label, with a button to fold it and marks of what it holds. */
export function RowName({ row, onFold }: { readonly row: SheetRow; readonly onFold: (key: string) => void }) {
  return (
    <>
      {row.folded !== undefined && (
        <button
          type="button"
          className={classes.fold}
          aria-expanded={!row.folded}
          aria-label={`${row.folded ? 'Unfold' : 'Fold'} ${row.label}`}
          tabIndex={-1}
          onClick={() => onFold(row.key)}
        >
          {row.folded ? '▸' : '▾'}
        </button>
      )}
      {row.code && <span className={classes.code}>{row.code}</span>}
      <span className={classes.label}>{row.label}</span>
      {row.aside && <span className={classes.aside}>{row.aside}</span>}
      {row.looked && (
        <span className={classes.looked} title="Looked at" role="img" aria-label="looked at">
          ✓
        </span>
      )}
      {row.hasNote && (
        <span className={classes.noteMark} title="Has a note" role="img" aria-label="has a note" />
      )}
    </>
  );
}

/** One row of the sheet, drawn again only when something in it changes. */
export const SheetRowView = memo(
  function SheetRowView({
    id,
    index,
    row,
    columns,
    lead,
    top,
    format,
    exact,
    left,
    right,
    active,
    current,
    ghost,
    handle,
    onFold,
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
        style={{ top }}
      >
        <div role="rowheader" className={classes.name} title={row.label}>
          <RowName row={row} onFold={onFold} />
        </div>
        {lead.map(({ key }) => (
          <div key={key} role="gridcell" className={classes.method}>
            {key === 'picture' && row.picture && <Spark values={row.picture} />}
            {key === 'keeper' && <span className={classes.keeper}>{row.keeper}</span>}
            {key === 'badge' && row.badge && (
              <span className={classes.badge} data-tone={row.badgeTone} title={row.badge}>
                {row.badge}
              </span>
            )}
          </div>
        ))}
        {columns.map((column, c) => {
          const value = row.values[c] ?? null;
          const selected = c >= left && c <= right;
          return (
            <div
              key={column.key}
              id={active === c ? `${id}-active` : undefined}
              role="gridcell"
              aria-colindex={c + lead.length + 2}
              aria-selected={row.enterable ? selected : undefined}
              data-row={index}
              data-column={c}
              data-kind={column.kind}
              data-selected={selected || undefined}
              data-typed={row.typed[c] || undefined}
              data-odd={row.odd?.[c] ? true : undefined}
              data-noted={row.noted?.[c] ? true : undefined}
              className={active === c ? `${classes.cell} ${classes.active}` : classes.cell}
              title={cellTitle(value === null ? '' : exact(value, column), row.odd?.[c], row.noted?.[c])}
            >
              {active === c && editor ? editor : row.kind === 'section' ? null : format(value, column)}
              {handle === c && <span className={classes.handle} data-handle />}
            </div>
          );
        })}
        {ghost && (
          <div className={classes.ghost} aria-hidden>
            <div className={classes.ghostLabel} style={{ gridColumn: `1 / ${lead.length + 2}` }}>
              {ghost.label}
            </div>
            {columns.map((column, c) => (
              <div key={column.key} className={classes.ghostCell}>
                {column.kind === 'info' ? '' : format(ghost.values[c] ?? null, column)}
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
    a.ghost?.label === b.ghost?.label &&
    sameList(a.ghost?.values ?? [], b.ghost?.values ?? []) &&
    a.handle === b.handle &&
    a.lead === b.lead &&
    a.editor === b.editor &&
    a.columns === b.columns &&
    a.format === b.format &&
    a.exact === b.exact &&
    a.id === b.id,
);
