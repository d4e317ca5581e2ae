import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  createReadStream,
  createWriteStream,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { fileURLToPath } from 'node:url';
import mysql, { type RowDataPacket } from 'mysql2/promise';
import { startMariadb } from './mariadb.ts';

/** What a backup says of itself. */
interface Manifest {
  backup: 1;
  pictures: number;
  /** SHA-256 of the dump. */
  dump: string;
}

async function sha256Of(file: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const chunk of createReadStream(file)) hash.update(chunk as Buffer);
  return hash.digest('hex');
}

function tar(args: string[]): void {
  const done = spawnSync('tar', args, { encoding: 'utf8' });
  if (done.status !== 0) throw new Error(`tar ended with ${done.status}: ${done.stderr.trim()}`);
}

/** A client of the database for a program of MariaDB's own, which is not told the password on its command line. */
function clientOf(url: string, folder: string): { args: string[]; name: string } {
  const { hostname, port, username, password, pathname } = new URL(url);
  const file = join(folder, 'client.cnf');
  writeFileSync(file, `[client]\nhost=${hostname}\nport=${port}\nuser=${username}\npassword=${password}\n`, { mode: 0o600 });
  return { args: [`--defaults-file=${file}`], name: pathname.slice(1) };
}

/** Where the house's database answers: named by the environment, running beside the house, or started for this. */
async function databaseOf(data: string): Promise<{ url: string; stop(): Promise<void> }> {
  if (process.env.ZINC_DB_URL) return { url: process.env.ZINC_DB_URL, stop: () => Promise.resolve() };
  const address = join(data, 'mariadb', 'address');
  if (existsSync(address)) {
    const url = readFileSync(address, 'utf8');
    try {
      await (await mysql.createConnection(url)).end();
      return { url, stop: () => Promise.resolve() };
    } catch {
      // The house is not running: its database is started for the backup.
    }
  }
  return startMariadb(join(data, 'mariadb'));
}

/** Every picture file under a folder, by the hash it is named by. */
function pictureFiles(folder: string): string[] {
  if (!existsSync(folder)) return [];
  return (readdirSync(folder, { recursive: true }) as string[]).filter(f => /(^|\/)[0-9a-f]{64}$/.test(f));
}

/**
 * Writes a house into one file: a dump of its database, consistent in itself, then every picture. Pictures are only ever added, so the house
 * may go on working. Returns how many pictures are in it.
 */
export async function backupHouse(data: string, file: string): Promise<number> {
  if (existsSync(file)) throw new Error(`${file} is there already; name another file, or take it away first.`);
  mkdirSync(dirname(resolve(file)), { recursive: true });
  const pictures = join(data, 'house', 'pictures');
  const work = mkdtempSync(join(data, '.backup-'));
  const database = await databaseOf(data);
  try {
    const { args, name } = clientOf(database.url, work);
    const dump = join(work, 'house.sql');
    const child = spawn('mariadb-dump', [...args, '--single-transaction', '--hex-blob', '--skip-dump-date', name], {
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    const ended = new Promise<number | null>(done => child.once('exit', done));
    await pipeline(child.stdout, createWriteStream(dump, { mode: 0o600 }));
    if ((await ended) !== 0) throw new Error('The database could not be written out; the message of mariadb-dump is above.');
    const manifest: Manifest = { backup: 1, pictures: pictureFiles(pictures).length, dump: await sha256Of(dump) };
    writeFileSync(join(work, 'manifest.json'), JSON.stringify(manifest));
    mkdirSync(pictures, { recursive: true });
    // Written under another name first: a file of this name is a whole backup.
    tar([
      '-czf',
      `${file}.part`,
      '-C',
      work,
      'manifest.json',
      'house.sql',
      '-C',
      join(data, 'house'),
      '--exclude=*.part',
      'pictures',
    ]);
    renameSync(`${file}.part`, file);
    return manifest.pictures;
  } finally {
    await database.stop();
    rmSync(work, { recursive: true, force: true });
    rmSync(`${file}.part`, { force: true });
  }
}

/**
 * Makes a house of a backup in a data folder that holds none yet, and checks that every picture the database knows is there and is what its
 * name says. Returns how many pictures there are.
 */
export async function restoreHouse(file: string, data: string): Promise<number> {
  if (existsSync(join(data, 'mariadb', 'data')) || existsSync(join(data, 'house')))
    throw new Error(
      `${data} holds a house already. Restore into an empty folder: ZINC_DATA=/some/folder npm run restore -- ${file}`,
    );
  if (!existsSync(file)) throw new Error(`There is no file ${file}.`);
  mkdirSync(data, { recursive: true });
  const work = mkdtempSync(join(data, '.restore-'));
  try {
    tar(['-xzf', file, '-C', work]);
    const manifest = JSON.parse(readFileSync(join(work, 'manifest.json'), 'utf8')) as Manifest;
    if (manifest.backup !== 1)
      throw new Error(`This backup is of version ${String(manifest.backup)}; this house reads version 1.`);
    const dump = join(work, 'house.sql');
    if ((await sha256Of(dump)) !== manifest.dump)
      throw new Error('The dump in this backup is damaged: its hash is not the one it was written with.');
    mkdirSync(join(data, 'house'), { recursive: true });
    renameSync(join(work, 'pictures'), join(data, 'house', 'pictures'));
    const database = await startMariadb(join(data, 'mariadb'));
    try {
      const { args, name } = clientOf(database.url, work);
      const child = spawn('mariadb', [...args, name], { stdio: ['pipe', 'inherit', 'inherit'] });
      const ended = new Promise<number | null>(done => child.once('exit', done));
      await pipeline(createReadStream(dump), child.stdin);
      if ((await ended) !== 0) throw new Error('The database could not be read in; the message of mariadb is above.');
      return await checkPictures(database.url, join(data, 'house', 'pictures'));
    } finally {
      await database.stop();
    }
  } finally {
    rmSync(work, { recursive: true, force: true });
  }
}

async function checkPictures(url: string, folder: string): Promise<number> {
  const connection = await mysql.createConnection(url);
  try {
    const [rows] = await connection.query<(RowDataPacket & { sha256: string; working: string })[]>(
      'select sha256, working from pictures',
    );
    const known = new Set(rows.flatMap(r => [r.sha256, r.working]));
    for (const sha256 of known) {
      const path = join(folder, sha256.slice(0, 2), sha256);
      if (!existsSync(path)) throw new Error(`The picture ${sha256} is in the database but not in the backup.`);
      if ((await sha256Of(path)) !== sha256) throw new Error(`The picture ${sha256} is damaged.`);
    }
    return known.size;
  } finally {
    await connection.end();
  }
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const [file] = process.argv.slice(2);
  const data = resolve(process.env.ZINC_DATA ?? fileURLToPath(new URL('../.zinc', import.meta.url)));
  try {
    if (!file) throw new Error('Say which file: npm run backup -- house.tar.gz');
    const pictures = await backupHouse(data, resolve(file));
    console.log(`${file} holds the house, with ${pictures} picture files.`);
  } catch (error) {
    console.error((error as Error).message);
    process.exit(1);
  }
}
