import { assertNever } from '@/core/assertNever';
import type { FileFacts } from '@/core/files';
import { guessBalances } from './guessBalances';
import type { GuessContext } from './guessContext';
import { guessEntries } from './guessEntries';
import { guessMonths } from './guessMonths';
import { applyKept } from './kept';
import type { Guess, MonthsRole, Shape } from './mapping';

/** Reads the shape, header, columns and formats off a file's own rows; names what it is not sure of. */
export function guessMapping(file: FileFacts, sheet: number, context: GuessContext): Guess {
  const guess =
    guessBalances(file, sheet, context) ??
    guessMonths(file, sheet, context) ??
    guessEntries(file, sheet, context);
  return applyKept(file, guess, context.kept);
}

/** The same file read as another shape, when the person says so. */
export function guessShape(file: FileFacts, sheet: number, context: GuessContext, shape: Shape): Guess {
  switch (shape) {
    case 'entries':
      return guessEntries(file, sheet, context);
    case 'months':
      return guessMonths(file, sheet, context) ?? blank(file, sheet, context, 'months');
    case 'balances':
      return guessBalances(file, sheet, context, true) ?? blank(file, sheet, context, 'balances');
    default:
      return assertNever(shape);
  }
}

/** Nothing known but where the accounts may stand: the person says the rest. */
function blank(file: FileFacts, sheet: number, context: GuessContext, shape: 'months' | 'balances'): Guess {
  const columns = (file.grids[sheet]!.head[0] ?? []).map(
    (_, i): MonthsRole & { as: 'account' | 'ignore' } => ({
      as: i === 0 ? 'account' : 'ignore',
    }),
  );
  const common = {
    delimiter: file.delimiter,
    sheet,
    headerRow: 0,
    numbers: context.numbers,
    columns,
  };
  return {
    mapping:
      shape === 'months'
        ? { ...common, shape, sign: 'natural' }
        : { ...common, shape, sign: 'debitPositive', sheets: [{ sheet, day: null }], cumulative: true },
    doubts: ['columns'],
    keptFrom: null,
  };
}
