'use client';

import { useMemo } from 'react';
import { Button, Group, NativeSelect, TextInput } from '@mantine/core';
import { unitOf } from '@/core/money';
import type { Period, PeriodIndex } from '@/core/calendar';
import { figuresOfBooks, type Ahead, type Ground } from '@/core/ground';
import { LIMITS, OWN_UNITS, type OwnRatio } from '@/core/model';
import { ownMeasure, ownRatioOf, type Measure, type OwnRatioValue } from '@/core/statements';
import { FormulaField } from '@/components/formula/FormulaField';
import { dispatch, useBookStore } from '@/store/bookStore';
import { moneyFormat } from '@/store/format';
import { INPUT_NAMES, ratioText } from '@/store/statementWords';
import { say } from '@/store/session';
import { RatioTable } from './RatioTable';
import classes from './Statements.module.css';

const ISSUES: Record<NonNullable<OwnRatioValue['issue']>, string> = {
  badFormula: 'The formula cannot be read.',
  missing: 'It names something that the book does not have.',
  dividesByZero: 'It divides by nothing.',
  tooLarge: 'It comes to more than a figure can be.',
};

/** Ratios by formulas of one's own, beneath those of the trade: over the same years and balances. */
export function OwnRatios({
  ground,
  ahead,
  periods,
  chosen,
  onChoose,
  breaks,
}: {
  readonly ground: Ground;
  readonly ahead: Ahead;
  readonly periods: readonly Period[];
  /** The one that is looked at. */
  readonly chosen: string | null;
  readonly onChoose: (ratio: string, period: PeriodIndex | null) => void;
  /** Whether a covenant on it is broken. */
  readonly breaks: (ratio: string, period: PeriodIndex, measure: Measure) => boolean;
}) {
  const { book, calendar } = ground;
  const money = moneyFormat(book);
  const readOnly = useBookStore((s) => s.readOnly);
  const books = useMemo(
    () => ({
      balances: ahead.balances,
      accounts: ahead.accounts,
      calendar,
      unit: unitOf(book.currency),
      figures: figuresOfBooks(ground, ahead),
    }),
    [ahead, calendar, book.currency, ground],
  );
  const values = useMemo(
    () => new Map(book.ownRatios.map((r) => [r.id, periods.map((p) => ownRatioOf(r, books, p.index))])),
    [book.ownRatios, books, periods],
  );
  const current = book.ownRatios.find((r) => r.id === chosen) ?? null;
  const keep = (ratio: OwnRatio) => dispatch({ type: 'setOwnRatio', ratio });
  const add = () => {
    const id = `o${book.nextId}`;
    const income = book.accounts.find((a) => a.kind === 'income');
    const cost = book.accounts.find((a) => a.kind === 'costOfSales' || a.kind === 'expense');
    if (!income || !cost) return say('A ratio needs accounts of income and of costs first.', 'trouble');
    const no = keep({
      id,
      name: 'Costs of income',
      formula: `"kind:${cost.kind}" / "kind:income"`,
      unit: 'percent',
    });
    if (!no) onChoose(id, null);
  };
  const issue = current && values.get(current.id)?.find((v) => v.issue !== null)?.issue;
  return (
    <section aria-label="Ratios of your own" style={{ marginTop: 14 }}>
      <Group justify="space-between" mb={6}>
        <span className="label">Ratios of your own</span>
        <Button disabled={readOnly} onClick={add}>
          Add a ratio
        </Button>
      </Group>
      {book.ownRatios.length > 0 && (
        <RatioTable label="Own ratios by period" periods={periods}>
          {book.ownRatios.map((r) => (
            <tr key={r.id}>
              <td>
                <button
                  type="button"
                  className={classes.pick}
                  aria-pressed={r.id === chosen}
                  onClick={() => onChoose(r.id, null)}
                >
                  {r.name}
                </button>
              </td>
              {values.get(r.id)!.map((v, i) => (
                <td
                  key={periods[i]!.index}
                  data-ahead={periods[i]!.index > ahead.start || undefined}
                  data-broken={breaks(r.id, periods[i]!.index, ownMeasure(v, r.unit)) || undefined}
                  title={v.issue ? ISSUES[v.issue] : undefined}
                >
                  <button
                    type="button"
                    className={classes.pick}
                    aria-label={`${r.name} ${periods[i]!.label}: ${ratioText(v.value, r.unit, money) || 'not known'}`}
                    onClick={() => onChoose(r.id, periods[i]!.index)}
                  >
                    {ratioText(v.value, r.unit, money) || '·'}
                  </button>
                </td>
              ))}
            </tr>
          ))}
        </RatioTable>
      )}
      {current && (
        <div key={current.id} style={{ maxWidth: 460, paddingTop: 8 }}>
          <Group gap={8} align="end">
            <TextInput
              key={current.name}
              label="Name"
              defaultValue={current.name}
              maxLength={LIMITS.rowName}
              disabled={readOnly}
              onBlur={(e) => {
                const name = e.currentTarget.value.trim();
                if (name !== '' && name !== current.name) keep({ ...current, name });
              }}
            />
            <NativeSelect
              label="Told in"
              value={current.unit}
              disabled={readOnly}
              data={OWN_UNITS}
              onChange={(e) => keep({ ...current, unit: e.currentTarget.value as OwnRatio['unit'] })}
            />
            <Button
              c="var(--bad)"
              disabled={readOnly}
              onClick={() => {
                const asked = book.covenants.some(
                  (c) => typeof c.ratio === 'object' && c.ratio.own === current.id,
                );
                if (dispatch({ type: 'removeOwnRatio', ratio: current.id })) return;
                say(
                  `${current.name} is taken away${asked ? ', and the covenant on it' : ''}. Ctrl+Z brings ${asked ? 'both' : 'it'} back.`,
                );
              }}
            >
              Take it away
            </Button>
          </Group>
          <FormulaField
            kept={current.formula}
            accounts={book.accounts}
            drivers={[]}
            figures={INPUT_NAMES}
            self={null}
            readOnly={readOnly}
            onKept={(formula) => keep({ ...current, formula })}
            onEnter={() => undefined}
          />
          <p className="faded" style={{ fontSize: 12.5, margin: 0 }}>
            {issue
              ? ISSUES[issue]
              : 'Income and costs count for the year that ends with the period, balances at its end.'}
          </p>
        </div>
      )}
    </section>
  );
}
