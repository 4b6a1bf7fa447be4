import { SaxesParser } from 'saxes';
import type { FileIssue } from './grid';
import type { Attributes } from './xmlParts';

/* See decode.ts. */
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean });
  decode(input?: Uint8Array, options?: { stream?: boolean }): string;
}

const CHUNK = 1 << 20;
/** The deepest elements of the standards that are read here are some fifteen levels down. */
const DEEPEST = 60;
const LONGEST_TEXT = 100_000;

class Hostile extends Error {}

/** What follows the elements of a document as they come; names without their prefix. */
export type XmlReader = {
  readonly open: (name: string, attributes: Attributes) => void;
  readonly close: (name: string) => void;
  readonly text: (text: string) => void;
};

/**
 * Reads an XML document as a stream of elements; what is wrong with it, or null. What came before a fault has been told. A
 * document that declares anything of its own may unfold without end, and is refused; so is one that nests without reason.
 */
export function readXmlBytes(
  bytes: Uint8Array,
  reader: XmlReader,
  onProgress?: (share: number) => void,
): FileIssue | null {
  const parser = new SaxesParser({ xmlns: false, position: true });
  let failure: Error | null = null;
  let depth = 0;
  let silent = 0;
  parser.on('error', (e) => (failure ??= e));
  parser.on('doctype', () => {
    throw new Hostile('doctype');
  });
  parser.on('opentag', (tag) => {
    if (++depth > DEEPEST) throw new Hostile('depth');
    silent = 0;
    reader.open(local(tag.name), tag.attributes);
  });
  parser.on('closetag', (tag) => {
    depth--;
    silent = 0;
    reader.close(local(tag.name));
  });
  const text = (part: string) => {
    if ((silent += part.length) > LONGEST_TEXT) throw new Hostile('text');
    reader.text(part);
  };
  parser.on('text', text);
  parser.on('cdata', text);
  const encoding = encodingOf(bytes);
  let decoder: TextDecoder;
  try {
    decoder = new TextDecoder(encoding);
  } catch {
    return { code: 'unknownEncoding', encoding };
  }
  try {
    for (let at = 0; at < bytes.length && !failure; at += CHUNK) {
      const last = at + CHUNK >= bytes.length;
      parser.write(decoder.decode(bytes.subarray(at, at + CHUNK), { stream: !last }));
      onProgress?.(Math.min(1, (at + CHUNK) / bytes.length));
    }
    if (!failure) parser.close();
  } catch (error) {
    if (error instanceof Hostile) return { code: 'hostileXml', line: parser.line };
    failure ??= error instanceof Error ? error : new Error(String(error));
  }
  return failure ? { code: 'brokenXml', line: parser.line } : null;
}

const local = (name: string): string => name.slice(name.indexOf(':') + 1);

/** The encoding that an XML document says it is in. */
export function encodingOf(b: Uint8Array): string {
  if (b[0] === 0xff && b[1] === 0xfe) return 'utf-16le';
  if (b[0] === 0xfe && b[1] === 0xff) return 'utf-16be';
  const told = /encoding=["']([\w.:-]{1,40})["']/.exec(String.fromCharCode(...b.subarray(0, 200)))?.[1];
  // As browsers do, the Encoding Standard reads the first part of ISO 8859 as the Windows page that holds it.
  return told ? told.toLowerCase() : 'utf-8';
}
