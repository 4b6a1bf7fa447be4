'use client';

import { useCallback, useMemo, useState } from 'react';
import { minor, type Minor } from '@/core/money';
import { indexOfId, periodsOf, type PeriodIndex, type PeriodRange } from '@/core/calendar';
import { covenantsOf, measuresOf, ratiosOf, type Ahead, type Ground } from '@/core/ground';
import { RATIO_IDS, type Covenant } from '@/core/model';
import { isTested, keepsCovenant, type Measure } from '@/core/statements';
import { Picture, type Drawing, type KeyEntry, type Token } from '@/components/Picture';
import stage from '@/components/Stage.module.css';
import { moneyFormat, type MoneyFormat } from '@/store/format';
import { RATIO_NAMES, ratioName } from '@/store/ratioNames';
import { INPUT_NAMES, RATIO_FORMULAS, ratioText } from '@/store/statementWords';
import { CostBehavior } from './CostBehavior';
import { Covenants, ratioScale } from './Covenants';
import { OwnRatios } from './OwnRatios';
import { figureAxis, periodAxis, periodBars, PERIOD_KEYS } from './periodBars';
import { RatioTable } from './RatioTable';
import classes from './Statements.module.css';

type Ratio = Covenant['ratio'];

const LIMIT_KEY: KeyEntry = { mark: 'line', label: 'Limit' };

