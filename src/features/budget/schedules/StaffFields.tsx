'use client';

import { TextInput } from '@mantine/core';
import { minor, percent } from '@/core/money';
import { LIMITS, segmentName, type RowOf } from '@/core/model';
import { DayInput } from '@/components/DayInput';
import { DueFields } from '@/components/DueFields';
import { MoneyInput, PercentInput, ScaledInput } from '@/components/MoneyInput';
import { Choice, Field } from '../methods/inputs/parts';
import { ListField, PurposeField } from './fields';
import { everyOtherFriday } from './scheduleEdits';
import type { RowFieldsProps } from './RowPanel';
import classes from './Schedules.module.css';

type Year = RowOf<'staff'>['oncosts'][number]['year'];
const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];

/** What of a position the table does not show: paydays, on-costs, raises, what is withheld, whose cost it is. */
export function StaffFields({ row, book, budget, facts, readOnly, onRow }: RowFieldsProps<'staff'>) {
  const money = { currency: book.currency, locale: book.locale, disabled: readOnly };
  const axis = book.axes.find((a) => a.id === budget.axis);
  const paid =
    row.paydays.of === 'weeks'
      ? `${row.paydays.every}`
      : row.paydays.of === 'monthDays'
        ? row.paydays.days.length === 2
          ? 'twice'
          : 'month'
        : 'other';
  return (
    <>
      <section>
        <div className="label">Paid</div>
        <Choice
          label="Paydays"
          wide
          value={paid}
          disabled={readOnly}
          options={[
            { value: 'month', label: 'monthly' },
            { value: 'twice', label: 'twice a month' },
            { value: '2', label: 'every two weeks' },
            { value: '1', label: 'every week' },
            ...(paid === '1' || paid === '2' || paid === 'month' || paid === 'twice'
              ? []
              : [{ value: paid, label: 'as it was said' }]),
          ]}
          onChange={(v) =>
            onRow({
              ...row,
              paydays:
                v === 'month'
                  ? { of: 'monthDays', days: [31] }
                  : v === 'twice'
                    ? { of: 'monthDays', days: [15, 31] }
                    : v === '1' || v === '2'
                      ? ({
                          ...(row.paydays.of === 'weeks' ? row.paydays : everyOtherFriday(facts.periods)),
                          of: 'weeks',
                          every: Number(v),
                        } as RowOf<'staff'>['paydays'])
                      : row.paydays,
            })
          }
        />
        {row.paydays.of === 'weeks' && (
          <Field label="One of them">
            <DayInput
              value={row.paydays.from}
              disabled={readOnly}
              onCommit={(from) =>
                from && row.paydays.of === 'weeks' && onRow({ ...row, paydays: { ...row.paydays, from } })
              }
            />
          </Field>
        )}
        {row.pay.per === 'hour' && (
          <>
            <Choice
              label="Hours"
              wide
              value={row.pay.hours.of === 'month' ? '' : row.pay.hours.driver}
              disabled={readOnly}
              options={[
                { value: '', label: 'so many a month' },
                ...budget.drivers.map((d) => ({ value: d.id, label: d.name })),
              ]}
              onChange={(driver) =>
                onRow({
                  ...row,
                  pay: {
                    per: 'hour',
                    amount: row.pay.amount,
                    hours: driver === '' ? { of: 'month', hours: 16_000 } : { of: 'driver', driver },
                  },
                })
              }
            />
            {row.pay.hours.of === 'month' && (
              <Field label="Hours a month">
                <ScaledInput
                  value={row.pay.hours.hours}
                  decimals={2}
                  locale={book.locale}
                  disabled={readOnly}
                  onCommit={(hours) =>
                    hours !== null &&
                    hours >= 0 &&
                    onRow({
                      ...row,
                      pay: { per: 'hour', amount: row.pay.amount, hours: { of: 'month', hours } },
                    })
                  }
                />
              </Field>
            )}
          </>
        )}
        <Field label="Withheld">
          <PercentInput
            value={row.withheld}
            disabled={readOnly}
            onCommit={(withheld) => onRow({ ...row, withheld })}
          />
        </Field>
        <div className={classes.due}>
          <span>It and the on-costs are due</span>
          <DueFields
            quiet
            label="It and the on-costs are due"
            value={row.remitted}
            readOnly={readOnly}
            onValue={(remitted) => onRow({ ...row, remitted })}
          />
        </div>
        <PurposeField
          label="Owed on"
          purpose="withheld"
          none="no account of the book"
          book={book}
          value={row.through}
          readOnly={readOnly}
          onValue={(through) => onRow({ ...row, through })}
        />
      </section>
      <ListField
        label="On-costs of the employer"
        items={row.oncosts}
        add="Add an on-cost"
        most={12}
        fresh={() => ({ name: 'On-cost', percent: percent('5'), cap: null, year: 'fiscal' as Year })}
        readOnly={readOnly}
        onItems={(oncosts) => onRow({ ...row, oncosts })}
      >
        {(o, set, i) => (
          <>
            <TextInput
              aria-label={`Name of on-cost ${i + 1}`}
              key={o.name}
              defaultValue={o.name}
              maxLength={LIMITS.accountName}
              disabled={readOnly}
              onBlur={(e) => e.currentTarget.value !== o.name && set({ ...o, name: e.currentTarget.value })}
            />
            <Field label="Of the pay">
              <PercentInput
                value={o.percent}
                disabled={readOnly}
                onCommit={(p) => set({ ...o, percent: p })}
              />
            </Field>
            <Field label="Up to a year’s pay of">
              <MoneyInput
                {...money}
                placeholder="no cap"
                value={o.cap}
                onCommit={(cap) => (cap === null || cap >= 0) && set({ ...o, cap })}
              />
            </Field>
            {o.cap !== null && (
              <Choice
                label="A year from"
                value={String(o.year)}
                disabled={readOnly}
                options={[
                  { value: 'fiscal', label: 'the fiscal year' },
                  ...MONTHS.map((m, k) => ({ value: String(k + 1), label: m })),
                ]}
                onChange={(y) => set({ ...o, year: y === 'fiscal' ? y : (Number(y) as Year) })}
              />
            )}
          </>
        )}
      </ListField>
      <section>
        <PurposeField
          label="On-costs go to"
          purpose="oncosts"
          none="the same line"
          book={book}
          value={row.oncostAccount}
          readOnly={readOnly}
          onValue={(oncostAccount) => onRow({ ...row, oncostAccount })}
        />
      </section>
      <ListField
        label="Raises"
        items={row.raises}
        add="Add a raise"
        most={40}
        fresh={() => ({
          from: facts.periods[Math.floor(facts.periods.length / 2)]!.start,
          change: { of: 'percent' as const, percent: percent('3') },
        })}
        readOnly={readOnly}
        onItems={(raises) => onRow({ ...row, raises })}
      >
        {(r, set, i) => (
          <>
            <DayInput
              aria-label={`Raise ${i + 1} from`}
              value={r.from}
              disabled={readOnly}
              onCommit={(from) => from && set({ ...r, from })}
            />
            <Choice
              label="by"
              value={r.change.of}
              disabled={readOnly}
              options={[
                { value: 'percent', label: 'percent' },
                { value: 'amount', label: 'an amount' },
              ]}
              onChange={(of) =>
                set({
                  ...r,
                  change: of === 'percent' ? { of, percent: percent('3') } : { of, amount: minor(0) },
                })
              }
            />
            <Field label="Raise">
              {r.change.of === 'percent' ? (
                <PercentInput
                  value={r.change.percent}
                  disabled={readOnly}
                  onCommit={(p) => set({ ...r, change: { of: 'percent', percent: p } })}
                />
              ) : (
                <MoneyInput
                  {...money}
                  value={r.change.amount}
                  onCommit={(a) => set({ ...r, change: { of: 'amount', amount: a ?? minor(0) } })}
                />
              )}
            </Field>
          </>
        )}
      </ListField>
      <ListField
        label="Once, when she comes: tools, a desk"
        items={row.once}
        add="Add what is needed"
        most={12}
        fresh={() => ({
          account: (
            book.accounts.find(
              (a) => a.active && a.kind === 'expense' && /tool|equipment|office/i.test(a.name),
            ) ?? book.accounts.find((a) => a.kind === 'expense')!
          ).id,
          name: 'Tools',
          amount: minor(0),
        })}
        readOnly={readOnly}
        onItems={(once) => onRow({ ...row, once })}
      >
        {(o, set) => (
          <>
            <Choice
              label="On"
              wide
              value={o.account}
              disabled={readOnly}
              options={book.accounts
                .filter((a) => a.active && (a.kind === 'expense' || a.id === o.account))
                .map((a) => ({ value: a.id, label: a.name }))}
              onChange={(account) => set({ ...o, account })}
            />
            <Field label="Amount">
              <MoneyInput
                {...money}
                value={o.amount}
                onCommit={(a) => (a ?? 0) >= 0 && set({ ...o, amount: a ?? minor(0) })}
              />
            </Field>
          </>
        )}
      </ListField>
      {axis && (
        <ListField
          label={`Whose cost: ${axis.name}`}
          items={row.split}
          add="Divide it"
          most={40}
          fresh={() => ({
            segment: budget.segments.find((s) => !row.split.some((x) => x.segment === s)) ?? null,
            percent: percent('0'),
          })}
          readOnly={readOnly}
          // Shares always come to the whole: the first takes what the others leave.
          onItems={(split) => onRow({ ...row, split: wholeSplit(split) })}
        >
          {(s, set, i) => (
            <>
              <Choice
                label=""
                wide
                value={s.segment ?? ''}
                disabled={readOnly}
                options={budget.segments.map((v) => ({
                  value: v ?? '',
                  label: segmentName(axis, v) || 'Unassigned',
                }))}
                onChange={(v) => set({ ...s, segment: v === '' ? null : v })}
              />
              <Field label={i === 0 ? 'the rest' : 'share'}>
                <PercentInput
                  value={s.percent}
                  disabled={readOnly || i === 0}
                  onCommit={(p) => set({ ...s, percent: p })}
                />
              </Field>
            </>
          )}
        </ListField>
      )}
    </>
  );
}

function wholeSplit(split: readonly RowOf<'staff'>['split'][number][]): RowOf<'staff'>['split'] {
  const [first, ...others] = split;
  if (!first) return [{ segment: null, percent: percent('100') }];
  let left = 100;
  const shares = others.map((s) => {
    const own = Math.min(left, Math.max(0, Number(s.percent)));
    left = Math.round((left - own) * 1e6) / 1e6;
    return { ...s, percent: percent(String(own)) };
  });
  return [{ ...first, percent: percent(String(left)) }, ...shares];
}
