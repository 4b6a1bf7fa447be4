/** A place in a sheet: row and column from 0. */
export type Place = { readonly row: number; readonly column: number };

/** A range by where it was begun and where it stands now; `focus` is the active cell's far corner. */
export type Selection = { readonly anchor: Place; readonly focus: Place };

export type Rect = {
  readonly top: number;
  readonly left: number;
  readonly bottom: number;
  readonly right: number;
};

export type Bounds = {
  readonly rows: number;
  readonly columns: number;
  /** Rows that can be entered (not headings). */ readonly enterable: (row: number) => boolean;
};

export type Move =
  'up' | 'down' | 'left' | 'right' | 'rowStart' | 'rowEnd' | 'top' | 'bottom' | 'pageUp' | 'pageDown';

export const at = (row: number, column: number): Selection => ({
  anchor: { row, column },
  focus: { row, column },
});

export const rectOf = ({ anchor, focus }: Selection): Rect => ({
  top: Math.min(anchor.row, focus.row),
  bottom: Math.max(anchor.row, focus.row),
  left: Math.min(anchor.column, focus.column),
  right: Math.max(anchor.column, focus.column),
});

export const inRect = (r: Rect, row: number, column: number): boolean =>
  row >= r.top && row <= r.bottom && column >= r.left && column <= r.right;

/** Where a move from the focus leads: within the bounds, over rows that cannot be entered. The same place at an edge. */
export function moved(from: Place, move: Move, bounds: Bounds, page = 20): Place {
  const { row, column } = from;
  const lastColumn = bounds.columns - 1;
  switch (move) {
    case 'left':
      return { row, column: Math.max(0, column - 1) };
    case 'right':
      return { row, column: Math.min(lastColumn, column + 1) };
    case 'rowStart':
      return { row, column: 0 };
    case 'rowEnd':
      return { row, column: lastColumn };
    case 'up':
      return { row: seek(row - 1, -1, bounds) ?? row, column };
    case 'down':
      return { row: seek(row + 1, 1, bounds) ?? row, column };
    case 'top':
      return { row: seek(0, 1, bounds) ?? row, column };
    case 'bottom':
      return { row: seek(bounds.rows - 1, -1, bounds) ?? row, column };
    case 'pageUp':
      return { row: seek(Math.max(0, row - page), -1, bounds) ?? seek(0, 1, bounds) ?? row, column };
    case 'pageDown':
      return {
        row:
          seek(Math.min(bounds.rows - 1, row + page), 1, bounds) ?? seek(bounds.rows - 1, -1, bounds) ?? row,
        column,
      };
  }
}

function seek(from: number, step: 1 | -1, bounds: Bounds): number | null {
  for (let r = from; r >= 0 && r < bounds.rows; r += step) if (bounds.enterable(r)) return r;
  return null;
}

/** The selection after a move; with `extend` the anchor stays. The same object when nothing moved. */
export function select(selection: Selection, move: Move, bounds: Bounds, extend: boolean): Selection {
  const focus = moved(selection.focus, move, bounds);
  const same = focus.row === selection.focus.row && focus.column === selection.focus.column;
  if (extend) return same ? selection : { anchor: selection.anchor, focus };
  if (same && selection.anchor.row === focus.row && selection.anchor.column === focus.column)
    return selection;
  return { anchor: focus, focus };
}
