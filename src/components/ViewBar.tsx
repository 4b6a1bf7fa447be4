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

/** Which budget a stage looks at, where there are several. */
export const BudgetChoice = ({
  label,
  budgets,
  budget,
  onBudget,
}: {
  readonly label: string;
  readonly budgets: readonly Budget[];
  readonly budget: Budget | null;
  readonly onBudget: (id: string) => void;
}) =>
  budgets.length > 1 ? (
    <NativeSelect
      aria-label={label}
      value={budget?.id ?? ''}
      data={budgets.map((b) => ({ value: b.id, label: b.name }))}
      onChange={(e) => onBudget(e.currentTarget.value)}
    />
  ) : null;
