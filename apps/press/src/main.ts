import { createServer } from 'node:http';
import { pino } from 'pino';
import { createPress } from './app.ts';
import { Renders } from './renders.ts';

const port = Number(process.env.ZINC_PRESS_PORT ?? 4311);
const folder = process.env.ZINC_PRESS_DATA;
const token = process.env.ZINC_PRESS_TOKEN;
const log = pino({ name: 'press', level: process.env.ZINC_LOG ?? 'info' });
if (!folder || !token || !Number.isInteger(port)) {
  log.fatal('The press needs ZINC_PRESS_DATA (a folder), ZINC_PRESS_TOKEN and a whole ZINC_PRESS_PORT.');
  process.exit(2);
}
const renders = new Renders(folder);
const server = createServer(createPress(renders, { token, mayMisbehave: process.env.ZINC_PRESS_MISBEHAVE === 'on' }));
server.listen(port, '127.0.0.1', () => log.info({ port }, 'press ready'));

let stopping = false;
async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  server.close();
  server.closeAllConnections();
  await renders.close();
  process.exit(0);
}
process.on('SIGTERM', () => void stop());
process.on('SIGINT', () => void stop());
// The starter is gone: nobody would stop this press any more.
process.on('disconnect', () => void stop());
