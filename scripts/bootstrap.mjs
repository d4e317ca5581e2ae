// The first step of every command: it runs on a machine that has only Node and npm, so it is plain JavaScript and uses no package.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmdirSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const [major, minor] = process.versions.node.split('.').map(Number);
if (major < 20 || (major === 20 && minor < 19)) {
  console.error(
    `Zinc Shelf needs Node 20.19 or newer; this is ${process.version}. Install a newer Node, then run the same command.`,
  );
  process.exit(2);
}

const stamp = join(root, 'node_modules', '.zinc-lock');
const wanted = createHash('sha256')
  .update(readFileSync(join(root, 'package-lock.json')))
  .digest('hex');
const installed = () => existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted;

if (!installed()) {
  const lock = join(root, '.zinc', 'setup.lock');
  mkdirSync(dirname(lock), { recursive: true });
  for (;;) {
    try {
      mkdirSync(lock);
      break;
    } catch {
      // Another command of this checkout is installing. A lock older than ten minutes was left by one that was killed.
      if (Date.now() - statSync(lock, { throwIfNoEntry: false })?.mtimeMs > 600_000) rmdirSync(lock);
      spawnSync(process.execPath, ['-e', 'setTimeout(() => {}, 500)']);
      if (installed()) break;
    }
  }
  try {
    if (!installed()) {
      console.log('Installing npm packages (about a minute) …');
      const npm = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { cwd: root, stdio: 'inherit' });
      if (npm.status !== 0) {
        console.error('npm could not install the packages; its message is above. Mend that, then run the same command.');
        process.exitCode = npm.status ?? 1;
      } else writeFileSync(stamp, wanted);
    }
  } finally {
    if (existsSync(lock)) rmdirSync(lock);
  }
  if (process.exitCode) process.exit();
}

const command = process.argv[2];
const child = spawn(process.execPath, ['--import', 'tsx', join(root, 'scripts', `${command}.ts`), ...process.argv.slice(3)], {
  cwd: root,
  stdio: 'inherit',
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
child.on('exit', (code, signal) => process.exit(code ?? (signal === 'SIGINT' ? 130 : 1)));
