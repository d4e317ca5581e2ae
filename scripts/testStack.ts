import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startStack } from './stack.ts';

// A whole house for the end-to-end tests: `testStack.ts PORT demo|empty FILE`. FILE is told how to reach the press.
const [port, kind, file] = process.argv.slice(2);
const data = mkdtempSync(join(tmpdir(), '.zinc-e2e-'));
const stack = await startStack({
  data,
  port: Number(port),
  demo: kind === 'demo' ? 'small' : 'off',
  forTests: true,
  misbehave: true,
  secondPress: kind === 'demo',
  say: () => undefined,
  onGiveUp: message => {
    console.error(message);
    process.exit(1);
  },
});
writeFileSync(file, JSON.stringify(stack.press));
async function stop(): Promise<void> {
  await stack.stop();
  rmSync(data, { recursive: true, force: true });
  process.exit(0);
}
process.on('SIGTERM', () => void stop());
process.on('SIGINT', () => void stop());
