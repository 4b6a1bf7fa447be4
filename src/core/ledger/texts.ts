/* The Encoding Standard's classes stand in Node, workers and browsers alike; their shape is told here (see files/decode). */
declare class TextEncoder {
  encodeInto(text: string, into: Uint8Array): { read: number; written: number };
}
declare class TextDecoder {
  decode(input?: Uint8Array): string;
}

/**
 * Texts packed end to end in UTF-8: a million memos are two arrays, which pass between threads without a copy and
 * cost the garbage collector nothing. Text i lies from `ends[i - 1]` (0 for the first) to `ends[i]`; text 0 is empty.
 */
export type Texts = { readonly bytes: Uint8Array; readonly ends: Uint32Array };

const decoder = new TextDecoder();
const encoder = new TextEncoder();

/** The text at a place. */
export const textAt = (texts: Texts, place: number): string =>
  place === 0 ? '' : decoder.decode(texts.bytes.subarray(texts.ends[place - 1], texts.ends[place]));

/** Every text, in order: for files. */
export const unpackTexts = (texts: Texts): string[] =>
  Array.from({ length: texts.ends.length }, (_, i) => textAt(texts, i));

/** Packs a list whose first text is empty. */
export function packTexts(list: readonly string[]): Texts {
  const packer = new TextPacker();
  for (const text of list.slice(1)) packer.append(text);
  return packer.pack();
}

const RECENT = 8192;

/** Gathers texts. Those that repeat soon are kept once; keeping every text once would cost more than it saves. */
export class TextPacker {
  private bytes: Uint8Array;
  private ends: Uint32Array;
  private count = 1;
  private used = 0;
  private readonly recent = new Array<string>(RECENT).fill('');
  private readonly recentPlace = new Int32Array(RECENT);

  /** `about`: nearly how many entries will be read, to begin with room for the texts of each. */
  constructor(about = 0) {
    this.bytes = new Uint8Array(Math.max(1 << 12, about * 24));
    this.ends = new Uint32Array(Math.max(1 << 8, about * 2));
  }

  /** The place of a text: of a recent equal one where there is one, else a new place. */
  place(text: string): number {
    const n = text.length;
    if (n === 0) return 0;
    // Lengths and a few letters spread well enough over the slots; equality decides.
    const slot =
      (n * 131 +
        text.charCodeAt(0) * 31 +
        text.charCodeAt(n - 1) * 1031 +
        text.charCodeAt(n >> 1) * 17 +
        text.charCodeAt(n < 3 ? 0 : n - 2) * 4099 +
        text.charCodeAt(n < 4 ? 0 : n - 3) * 257) &
      (RECENT - 1);
    if (this.recent[slot] === text) return this.recentPlace[slot]!;
    this.recent[slot] = text;
    return (this.recentPlace[slot] = this.append(text));
  }

  /** A new place for a text. */
  append(text: string): number {
    const n = text.length;
    if (this.used + n * 3 > this.bytes.length) this.growBytes(n * 3);
    let at = this.used;
    const { bytes } = this;
    let i = 0;
    for (; i < n; i++) {
      const c = text.charCodeAt(i);
      if (c > 127) break;
      bytes[at++] = c;
    }
    if (i < n) at = this.used + encoder.encodeInto(text, bytes.subarray(this.used)).written;
    this.used = at;
    if (this.count === this.ends.length) {
      const next = new Uint32Array(this.ends.length * 2);
      next.set(this.ends);
      this.ends = next;
    }
    this.ends[this.count] = at;
    return this.count++;
  }

  pack(): Texts {
    return { bytes: cut(this.bytes, this.used), ends: cut(this.ends, this.count) };
  }

  private growBytes(need: number): void {
    const next = new Uint8Array(Math.max(this.bytes.length * 2, this.used + need));
    next.set(this.bytes.subarray(0, this.used));
    this.bytes = next;
  }
}

/** The filled part of a column: without a copy when little room is left over. */
export const cut = <T extends Uint8Array | Uint32Array | Int32Array | Float64Array>(
  column: T,
  used: number,
): T => (used >= column.length * 0.9 ? column.subarray(0, used) : column.slice(0, used)) as T;
