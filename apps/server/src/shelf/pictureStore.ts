import { createHash, randomUUID } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, rmSync } from 'node:fs';
import { mkdir, open, readFile, rename, rm } from 'node:fs/promises';
import { hostname } from 'node:os';
import { dirname, join } from 'node:path';

/** Half-written files carry the machine and process that writes them, so that what a killed process left can be told from work under way. */
const WRITER = `${hostname().replace(/[^a-zA-Z0-9]/g, '')}-${process.pid}`;

function isRunning(pid: number): boolean {
  if (pid === process.pid) return false;
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    // A process of another user may not be signalled, but runs.
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}

/** Where the bytes of pictures are kept: named by their SHA-256, written once, never changed. A bucket could stand here instead. */
export interface PictureStore {
  /** Keeps bytes and gives their SHA-256; bytes already kept are left as they are. */
  put(bytes: Uint8Array): Promise<string>;
  read(sha256: string): Promise<Buffer>;
  has(sha256: string): boolean;
  /** A derived file that can be thrown away, made by `make` when it is not there. Returns its path. */
  derived(name: string, make: () => Promise<Uint8Array>): Promise<string>;
}

/** A {@link PictureStore} in a folder. Files appear whole or not at all: temporary name, fsync, rename. */
export class FolderPictureStore implements PictureStore {
  private readonly making = new Map<string, Promise<string>>();

  constructor(private readonly folder: string) {
    for (const f of ['pictures', 'derived']) {
      mkdirSync(join(folder, f), { recursive: true });
      this.sweep(join(folder, f));
    }
  }

  /** Removes what a process of this machine that is no longer running left half written. */
  private sweep(folder: string): void {
    const host = WRITER.slice(0, WRITER.lastIndexOf('-') + 1);
    for (const name of readdirSync(folder, { recursive: true }) as string[]) {
      const writer = /\.([a-zA-Z0-9]+-\d+)\.[0-9a-f-]+\.part$/.exec(name)?.[1];
      if (writer?.startsWith(host) && !isRunning(Number(writer.slice(host.length)))) rmSync(join(folder, name), { force: true });
    }
  }

  private path(sha256: string): string {
    if (!/^[0-9a-f]{64}$/.test(sha256)) throw new RangeError(`Got "${sha256}"; wanted a SHA-256 in hexadecimal.`);
    return join(this.folder, 'pictures', sha256.slice(0, 2), sha256);
  }

  private async writeWhole(path: string, bytes: Uint8Array): Promise<void> {
    await mkdir(dirname(path), { recursive: true });
    const part = `${path}.${WRITER}.${randomUUID()}.part`;
    const file = await open(part, 'wx');
    try {
      await file.writeFile(bytes);
      await file.sync();
      await file.close();
      await rename(part, path);
    } catch (error) {
      await file.close().catch(() => undefined);
      await rm(part, { force: true });
      throw error;
    }
  }

  async put(bytes: Uint8Array): Promise<string> {
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    if (!this.has(sha256)) await this.writeWhole(this.path(sha256), bytes);
    return sha256;
  }

  read(sha256: string): Promise<Buffer> {
    return readFile(this.path(sha256));
  }

  has(sha256: string): boolean {
    return existsSync(this.path(sha256));
  }

  async derived(name: string, make: () => Promise<Uint8Array>): Promise<string> {
    const path = join(this.folder, 'derived', name.slice(0, 2), name);
    if (existsSync(path)) return path;
    let making = this.making.get(name);
    if (!making) {
      making = make()
        .then(bytes => this.writeWhole(path, bytes))
        .then(() => path)
        .finally(() => this.making.delete(name));
      this.making.set(name, making);
    }
    return making;
  }
}
