'use client';

import { useState } from 'react';
import { Button, NumberInput } from '@mantine/core';
import { fromDayNumber } from '@/core/calendar';
import type { Ground } from '@/core/ground';
import { minor } from '@/core/money';
import { FLOOR, type Answers, type AskOf } from '@/core/whatif';
import stage from '@/components/Stage.module.css';
import { decimalsOf, sizeText } from '@/store/caseWords';
import { onDay } from '@/store/cashWords';
import { moneyFormat, type MoneyFormat } from '@/store/format';
import { useAnswer } from '@/store/questions';
import { rangedIn } from './asked';
import { CaseChoice, Waits } from './Choices';
import type { AboutCase } from './useCases';
import classes from './WhatIf.module.css';

const MOST = 10_000;

/** How sure a case is: draws of what may come out lower or higher, the bank by week, and how often something breaks. */
export function SureView({ ground, looked, range, cases, one, onCase }: AboutCase) {
  const { book } = ground;
  const [count, setCount] = useState(1000);
  const [seed, setSeed] = useState(1);
  const [question, setQuestion] = useState<AskOf<'draws'> | null>(null);
  const asking = useAnswer(ground, looked, range, question);
  const assumed = rangedIn(book, one.case);
  const varying = assumed.filter((a) => a.low !== null || a.high !== null);
  const told = asking.state === 'answered' ? asking.answer : null;
  const text = (a: (typeof assumed)[number], size: number) =>
    sizeText(a.adjustment.what, size, book, decimalsOf(book, a.adjustment.what));
  return (
    <>
      <div className={stage.tools}>
        <CaseChoice
          cases={cases}
          one={one}
          onCase={(id) => {
            onCase(id);
            setQuestion(null);
          }}
        />
        <NumberInput
          aria-label="How many draws"
          w={130}
          min={10}
          max={MOST}
          clampBehavior="strict"
          allowDecimal={false}
          suffix=" draws"
          thousandSeparator=","
          value={count}
          onChange={(v) => setCount(Number(v) || 10)}
        />
        <NumberInput
          aria-label="Seed"
          w={110}
          min={1}
          max={1_000_000}
          allowDecimal={false}
          prefix="seed "
          value={seed}
          onChange={(v) => setSeed(Number(v) || 1)}
        />
        <Button
          disabled={varying.length === 0}
          onClick={() => setQuestion({ ask: 'draws', assumed: rangedIn(book, one.case), seed, count })}
        >
          Draw
        </Button>
      </div>
      <div className={classes.body}>
        {varying.length === 0 ? (
          <p className="faded">
            Nobody said how low or how high anything may come out in {one.case.name}. Go to a size in the
            matrix and say it beside it: then this tells how sure the case is.
          </p>
        ) : (
          <p className="faded">
            Each draw takes another size of {varying.length === 1 ? 'this' : 'each of these'}, most often near
            the one that is assumed:{' '}
            {varying
              .map(
                (a) =>
                  `${a.adjustment.name} (${text(a, a.low ?? a.size)} – ${text(a, a.size)} – ${text(a, a.high ?? a.size)})`,
              )
              .join(', ')}
            . All else is as in {one.case.name}; one seed gives the same draws everywhere.
          </p>
        )}
        <Waits asking={asking} onStop={() => setQuestion(null)} />
        {told && question && (
          <>
            <Fan told={told} floor={book.cash.floor} money={moneyFormat(book)} />
            <Chances ground={ground} told={told} assumed={question.assumed} />
          </>
        )}
      </div>
    </>
  );
}

/** So many of a hundred draws, never rounded to none or to all where some are or some are not. */
function ofHundred(part: number, whole: number): string {
  if (part === 0) return 'in none';
  if (part === whole) return 'in all';
  const n = Math.round((100 * part) / whole);
  return n === 0 ? 'in less than 1 of 100' : n === 100 ? 'in more than 99 of 100' : `in ${n} of 100`;
}

