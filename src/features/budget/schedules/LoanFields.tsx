'use client';

import { fromDayNumber } from '@/core/calendar';
import { minor } from '@/core/money';
import type { RowOf } from '@/core/model';
import { loanCost, loanTable } from '@/core/schedule';
import { DayInput } from '@/components/DayInput';
import { MoneyInput, NumberInput, PercentInput } from '@/components/MoneyInput';
import { dayText, moneyFormat } from '@/store/format';
import { Choice, Field } from '../methods/inputs/parts';
import { ListField, PurposeField } from './fields';
import type { RowFieldsProps } from './RowPanel';
import classes from './Schedules.module.css';

/** What of a loan the table does not show, and its payments to the last. */
export function LoanFields({ row, book, facts, readOnly, onRow }: RowFieldsProps<'loan'>) {
  const format = moneyFormat(book);
  const money = { currency: book.currency, locale: book.locale, disabled: readOnly };
  const table = loanTable(row, facts.calendar);
  const plain = row.extra.length > 0 ? loanTable({ ...row, extra: [] }, facts.calendar) : null;
  const [cost, without] = [loanCost(table), plain && loanCost(plain)];
  const dayAmounts = (
    label: string,
    items: RowOf<'loan'>['extra'],
    set: (items: RowOf<'loan'>['extra']) => void,
  ) => (
    <ListField
      label={label}
      items={items}
      add="Add a day"
      most={600}
      fresh={() => ({ day: row.first, amount: minor(0) })}
      readOnly={readOnly}
      onItems={set}
    >
      {(x, put, i) => (
        <>
          <DayInput
            aria-label={`${label} ${i + 1}: day`}
            value={x.day}
            disabled={readOnly}
            onCommit={(day) => day && put({ ...x, day })}
          />
          <MoneyInput
            {...money}
            aria-label={`${label} ${i + 1}: amount`}
            value={x.amount}
            onCommit={(a) => (a ?? 0) >= 0 && put({ ...x, amount: a ?? minor(0) })}
          />
        </>
      )}
    </ListField>
  );
  return (
    <>
      <section>
        <div className="label">How it is repaid</div>
        {row.repay.of === 'level' && (
          <Field label="Payment">
            <MoneyInput
              {...money}
              placeholder="reckoned"
              value={row.repay.payment}
              onCommit={(payment) =>
                (payment === null || payment > 0) && onRow({ ...row, repay: { of: 'level', payment } })
              }
            />
          </Field>
        )}
        <Choice
          label="Every"
          wide
          value={String(row.every) as '1'}
          disabled={readOnly}
          options={[
            { value: '1', label: 'month' },
            { value: '2', label: 'two months' },
            { value: '3', label: 'quarter' },
            { value: '6', label: 'half year' },
            { value: '12', label: 'year' },
          ]}
          onChange={(every) => onRow({ ...row, every: Number(every) as 1 })}
        />
        <Field label="Interest only at first">
          <NumberInput
            value={row.grace}
            least={0}
            most={600}
            disabled={readOnly}
            onCommit={(grace) => onRow({ ...row, grace })}
          />
        </Field>
        <Choice
          label="Days"
          wide
          value={row.days}
          disabled={readOnly}
          options={[
            { value: '30/360', label: 'months of 30, years of 360' },
            { value: 'actual/365', label: 'as they are, of 365' },
          ]}
          onChange={(days) => onRow({ ...row, days })}
        />
        <PurposeField
          label="Account"
          purpose="loan"
          book={book}
          value={row.account}
          readOnly={readOnly}
          onValue={(a) => a && onRow({ ...row, account: a })}
        />
        <PurposeField
          label="Interest"
          purpose="interest"
          book={book}
          value={row.interest}
          readOnly={readOnly}
          onValue={(a) => a && onRow({ ...row, interest: a })}
        />
        <PurposeField
          label="Stands on until paid"
          purpose="accrued"
          none="counts when it is paid"
          book={book}
          value={row.accrued}
          readOnly={readOnly}
          onValue={(accrued) => onRow({ ...row, accrued })}
        />
      </section>
      {row.repay.of === 'typed' &&
        dayAmounts('Principal', row.repay.amounts, (amounts) =>
          onRow({ ...row, repay: { of: 'typed', amounts } }),
        )}
      <ListField
        label="Other rates from a day"
        items={row.rates}
        add="Add a rate"
        most={60}
        fresh={() => ({ from: row.first, rate: row.rate })}
        readOnly={readOnly}
        onItems={(rates) => onRow({ ...row, rates })}
      >
        {(r, set, i) => (
          <>
            <DayInput
              aria-label={`Rate ${i + 1} from`}
              value={r.from}
              disabled={readOnly}
              onCommit={(from) => from && set({ ...r, from })}
            />
            <PercentInput
              aria-label={`Rate ${i + 1}`}
              value={r.rate}
              disabled={readOnly}
              onCommit={(rate) => set({ ...r, rate })}
            />
          </>
        )}
      </ListField>
      {dayAmounts('Repaid beside the payments', row.extra, (extra) => onRow({ ...row, extra }))}
      {row.extra.length > 0 && (
        <section>
          <Choice
            label="Then"
            wide
            value={row.afterExtra}
            disabled={readOnly}
            options={[
              { value: 'shorter', label: 'it ends earlier' },
              { value: 'lower', label: 'payments are smaller' },
            ]}
            onChange={(afterExtra) => onRow({ ...row, afterExtra })}
          />
          {without && (
            <p className={classes.tie}>
              Saves {format.exact(minor(without.interest - cost.interest))} of interest
              {without.last !== null && cost.last !== null && cost.last < without.last
                ? ` and ends on ${dayText(fromDayNumber(cost.last))} instead of ${dayText(fromDayNumber(without.last))}`
                : ''}
              .
            </p>
          )}
        </section>
      )}
      <section aria-label="Payments to the last">
        <div className="label">Payments to the last</div>
        <p className={classes.tie}>
          {table.payments.filter((p) => !p.extra).length} payments
          {cost.last === null ? '' : `, the last on ${dayText(fromDayNumber(cost.last))}`};{' '}
          {format.exact(minor(cost.interest))} of interest in all.
        </p>
        <div className={classes.payments} tabIndex={0} role="region" aria-label="Table of payments">
          <table className={classes.figures}>
            <thead>
              <tr>
                <th>Day</th>
                <th>Interest</th>
                <th>Principal</th>
                <th>Owed</th>
              </tr>
            </thead>
            <tbody>
              {table.payments.map((p, i) => (
                <tr key={i}>
                  <th scope="row">{fromDayNumber(p.day)}</th>
                  <td>{format.exact(minor(p.interest))}</td>
                  <td>{format.exact(minor(p.principal))}</td>
                  <td>{format.exact(minor(p.closing))}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </section>
    </>
  );
}
