'use client';

import {
  cloneElement,
  useEffect,
  useRef,
  type HTMLAttributes,
  type ReactElement,
  type ReactNode,
  type Ref,
} from 'react';
import { Menu, Popover } from '@mantine/core';

export type TargetProps = HTMLAttributes<HTMLButtonElement> & { readonly ref?: Ref<HTMLButtonElement> };
/** The button that opens: any element that takes what a button takes. */
export type TargetElement = ReactElement<TargetProps>;

/** An entry of a menu: something to do, or the line between two parts. */
export type MenuEntry =
  | 'line'
  | {
      readonly key?: string;
      readonly label: string;
      readonly run: () => void;
      /** What stands at its end: its keys, or a word on its state. */
      readonly aside?: ReactNode;
      readonly disabled?: boolean;
      /** It is the one that is open now. */
      readonly current?: boolean;
      /** It takes something away. */
      readonly takesAway?: boolean;
    };

export type OpenedProps = {
  readonly button: TargetElement;
  readonly position?: 'bottom-start' | 'bottom-end' | 'top-end';
  readonly width?: number;
};

/**
 * Stands where the button stood alone and was pressed: its button takes over the focus, so that closing leads back to it,
 * and the press.
 */
function usePressed(): Ref<HTMLButtonElement> {
  const target = useRef<HTMLButtonElement>(null);
  const taken = useRef(false);
  useEffect(() => {
    if (taken.current) return;
    taken.current = true;
    target.current?.focus({ preventScroll: true });
    target.current?.click();
  }, []);
  return target;
}

export function OpenedMenu({
  button,
  entries,
  position = 'bottom-start',
  width,
}: OpenedProps & { readonly entries: readonly MenuEntry[] }) {
  const ref = usePressed();
  return (
    <Menu position={position} width={width} shadow="sm" transitionProps={{ duration: 0 }}>
      <Menu.Target>{cloneElement(button, { ref })}</Menu.Target>
      <Menu.Dropdown>
        {entries.map((entry, i) =>
          entry === 'line' ? (
            <Menu.Divider key={i} />
          ) : (
            <Menu.Item
              key={entry.key ?? entry.label}
              fw={entry.current ? 600 : undefined}
              c={entry.takesAway ? 'var(--bad)' : undefined}
              disabled={entry.disabled}
              rightSection={entry.aside}
              onClick={entry.run}
            >
              {entry.label}
            </Menu.Item>
          ),
        )}
      </Menu.Dropdown>
    </Menu>
  );
}

export function OpenedPanel({
  button,
  children,
  position = 'bottom-start',
  width,
  trapFocus = true,
}: OpenedProps & { readonly trapFocus?: boolean; readonly children: ReactNode }) {
  const ref = usePressed();
  return (
    <Popover position={position} width={width} shadow="sm" trapFocus={trapFocus} returnFocus>
      <Popover.Target>{cloneElement(button, { ref })}</Popover.Target>
      <Popover.Dropdown>{children}</Popover.Dropdown>
    </Popover>
  );
}
