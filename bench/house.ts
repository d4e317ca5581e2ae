import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildAll } from '../scripts/build.ts';
import { startStack, type Stack } from '../scripts/stack.ts';

/** Builds, starts a demo house of its own, and takes it down again. */
export async function withHouse(work: (stack: Stack) => Promise<void>): Promise<void> {
  await buildAll();
  const data = mkdtempSync(join(tmpdir(), 'zinc-bench-'));
  const started = performance.now();
  const stack = await startStack({
    data,
    port: 0,
    demo: 'small',
    say: () => undefined,
    onGiveUp: message => console.error(message),
  });
  console.log(`\nFrom nothing (built) to an answering demo house: ${((performance.now() - started) / 1000).toFixed(1)} s`);
  try {
    await work(stack);
  } finally {
    await stack.stop();
    rmSync(data, { recursive: true, force: true });
  }
}
