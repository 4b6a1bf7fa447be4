import { divideRounded } from './round';
import { minor, type Minor } from './minor';

declare const percentBrand: unique symbol;

/** A percentage as an exact decimal string: `"4"`, `"-2.5"`. Never a binary fraction. */
export type Percent = string & { readonly [percentBrand]: 'Percent' };

/** Reads `4`, `+4,5 %`, `-2.5%` or `(3)`; null when it is not a percentage. At most 6 decimals. */
export function parsePercent(text: string): Percent | null {
  if (text.length > 60) return null;
  let t = text.replace(/[\s%]/g, '').replace('−', '-').replace(',', '.');
  const wrapped = /^\((.*)\)$/.exec(t);
  if (wrapped) t = `-${wrapped[1]}`;
  const m = /^([+-]?)(\d{0,9})(?:\.(\d{0,6}))?$/.exec(t);
  if (!m || (!m[2] && !m[3])) return null;
  const whole = (m[2] || '0').replace(/^0+(?=\d)/, '');
  const part = (m[3] ?? '').replace(/0+$/, '');
  const body = part ? `${whole}.${part}` : whole;
  return (m[1] === '-' && body !== '0' ? `-${body}` : body) as Percent;
}

/** A percentage known when the program is written; throws when it cannot be read. */
export function percent(text: string | number): Percent {
  const p = parsePercent(String(text));
  if (p === null) throw new Error(`Not a percentage: ${text}`);
  return p;
}

/** The percentage as an exact fraction `numerator / denominator` of one hundredth: "4.5" → 45 / 10. */
export function percentFraction(p: Percent): { readonly numerator: bigint; readonly denominator: bigint } {
  const known = fractions.get(p);
  if (known) return known;
  const [whole = '0', part = ''] = p.split('.');
  const made = { numerator: BigInt(whole + part), denominator: 10n ** BigInt(part.length) };
  if (fractions.size >= MOST) fractions.clear();
  fractions.set(p, made);
  return made;
}
/** A budget has few percentages and many months: each text is read once. */
const fractions = new Map<Percent, { readonly numerator: bigint; readonly denominator: bigint }>();
const MOST = 1000;

/** amount × percent ÷ 100, rounded half away from zero, exactly: 1.00 × 1.005 % of 10000 is 101. */
export function percentOf(amount: Minor, p: Percent): Minor {
  if (p === '0') return minor(0);
  const { numerator, denominator } = percentFraction(p);
  return divideRounded(amount, Number(numerator), Number(denominator) * 100, 'halfAwayFromZero');
}

/** amount + percent of it, with one rounding: uplift("4") of 10000 is 10400. */
export function uplift(amount: Minor, p: Percent): Minor {
  if (p === '0') return amount;
  const { numerator, denominator } = percentFraction(p);
  const hundred = Number(denominator) * 100;
  return divideRounded(amount, Number(numerator) + hundred, hundred, 'halfAwayFromZero');
}
