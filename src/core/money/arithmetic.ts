import { isAmount, minor, UnsafeMoneyError } from './minor';
import { parseAmount, type NumberFormat, type ParsedAmount } from './parse';
import { addRatio, divideRatio, multiplyRatio, negateRatio, ratio, roundRatio, type Ratio } from './ratio';

/** Longer texts are no arithmetic that anybody types into a cell. */
const LONGEST = 120;
const DEEPEST = 20;

class Stopped extends Error {}

/**
 * The amount that a small sum comes to, as people type it into a cell: `52000/12`, `=1200*3+80`, `(4+5)×10`, in the locale's
 * way of writing numbers, + − × ÷ and parentheses, with the usual precedence. Reckoned exactly and rounded once, half away
 * from zero, to the currency's last digit. `x%` is x hundredths. A plain amount is none, unless it begins with `=`: null.
 */
export function arithmetic(text: string, digits: number, format: NumberFormat): ParsedAmount | null {
  const t = text.trim();
  const asked = t.startsWith('=');
  if (t.length > LONGEST) return asked ? { ok: false, code: 'notANumber' } : null;
  const body = asked ? t.slice(1) : t;
  // A sign before the first number, or one behind the last, belongs to an amount; one between two makes a sum.
  if (!asked && !/[\d)%]\s*[-+*/×÷−:]\s*[\d.,(+−-]/.test(body)) return null;
  try {
    const reader = new Reader(body, digits, format);
    const value = reader.sum(0);
    if (!reader.done) return { ok: false, code: 'notANumber' };
    const whole = roundRatio(multiplyRatio(value, ratio(10 ** digits)));
    return isAmount(whole) ? { ok: true, value: minor(whole) } : { ok: false, code: 'tooLarge' };
  } catch (error) {
    if (error instanceof Stopped) return { ok: false, code: 'notANumber' };
    if (error instanceof UnsafeMoneyError) return { ok: false, code: 'tooLarge' };
    throw error;
  }
}

function over(a: Ratio, b: Ratio): Ratio {
  const value = divideRatio(a, b);
  if (value === null) throw new Stopped();
  return value;
}

class Reader {
  private at = 0;

  constructor(
    private readonly text: string,
    private readonly digits: number,
    private readonly format: NumberFormat,
  ) {}

  get done(): boolean {
    this.skip();
    return this.at >= this.text.length;
  }

  private skip(): void {
    while (/\s/.test(this.text[this.at] ?? '')) this.at++;
  }

  private take(signs: string): string | null {
    this.skip();
    const c = this.text[this.at];
    if (c === undefined || !signs.includes(c)) return null;
    this.at++;
    return c;
  }

  sum(depth: number): Ratio {
    let value = this.product(depth);
    for (;;) {
      const sign = this.take('+-−');
      if (sign === null) return value;
      const next = this.product(depth);
      value = addRatio(value, sign === '+' ? next : negateRatio(next));
    }
  }

  private product(depth: number): Ratio {
    let value = this.signed(depth);
    for (;;) {
      const sign = this.take('*×/÷:');
      if (sign === null) return value;
      const next = this.signed(depth);
      if (sign === '*' || sign === '×') value = multiplyRatio(value, next);
      else value = over(value, next);
    }
  }

  private signed(depth: number): Ratio {
    if (depth > DEEPEST) throw new Stopped();
    const sign = this.take('+-−');
    if (sign !== null) {
      const value = this.signed(depth + 1);
      return sign === '+' ? value : negateRatio(value);
    }
    let value: Ratio;
    if (this.take('(')) {
      value = this.sum(depth + 1);
      if (!this.take(')')) throw new Stopped();
    } else value = this.number();
    while (this.take('%')) value = over(value, ratio(100));
    return value;
  }

  private number(): Ratio {
    this.skip();
    // Thousands marks of the locale belong to the number, a blank only before three further digits.
    const found = /^[\d.,'’]+(?:[ \u00a0\u202f]\d{3}(?!\d))*(?:[.,]\d+)?/.exec(this.text.slice(this.at));
    if (!found) throw new Stopped();
    this.at += found[0].length;
    // Finer than the currency, as a price of a part is: read to six digits more.
    for (const fine of [this.digits + 6, this.digits]) {
      const read = parseAmount(found[0], fine, this.format);
      if (read.ok && read.value !== null) return over(ratio(read.value), ratio(10 ** fine));
      // So large a number has no room for finer digits.
      if (read.ok || read.code !== 'tooLarge') break;
    }
    throw new Stopped();
  }
}

/** An amount typed into a field or a cell: as it stands, or as what a small sum comes to. */
export function readTyped(
  text: string,
  digits: number,
  format: NumberFormat,
): ParsedAmount & { readonly sum?: boolean } {
  const plain = text.trim().startsWith('=') ? null : parseAmount(text, digits, format);
  if (plain?.ok) return plain;
  const made = arithmetic(text, digits, format);
  return made === null ? (plain ?? { ok: false, code: 'notANumber' }) : { ...made, sum: true };
}
