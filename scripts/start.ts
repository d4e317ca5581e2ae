import { createServer } from 'node:net';
import { join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { DEMO_PEOPLE } from '../apps/server/src/demo/facts.ts';
import { buildAll } from './build.ts';
import { startStack, type Stack } from './stack.ts';

const root = fileURLToPath(new URL('..', import.meta.url));
const data = resolve(process.env.ZINC_DATA ?? join(root, '.zinc'));
const port = Number(process.env.ZINC_PORT ?? 4310);
const demo = process.env.ZINC_DEMO === 'off' || process.env.ZINC_DEMO === 'small' ? process.env.ZINC_DEMO : 'on';

function fail(message: string): never {
  console.error(`\nZinc Shelf cannot go on: ${message}`);
  process.exit(1);
}

function portIsFree(): Promise<boolean> {
  return new Promise(done => {
    const probe = createServer();
    probe.once('error', () => done(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => done(true)));
  });
}

if (!Number.isInteger(port) || port < 0 || port > 65535)
  fail(`ZINC_PORT is "${process.env.ZINC_PORT}"; wanted a whole number from 0 to 65535.`);
if (process.env.ZINC_DEMO && !['on', 'off'].includes(process.env.ZINC_DEMO))
  fail(`ZINC_DEMO is "${process.env.ZINC_DEMO}"; wanted on or off.`);
if (!(await portIsFree())) fail(`port ${port} is taken. Stop what uses it, or choose another: ZINC_PORT=4320 npm start`);

let stack: Stack | null = null;
let stopping = false;
async function stop(code: number): Promise<void> {
  if (stopping) return;
  stopping = true;
  console.log('\nStopping. Runs that are under way go on at the next start.');
  await stack?.stop();
  process.exit(code);
}
process.on('SIGINT', () => void stop(0));
process.on('SIGTERM', () => void stop(0));

try {
  await buildAll();
  stack = await startStack({ data, port, demo, say: console.log, onGiveUp: message => void (console.error(message), stop(1)) });
  console.log(`\nZinc Shelf is ready at ${stack.url}`);
  if (demo !== 'off') {
    console.log('\nDemo sign-ins (made-up people, demo data only):');
    for (const p of DEMO_PEOPLE) console.log(`  ${p.role.padEnd(9)} ${p.email.padEnd(28)} ${p.password}`);
  } else console.log('The house is empty or your own: open the address to make its first lead, or to sign in.');
  console.log('\nCtrl-C stops everything that was started here.');
} catch (error) {
  await (stack as Stack | null)?.stop();
  fail((error as Error).message);
}
