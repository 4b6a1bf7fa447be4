/** Eight tables of the polynomial 0xEDB88320 (ISO 3309, as ZIP has it): so eight bytes go at a time. */
const TABLES = (() => {
  const tables = Array.from({ length: 8 }, () => new Uint32Array(256));
  for (let n = 0; n < 256; n++) {
    let c = n;
    for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
    tables[0]![n] = c;
  }
  for (let n = 0; n < 256; n++)
    for (let t = 1; t < 8; t++) {
      const c = tables[t - 1]![n]!;
      tables[t]![n] = tables[0]![c & 255]! ^ (c >>> 8);
    }
  return tables as [Uint32Array, ...Uint32Array[]];
})();

/** The CRC-32 of bytes, going on from that of what came before them; unsigned. */
export function crc32(bytes: Uint8Array, before = 0): number {
  const [t0, t1, t2, t3, t4, t5, t6, t7] = TABLES;
  let c = ~before;
  let i = 0;
  for (const last = bytes.length - 8; i <= last; i += 8) {
    c ^= bytes[i]! | (bytes[i + 1]! << 8) | (bytes[i + 2]! << 16) | (bytes[i + 3]! << 24);
    c =
      t7![c & 255]! ^
      t6![(c >>> 8) & 255]! ^
      t5![(c >>> 16) & 255]! ^
      t4![c >>> 24]! ^
      t3![bytes[i + 4]!]! ^
      t2![bytes[i + 5]!]! ^
      t1![bytes[i + 6]!]! ^
      t0[bytes[i + 7]!]!;
  }
  for (; i < bytes.length; i++) c = t0[(c ^ bytes[i]!) & 255]! ^ (c >>> 8);
  return ~c >>> 0;
}
