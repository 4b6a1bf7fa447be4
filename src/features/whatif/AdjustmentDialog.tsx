'use client';

import { useState, type ReactNode } from 'react';
import { Button, Checkbox, Group, MultiSelect, NativeSelect, Textarea, TextInput } from '@mantine/core';
import { periodsOf, type PeriodId } from '@/core/calendar';
import { aheadOf, lastKnown, reckoned, type Ground } from '@/core/ground';
import {
  LIMITS,
  type Adjustment,
  type Budget,
  type CaseSize,
  type RowField,
  type ScheduleRow,
  type When,
} from '@/core/model';
import { unitOfSize } from '@/core/scenario';
import { Dialog } from '@/components/Dialog';
import { FormulaField } from '@/components/formula/FormulaField';
import { TermsEditor } from '@/components/TermsEditor';
import { dispatch } from '@/store/bookStore';
import { adjustsWords, decimalsOf, hasMonths, readSize, sizeDraft, sizeIn } from '@/store/caseWords';
import { accountsOfKind, NEEDS, newRow } from '@/store/newRow';
import { lookedNow, wantName } from '@/store/person';
import type { TryFrom } from '@/store/session';
import {
  ADDED,
  choicesOf,
  fieldsOf,
  OF_ITEMS,
  OF_LINES,
  OF_ONE_LINE,
  OF_ROW,
  reachChoices,
  rowsOf,
  type Tried,
} from './kinds';
import { formOf, whatOf, type DriverWay, type Form } from './form';
import { DRIVER_WAYS, itemChoices, segmentChoices } from './formChoices';
import { RowFields } from './RowFields';
import classes from './WhatIf.module.css';

