import { useMemo } from 'react';
import type { Ground } from '@/core/ground';
import type { Layout } from '@/core/model';
import { layoutsOf, shippedLayout } from '@/core/report';
import { dispatch, useBookStore } from './bookStore';
import { exportLayouts, importLayouts } from './layoutFiles';
import { nextLayoutId } from './layoutIds';
import { say, setSession, useSession } from './session';

/** The layout of this id (the first there is, where none has it), and what changes it; `onChoose` shows another one. */
export function useLayout(ground: Ground, id: string, onChoose: (id: string) => void) {
  const { book } = ground;
  const trial = useSession((s) => s.layoutTrial);
  const readOnly = useBookStore((s) => s.readOnly);
  const all = useMemo(() => layoutsOf(book), [book]);
  const kept = all.find((l) => l.id === id) ?? all[0]!;
  const layout = readOnly && trial?.id === kept.id ? trial : kept;
  const choose = (layoutId: string) => {
    setSession({ layoutTrial: null });
    onChoose(layoutId);
  };
  const change = (part: Partial<Layout>) => {
    const next = { ...layout, ...part };
    if (readOnly) setSession({ layoutTrial: next });
    else dispatch({ type: 'putLayouts', layouts: [next] });
  };
  return {
    layout,
    all,
    choose,
    change,
    changeRows: (part: Partial<Layout['rows']>) => change({ rows: { ...layout.rows, ...part } }),
    duplicate(name: string) {
      const copy = nextLayoutId(book);
      if (!dispatch({ type: 'putLayouts', layouts: [{ ...layout, id: copy, name }] })) choose(copy);
    },
    move: (before: string | null) => void dispatch({ type: 'moveLayout', layout: layout.id, before }),
    remove() {
      dispatch({ type: 'removeLayout', layout: layout.id });
      say(
        shippedLayout(layout.id) !== null
          ? `“${layout.name}” is as it ships again. Ctrl+Z takes it back.`
          : `“${layout.name}” is taken away. Ctrl+Z brings it back.`,
      );
    },
    save: () => void exportLayouts(ground, [layout]),
    async takeIn(file: File) {
      const { layouts, word, trouble } = await importLayouts(ground, file);
      say(word, trouble ? 'trouble' : 'info');
      if (layouts[0]) choose(layouts[0]);
    },
  };
}
