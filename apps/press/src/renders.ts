import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, rmSync, statSync } from 'node:fs';
import { readFile, rename, writeFile } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { MessageChannel } from 'node:worker_threads';
import type { Render } from '@zinc/contract';
import type { Ticket } from '@zinc/core';
import { Piscina } from 'piscina';
import type { PaintResult, PaintTask } from './paintWorker.ts';

interface Kept {
  render: Render;
  abort: AbortController;
}

const DAY = 86_400_000;

/** The renders of this press: one per idempotency key, painted by worker threads, results kept on disk for a day. */
export class Renders {
  private readonly kept = new Map<string, Kept>();
  private readonly pool: Piscina;
  private readonly images: string;
  readonly inputs: string;
  readonly threads: number;

  constructor(folder: string, threads = availableParallelism()) {
    this.threads = threads;
    this.images = join(folder, 'renders');
    this.inputs = join(folder, 'inputs');
    for (const f of [this.images, this.inputs]) mkdirSync(f, { recursive: true });
    for (const file of readdirSync(this.images))
      if (Date.now() - statSync(join(this.images, file)).mtimeMs > DAY) rmSync(join(this.images, file));
    const extension = import.meta.url.endsWith('.ts') ? 'ts' : 'js';
    this.pool = new Piscina({
      filename: new URL(`./paintWorker.${extension}`, import.meta.url).href,
      minThreads: threads,
      maxThreads: threads,
      idleTimeout: 600_000,
    });
  }

  private imageFile(id: string): string {
    return join(this.images, `${id}.png`);
  }

  /** Orders a render, or gives the one that this key already ordered. */
  order(key: string, ticket: Ticket): Render {
    const id = createHash('sha256').update(key).digest('hex').slice(0, 32);
    const known = this.find(id);
    if (known && known.state !== 'cancelled' && !(known.state === 'failed' && known.problem?.mayRetry)) return known;
    const render: Render = { id, state: 'waiting', progress: 0 };
    const abort = new AbortController();
    this.kept.set(id, { render, abort });
    void this.paint(render, ticket, abort.signal);
    return render;
  }

  private async paint(render: Render, ticket: Ticket, signal: AbortSignal): Promise<void> {
    const { port1, port2 } = new MessageChannel();
    port1.once('message', () => {
      if (render.state === 'waiting') render.state = 'painting';
    });
    const task: PaintTask = { ticket, inputs: this.inputs, started: port2 };
    try {
      const made = (await this.pool.run(task, { signal, transferList: [port2] })) as PaintResult;
      if ('cannot' in made) {
        Object.assign(render, { state: 'failed', problem: { code: 'cannotDraw', detail: made.cannot, mayRetry: false } });
        return;
      }
      const part = `${this.imageFile(render.id)}.part`;
      await writeFile(part, made.png);
      await writeFile(`${this.imageFile(render.id)}.pixels`, made.pixels);
      await rename(part, this.imageFile(render.id));
      Object.assign(render, { state: 'made', progress: 100, pixels: made.pixels });
    } catch (error) {
      if (signal.aborted) render.state = 'cancelled';
      else {
        render.state = 'failed';
        render.problem = { code: 'paintingFailed', detail: (error as Error).message, mayRetry: true };
      }
    } finally {
      port1.close();
    }
  }

  find(id: string): Render | null {
    const kept = this.kept.get(id);
    if (kept) return kept.render;
    // After a restart the memory is gone but a finished image is still the answer for its key.
    if (!/^[0-9a-f]{32}$/.test(id) || !existsSync(this.imageFile(id))) return null;
    return { id, state: 'made', progress: 100 };
  }

  async image(id: string): Promise<{ png: Buffer; pixels: string } | null> {
    if (this.find(id)?.state !== 'made') return null;
    return { png: await readFile(this.imageFile(id)), pixels: await readFile(`${this.imageFile(id)}.pixels`, 'utf8') };
  }

  cancel(id: string): Render | null {
    const kept = this.kept.get(id);
    if (!kept) return this.find(id);
    if (kept.render.state === 'waiting' || kept.render.state === 'painting') {
      kept.abort.abort();
      kept.render.state = 'cancelled';
    }
    return kept.render;
  }

  async close(): Promise<void> {
    for (const { abort } of this.kept.values()) abort.abort();
    await this.pool.destroy();
  }
}
