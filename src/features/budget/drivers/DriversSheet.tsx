'use client';

import { useState, type ClipboardEvent } from 'react';
import { Button } from '@mantine/core';
import type { PeriodId } from '@/core/calendar';
import type { Budget, Command, Driver } from '@/core/model';
import type { DriverResult } from '@/core/plan';
import { fromTsv } from '@/core/sheet';
import { ScaledInput } from '@/components/MoneyInput';
import { scaledText } from '@/components/readScaled';
import { dispatch, useBookStore } from '@/store/bookStore';
import type { Ground } from '@/core/ground';
import { say } from '@/store/session';
import { pastedValues } from './driverEdits';
import { DriverPanel } from './DriverPanel';
import { useReckoned } from '../rows/useReckoned';
import stage from '@/components/Stage.module.css';
import classes from './Drivers.module.css';

type DriverValues = Extract<Command, { type: 'setDriverValues' }>['values'];

/** The quantities that lines follow: each a row of months with its unit, in one place. */
export function DriversSheet({ ground, budget }: { readonly ground: Ground; readonly budget: Budget }) {
  const { book } = ground;
  const bookReadOnly = useBookStore((s) => s.readOnly);
  const readOnly = bookReadOnly || budget.state !== 'draft';
  const { whole } = useReckoned(ground, budget);
  const { periods } = whole.facts;
  const [chosen, setChosen] = useState<string | null>(null);
  const driver = budget.drivers.find((d) => d.id === chosen) ?? budget.drivers[0] ?? null;
  const keep = (next: Driver) => dispatch({ type: 'setDriver', budget: budget.id, driver: next });
  const setValues = (values: DriverValues) =>
    dispatch({ type: 'setDriverValues', budget: budget.id, values });
  const onPaste = (e: ClipboardEvent) => {
    const block = fromTsv(e.clipboardData.getData('text/plain'));
    const cell = (e.target as HTMLElement).closest<HTMLElement>('[data-driver]');
    // A single text goes into the field like any other.
    if (!cell || readOnly || (block.length === 1 && block[0]!.length === 1)) return;
    e.preventDefault();
    const at = { driver: Number(cell.dataset.driver), month: Number(cell.dataset.month) };
    const pasted = pastedValues(
      budget.drivers,
      periods.map((p) => p.id),
      at,
      block,
      book.locale,
    );
    if ('trouble' in pasted) return say(pasted.trouble, 'trouble');
    setValues(pasted.values);
    say(
      `${pasted.values.length} months of drivers pasted${pasted.leftOut > 0 ? `, ${pasted.leftOut} cells left out` : ''}.`,
    );
  };
  const add = () => {
    const id = `d${book.nextId}`;
    keep({
      id,
      name: `Driver ${budget.drivers.length + 1}`,
      unit: '',
      decimals: 0,
      opening: null,
      series: { kind: 'typed', values: {} },
      note: '',
    });
    setChosen(id);
  };
  return (
    <div className={stage.work}>
      <div className={stage.left} style={{ overflow: 'auto' }}>
        <div className={stage.tools}>
          <Button variant="filled" disabled={readOnly} onClick={add}>
            Add a driver
          </Button>
          <span className="faded">
            Sites open, members, hours, prices: what is said here once is followed by every line that names
            it.
          </span>
        </div>
        {budget.drivers.length > 0 && (
          <table className={classes.sheet} aria-label="Drivers by month" onPaste={onPaste}>
            <thead>
              <tr>
                <th>Driver</th>
                <th>Unit</th>
                {periods.map((p) => (
                  <th key={p.id}>{p.short}</th>
                ))}
              </tr>
            </thead>
            <tbody>
              {budget.drivers.map((d, place) => (
                <DriverRow
                  key={d.id}
                  driver={d}
                  place={place}
                  result={whole.reckoning.drivers.get(d.id)!}
                  ids={periods.map((p) => p.id)}
                  current={d.id === driver?.id}
                  locale={book.locale}
                  readOnly={readOnly}
                  onChoose={() => setChosen(d.id)}
                  onValues={setValues}
                />
              ))}
            </tbody>
          </table>
        )}
      </div>
      <aside className={stage.panel} tabIndex={0} aria-label="Driver">
        {driver ? (
          <DriverPanel
            key={driver.id}
            ground={ground}
            budget={budget}
            driver={driver}
            issue={whole.reckoning.drivers.get(driver.id)?.issue ?? null}
            readOnly={readOnly}
            onDriver={keep}
          />
        ) : (
          <p className="faded">
            No driver yet. Add one, give it a unit and its months; then choose “Drivers” or “Formula” for a
            line on the worksheet.
          </p>
        )}
      </aside>
    </div>
  );
}

function DriverRow({
  driver,
  place,
  result,
  ids,
  current,
  locale,
  readOnly,
  onChoose,
  onValues,
}: {
  readonly driver: Driver;
  /** Which of the drivers it is. */
  readonly place: number;
  readonly result: DriverResult;
  readonly ids: readonly PeriodId[];
  readonly current: boolean;
  readonly locale: string;
  readonly readOnly: boolean;
  readonly onChoose: () => void;
  readonly onValues: (values: DriverValues) => void;
}) {
  const { series } = driver;
  return (
    <tr data-current={current || undefined} onFocus={onChoose} onClick={onChoose}>
      <th scope="row">
        <button type="button" className={classes.pick} onClick={onChoose}>
          {driver.name}
        </button>
      </th>
      <td className="faded">{driver.unit}</td>
      {ids.map((id, i) => (
        <td key={id} data-driver={place} data-month={i}>
          {series.kind === 'typed' ? (
            <ScaledInput
              aria-label={`${driver.name}, month ${i + 1}`}
              variant="unstyled"
              value={series.values[id] ?? null}
              decimals={driver.decimals}
              locale={locale}
              disabled={readOnly}
              onCommit={(value) => onValues([{ driver: driver.id, period: id, value }])}
            />
          ) : (
            <span className={classes.reckoned}>
              {scaledText(result.values[i] ?? null, driver.decimals, locale)}
            </span>
          )}
        </td>
      ))}
    </tr>
  );
}
