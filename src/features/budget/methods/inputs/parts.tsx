'use client';

import type { ReactNode } from 'react';
import { NativeSelect } from '@mantine/core';
import { splitEven, sum, ZERO, type Minor, type Percent } from '@/core/money';
import { fiscalYearLabel, type Period, type PeriodId } from '@/core/calendar';
import type { Book, Method, Rest, RoundUnit, Wholes } from '@/core/model';
import { monthsMissing, type Facts } from '@/core/plan';
import { MoneyInput, NumberInput, PercentInput } from '@/components/MoneyInput';
import type { Reckoned } from '@/core/ground';
import { toggleIn } from '../../sheet/setup';
import classes from '../../Budget.module.css';

/** What every method's fields work on. */
export type FieldsProps<M extends Method> = {
  readonly method: M;
  readonly book: Book;
  readonly reckoned: Reckoned;
  readonly account: string;
  readonly segment: string | null;
  readonly readOnly: boolean;
  readonly onMethod: (method: Method) => void;
  /** Whether what is typed so far could be kept, of fields that may hold what cannot. */
  readonly onReads?: (reads: boolean) => void;
  /** Enter in a field: what stands there is to be applied. */
  readonly onEnter: () => void;
};

/** A labelled field of a method; a wide one leaves more room to what is chosen than to its label. */
export const Field = ({
  label,
  wide,
  children,
}: {
  readonly label: string;
  readonly wide?: boolean;
  readonly children: ReactNode;
}) => (
  <label className={classes.field} data-wide={wide}>
    <span>{label}</span>
    {children}
  </label>
);

export type Option<T extends string> = { readonly value: T; readonly label: string };

/** A choice of a few, as a field. */
export function Choice<T extends string>({
  label,
  value,
  options,
  disabled,
  wide,
  onChange,
}: {
  readonly label: string;
  readonly value: T;
  readonly options: readonly Option<T>[];
  readonly disabled: boolean;
  readonly wide?: boolean;
  readonly onChange: (value: T) => void;
}) {
  return (
    <Field label={label} wide={wide}>
      <NativeSelect
        value={value}
        disabled={disabled}
        data={options as Option<T>[]}
        onChange={(e) => onChange(e.currentTarget.value as T)}
      />
    </Field>
  );
}

const ROUNDS: readonly Option<`${RoundUnit}`>[] = [
  { value: '0', label: 'Exact' },
  { value: '1', label: '1' },
  { value: '10', label: '10' },
  { value: '100', label: '100' },
  { value: '1000', label: '1,000' },
];

/** The rounding of a method's months. */
export function RoundField<M extends Extract<Method, { round: RoundUnit }>>({
  method,
  readOnly,
  onMethod,
}: Pick<FieldsProps<M>, 'method' | 'readOnly' | 'onMethod'>) {
  return (
    <Choice
      label="Round months to"
      value={`${method.round}`}
      options={ROUNDS}
      disabled={readOnly}
      onChange={(r) => onMethod({ ...method, round: Number(r) as RoundUnit })}
    />
  );
}

/** What stands in for months of the year before that have no actuals yet; asked for only where there are such. */
export function RestField<M extends Extract<Method, { rest?: Rest | undefined }>>({
  method,
  reckoned: { facts },
  readOnly,
  onMethod,
}: Pick<FieldsProps<M>, 'method' | 'reckoned' | 'readOnly' | 'onMethod'>) {
  if (method.rest === undefined && monthsMissing(facts).length === 0) return null;
  return (
    <Choice
      label="Months not there yet"
      wide
      value={method.rest ?? 'asIs'}
      options={[
        { value: 'asIs', label: 'as the ledger has them so far' },
        { value: 'yearEarlier', label: 'as the same month of the year before' },
        { value: 'average', label: 'as the average month' },
      ]}
      disabled={readOnly}
      onChange={(r) => {
        const { rest: _was, ...others } = method;
        onMethod((r === 'asIs' ? others : { ...method, rest: r }) as M);
      }}
    />
  );
}

/** A choice of one of some periods. */
export function PeriodField({
  label,
  value,
  periods,
  disabled,
  onChange,
}: {
  readonly label: string;
  readonly value: PeriodId;
  readonly periods: readonly Period[];
  readonly disabled: boolean;
  readonly onChange: (period: PeriodId) => void;
}) {
  return (
    <Choice<string>
      label={label}
      value={value}
      disabled={disabled}
      options={periods.map((p) => ({ value: p.id, label: p.label }))}
      onChange={(p) => onChange(p as PeriodId)}
    />
  );
}

/** When a step comes first, and how many months lie between steps. */
export function StepTimes({
  first,
  every,
  periods,
  disabled,
  onChange,
  onEnter,
}: {
  readonly first: PeriodId;
  readonly every: number;
  readonly periods: readonly Period[];
  readonly disabled: boolean;
  readonly onChange: (change: { readonly first?: PeriodId; readonly every?: number }) => void;
  readonly onEnter?: () => void;
}) {
  return (
    <>
      <PeriodField
        label="First in"
        value={first}
        periods={periods}
        disabled={disabled}
        onChange={(p) => onChange({ first: p })}
      />
      <Field label="Every … months">
        <NumberInput
          value={every}
          least={1}
          most={120}
          disabled={disabled}
          onEnter={onEnter}
          onCommit={(n) => onChange({ every: n })}
        />
      </Field>
    </>
  );
}

