import { mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { hostname, tmpdir } from 'node:os';
import { join } from 'node:path';
import { FolderPictureStore } from './pictureStore.ts';

describe('the picture folder', () => {
  let folder: string;
  beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'pictures-'))));
  afterEach(() => rmSync(folder, { recursive: true }));

  it('is swept at the start of what a dead process left half written, and of nothing else', () => {
    const host = hostname().replace(/[^a-zA-Z0-9]/g, '');
    const id = '23b9c847-c811-49b6-8d9e-e95d536107b9';
    const inside = join(folder, 'pictures', 'ab');
    mkdirSync(inside, { recursive: true });
    // No process has a number this high; number 1 always runs.
    const dead = `abc.${host}-4194999.${id}.part`;
    const alive = `abc.${host}-1.${id}.part`;
    const elsewhere = `abc.another${host}-4194999.${id}.part`;
    for (const name of [dead, alive, elsewhere, 'abc']) writeFileSync(join(inside, name), 'x');
    new FolderPictureStore(folder);
    expect(readdirSync(inside).sort()).toEqual(['abc', alive, elsewhere].sort());
  });
});
