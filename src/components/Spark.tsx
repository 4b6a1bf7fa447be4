import { isTooLarge, type Minor } from '@/core/money';
import classes from './Spark.module.css';

const WIDTH = 72;
const HEIGHT = 17;

/** The shape of a row of months: a bar a month from the zero line; blank months leave a gap. A picture beside its figures. */
export function Spark({ values: given }: { readonly values: readonly (Minor | null)[] }) {
  const values = given.map((v) => (isTooLarge(v) ? null : v));
  const high = Math.max(0, ...values.map((v) => v ?? 0));
  const low = Math.min(0, ...values.map((v) => v ?? 0));
  const scale = (HEIGHT - 2) / (high - low || 1);
  const zero = 1 + high * scale;
  const step = WIDTH / Math.max(1, values.length);
  // One path for all bars: a thousand rows of pictures must stay cheap to draw.
  const bars = values
    .map((v, i) => {
      if (v === null || v === 0) return '';
      const y = zero - v * scale;
      return `M${(i * step + step / 2).toFixed(1)} ${zero.toFixed(1)}V${y.toFixed(1)}`;
    })
    .join('');
  return (
    <svg className={classes.spark} width={WIDTH} height={HEIGHT} aria-hidden>
      <path d={`M0 ${zero.toFixed(1)}H${WIDTH}`} className={classes.zero} />
      <path d={bars} className={classes.bars} strokeWidth={Math.max(1, step - 1.5)} />
    </svg>
  );
}
