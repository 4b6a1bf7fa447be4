'use client';

import { NativeSelect } from '@mantine/core';
import { segmentName, type Book, type Budget, type SegmentId } from '@/core/model';

const text = (s: SegmentId | 'all'): string => (s === null ? '-' : s);

/** Which segment of a budget is shown: one of them, what is unassigned, or all added up. */
export function SegmentChoice({
  book,
  budget,
  value,
  withAll = true,
  onChange,
}: {
  readonly book: Book;
  readonly budget: Budget;
  readonly value: SegmentId | 'all';
  /** Whether all of them, added up, may be chosen. */
  readonly withAll?: boolean;
  readonly onChange: (segment: SegmentId | 'all') => void;
}) {
  if (budget.segments.length < 2) return null;
  const axis = book.axes.find((a) => a.id === budget.axis);
  return (
    <NativeSelect
      aria-label={axis?.name ?? 'Segment'}
      value={text(value)}
      data={[
        ...(withAll ? [{ value: 'all', label: `All ${budget.segments.length} added up` }] : []),
        ...budget.segments.map((s) => ({ value: text(s), label: segmentName(axis, s) })),
      ]}
      onChange={(e) => {
        const v = e.currentTarget.value;
        onChange(v === '-' ? null : v);
      }}
    />
  );
}
