'use client';

import { Checkbox, NativeSelect, TextInput } from '@mantine/core';
import type { MethodOf, Phasing } from '@/core/model';
import { parseIsoDay } from '@/core/calendar';
import { MoneyInput, NumberInput } from '@/components/MoneyInput';
import { dispatch } from '@/store/bookStore';
import { PHASING_WORDS } from '../words';
import { wholesOf } from '../methodChange';
import { RefField } from './RefField';
import { keepNewWeights, WeightsField } from './WeightsField';
import {
  AddField,
  Choice,
  Field,
  LiftFields,
  PeriodField,
  Picks,
  WholesFields,
  type FieldsProps,
  type Option,
} from './parts';
import classes from '../Budget.module.css';

/** What months are taken from, and the lumps that will not come back. */
export function LastYearFields(props: FieldsProps<MethodOf<'lastYear'>>) {
  const { method, book, reckoned, readOnly, onMethod, onEnter } = props;
  const { from } = method;
  const others = book.budgets.filter((b) => b.id !== reckoned.budget.id);
  const sources: Option<string>[] = [
    ...[1, 2, 3].map((n) => ({
      value: `a${n}`,
      label: n === 1 ? 'last year’s actuals' : `actuals ${n} years ago`,
    })),
    ...others.flatMap((b) => [
      { value: `o${b.id}`, label: `outlook: actuals, then ${b.name}` },
      { value: `b${b.id}`, label: `budget: ${b.name}` },
    ]),
  ];
  const value =
    from.of === 'actuals' ? `a${from.years}` : `${from.of === 'outlook' ? 'o' : 'b'}${from.budget}`;
  const yearsTo = (id: string) => {
    const other = book.budgets.find((b) => b.id === id)!;
    return Math.max(0, Number(reckoned.budget.first.slice(0, 4)) - Number(other.first.slice(0, 4)));
  };
  return (
    <>
      <Choice
        label="Taken from"
        value={value}
        disabled={readOnly}
        options={
          sources.some((s) => s.value === value)
            ? sources
            : [...sources, { value, label: 'a budget that is gone' }]
        }
        onChange={(v) =>
          onMethod({
            ...method,
            from: v.startsWith('a')
              ? { of: 'actuals', years: Number(v.slice(1)) }
              : {
                  of: v.startsWith('o') ? 'outlook' : 'budget',
                  budget: v.slice(1),
                  years: yearsTo(v.slice(1)),
                },
          })
        }
      />
      <AddField {...{ method, book, readOnly, onMethod, onEnter }} />
      <LiftFields {...{ method, readOnly, onMethod, onEnter }} />
      <SkipFields {...props} />
    </>
  );
}

/** The months whose lump is left out: none is chosen until the person says so. */
function SkipFields({
  method,
  book,
  reckoned,
  account,
  segment,
  readOnly,
  onMethod,
  onEnter,
}: FieldsProps<MethodOf<'lastYear'>>) {
  const { periods } = reckoned.facts;
  const { lastYear } = reckoned.facts.past(account, segment);
  const set = (id: string, value: number | null | undefined) => {
    const { [id]: _was, ...rest } = method.skip;
    onMethod({
      ...method,
      skip: value === undefined ? rest : ({ ...rest, [id]: value } as typeof method.skip),
    });
  };
  const chosen = periods.filter((p) => Object.hasOwn(method.skip, p.id));
  return (
    <>
      <Field label="Leave out a lump of">
        <NativeSelect
          value=""
          disabled={readOnly}
          data={[
            { value: '', label: 'choose a month' },
            ...periods
              .filter((p, i) => lastYear[i] && !Object.hasOwn(method.skip, p.id))
              .map((p) => ({ value: p.id, label: p.label })),
          ]}
          onChange={(e) => e.currentTarget.value && set(e.currentTarget.value, null)}
        />
      </Field>
      {chosen.map((p) => (
        <Field key={p.id} label={`${p.label}, less`}>
          <MoneyInput
            currency={book.currency}
            locale={book.locale}
            value={method.skip[p.id] ?? null}
            placeholder="all of it"
            disabled={readOnly}
            onEnter={onEnter}
            onCommit={(v) => set(p.id, v)}
            rightSection={
              <button type="button" aria-label={`Keep ${p.label}`} onClick={() => set(p.id, undefined)}>
                ×
              </button>
            }
          />
        </Field>
      ))}
    </>
  );
}

