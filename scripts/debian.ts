import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

const PATHS = ['/usr/sbin', '/usr/bin', '/usr/local/bin', '/usr/local/sbin'];

/** Where a program is, or null. */
export function findProgram(name: string): string | null {
  return [...PATHS, ...(process.env.PATH ?? '').split(':')].map(p => `${p}/${name}`).find(existsSync) ?? null;
}

function run(command: string, args: string[]): boolean {
  return (
    spawnSync(command, args, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    }).status === 0
  );
}

/** Gives the path of a program, installing the Debian package that holds it when it is missing. Says plainly when it cannot. */
export function ensureProgram(name: string, debianPackage: string): string {
  const found = findProgram(name);
  if (found) return found;
  console.log(`Installing the Debian package ${debianPackage} …`);
  const root = process.getuid?.() === 0;
  const apt = (args: string[]): boolean =>
    root ? run('apt-get', args) : run('sudo', ['-n', 'DEBIAN_FRONTEND=noninteractive', 'apt-get', ...args]);
  const wait = ['-o', 'DPkg::Lock::Timeout=300'];
  const install = ['install', '-y', '-qq', '--no-install-recommends', ...wait, debianPackage];
  // Package lists may be missing or old on a fresh machine.
  if (findProgram('apt-get') && apt([...wait, '-qq', 'update'])) apt(install);
  const now = findProgram(name);
  if (now) return now;
  throw new Error(
    `Zinc Shelf needs the program ${name} from the Debian package ${debianPackage}, and could not install it. Run: apt-get install ${debianPackage}`,
  );
}
