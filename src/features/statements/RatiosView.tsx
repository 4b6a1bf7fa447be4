'use client';

import { useCallback, useMemo, useState } from 'react';
import { Button, Group, NativeSelect, TextInput } from '@mantine/core';
import { minor, unitOf } from '@/core/money';
import { indexOfId, periodsOf, type PeriodIndex, type PeriodRange } from '@/core/calendar';
import { covenantsOf, ratiosOf, type Ahead, type Ground } from '@/core/ground';
import { LIMITS, RATIO_IDS, type Covenant, type RatioId } from '@/core/model';
import { keepsCovenant, ratioUnit, type CovenantState, type Ratio } from '@/core/statements';
import { Picture, type Drawing, type KeyEntry, type Token } from '@/components/Picture';
import stage from '@/components/Stage.module.css';
import { dispatch, useBookStore } from '@/store/bookStore';
import { moneyFormat } from '@/store/format';
import { RATIO_NAMES } from '@/store/ratioNames';
import { INPUT_NAMES, RATIO_FORMULAS, ratioText } from '@/store/statementWords';
import { say } from '@/store/session';
import { OwnRatios } from './OwnRatios';
import { RatioTable } from './RatioTable';
import classes from './Statements.module.css';

const KEYS: readonly KeyEntry[] = [
  { mark: 'solid', label: 'Closed' },
  { mark: 'hatched', label: 'Ahead' },
];
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
  const [at, setAt] = useState<{ readonly id: RatioId; readonly period: PeriodIndex | null }>({
    id: 'current',
    period: null,
  });
  const ratioAt = useMemo(() => ratiosOf(ground, ahead), [ground, ahead]);
  const states = useMemo(() => covenantsOf(ground, ahead, ratioAt), [ground, ahead, ratioAt]);
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
  const own = book.covenants.filter((c) => c.ratio === at.id);
  const breaks = (id: RatioId, p: PeriodIndex, ratio: Ratio): boolean =>
    book.covenants.some(
      (c) =>
        c.ratio === id && (indexOfId(calendar, c.from) ?? Infinity) <= p && keepsCovenant(c, ratio) === false,
    );
  const draw = useCallback(
    (token: Token): Drawing => {
      const ratios = periods.map((p) => ratioAt(at.id, p.index));
      const scale = 1 / scaleOf(ratioUnit(at.id), book.currency);
      const x = periods.map((_, i) => i);
      const bars = (ahead: boolean, marker: object) => ({
        type: 'bar',
        x,
        y: ratios.map((r, i) =>
          r.value === null || periods[i]!.index > start !== ahead ? null : r.value * scale,
        ),
        hoverinfo: 'skip',
        width: 0.6,
        marker,
      });
      return {
        data: [
          bars(false, { color: token('--ink') }),
          bars(true, {
            color: token('--sheet'),
            line: { color: token('--plan-line'), width: 1 },
            pattern: { shape: '/', fgcolor: token('--plan-line'), size: 5, solidity: 0.3 },
          }),
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
          xaxis: {
            tickvals: x,
            ticktext: periods.map((p) => p.tick),
            tickfont: { family: token('--font-words'), size: 11, color: token('--faded') },
            showgrid: false,
            zeroline: false,
            fixedrange: true,
          },
          yaxis: {
            tickfont: { family: token('--font-figures'), size: 11, color: token('--faded') },
            gridcolor: token('--rule'),
            zerolinecolor: token('--ink'),
            nticks: 5,
            fixedrange: true,
          },
        },
      };
    },
    [periods, ratioAt, at.id, own, start, book.currency],
  );
  const shown = ratioAt(at.id, period);
  return (
    <div className={stage.work}>
      <div className={stage.left} style={{ overflow: 'auto' }}>
        <Picture
          label={`${RATIO_NAMES[at.id]} by period`}
          draw={draw}
          height={150}
          fileName={RATIO_NAMES[at.id]}
          keys={own.length > 0 ? [...KEYS, LIMIT_KEY] : KEYS}
          table={{
            head: ['Period', RATIO_NAMES[at.id]],
            rows: periods.map((p) => {
              const r = ratioAt(at.id, p.index);
              return [p.label, ratioText(r.value, r.unit, money)];
            }),
          }}
        />
        <div style={{ marginTop: 10 }}>
          <RatioTable label="Ratios by period" periods={periods}>
            {RATIO_IDS.map((id) => (
              <tr key={id}>
                <td title={RATIO_FORMULAS[id]}>
                  <button
                    type="button"
                    className={classes.pick}
                    aria-pressed={id === at.id}
                    onClick={() => setAt({ id, period: at.period })}
                  >
                    {RATIO_NAMES[id]}
                  </button>
                </td>
                {periods.map((p) => {
                  const r = ratioAt(id, p.index);
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
                        onClick={() => setAt({ id, period: p.index })}
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
        <OwnRatios ground={ground} ahead={ahead} periods={periods} />
      </div>
      <aside tabIndex={0} className={stage.panel} aria-label="Reasoning">
        <h2>{RATIO_NAMES[at.id]}</h2>
        <div className="faded" style={{ fontSize: 12.5 }}>
          {calendar.period(period).label} · {ratioText(shown.value, shown.unit, money) || 'not known'}
        </div>
        <section>
          <div className="label">How it is made</div>
          <p style={{ margin: '4px 0 6px', fontSize: 13 }}>{RATIO_FORMULAS[at.id]}</p>
          {[...shown.top, ...shown.bottom].map((part, i) => (
            <div key={`${part.name} ${i}`} className={classes.pair}>
              <span>{INPUT_NAMES[part.name]}</span>
              <b>{money.text(part.amount) || 'not known'}</b>
            </div>
          ))}
          <p className="faded" style={{ fontSize: 12 }}>
            Flows are those of the year that ends with the period, balances those at its end.
          </p>
        </section>
        <Covenants ground={ground} states={states} ratio={at.id} />
      </aside>
    </div>
  );
}

/** What lenders ask of ratios: each with the first period that breaks it and its headroom, and a new one. */
function Covenants({
  ground,
  states,
  ratio,
}: {
  readonly ground: Ground;
  readonly states: readonly CovenantState[];
  readonly ratio: RatioId;
}) {
  const { book, calendar } = ground;
  const money = moneyFormat(book);
  const readOnly = useBookStore((s) => s.readOnly);
  const [name, setName] = useState('');
  const [bound, setBound] = useState<Covenant['bound']>('least');
  const [limit, setLimit] = useState('');
  const scale = scaleOf(ratioUnit(ratio), book.currency);
  const add = () => {
    const value = Number(limit.replace(',', '.').replace(/[%×\s]/g, ''));
    if (limit.trim() === '' || !Number.isFinite(value))
      return say('A covenant needs a limit, such as 1.25.', 'trouble');
    const from = ground.closedThrough ?? ground.balances.range?.last ?? null;
    if (from === null) return say('A covenant begins with a closed month, and none is.', 'trouble');
    const covenant: Covenant = {
      id: `c${book.nextId}`,
      name: name.trim() || 'Lender',
      ratio,
      bound,
      limit: Math.round(value * scale),
      from: calendar.period(from).id,
    };
    if (!dispatch({ type: 'setCovenant', covenant })) setLimit('');
  };
  return (
    <section>
      <div className="label">Covenants</div>
      {states.length === 0 && <p className="faded">Nobody asks anything of a ratio yet.</p>}
      {states.map(({ covenant: c, broken, tightest }) => (
        <div key={c.id} className={classes.cause}>
          <b>
            {c.name}: {RATIO_NAMES[c.ratio].toLowerCase()} at {c.bound}{' '}
            {ratioText(c.limit, ratioUnit(c.ratio), money)}
          </b>
          {!readOnly && (
            <Button size="compact-xs" onClick={() => dispatch({ type: 'removeCovenant', covenant: c.id })}>
              Take away
            </Button>
          )}
          <small style={broken === null ? undefined : { color: 'var(--bad)' }}>
            {broken === null ? 'Kept in every period' : `Broken first in ${calendar.period(broken).label}`}
            {tightest &&
              ` · ${roomWords(c, tightest.room)} ${money.text(minor(Math.abs(tightest.room)))} in ${calendar.period(tightest.period).label}`}
          </small>
        </div>
      ))}
      {!readOnly && (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            add();
          }}
        >
          <Group gap={6} align="end" mt={8}>
            <TextInput
              label="Who asks"
              value={name}
              maxLength={LIMITS.rowName}
              w={110}
              onChange={(e) => setName(e.currentTarget.value)}
            />
            <NativeSelect
              label={RATIO_NAMES[ratio]}
              value={bound}
              data={[
                { value: 'least', label: 'at least' },
                { value: 'most', label: 'at most' },
              ]}
              onChange={(e) => setBound(e.currentTarget.value as Covenant['bound'])}
            />
            <TextInput label="Limit" value={limit} w={70} onChange={(e) => setLimit(e.currentTarget.value)} />
            <Button type="submit">Add</Button>
          </Group>
        </form>
      )}
    </section>
  );
}

/** How many of a ratio's own whole numbers are one of what it is written in. */
const scaleOf = (unit: Ratio['unit'], currency: string): number =>
  unit === 'money' ? unitOf(currency) : unit === 'percent' ? 10 : 1000;

/** What the headroom is an amount of. */
const roomWords = (c: Covenant, room: number): string =>
  room < 0
    ? 'short by'
    : ratioUnit(c.ratio) === 'days' ||
        c.ratio === 'current' ||
        c.ratio === 'quick' ||
        c.ratio === 'debtToEquity'
      ? `what is above the line could ${c.bound === 'least' ? 'fall' : 'rise'} by`
      : 'profit could fall by';
