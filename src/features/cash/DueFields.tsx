'use client';

import { NativeSelect } from '@mantine/core';
import type { DueRule } from '@/core/model';
import { NumberInput } from '@/components/MoneyInput';
import classes from './Cash.module.css';

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
    <div className={classes.row} style={{ gap: 4, flexWrap: 'nowrap' }}>
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
          label="on the"
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
