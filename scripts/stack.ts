import { spawn, type ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, openSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { freePort, startMariadb, type RunningDatabase } from './mariadb.ts';

const root = fileURLToPath(new URL('..', import.meta.url));

/** A program that lives this long has started well; one that dies so often before it is given up. */
const STAYS_UP_MS = 4000;
const MOST_EARLY = 5;

/** A program that is started again when it dies by itself. */
class Kept {
  private child: ChildProcess | null = null;
  private stopping = false;
  /** How often in a row it died right after its start. */
  private early = 0;

  constructor(
    private readonly name: string,
    private readonly file: string,
    private readonly env: Record<string, string | undefined>,
    private readonly logFile: string,
    private readonly onGiveUp: (message: string) => void,
  ) {}

  start(): ChildProcess {
    const log = openSync(this.logFile, 'a');
    const started = Date.now();
    // A group of its own: Ctrl-C reaches the starter alone, which stops everything in order.
    const child = spawn(process.execPath, ['--enable-source-maps', this.file], {
      env: { ...process.env, ...this.env },
      stdio: ['ignore', log, log, 'ipc'],
      detached: true,
    });
    this.child = child;
    child.once('exit', code => {
      if (this.stopping) return;
      this.early = Date.now() - started < STAYS_UP_MS ? this.early + 1 : 0;
      if (code === 2 || this.early >= MOST_EARLY)
        return this.onGiveUp(`${this.name} does not stay up; its log is ${this.logFile}`);
      setTimeout(() => !this.stopping && this.start(), 500);
    });
    return child;
  }

  get pid(): number | undefined {
    return this.child?.pid;
  }

  async stop(): Promise<void> {
    this.stopping = true;
    const { child } = this;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const gone = new Promise<void>(resolve => child.once('exit', () => resolve()));
    child.kill('SIGTERM');
    const timer = setTimeout(() => child.kill('SIGKILL'), 8000);
    await gone;
    clearTimeout(timer);
  }
}

/** A database that is started again, at the same address, when it dies by itself; InnoDB recovers what was committed. */
class KeptDatabase {
  private running: RunningDatabase | null = null;
  private stopping = false;

  constructor(
    private readonly folder: string,
    private readonly options: Pick<StackOptions, 'forTests' | 'onGiveUp'>,
  ) {}

  get pid(): number | undefined {
    return this.running?.process.pid;
  }

  async start(port?: number): Promise<string> {
    const started = await startMariadb(this.folder, this.options.forTests, port);
    this.running = started;
    started.process.once('exit', () => {
      if (this.stopping) return;
      const { port: same } = new URL(started.url);
      this.start(Number(same)).catch((error: Error) => this.options.onGiveUp(`The database does not stay up. ${error.message}`));
    });
    return started.url;
  }

  async stop(): Promise<void> {
    this.stopping = true;
    await this.running?.stop();
  }
}

export interface Stack {
  url: string;
  databaseUrl: string;
  press: { url: string; token: string; second?: string };
  /** Process ids as they are now: what dies is started again under another. */
  pids: Partial<Record<'server' | 'press' | 'database', () => number | undefined>>;
  stop(): Promise<void>;
}

function secretOf(file: string): string {
  if (!existsSync(file)) {
    writeFileSync(file, randomBytes(24).toString('hex'));
    chmodSync(file, 0o600);
  }
  return readFileSync(file, 'utf8');
}

export interface StackOptions {
  data: string;
  port: number;
  /** The demo house: all of it, without the runs made in the background, or none. */
  demo: 'on' | 'small' | 'off';
  forTests?: boolean;
  misbehave?: boolean;
  /** A second press beside the house's own, that no house knows of yet. */
  secondPress?: boolean;
  say(line: string): void;
  onGiveUp(message: string): void;
}

/** Starts database, press and server (each only when the environment does not name another) and waits until the server answers. */
export async function startStack(options: StackOptions): Promise<Stack> {
  const { data, say } = options;
  mkdirSync(data, { recursive: true });
  const stops: (() => Promise<void>)[] = [];
  const stop = async (): Promise<void> => {
    while (stops.length > 0) await stops.pop()!();
  };
  try {
    const pids: Stack['pids'] = {};
    let databaseUrl = process.env.ZINC_DB_URL;
    if (!databaseUrl) {
      say('Starting MariaDB on loopback …');
      const database = new KeptDatabase(join(data, 'mariadb'), options);
      databaseUrl = await database.start();
      pids.database = () => database.pid;
      stops.push(() => database.stop());
    }
    let pressUrl = process.env.ZINC_PRESS_URL;
    const pressToken = process.env.ZINC_PRESS_TOKEN ?? secretOf(join(data, 'press-token'));
    const startPress = async (name: string): Promise<{ url: string; press: Kept }> => {
      const port = await freePort();
      const env = {
        ZINC_PRESS_PORT: String(port),
        ZINC_PRESS_DATA: join(data, name),
        ZINC_PRESS_TOKEN: pressToken,
        ZINC_PRESS_MISBEHAVE: options.misbehave ? 'on' : 'off',
      };
      const press = new Kept('The press', join(root, 'dist/press/main.js'), env, join(data, `${name}.log`), options.onGiveUp);
      press.start();
      stops.push(() => press.stop());
      return { url: `http://127.0.0.1:${port}`, press };
    };
    if (!pressUrl) {
      say('Starting the house press …');
      const { url, press } = await startPress('press');
      pressUrl = url;
      pids.press = () => press.pid;
    }
    const second = options.secondPress ? (await startPress('second-press')).url : undefined;
    say('Starting the server …');
    const env = {
      ZINC_PORT: String(options.port),
      ZINC_DATA: data,
      ZINC_DB_URL: databaseUrl,
      ZINC_PRESS_URL: pressUrl,
      ZINC_PRESS_TOKEN: pressToken,
      ZINC_SECRET: process.env.ZINC_SECRET ?? secretOf(join(data, 'session-secret')),
      ZINC_DEMO: options.demo,
      // Tests make presses go wrong on purpose, and do not wait for them to be asked again.
      ...(options.forTests ? { ZINC_PRESS_REST: '0' } : {}),
    };
    const logFile = join(data, 'server.log');
    const server = new Kept('The server', join(root, 'dist/server/main.js'), env, logFile, options.onGiveUp);
    const child = server.start();
    pids.server = () => server.pid;
    stops.push(() => server.stop());
    const port = await new Promise<number>((resolve, reject) => {
      child.once('message', message => resolve((message as { ready: number }).ready));
      child.once('exit', () =>
        reject(
          new Error(
            `The server did not start; the end of its log (${logFile}):\n${readFileSync(logFile, 'utf8').split('\n').slice(-12).join('\n')}`,
          ),
        ),
      );
    });
    return { url: `http://127.0.0.1:${port}`, databaseUrl, press: { url: pressUrl, token: pressToken, second }, pids, stop };
  } catch (error) {
    await stop();
    throw error;
  }
}
