'use client';

import type { MethodOf } from '@/core/model';
import { NumberInput } from '@/components/MoneyInput';
import { AddField, Choice, Field, LiftFields, PeriodField, type FieldsProps } from '../inputs/parts';

/** Which months the average is taken of. */
export function RunRateFields({
  method,
  book,
  reckoned,
  readOnly,
  onMethod,
  onEnter,
}: FieldsProps<MethodOf<'runRate'>>) {
  const { facts } = reckoned;
  const { over } = method;
  const known = facts.window;
  return (
    <>
      <Choice
        label="Average of"
        value={over.of}
        disabled={readOnly}
        options={[
          { value: 'all', label: `all ${known.length} months` },
          { value: 'last', label: 'the last months' },
          { value: 'range', label: 'a range of months' },
        ]}
        onChange={(of) =>
          onMethod({
            ...method,
            over:
              of === 'all'
                ? { of }
                : of === 'last'
                  ? { of, months: 3 }
                  : {
                      of,
                      first: (known[0] ?? facts.periods[0]!).id,
                      last: (known.at(-1) ?? facts.periods[0]!).id,
                    },
          })
        }
      />
      {over.of === 'last' && (
        <Field label="How many">
          <NumberInput
            value={over.months}
            least={1}
            most={120}
            disabled={readOnly}
            onEnter={onEnter}
            onCommit={(months) => onMethod({ ...method, over: { of: 'last', months } })}
          />
        </Field>
      )}
      {over.of === 'range' &&
        (['first', 'last'] as const).map((end) => (
          <PeriodField
            key={end}
            label={end === 'first' ? 'From' : 'To'}
            value={over[end]}
            periods={known}
            disabled={readOnly}
            onChange={(p) => onMethod({ ...method, over: { ...over, [end]: p } })}
          />
        ))}
      <AddField {...{ method, book, readOnly, onMethod, onEnter }} />
      <LiftFields {...{ method, readOnly, onMethod, onEnter }} />
    </>
  );
}
