import { calendarFrom } from '@/core/calendar';
import { fingerprint, readFile } from '@/core/files';
import { anchorIn, readReturn, roundPeriods, type ReadReturn } from '@/core/handout';
import type { ReturnedAnswer, ReturnedRequest } from './protocol';

const scope = self as unknown as {
  postMessage(message: ReturnedAnswer): void;
  onmessage: ((e: MessageEvent<ReturnedRequest>) => void) | null;
};

scope.onmessage = async ({ data }) => {
  try {
    scope.postMessage(await answer(data));
  } catch (error) {
    const message = error instanceof Error ? error.message : String(error);
    scope.postMessage({ ok: false, issue: null, message });
  }
};

/** By what it says of itself it is one of those asked for; else it is the one that knows the most of its lines. */
async function answer({ file, asks, ...ground }: ReturnedRequest): Promise<ReturnedAnswer> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const read = await readFile(bytes, { told: true });
  if (!read.ok) return { ok: false, issue: read.issue, message: '' };
  const { grids } = read.file;
  const anchor = anchorIn(grids);
  const calendar = calendarFrom(ground.calendar);
  const named = anchor ? asks.findIndex((a) => a.round === anchor.round && a.handout === anchor.handout) : -1;
  const candidates = named >= 0 ? [named] : anchor ? [] : asks.map((_, i) => i);
  let best: { readonly ask: number; readonly reading: ReadReturn } | null = null;
  for (const ask of candidates) {
    const { first, length, answer: by, axis, lines } = asks[ask]!;
    const reading = readReturn(grids, {
      ...ground,
      calendar,
      periods: roundPeriods(calendar, { first, length }),
      answer: by,
      axis,
      lines,
    });
    if (reading.lines.length > (best?.reading.lines.length ?? 0)) best = { ask, reading };
  }
  return {
    ok: true,
    fingerprint: await fingerprint(bytes),
    anchor,
    ask: best?.ask ?? null,
    reading: best?.reading ?? null,
  };
}
