import { decodeText, looksBinary, looksLikeXml, startsWith } from './decode';
import { delimitedGrid, guessDelimiter } from './delimited';
import { MOST_COLUMNS, type FileRead, type Grid } from './grid';

export type ReadOptions = {
  readonly delimiter?: string;
  readonly onProgress?: (share: number) => void;
  /** Cells of a workbook tell what they are: percentages with their sign, formulas without a saved result as `=`. */
  readonly told?: boolean;
};

/** Reads a file's bytes into grids: what kind of file it is follows from its content, never from its name. */
export async function readFile(bytes: Uint8Array, options: ReadOptions = {}): Promise<FileRead> {
  if (bytes.length === 0) return { ok: false, issue: { code: 'emptyFile' } };
  if (startsWith(bytes, 'PK\x03\x04')) return readSheets(bytes, options);
  if (startsWith(bytes, '\xd0\xcf\x11\xe0')) return { ok: false, issue: { code: 'oldWorkbook' } };
  if (looksBinary(bytes)) return { ok: false, issue: { code: 'notATable' } };
  // The readers of rarer formats are loaded when such a file comes.
  if (looksLikeXml(bytes)) return (await import('./auditFile')).readAuditFile(bytes, options.onProgress);
  const { text, encoding } = decodeText(bytes);
  if (text.trim() === '') return { ok: false, issue: { code: 'emptyFile' } };
  const delimiter = options.delimiter ?? guessDelimiter(text);
  const grid = delimitedGrid(text, delimiter);
  if (tooWide(grid)) return { ok: false, issue: { code: 'tooManyColumns' } };
  if (grid.head.every((r) => r.length < 2)) return { ok: false, issue: { code: 'onlyOneColumn' } };
  return {
    ok: true,
    file: { format: 'delimited', encoding, delimiter, grids: [grid], stated: null },
  };
}

const tooWide = (grid: Grid): boolean => grid.head.some((r) => r.length > MOST_COLUMNS);

async function readSheets(bytes: Uint8Array, { onProgress, told }: ReadOptions): Promise<FileRead> {
  const [{ readWorkbook, TooWide }, { Damaged, TooMuch }] = await Promise.all([
    import('./workbook'),
    import('./zip'),
  ]);
  let grids: Grid[];
  try {
    grids = (await readWorkbook(bytes, onProgress, told)).filter((g) => g.head.length > 0);
  } catch (error) {
    const code =
      error instanceof TooWide
        ? 'tooManyColumns'
        : error instanceof TooMuch
          ? 'tooLarge'
          : error instanceof Damaged
            ? 'damagedWorkbook'
            : 'brokenWorkbook';
    return { ok: false, issue: { code } };
  }
  if (grids.length === 0) return { ok: false, issue: { code: 'emptyFile' } };
  return {
    ok: true,
    file: { format: 'workbook', encoding: null, delimiter: null, grids, stated: null },
  };
}
