import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { buildAll } from './build.ts';
import { ensureProgram } from './debian.ts';
import { startMariadb, type RunningDatabase } from './mariadb.ts';

const root = fileURLToPath(new URL('..', import.meta.url));
const jasmine = ['--import', 'tsx', 'node_modules/jasmine/bin/jasmine.js'];

interface Suite {
  name: string;
  says: string;
  command: string[];
  cwd?: string;
  /** Suites of a lane run one after the other, the two lanes side by side; those without one have the machine to themselves. */
  lane?: 1 | 2;
  /** Reads how many passed and failed from the end of what was printed; null when no count is printed. */
  count(output: string): { passed: number; failed: number } | null;
}

function countJasmine(output: string): { passed: number; failed: number } | null {
  const m = [...output.matchAll(/(\d+) specs?, (\d+) failures?(?:, (\d+) pending)?/g)].at(-1);
  return m ? { passed: Number(m[1]) - Number(m[2]) - Number(m[3] ?? 0), failed: Number(m[2]) } : null;
}
function countKarma(output: string): { passed: number; failed: number } | null {
  const m = [...output.matchAll(/Executed (\d+) of (\d+)(?: \((\d+) FAILED\))?/g)].at(-1);
  return m ? { passed: Number(m[1]) - Number(m[3] ?? 0), failed: Number(m[3] ?? 0) } : null;
}
function countPlaywright(output: string): { passed: number; failed: number } | null {
  const of = (word: string): number => Number(new RegExp(`(\\d+) ${word}`).exec(output)?.[1] ?? 0);
  return /\d+ (passed|failed)/.test(output) ? { passed: of('passed'), failed: of('failed') + of('did not run') } : null;
}
const noCount = (): null => null;

const suites: Suite[] = [
  { name: 'lint', says: 'Lint', lane: 1, command: ['node_modules/eslint/bin/eslint.js', '.'], count: noCount },
  {
    name: 'format',
    lane: 1,
    says: 'Formatting',
    command: ['node_modules/prettier/bin/prettier.cjs', '--check', '--log-level', 'warn', '.'],
    count: noCount,
  },
  { name: 'types', says: 'Types', lane: 1, command: ['--import', 'tsx', 'scripts/typecheck.ts'], count: noCount },
  {
    name: 'unit',
    lane: 1,
    says: 'Unit tests of the core, the subjects and the contract',
    command: [...jasmine, '--config=jasmine.unit.json'],
    count: countJasmine,
  },
  {
    name: 'press',
    lane: 1,
    says: 'Press conformance',
    command: [...jasmine, '--config=jasmine.press.json'],
    count: countJasmine,
  },
  {
    name: 'api',
    lane: 2,
    says: 'API against a real MariaDB',
    command: [...jasmine, '--config=jasmine.api.json'],
    count: countJasmine,
  },
  {
    name: 'web',
    lane: 1,
    says: 'Web unit tests in Chromium',
    command: ['../../node_modules/@angular/cli/bin/ng.js', 'test'],
    cwd: 'apps/web',
    count: countKarma,
  },
  {
    name: 'e2e',
    says: 'End to end in Chromium',
    command: ['../node_modules/@playwright/test/cli.js', 'test'],
    cwd: 'e2e',
    count: countPlaywright,
  },
];

/** Runs one suite; what it prints is shown as it comes, or at its end when another prints at the same time. */
function run(suite: Suite, env: NodeJS.ProcessEnv): Promise<{ code: number; output: string }> {
  return new Promise(resolve => {
    const child = spawn(process.execPath, suite.command, {
      cwd: join(root, suite.cwd ?? '.'),
      env,
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    let output = '';
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (chunk: Buffer) => {
        output += chunk.toString();
        if (!suite.lane) process.stdout.write(chunk);
      });
    child.on('exit', code => {
      if (suite.lane) console.log(`\n== ${suite.says}\n${output.trimEnd()}`);
      resolve({ code: code ?? 1, output });
    });
  });
}

async function carryOut(suite: Suite, env: NodeJS.ProcessEnv): Promise<void> {
  const started = Date.now();
  const { code, output } = await run(suite, env);
  times.push(`${suite.name} ${Math.round((Date.now() - started) / 1000)} s`);
  const counted = suite.count(output);
  if (counted) {
    passed += counted.passed;
    failed += counted.failed;
    // A runner that fails without a failed test (a crash, an import that breaks) is a failure all the same.
    if (code !== 0 && counted.failed === 0) failed++;
    if (counted.passed + counted.failed === 0) failed++;
  } else if (code === 0 && suite.count === noCount) passed++;
  else failed++;
}

const wanted = process.argv.slice(2);
const unknown = wanted.find(w => !suites.some(s => s.name === w));
if (unknown) {
  console.error(`There is no suite "${unknown}"; there are ${suites.map(s => s.name).join(', ')}.`);
  process.exit(2);
}
const chosen = suites.filter(s => wanted.length === 0 || wanted.includes(s.name));
const needs = (name: string): boolean => chosen.some(s => s.name === name);
const folder = mkdtempSync(join(tmpdir(), 'zinc-test-'));
let database: RunningDatabase | null = null;
let passed = 0;
let failed = 0;
const times: string[] = [];
try {
  const env: NodeJS.ProcessEnv = {
    ...process.env,
    NG_CLI_ANALYTICS: 'false',
    FORCE_COLOR: '0',
    NO_COLOR: '1',
    ZINC_DEMO: undefined,
    ZINC_DB_URL: undefined,
    ZINC_PRESS_URL: undefined,
  };
  if (needs('web') || needs('e2e')) env.CHROME_BIN = ensureProgram('chromium', 'chromium');
  if (needs('api')) {
    database = await startMariadb(join(folder, 'mariadb'), true);
    env.ZINC_TEST_DB = database.adminUrl;
  }
  const lane = async (number: 1 | 2): Promise<void> => {
    for (const suite of chosen.filter(c => c.lane === number)) await carryOut(suite, env);
  };
  await Promise.all([lane(1), lane(2)]);
  for (const suite of chosen.filter(c => !c.lane)) {
    console.log(`\n== ${suite.says}`);
    if (suite.name === 'e2e') await buildAll();
    await carryOut(suite, env);
  }
} catch (error) {
  console.error((error as Error).message);
  failed++;
} finally {
  await database?.stop();
  rmSync(folder, { recursive: true, force: true });
}
console.log(`\n${times.join(', ')}`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
