import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { build, stop } from 'esbuild';

const root = fileURLToPath(new URL('..', import.meta.url));
const dist = join(root, 'dist');

function* sources(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true }).sort((p, q) => (p.name < q.name ? -1 : 1))) {
    if (['node_modules', 'dist', '.angular', 'test'].includes(entry.name)) continue;
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* sources(path);
    else if (!entry.name.endsWith('.spec.ts')) yield path;
  }
}

function fingerprintOfSources(): string {
  const hash = createHash('sha256').update(process.version);
  for (const folder of ['packages', 'apps'])
    for (const file of sources(join(root, folder))) {
      hash.update(file.slice(root.length));
      hash.update(readFileSync(file));
    }
  return hash.update(readFileSync(join(root, 'package-lock.json'))).digest('hex');
}

function npmPackages(app: string): string[] {
  const own = JSON.parse(readFileSync(join(root, 'apps', app, 'package.json'), 'utf8')) as {
    dependencies: Record<string, string>;
  };
  return Object.keys(own.dependencies).filter(d => !d.startsWith('@zinc/'));
}

async function bundle(app: string, entries: string[]): Promise<void> {
  await build({
    entryPoints: entries.map(e => join(root, 'apps', app, 'src', e)),
    entryNames: '[name]',
    outdir: join(dist, app),
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    sourcemap: true,
    external: [...npmPackages(app)],
    logLevel: 'error',
    banner: {
      js: "import { createRequire as __createRequire } from 'node:module'; const require = __createRequire(import.meta.url);",
    },
  });
}

/** Builds server, press and web application into dist/ when any source has changed since the last build. */
export async function buildAll(say: (line: string) => void = console.log): Promise<void> {
  const stamp = join(dist, '.stamp');
  const wanted = fingerprintOfSources();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  say('Building server, press and web application (about half a minute) …');
  rmSync(dist, { recursive: true, force: true });
  mkdirSync(dist, { recursive: true });
  await bundle('server', ['main.ts', 'shelf/pictureWorker.ts', 'demo/photoWorker.ts']);
  await bundle('press', ['main.ts', 'paintWorker.ts']);
  await stop();
  cpSync(join(root, 'apps/server/drizzle'), join(dist, 'server/drizzle'), { recursive: true });
  const ng = spawnSync(
    process.execPath,
    [join(root, 'node_modules/@angular/cli/bin/ng.js'), 'build', '--output-path', join(dist, 'web')],
    {
      cwd: join(root, 'apps/web'),
      encoding: 'utf8',
      env: { ...process.env, NG_CLI_ANALYTICS: 'false', CI: 'true' },
    },
  );
  if (ng.status !== 0) throw new Error(`The web application could not be built:\n${ng.stdout}${ng.stderr}`);
  writeFileSync(stamp, wanted);
}

if (process.argv[1] === fileURLToPath(import.meta.url)) await buildAll();
