'use client';

import {
  useCallback,
  useContext,
  useId,
  useMemo,
  useRef,
  useState,
  type ClipboardEvent,
  type KeyboardEvent,
  type PointerEvent,
} from 'react';
import {
  fromTsv,
  inRect,
  moved,
  rectOf,
  select,
  toTsv,
  type Bounds,
  type Move,
  type Place,
  type Rect,
  type Selection,
} from '@/core/sheet';
import type { Minor } from '@/core/money';
import { UnitContext } from '../unit';
import { CellEditor, type Leave } from './CellEditor';
import { moveOf } from './moveOf';
import { NAME, ROW, templateOf, widened, widthsFor } from './geometry';
import { cellWords, RowName, SheetRowView, type CellFormat } from './SheetRowView';
import type { LeadColumn, SheetColumn, SheetRow } from './types';
import { useSight } from './useSight';
import classes from './Sheet.module.css';

export type SheetProps = {
  readonly label: string;
  /** What the names of rows are; accounts unless said otherwise. */
  readonly nameHead?: string;
  readonly rows: readonly SheetRow[];
  readonly columns: readonly SheetColumn[];
  readonly selection: Selection;
  readonly onSelection: (selection: Selection) => void;
  readonly format: CellFormat;
  readonly exact: CellFormat;
  /** A cell's value as one types it: for changing it, and for copying. */
  readonly edit: (row: number, column: number) => string;
  readonly readOnly: boolean;
  /** Columns between the account and the figures; the same list while they stay. */
  readonly lead: readonly LeadColumn[];
  /** A quiet second row beneath the selected line, or beneath every line: its name, and its values by column. */
  readonly ghost?: {
    readonly beneath: 'selected' | 'all';
    readonly label: string;
    readonly values: (row: number) => readonly (Minor | null)[];
  } | null;
  /** Actuals are solid ink, plans ochre. */
  readonly tone: 'actual' | 'plan';
  /** Takes a typed text; what is wrong with it, or null. */
  readonly onType: (place: Place, text: string) => string | null;
  readonly onPaste: (rect: Rect, block: readonly (readonly string[])[]) => void;
  /** The handle of a range was dragged to a larger range; without it there is no handle. */
  readonly onDragFill?: (from: Rect, to: Rect) => void;
  readonly onFold?: (key: string) => void;
  /** A key that the sheet itself knows nothing of; true when it was taken. */
  readonly onKey?: (e: KeyboardEvent) => boolean;
  readonly onClear: (rect: Rect) => void;
  readonly onRestore: (rect: Rect) => void;
  /** Said when something is tried on a sheet that can only be read. */
  readonly onRefused: () => void;
};

const LEAVES: Record<Leave, Move | null> = {
  down: 'down',
  up: 'up',
  right: 'right',
  left: 'left',
  stay: null,
};

/**
 * A sheet of amounts: an ARIA grid drawn only where it is seen, moved over by keyboard and mouse, with typing,
 * filling, and blocks to and from the clipboard. It knows no book: what is done is told to its owner.
 */
