/** Heads of the grid that an audit file or a pull of the feed becomes; segments follow as further columns. */
export const ENTRY_HEADS = [
  'Date',
  'Journal no',
  'Account code',
  'Account name',
  'Account type',
  'Debit',
  'Credit',
  'Counterparty',
  'Description',
] as const;
