import type { FileFacts } from '@/core/files';
import type { Draft } from './draft';
import type { Mapping } from './mapping';
import { readEntries } from './readEntries';
import { readMonths } from './readMonths';

/** Reads a file's grid by a mapping into a draft. `currency` sets the digits of money; nothing is rounded. */
export function readDraft(
  file: FileFacts,
  mapping: Mapping,
  currency: string,
  onProgress?: (share: number) => void,
): Draft {
  const grid = file.grids[mapping.sheet]!;
  return mapping.shape === 'months'
    ? readMonths(grid, mapping, currency, onProgress)
    : readEntries(grid, mapping, currency, onProgress);
}
