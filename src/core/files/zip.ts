import { crc32 } from './crc';

/* Compression Streams are of the WHATWG standard and stand in Node, workers and browsers; their shape is told here. */
declare class DecompressionStream {
  constructor(format: 'deflate-raw');
  readonly readable: {
    getReader(): { read(): Promise<{ done: boolean; value?: Uint8Array }>; cancel(): Promise<void> };
  };
  readonly writable: { getWriter(): { write(chunk: Uint8Array): Promise<void>; close(): Promise<void> } };
}

/** No workbook of a ledger unpacks to more; one of 100,000 rows takes some 60 MB. */
const MOST_UNPACKED = 600 * 1024 * 1024;
const MOST_PARTS = 10_000;
const CHUNK = 1 << 20;

/** What is unpacked would fill the memory, or is more than any ledger has. */
export class TooMuch extends Error {}

/** What stands in the archive is not what was put there. */
export class Damaged extends Error {}

type Part = {
  readonly packed: number;
  readonly offset: number;
  readonly method: number;
  readonly crc: number;
};

/** Parts of an archive by name, unpacked piece by piece and counted as they come: what it says of their sizes is no matter. */
export class Zip {
  private readonly parts: ReadonlyMap<string, Part>;
  private left = MOST_UNPACKED;

  /** Throws when it is no whole archive, `TooMuch` when it has more parts than any workbook. */
  constructor(private readonly bytes: Uint8Array) {
    this.parts = directory(bytes);
  }

  has = (name: string): boolean => this.parts.has(keyOf(name));

  /**
   * Gives each piece of a part in turn, with how far it is. Nothing for a part that is not there. Throws `Damaged` at its end
   * when its bytes are not those that its checksum is of: one flipped bit is another amount.
   */
  async each(name: string, piece: (bytes: Uint8Array, share: number) => void): Promise<void> {
    const part = this.parts.get(keyOf(name));
    if (!part) return;
    const { bytes } = this;
    const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    const start =
      part.offset + 30 + view.getUint16(part.offset + 26, true) + view.getUint16(part.offset + 28, true);
    const packed = bytes.slice(start, start + part.packed);
    let crc = 0;
    const give = (value: Uint8Array, share: number) => {
      this.left -= value.length;
      if (this.left < 0) throw new TooMuch();
      crc = crc32(value, crc);
      piece(value, share);
    };
    if (part.method === 0)
      for (let at = 0; at < packed.length; at += CHUNK)
        give(packed.subarray(at, at + CHUNK), at / packed.length);
    else if (part.method === 8) await inflate(packed, give);
    else throw new Error('Packed in a way that workbooks are not');
    if (crc !== part.crc) throw new Damaged(name);
  }
}

async function inflate(packed: Uint8Array, give: (bytes: Uint8Array, share: number) => void): Promise<void> {
  const stream = new DecompressionStream('deflate-raw');
  const writer = stream.writable.getWriter();
  let written = 0;
  let failure: unknown = null;
  // What is written waits until it is read: a bomb is stopped long before it is unpacked.
  const writing = (async () => {
    for (; written < packed.length; written += CHUNK)
      await writer.write(packed.subarray(written, written + CHUNK));
    await writer.close();
  })().catch((error: unknown) => (failure = error));
  const reader = stream.readable.getReader();
  try {
    for (;;) {
      const { done, value } = await reader.read();
      if (done) break;
      give(value!, Math.min(1, written / packed.length));
    }
  } catch (error) {
    await reader.cancel().catch(() => undefined);
    throw error;
  }
  await writing;
  if (failure !== null) throw failure instanceof Error ? failure : new Error('Broken part');
}

/** Names are compared without case and without a slash before them, as the Open Packaging Conventions do. */
const keyOf = (name: string): string => name.replace(/^\//, '').toLowerCase();

declare class TextDecoder {
  decode(input?: Uint8Array): string;
}

/** The archive's own list of its parts (ZIP file format, APPNOTE 4.3.12 and 4.3.16; from memory). */
function directory(bytes: Uint8Array): ReadonlyMap<string, Part> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let end = bytes.length - 22;
  while (end >= 0 && end > bytes.length - 66_000 && view.getUint32(end, true) !== 0x06054b50) end--;
  if (end < 0 || view.getUint32(end, true) !== 0x06054b50) throw new Error('No end of archive');
  const parts = new Map<string, Part>();
  const decoder = new TextDecoder();
  let at = view.getUint32(end + 16, true);
  // By its own marks, not by the number that stands at its end: that one may lie.
  for (let n = 0; at + 46 <= end && view.getUint32(at, true) === 0x02014b50; n++) {
    if (n >= MOST_PARTS) throw new TooMuch();
    const length = view.getUint16(at + 28, true);
    parts.set(keyOf(decoder.decode(bytes.subarray(at + 46, at + 46 + length))), {
      method: view.getUint16(at + 10, true),
      crc: view.getUint32(at + 16, true),
      packed: view.getUint32(at + 20, true),
      offset: view.getUint32(at + 42, true),
    });
    at += 46 + length + view.getUint16(at + 30, true) + view.getUint16(at + 32, true);
  }
  if (parts.size === 0) throw new Error('Broken directory');
  return parts;
}
