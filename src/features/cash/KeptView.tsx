'use client';

import { useMemo, useState } from 'react';
import { Button, Group, NativeSelect, SegmentedControl, TextInput } from '@mantine/core';
import { FLOWS, type Flow, type ThenAndNow } from '@/core/cash';
import { toDayNumber, type Day } from '@/core/calendar';
import { keptFrom, thenAndNowOf, type CashView, type Ground } from '@/core/ground';
import { LIMITS, type KeptForecast } from '@/core/model';
import { minor } from '@/core/money';
import { PanelButton } from '@/components/Opens';
import stage from '@/components/Stage.module.css';
import { instant } from '@/store/actions';
import { dispatch, useBookStore } from '@/store/bookStore';
import { moneyFormat } from '@/store/format';
import { recordedName } from '@/store/person';
import { say } from '@/store/session';
import { onDay } from '@/store/cashWords';
import classes from './Cash.module.css';

const FLOW_NAMES: Record<Flow, string> = {
  customers: 'Customers',
  suppliers: 'Suppliers',
  payroll: 'Payroll',
  taxes: 'Taxes',
  loans: 'Loans',
  owners: 'Owners',
  other: 'Other',
};

/** A forecast that was kept, beside what the banks did since: week by week, and which sources the difference came from. */
export function KeptView({ ground, view }: { readonly ground: Ground; readonly view: CashView }) {
  const { kept } = ground.book.cash;
  const readOnly = useBookStore((s) => s.readOnly);
  const [chosen, setChosen] = useState<string | null>(null);
  const [grain, setGrain] = useState<'weeks' | 'months'>('weeks');
  const one = kept.find((k) => k.id === chosen) ?? kept.at(-1) ?? null;
  const both = useMemo(
    () => (one ? thenAndNowOf(ground, view, one, grain) : null),
    [ground, view, one, grain],
  );
  return (
    <div className={stage.left} style={{ flex: 1, paddingRight: 18 }}>
      <div className={stage.tools}>
        {one && (
          <>
            <NativeSelect
              aria-label="Kept forecast"
              value={one.id}
              data={kept.map((k) => ({
                value: k.id,
                label: `${k.name}, from ${onDay(toDayNumber(k.start))}`,
              }))}
              onChange={(e) => setChosen(e.currentTarget.value)}
            />
            <SegmentedControl
              size="xs"
              aria-label="Spans"
              value={grain}
              onChange={(v) => setGrain(v as 'weeks' | 'months')}
              data={[
                { value: 'weeks', label: 'Weeks' },
                { value: 'months', label: 'Months' },
              ]}
            />
          </>
        )}
        <span className={stage.push} />
        <KeepButton ground={ground} view={view} onKept={setChosen} />
        {one && (
          <Button
            disabled={readOnly}
            onClick={() => {
              if (!dispatch({ type: 'removeKeptForecast', kept: one.id }))
                say(`“${one.name}” is removed. Ctrl+Z brings it back.`);
            }}
          >
            Remove
          </Button>
        )}
      </div>
      {!one ? (
        <p className={classes.note}>
          Keep today’s forecast: when the next months are closed, it stands here beside what the bank did,
          week by week, with what it differed by.
        </p>
      ) : !both ? (
        <p className={classes.note}>
          “{one.name}” begins after {onDay(toDayNumber(one.start))}, and no month was closed since. Close one,
          and what the bank did stands beside it.
        </p>
      ) : (
        <Beside ground={ground} kept={one} both={both} />
      )}
    </div>
  );
}

/** Names and keeps the forecast that is shown. */
function KeepButton({
  ground,
  view,
  onKept,
}: {
  readonly ground: Ground;
  readonly view: CashView;
  readonly onKept: (id: string) => void;
}) {
  const readOnly = useBookStore((s) => s.readOnly);
  const [name, setName] = useState('');
  const { book } = ground;
  return (
    <PanelButton trapFocus button={<Button disabled={readOnly}>Keep this forecast…</Button>}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          const id = `k${book.nextId}`;
          const refusal = dispatch({
            type: 'keepForecast',
            kept: {
              id,
              name: name.trim(),
              at: instant(),
              by: recordedName(),
              ...keptFrom(view, LIMITS.keptDays),
            },
          });
          if (refusal) return;
          setName('');
          onKept(id);
          say('The forecast is kept as it is today.');
        }}
      >
        <Group gap={6} align="end">
          <TextInput
            size="xs"
            label="Keep it as"
            placeholder="For the board in November"
            maxLength={LIMITS.budgetName}
            value={name}
            onChange={(e) => setName(e.currentTarget.value)}
          />
          <Button type="submit" disabled={name.trim() === ''}>
            Keep
          </Button>
        </Group>
      </form>
    </PanelButton>
  );
}

