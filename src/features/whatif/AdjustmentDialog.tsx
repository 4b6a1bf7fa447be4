'use client';

import { useState, type ReactNode } from 'react';
import { Button, Checkbox, Group, MultiSelect, NativeSelect, Textarea, TextInput } from '@mantine/core';
import { periodsOf, type PeriodId } from '@/core/calendar';
import { aheadOf, lastKnown, reckoned, type Ground } from '@/core/ground';
import {
  LIMITS,
  type Adjustment,
  type Adjusts,
  type Budget,
  type CaseSize,
  type RowField,
  type ScheduleRow,
  type When,
} from '@/core/model';
import { unitOfSize } from '@/core/scenario';
import { Dialog } from '@/components/Dialog';
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
  reachKey,
  reachOfKeys,
  rowsOf,
  triedBy,
  type Tried,
} from './kinds';
import { RowFields } from './RowFields';
import classes from './WhatIf.module.css';

/** What the form holds beside the sizes. */
type Form = {
  readonly tried: Tried;
  readonly name: string;
  readonly why: string;
  readonly reach: readonly string[];
  readonly row: string;
  readonly field: RowField;
  readonly by: 'value' | 'percent';
  readonly added: ScheduleRow | null;
  readonly byDay: boolean;
  readonly side: 'in' | 'out';
  readonly counterparty: string;
  readonly driver: string;
  readonly dated: string;
  readonly stays: boolean;
  readonly compounding: boolean;
  readonly when: When;
};

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
  const [form, setForm] = useState<Form>(() => formOf(adjustment, ground, periods[0]!.id, begin));
  const put = (change: Partial<Form>) => setForm((f) => ({ ...f, ...change }));
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
  const what = whatOf(form, added);
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
  const faults = read.some((r) => r.read && !r.read.ok) || turned || unsaid;
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
                onChange={(e) => put({ side: e.currentTarget.value as 'in' | 'out', counterparty: '' })}
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
                onChange={(e) => put({ counterparty: e.currentTarget.value })}
              />
            </>
          )}
          {tried === 'driver' && (
            <NativeSelect
              label="Which driver"
              value={form.driver}
              data={[...new Map(book.budgets.flatMap((b) => b.drivers).map((d) => [d.id, d])).values()].map(
                (d) => ({
                  value: d.id,
                  label: d.name,
                }),
              )}
              onChange={(e) => put({ driver: e.currentTarget.value })}
            />
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
          {tried === 'growth' && (
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

/** The form as it begins where somebody stood. */
function begunAt({ of, from }: TryFrom, plain: Form, rows: readonly ScheduleRow[]): Form {
  // Nothing that is closed is tried.
  const form = {
    ...plain,
    when: { ...plain.when, from: from !== null && from > plain.when.from ? from : plain.when.from },
  };
  if ('line' in of) return { ...form, reach: [reachKey({ of: 'account', account: of.line })] };
  if ('terms' in of)
    return { ...form, tried: 'termsDays', reach: [reachKey({ of: 'account', account: of.terms })] };
  if ('driver' in of) return { ...form, tried: 'driver', driver: of.driver };
  if ('dated' in of) return { ...form, tried: 'datedMoved', dated: of.dated };
  if ('side' in of) return { ...form, tried: 'itemsLater', side: of.side, counterparty: of.counterparty };
  const row = rows.find((r) => r.id === of.row);
  return row
    ? { ...form, tried: 'rowMoved', row: row.id, field: fieldsOf(row)[0]?.value ?? form.field }
    : form;
}

function formOf(adjustment: Adjustment | null, ground: Ground, first: PeriodId, begin: TryFrom | null): Form {
  const { book } = ground;
  const rows = rowsOf(ground);
  const what = adjustment?.what;
  const plain: Form = {
    tried: 'percent',
    name: '',
    why: '',
    reach: [],
    row: rows[0]?.id ?? '',
    field: rows[0] ? (fieldsOf(rows[0])[0]?.value ?? 'amount') : 'amount',
    by: 'value',
    added: null,
    byDay: false,
    side: 'in',
    counterparty: '',
    driver: book.budgets.flatMap((b) => b.drivers)[0]?.id ?? '',
    dated: book.cash.dated[0]?.id ?? '',
    stays: false,
    compounding: true,
    when: { from: first, until: null, every: 1, times: null, ramp: null },
  };
  if (!adjustment || !what) return begin ? begunAt(begin, plain, rows) : plain;
  return {
    ...plain,
    tried: triedBy(what),
    name: adjustment.name,
    why: adjustment.why,
    when: adjustment.when,
    ...('reach' in what ? { reach: what.reach.lines.map(reachKey) } : {}),
    ...(what.on === 'amounts' && what.way.as === 'growth'
      ? { stays: what.way.stays, compounding: what.way.compounding }
      : {}),
    ...(what.on === 'rowMoved' || what.on === 'rowGone' || what.on === 'rowField' ? { row: what.row } : {}),
    ...(what.on === 'rowField' ? { field: what.field, by: what.by } : {}),
    ...(what.on === 'rowAdded' ? { added: what.row, byDay: what.by === 'day' } : {}),
    ...(what.on === 'items' ? { side: what.side, counterparty: what.counterparty ?? '' } : {}),
    ...(what.on === 'driver' ? { driver: what.driver } : {}),
    ...(what.on === 'datedMoved' ? { dated: what.item } : {}),
  };
}

/** What the form says; null while it does not say enough. */
function whatOf(form: Form, added: ScheduleRow | null): Adjusts | null {
  const { tried } = form;
  const reach = reachOfKeys(form.reach);
  switch (tried) {
    case 'percent':
    case 'amount':
    case 'new':
    case 'onBefore':
      return { on: 'amounts', reach, way: { as: tried } };
    case 'growth':
      return {
        on: 'amounts',
        reach,
        way: { as: 'growth', compounding: form.compounding, stays: form.stays },
      };
    case 'linesMoved':
    case 'termsDays':
    case 'termsLost':
      return { on: tried, reach };
    case 'itemsLater':
    case 'itemsPaid':
    case 'itemsNever':
      return {
        on: 'items',
        side: form.side,
        counterparty: form.counterparty === '' ? null : form.counterparty,
        item: null,
        as: tried === 'itemsLater' ? 'later' : tried === 'itemsPaid' ? 'paid' : 'never',
      };
    case 'staff':
    case 'loan':
    case 'asset':
    case 'equity':
      return added && { on: 'rowAdded', row: added, by: form.byDay ? 'day' : 'yes' };
    case 'rowGone':
    case 'rowMoved':
      return form.row === '' ? null : { on: tried, row: form.row };
    case 'rowField':
      return form.row === '' ? null : { on: tried, row: form.row, field: form.field, by: form.by };
    case 'pay':
      return { on: 'pay', accounts: [] };
    case 'oncosts':
      return { on: 'oncosts' };
    case 'driver':
      return form.driver === '' ? null : { on: 'driver', driver: form.driver, way: { as: 'percent' } };
    case 'datedMoved':
      return form.dated === '' ? null : { on: 'datedMoved', item: form.dated };
    case 'incomeTax':
    case 'limit':
    case 'floor':
      return { on: 'rate', of: tried, by: 'value' };
    case 'interest':
    case 'lineRate':
      return { on: 'rate', of: tried, by: 'more' };
  }
}
