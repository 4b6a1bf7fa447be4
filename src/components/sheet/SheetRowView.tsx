import { memo, type ReactNode } from 'react';
import type { Minor } from '@/core/money';
import { Spark } from '../Spark';
import { TriedMark } from '../TriedMark';
import { sameList, sameRow, type LeadColumn, type SheetColumn, type SheetRow } from './types';
import classes from './Sheet.module.css';

export type CellFormat = (value: Minor | null, column: SheetColumn) => string;

export type SheetRowProps = {
  readonly id: string;
  /** Which of the sheet's row elements it is drawn in. */
  readonly slot: number;
  readonly index: number;
  readonly row: SheetRow;
  readonly columns: readonly SheetColumn[];
  /** The columns that are drawn: from this one to before that one. */
  readonly from: number;
  readonly to: number;
  readonly lead: readonly LeadColumn[];
  readonly top: number;
  readonly format: CellFormat;
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

/** What is to be said of a value beside its figure: why it stands out, and what was noted of it. */
export const cellWords = (row: SheetRow, column: number): string =>
  [row.odd?.[column], row.noted?.[column]].filter(Boolean).join(' — ');

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
      {row.tried && <TriedMark className={classes.tried} words={row.tried} />}
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
    slot,
    index,
    row,
    columns,
    from,
    to,
    lead,
    top,
    format,
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
        id={`${id}-r${slot}`}
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
        {columns.slice(from, to).map((column, i) => {
          const c = from + i;
          const value = row.values[c] ?? null;
          const selected = c >= left && c <= right;
          return (
            <div
              key={column.key}
              id={active === c ? `${id}-active` : undefined}
              role="gridcell"
              aria-colindex={from > 0 || to < columns.length ? lead.length + 2 + c : undefined}
              style={i === 0 && from > 0 ? { gridColumnStart: lead.length + 2 + c } : undefined}
              aria-selected={row.enterable ? selected : undefined}
              data-row={index}
              data-column={c}
              data-kind={column.kind}
              data-selected={selected || undefined}
              data-typed={row.typed[c] || undefined}
              data-odd={row.odd?.[c] ? true : undefined}
              data-noted={row.noted?.[c] ? true : undefined}
              data-negative={(value ?? 0) < 0 || undefined}
              className={active === c ? `${classes.cell} ${classes.active}` : classes.cell}
              title={cellWords(row, c) || undefined}
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
            {columns.slice(from, to).map((column, i) => (
              <div
                key={column.key}
                className={classes.ghostCell}
                style={i === 0 && from > 0 ? { gridColumnStart: lead.length + 2 + from } : undefined}
              >
                {column.kind === 'info' ? '' : format(ghost.values[from + i] ?? null, column)}
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
    a.from === b.from &&
    a.to === b.to &&
    a.editor === b.editor &&
    a.columns === b.columns &&
    a.format === b.format &&
    a.id === b.id,
);
