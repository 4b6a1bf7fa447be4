'use client';

import type { MethodOf } from '@/core/model';
import { wholesOf } from '../methodChange';
import { Choice, WholesFields, type FieldsProps } from './parts';

/** Where an annual amount comes from: said, or the year before's. */
export function AmountFields(props: FieldsProps<MethodOf<'phased'> | MethodOf<'pattern'>>) {
  const { method, book, reckoned, account, segment, readOnly, onMethod, onEnter } = props;
  const result = reckoned.reckoning.lines.get({ account, segment });
  return (
    <>
      <Choice
        label="The amount is"
        value={method.amounts === null ? 'lastYear' : 'said'}
        disabled={readOnly}
        options={[
          { value: 'said', label: 'said here' },
          { value: 'lastYear', label: 'last year’s total' },
        ]}
        onChange={(v) =>
          onMethod({ ...method, amounts: v === 'lastYear' ? null : wholesOf(result, reckoned.facts) })
        }
      />
      {method.amounts && (
        <WholesFields
          wholes={method.amounts}
          book={book}
          facts={reckoned.facts}
          readOnly={readOnly}
          onEnter={onEnter}
          onChange={(amounts) => onMethod({ ...method, amounts })}
        />
      )}
    </>
  );
}
