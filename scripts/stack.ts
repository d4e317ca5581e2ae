import { spawn, type ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, openSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { freePort, startMariadb, type RunningDatabase } from './mariadb.ts';

const root = fileURLToPath(new URL('..', import.meta.url));

/** A program that is started again when it dies by itself. */
class Kept {
  private child: ChildProcess | null = null;
  private stopping = false;
  private readonly starts: number[] = [];

  constructor(
    private readonly name: string,
    private readonly file: string,
    private readonly env: Record<string, string | undefined>,
    private readonly logFile: string,
    private readonly onGiveUp: (message: string) => void,
  ) {}

  start(): ChildProcess {
    const log = openSync(this.logFile, 'a');
    this.starts.push(Date.now());
    // A group of its own: Ctrl-C reaches the starter alone, which stops everything in order.
    const child = spawn(process.execPath, ['--enable-source-maps', this.file], {
      env: { ...process.env, ...this.env },
      stdio: ['ignore', log, log, 'ipc'],
      detached: true,
    });
    this.child = child;
    child.once('exit', code => {
      if (this.stopping) return;
      if (code === 2 || this.starts.filter(s => Date.now() - s < 60_000).length > 5)
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

export interface Stack {
  url: string;
  databaseUrl: string;
  press: { url: string; token: string };
  pids: { server?: number; press?: number };
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
  demo: boolean;
  forTests?: boolean;
  misbehave?: boolean;
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
    let databaseUrl = process.env.ZINC_DB_URL;
    if (!databaseUrl) {
      say('Starting MariaDB on loopback …');
      const database: RunningDatabase = await startMariadb(join(data, 'mariadb'), options.forTests);
      stops.push(() => database.stop());
      databaseUrl = database.url;
    }
    let pressUrl = process.env.ZINC_PRESS_URL;
    const pressToken = process.env.ZINC_PRESS_TOKEN ?? secretOf(join(data, 'press-token'));
    const pids: Stack['pids'] = {};
    if (!pressUrl) {
      say('Starting the house press …');
      const port = await freePort();
      pressUrl = `http://127.0.0.1:${port}`;
      const env = {
        ZINC_PRESS_PORT: String(port),
        ZINC_PRESS_DATA: join(data, 'press'),
        ZINC_PRESS_TOKEN: pressToken,
        ZINC_PRESS_MISBEHAVE: options.misbehave ? 'on' : 'off',
      };
      const press = new Kept('The press', join(root, 'dist/press/main.js'), env, join(data, 'press.log'), options.onGiveUp);
      pids.press = press.start().pid;
      stops.push(() => press.stop());
    }
    say('Starting the server …');
    const env = {
      ZINC_PORT: String(options.port),
      ZINC_DATA: data,
      ZINC_DB_URL: databaseUrl,
      ZINC_PRESS_URL: pressUrl,
      ZINC_PRESS_TOKEN: pressToken,
      ZINC_SECRET: process.env.ZINC_SECRET ?? secretOf(join(data, 'session-secret')),
      ZINC_DEMO: options.demo ? 'on' : 'off',
    };
    const logFile = join(data, 'server.log');
    const server = new Kept('The server', join(root, 'dist/server/main.js'), env, logFile, options.onGiveUp);
    const child = server.start();
    pids.server = child.pid;
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
    return { url: `http://127.0.0.1:${port}`, databaseUrl, press: { url: pressUrl, token: pressToken }, pids, stop };
  } catch (error) {
    await stop();
    throw error;
  }
}
