'use client';

import { Button, NativeSelect } from '@mantine/core';
import type { MethodOf } from '@/core/model';
import { scaledText } from '@/components/readScaled';
import { setSession } from '@/store/session';
import { Field, RoundField, type FieldsProps } from '../inputs/parts';

/** The drivers that are multiplied. */
export function DriverFields({
  method,
  book,
  reckoned,
  readOnly,
  onMethod,
}: FieldsProps<MethodOf<'driver'>>) {
  const { drivers } = reckoned.budget;
  const { factors } = method;
  const options = drivers.map((d) => ({ value: d.id, label: `${d.name}${d.unit ? ` (${d.unit})` : ''}` }));
  const set = (next: readonly string[]) => onMethod({ ...method, factors: [...next] });
  return (
    <>
      {factors.map((f, i) => {
        const driver = drivers.find((d) => d.id === f);
        const first = reckoned.reckoning.drivers.get(f)?.values[0] ?? null;
        return (
          <Field
            key={i}
            wide
            label={`${i === 0 ? 'Take' : '×'}${driver && first !== null ? ` ${scaledText(first, driver.decimals, book.locale)} …` : ''}`}
          >
            <NativeSelect
              value={driver ? f : ''}
              disabled={readOnly}
              data={[
                ...(driver ? [] : [{ value: '', label: 'a driver that is gone' }]),
                ...options,
                ...(factors.length > 1 ? [{ value: '-', label: 'take this one away' }] : []),
              ]}
              onChange={(e) => {
                const to = e.currentTarget.value;
                set(
                  to === '-' ? factors.filter((_, k) => k !== i) : factors.map((x, k) => (k === i ? to : x)),
                );
              }}
            />
          </Field>
        );
      })}
      {factors.length < 6 && !readOnly && (
        <Field label="×" wide>
          <NativeSelect
            value=""
            data={[{ value: '', label: 'one more driver' }, ...options]}
            onChange={(e) => e.currentTarget.value && set([...factors, e.currentTarget.value])}
          />
        </Field>
      )}
      <RoundField {...{ method, readOnly, onMethod }} />
      <Button mt={6} onClick={() => setSession({ budgetView: 'drivers' })}>
        The drivers sheet
      </Button>
    </>
  );
}
