import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { MessagePort } from 'node:worker_threads';
import { hashPixels, type Ticket } from '@zinc/core';
import sharp from 'sharp';
import { paintTicket } from './paintTicket.ts';

sharp.concurrency(1);

export interface PaintTask {
  ticket: Ticket;
  inputs: string;
  started: MessagePort;
}

/** Runs in a worker thread: paints, hashes the pixels and encodes a PNG. */
export default async function run(task: PaintTask): Promise<{ png: Uint8Array; pixels: string }> {
  task.started.postMessage('started');
  task.started.close();
  const picture = await paintTicket(task.ticket, sha => readFile(join(task.inputs, `${sha}.png`)));
  const { width, height, data } = picture;
  const png = await sharp(data, { raw: { width, height, channels: 4 } })
    .png({ compressionLevel: 6 })
    .toBuffer();
  return { png: new Uint8Array(png), pixels: hashPixels(picture) };
}