/** A few small buttons of which some are pressed: months, weekdays. */
export function Picks<T extends number>({
  label,
  names,
  chosen,
  disabled,
  onChange,
}: {
  readonly label: string;
  readonly names: readonly (readonly [T, string])[];
  readonly chosen: readonly T[];
  readonly disabled: boolean;
  /** The new choice, in order. */
  readonly onChange: (chosen: T[]) => void;
}) {
  return (
    <div className={classes.monthPicks} role="group" aria-label={label}>
      {names.map(([value, name]) => (
        <button
          key={value}
          type="button"
          disabled={disabled}
          aria-pressed={chosen.includes(value)}
          onClick={() => onChange(toggleIn(chosen, value).sort((a, b) => a - b))}
        >
          {name}
        </button>
      ))}
    </div>
  );
}

/** Uplift and rounding, of the methods that have both. */
export function LiftFields<M extends Extract<Method, { uplift: Percent; round: RoundUnit }>>({
  method,
  readOnly,
  onMethod,
  onEnter,
}: Pick<FieldsProps<M>, 'method' | 'readOnly' | 'onMethod' | 'onEnter'>) {
  return (
    <>
      <Field label="Uplift">
        <PercentInput
          value={method.uplift}
          disabled={readOnly}
          onEnter={onEnter}
          onCommit={(uplift) => onMethod({ ...method, uplift })}
        />
      </Field>
      <RoundField {...{ method, readOnly, onMethod }} />
    </>
  );
}

/** An amount added to each month. */
export function AddField<M extends Extract<Method, { add: Minor }>>({
  method,
  book,
  readOnly,
  onMethod,
  onEnter,
}: Pick<FieldsProps<M>, 'method' | 'book' | 'readOnly' | 'onMethod' | 'onEnter'>) {
  return (
    <Field label="Add each month">
      <MoneyInput
        currency={book.currency}
        locale={book.locale}
        value={method.add === 0 ? null : method.add}
        placeholder="nothing"
        disabled={readOnly}
        onEnter={onEnter}
        onCommit={(add) => onMethod({ ...method, add: add ?? ZERO })}
      />
    </Field>
  );
}

/** Labels of the budget's years, or of its quarters. */
function spanLabels({ periods, years, quarters }: Facts, per: Wholes['per']): string[] {
  const spans = per === 'year' ? years : quarters;
  return spans.map(({ from, to }) => {
    const p = periods[from]!;
    const whole = per === 'year' ? to - from === 12 : to - from === 3;
    const label = per === 'year' ? fiscalYearLabel(p.year) : `Q${p.quarter} ${fiscalYearLabel(p.year)}`;
    return whole ? label : `${label}, ${to - from} months`;
  });
}

/** Amounts of years or quarters; blank amounts say nothing. */
export function WholesFields({
  wholes,
  book,
  facts,
  readOnly,
  onChange,
  onEnter,
}: {
  readonly wholes: Wholes;
  readonly book: Book;
  readonly facts: Facts;
  readonly readOnly: boolean;
  readonly onChange: (wholes: Wholes) => void;
  readonly onEnter: () => void;
}) {
  const labels = spanLabels(facts, wholes.per);
  return (
    <>
      <Choice
        label="Amounts"
        value={wholes.per}
        disabled={readOnly}
        options={[
          { value: 'year', label: 'of the year' },
          { value: 'quarter', label: 'of each quarter' },
        ]}
        onChange={(per) => onChange(asPer(wholes, per, facts))}
      />
      {labels.map((label, k) => (
        <Field key={label} label={label}>
          <MoneyInput
            currency={book.currency}
            locale={book.locale}
            value={wholes.amounts[k] ?? null}
            disabled={readOnly}
            onEnter={onEnter}
            onCommit={(amount) =>
              onChange({
                ...wholes,
                amounts: labels.map((_, j) => (j === k ? amount : (wholes.amounts[j] ?? null))),
              })
            }
          />
        </Field>
      ))}
    </>
  );
}

/** The same amounts said of years instead of quarters, or evenly of quarters instead of years. */
function asPer(wholes: Wholes, per: Wholes['per'], { years, quarters }: Facts): Wholes {
  if (wholes.per === per) return wholes;
  const yearOf = (k: number) =>
    years.findIndex((y) => quarters[k]!.from >= y.from && quarters[k]!.to <= y.to);
  if (per === 'year')
    return {
      per,
      amounts: years.map((_, y) =>
        sum(quarters.flatMap((_, k) => (yearOf(k) === y ? [wholes.amounts[k] ?? ZERO] : []))),
      ),
    };
  return {
    per,
    amounts: quarters.map((_, k) => {
      const y = yearOf(k);
      const inYear = quarters.flatMap((_, j) => (yearOf(j) === y ? [j] : []));
      const amount = wholes.amounts[y] ?? null;
      return amount === null ? null : splitEven(amount, inYear.length)[inYear.indexOf(k)]!;
    }),
  };
}
