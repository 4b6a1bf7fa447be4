'use client';

import { NativeSelect } from '@mantine/core';
import type { OverMonths } from '@/core/model';

const OVER: Readonly<Record<OverMonths, string>> = {
  sum: 'they add up',
  mean: 'as many as on the mean',
  last: 'as many as at the end',
  none: 'nothing: a price',
};

/** How a quantity goes over several months; asked until somebody says it. */
export function OverChoice({
  name,
  over,
  named = false,
  readOnly,
  onOver,
}: {
  readonly name: string;
  /** Null where nobody has said it. */
  readonly over: OverMonths | null;
  /** Its name stands nowhere else. */
  readonly named?: boolean;
  readonly readOnly: boolean;
  readonly onOver: (over: OverMonths) => void;
}) {
  return (
    <NativeSelect
      size="xs"
      mb={8}
      label={named ? name : 'Over several months'}
      disabled={readOnly}
      value={over ?? ''}
      data={[
        ...(over === null ? [{ value: '', label: 'not said yet' }] : []),
        ...(Object.keys(OVER) as OverMonths[]).map((value) => ({ value, label: OVER[value] })),
      ]}
      onChange={(e) => e.currentTarget.value && onOver(e.currentTarget.value as OverMonths)}
    />
  );
}
