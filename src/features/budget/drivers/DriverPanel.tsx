'use client';

import { Button, NativeSelect, Textarea, TextInput } from '@mantine/core';
import { percent } from '@/core/money';
import { LIMITS, quantityNamed, type Budget, type Driver, type Series } from '@/core/model';
import type { DriverResult } from '@/core/plan';
import { NumberInput, PercentInput, ScaledInput } from '@/components/MoneyInput';
import { OverChoice } from '@/components/OverChoice';
import { sayOver } from '@/store/actions';
import { dispatch, useBookStore } from '@/store/bookStore';
import type { Ground } from '@/core/ground';
import { say } from '@/store/session';
import { useTry } from '@/store/useTry';
import { DriverHistory } from '../reasoning/FigureHistory';
import { rescaled, usersOf } from './driverEdits';
import { FormulaField } from '@/components/formula/FormulaField';
import { Choice, Field, StepTimes } from '../methods/inputs/parts';
import { keepNewWeights, WeightsField } from '../methods/inputs/WeightsField';
import { useReckoned } from '../rows/useReckoned';
import { ISSUE_WORDS } from '../words';

const SERIES_WORDS: Record<Series['kind'], string> = {
  typed: 'typed by month',
  step: 'stepped',
  seasonal: 'seasonal',
  formula: 'by formula',
};

