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
/** Deflate cannot grow by more than about 1,032 times (RFC 1951): smaller parts need no trial. */
const SMALL = MOST_UNPACKED / 1032 / 16;

type Part = {
  readonly packed: number;
  readonly unpacked: number;
  readonly offset: number;
  readonly method: number;
};

/**
 * Whether unpacking the archive would fill the memory: by the sizes it states, and, since those may lie, by
 * unpacking its larger parts piece by piece and counting. Throws when it is no whole archive.
 */
export async function isZipBomb(bytes: Uint8Array): Promise<boolean> {
  const parts = directory(bytes);
  if (parts.length > 10_000 || parts.reduce((n, p) => n + p.unpacked, 0) > MOST_UNPACKED) return true;
  let counted = 0;
  for (const part of parts) {
    if (part.method !== 8 || part.packed < SMALL) continue;
    counted += await unpackedSize(bytes, part, MOST_UNPACKED - counted);
    if (counted >= MOST_UNPACKED) return true;
  }
  return false;
}

/** The archive's own list of its parts (ZIP file format, APPNOTE 4.3.12 and 4.3.16; from memory). */
function directory(bytes: Uint8Array): Part[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let end = bytes.length - 22;
  while (end >= 0 && end > bytes.length - 66_000 && view.getUint32(end, true) !== 0x06054b50) end--;
  if (end < 0 || view.getUint32(end, true) !== 0x06054b50) throw new Error('No end of archive');
  const parts: Part[] = [];
  let at = view.getUint32(end + 16, true);
  for (let n = view.getUint16(end + 10, true); n > 0; n--) {
    if (view.getUint32(at, true) !== 0x02014b50) throw new Error('Broken directory');
    parts.push({
      method: view.getUint16(at + 10, true),
      packed: view.getUint32(at + 20, true),
      unpacked: view.getUint32(at + 24, true),
      offset: view.getUint32(at + 42, true),
    });
    at += 46 + view.getUint16(at + 28, true) + view.getUint16(at + 30, true) + view.getUint16(at + 32, true);
  }
  return parts;
}

async function unpackedSize(bytes: Uint8Array, part: Part, limit: number): Promise<number> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const start =
    part.offset + 30 + view.getUint16(part.offset + 26, true) + view.getUint16(part.offset + 28, true);
  const stream = new DecompressionStream('deflate-raw');
  const writer = stream.writable.getWriter();
  // What is written waits until it is read: a bomb is stopped long before it is unpacked.
  void writer
    .write(bytes.slice(start, start + part.packed))
    .then(() => writer.close())
    .catch(() => undefined);
  const reader = stream.readable.getReader();
  let size = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return size;
    size += value!.length;
    if (size >= limit) {
      await reader.cancel().catch(() => undefined);
      return size;
    }
  }
}
