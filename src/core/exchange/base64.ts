const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';

/** Bytes in base64 (RFC 4648). `btoa` takes texts alone, and breaks on large ones. */
export function base64Of(bytes: Uint8Array): string {
  const out: string[] = [];
  for (let i = 0; i < bytes.length; i += 3) {
    const [a, b, c] = [bytes[i]!, bytes[i + 1], bytes[i + 2]];
    out.push(
      LETTERS[a >> 2]! +
        LETTERS[((a & 3) << 4) | ((b ?? 0) >> 4)]! +
        (b === undefined ? '=' : LETTERS[((b & 15) << 2) | ((c ?? 0) >> 6)]!) +
        (c === undefined ? '=' : LETTERS[c & 63]!),
    );
  }
  return out.join('');
}
