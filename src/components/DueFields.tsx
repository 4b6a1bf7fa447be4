'use client';

import { NativeSelect } from '@mantine/core';
import type { DueRule } from '@/core/model';
import { NumberInput } from './MoneyInput';

/** When something is due: so many days later, or on a day of a month so many months later. */
export function DueFields({
  label,
  quiet = false,
  value,
  readOnly,
  onValue,
}: {
  readonly value: DueRule;
  readonly readOnly: boolean;
  readonly onValue: (value: DueRule) => void;
  readonly label: string;
  /** The label is read out only. */
  readonly quiet?: boolean;
}) {
  return (
    <div style={{ display: 'flex', alignItems: 'end', gap: 4 }}>
      <NumberInput
        size="xs"
        w={52}
        label={quiet ? undefined : label}
        aria-label={label}
        disabled={readOnly}
        least={0}
        most={value.of === 'days' ? 1000 : 60}
        value={value.of === 'days' ? value.days : value.months}
        onCommit={(n) => onValue(value.of === 'days' ? { of: 'days', days: n } : { ...value, months: n })}
      />
      <NativeSelect
        aria-label={`${label}: counted in`}
        w={118}
        disabled={readOnly}
        value={value.of}
        data={[
          { value: 'days', label: 'days later' },
          { value: 'months', label: 'months later' },
        ]}
        onChange={(e) =>
          onValue(
            e.currentTarget.value === 'days'
              ? { of: 'days', days: 30 }
              : { of: 'months', months: 1, day: 15 },
          )
        }
      />
      {value.of === 'months' && (
        <NumberInput
          size="xs"
          w={70}
          label={quiet ? undefined : 'on the'}
          aria-label={`${label}: day of the month`}
          disabled={readOnly}
          least={1}
          most={31}
          value={value.day}
          onCommit={(n) => onValue({ ...value, day: n })}
        />
      )}
    </div>
  );
}
