import { looksLikeXml } from './decode';
import type { StatementsRead } from './camt';

/** Whether a file begins as XML does. */
export const isXml = looksLikeXml;

/** Reads the statements of a bank (ISO 20022 camt.053); the reader is loaded when such a file comes. */
export const readStatements = async (bytes: Uint8Array): Promise<StatementsRead> =>
  (await import('./camt')).readCamt(bytes);
