import { minor, type Minor } from './minor';

/** How numbers are written: the decimal mark, and the mark between thousands ('' when none is used). */
export type NumberFormat = { readonly decimal: '.' | ','; readonly group: '' | ',' | '.' | ' ' | "'" };

export type ParsedAmount =
  | { readonly ok: true; readonly value: Minor | null; readonly percent?: boolean }
  | { readonly ok: false; readonly code: 'notANumber' | 'tooManyDecimals' | 'tooLarge' };

const SPACES = /[\s\u00a0\u2007\u2009\u202f]/g;
const NOTHING: ParsedAmount = { ok: true, value: null };
const PLAIN = /^-?\d{1,12}(?:\.\d{1,2})?$/;

/**
 * Reads an amount as people and programs write it: thousands marks, parentheses or a trailing minus for
 * negatives, currency signs and codes, CR and DR. Blank gives `null`; a dash alone is zero.
 * More decimals than the currency has are an error unless they are zeros: money is never rounded on the way in.
 */
export function parseAmount(text: string, digits: number, format: NumberFormat): ParsedAmount {
  if (text === '') return NOTHING;
  if (digits === 2 && format.decimal === '.' && PLAIN.test(text)) return plainCents(text);
  let t = text
    .replace(SPACES, '')
    .replace(/[−–—‐‑]/g, '-')
    .replace(/[’`´]/g, "'");
  if (t === '') return NOTHING;
  let negative = false;
  const wrapped = /^(.*)\((.+)\)(.*)$/.exec(t);
  if (wrapped) {
    negative = true;
    t = wrapped[1]! + wrapped[2]! + wrapped[3]!;
  }
  const mark = /(cr|dr)\.?$/i.exec(t);
  if (mark) {
    if (mark[1]!.toLowerCase() === 'cr') negative = !negative;
    t = t.slice(0, mark.index);
  }
  const isPercent = t.endsWith('%');
  if (isPercent) t = t.slice(0, -1);
  t = t.replace(/^[A-Z]{3}|[A-Z]{3}$/g, '').replace(/\p{Sc}/gu, '');
  if (/^-+$/.test(t)) return { ok: true, value: minor(0) };
  const signed = /^([+-]?)(.*?)(-?)$/.exec(t)!;
  if (signed[1] === '-') negative = !negative;
  if (signed[3] === '-') negative = !negative;
  // A currency sign may stand between the minus and the number, a currency code before either.
  const body = signed[2]!.replace(/^[A-Z]{3}|[A-Z]{3}$/g, '');
  const parts = readDigits(body, format);
  if (!parts) return { ok: false, code: 'notANumber' };
  const decimals = parts.fraction.replace(/0+$/, '');
  if (decimals.length > digits) return { ok: false, code: 'tooManyDecimals' };
  const value = Number(parts.whole + decimals.padEnd(digits, '0'));
  if (!Number.isSafeInteger(value)) return { ok: false, code: 'tooLarge' };
  const amount = minor(negative ? -value : value);
  return isPercent ? { ok: true, value: amount, percent: true } : { ok: true, value: amount };
}

/** The common machine-written form, read without further ado: imports see it millions of times. */
function plainCents(text: string): ParsedAmount {
  const dot = text.indexOf('.');
  if (dot < 0) return { ok: true, value: minor(Number(text) * 100) };
  const cents = text.slice(dot + 1);
  const whole = Number(text.slice(0, dot) + (cents.length === 1 ? cents + '0' : cents));
  return { ok: true, value: minor(whole) };
}

function readDigits(body: string, format: NumberFormat): { whole: string; fraction: string } | null {
  const [head = '', fraction = '', ...more] = body.split(format.decimal);
  if (more.length || !/^\d*$/.test(fraction)) return null;
  let whole = head;
  // Spaces went above, so a file that groups by spaces needs nothing here.
  for (const group of format.group === ' ' ? [] : groupsOf(format)) {
    if (whole.includes(group)) {
      const groups = whole.split(group);
      // Two digits between marks as in 12,34,567 are common in South Asia; the last group always has three.
      if (
        !groups.every(
          (g, i) =>
            /^\d+$/.test(g) &&
            (i === 0 ? g.length <= 3 : g.length === 3 || (g.length === 2 && i < groups.length - 1)),
        )
      )
        return null;
      whole = groups.join('');
    }
  }
  return /^\d*$/.test(whole) && (whole || fraction) ? { whole: whole || '0', fraction } : null;
}

/** An apostrophe between thousands can be nothing else, so it is read under every format. */
function groupsOf(format: NumberFormat): string[] {
  const other = format.decimal === '.' ? ',' : '.';
  return [...new Set([format.group, other, "'"])].filter((g) => g !== '');
}

/** The exact minor units of a spreadsheet's number (already a binary fraction there), by its shortest decimal form. */
export function amountOfNumber(value: number, digits: number): ParsedAmount {
  if (!Number.isFinite(value)) return { ok: false, code: 'notANumber' };
  // A cell that holds 0.1 + 0.2 shows 0.3: fifteen significant digits are what a spreadsheet keeps.
  const text = Number(value.toPrecision(15)).toFixed(Math.min(digits + 6, 12));
  const [whole = '0', fraction = ''] = text.split('.');
  if (Number(fraction.slice(digits).padEnd(1, '0')) !== 0) return { ok: false, code: 'tooManyDecimals' };
  const n = Number(whole + fraction.slice(0, digits).padEnd(digits, '0'));
  return Number.isSafeInteger(n) ? { ok: true, value: minor(n) } : { ok: false, code: 'tooLarge' };
}