function Chances({
  ground: { book },
  told,
  assumed,
}: {
  readonly ground: Ground;
  readonly told: Answers['draws'];
  readonly assumed: AskOf<'draws'>['assumed'];
}) {
  const covenants = new Map(book.covenants.map((c) => [c.id, c.name]));
  const asked = [
    ...(book.cash.floor === null
      ? []
      : [[FLOOR, 'The bank falls under the floor, before the credit line'] as const]),
    ...book.covenants.map((c) => [c.id, `${covenants.get(c.id)} breaks`] as const),
  ];
  const half = Math.floor(told.count / 2);
  const hangs = told.hangsOn
    .map((h, i) => ({ ...h, of: assumed[i]! }))
    .filter(({ of }) => of.low !== null || of.high !== null)
    .sort((a, b) => Math.abs(b.upper - b.lower) - Math.abs(a.upper - a.lower));
  return (
    <>
      <h3 className={classes.heading}>How often something breaks</h3>
      {asked.length === 0 && <p className="faded">The book has no floor and no covenant that could break.</p>}
      {asked.map(([id, words]) => (
        <div key={id} className={`${stage.pair} ${classes.narrow}`}>
          <span>{words}</span>
          <b>{ofHundred(told.broken.get(id) ?? 0, told.count)}</b>
        </div>
      ))}
      {told.any > 0 && told.any < told.count && (
        <>
          <h3 className={classes.heading}>What that hangs on</h3>
          <table className={`${classes.matrix} ${classes.narrow}`}>
            <thead>
              <tr>
                <th>Something breaks</th>
                <th data-figure>where it is in its lower half</th>
                <th data-figure>in its upper half</th>
              </tr>
            </thead>
            <tbody>
              {hangs.map((h) => (
                <tr key={h.of.adjustment.id}>
                  <td>{h.of.adjustment.name}</td>
                  <td data-figure>{ofHundred(h.lower, half)}</td>
                  <td data-figure>{ofHundred(h.upper, half)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </>
  );
}

const [WIDTH, HEIGHT, LEFT, RIGHT, TOP, BASE] = [976, 230, 8, 128, 16, 204];

/** The bank at ends of weeks: half of the draws above the line, eight of ten within the band. */
function Fan({
  told: { weeks, fan, count },
  floor,
  money,
}: {
  readonly told: Answers['draws'];
  readonly floor: number | null;
  readonly money: MoneyFormat;
}) {
  const [at, setAt] = useState<number | null>(null);
  if (weeks.length < 2) return null;
  const all = [...fan.flat(), floor ?? 0, 0];
  const [high, low] = [Math.max(...all), Math.min(...all)];
  const x = (i: number) => LEFT + (i * (WIDTH - LEFT - RIGHT)) / (weeks.length - 1);
  const y = (v: number) => TOP + ((high - v) * (BASE - TOP)) / (high - low || 1);
  const points = (k: 0 | 1 | 2) => fan.map((f, i) => `${x(i).toFixed(1)},${y(f[k]).toFixed(1)}`);
  const band = [...points(2), ...points(0).reverse()].join(' ');
  const last = fan.at(-1)!;
  const every = Math.ceil(weeks.length / 14);
  const names = [
    [2, '90 of 100 below'],
    [1, 'half below'],
    [0, '10 of 100 below'],
  ] as const;
  const places = names.map(([k]) => y(last[k]));
  for (let i = 1; i < places.length; i++) places[i] = Math.max(places[i]!, places[i - 1]! + 13);
  const told = at === null ? null : fan[at]!;
  return (
    <>
      <svg
        className={classes.chart}
        style={{ height: HEIGHT }}
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        preserveAspectRatio="none"
        role="img"
        aria-label={`The bank by week over ${count} draws. At the end 10 of 100 are below ${money.text(minor(last[0]))}, half below ${money.text(minor(last[1]))}, 90 of 100 below ${money.text(minor(last[2]))}`}
        onPointerDown={(e) => {
          const box = e.currentTarget.getBoundingClientRect();
          const place = ((e.clientX - box.left) / box.width) * WIDTH;
          const i = Math.round(((place - LEFT) / (WIDTH - LEFT - RIGHT)) * (weeks.length - 1));
          setAt(i < 0 || i >= weeks.length ? null : i);
        }}
      >
        {weeks.map((w, i) =>
          i % every === 0 ? (
            <text key={w} x={x(i) + 3} y={HEIGHT - 8}>
              {fromDayNumber(w).slice(5)}
            </text>
          ) : null,
        )}
        <polygon className={classes.band} points={band} />
        {low < 0 && <line className={classes.grid} x1={LEFT} x2={WIDTH - RIGHT} y1={y(0)} y2={y(0)} />}
        {floor !== null && (
          <>
            <line className={classes.floor} x1={LEFT} x2={WIDTH - RIGHT} y1={y(floor)} y2={y(floor)} />
            <text x={LEFT + 6} y={y(floor) + 13}>
              floor {money.text(minor(floor))}
            </text>
          </>
        )}
        {names.map(([k]) => (
          <polyline
            key={k}
            className={classes.line}
            data-tone={k === 1 ? 'same' : 'plan'}
            strokeDasharray={k === 1 ? '' : k === 0 ? '3 3' : '9 4'}
            points={points(k).join(' ')}
          />
        ))}
        {at !== null && <line className={classes.chosen} x1={x(at)} x2={x(at)} y1={TOP - 6} y2={BASE} />}
        {names.map(([k, words], i) => (
          <text key={k} className={classes.name} x={WIDTH - RIGHT + 8} y={places[i]! + 4}>
            {words}
          </text>
        ))}
      </svg>
      <div className={classes.readout} role="status">
        {told === null ? (
          <span>Press a week in the picture to read it.</span>
        ) : (
          <>
            <span>{onDay(weeks[at!]!)}</span>
            {names.map(([k, words]) => (
              <span key={k}>
                {words} <b>{money.text(minor(told[k]))}</b>
              </span>
            ))}
          </>
        )}
      </div>
    </>
  );
}