function Beside({
  ground,
  kept,
  both,
}: {
  readonly ground: Ground;
  readonly kept: KeptForecast;
  readonly both: ThenAndNow;
}) {
  const money = moneyFormat(ground.book);
  const flows = FLOWS.filter((f) => both.differences[f].some((d) => d !== 0));
  const soFar = (f: Flow, i: number) => both.differences[f].slice(0, i + 1).reduce((t, d) => t + d, 0);
  const last = both.ranges.length - 1;
  const off = both.now[last]! - both.then[last]!;
  const reasons = flows
    .map((f) => [f, soFar(f, last)] as const)
    .filter(([, d]) => d !== 0)
    .sort((a, b) => Math.abs(b[1]) - Math.abs(a[1]));
  return (
    <>
      <p className={classes.note} role="note">
        Kept by {kept.by || 'someone'} on {onDay(toDayNumber(kept.at.slice(0, 10) as Day))}. On{' '}
        {onDay(both.ranges[last]!.to)} the bank holds <b>{money.text(minor(both.now[last]!))}</b>; expected
        were {money.text(minor(both.then[last]!))}:{' '}
        {off === 0
          ? 'just that.'
          : `${money.text(minor(Math.abs(off)))} ${off > 0 ? 'more' : 'less'}. ${reasons
              .slice(0, 3)
              .map(([f, d]) => `${FLOW_NAMES[f]} ${d > 0 ? '+' : '−'}${money.text(minor(Math.abs(d)))}`)
              .join(', ')}.`}
      </p>
      <ThenChart both={both} />
      <div className={classes.scroll} tabIndex={0} role="region" aria-label="Then and now">
        <table className={classes.table}>
          <thead>
            <tr>
              <th>Up to</th>
              <th className={classes.figure}>
                <span className={classes.lineMark} /> Expected then
              </th>
              <th className={classes.figure}>
                <span className={classes.nowMark} /> In the bank
              </th>
              <th className={classes.figure}>Difference</th>
              {both.opening !== 0 && <th className={classes.figure}>of it, at the start</th>}
              {flows.map((f) => (
                <th key={f} className={classes.figure}>
                  {FLOW_NAMES[f]}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {both.ranges.map((r, i) => {
              const d = both.now[i]! - both.then[i]!;
              return (
                <tr key={r.to}>
                  <td>{onDay(r.to)}</td>
                  <td className={classes.figure}>{money.exact(minor(both.then[i]!))}</td>
                  <td className={classes.figure}>{money.exact(minor(both.now[i]!))}</td>
                  <td className={classes.figure}>
                    <b>{money.exact(minor(d))}</b>
                  </td>
                  {both.opening !== 0 && (
                    <td className={classes.figure}>{money.exact(minor(both.opening))}</td>
                  )}
                  {flows.map((f) => (
                    <td key={f} className={classes.figure}>
                      {money.exact(minor(soFar(f, i)))}
                    </td>
                  ))}
                </tr>
              );
            })}
          </tbody>
        </table>
        <p className="faded" style={{ fontSize: 12.5 }}>
          Differences are added up from the start, so each row’s sources come to its difference. Who paid is
          told by what stands against the bank in the ledger; it does not tell an open invoice from a new
          sale.
        </p>
      </div>
    </>
  );
}

const [WIDTH, HEIGHT, PAD] = [900, 110, 8];

/** Two lines: what was expected, outlined, and what happened, solid. */
function ThenChart({ both }: { readonly both: ThenAndNow }) {
  const all = [...both.then, ...both.now];
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const n = both.ranges.length;
  const x = (i: number) => PAD + ((WIDTH - 2 * PAD) * (i + 0.5)) / n;
  const y = (v: number) => HEIGHT - PAD - ((HEIGHT - 2 * PAD) * (v - low)) / (high - low || 1);
  const path = (values: readonly number[]) => values.map((v, i) => `${x(i)},${y(v)}`).join(' ');
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className={classes.chart}
      style={{ height: HEIGHT, cursor: 'default' }}
      preserveAspectRatio="none"
      role="img"
      aria-label="The bank as it was expected, and as it was"
    >
      <polyline points={path(both.then)} className={classes.line} vectorEffect="non-scaling-stroke" />
      <polyline points={path(both.now)} className={classes.now} vectorEffect="non-scaling-stroke" />
    </svg>
  );
}