export function SheetView(props: SheetProps) {
  const { rows, columns, selection, onSelection, readOnly, format, onFold } = props;
  const unit = useContext(UnitContext);
  const id = useId();
  const scroller = useRef<HTMLDivElement>(null);
  /** What is typed takes the place of what was there, rather than changing it. */
  const [fresh, setFresh] = useState(false);
  const [editing, setEditing] = useState<string | null>(null);
  const dragging = useRef(false);
  const titled = useRef<HTMLElement | null>(null);
  const active = selection.anchor;
  const rect = rectOf(selection);
  const { ghost } = props;
  const [fillTo, setFillTo] = useState<Place | null>(null);
  const shown = fillTo ? widened(rect, fillTo) : rect;
  const current = selection.focus.row;

  const bounds = useMemo<Bounds>(
    () => ({ rows: rows.length, columns: columns.length, enterable: (r) => rows[r]?.enterable ?? false }),
    [rows, columns.length],
  );
  // One quiet row, beneath the selected line, moves what follows it; nothing need be measured anew for that.
  const pushed = ghost?.beneath === 'selected' && rows[current]?.enterable ? ROW : 0;
  const widths = useMemo(() => widthsFor(rows, columns, format), [rows, columns, format]);
  const template = templateOf(props.lead, columns, widths);
  const { virtual, shift, setShift, from, to, slots } = useSight(
    scroller,
    rows,
    ghost?.beneath === 'all',
    template.starts,
    selection.focus,
  );
  const refused = (): boolean => {
    if (readOnly) props.onRefused();
    return readOnly;
  };
  const startEditing = (text: string, over = false) => {
    const column = columns[active.column];
    if (!column || column.kind === 'info' || !rows[active.row]?.enterable || refused()) return;
    onSelection({ anchor: active, focus: active });
    setFresh(over);
    setEditing(text);
  };
  const stopEditing = (leave: Leave) => {
    setEditing(null);
    const move = LEAVES[leave];
    if (move) {
      const to = moved(active, move, bounds);
      onSelection({ anchor: to, focus: to });
    }
    if (leave !== 'stay') scroller.current?.focus({ preventScroll: true });
  };

  const onKeyDown = (e: KeyboardEvent) => {
    const ctrl = e.ctrlKey || e.metaKey;
    if (props.onKey?.(e)) return e.preventDefault();
    if (e.altKey) return;
    const move = moveOf(e);
    if (move) {
      e.preventDefault();
      return onSelection(select(selection, move, bounds, e.shiftKey));
    }
    if (ctrl) {
      if (e.key.toLowerCase() === 'a') {
        e.preventDefault();
        onSelection({
          anchor: { row: moved(active, 'top', bounds).row, column: 0 },
          focus: { row: moved(active, 'bottom', bounds).row, column: columns.length - 1 },
        });
      }
      return;
    }
    switch (e.key) {
      case 'Tab':
        // Leaves the sheet at its edges, so that the keyboard is never caught in it.
        if (e.shiftKey ? active.column > 0 : active.column < columns.length - 1) {
          e.preventDefault();
          onSelection(
            select({ anchor: active, focus: active }, e.shiftKey ? 'left' : 'right', bounds, false),
          );
        }
        return;
      case 'Enter':
      case 'F2':
        e.preventDefault();
        return startEditing(props.edit(active.row, active.column));
      case 'Delete':
        return refused() ? undefined : props.onClear(rect);
      case 'Backspace':
        return refused() ? undefined : props.onRestore(rect);
      default:
        // Whatever is typed begins to be typed: tools have keys with Ctrl or Alt.
        if (/^[\p{L}\d.,(+\-−=*×/]$/u.test(e.key)) {
          e.preventDefault();
          startEditing(e.key, true);
        }
    }
  };

  const placeAt = (e: PointerEvent): Place | null => {
    const cell = document.elementFromPoint(e.clientX, e.clientY)?.closest<HTMLElement>('[data-row]');
    const place = cell ? { row: Number(cell.dataset.row), column: Number(cell.dataset.column) } : null;
    return place && rows[place.row]?.enterable ? place : null;
  };
  const onPointerDown = (e: PointerEvent) => {
    const place = placeAt(e);
    if (!place || e.button !== 0 || (e.target as HTMLElement).tagName === 'INPUT') return;
    // Whatever is being typed, here or in the panel, is kept before the selection moves on and its field goes.
    if (
      document.activeElement instanceof HTMLInputElement ||
      document.activeElement instanceof HTMLTextAreaElement
    )
      document.activeElement.blur();
    if ((e.target as HTMLElement).dataset.handle !== undefined) return setFillTo(place);
    dragging.current = true;
    onSelection(e.shiftKey ? { anchor: selection.anchor, focus: place } : { anchor: place, focus: place });
  };
  const onPointerMove = (e: PointerEvent) => {
    if (e.buttons === 0 || !(dragging.current || fillTo)) return;
    const place = placeAt(e);
    if (fillTo) {
      if (place) setFillTo(place);
      return;
    }
    if (place && (place.row !== selection.focus.row || place.column !== selection.focus.column))
      onSelection({ anchor: selection.anchor, focus: place });
  };

  const texts = () =>
    rows
      .slice(rect.top, rect.bottom + 1)
      .flatMap((r, i) =>
        r.enterable
          ? [columns.slice(rect.left, rect.right + 1).map((_, c) => props.edit(rect.top + i, rect.left + c))]
          : [],
      );
  const onCopy = (e: ClipboardEvent) => {
    if (editing !== null) return;
    e.preventDefault();
    e.clipboardData.setData('text/plain', toTsv(texts()));
    if (e.type === 'cut' && !refused()) props.onClear(rect);
  };
  const onPaste = (e: ClipboardEvent) => {
    if (editing !== null || refused()) return;
    e.preventDefault();
    props.onPaste(rect, fromTsv(e.clipboardData.getData('text/plain')));
  };

  /** Adds the exact amount to what is said of the cell under the pointer; made for that one only. */
  const showTitle = (cell: HTMLElement | null) => {
    if (cell === titled.current) return;
    for (const one of [titled.current, cell]) {
      const row = rows[Number(one?.dataset.row)];
      if (!one || !row) continue;
      const c = Number(one.dataset.column);
      const value = row.values[c] ?? null;
      const exact = one === cell && value !== null ? props.exact(value, columns[c]!) : '';
      const words = [exact, cellWords(row, c)].filter(Boolean).join(' — ');
      if (words) one.title = words;
      else one.removeAttribute('title');
    }
    titled.current = cell;
  };
  const fold = useCallback((key: string) => onFold?.(key), [onFold]);
  const activeLabel = `${rows[active.row]?.label ?? ''}, ${columns[active.column]?.label ?? ''}`;
  const editor =
    editing === null ? null : (
      <CellEditor
        key={`${active.row}-${active.column}`}
        text={editing}
        fresh={fresh}
        onText={setEditing}
        label={activeLabel}
        onCancel={(byKey) => {
          stopEditing('stay');
          // Escape leaves the hand on the sheet.
          if (byKey) scroller.current?.focus({ preventScroll: true });
        }}
        onCommit={(text, leave) => {
          const wrong = text === props.edit(active.row, active.column) ? null : props.onType(active, text);
          if (wrong === null) stopEditing(leave);
          return wrong;
        }}
      />
    );
  const hasGhost = (index: number): boolean =>
    rows[index]!.enterable && (index === current || ghost?.beneath === 'all');
  const items = virtual.getVirtualItems();
  const slotOf = (index: number) => index % slots;
  const bySlot = items.toSorted((a, b) => slotOf(a.index) - slotOf(b.index));
  const topOf = (index: number, start: number) => (index > current ? start + pushed : start);

  return (
    <div
      ref={scroller}
      className={classes.sheet}
      role="grid"
      tabIndex={0}
      aria-label={props.label}
      aria-rowcount={rows.length + 1}
      aria-colcount={columns.length + props.lead.length + 1}
      aria-multiselectable
      aria-readonly={readOnly}
      aria-activedescendant={
        items.some((i) => i.index === active.row) && active.column >= from && active.column < to
          ? `${id}-active`
          : undefined
      }
      style={template.style as React.CSSProperties}
      onScroll={(e) => {
        setShift(e.currentTarget.scrollLeft);
        showTitle(null);
      }}
      onPointerOver={(e) => showTitle((e.target as HTMLElement).closest<HTMLElement>('[data-row]'))}
      data-tone={props.tone}
      onKeyDown={onKeyDown}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={() => {
        dragging.current = false;
        if (!fillTo) return;
        setFillTo(null);
        if (!refused() && (shown.right !== rect.right || shown.bottom !== rect.bottom))
          props.onDragFill?.(rect, shown);
      }}
      onDoubleClick={(e) => {
        if ((e.target as HTMLElement).closest('[data-row]'))
          startEditing(props.edit(active.row, active.column));
      }}
      onCopy={onCopy}
      onCut={onCopy}
      onPaste={onPaste}
    >
      <div role="row" aria-rowindex={1} className={classes.head}>
        <div role="columnheader" className={classes.nameHead}>
          {props.nameHead ?? 'Account'}
          {unit && (
            <>
              {' '}
              <span className={classes.unitOf}>{unit}</span>
            </>
          )}
        </div>
        {props.lead.map((l) => (
          <div key={l.key} role="columnheader" className={classes.methodHead}>
            {l.label}
          </div>
        ))}
        {columns.map((c, i) => (
          <div
            key={c.key}
            role="columnheader"
            aria-colindex={i + props.lead.length + 2}
            className={classes.columnHead}
            data-kind={c.kind}
            data-selected={(i >= rect.left && i <= rect.right) || undefined}
          >
            {c.over && <span className={classes.over}>{c.over}</span>}
            {c.label}
          </div>
        ))}
      </div>
      <div
        role="rowgroup"
        aria-owns={items.map((i) => `${id}-r${slotOf(i.index)}`).join(' ')}
        className={classes.body}
        style={{ height: virtual.getTotalSize() + pushed }}
      >
        {shift > 0 && (
          // Names that each stay in place would each be a layer to the browser; so they stand here once more.
          <div className={classes.names} style={{ width: NAME }} aria-hidden>
            {items.map(({ index, start }) => (
              <div
                key={rows[index]!.key}
                data-kind={rows[index]!.kind}
                data-current={index === current || undefined}
                style={{ top: topOf(index, start) }}
              >
                <div className={classes.name}>
                  <RowName row={rows[index]!} onFold={fold} />
                </div>
                {ghost && hasGhost(index) && <div className={classes.ghostLabel}>{ghost.label}</div>}
              </div>
            ))}
          </div>
        )}
        {bySlot.map(({ index, start }) => {
          const row = rows[index]!;
          const touched = row.enterable && inRect(shown, index, shown.left);
          return (
            <SheetRowView
              key={slotOf(index)}
              id={id}
              slot={slotOf(index)}
              index={index}
              row={row}
              columns={columns}
              from={from}
              to={to}
              lead={props.lead}
              top={topOf(index, start)}
              format={format}
              left={touched ? shown.left : -1}
              right={touched ? shown.right : -2}
              active={index === active.row ? active.column : -1}
              current={index === current}
              ghost={ghost && hasGhost(index) ? { label: ghost.label, values: ghost.values(index) } : null}
              handle={
                props.onDragFill && !readOnly && editing === null && index === rect.bottom && row.enterable
                  ? rect.right
                  : -1
              }
              onFold={fold}
              editor={index === active.row ? editor : null}
            />
          );
        })}
      </div>
    </div>
  );
}
