// Type-checks every part of the repository; stops at the first that fails.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

const projects = [
  'packages/kernels',
  'packages/core',
  'packages/scenes',
  'packages/contract',
  'apps/press',
  'apps/server',
  'scripts',
  'e2e',
  'bench',
  'apps/web/tsconfig.worker.json',
];
for (const project of projects) {
  if (!existsSync(project)) continue;
  const tsc = spawnSync(process.execPath, ['node_modules/typescript/bin/tsc', '-p', project, '--noEmit'], { stdio: 'inherit' });
  if (tsc.status !== 0) process.exit(tsc.status ?? 1);
}
