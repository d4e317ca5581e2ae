import { startMariadb } from '/work/main/scripts/mariadb.ts';
import { spawnSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
const db = await startMariadb(mkdtempSync('/tmp/zinc-t-') + '/mariadb', true);
const r = spawnSync(
  'node',
  ['--import', 'tsx', 'node_modules/jasmine/bin/jasmine.js', `--config=${process.argv[2]}`, ...process.argv.slice(3)],
  { cwd: '/work/main', stdio: 'inherit', env: { ...process.env, ZINC_TEST_DB: db.adminUrl, ZINC_DEMO: undefined } },
);
await db.stop();
process.exit(r.status ?? 1);