/** Ratios by period with their formulas, and what lenders ask of them. */
export function RatiosView({
  ground,
  ahead,
  range,
}: {
  readonly ground: Ground;
  readonly ahead: Ahead;
  readonly range: PeriodRange;
}) {
  const { book, calendar } = ground;
  const money = moneyFormat(book);
  const [at, setAt] = useState<{ readonly ratio: Ratio; readonly period: PeriodIndex | null }>({
    ratio: 'current',
    period: null,
  });
  const ratioAt = useMemo(() => ratiosOf(ground, ahead), [ground, ahead]);
  const measureAt = useMemo(() => measuresOf(ground, ahead, ratioAt), [ground, ahead, ratioAt]);
  const states = useMemo(() => covenantsOf(ground, ahead, measureAt), [ground, ahead, measureAt]);
  const { start } = ahead;
  const { first, last } = range;
  const periods = useMemo(
    () => periodsOf(calendar, { first, last: Math.min(last, ahead.last) }),
    [calendar, first, last, ahead.last],
  );
  const period =
    at.period !== null && at.period >= first && at.period <= last
      ? at.period
      : (periods.at(-1)?.index ?? last);
  // One that was taken away is no longer looked at.
  const isThere = typeof at.ratio === 'string' || book.ownRatios.some((r) => isSame({ own: r.id }, at.ratio));
  const ratio: Ratio = isThere ? at.ratio : 'current';
  const own = book.covenants.filter((c) => isSame(c.ratio, ratio));
  const breaks = (of: Ratio, p: PeriodIndex, measure: Measure): boolean =>
    book.covenants.some(
      (c) =>
        isSame(c.ratio, of) &&
        (indexOfId(calendar, c.from) ?? Infinity) <= p &&
        isTested(c, calendar, p) &&
        keepsCovenant(c, measure) === false,
    );
  const name = ratioName(book, ratio);
  const draw = useCallback(
    (token: Token): Drawing => {
      const measures = periods.map((p) => measureAt(ratio, p.index));
      const scale = 1 / ratioScale(measures[0]?.unit ?? 'times', book.currency);
      const values = measures.map((m) => (m.value === null ? null : m.value * scale));
      return {
        data: [
          ...periodBars(token, periods, start, values),
          ...own.map((c) => ({
            type: 'scatter',
            mode: 'lines',
            x: [-0.5, periods.length - 0.5],
            y: [c.limit * scale, c.limit * scale],
            line: { color: token('--bad'), width: 1.6, dash: 'dash' },
            hoverinfo: 'skip',
          })),
        ],
        layout: {
          barmode: 'overlay',
          margin: { l: 44, r: 8, t: 8, b: 22 },
          xaxis: periodAxis(token, periods),
          yaxis: figureAxis(token, 5),
        },
      };
    },
    [periods, measureAt, ratio, own, start, book.currency],
  );
  const shown = measureAt(ratio, period);
  const parts = typeof ratio === 'string' ? ratioAt(ratio, period) : null;
  const formula = typeof ratio === 'string' ? RATIO_FORMULAS[ratio] : null;
  return (
    <div className={stage.work}>
      <div className={stage.left} style={{ overflow: 'auto' }}>
        <div className={classes.above}>
          <Picture
            label={`${name} by period`}
            draw={draw}
            height={150}
            fileName={name}
            keys={own.length > 0 ? [...PERIOD_KEYS, LIMIT_KEY] : PERIOD_KEYS}
            table={{
              head: ['Period', name],
              rows: periods.map((p) => {
                const m = measureAt(ratio, p.index);
                return [p.label, ratioText(m.value, m.unit, money)];
              }),
            }}
          />
        </div>
        <div style={{ marginTop: 10 }}>
          <RatioTable label="Ratios by period" periods={periods}>
            {RATIO_IDS.map((id) => (
              <tr key={id}>
                <td title={RATIO_FORMULAS[id]}>
                  <button
                    type="button"
                    className={classes.pick}
                    aria-pressed={id === ratio}
                    onClick={() => setAt({ ratio: id, period: at.period })}
                  >
                    {RATIO_NAMES[id]}
                  </button>
                </td>
                {periods.map((p) => {
                  const r = measureAt(id, p.index);
                  return (
                    <td
                      key={p.index}
                      data-ahead={p.index > ahead.start || undefined}
                      data-broken={breaks(id, p.index, r) || undefined}
                    >
                      <button
                        type="button"
                        className={classes.pick}
                        aria-label={`${RATIO_NAMES[id]} ${p.label}: ${ratioText(r.value, r.unit, money) || 'not known'}`}
                        onClick={() => setAt({ ratio: id, period: p.index })}
                      >
                        {ratioText(r.value, r.unit, money) || '·'}
                      </button>
                    </td>
                  );
                })}
              </tr>
            ))}
          </RatioTable>
        </div>
        <OwnRatios
          ground={ground}
          ahead={ahead}
          periods={periods}
          chosen={typeof ratio === 'string' ? null : ratio.own}
          onChoose={(own, period) => setAt({ ratio: { own }, period: period ?? at.period })}
          breaks={(own, p, measure) => breaks({ own }, p, measure)}
        />
      </div>
      <aside tabIndex={0} className={stage.panel} aria-label="Reasoning">
        <h2>{name}</h2>
        <div className="faded" style={{ fontSize: 12.5 }}>
          {calendar.period(period).label} · {ratioText(shown.value, shown.unit, money) || 'not known'}
        </div>
        <section>
          <div className="label">How it is made</div>
          <p style={{ margin: '4px 0 6px', fontSize: 13 }}>
            {formula ?? 'By its formula, beneath the ratios.'}
          </p>
          {parts &&
            [...parts.top, ...parts.bottom].map((part, i) => (
              <Part
                key={`${part.name} ${i}`}
                label={INPUT_NAMES[part.name]}
                amount={part.amount}
                money={money}
              />
            ))}
          {!parts && shown.parts && (
            <>
              <Part label="Above the line" amount={minor(shown.parts.top)} money={money} />
              <Part label="Below it" amount={minor(shown.parts.bottom)} money={money} />
            </>
          )}
          <p className="faded" style={{ fontSize: 12 }}>
            Flows are those of the year that ends with the period, balances those at its end.
          </p>
        </section>
        {parts?.top.some((p) => p.name === 'fixedCosts') && <CostBehavior ground={ground} />}
        <Covenants ground={ground} states={states} ratio={ratio} unit={shown.unit} />
      </aside>
    </div>
  );
}

const Part = ({
  label,
  amount,
  money,
}: {
  readonly label: string;
  readonly amount: Minor | null;
  readonly money: MoneyFormat;
}) => (
  <div className={classes.pair}>
    <span>{label}</span>
    <b>{money.text(amount) || 'not known'}</b>
  </div>
);

const isSame = (a: Ratio, b: Ratio): boolean =>
  typeof a === 'string' || typeof b === 'string' ? a === b : a.own === b.own;
