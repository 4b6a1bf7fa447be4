/**
 * Minor-unit digits that differ from 2, from ISO 4217:2015 list one (values from memory; checked in
 * currency.test.ts against the currency package of a reference library and the runtime's CLDR data).
 */
const OTHER_DIGITS: ReadonlyMap<string, number> = new Map([
  ...[
    'BIF',
    'CLP',
    'DJF',
    'GNF',
    'ISK',
    'JPY',
    'KMF',
    'KRW',
    'PYG',
    'RWF',
    'UGX',
    'UYI',
    'VND',
    'VUV',
    'XAF',
    'XOF',
    'XPF',
  ].map((c) => [c, 0] as const),
  ...['BHD', 'IQD', 'JOD', 'KWD', 'LYD', 'OMR', 'TND'].map((c) => [c, 3] as const),
]);

/** Digits after the decimal point of an ISO 4217 currency: 0 for JPY, 3 for KWD, 2 unless listed otherwise. */
export function minorDigits(currency: string): number {
  return OTHER_DIGITS.get(currency) ?? 2;
}

/** Whether the code has the form of an ISO 4217 code: three capital letters. */
export const isCurrencyCode = (code: string): boolean => /^[A-Z]{3}$/.test(code);

/** Minor units in one unit of the currency: 100 for USD, 1 for JPY, 1000 for KWD. */
export const unitOf = (currency: string): number => 10 ** minorDigits(currency);
