/* How much is tried: a little with every test run, all of it with `npm run hostile`, which prints the counts. */

const whole = process.env.TELLAN_HOSTILE === '1';

export const times = (all: number, few: number): number => (whole ? all : few);

export function counted(what: string, counts: Readonly<Record<string, number>>): void {
  if (!whole) return;
  const words = Object.entries(counts).map(([name, n]) => `${name} ${Math.round(n).toLocaleString('en-US')}`);
  process.stdout.write(`${what}: ${words.join(', ')}\n`);
}

/** Does something and remembers the longest that anything took, in milliseconds. */
export async function within(count: { slowest: number }, work: () => Promise<void>): Promise<void> {
  const from = performance.now();
  try {
    await work();
  } finally {
    count.slowest = Math.max(count.slowest, performance.now() - from);
  }
}

/** The seed of a run: the same each time unless another is asked for. */
export const seed = (usual: number): number => Number(process.env.TELLAN_SEED ?? usual);
