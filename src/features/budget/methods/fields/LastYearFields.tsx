'use client';

import { NativeSelect } from '@mantine/core';
import type { MethodOf } from '@/core/model';
import { MoneyInput } from '@/components/MoneyInput';
import { yearsTo } from '@/core/ground';
import {
  AddField,
  Choice,
  Field,
  LiftFields,
  RestField,
  type FieldsProps,
  type Option,
} from '../inputs/parts';

/** What months are taken from, and the lumps that will not come back. */
export function LastYearFields(props: FieldsProps<MethodOf<'lastYear'>>) {
  const { method, book, reckoned, readOnly, onMethod, onEnter } = props;
  const { from } = method;
  const { facts } = reckoned;
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
  return (
    <>
      <Choice
        label="Taken from"
        wide
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
                  years: yearsTo(
                    facts.calendar,
                    facts.periods[0]!.index,
                    others.find((b) => b.id === v.slice(1))!,
                  ),
                },
          })
        }
      />
      {from.of !== 'budget' && <RestField {...{ method, reckoned, readOnly, onMethod }} />}
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
