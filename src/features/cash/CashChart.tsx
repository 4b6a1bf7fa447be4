import { minor } from '@/core/money';
import type { CashForecast, CashTable } from '@/core/cash';
import { SECTION_OF } from '@/core/report';
import type { MoneyFormat } from '@/store/format';
import { onDay } from '@/store/cashWords';
import classes from './Cash.module.css';

const [WIDTH, HEIGHT, TOP, BASE, LABELS] = [976, 190, 20, 166, 184];
/** Bars of receipts and payments stand on the lower third. */
const BARS = 44;

const sum = (all: readonly number[]) => all.reduce((a, b) => a + b, 0);

/** The bank by day with floor and low point, and beneath it what comes in and goes out by span. */
export function CashChart({
  forecast,
  table,
  heads,
  floor,
  money,
  chosen,
  onChoose,
}: {
  readonly forecast: CashForecast;
  readonly table: CashTable;
  readonly heads: readonly string[];
  readonly floor: number | null;
  readonly money: MoneyFormat;
  readonly chosen: number;
  readonly onChoose: (span: number) => void;
}) {
  const first = table.ranges[0]!.from;
  const last = table.ranges.at(-1)!.to;
  const days = last - first + 1;
  const at = (day: number) => forecast.closing[day - forecast.start - 1] ?? null;
  const line: { x: number; y: number; day: number }[] = [];
  const x = (day: number) => ((day - first + 0.5) * WIDTH) / days;
  const all = [
    table.opening[0]!,
    ...Array.from({ length: days }, (_, i) => at(first + i) ?? table.opening[0]!),
  ];
  const high = Math.max(...all, floor ?? 0, 1);
  const low = Math.min(...all, floor ?? 0, 0);
  const y = (amount: number) => TOP + ((high - amount) * (BASE - BARS - TOP - 8)) / (high - low || 1);
  for (let day = first; day <= last; day++) {
    const amount = at(day);
    if (amount !== null) line.push({ x: x(day), y: y(amount), day });
  }
  const point = forecast.low && forecast.low.day >= first && forecast.low.day <= last ? forecast.low : null;
  const flows = table.ranges.map((_, i) => {
    const by = (keep: (source: (typeof table.rows)[number]['source']) => boolean) =>
      sum(table.rows.filter((r) => keep(r.source)).map((r) => r.amounts[i]!));
    return {
      open: Math.max(
        0,
        by((s) => s === 'openInvoices'),
      ),
      coming: Math.max(
        0,
        by((s) => SECTION_OF[s] === 'in' && s !== 'openInvoices'),
      ),
      going: Math.max(0, -by((s) => SECTION_OF[s] === 'out')),
    };
  });
  const largest = Math.max(1, ...flows.map((f) => Math.max(f.open + f.coming, f.going)));
  const size = (amount: number) => (amount * BARS) / largest;
  const every = Math.ceil(heads.length / 16);
  const under = point !== null && floor !== null && point.amount < floor;
  const words =
    point &&
    `${onDay(point.day)}: ${money.text(minor(point.amount))}${under ? `, ${money.text(minor(floor - point.amount))} under the floor` : ''}`;
  return (
    <svg
      className={classes.chart}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      preserveAspectRatio="none"
      role="img"
      aria-label={`The bank from ${onDay(first)} to ${onDay(last)}${words ? `; lowest ${words}` : ''}`}
      onPointerDown={(e) => {
        const box = e.currentTarget.getBoundingClientRect();
        const day = first + Math.floor(((e.clientX - box.left) / box.width) * days);
        const span = table.ranges.findIndex((r) => day >= r.from && day <= r.to);
        if (span >= 0) onChoose(span);
      }}
    >
      <defs>
        <pattern
          id="cash-hatch"
          width="4"
          height="4"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line x1="0" y1="0" x2="0" y2="4" className={classes.hatch} strokeWidth="1.4" />
        </pattern>
      </defs>
      {table.ranges.map((r, i) => {
        const left = ((r.from - first) * WIDTH) / days;
        const width = ((r.to - r.from + 1) * WIDTH) / days;
        const bar = Math.max(2, Math.min(16, width * 0.28));
        const middle = left + width / 2;
        const f = flows[i]!;
        return (
          <g key={r.from}>
            {i === chosen && (
              <rect className={classes.pointed} x={left} y={TOP - 8} width={width} height={BASE - TOP + 8} />
            )}
            <rect
              className={classes.open}
              x={middle - bar - 1}
              y={BASE - size(f.open)}
              width={bar}
              height={size(f.open)}
            />
            <rect
              className={classes.planned}
              x={middle - bar - 1}
              y={BASE - size(f.open + f.coming)}
              width={bar}
              height={size(f.coming)}
            />
            <rect
              className={classes.out}
              x={middle + 1}
              y={BASE - size(f.going)}
              width={bar}
              height={size(f.going)}
            />
            {i % every === 0 && (
              <text
                x={Math.max(i === 0 ? 2 : 0, middle)}
                y={LABELS}
                textAnchor={i === 0 && middle < 24 ? 'start' : 'middle'}
              >
                {heads[i]}
              </text>
            )}
          </g>
        );
      })}
      <line className={classes.axis} x1="0" x2={WIDTH} y1={BASE} y2={BASE} />
      {floor !== null && (
        <>
          <line className={classes.floor} x1="0" x2={WIDTH} y1={y(floor)} y2={y(floor)} />
          <text x={WIDTH - 6} y={y(floor) - 4} textAnchor="end">
            floor {money.text(minor(floor))}
          </text>
        </>
      )}
      <polyline
        className={classes.line}
        points={line.map((p) => `${p.x.toFixed(1)},${p.y.toFixed(1)}`).join(' ')}
      />
      <text className={classes.strong} x="6" y={Math.max(13, y(table.opening[0]!) - 7)}>
        {money.text(minor(table.opening[0]!))}
      </text>
      {point && (
        <>
          <circle className={classes.lowDot} cx={x(point.day)} cy={y(point.amount)} r="4" />
          <text
            className={under ? classes.bad : classes.strong}
            x={Math.min(WIDTH - 8, Math.max(8, x(point.day)))}
            y={y(point.amount) + 17}
            textAnchor={x(point.day) < 130 ? 'start' : x(point.day) > WIDTH - 130 ? 'end' : 'middle'}
          >
            {words}
          </text>
        </>
      )}
    </svg>
  );
}
