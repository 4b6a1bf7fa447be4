'use client';

import type { MethodOf } from '@/core/model';
import { FormulaField } from '@/components/formula/FormulaField';
import { RoundField, type FieldsProps } from '../inputs/parts';

/** Arithmetic with names. */
export function FormulaFields({
  method,
  book,
  reckoned,
  account,
  readOnly,
  onMethod,
  onReads,
  onEnter,
}: FieldsProps<MethodOf<'formula'>>) {
  return (
    <>
      <FormulaField
        kept={method.formula}
        accounts={book.accounts.filter((a) => a.id !== account)}
        drivers={reckoned.budget.drivers}
        self={book.accounts.find((a) => a.id === account) ?? null}
        readOnly={readOnly}
        onKept={(formula) => onMethod({ ...method, formula })}
        {...(onReads && { onReads })}
        onEnter={onEnter}
      />
      <RoundField {...{ method, readOnly, onMethod }} />
    </>
  );
}