/** An adjustment: what changes, when, why, and how much of it in each case. */
export function AdjustmentDialog({
  ground,
  looked,
  adjustment,
  begin = null,
  onClose,
  onMade,
}: {
  readonly ground: Ground;
  readonly looked: Budget | null;
  /** The one that is changed; null for a new one. */
  readonly adjustment: Adjustment | null;
  /** Where a new one was begun. */
  readonly begin?: TryFrom | null;
  readonly onClose: () => void;
  readonly onMade: (id: string) => void;
}) {
  const { book, calendar } = ground;
  const ahead = aheadOf(ground, looked);
  const first = (lastKnown(ground) ?? ahead?.start ?? 0) + 1;
  const periods = periodsOf(calendar, { first, last: Math.max(first, ahead?.last ?? first) });
  const plan = ahead?.view.plans[0]?.budget ?? book.budgets[0] ?? null;
  const rows = rowsOf(ground);
  const drivers = [...new Map(book.budgets.flatMap((b) => b.drivers).map((d) => [d.id, d])).values()];
  const segments = segmentChoices(ground);
  const [form, setForm] = useState<Form>(() => formOf(adjustment, ground, periods[0]!.id, begin));
  const put = (change: Partial<Form>) => setForm((f) => ({ ...f, ...change }));
  // A formula that is half written is not the one before it.
  const [reads, setReads] = useState(true);
  const { tried } = form;
  const whole = plan && reckoned(ground, plan);
  const missing =
    ADDED.has(tried) &&
    (!whole || NEEDS[tried as 'staff'].must.some((p) => !accountsOfKind(book, tried as 'staff')[p]));
  const added =
    form.added ??
    (ADDED.has(tried) && whole && !missing
      ? (newRow(tried as 'staff', 'new', whole, accountsOfKind(book, tried as 'staff')) as ScheduleRow)
      : null);
  const what = whatOf(form, added, adjustment?.what ?? null);
  const [sizes, setSizes] = useState<Record<string, string>>(() =>
    Object.fromEntries(
      book.cases.map((c) => {
        const size = adjustment && sizeIn(c, adjustment.id);
        return [
          c.id,
          size == null || !adjustment
            ? ''
            : sizeDraft(adjustment.what, size, book, decimalsOf(book, adjustment.what)),
        ];
      }),
    ),
  );
  const decimals = what ? decimalsOf(book, what) : 0;
  const read = book.cases.map((c) => ({
    case: c,
    read: what ? readSize(what, sizes[c.id] ?? '', book, decimals) : null,
  }));
  const until = form.when.until;
  const turned = until !== null && until < form.when.from;
  const unsaid = OF_LINES.has(tried) && form.reach.length === 0;
  const faults =
    read.some((r) => r.read && !r.read.ok) || turned || unsaid || (tried === 'formula' && !reads);
  const called = what && !unsaid ? adjustsWords(what, book) : '';
  const name = form.name.trim() || called;
  const unit = what ? unitOfSize(what) : 'yes';
  const save = () => {
    if (!what || faults) return;
    wantName();
    const made = Object.fromEntries(
      read.map(({ case: c, read: r }): [string, CaseSize | null] => {
        const size = r?.ok ? r.size : null;
        const was = adjustment ? c.sizes[adjustment.id] : undefined;
        // A low above the new size, or a high below it, says nothing any more.
        const low = was?.low != null && size !== null && was.low <= size ? was.low : null;
        const high = was?.high != null && size !== null && was.high >= size ? was.high : null;
        return [c.id, size === null ? null : { size, low, high }];
      }),
    );
    const own = { name: name.slice(0, LIMITS.accountName), why: form.why.trim(), what, when: form.when };
    const id = adjustment?.id ?? `j${book.nextId}`;
    const refused = adjustment
      ? dispatch({ type: 'setAdjustment', adjustment: { ...adjustment, ...own }, sizes: made })
      : dispatch({
          type: 'addAdjustment',
          adjustment: { ...own, ...lookedNow(), off: false },
          sizes: Object.fromEntries(
            Object.entries(made).filter((e): e is [string, CaseSize] => e[1] !== null),
          ),
        });
    if (refused) return;
    onMade(id);
    onClose();
  };
  const months = periods.map((p) => ({ value: p.id, label: p.label }));
  return (
    <Dialog opened onClose={onClose} size="lg" title={adjustment ? `“${adjustment.name}”` : 'What changes?'}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          save();
        }}
      >
        <div className={classes.fields}>
          <Wide>
            <NativeSelect
              label="What is tried"
              data-autofocus
              value={tried}
              disabled={adjustment !== null}
              data={choicesOf(ground)}
              onChange={(e) => put({ tried: e.currentTarget.value as Tried, added: null })}
            />
          </Wide>
          {OF_LINES.has(tried) && (
            <Wide>
              <MultiSelect
                label={OF_ONE_LINE.has(tried) ? 'Of which line' : 'Of which lines'}
                searchable
                maxValues={OF_ONE_LINE.has(tried) ? 1 : 200}
                value={[...form.reach]}
                data={
                  OF_ONE_LINE.has(tried)
                    ? reachChoices(ground).filter((g) => g.group === 'Lines')
                    : reachChoices(ground)
                }
                onChange={(reach) => put({ reach })}
              />
            </Wide>
          )}
          {OF_LINES.has(tried) && segments.length > 0 && (
            <NativeSelect
              label="In which segment"
              value={form.segment}
              data={segments}
              onChange={(e) => put({ segment: e.currentTarget.value })}
            />
          )}
          {tried === 'formula' && (
            <Wide>
              <div className="label">What it becomes</div>
              <FormulaField
                kept={form.formula}
                accounts={book.accounts}
                drivers={drivers}
                base={AS_PLANNED}
                self={null}
                readOnly={false}
                onKept={(formula) => put({ formula })}
                onReads={setReads}
                onEnter={() => undefined}
              />
            </Wide>
          )}
          {tried === 'termsNew' && (
            <Wide>
              <TermsEditor
                rule={form.rule}
                accounts={book.accounts}
                readOnly={false}
                onRule={(rule) => put({ rule })}
              />
            </Wide>
          )}
          {OF_ROW.has(tried) && (
            <NativeSelect
              label="Which row"
              value={form.row}
              data={rows.map((r) => ({ value: r.id, label: r.name }))}
              onChange={(e) => {
                const row = e.currentTarget.value;
                const fields = fieldsOf(rows.find((r) => r.id === row)!);
                put({ row, field: fields[0]?.value ?? 'amount' });
              }}
            />
          )}
          {tried === 'rowField' && (
            <>
              <NativeSelect
                label="Which value"
                value={form.field}
                data={fieldsOf(rows.find((r) => r.id === form.row) ?? rows[0]!)}
                onChange={(e) => put({ field: e.currentTarget.value as RowField })}
              />
              <NativeSelect
                label="The size is"
                value={form.by}
                data={[
                  { value: 'value', label: 'its new value' },
                  { value: 'percent', label: 'so many percent more' },
                ]}
                onChange={(e) => put({ by: e.currentTarget.value as 'value' | 'percent' })}
              />
            </>
          )}
          {OF_ITEMS.has(tried) && (
            <>
              <NativeSelect
                label="Of what is owed"
                value={form.side}
                data={[
                  { value: 'in', label: 'to us' },
                  { value: 'out', label: 'by us' },
                ]}
                onChange={(e) =>
                  put({ side: e.currentTarget.value as 'in' | 'out', counterparty: '', item: '' })
                }
              />
              <NativeSelect
                label="Whose"
                value={form.counterparty}
                data={[
                  { value: '', label: 'everybody’s' },
                  ...[
                    ...new Set(
                      (ahead?.view.items ?? [])
                        .filter((i) => i.side === form.side)
                        .map((i) => i.counterparty),
                    ),
                  ]
                    .filter((c) => c !== '')
                    .sort()
                    .map((c) => ({ value: c, label: c })),
                ]}
                onChange={(e) => put({ counterparty: e.currentTarget.value, item: '' })}
              />
              {form.counterparty !== '' && (
                <NativeSelect
                  label="Which of it"
                  value={form.item}
                  data={[
                    { value: '', label: 'all that is open' },
                    ...itemChoices(ground, ahead?.view.items ?? [], form),
                  ]}
                  onChange={(e) => put({ item: e.currentTarget.value })}
                />
              )}
            </>
          )}
          {tried === 'driver' && (
            <>
              <NativeSelect
                label="Which driver"
                value={form.driver}
                data={drivers.map((d) => ({ value: d.id, label: d.name }))}
                onChange={(e) => put({ driver: e.currentTarget.value })}
              />
              <NativeSelect
                label="The size is"
                value={form.driverWay}
                data={DRIVER_WAYS.filter((w) => w.value !== 'formula' || form.driverWay === 'formula')}
                onChange={(e) => {
                  put({ driverWay: e.currentTarget.value as DriverWay });
                  setSizes({});
                }}
              />
            </>
          )}
          {tried === 'datedMoved' && (
            <NativeSelect
              label="Which item"
              value={form.dated}
              data={book.cash.dated.map((d) => ({ value: d.id, label: d.name }))}
              onChange={(e) => put({ dated: e.currentTarget.value })}
            />
          )}
          {missing && (
            <Wide>
              <p className="faded">
                The book has no account that this would go to. Add one under Books, Accounts, and it can be
                tried.
              </p>
            </Wide>
          )}
          {added && (
            <RowFields
              row={added}
              book={book}
              byDay={form.byDay}
              onRow={(row) => put({ added: row })}
              onByDay={(byDay) => {
                put({ byDay });
                setSizes({});
              }}
            />
          )}
          {(tried === 'growth' || (tried === 'driver' && form.driverWay === 'growth')) && (
            <Wide>
              <Group>
                <Checkbox
                  label="on what it has grown to"
                  checked={form.compounding}
                  onChange={(e) => put({ compounding: e.currentTarget.checked })}
                />
                <Checkbox
                  label="stays as high afterwards"
                  checked={form.stays}
                  onChange={(e) => put({ stays: e.currentTarget.checked })}
                />
              </Group>
            </Wide>
          )}
          {what && hasMonths(what) && (
            <WhenFields
              when={form.when}
              months={months}
              ramps={canRamp(tried)}
              turned={turned}
              onWhen={(when) => put({ when })}
            />
          )}
          <TextInput
            label="Name"
            maxLength={LIMITS.accountName}
            placeholder={called}
            value={form.name}
            onChange={(e) => put({ name: e.currentTarget.value })}
          />
          <Textarea
            label="Why"
            autosize
            minRows={1}
            maxLength={LIMITS.reason}
            value={form.why}
            onChange={(e) => put({ why: e.currentTarget.value })}
          />
          {read.map(({ case: c, read: r }) => (
            <TextInput
              key={c.id}
              label={`In ${c.name}`}
              placeholder={SIZE_HINTS[unit]}
              value={sizes[c.id] ?? ''}
              error={r && !r.ok ? r.why : undefined}
              onChange={(e) => {
                const text = e.currentTarget.value;
                setSizes((s) => ({ ...s, [c.id]: text }));
              }}
            />
          ))}
          {book.cases.length === 0 && (
            <Wide>
              <p className="faded">There is no case yet: add one, and say there how much of it there is.</p>
            </Wide>
          )}
        </div>
        <Group justify="flex-end" mt="md">
          <Button variant="default" onClick={onClose}>
            Leave it
          </Button>
          <Button type="submit" disabled={!what || faults}>
            {adjustment ? 'Keep it' : 'Add it'}
          </Button>
        </Group>
      </form>
    </Dialog>
  );
}

