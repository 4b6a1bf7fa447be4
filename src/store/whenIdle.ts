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
    // Not every browser tells when it is idle.
    if ('requestIdleCallback' in window) window.requestIdleCallback(run);
    else setTimeout(run, restMs);
  };
  const timer = setTimeout(next, restMs, 0);
  return () => {
    stopped = true;
    clearTimeout(timer);
  };
}
