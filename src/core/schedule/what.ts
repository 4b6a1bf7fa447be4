/** What a posting is to the event that it belongs to. */
export const WHATS = [
  'accrual',
  'invoice',
  'payment',
  'tax',
  'badDebt',
  'stock',
  'advance',
  'item',
  'order',
  'dated',
  'drawing',
  'repayment',
  'interest',
  'opening',
  'remittance',
  'purchase',
  'depreciation',
  'sale',
  'release',
  'equity',
  'balance',
  'underWay',
  'moved',
] as const;
export type What = (typeof WHATS)[number];
/** A posting's part of its line's terms is told beside what it is. */
const BITS = 5;
export const whatIn = (code: number): What => WHATS[code & ((1 << BITS) - 1)]!;
export const partIn = (code: number): number => code >> BITS;
export const ofPart = (what: number, part: number): number => what | (part << BITS);

/** Their places in the columns. */
export const WHAT = Object.fromEntries(WHATS.map((w, i) => [w, i])) as { readonly [W in What]: number };
