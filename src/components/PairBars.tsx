import { isTooLarge, type Minor } from '@/core/money';
import classes from './PairBars.module.css';

/** A line's months as outlined bars beside last year's gray ones. A picture only: the table beside it has the figures. */
export function PairBars({
  plan,
  prior,
  ticks,
  label,
}: {
  readonly plan: readonly (Minor | null)[];
  readonly prior: readonly (Minor | null)[];
  readonly ticks: readonly string[];
  readonly label: string;
}) {
  const [width, height, foot] = [264, 96, 16];
  const all = [...plan, ...prior].map((v) => (v === null || isTooLarge(v) ? 0 : v));
  const top = Math.max(0, ...all);
  const low = Math.min(0, ...all);
  const span = top - low || 1;
  const y = (v: number) => ((top - v) / span) * (height - foot - 4) + 2;
  const step = width / Math.max(1, plan.length);
  const bar = (v: number | null, x: number, w: number, kind: string | undefined, key: string) =>
    v === null || v === 0 || Number.isNaN(v) ? null : (
      <rect
        key={key}
        className={kind}
        x={x}
        width={w}
        y={Math.min(y(v), y(0))}
        height={Math.max(1, Math.abs(y(v) - y(0)))}
      />
    );
  return (
    <svg className={classes.chart} viewBox={`0 0 ${width} ${height}`} role="img" aria-label={label}>
      {plan.map((_, i) => bar(prior[i] ?? null, i * step + 1, step * 0.42, classes.prior, `a${i}`))}
      {plan.map((v, i) => bar(v, i * step + step * 0.42, step * 0.46, classes.plan, `b${i}`))}
      <line className={classes.axis} x1={0} x2={width} y1={y(0)} y2={y(0)} />
      {ticks.map((t, i) => (
        <text key={i} className={classes.tick} x={i * step + step / 2} y={height - 3} textAnchor="middle">
          {t}
        </text>
      ))}
    </svg>
  );
}