/** One driver: its name and unit, how its months are made, and what follows it. */
export function DriverPanel({
  ground,
  budget,
  driver,
  issue,
  readOnly,
  onDriver,
}: {
  readonly ground: Ground;
  readonly budget: Budget;
  readonly driver: Driver;
  readonly issue: DriverResult['issue'];
  readonly readOnly: boolean;
  readonly onDriver: (driver: Driver) => void;
}) {
  const tryThis = useTry();
  // Of the company, not of the budget: an approved one can still be asked.
  const bookReadOnly = useBookStore((s) => s.readOnly);
  const { book } = ground;
  const { whole } = useReckoned(ground, budget);
  const { periods } = whole.facts;
  const { series } = driver;
  const scaled = { decimals: driver.decimals, locale: book.locale, disabled: readOnly };
  const setSeries = (next: Series) => onDriver({ ...driver, series: next });
  const values = whole.reckoning.drivers.get(driver.id)?.values ?? [];
  const users = usersOf(budget, driver.id);
  const change = (kind: Series['kind']) => {
    if (kind === series.kind) return;
    const first = values.find((v) => v !== null) ?? 0;
    switch (kind) {
      case 'typed':
        return setSeries({
          kind,
          values: Object.fromEntries(
            periods.flatMap((p, i) =>
              values[i] === null || values[i] === undefined ? [] : [[p.id, values[i]]],
            ),
          ),
        } as Series);
      case 'step':
        return setSeries({
          kind,
          start: first,
          first: (periods[1] ?? periods[0]!).id,
          every: 1,
          change: { of: 'amount', amount: 0 },
        });
      case 'seasonal':
        return setSeries({
          kind,
          level: first,
          weights: book.weights[0]?.id ?? keepNewWeights(book, periods),
        });
      case 'formula':
        return setSeries({ kind, formula: `prior "driver:${driver.id}"` });
    }
  };
  const fill = () => {
    if (series.kind !== 'typed') return;
    let last: number | null = null;
    const filled: Record<string, number | null> = {};
    for (const p of periods) {
      last = series.values[p.id] ?? last;
      if (last !== null) filled[p.id] = last;
    }
    setSeries({ kind: 'typed', values: filled } as Series);
  };
  return (
    <>
      <h2>{driver.name}</h2>
      <section>
        <Field label="Name">
          <TextInput
            key={driver.name}
            defaultValue={driver.name}
            maxLength={LIMITS.driverName}
            disabled={readOnly}
            onBlur={(e) => {
              const name = e.currentTarget.value.trim();
              if (name && name !== driver.name) onDriver({ ...driver, name });
            }}
          />
        </Field>
        <Field label="Unit">
          <TextInput
            key={driver.unit}
            defaultValue={driver.unit}
            placeholder="berths, hours, $ an hour"
            maxLength={LIMITS.unit}
            disabled={readOnly}
            onBlur={(e) =>
              e.currentTarget.value !== driver.unit && onDriver({ ...driver, unit: e.currentTarget.value })
            }
          />
        </Field>
        <Field label="Decimals">
          <NumberInput
            value={driver.decimals}
            least={0}
            most={6}
            disabled={readOnly}
            onCommit={(decimals) => onDriver(rescaled(driver, decimals))}
          />
        </Field>
        <OverChoice
          name={driver.name}
          over={quantityNamed(book.quantities, driver).over ?? null}
          readOnly={bookReadOnly}
          onOver={(over) => sayOver(book, driver, over)}
        />
        <Field label="Before the first month">
          <ScaledInput
            value={driver.opening}
            {...scaled}
            placeholder="nothing"
            onCommit={(opening) => onDriver({ ...driver, opening })}
          />
        </Field>
      </section>
      <section>
        <div className="label">How its months are made</div>
        <Choice
          label="It is"
          value={series.kind}
          disabled={readOnly}
          options={(Object.keys(SERIES_WORDS) as Series['kind'][]).map((value) => ({
            value,
            label: SERIES_WORDS[value],
          }))}
          onChange={change}
        />
        {issue && <p style={{ color: 'var(--bad)', fontSize: 12.5 }}>{ISSUE_WORDS[issue]}</p>}
        {series.kind === 'typed' && (
          <Button mt={6} disabled={readOnly} onClick={fill}>
            Carry each month into blanks
          </Button>
        )}
        {series.kind === 'step' && (
          <>
            <Field label="Start">
              <ScaledInput
                value={series.start}
                {...scaled}
                onCommit={(v) => setSeries({ ...series, start: v ?? 0 })}
              />
            </Field>
            <Field label="Then each time">
              <NativeSelect
                value={series.change.of}
                disabled={readOnly}
                data={[
                  { value: 'amount', label: 'a number' },
                  { value: 'percent', label: 'a percentage' },
                ]}
                onChange={(e) =>
                  setSeries({
                    ...series,
                    change:
                      e.currentTarget.value === 'amount'
                        ? { of: 'amount', amount: 0 }
                        : { of: 'percent', percent: percent('2'), compounding: true },
                  })
                }
              />
            </Field>
            <Field label="Plus or minus">
              {series.change.of === 'amount' ? (
                <ScaledInput
                  value={series.change.amount}
                  {...scaled}
                  onCommit={(v) => setSeries({ ...series, change: { of: 'amount', amount: v ?? 0 } })}
                />
              ) : (
                <PercentInput
                  value={series.change.percent}
                  disabled={readOnly}
                  onCommit={(p) =>
                    setSeries({ ...series, change: { of: 'percent', percent: p, compounding: true } })
                  }
                />
              )}
            </Field>
            <StepTimes
              first={series.first}
              every={series.every}
              periods={periods}
              disabled={readOnly}
              onChange={(times) => setSeries({ ...series, ...times })}
            />
          </>
        )}
        {series.kind === 'seasonal' && (
          <>
            <Field label="Average month">
              <ScaledInput
                value={series.level}
                {...scaled}
                onCommit={(v) => setSeries({ ...series, level: v ?? 0 })}
              />
            </Field>
            <WeightsField
              id={series.weights}
              book={book}
              periods={periods}
              readOnly={readOnly}
              onChoose={(weights) => setSeries({ ...series, weights })}
            />
          </>
        )}
        {series.kind === 'formula' && (
          <FormulaField
            kept={series.formula}
            accounts={[]}
            drivers={budget.drivers}
            self={null}
            readOnly={readOnly}
            onKept={(formula) => setSeries({ ...series, formula })}
            onEnter={() => undefined}
          />
        )}
      </section>
      <section>
        <div className="label">Followed by</div>
        <p style={{ margin: '4px 0', fontSize: 13 }}>
          {users.length === 0
            ? 'Nothing yet.'
            : users
                .map((u) =>
                  'account' in u
                    ? book.accounts.find((a) => a.id === u.account)?.name
                    : budget.drivers.find((d) => d.id === u.driver)?.name,
                )
                .join(', ')}
        </p>
        <Textarea
          key={driver.note}
          aria-label="Note on the driver"
          placeholder="Where it comes from"
          defaultValue={driver.note}
          rows={2}
          maxLength={LIMITS.note}
          disabled={readOnly}
          onBlur={(e) =>
            e.currentTarget.value !== driver.note && onDriver({ ...driver, note: e.currentTarget.value })
          }
        />
        {tryThis && (
          <Button mt={8} mr={8} onClick={() => tryThis({ of: { driver: driver.id }, from: null })}>
            Try a change of it…
          </Button>
        )}
        <Button
          mt={8}
          c="var(--bad)"
          disabled={readOnly}
          onClick={() => {
            dispatch({ type: 'removeDriver', budget: budget.id, driver: driver.id });
            say(`${driver.name} is taken away. Ctrl+Z brings it back.`);
          }}
        >
          Take it away
        </Button>
      </section>
      <DriverHistory ground={ground} budget={budget} driver={driver} />
    </>
  );
}
