import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { MessagePort } from 'node:worker_threads';
import { hashPixels, PictureError, type Picture, type Ticket } from '@zinc/core';
import sharp from 'sharp';
import { CannotDrawError, paintTicket } from './paintTicket.ts';

sharp.concurrency(1);

export interface PaintTask {
  ticket: Ticket;
  inputs: string;
  started: MessagePort;
}

export type PaintResult = { png: Uint8Array; pixels: string } | { cannot: string };

/** Runs in a worker thread: paints, hashes the pixels and encodes a PNG. What cannot be drawn is an answer, for error classes do not cross threads. */
export default async function run(task: PaintTask): Promise<PaintResult> {
  task.started.postMessage('started');
  task.started.close();
  let picture: Picture;
  try {
    picture = await paintTicket(task.ticket, sha => readFile(join(task.inputs, `${sha}.png`)));
  } catch (error) {
    if (error instanceof CannotDrawError || error instanceof PictureError) return { cannot: error.message };
    throw error;
  }
  const { width, height, data } = picture;
  const png = await sharp(data, { raw: { width, height, channels: 4 } })
    .png({ compressionLevel: 6 })
    .toBuffer();
  return { png: new Uint8Array(png), pixels: hashPixels(picture) };
}
