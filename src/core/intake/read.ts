import { assertNever } from '@/core/assertNever';
import type { CalendarSpec } from '@/core/calendar';
import type { FileFacts } from '@/core/files';
import type { Draft } from './draft';
import { guessMapping } from './guess';
import type { GuessContext } from './guessContext';
import type { Doubt, Guess, Mapping } from './mapping';
import { readBalances } from './readBalances';
import { readEntries } from './readEntries';
import { readMonths } from './readMonths';

/** Reads a file's grid by a mapping into a draft. `currency` sets the digits of money; nothing is rounded. */
export function readDraft(
  file: FileFacts,
  mapping: Mapping,
  currency: string,
  calendar: CalendarSpec,
  onProgress?: (share: number) => void,
): Draft {
  const grid = file.grids[mapping.sheet]!;
  switch (mapping.shape) {
    case 'months':
      return readMonths(grid, mapping, currency, onProgress);
    case 'entries':
      return readEntries(grid, mapping, currency, onProgress, file.stated);
    case 'balances':
      return readBalances(file, mapping, currency, calendar, onProgress);
    default:
      return assertNever(mapping);
  }
}

/** Changes a fresh guess to what arithmetic over the whole file says; a mapping kept from an earlier file stays. */
function heedHints(guess: Guess, { hints, baseline }: Draft): Guess {
  if (guess.keptFrom !== null) return guess;
  const { mapping } = guess;
  const doubts: Doubt[] = [...guess.doubts];
  if (mapping.shape === 'balances') {
    if (hints.cumulative === null && baseline !== null && !doubts.includes('cumulative'))
      doubts.push('cumulative');
    if (hints.cumulative === false && mapping.cumulative)
      return { ...guess, mapping: { ...mapping, cumulative: false }, doubts };
  }
  if (hints.sign && mapping.shape === 'entries' && mapping.sign !== hints.sign) {
    doubts.push('sign');
    return { ...guess, mapping: { ...mapping, sign: hints.sign }, doubts };
  }
  return doubts.length === guess.doubts.length ? guess : { ...guess, doubts };
}

/** Guesses how a file is read and reads it; what arithmetic over the whole file says against the guess is heeded. */
export function openDraft(
  file: FileFacts,
  sheet: number,
  context: GuessContext,
  currency: string,
  onProgress?: (share: number) => void,
  first: Guess = guessMapping(file, sheet, context),
): { readonly guess: Guess; readonly draft: Draft } {
  const draft = readDraft(file, first.mapping, currency, context.calendar, onProgress);
  const guess = heedHints(first, draft);
  return {
    guess,
    draft:
      guess.mapping === first.mapping
        ? draft
        : readDraft(file, guess.mapping, currency, context.calendar, onProgress),
  };
}
