// Type-checks the whole repository in few programs, for what all parts share is read once in each; stops at the first that fails.
// The pages themselves are checked when they are built.
import { spawnSync } from 'node:child_process';

for (const project of ['tsconfig.json', 'tsconfig.tools.json', 'apps/web/tsconfig.worker.json']) {
  const tsc = spawnSync(process.execPath, ['node_modules/typescript/bin/tsc', '-p', project, '--noEmit'], { stdio: 'inherit' });
  if (tsc.status !== 0) process.exit(tsc.status ?? 1);
}
