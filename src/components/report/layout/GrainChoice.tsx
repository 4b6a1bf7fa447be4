'use client';

import { SegmentedControl } from '@mantine/core';

export type Grain = 'month' | 'quarter' | 'year';
const GRAINS: readonly { readonly value: Grain; readonly label: string }[] = [
  { value: 'month', label: 'Months' },
  { value: 'quarter', label: 'Quarters' },
  { value: 'year', label: 'Years' },
];

/** By which parts the columns of a report go across. */
export const GrainChoice = ({
  label,
  grain,
  onGrain,
}: {
  readonly label: string;
  readonly grain: Grain;
  readonly onGrain: (grain: Grain) => void;
}) => (
  <SegmentedControl
    size="xs"
    aria-label={label}
    value={grain}
    onChange={(v) => onGrain(v as Grain)}
    data={[...GRAINS]}
  />
);
