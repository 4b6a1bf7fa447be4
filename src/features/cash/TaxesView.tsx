'use client';

import { Button, NativeSelect, TextInput } from '@mantine/core';
import { minor } from '@/core/money';
import { MONTH_NAMES } from '@/core/calendar';
import { LIMITS, taxIsUsed, type TaxScheme } from '@/core/model';
import type { CashView, Ground } from '@/core/ground';
import stage from '@/components/Stage.module.css';
import { dispatch, useBookStore } from '@/store/bookStore';
import { exportCalendar } from '@/store/exports';
import { moneyFormat } from '@/store/format';
import { onDay } from '@/store/cashWords';
import { AccountChoice } from '@/components/AccountChoice';
import { DueFields } from '@/components/DueFields';
import classes from './Cash.module.css';

const EVERY: Record<TaxScheme['every'], string> = {
  1: 'each month',
  2: 'every two months',
  3: 'each quarter',
  6: 'each half-year',
  12: 'each year',
};
const MONTHS = MONTH_NAMES.map((label, i) => ({ value: String(i + 1), label }));

/** Sales and value-added taxes: their rules, and every return ahead with what it comes to and when it is due. */
export function TaxesView({ ground, view }: { readonly ground: Ground; readonly view: CashView }) {
  const readOnly = useBookStore((s) => s.readOnly);
  const { book } = ground;
  const { taxes } = book.cash;
  const money = moneyFormat(book);
  const set = (id: string, change: Partial<TaxScheme>) => {
    const tax = taxes.find((t) => t.id === id);
    if (tax) dispatch({ type: 'setTax', tax: { ...tax, ...change } });
  };
  const payables = book.accounts.filter((a) => a.kind === 'taxPayable' || a.kind === 'otherLiability');
  const add = () =>
    dispatch({
      type: 'addTax',
      tax: {
        name: taxes.length === 0 ? 'Sales tax' : `Tax ${taxes.length + 1}`,
        payable: payables[0]?.id ?? null,
        owed: 'collected',
        on: 'invoice',
        every: 3,
        ends: 12,
        due: { of: 'months', months: 1, day: 20 },
        exceptions: [],
      },
    });
  return (
    <div className={classes.fields} style={{ maxWidth: 'none' }}>
      <div className={stage.tools} style={{ padding: 0 }}>
        <span className="faded">
          A line carries a tax by its terms. Here is when each tax is returned and paid.
        </span>
        <span className={stage.push} />
        <Button disabled={readOnly || taxes.length >= 20} onClick={add}>
          Add a tax
        </Button>
        <Button
          disabled={view.projected.returns.length === 0}
          onClick={() => void exportCalendar(ground, view.projected.returns)}
        >
          Due days as a calendar file
        </Button>
      </div>
      {taxes.map((t) => (
        <section key={t.id} aria-label={t.name}>
          <div className={classes.row}>
            <TextInput
              key={t.name}
              size="xs"
              label="Tax"
              disabled={readOnly}
              maxLength={LIMITS.accountName}
              defaultValue={t.name}
              onBlur={(e) => {
                const name = e.currentTarget.value.trim();
                if (name !== '' && name !== t.name) set(t.id, { name });
              }}
            />
            <NativeSelect
              label="Owed is"
              disabled={readOnly}
              value={t.owed}
              data={[
                { value: 'collected', label: 'what is collected' },
                { value: 'net', label: 'collected less paid' },
              ]}
              onChange={(e) => set(t.id, { owed: e.currentTarget.value as TaxScheme['owed'] })}
            />
            <NativeSelect
              label="Counts on"
              disabled={readOnly}
              value={t.on}
              data={[
                { value: 'invoice', label: 'invoice' },
                { value: 'payment', label: 'payment' },
              ]}
              onChange={(e) => set(t.id, { on: e.currentTarget.value as TaxScheme['on'] })}
            />
            <NativeSelect
              label="Returned"
              disabled={readOnly}
              value={String(t.every)}
              data={Object.entries(EVERY).map(([value, label]) => ({ value, label }))}
              onChange={(e) => set(t.id, { every: Number(e.currentTarget.value) as TaxScheme['every'] })}
            />
            <NativeSelect
              label="A period ends in"
              disabled={readOnly}
              value={String(t.ends)}
              data={MONTHS}
              onChange={(e) => set(t.id, { ends: Number(e.currentTarget.value) })}
            />
            <DueFields label="Due" value={t.due} readOnly={readOnly} onValue={(due) => set(t.id, { due })} />
            <AccountChoice
              label="Account"
              none="none in the ledger"
              accounts={payables}
              value={t.payable}
              readOnly={readOnly}
              onValue={(payable) => set(t.id, { payable })}
            />
          </div>
          {t.exceptions.map((e, k) => (
            <div key={k} className={classes.row} style={{ marginTop: 6 }}>
              <NativeSelect
                label="But the period that ends in"
                disabled={readOnly}
                value={String(e.ends)}
                data={MONTHS}
                onChange={(ev) => {
                  const ends = Number(ev.currentTarget.value);
                  set(t.id, { exceptions: t.exceptions.map((x, i) => (i === k ? { ...x, ends } : x)) });
                }}
              />
              <DueFields
                label="is due"
                value={e.due}
                readOnly={readOnly}
                onValue={(due) =>
                  set(t.id, { exceptions: t.exceptions.map((x, i) => (i === k ? { ...x, due } : x)) })
                }
              />
              <Button
                disabled={readOnly}
                onClick={() => set(t.id, { exceptions: t.exceptions.filter((_, i) => i !== k) })}
              >
                Take the exception away
              </Button>
            </div>
          ))}
          <div className={classes.row} style={{ marginTop: 6 }}>
            <Button
              disabled={readOnly || t.exceptions.length >= 12}
              onClick={() =>
                set(t.id, {
                  exceptions: [...t.exceptions, { ends: 12, due: { of: 'months', months: 2, day: 28 } }],
                })
              }
            >
              Add an exception
            </Button>
            <Button
              disabled={readOnly || taxIsUsed(book, t.id)}
              title={
                taxIsUsed(book, t.id) ? 'Lines carry it by their terms, or assets by their rows' : undefined
              }
              onClick={() => dispatch({ type: 'removeTax', tax: t.id })}
            >
              Take {t.name} away
            </Button>
          </div>
        </section>
      ))}
      <table className={classes.table} aria-label="Returns ahead">
        <thead>
          <tr>
            <th>Due</th>
            <th>Tax</th>
            <th>Period</th>
            <th className={classes.figure}>Owed</th>
          </tr>
        </thead>
        <tbody>
          {view.projected.returns
            .toSorted((a, b) => a.due - b.due)
            .map((r) => (
              <tr key={`${r.scheme} ${r.to}`}>
                <td>{onDay(r.due)}</td>
                <td>{taxes.find((t) => t.id === r.scheme)?.name}</td>
                <td>
                  {onDay(r.from)} – {onDay(r.to)}
                </td>
                <td className={classes.figure}>{money.exact(minor(r.owed))}</td>
              </tr>
            ))}
        </tbody>
      </table>
      {view.projected.returns.length === 0 && (
        <p className="faded">
          No return comes to anything yet: add a tax, and give lines a rate under “Terms”.
        </p>
      )}
    </div>
  );
}
