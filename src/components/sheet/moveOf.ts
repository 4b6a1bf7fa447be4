import type { Move } from '@/core/sheet';

const MOVES: Record<string, Move> = {
  ArrowUp: 'up',
  ArrowDown: 'down',
  ArrowLeft: 'left',
  ArrowRight: 'right',
  Home: 'rowStart',
  End: 'rowEnd',
  PageUp: 'pageUp',
  PageDown: 'pageDown',
};

/** Where a key leads in a sheet; undefined for one that leads nowhere. */
export const moveOf = (e: {
  readonly key: string;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
}): Move | undefined => {
  const ctrl = e.ctrlKey || e.metaKey;
  return ctrl && e.key === 'Home' ? 'top' : ctrl && e.key === 'End' ? 'bottom' : MOVES[e.key];
};
