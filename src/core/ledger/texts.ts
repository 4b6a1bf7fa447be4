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

const RECENT = 1 << 14;

/** Gathers texts. Those that repeat soon are kept once; keeping every text once would cost more than it saves. */
export class TextPacker {
  private bytes: Uint8Array;
  private ends: Uint32Array;
  private count = 1;
  private used = 0;
  /** The place of the last text of each hash; 0 for none. */
  private readonly recent = new Int32Array(RECENT);

  /** `about`: nearly how many entries will be read, to begin with room for the texts of each. */
  constructor(about = 0) {
    this.bytes = new Uint8Array(Math.max(1 << 12, about * 24));
    this.ends = new Uint32Array(Math.max(1 << 8, about * 2));
  }

  /** The place of a text: of a recent equal one where there is one, else a new place. */
  place(text: string): number {
    if (text === '') return 0;
    // It is written at the end and compared there, as bytes: the texts of a file lie far apart in memory.
    const start = this.used;
    this.write(text);
    const { bytes, used } = this;
    // FNV-1a (Fowler, Noll, Vo) over the bytes; equality decides.
    let hash = 0x811c9dc5;
    for (let i = start; i < used; i++) hash = Math.imul(hash ^ bytes[i]!, 0x01000193);
    const slot = (hash ^ (hash >>> 14)) & (RECENT - 1);
    const known = this.recent[slot]!;
    if (!this.equalsLast(known, start)) return (this.recent[slot] = this.close());
    this.used = start;
    return known;
  }

  /** A new place for a text. */
  append(text: string): number {
    this.write(text);
    return this.close();
  }

  private equalsLast(place: number, start: number): boolean {
    if (place === 0) return false;
    const { bytes, ends, used } = this;
    const from = ends[place - 1]!;
    const length = ends[place]! - from;
    if (length !== used - start) return false;
    for (let i = 0; i < length; i++) if (bytes[from + i] !== bytes[start + i]) return false;
    return true;
  }

  private write(text: string): void {
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
  }

  /** Makes what was written since the last text one of its own; its place. */
  private close(): number {
    if (this.count === this.ends.length) {
      const next = new Uint32Array(this.ends.length * 2);
      next.set(this.ends);
      this.ends = next;
    }
    this.ends[this.count] = this.used;
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
