import { SaxesParser } from 'saxes';
import { TooMuch, type Zip } from './zip';

/* See decode.ts. */
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean });
  decode(input?: Uint8Array, options?: { stream?: boolean }): string;
}

/** Workbooks nest some ten elements deep. */
const DEEPEST = 60;
/** Bytes without an element: no cell's text is as long. */
const LONGEST_SILENCE = 32 * 1024 * 1024;

export type Attributes = Readonly<Record<string, string>>;

/** What is told of the elements of a part as they come; names without their prefix. */
export type XmlVisitor = {
  readonly open?: (name: string, attributes: Attributes) => void;
  readonly text?: (text: string) => void;
  readonly close?: (name: string) => void;
};

/** Reads a part of a workbook as a stream of elements. Throws when it is not well formed or declares anything of its own. */
export async function readXml(
  zip: Zip,
  part: string,
  visitor: XmlVisitor,
  onProgress?: (share: number) => void,
): Promise<void> {
  const parser = new SaxesParser({ xmlns: false, position: false });
  let depth = 0;
  let silent = 0;
  parser.on('error', (e) => {
    throw e;
  });
  parser.on('doctype', () => {
    throw new Error('A part of a workbook declares nothing');
  });
  parser.on('opentag', ({ name, attributes }) => {
    silent = 0;
    if (++depth > DEEPEST) throw new Error('Nested deeper than any workbook');
    visitor.open?.(local(name), attributes);
  });
  parser.on('closetag', ({ name }) => {
    depth--;
    silent = 0;
    visitor.close?.(local(name));
  });
  if (visitor.text) {
    parser.on('text', visitor.text);
    parser.on('cdata', visitor.text);
  }
  let decoder: TextDecoder | null = null;
  await zip.each(part, (bytes, share) => {
    // The parser holds a text until it ends.
    if ((silent += bytes.length) > LONGEST_SILENCE) throw new TooMuch();
    decoder ??= new TextDecoder(encodingOf(bytes));
    parser.write(decoder.decode(bytes, { stream: true }));
    onProgress?.(share);
  });
  parser.close();
}

const local = (name: string): string => {
  const at = name.indexOf(':');
  return at < 0 ? name : name.slice(at + 1);
};

/** XML in a workbook is UTF-8 or UTF-16 (ECMA-376 part 2, 8.1.4). */
const encodingOf = (b: Uint8Array): string =>
  b[0] === 0xff && b[1] === 0xfe ? 'utf-16le' : b[0] === 0xfe && b[1] === 0xff ? 'utf-16be' : 'utf-8';
