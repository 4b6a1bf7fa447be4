'use client';

import type { MethodOf, Phasing } from '@/core/model';
import { NumberInput } from '@/components/MoneyInput';
import { PHASING_WORDS } from '../../words';
import { keepNewWeights, WeightsField } from '../inputs/WeightsField';
import { WorkWeekFields } from '../inputs/WorkWeekFields';
import { AmountFields } from '../inputs/AmountFields';
import {
  Choice,
  Field,
  LiftFields,
  RestField,
  PeriodField,
  Picks,
  type FieldsProps,
  type Option,
} from '../inputs/parts';

const PHASINGS: readonly Option<Phasing['by']>[] = (Object.keys(PHASING_WORDS) as Phasing['by'][]).map(
  (value) => ({ value, label: PHASING_WORDS[value] }),
);

/** An amount and the rule by which it is divided. */
export function PhasedFields(props: FieldsProps<MethodOf<'phased'>>) {
  const { method, book, reckoned, readOnly, onMethod, onEnter } = props;
  const { by } = method;
  const { periods } = reckoned.facts;
  const set = (next: Phasing) => onMethod({ ...method, by: next });
  return (
    <>
      <AmountFields {...props} onMethod={(m) => onMethod(m as MethodOf<'phased'>)} />
      <Choice
        label="Divided"
        wide
        value={by.by}
        disabled={readOnly}
        options={PHASINGS}
        onChange={(to) => {
          switch (to) {
            case 'weeks':
              return set({ by: to, pattern: '4-4-5' });
            case 'months':
              return set({
                by: to,
                numbers: [3, 6, 9, 12]
                  .filter((n) => periods.some((p) => p.number === n))
                  .slice(0, 12) as number[],
              });
            case 'every':
              return set({ by: to, first: periods[0]!.id, months: 3 });
            case 'weights':
              return set({ by: to, weights: book.weights[0]?.id ?? keepNewWeights(book, periods) });
            default:
              return set({ by: to });
          }
        }}
      />
      {by.by === 'weeks' && (
        <Choice
          label="Weeks of a quarter"
          value={by.pattern}
          disabled={readOnly}
          options={(['4-4-5', '4-5-4', '5-4-4'] as const).map((value) => ({ value, label: value }))}
          onChange={(pattern) => set({ by: 'weeks', pattern })}
        />
      )}
      {by.by === 'months' && (
        <Picks
          label="Months"
          names={[...new Map(periods.map((p) => [p.number, p.short])).entries()].sort((a, b) => a[0] - b[0])}
          chosen={by.numbers}
          disabled={readOnly}
          onChange={(numbers) => numbers.length > 0 && set({ by: 'months', numbers })}
        />
      )}
      {by.by === 'every' && (
        <>
          <PeriodField
            label="From"
            value={by.first}
            periods={periods}
            disabled={readOnly}
            onChange={(first) => set({ ...by, first })}
          />
          <Field label="Every … months">
            <NumberInput
              value={by.months}
              least={1}
              most={120}
              disabled={readOnly}
              onEnter={onEnter}
              onCommit={(months) => set({ ...by, months })}
            />
          </Field>
        </>
      )}
      {by.by === 'weights' && (
        <WeightsField
          id={by.weights}
          book={book}
          periods={periods}
          readOnly={readOnly}
          onChoose={(weights) => set({ by: 'weights', weights })}
        />
      )}
      {by.by === 'workingDays' && <WorkWeekFields book={book} readOnly={readOnly} />}
      {method.amounts === null && <RestField {...{ method, reckoned: props.reckoned, readOnly, onMethod }} />}
      <LiftFields {...{ method, readOnly, onMethod, onEnter }} />
    </>
  );
}
