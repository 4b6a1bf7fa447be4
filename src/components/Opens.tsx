'use client';

import { cloneElement, lazy, Suspense, useState, type ComponentType, type ReactNode } from 'react';
import type { MenuEntry, OpenedProps, TargetElement, TargetProps } from './Opened';

/* Menus and panels are loaded with the first touch of their button; until then the button stands alone. */
const load = () => import('./Opened');
const Opened = {
  menu: lazy(() => load().then((m) => ({ default: m.OpenedMenu }))),
  panel: lazy(() => load().then((m) => ({ default: m.OpenedPanel }))),
};

/** A button that opens a list of what can be done. */
export const MenuButton = (props: OpenedProps & { readonly entries: readonly MenuEntry[] }) => (
  <Opens opened={Opened.menu} popup="menu" {...props} />
);

/** A button that opens a panel of fields or facts. */
export const PanelButton = (
  props: OpenedProps & { readonly trapFocus?: boolean; readonly children: ReactNode },
) => <Opens opened={Opened.panel} popup="dialog" {...props} />;

function Opens<P extends { readonly button: TargetElement }>({
  opened: Loaded,
  popup,
  ...props
}: { readonly opened: ComponentType<P>; readonly popup: TargetProps['aria-haspopup'] } & P) {
  const [wanted, setWanted] = useState(false);
  const alone = cloneElement(props.button, {
    'aria-haspopup': popup,
    'aria-expanded': false,
    onPointerEnter: () => void load(),
    onFocus: () => void load(),
    onClick: () => setWanted(true),
  });
  if (!wanted) return alone;
  return (
    <Suspense fallback={alone}>
      <Loaded {...(props as unknown as P)} />
    </Suspense>
  );
}
