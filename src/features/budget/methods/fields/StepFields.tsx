'use client';

import { minor } from '@/core/money';
import type { MethodOf } from '@/core/model';
import { MoneyInput, PercentInput } from '@/components/MoneyInput';
import { Choice, Field, RoundField, StepTimes, type FieldsProps } from '../inputs/parts';

/** A start, and what happens to it once and again. */
export function StepFields({
  method,
  book,
  reckoned,
  readOnly,
  onMethod,
  onEnter,
}: FieldsProps<MethodOf<'step'>>) {
  const { periods } = reckoned.facts;
  const { change } = method;
  const money = { currency: book.currency, locale: book.locale, disabled: readOnly, onEnter };
  return (
    <>
      <Field label="Start">
        <MoneyInput
          {...money}
          value={method.start}
          placeholder="as the ledger’s last month"
          onCommit={(start) => onMethod({ ...method, start })}
        />
      </Field>
      <Choice
        label="Then each time"
        value={change.of === 'amount' ? 'amount' : change.compounding ? 'compound' : 'simple'}
        disabled={readOnly}
        options={[
          { value: 'amount', label: 'an amount' },
          { value: 'simple', label: 'a percentage of the start' },
          { value: 'compound', label: 'a percentage, compounding' },
        ]}
        onChange={(to) =>
          onMethod({
            ...method,
            change:
              to === 'amount'
                ? { of: 'amount', amount: minor(0) }
                : {
                    of: 'percent',
                    percent: change.of === 'percent' ? change.percent : ('2' as never),
                    compounding: to === 'compound',
                  },
          })
        }
      />
      <Field label="Plus or minus">
        {change.of === 'amount' ? (
          <MoneyInput
            {...money}
            value={change.amount}
            onCommit={(v) => onMethod({ ...method, change: { of: 'amount', amount: v ?? minor(0) } })}
          />
        ) : (
          <PercentInput
            value={change.percent}
            disabled={readOnly}
            onEnter={onEnter}
            onCommit={(percent) => onMethod({ ...method, change: { ...change, percent } })}
          />
        )}
      </Field>
      <StepTimes
        first={method.first}
        every={method.every}
        periods={periods}
        disabled={readOnly}
        onEnter={onEnter}
        onChange={(times) => onMethod({ ...method, ...times })}
      />
      <RoundField {...{ method, readOnly, onMethod }} />
    </>
  );
}
