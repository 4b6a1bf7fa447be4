/** Does pieces of work one after another while the page is idle, after a rest; gives what stops it. */
export function whenIdle(pieces: readonly (() => unknown)[], restMs: number): () => void {
  let stopped = false;
  const next = (at: number): void => {
    if (stopped || at >= pieces.length) return;
    const run = () => {
      if (stopped) return;
      pieces[at]!();
      next(at + 1);
    };
    // Not every browser tells when it is idle; and one that is busy elsewhere may never say so by itself.
    if ('requestIdleCallback' in window) window.requestIdleCallback(run, { timeout: LONGEST_MS });
    else setTimeout(run, restMs);
  };
  const timer = setTimeout(next, restMs, 0);
  return () => {
    stopped = true;
    clearTimeout(timer);
  };
}

/** So long something is waited for at most that a screen shows as "…". */
const LONGEST_MS = 1_000;
