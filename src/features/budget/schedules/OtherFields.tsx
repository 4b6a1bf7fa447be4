'use client';

import { Button } from '@mantine/core';
import { minor, percent } from '@/core/money';
import { segmentName } from '@/core/model';
import { DayInput } from '@/components/DayInput';
import { DueFields } from '@/components/DueFields';
import { MoneyInput, NumberInput, PercentInput } from '@/components/MoneyInput';
import { Choice, Field } from '../methods/inputs/parts';
import { ListField, PurposeField } from './fields';
import type { RowFieldsProps } from './RowPanel';
import { closedOn } from './scheduleEdits';
import classes from './Schedules.module.css';

/** Whose cost a row is, in a budget by segments. */
function SegmentField({
  row,
  book,
  budget,
  readOnly,
  onRow,
}: Omit<RowFieldsProps<'asset' | 'release' | 'incomeTax'>, 'facts'>) {
  const axis = book.axes.find((a) => a.id === budget.axis);
  if (!axis) return null;
  return (
    <Choice
      label={axis.name}
      wide
      value={row.segment ?? ''}
      disabled={readOnly}
      options={budget.segments.map((s) => ({ value: s ?? '', label: segmentName(axis, s) || 'Unassigned' }))}
      onChange={(v) => onRow({ ...row, segment: v === '' ? null : v })}
    />
  );
}

/** What of an asset the table does not show: where it is written off to, how it is paid, whether it is sold. */
export function AssetFields({ row, book, budget, facts, readOnly, onRow, onLoan }: RowFieldsProps<'asset'>) {
  const money = { currency: book.currency, locale: book.locale, disabled: readOnly };
  const closed = closedOn(facts);
  const taxes = book.cash.taxes.filter((t) => t.owed === 'net');
  return (
    <>
      <section>
        <div className="label">Written off</div>
        <PurposeField
          label="To the line"
          purpose="depreciation"
          book={book}
          value={row.expense}
          readOnly={readOnly}
          onValue={(a) => a && onRow({ ...row, expense: a })}
        />
        <PurposeField
          label="Gathers on"
          purpose="accumulated"
          none="no account of the book"
          book={book}
          value={row.accumulated}
          readOnly={readOnly}
          onValue={(accumulated) => onRow({ ...row, accumulated })}
        />
        <SegmentField {...{ row, book, budget, readOnly, onRow }} />
        {row.bought <= closed && (
          <>
            <Choice
              label="So far"
              wide
              value={row.standing ? 'said' : 'reckoned'}
              disabled={readOnly}
              options={[
                { value: 'reckoned', label: 'reckoned from the start' },
                { value: 'said', label: 'as the ledger has it' },
              ]}
              onChange={(v) =>
                onRow({
                  ...row,
                  standing:
                    v === 'said'
                      ? {
                          day: closed,
                          accumulated: minor(0),
                          months: row.way.of === 'straight' ? row.way.months : 0,
                        }
                      : null,
                })
              }
            />
            {row.standing && (
              <>
                <Field label="By the end of">
                  <DayInput
                    value={row.standing.day}
                    disabled={readOnly}
                    onCommit={(day) => day && onRow({ ...row, standing: { ...row.standing!, day } })}
                  />
                </Field>
                <Field label="Written off">
                  <MoneyInput
                    {...money}
                    value={row.standing.accumulated}
                    onCommit={(a) =>
                      (a ?? 0) >= 0 &&
                      onRow({ ...row, standing: { ...row.standing!, accumulated: a ?? minor(0) } })
                    }
                  />
                </Field>
                {row.way.of === 'straight' && (
                  <Field label="Months left">
                    <NumberInput
                      value={row.standing.months}
                      least={0}
                      most={1200}
                      disabled={readOnly}
                      onCommit={(months) => onRow({ ...row, standing: { ...row.standing!, months } })}
                    />
                  </Field>
                )}
              </>
            )}
          </>
        )}
      </section>
      {row.bought > closed && (
        <section>
          <div className="label">Paid</div>
          {!readOnly && onLoan && (
            <Button mb={6} onClick={onLoan}>
              With a loan…
            </Button>
          )}
          <DueFields
            label="After it is bought"
            value={row.paid.due}
            readOnly={readOnly}
            onValue={(due) => onRow({ ...row, paid: { ...row.paid, due } })}
          />
          {taxes.length > 0 && (
            <Choice
              label="Tax on top"
              wide
              value={row.tax?.scheme ?? ''}
              disabled={readOnly}
              options={[{ value: '', label: 'none' }, ...taxes.map((t) => ({ value: t.id, label: t.name }))]}
              onChange={(scheme) =>
                onRow({ ...row, tax: scheme === '' ? null : { scheme, rate: percent('20') } })
              }
            />
          )}
          {row.tax && (
            <Field label="Rate">
              <PercentInput
                value={row.tax.rate}
                disabled={readOnly}
                onCommit={(rate) => onRow({ ...row, tax: { ...row.tax!, rate } })}
              />
            </Field>
          )}
        </section>
      )}
      <section>
        <div className="label">Sold</div>
        <Field label="On">
          <DayInput
            value={row.sold?.day ?? null}
            disabled={readOnly}
            onCommit={(day) =>
              onRow({ ...row, sold: day === null ? null : { price: minor(0), gain: null, ...row.sold, day } })
            }
          />
        </Field>
        {row.sold && (
          <>
            <Field label="For">
              <MoneyInput
                {...money}
                value={row.sold.price}
                onCommit={(a) =>
                  (a ?? 0) >= 0 && onRow({ ...row, sold: { ...row.sold!, price: a ?? minor(0) } })
                }
              />
            </Field>
            <PurposeField
              label="Gain or loss"
              purpose="gain"
              none="other income"
              book={book}
              value={row.sold.gain}
              readOnly={readOnly}
              onValue={(gain) => onRow({ ...row, sold: { ...row.sold!, gain } })}
            />
          </>
        )}
      </section>
    </>
  );
}

