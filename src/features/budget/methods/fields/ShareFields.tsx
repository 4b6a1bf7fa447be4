'use client';

import type { MethodOf } from '@/core/model';
import { historyShare } from '@/core/plan';
import { NumberInput, PercentInput } from '@/components/MoneyInput';
import { RefField } from '../inputs/RefField';
import { Choice, Field, RoundField, type FieldsProps } from '../inputs/parts';

/** A percentage of something, said or from history, in the same month or later. */
export function ShareFields(props: FieldsProps<MethodOf<'share'>>) {
  const { method, book, reckoned, account, segment, readOnly, onMethod, onEnter } = props;
  const line = reckoned.budget.lines.find((l) => l.account === account && l.segment === segment);
  const history = line ? historyShare(method, reckoned.reckoning.contextOf(line)) : null;
  return (
    <>
      <RefField
        label="Of"
        value={method.of}
        book={book}
        self={account}
        disabled={readOnly}
        onChange={(of) => of && onMethod({ ...method, of })}
      />
      <Choice
        label="The share is"
        value={method.percent === null ? 'history' : 'said'}
        disabled={readOnly}
        options={[
          { value: 'said', label: 'said here' },
          { value: 'history', label: history === null ? 'last year’s (none)' : `last year’s: ${history}%` },
        ]}
        onChange={(v) =>
          onMethod({ ...method, percent: v === 'history' ? null : ((history ?? '0') as never) })
        }
      />
      {method.percent !== null && (
        <Field label="Percentage">
          <PercentInput
            value={method.percent}
            disabled={readOnly}
            onEnter={onEnter}
            onCommit={(percent) => onMethod({ ...method, percent })}
          />
        </Field>
      )}
      <Field label="Months later">
        <NumberInput
          value={method.lag}
          least={0}
          most={36}
          disabled={readOnly}
          onEnter={onEnter}
          onCommit={(lag) => onMethod({ ...method, lag })}
        />
      </Field>
      <RoundField {...{ method, readOnly, onMethod }} />
    </>
  );
}
