/* Machines stall for seconds at times, so each figure is the best and the median of several turns in one run. */

export const TURNS = 7;

export type Timing = { readonly best: number; readonly median: number };

export const summary = (times: readonly number[]): Timing => {
  const sorted = [...times].sort((a, b) => a - b);
  return { best: sorted[0]!, median: sorted[Math.floor(sorted.length / 2)]! };
};

/** Times a run over several turns; a short one is run `times` in a turn and divided. */
export async function time(turns: number, run: () => unknown, times = 1): Promise<Timing> {
  const taken: number[] = [];
  for (let i = 0; i < turns; i++) {
    if (times === 1) (globalThis as { gc?: () => void }).gc?.();
    const from = performance.now();
    for (let n = 0; n < times; n++) await run();
    taken.push((performance.now() - from) / times);
  }
  return summary(taken);
}

export const ms = (t: Timing): string => `${t.best.toFixed(2)} ms best, ${t.median.toFixed(2)} ms median`;

/** One line for a bar: what was measured, against what, and whether it is met by the best turns. */
export function report(
  name: string,
  value: number,
  unit: string,
  bar: string,
  met: boolean,
  detail: string,
): void {
  process.stdout.write(`${met ? '✓' : '✗'} ${name}: ${value.toFixed(2)}${unit} (bar ${bar}) · ${detail}\n`);
}
