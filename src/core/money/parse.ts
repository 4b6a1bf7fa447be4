import { isAmount, minor, type Minor } from './minor';

/** How numbers are written: the decimal mark, and the mark between thousands ('' when none is used). */
export type NumberFormat = { readonly decimal: '.' | ','; readonly group: '' | ',' | '.' | ' ' | "'" };

export type ParsedAmount =
  | { readonly ok: true; readonly value: Minor | null; readonly percent?: boolean }
  | { readonly ok: false; readonly code: 'notANumber' | 'tooManyDecimals' | 'tooLarge' };

/** Longer texts are no amounts, and need not be looked through. */
const LONGEST = 100;

const SPACES = /[\s\u00a0\u2007\u2009\u202f]/g;
const NOTHING: ParsedAmount = { ok: true, value: null };

/**
 * Reads an amount as people and programs write it: thousands marks, parentheses or a trailing minus for
 * negatives, currency signs and codes, CR and DR. Blank gives `null`; a dash alone is zero.
 * More decimals than the currency has are an error unless they are zeros: money is never rounded on the way in.
 */
export function parseAmount(text: string, digits: number, format: NumberFormat): ParsedAmount {
  if (text === '') return NOTHING;
  if (text.length > LONGEST) return text.trim() === '' ? NOTHING : { ok: false, code: 'notANumber' };
  if (format.decimal === '.' && text.length <= 14) {
    const plain = plainAmount(text, digits);
    if (plain !== null) return amountOf(plain);
  }
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
  const amount = amountOf(negative ? -value : value);
  return isPercent && amount.ok ? { ...amount, percent: true } : amount;
}

/** An amount that was read: more than an amount may be is refused here, at the door. */
const amountOf = (value: number): ParsedAmount =>
  isAmount(value) ? { ok: true, value: minor(value) } : { ok: false, code: 'tooLarge' };

/** The common machine-written form (`-1234.5`), read digit by digit: imports see it millions of times. Null for any other. */
function plainAmount(text: string, digits: number): number | null {
  const negative = text.charCodeAt(0) === 45;
  let value = 0;
  let decimals = -1;
  for (let i = negative ? 1 : 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (c === 46 && decimals < 0) decimals = 0;
    else if (c >= 48 && c <= 57) {
      value = value * 10 + c - 48;
      if (decimals >= 0) decimals++;
    } else return null;
  }
  // A mark at either end, no digit at all, or decimals that need a closer look.
  if (
    decimals === 0 ||
    decimals > digits ||
    text.charCodeAt(text.length - 1) === 45 ||
    text.charCodeAt(negative ? 1 : 0) === 46
  )
    return null;
  for (let d = Math.max(0, decimals); d < digits; d++) value *= 10;
  return negative ? -value : value;
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
  return amountOf(n);
}
