'use client';

import { Fragment } from 'react';
import { Button, TextInput } from '@mantine/core';
import { minor } from '@/core/money';
import { parseIsoDay, type Day } from '@/core/calendar';
import type { MethodOf, Occurrence } from '@/core/model';
import { occurrencesIn } from '@/core/schedule';
import { MoneyInput, NumberInput } from '@/components/MoneyInput';
import { WorkWeekFields } from '../inputs/WorkWeekFields';
import { Choice, Field, Picks, type FieldsProps } from '../inputs/parts';
import classes from '../../Budget.module.css';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

type When =
  'weekly' | 'biweekly' | 'fourWeekly' | 'weeks' | 'twiceMonthly' | 'monthly' | 'weekdays' | 'workingDays';

const whenOf = (on: Occurrence): When => {
  switch (on.of) {
    case 'weeks':
      return on.every === 1
        ? 'weekly'
        : on.every === 2
          ? 'biweekly'
          : on.every === 4
            ? 'fourWeekly'
            : 'weeks';
    case 'monthDays':
      return on.days.length > 1 ? 'twiceMonthly' : 'monthly';
    default:
      return on.of;
  }
};

/** An amount and the days on which it falls; the months with more of them than most are shown. */
export function OccurrenceFields({
  method,
  book,
  reckoned,
  readOnly,
  onMethod,
  onEnter,
}: FieldsProps<MethodOf<'occurrence'>>) {
  const { facts } = reckoned;
  const { on } = method;
  const from = on.of === 'weeks' ? on.from : facts.periods[0]!.start;
  const money = { currency: book.currency, locale: book.locale, disabled: readOnly, onEnter };
  const set = (next: Occurrence) => onMethod({ ...method, on: next });
  const later = method.later ?? [];
  const setLater = (next: typeof later) => onMethod({ ...method, later: next.length > 0 ? next : undefined });
  /** The middle of what is left of the budget, where a raise is most often met. */
  const halfway = (so: typeof later) => {
    const open = facts.periods.filter((p) => !so.length || p.start > so.at(-1)!.from);
    return (open[Math.floor(open.length / 2)] ?? facts.periods.at(-1)!).start;
  };
  const counts = facts.periods.map((p) => occurrencesIn(p, on, facts.workWeek).length);
  const usual = Math.min(...counts.filter((c) => c > 0));
  return (
    <>
      <Field label="Amount each time">
        <MoneyInput
          {...money}
          value={method.amount}
          onCommit={(amount) => onMethod({ ...method, amount: amount ?? minor(0) })}
        />
      </Field>
      {later.map((change, k) => (
        <Fragment key={k}>
          <Field label="Then, from">
            <DayInput
              value={change.from}
              disabled={readOnly}
              onCommit={(from) => setLater(later.map((x, j) => (j === k ? { ...x, from } : x)))}
            />
          </Field>
          <Field label="it is, each time">
            <MoneyInput
              {...money}
              value={change.amount}
              onCommit={(amount) =>
                setLater(
                  amount === null
                    ? later.filter((_, j) => j !== k)
                    : later.map((x, j) => (j === k ? { ...x, amount } : x)),
                )
              }
            />
          </Field>
        </Fragment>
      ))}
      {!readOnly && (
        <Button
          size="compact-xs"
          variant="subtle"
          disabled={later.length >= 24}
          onClick={() =>
            setLater([...later, { from: halfway(later), amount: later.at(-1)?.amount ?? method.amount }])
          }
        >
          Another amount from a day on
        </Button>
      )}
      <Choice
        label="It falls"
        value={whenOf(on)}
        disabled={readOnly}
        options={[
          { value: 'weekly', label: 'every week' },
          { value: 'biweekly', label: 'every two weeks' },
          { value: 'fourWeekly', label: 'every four weeks' },
          { value: 'weeks', label: 'every so many weeks' },
          { value: 'twiceMonthly', label: 'twice a month' },
          { value: 'monthly', label: 'once a month' },
          { value: 'weekdays', label: 'on weekdays of the week' },
          { value: 'workingDays', label: 'on every working day' },
        ]}
        onChange={(when) => {
          switch (when) {
            case 'weekly':
            case 'biweekly':
            case 'fourWeekly':
            case 'weeks':
              return set({
                of: 'weeks',
                every: { weekly: 1, biweekly: 2, fourWeekly: 4, weeks: 3 }[when],
                from,
              });
            case 'twiceMonthly':
              return set({ of: 'monthDays', days: [15, 31] });
            case 'monthly':
              return set({ of: 'monthDays', days: [31] });
            case 'weekdays':
              return set({ of: 'weekdays', weekdays: [6] });
            case 'workingDays':
              return set({ of: 'workingDays' });
          }
        }}
      />
      {on.of === 'weeks' && (
        <>
          {whenOf(on) === 'weeks' && (
            <Field label="Weeks between">
              <NumberInput
                value={on.every}
                least={1}
                most={52}
                disabled={readOnly}
                onEnter={onEnter}
                onCommit={(every) => set({ ...on, every })}
              />
            </Field>
          )}
          <Field label="From the day">
            <DayInput value={on.from} disabled={readOnly} onCommit={(from) => set({ ...on, from })} />
          </Field>
        </>
      )}
      {on.of === 'monthDays' &&
        on.days.map((d, i) => (
          <Field
            key={i}
            label={on.days.length > 1 ? `Day ${i + 1} (31 is the last)` : 'Day (31 is the last)'}
          >
            <NumberInput
              value={d}
              least={1}
              most={31}
              disabled={readOnly}
              onEnter={onEnter}
              onCommit={(day) => set({ ...on, days: on.days.map((x, k) => (k === i ? day : x)) })}
            />
          </Field>
        ))}
      {on.of === 'weekdays' && (
        <Picks
          label="Weekdays"
          names={DAYS.map((name, i) => [i + 1, name] as const)}
          chosen={on.weekdays}
          disabled={readOnly}
          onChange={(weekdays) => weekdays.length > 0 && set({ of: 'weekdays', weekdays })}
        />
      )}
      {on.of === 'workingDays' && <WorkWeekFields book={book} readOnly={readOnly} />}
      <ol className={classes.counts} aria-label="How often in each month">
        {facts.periods.map((p, i) => (
          <li key={p.id} data-more={counts[i]! > usual || undefined}>
            <span>{p.short}</span>
            <b>{counts[i]}</b>
          </li>
        ))}
      </ol>
    </>
  );
}

/** A day, taken when its field is left. */
function DayInput({
  value,
  disabled,
  onCommit,
}: {
  readonly value: Day;
  readonly disabled: boolean;
  readonly onCommit: (day: Day) => void;
}) {
  return (
    <TextInput
      key={value}
      type="date"
      defaultValue={value}
      disabled={disabled}
      onBlur={(e) => {
        const day = parseIsoDay(e.currentTarget.value);
        if (day && day !== value) onCommit(day);
      }}
    />
  );
}
