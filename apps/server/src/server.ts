import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import type { Logger } from 'pino';
import type { Context } from './context.ts';
import { connect, migrateDatabase } from './db/connect.ts';
import { keepDemoHouse } from './demo/seed.ts';
import { createApp } from './http/app.ts';
import { EventLog } from './house/events.ts';
import { renewLooks } from './mix/renew.ts';
import { Presses } from './presses/presses.ts';
import { Binder } from './runs/binder.ts';
import { Maker } from './runs/maker.ts';
import type { Settings } from './settings.ts';
import { CodeMeasurer } from './shelf/codes/measurer.ts';
import { ShelfNearness } from './shelf/find/nearness.ts';
import { PicturePool } from './shelf/picturePool.ts';
import { measureAgain } from './shelf/remeasure.ts';
import { FolderPictureStore } from './shelf/pictureStore.ts';

export interface RunningServer {
  port: number;
  context: Context;
  stop(): Promise<void>;
}

/** Migrates, fills the demo house if it is wanted and the house is empty, and serves. */
export async function startServer(settings: Settings, log: Logger, webFolder: string | null): Promise<RunningServer> {
  await migrateDatabase(settings.databaseUrl);
  const { pool, db } = connect(settings.databaseUrl);
  const pictures = new PicturePool();
  const context: Context = {
    settings,
    pool,
    db,
    log,
    store: new FolderPictureStore(join(settings.data, 'house')),
    pictures,
    codes: new CodeMeasurer(db, pictures, log),
    nearness: new ShelfNearness(db),
    presses: new Presses(db, settings),
    events: new EventLog(db, log),
  };
  await measureAgain(context);
  await renewLooks(context);
  if (settings.demo !== 'off') await keepDemoHouse(context);
  await context.events.start();
  if (settings.demo !== 'full') context.codes.poke();
  const maker = new Maker(context);
  maker.start();
  const binder = new Binder(context);
  binder.start();
  const server = createServer(createApp(context, webFolder));
  server.requestTimeout = 120_000;
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(settings.port, '127.0.0.1', resolve);
  });
  return {
    port: (server.address() as AddressInfo).port,
    context,
    async stop() {
      server.close();
      // Event streams never end by themselves.
      server.closeAllConnections();
      await Promise.all([maker.stop(), binder.stop()]);
      await context.codes.stop();
      context.events.stop();
      await context.pictures.close();
      await pool.end();
    },
  };
}
