import { Piscina } from 'piscina';
import type { Fingerprint, Lettering } from '@zinc/core';
import type {
  CodeTask,
  Findings,
  FindingsTask,
  IntakeResult,
  IntakeTask,
  LetteringTask,
  LikenessTask,
  MaskTask,
  VariantTask,
} from './pictureWorker.ts';

/** Decoding and measuring in worker threads, so that requests never wait for a picture. */
export class PicturePool {
  private readonly pool: Piscina;

  constructor(threads = 2) {
    const extension = import.meta.url.endsWith('.ts') ? 'ts' : 'js';
    // The bundler gives the worker a file beside the server; from sources it lies beside this one.
    const filename = new URL(`./pictureWorker.${extension}`, import.meta.url).href;
    this.pool = new Piscina({ filename, minThreads: 1, maxThreads: threads, idleTimeout: 30_000 });
  }

  run(task: IntakeTask | VariantTask | MaskTask): Promise<IntakeResult> {
    return this.pool.run(task) as Promise<IntakeResult>;
  }

  /** What an own style code measures, painted on its specimen. */
  measureCode(text: string): Promise<Fingerprint> {
    const task: CodeTask = { kind: 'code', text };
    return this.pool.run(task) as Promise<Fingerprint>;
  }

  /** The style code that comes closest to a fingerprint, and how far it is from it. */
  nearestCode(fingerprint: Fingerprint): Promise<{ code: string; drift: number }> {
    const task: CodeTask = { kind: 'nearestCode', fingerprint };
    return this.pool.run(task) as Promise<{ code: string; drift: number }>;
  }

  /** How much a painting keeps of its content, 0–1; both are files. */
  likeness(painted: Uint8Array, original: Uint8Array): Promise<number> {
    const task: LikenessTask = { kind: 'likeness', painted, original };
    return this.pool.run(task) as Promise<number>;
  }

  /** Lines of letters in a picture file. */
  lettering(bytes: Uint8Array): Promise<Lettering[]> {
    const task: LetteringTask = { kind: 'lettering', bytes };
    return this.pool.run(task) as Promise<Lettering[]>;
  }

  /** What a painting shows of a source; both are files. */
  find(task: FindingsTask): Promise<Findings> {
    return this.pool.run(task) as Promise<Findings>;
  }

  async close(): Promise<void> {
    await this.pool.destroy();
  }
}
