'use client';

import { Fragment } from 'react';
import { Button, NativeSelect, TextInput } from '@mantine/core';
import { minor } from '@/core/money';
import { parseIsoDay, type Day } from '@/core/calendar';
import type { MethodOf, Occurrence } from '@/core/model';
import { historyShare, occurrencesIn } from '@/core/plan';
import { MoneyInput, NumberInput, PercentInput } from '@/components/MoneyInput';
import { scaledText } from '@/components/readScaled';
import { setSession } from '@/store/session';
import { FormulaField } from './FormulaField';
import { WorkWeekFields } from './LedgerFields';
import { RefField } from './RefField';
import { Choice, Field, Picks, RoundField, StepTimes, WholesFields, type FieldsProps } from './parts';
import classes from '../Budget.module.css';

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

/** The drivers that are multiplied. */
export function DriverFields({
  method,
  book,
  reckoned,
  readOnly,
  onMethod,
}: FieldsProps<MethodOf<'driver'>>) {
  const { drivers } = reckoned.budget;
  const { factors } = method;
  const options = drivers.map((d) => ({ value: d.id, label: `${d.name}${d.unit ? ` (${d.unit})` : ''}` }));
  const set = (next: readonly string[]) => onMethod({ ...method, factors: [...next] });
  return (
    <>
      {factors.map((f, i) => {
        const driver = drivers.find((d) => d.id === f);
        const first = reckoned.reckoning.drivers.get(f)?.values[0] ?? null;
        return (
          <Field
            key={i}
            label={`${i === 0 ? 'Take' : '×'}${driver && first !== null ? ` ${scaledText(first, driver.decimals, book.locale)} …` : ''}`}
          >
            <NativeSelect
              value={driver ? f : ''}
              disabled={readOnly}
              data={[
                ...(driver ? [] : [{ value: '', label: 'a driver that is gone' }]),
                ...options,
                ...(factors.length > 1 ? [{ value: '-', label: 'take this one away' }] : []),
              ]}
              onChange={(e) => {
                const to = e.currentTarget.value;
                set(
                  to === '-' ? factors.filter((_, k) => k !== i) : factors.map((x, k) => (k === i ? to : x)),
                );
              }}
            />
          </Field>
        );
      })}
      {factors.length < 6 && !readOnly && (
        <Field label="×">
          <NativeSelect
            value=""
            data={[{ value: '', label: 'one more driver' }, ...options]}
            onChange={(e) => e.currentTarget.value && set([...factors, e.currentTarget.value])}
          />
        </Field>
      )}
      <RoundField {...{ method, readOnly, onMethod }} />
      <Button mt={6} onClick={() => setSession({ budgetView: 'drivers' })}>
        The drivers sheet
      </Button>
    </>
  );
}

/** Arithmetic with names. */
export function FormulaFields({
  method,
  book,
  reckoned,
  account,
  readOnly,
  onMethod,
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
        onEnter={onEnter}
      />
      <RoundField {...{ method, readOnly, onMethod }} />
    </>
  );
}

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
