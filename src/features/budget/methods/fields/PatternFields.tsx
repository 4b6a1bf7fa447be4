'use client';

import { Checkbox } from '@mantine/core';
import type { MethodOf } from '@/core/model';
import { RefField } from '../inputs/RefField';
import { AmountFields } from '../inputs/AmountFields';
import { LiftFields, RestField, type FieldsProps } from '../inputs/parts';
import classes from '../../Budget.module.css';

/** An amount and what it is shaped like. */
export function PatternFields(props: FieldsProps<MethodOf<'pattern'>>) {
  const { method, book, account, readOnly, onMethod, onEnter } = props;
  return (
    <>
      <AmountFields {...props} onMethod={(m) => onMethod(m as MethodOf<'pattern'>)} />
      <RefField
        label="Shaped like"
        value={method.like}
        own="its own months"
        book={book}
        self={account}
        disabled={readOnly}
        onChange={(like) => onMethod({ ...method, like })}
      />
      <div className={classes.field}>
        <span>Years</span>
        <span className={classes.checks}>
          {[1, 2, 3].map((n) => (
            <Checkbox
              key={n}
              size="xs"
              label={`−${n}`}
              aria-label={n === 1 ? 'last year' : `${n} years ago`}
              checked={method.years.includes(n)}
              disabled={readOnly}
              onChange={(e) => {
                const years = e.currentTarget.checked
                  ? [...method.years, n].sort()
                  : method.years.filter((y) => y !== n);
                if (years.length > 0) onMethod({ ...method, years });
              }}
            />
          ))}
        </span>
      </div>
      {method.amounts === null && <RestField {...{ method, reckoned: props.reckoned, readOnly, onMethod }} />}
      <LiftFields {...{ method, readOnly, onMethod, onEnter }} />
    </>
  );
}