const Wide = ({ children }: { readonly children: ReactNode }) => <div data-wide>{children}</div>;

const SIZE_HINTS: Readonly<Record<ReturnType<typeof unitOfSize>, string>> = {
  percent: 'percent, such as 5 or -8',
  money: 'an amount',
  days: 'days; earlier with a minus',
  months: 'months; earlier with a minus',
  count: 'how many, such as 1.5',
  payments: 'how many payments',
  day: 'a day, such as 2027-03-01',
  quantity: 'a number',
  yes: 'yes, or nothing',
};

/** What the amount before a change is called in its formula. */
const AS_PLANNED = 'As planned';

const canRamp = (tried: Tried): boolean => ['percent', 'amount', 'new', 'driver'].includes(tried);

function WhenFields({
  when,
  months,
  ramps,
  turned,
  onWhen,
}: {
  readonly when: When;
  readonly months: readonly { readonly value: string; readonly label: string }[];
  readonly ramps: boolean;
  readonly turned: boolean;
  readonly onWhen: (when: When) => void;
}) {
  const known = months.some((m) => m.value === when.from);
  return (
    <>
      <NativeSelect
        label="From"
        value={when.from}
        // A month that is closed by now is still what was said.
        data={[...(known ? [] : [{ value: when.from, label: when.from }]), ...months]}
        onChange={(e) => onWhen({ ...when, from: e.currentTarget.value as PeriodId })}
      />
      <NativeSelect
        label="Until"
        value={when.until ?? ''}
        error={turned ? 'It ends before it begins' : undefined}
        data={[
          { value: '', label: 'no end' },
          { value: when.from, label: 'that month alone' },
          ...months.filter((m) => m.value > when.from),
        ]}
        onChange={(e) => onWhen({ ...when, until: (e.currentTarget.value || null) as PeriodId | null })}
      />
      <NativeSelect
        label="How often"
        value={String(when.every)}
        data={[
          { value: '1', label: 'every month' },
          { value: '2', label: 'every second month' },
          { value: '3', label: 'every quarter' },
          { value: '6', label: 'every half year' },
          { value: '12', label: 'every year' },
        ]}
        onChange={(e) => onWhen({ ...when, every: Number(e.currentTarget.value) })}
      />
      {ramps && (
        <NativeSelect
          label="Reaches its size"
          value={String(when.ramp ?? 1)}
          data={[
            { value: '1', label: 'at once' },
            ...[2, 3, 4, 6, 9, 12, 18, 24].map((n) => ({ value: String(n), label: `over ${n} times` })),
          ]}
          onChange={(e) => {
            const n = Number(e.currentTarget.value);
            onWhen({ ...when, ramp: n === 1 ? null : n });
          }}
        />
      )}
    </>
  );
}