/** Which months the average is taken of. */
export function RunRateFields({
  method,
  book,
  reckoned,
  readOnly,
  onMethod,
  onEnter,
}: FieldsProps<MethodOf<'runRate'>>) {
  const { facts } = reckoned;
  const { over } = method;
  const known = facts.window;
  return (
    <>
      <Choice
        label="Average of"
        value={over.of}
        disabled={readOnly}
        options={[
          { value: 'all', label: `all ${known.length} months` },
          { value: 'last', label: 'the last months' },
          { value: 'range', label: 'a range of months' },
        ]}
        onChange={(of) =>
          onMethod({
            ...method,
            over:
              of === 'all'
                ? { of }
                : of === 'last'
                  ? { of, months: 3 }
                  : {
                      of,
                      first: (known[0] ?? facts.periods[0]!).id,
                      last: (known.at(-1) ?? facts.periods[0]!).id,
                    },
          })
        }
      />
      {over.of === 'last' && (
        <Field label="How many">
          <NumberInput
            value={over.months}
            least={1}
            most={120}
            disabled={readOnly}
            onEnter={onEnter}
            onCommit={(months) => onMethod({ ...method, over: { of: 'last', months } })}
          />
        </Field>
      )}
      {over.of === 'range' &&
        (['first', 'last'] as const).map((end) => (
          <PeriodField
            key={end}
            label={end === 'first' ? 'From' : 'To'}
            value={over[end]}
            periods={known}
            disabled={readOnly}
            onChange={(p) => onMethod({ ...method, over: { ...over, [end]: p } })}
          />
        ))}
      <AddField {...{ method, book, readOnly, onMethod, onEnter }} />
      <LiftFields {...{ method, readOnly, onMethod, onEnter }} />
    </>
  );
}

/** Where an annual amount comes from: said, or the year before's. */
function AmountFields(props: FieldsProps<MethodOf<'phased'> | MethodOf<'pattern'>>) {
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
      <LiftFields {...{ method, readOnly, onMethod, onEnter }} />
    </>
  );
}

const DAYS = ['Mo', 'Tu', 'We', 'Th', 'Fr', 'Sa', 'Su'];

/** The company's working days: of the week, and the holidays; one setting for the whole book. */
export function WorkWeekFields({
  book,
  readOnly,
}: Pick<FieldsProps<MethodOf<'phased'>>, 'book' | 'readOnly'>) {
  const { weekdays, holidays } = book.workWeek;
  return (
    <div className={classes.workWeek}>
      <Picks
        label="Working days of the week"
        names={DAYS.map((name, i) => [i + 1, name] as const)}
        chosen={weekdays}
        disabled={readOnly}
        onChange={(days) => dispatch({ type: 'setWorkWeek', workWeek: { holidays, weekdays: days } })}
      />
      <TextInput
        key={holidays.join()}
        label="Holidays"
        description="Days as 2026-12-25, with spaces between"
        defaultValue={holidays.join(' ')}
        disabled={readOnly}
        onBlur={(e) => {
          const days = e.currentTarget.value
            .split(/[\s,;]+/)
            .map((t) => parseIsoDay(t))
            .filter((d) => d !== null);
          const next = [...new Set(days)].sort();
          if (next.join() !== holidays.join())
            dispatch({ type: 'setWorkWeek', workWeek: { weekdays, holidays: next } });
        }}
      />
    </div>
  );
}

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
      <LiftFields {...{ method, readOnly, onMethod, onEnter }} />
    </>
  );
}
