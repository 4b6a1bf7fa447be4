'use client';

import { Checkbox, NativeSelect, TextInput } from '@mantine/core';
import { isProfitAndLoss, LIMITS, type Book, type ScheduleRow } from '@/core/model';
import { minor } from '@/core/money';
import { AccountChoice } from '@/components/AccountChoice';
import { DayInput } from '@/components/DayInput';
import { MoneyInput, NumberInput, PercentInput } from '@/components/MoneyInput';

/** The few fields of a row that an adjustment adds; all else is as rows of its kind are in the plan, or as is usual. */
export function RowFields({
  row,
  book,
  byDay,
  onRow,
  onByDay,
}: {
  readonly row: ScheduleRow;
  readonly book: Book;
  /** Its size is its first day. */
  readonly byDay: boolean;
  readonly onRow: (row: ScheduleRow) => void;
  readonly onByDay: (byDay: boolean) => void;
}) {
  const money = { currency: book.currency, locale: book.locale };
  const name = (
    <TextInput
      label="What it is called"
      maxLength={LIMITS.accountName}
      value={row.name}
      onChange={(e) => onRow({ ...row, name: e.currentTarget.value })}
    />
  );
  const day = (
    <Checkbox
      mt={26}
      label="its size is the day it begins"
      checked={byDay}
      onChange={(e) => onByDay(e.currentTarget.checked)}
    />
  );
  switch (row.kind) {
    case 'staff':
      return (
        <>
          {name}
          <AccountChoice
            label="Pay goes to"
            none="no account"
            accounts={book.accounts.filter((a) => a.active && isProfitAndLoss(a.kind) && a.kind !== 'income')}
            value={row.account}
            onValue={(account) => account && onRow({ ...row, account })}
          />
          <MoneyInput
            {...money}
            label={`Pay ${row.pay.per === 'hour' ? 'an hour' : row.pay.per === 'payday' ? 'a payday' : `a ${row.pay.per}`}`}
            value={row.pay.amount}
            onCommit={(v) => onRow({ ...row, pay: { ...row.pay, amount: minor(Math.max(0, v ?? 0)) } })}
          />
          <NativeSelect
            label="Paid by the"
            value={row.pay.per === 'month' ? 'month' : 'year'}
            data={[
              { value: 'year', label: 'year' },
              { value: 'month', label: 'month' },
            ]}
            onChange={(e) =>
              onRow({
                ...row,
                pay: { per: e.currentTarget.value as 'year' | 'month', amount: row.pay.amount },
              })
            }
          />
          <DayInput
            label="First day"
            disabled={byDay}
            value={row.from}
            onCommit={(from) => onRow({ ...row, from })}
          />
          {day}
        </>
      );
    case 'loan':
      return (
        <>
          {name}
          <MoneyInput
            {...money}
            label="Amount"
            value={row.begins.amount}
            onCommit={(v) => onRow({ ...row, begins: { ...row.begins, amount: minor(Math.max(0, v ?? 0)) } })}
          />
          <PercentInput label="Yearly rate" value={row.rate} onCommit={(rate) => onRow({ ...row, rate })} />
          <NumberInput
            label="Monthly payments"
            least={1}
            most={600}
            value={row.payments}
            onCommit={(payments) => onRow({ ...row, payments })}
          />
          <DayInput
            label="Drawn on"
            disabled={byDay}
            value={row.begins.day}
            onCommit={(d) =>
              d && onRow({ ...row, begins: { ...row.begins, day: d }, first: row.first < d ? d : row.first })
            }
          />
          <DayInput
            label="First payment"
            value={row.first}
            onCommit={(first) => first && onRow({ ...row, first })}
          />
          {day}
        </>
      );
    case 'asset':
      return (
        <>
          {name}
          <MoneyInput
            {...money}
            label="Cost"
            value={row.cost}
            onCommit={(v) => onRow({ ...row, cost: minor(Math.max(0, v ?? 0)) })}
          />
          <NumberInput
            label="Months it is written off over"
            least={1}
            most={1200}
            value={row.way.of === 'straight' ? row.way.months : 60}
            onCommit={(months) => onRow({ ...row, way: { of: 'straight', months } })}
          />
          <DayInput
            label="Bought on"
            disabled={byDay}
            value={row.bought}
            onCommit={(bought) => bought && onRow({ ...row, bought })}
          />
          {day}
        </>
      );
    case 'equity':
      return (
        <>
          {name}
          <MoneyInput
            {...money}
            label="Amount"
            value={row.amount}
            onCommit={(v) => onRow({ ...row, amount: minor(Math.max(0, v ?? 0)) })}
          />
          <NativeSelect
            label="It is"
            value={row.what}
            data={[
              { value: 'paidIn', label: 'paid in' },
              { value: 'drawn', label: 'drawn' },
              { value: 'dividend', label: 'a dividend' },
            ]}
            onChange={(e) => onRow({ ...row, what: e.currentTarget.value as typeof row.what })}
          />
          <DayInput
            label="On"
            disabled={byDay}
            value={row.first}
            onCommit={(first) => first && onRow({ ...row, first })}
          />
          {day}
        </>
      );
    case 'release':
    case 'incomeTax':
      return name;
  }
}