export const ReleaseFields = ({ row, book, budget, readOnly, onRow }: RowFieldsProps<'release'>) => (
  <section>
    <p style={{ margin: 0, fontSize: 13 }}>
      What was paid or received in advance stands on its account and comes to the line in equal parts; no
      money moves any more.
    </p>
    <SegmentField {...{ row, book, budget, readOnly, onRow }} />
  </section>
);

/** Where an income tax is owed, and when it is paid. */
export function IncomeTaxFields({ row, book, budget, readOnly, onRow }: RowFieldsProps<'incomeTax'>) {
  const money = { currency: book.currency, locale: book.locale, disabled: readOnly };
  return (
    <>
      <section>
        <div className="label">Paid</div>
        <PurposeField
          label="Owed on"
          purpose="taxOwed"
          none="no account of the book"
          book={book}
          value={row.payable}
          readOnly={readOnly}
          onValue={(payable) => onRow({ ...row, payable })}
        />
        <SegmentField {...{ row, book, budget, readOnly, onRow }} />
        <div className={classes.due}>
          <span>The rest, after the year’s end</span>
          <DueFields
            quiet
            label="The rest, after the year’s end"
            value={row.due}
            readOnly={readOnly}
            onValue={(due) => onRow({ ...row, due })}
          />
        </div>
      </section>
      <ListField
        label="Installments"
        items={row.installments}
        add="Add an installment"
        most={24}
        fresh={() => ({ months: row.installments.length * 3 + 2, day: 15, amount: minor(0) })}
        readOnly={readOnly}
        onItems={(installments) => onRow({ ...row, installments })}
      >
        {(x, set) => (
          <>
            <Field label="Months after the year’s first">
              <NumberInput
                value={x.months}
                least={0}
                most={36}
                disabled={readOnly}
                onCommit={(months) => set({ ...x, months })}
              />
            </Field>
            <Field label="On the">
              <NumberInput
                value={x.day}
                least={1}
                most={31}
                disabled={readOnly}
                onCommit={(day) => set({ ...x, day })}
              />
            </Field>
            <Field label="Amount">
              <MoneyInput
                {...money}
                value={x.amount}
                onCommit={(a) => (a ?? 0) >= 0 && set({ ...x, amount: a ?? minor(0) })}
              />
            </Field>
          </>
        )}
      </ListField>
    </>
  );
}

export function EquityFields({ row, readOnly, onRow }: RowFieldsProps<'equity'>) {
  const { repeat } = row;
  if (!repeat) return null;
  return (
    <section>
      <Field label="Until">
        <DayInput
          value={repeat.until}
          disabled={readOnly}
          onCommit={(until) => onRow({ ...row, repeat: { ...repeat, until } })}
        />
      </Field>
    </section>
  );
}
