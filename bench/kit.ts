/** The median of several runs of `work`, in milliseconds, after one run to warm up. */
export async function medianOf(runs: number, work: () => unknown): Promise<number> {
  await work();
  const times: number[] = [];
  for (let i = 0; i < runs; i++) {
    const started = performance.now();
    await work();
    times.push(performance.now() - started);
  }
  return times.sort((p, q) => p - q)[Math.floor(runs / 2)];
}

/** A quantile of numbers, 0–1. */
export function quantile(values: number[], q: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))] ?? NaN;
}

/** One line of the table: a figure as a ratio to its baseline, with what it is made of. */
export function line(name: string, ratio: number, detail: string): void {
  console.log(`${name.padEnd(52)} ${ratio.toFixed(2).padStart(8)}   ${detail}`);
}
