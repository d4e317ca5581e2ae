import type { Logger } from 'pino';
import type { Pool } from 'mysql2/promise';
import type { Database } from './db/connect.ts';
import type { EventLog } from './house/events.ts';
import type { Presses } from './presses/presses.ts';
import type { Settings } from './settings.ts';
import type { CodeMeasurer } from './shelf/codes/measurer.ts';
import type { ShelfNearness } from './shelf/find/nearness.ts';
import type { PicturePool } from './shelf/picturePool.ts';
import type { PictureStore } from './shelf/pictureStore.ts';

/** What every capability works with. */
export interface Context {
  settings: Settings;
  pool: Pool;
  db: Database;
  store: PictureStore;
  pictures: PicturePool;
  codes: CodeMeasurer;
  nearness: ShelfNearness;
  presses: Presses;
  events: EventLog;
  log: Logger;
}
