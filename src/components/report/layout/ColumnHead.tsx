'use client';

import { Button, Group, NativeSelect, Stack } from '@mantine/core';
import { COLUMN_SHOWS, LIMITS, type Layout, type LayoutColumn, type LayoutSpan } from '@/core/model';
import { comparesWith, isWords, type ReportColumn } from '@/core/report';
import { PanelButton } from '@/components/Opens';
import classes from '../ReportGrid.module.css';
import { SHOW_NAMES } from './showNames';

type EachOver = Extract<LayoutSpan, { of: 'each' }>['over'];

/** Periods as they are chosen: a word for each, and its parts for those that go across. */
const SPANS: readonly { readonly value: string; readonly label: string; readonly span: LayoutSpan }[] = [
  { value: 'month', label: 'The month', span: { of: 'month', back: 0 } },
  { value: 'before', label: 'The month before', span: { of: 'month', back: 1 } },
  { value: 'quarter', label: 'The quarter so far', span: { of: 'quarter' } },
  { value: 'toDate', label: 'The year to date', span: { of: 'toDate' } },
  { value: 'year', label: 'The full year', span: { of: 'year' } },
  { value: 'rolling', label: 'Twelve months to the month', span: { of: 'rolling' } },
  { value: 'ruler', label: 'The months chosen on the ruler', span: { of: 'ruler' } },
  { value: 'budget', label: 'The whole budget', span: { of: 'budget' } },
  ...(
    [
      ['month', 'toDate', 'Each month of the year to date'],
      ['month', 'year', 'Each month of the year'],
      ['month', 'rolling', 'Each of the last twelve months'],
      ['quarter', 'year', 'Each quarter of the year'],
      ['week', 'month', 'Each week of the month'],
      ['week', 'quarter', 'Each week of the quarter'],
      ['day', 'month', 'Each day of the month'],
      ['month', 'ruler', 'Each month chosen on the ruler'],
      ['quarter', 'ruler', 'Each quarter chosen on the ruler'],
      ['year', 'ruler', 'Each year chosen on the ruler'],
      ['month', 'budget', 'Each month of the budget'],
      ['quarter', 'budget', 'Each quarter of the budget'],
      ['year', 'budget', 'Each year of the budget'],
    ] as const
  ).map(([by, over, label]) => ({
    value: `${by} ${over}`,
    label,
    span: { of: 'each' as const, by, over: over as EachOver },
  })),
];

const spanValue = (span: LayoutSpan): string =>
  SPANS.find((s) => JSON.stringify(s.span) === JSON.stringify(span))?.value ?? 'own';

const AGAINST = { first: 'The first comparison', second: 'The second comparison', lastYear: 'Last year' };

/** A column's head: its name, which opens what the column shows. */
export function ColumnHead({
  id,
  column,
  layout,
  units,
  range,
  onColumns,
}: {
  readonly id: string;
  readonly column: ReportColumn;
  readonly layout: Layout;
  /** Names of drivers that amounts can be divided by. */
  readonly units: readonly string[];
  /** What is chosen on the ruler now, for a column that stays with it; null for a single month. */
  readonly range: { readonly span: LayoutSpan; readonly label: string } | null;
  /** `moved`: columns came, went, or stand elsewhere. */
  readonly onColumns: (columns: LayoutColumn[], moved: boolean) => void;
}) {
  const place = column.place!;
  const spec = layout.columns[place]!;
  const { columns } = layout;
  const put = (change: Partial<LayoutColumn>) =>
    onColumns(
      columns.map((c, i) => (i === place ? { ...c, ...change } : c)),
      change.hidden === true,
    );
  const move = (by: number) => {
    const next = [...columns];
    const [moved] = next.splice(place, 1);
    next.splice(place + by, 0, moved!);
    onColumns(next, true);
  };
  const insert = (at: number) => {
    const next = [...columns];
    next.splice(at, 0, { ...spec, hidden: false });
    onColumns(next, true);
  };
  const shown = columns.filter((c) => !c.hidden).length;
  const value = spanValue(spec.span);
  const perUnit = spec.show === 'perUnit' || spec.show === 'comparedPerUnit';
  return (
    <PanelButton
      width={272}
      button={
        <button
          type="button"
          id={id}
          tabIndex={-1}
          className={classes.headButton}
          aria-label={`${column.group} ${column.label || 'bar'}: change the column`}
        >
          {column.label || '◂▸'}
        </button>
      }
    >
      <Stack gap={6}>
        <NativeSelect
          label="Shows"
          value={spec.show}
          data={COLUMN_SHOWS.map((show) => ({ value: show, label: SHOW_NAMES[show] }))}
          onChange={(e) => {
            const show = e.currentTarget.value as LayoutColumn['show'];
            put({ show, unit: spec.unit || (units[0] ?? '') });
          }}
        />
        {!isWords(spec) && (
          <NativeSelect
            label="Of"
            value={value}
            data={[
              ...SPANS.map(({ value: v, label }) => ({ value: v, label })),
              ...(value === 'own' ? [{ value: 'own', label: column.group }] : []),
              ...(range ? [{ value: 'kept', label: `Always ${range.label}` }] : []),
            ]}
            onChange={(e) => {
              const chosen = e.currentTarget.value;
              if (chosen === 'kept') put({ span: range!.span });
              else {
                const span = SPANS.find((s) => s.value === chosen)?.span;
                if (span) put({ span });
              }
            }}
          />
        )}
        {comparesWith(spec.show) && (
          <NativeSelect
            label="Compared with"
            value={spec.against}
            data={Object.entries(AGAINST).map(([v, label]) => ({
              value: v,
              label,
              disabled: v === 'second' && layout.against.second === '',
            }))}
            onChange={(e) => put({ against: e.currentTarget.value as LayoutColumn['against'] })}
          />
        )}
        {perUnit && (
          <NativeSelect
            label="Per"
            value={spec.unit}
            data={units.includes(spec.unit) ? [...units] : [spec.unit, ...units]}
            onChange={(e) => put({ unit: e.currentTarget.value })}
          />
        )}
        <Group gap={4}>
          <Button disabled={place === 0} onClick={() => move(-1)}>
            ← Left
          </Button>
          <Button disabled={place === columns.length - 1} onClick={() => move(1)}>
            Right →
          </Button>
          <Button disabled={columns.length >= LIMITS.layoutColumns} onClick={() => insert(place + 1)}>
            One more
          </Button>
          <Button disabled={shown === 1} onClick={() => put({ hidden: true })}>
            Hide
          </Button>
          <Button
            disabled={columns.length === 1 || shown === 1}
            onClick={() =>
              onColumns(
                columns.filter((_, i) => i !== place),
                true,
              )
            }
          >
            Take away
          </Button>
        </Group>
      </Stack>
    </PanelButton>
  );
}
