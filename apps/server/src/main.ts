import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { startServer } from './server.ts';
import { readSettings } from './settings.ts';

/** The built web application: beside the built server, or where the sources build it. */
function findWeb(): string | null {
  const here = dirname(fileURLToPath(import.meta.url));
  return (
    [join(here, '../web/browser'), join(here, '../../web/dist/browser')].find(f => existsSync(join(f, 'index.html'))) ?? null
  );
}

let settings;
try {
  settings = readSettings(process.env);
} catch (error) {
  process.stderr.write(`${(error as Error).message}\n`);
  process.exit(2);
}
const log = pino({ name: 'server', level: settings.log, redact: ['*.password', '*.token', '*.secret'] });
const server = await startServer(settings, log, findWeb());
process.send?.({ ready: server.port });

let stopping = false;
function stop(): void {
  if (stopping) return;
  stopping = true;
  server.stop().then(
    () => process.exit(0),
    error => {
      log.error({ err: error as Error }, 'could not stop cleanly');
      process.exit(1);
    },
  );
}
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
// The starter is gone: nobody would stop this server any more.
process.on('disconnect', stop);
