import { useCallback, useEffect, useLayoutEffect, useState, type RefObject } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import type { Place } from '@/core/sheet';
import { HEAD, NAME, ROW, SCROLLBAR } from './geometry';

type Tall = { readonly enterable?: boolean };
const NO_ROWS: readonly Tall[] = [];
const OVERSCAN = 8;
const SCREEN = 1280;
/** Columns drawn on either side of those in sight. */
const ASIDE = 2;

/**
 * What of a sheet is in sight: its rows (`doubled` where each has a quiet one beneath it) and, where it is wider than the
 * screen, the columns from `from` to before `to`. It follows the cursor. `starts` are where columns begin and the last ends;
 * a cursor before the first row or column moves nothing.
 */
export function useSight(
  scroller: RefObject<HTMLDivElement | null>,
  rows: readonly Tall[],
  doubled: boolean,
  starts: readonly number[],
  cursor: Place,
  head = HEAD,
) {
  /** How far the sheet is scrolled sideways. */
  const [shift, setShift] = useState(0);
  const columns = starts.length - 1;
  const tall = doubled ? rows : NO_ROWS;
  const sizeOf = useCallback((i: number) => (tall[i]?.enterable ? ROW * 2 : ROW), [tall]);
  // eslint-disable-next-line react-hooks/incompatible-library -- the virtualizer is meant to be read anew on each render
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: sizeOf,
    overscan: OVERSCAN,
  });
  // Before it was measured a sheet is taken to be as wide as a screen: not all of two hundred columns are drawn for it.
  const width = virtual.scrollRect?.width || SCREEN;
  const wide = starts.at(-1)! > width - SCROLLBAR;
  useLayoutEffect(() => virtual.measure(), [virtual, sizeOf]);
  const height = virtual.scrollRect?.height ?? 0;
  useEffect(() => {
    // Rows are where they were counted to be; to ask the browser would make it lay everything out at once.
    const row = virtual.measurementsCache[cursor.row];
    if (!row || height === 0) return;
    const offset = virtual.scrollOffset ?? 0;
    const end = head + row.end + ROW + SCROLLBAR;
    if (row.start < offset) scroller.current!.scrollTop = row.start;
    else if (end > offset + height) scroller.current!.scrollTop = end - height;
  }, [scroller, virtual, cursor.row, height, head]);
  const room = width - SCROLLBAR - NAME;
  useEffect(() => {
    // A sheet wider than the screen follows the cursor sideways, clear of the account column.
    if (!wide || cursor.column < 0) return;
    const left = starts[cursor.column]! - NAME;
    const right = starts[cursor.column + 1]! - NAME;
    if (left < shift) scroller.current!.scrollLeft = left;
    else if (right > shift + room) scroller.current!.scrollLeft = right - room;
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the cursor moves the sheet; scrolling it must not move it back
  }, [cursor, wide]);
  // Of a wide sheet only the columns in sight are drawn.
  const at = wide ? starts.findIndex((_, c) => starts[c + 1]! - NAME > shift) : 0;
  const past = wide ? starts.findIndex((x) => x - NAME > shift + room) : -1;
  const from = Math.max(0, at - ASIDE);
  const to = past < 0 ? columns : Math.min(columns, past + ASIDE);
  // Rows that leave the sight make room for those that come: their elements stay where they are and are used again,
  // and aria-owns gives the order in which they read. As many slots as ever stand in sight together.
  const slots = Math.ceil(height / ROW) + 2 * OVERSCAN + 2;
  return { virtual, shift, setShift, from, to, slots };
}
