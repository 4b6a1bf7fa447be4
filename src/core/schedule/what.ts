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
/** Their places in the columns. */
export const WHAT = Object.fromEntries(WHATS.map((w, i) => [w, i])) as { readonly [W in What]: number };
