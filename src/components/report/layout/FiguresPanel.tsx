'use client';

import { Button, Checkbox, NativeSelect, Stack } from '@mantine/core';
import type { Ground } from '@/core/ground';
import { segmentName, type Layout } from '@/core/model';
import { tellsSegments } from '@/core/report';
import { PanelButton } from '@/components/Opens';

const UNIT = { book: 'As the book does', cents: 'To the cent', whole: 'Whole', thousands: 'In thousands' };
const NEGATIVES = { book: 'As the book does', parentheses: '(1,234)', minus: '−1,234' };
const RED = { book: 'As the book does', red: 'Red', plain: 'Not red' };
const PLACE = { none: 'Not told apart', across: 'Side by side', beneath: 'Beneath each line' };
const DAYS = {
  working: 'The days that the company works',
  calendar: 'All days alike',
  own: 'The line’s own days, such as paydays',
};
const data = (names: Readonly<Record<string, string>>) =>
  Object.entries(names).map(([value, label]) => ({ value, label }));

/** Segments of a layout, what it compares with a second time, and how its figures are written. */
export function FiguresPanel({
  ground,
  layout,
  comparisons,
  onChange,
}: {
  readonly ground: Ground;
  readonly layout: Layout;
  readonly comparisons: readonly { readonly value: string; readonly label: string }[];
  readonly onChange: (change: Partial<Layout>) => void;
}) {
  const { axes } = ground.book;
  const { segments, numbers, against } = layout;
  const axis = tellsSegments(layout.rows.set)
    ? (axes.find((a) => a.id === segments.axis) ?? axes[0])
    : undefined;
  const byDays = layout.columns.some(
    (c) => c.span.of === 'each' && (c.span.by === 'week' || c.span.by === 'day'),
  );
  const values = axis ? [...axis.values.map((v) => v.id as string | null), null] : [];
  const toggle = (value: string | null, on: boolean) => {
    const now = segments.values.length === 0 ? values : segments.values;
    const next = on ? [...now, value] : now.filter((v) => v !== value);
    onChange({ segments: { ...segments, values: next.length === values.length ? [] : next } });
  };
  return (
    <PanelButton width={286} button={<Button aria-label="Segments and figures">Figures ▾</Button>}>
      <Stack gap={6}>
        {axis && (
          <>
            <NativeSelect
              label="Segments"
              value={segments.place}
              data={data(PLACE)}
              onChange={(e) =>
                onChange({
                  segments: {
                    ...segments,
                    axis: axis.id,
                    place: e.currentTarget.value as Layout['segments']['place'],
                  },
                })
              }
            />
            {axes.length > 1 && segments.place !== 'none' && (
              <NativeSelect
                aria-label="Segments by"
                value={axis.id}
                data={axes.map((a) => ({ value: a.id, label: `by ${a.name}` }))}
                onChange={(e) =>
                  onChange({ segments: { ...segments, axis: e.currentTarget.value, values: [] } })
                }
              />
            )}
            {segments.place !== 'none' &&
              values
                .slice(0, 40)
                .map((v) => (
                  <Checkbox
                    key={v ?? ''}
                    size="xs"
                    label={segmentName(axis, v)}
                    checked={segments.values.length === 0 || segments.values.includes(v)}
                    onChange={(e) => toggle(v, e.currentTarget.checked)}
                  />
                ))}
          </>
        )}
        <NativeSelect
          label="And with"
          value={against.second}
          data={[
            { value: '', label: 'Nothing more' },
            { value: 'lastYear', label: 'Last year' },
            { value: 'outlook', label: 'The outlook' },
            ...comparisons,
          ]}
          onChange={(e) => onChange({ against: { ...against, second: e.currentTarget.value } })}
        />
        {byDays && (
          <NativeSelect
            label="A month’s budget falls on"
            value={layout.days}
            data={data(DAYS)}
            onChange={(e) => onChange({ days: e.currentTarget.value as Layout['days'] })}
          />
        )}
        <NativeSelect
          label="Figures"
          value={numbers.unit}
          data={data(UNIT)}
          onChange={(e) =>
            onChange({ numbers: { ...numbers, unit: e.currentTarget.value as Layout['numbers']['unit'] } })
          }
        />
        <NativeSelect
          label="Negatives"
          value={numbers.negatives}
          data={data(NEGATIVES)}
          onChange={(e) =>
            onChange({
              numbers: { ...numbers, negatives: e.currentTarget.value as Layout['numbers']['negatives'] },
            })
          }
        />
        <NativeSelect
          aria-label="Negatives in red"
          value={numbers.red}
          data={data(RED)}
          onChange={(e) =>
            onChange({ numbers: { ...numbers, red: e.currentTarget.value as Layout['numbers']['red'] } })
          }
        />
      </Stack>
    </PanelButton>
  );
}
