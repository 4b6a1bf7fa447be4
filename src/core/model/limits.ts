/**
 * How long texts and lists of a book may be: the one table that the schema, every command, every field and every intake
 * hold to. What is longer could be saved but would not open again.
 */
export const LIMITS = {
  /** Letters (UTF-16 units). */
  bookName: 120,
  accountCode: 60,
  accountName: 200,
  group: 120,
  person: 80,
  keeper: 120,
  axisName: 120,
  segmentName: 200,
  /** Heading of a file's column, and a text of such a column that means a segment. */
  heading: 200,
  segmentText: 500,
  budgetName: 120,
  driverName: 120,
  unit: 40,
  weightsName: 120,
  periodName: 60,
  note: 4000,
  reason: 1000,
  /** As it is kept, with ids for names. */
  formula: 4000,
  fileName: 300,
  sheetName: 200,
  heads: 4000,
  rowName: 200,
  /** What stood in a cell of a returned file that is no amount. */
  saidText: 200,
  layoutName: 120,
  /** Number of an invoice, and whose it is. */
  reference: 200,
  counterparty: 300,
  /** What a bank's movement is for, in its words; and what it was said to be. */
  memo: 500,
  movementKey: 400,
  /** How many there may be. */
  accounts: 20_000,
  axes: 50,
  columns: 50,
  segments: 20_000,
  textsOfSegment: 20_000,
  sources: 2000,
  inForce: 2000,
  budgets: 200,
  budgetSegments: 500,
  budgetPeriods: 120,
  lines: 100_000,
  drivers: 2000,
  weights: 500,
  openItems: 50_000,
  openLists: 200,
  datedItems: 2000,
  bankAccounts: 200,
  statements: 1000,
  statementMovements: 20_000,
  layouts: 200,
  layoutRows: 500,
  layoutColumns: 60,
  keptForecasts: 36,
  covenants: 50,
  schedules: 5000,
  adjustments: 1000,
  cases: 20,
  rounds: 100,
  handouts: 500,
  handoutLines: 5000,
  handoutReturns: 50,
  handoutOwn: 500,
  keptDays: 800,
  holidays: 2000,
  periods: 2000,
} as const;

/** A text cut to a limit, on a whole letter. */
export function cutText(text: string, most: number): string {
  if (text.length <= most) return text;
  const last = text.charCodeAt(most - 1);
  return text.slice(0, last >= 0xd800 && last <= 0xdbff ? most - 1 : most);
}

/** A text of whole letters: half of a letter that takes two units, which no encoding can write, is the replacement letter. */
export const wholeLetters = (text: string): string =>
  text.replace(/[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g, '\ufffd');

/** A name with an ending, the name cut so that both fit. */
export const nameWith = (name: string, ending: string, most: number): string =>
  cutText(name, most - ending.length) + ending;
