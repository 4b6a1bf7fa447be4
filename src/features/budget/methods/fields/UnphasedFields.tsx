'use client';

import type { MethodOf } from '@/core/model';
import { WholesFields, type FieldsProps } from '../inputs/parts';

/** Amounts of whole years. */
export function UnphasedFields({
  method,
  book,
  reckoned,
  readOnly,
  onMethod,
  onEnter,
}: FieldsProps<MethodOf<'unphased'>>) {
  return (
    <WholesFields
      wholes={method.amounts}
      book={book}
      facts={reckoned.facts}
      readOnly={readOnly}
      onEnter={onEnter}
      onChange={(amounts) => onMethod({ ...method, amounts })}
    />
  );
}
