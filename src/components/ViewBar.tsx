'use client';

import type { ReactNode } from 'react';
import { NativeSelect, SegmentedControl } from '@mantine/core';
import type { Budget } from '@/core/model';
import stage from './Stage.module.css';

/** The views of a stage, and at the other end what else is chosen for all of them. */
export function ViewBar<V extends string>({
  views,
  view,
  onView,
  children,
}: {
  readonly views: readonly { readonly value: V; readonly label: string }[];
  readonly view: V;
  readonly onView: (view: V) => void;
  readonly children?: ReactNode;
}) {
  return (
    <div className={stage.viewBar}>
      <SegmentedControl
        size="xs"
        aria-label="View"
        value={view}
        onChange={(v) => onView(v as V)}
        data={[...views]}
      />
      <span className={stage.push} />
      {children}
    </div>
  );
}

/** Which plan a stage follows, where there are several: what is in force, or a budget that is looked at in its place. */
export const PlanChoice = ({
  budgets,
  looked,
  inForce,
  onLook,
}: {
  readonly budgets: readonly Budget[];
  readonly looked: Budget | null;
  /** What the plan in force is called. */
  readonly inForce: string;
  readonly onLook: (id: string | null) => void;
}) =>
  budgets.length > 1 ? (
    <NativeSelect
      aria-label="Plan ahead"
      value={looked?.id ?? ''}
      data={[
        { value: '', label: `In force: ${inForce}` },
        ...budgets.map((b) => ({ value: b.id, label: `Look at ${b.name}` })),
      ]}
      onChange={(e) => onLook(e.currentTarget.value || null)}
    />
  ) : null;
