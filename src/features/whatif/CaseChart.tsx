import { fromDayNumber, type FiscalCalendar, type PeriodRange, toDayNumber } from '@/core/calendar';
import { minor } from '@/core/money';
import type { Outcomes } from '@/core/whatif';
import type { MoneyFormat } from '@/store/format';
import { onDay } from '@/store/cashWords';
import classes from './WhatIf.module.css';

const [WIDTH, HEIGHT, LEFT, RIGHT, TOP, BASE] = [976, 196, 8, 118, 22, 172];
/** Strokes tell cases apart; the plan as it is is dotted. */
export const STROKES: readonly string[] = [
  '',
  '9 4',
  '2 3 9 3',
  '14 3 2 3',
  '5 2',
  '18 4',
  '3 3',
  '9 3 3 3 3 3',
];
export const PLAN_STROKE = '1.5 4';
const LABEL = 13;

export type ChartLine = {
  readonly key: string;
  readonly name: string;
  readonly stroke: string;
  readonly tone: 'plan' | 'good' | 'bad' | 'same';
  readonly bank: Outcomes['bank'];
  readonly low: Outcomes['of']['lowBank'];
};

/** The bank by day, the plan as it is dotted and each case in a stroke of its own, named at its end. */
export function CaseChart({
  lines,
  range,
  calendar,
  floor,
  money,
  plain,
  chosen,
  onChoose,
}: {
  readonly lines: readonly ChartLine[];
  readonly range: PeriodRange;
  readonly calendar: FiscalCalendar;
  readonly floor: number | null;
  readonly money: MoneyFormat;
  /** Before the credit line, or after it. */
  readonly plain: boolean;
  readonly chosen: number | null;
  readonly onChoose: (day: number | null) => void;
}) {
  const first = toDayNumber(calendar.period(range.first).start);
  const last = toDayNumber(calendar.period(range.last).end);
  const start = Math.max(first, (lines[0]?.bank.start ?? first) + 1);
  const days = last - start + 1;
  if (days <= 1 || lines.length === 0) return null;
  const series = lines.map((l) => ({ ...l, amounts: plain ? l.bank.plain : l.bank.closing }));
  const at = (l: (typeof series)[number], day: number) => l.amounts[day - l.bank.start - 1];
  let [high, low] = [floor ?? 0, Math.min(0, floor ?? 0)];
  for (const l of series)
    for (let day = start; day <= last; day++) {
      const amount = at(l, day);
      if (amount === undefined) continue;
      high = Math.max(high, amount);
      low = Math.min(low, amount);
    }
  const x = (day: number) => LEFT + ((day - start) * (WIDTH - LEFT - RIGHT)) / (days - 1);
  const y = (amount: number) => TOP + ((high - amount) * (BASE - TOP)) / (high - low || 1);
  const points = (l: (typeof series)[number]) => {
    const out: string[] = [];
    for (let day = start; day <= last; day++) {
      const amount = at(l, day);
      if (amount !== undefined) out.push(`${x(day).toFixed(1)},${y(amount).toFixed(1)}`);
    }
    return out.join(' ');
  };
  // Names at the ends, moved apart where they would stand on one another.
  const ends = series.map((l) => ({ l, y: y(at(l, last) ?? 0) })).sort((a, b) => a.y - b.y);
  for (let i = 1; i < ends.length; i++) ends[i]!.y = Math.max(ends[i]!.y, ends[i - 1]!.y + LABEL);
  const over = Math.max(0, (ends.at(-1)?.y ?? 0) - HEIGHT + 6);
  const months = [];
  for (let p = range.first; p <= range.last; p++) {
    const from = toDayNumber(calendar.period(p).start);
    if (from >= start) months.push({ p, from });
  }
  const every = Math.ceil(months.length / 18);
  const words = series.map((l) => `${l.name}: ${money.text(minor(at(l, last) ?? 0))} at the end`).join('; ');
  return (
    <svg
      className={classes.chart}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      preserveAspectRatio="none"
      role="img"
      aria-label={`The bank from ${onDay(start)} to ${onDay(last)}. ${words}`}
      onPointerDown={(e) => {
        const box = e.currentTarget.getBoundingClientRect();
        const place = ((e.clientX - box.left) / box.width) * WIDTH;
        const day = start + Math.round(((place - LEFT) / (WIDTH - LEFT - RIGHT)) * (days - 1));
        onChoose(day < start || day > last ? null : day);
      }}
    >
      {months.map(({ p, from }, i) => (
        <g key={p}>
          <line className={classes.grid} x1={x(from)} x2={x(from)} y1={TOP - 6} y2={BASE} />
          {i % every === 0 && (
            <text x={x(from) + 3} y={HEIGHT - 6}>
              {calendar.period(p).label.slice(0, 3)}
            </text>
          )}
        </g>
      ))}
      {low < 0 && <line className={classes.grid} x1={LEFT} x2={WIDTH - RIGHT} y1={y(0)} y2={y(0)} />}
      {floor !== null && (
        <>
          <line className={classes.floor} x1={LEFT} x2={WIDTH - RIGHT} y1={y(floor)} y2={y(floor)} />
          <text x={LEFT + 6} y={y(floor) + 13}>
            floor {money.text(minor(floor))}
          </text>
        </>
      )}
      {chosen !== null && chosen >= start && chosen <= last && (
        <line className={classes.chosen} x1={x(chosen)} x2={x(chosen)} y1={TOP - 6} y2={BASE} />
      )}
      {series.map((l) => (
        <polyline
          key={l.key}
          className={classes.line}
          data-tone={l.tone}
          strokeDasharray={l.stroke}
          points={points(l)}
        />
      ))}
      {plain &&
        series
          .filter((l) => l.low && l.tone === 'bad')
          .map((l) => (
            <circle key={l.key} className={classes.low} cx={x(l.low!.day!)} cy={y(l.low!.amount)} r="3.5">
              <title>
                {l.name}: {money.text(minor(l.low!.amount))} on {fromDayNumber(l.low!.day!)}
              </title>
            </circle>
          ))}
      {ends.map(({ l, y: place }) => (
        <text
          key={l.key}
          className={classes.name}
          data-tone={l.tone}
          x={WIDTH - RIGHT + 8}
          y={place - over + 4}
        >
          {l.name.length > 17 ? `${l.name.slice(0, 16)}…` : l.name}
        </text>
      ))}
    </svg>
  );
}
