/*
 * TextDecoder is of the Encoding Standard and stands in Node, workers and browsers alike; the ES library that
 * core is checked against does not know it, so its shape is told here.
 */
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean });
  decode(input?: Uint8Array): string;
}

/** The text of a file and the encoding it was in: by byte-order mark, else UTF-8 if it is valid, else Windows-1252. */
export function decodeText(bytes: Uint8Array): { readonly text: string; readonly encoding: string } {
  const encoding = encodingOf(bytes);
  if (encoding) return { text: new TextDecoder(encoding).decode(bytes), encoding };
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'utf-8' };
  } catch {
    return { text: new TextDecoder('windows-1252').decode(bytes), encoding: 'windows-1252' };
  }
}

function encodingOf(b: Uint8Array): string | null {
  if (b[0] === 0xff && b[1] === 0xfe) return 'utf-16le';
  if (b[0] === 0xfe && b[1] === 0xff) return 'utf-16be';
  // Latin text in UTF-16 without a mark has a zero in every other byte.
  const head = b.subarray(0, 200);
  const zeros = (odd: number) => head.filter((x, i) => i % 2 === odd && x === 0).length;
  if (head.length > 8 && zeros(1) > head.length * 0.4) return 'utf-16le';
  if (head.length > 8 && zeros(0) > head.length * 0.4) return 'utf-16be';
  return null;
}

/** Whether the bytes are those of a picture, a PDF or another binary file rather than of text. */
export function looksBinary(b: Uint8Array): boolean {
  if (encodingOf(b)) return false;
  return (
    b.subarray(0, 4096).includes(0) ||
    startsWith(b, '%PDF') ||
    startsWith(b, '\x89PNG') ||
    startsWith(b, '\xff\xd8\xff')
  );
}

export const startsWith = (b: Uint8Array, magic: string): boolean =>
  [...magic].every((c, i) => b[i] === c.charCodeAt(0));

/** Whether a text file begins as XML does. */
export function looksLikeXml(b: Uint8Array): boolean {
  const head = String.fromCharCode(...b.subarray(0, 400)).replace(/\0/g, '');
  return /^(\xef\xbb\xbf|\xff\xfe|\xfe\xff)?\s*<(\?xml|!--|!DOCTYPE|(?:[A-Za-z][\w.-]*:)?AuditFile)/.test(
    head,
  );
}
