import { cellText, type FileFacts } from '@/core/files';
import { parseMonthHead } from './dates';
import type { BalanceRole, Guess, Mapping, MonthsRole } from './mapping';

/** How an earlier file was read, for the next one of the same shape. */
export type Kept = { readonly fileName: string; readonly heads: string; readonly mapping: Mapping };

/** The column heads by which files of one shape are known: without the months, which differ from file to file. */
export function headsOf(file: FileFacts, mapping: Mapping): string {
  const row = file.grids[mapping.sheet]?.head[mapping.headerRow] ?? [];
  const heads = row.map((c) => (parseMonthHead(c) ? '#' : cellText(c).toLowerCase()));
  return JSON.stringify([mapping.shape, ...heads.filter((h, i) => h !== '#' || heads[i - 1] !== '#')]).slice(
    0,
    4000,
  );
}

/**
 * Takes over what was settled for an earlier file with the same heads; months and days are this file's own. What is kept
 * is whatever a book file holds: where it is no mapping, the guess stands.
 */
export function applyKept(file: FileFacts, guess: Guess, kept: readonly Kept[]): Guess {
  try {
    return applied(file, guess, kept);
  } catch {
    return guess;
  }
}

function applied(file: FileFacts, guess: Guess, kept: readonly Kept[]): Guess {
  const heads = headsOf(file, guess.mapping);
  const found = kept.findLast((k) => k.heads === heads && k.mapping.shape === guess.mapping.shape);
  if (!found) return guess;
  const now = guess.mapping;
  const was = found.mapping;
  const common = { numbers: was.numbers, sign: was.sign };
  const doubts = guess.doubts.filter((d) => d === 'day' || d === 'year');
  const keptFrom = found.fileName;
  if (now.shape === 'entries' && was.shape === 'entries')
    return {
      mapping: {
        ...now,
        ...common,
        dates: was.dates,
        accountIn: was.accountIn,
        carryDate: was.carryDate ?? false,
        columns: was.columns.length === now.columns.length ? was.columns : now.columns,
      },
      doubts,
      keptFrom,
    };
  if (now.shape === 'months' && was.shape === 'months') {
    // The columns before the first month stay where they are; what follows may have grown by a month.
    const first = now.columns.findIndex((c) => c.as === 'month');
    const columns = now.columns.map((c, i): MonthsRole => {
      const before = was.columns[i];
      return i < first && before && before.as !== 'month' ? before : c;
    });
    return { mapping: { ...now, ...common, columns }, doubts, keptFrom };
  }
  if (now.shape === 'balances' && was.shape === 'balances')
    return {
      mapping: {
        ...now,
        ...common,
        cumulative: was.cumulative,
        columns: now.columns.map((c, i): BalanceRole => {
          const before = was.columns[i];
          return before && !('day' in before) && !('day' in c) ? before : c;
        }),
      },
      doubts,
      keptFrom,
    };
  return guess;
}
