import { useMemo } from 'react';
import type { Layout, LayoutColumn } from '@/core/model';
import { layoutsOf, SHIPPED } from '@/core/report';
import type { Ground } from '@/core/ground';
import { dispatch, useBookStore } from '@/store/bookStore';
import { setSession, useSession } from '@/store/session';

export type LayoutInUse = {
  readonly layout: Layout;
  readonly all: readonly Layout[];
  /** Changes it: kept in the book, or, where the book can only be read, for this look. */
  readonly change: (change: Partial<Layout>) => void;
  readonly changeRows: (change: Partial<Layout['rows']>) => void;
  readonly changeColumn: (place: number, change: Partial<LayoutColumn>) => void;
  readonly choose: (id: string) => void;
};

/** The layout that the variance screen shows, and what changes it. */
export function useLayout(ground: Ground): LayoutInUse {
  const { book } = ground;
  const id = useSession((s) => s.layoutId);
  const trial = useSession((s) => s.layoutTrial);
  const readOnly = useBookStore((s) => s.readOnly);
  const all = useMemo(() => layoutsOf(book), [book]);
  const kept = all.find((l) => l.id === id) ?? all[0] ?? SHIPPED[0]!;
  const layout = readOnly && trial?.id === kept.id ? trial : kept;
  const put = (next: Layout) => {
    if (readOnly) setSession({ layoutTrial: next });
    else dispatch({ type: 'putLayouts', layouts: [next] });
  };
  return {
    layout,
    all,
    change: (change) => put({ ...layout, ...change }),
    changeRows: (change) => put({ ...layout, rows: { ...layout.rows, ...change } }),
    changeColumn: (place, change) =>
      put({ ...layout, columns: layout.columns.map((c, i) => (i === place ? { ...c, ...change } : c)) }),
    choose: (layoutId) => setSession({ layoutId, layoutTrial: null }),
  };
}
