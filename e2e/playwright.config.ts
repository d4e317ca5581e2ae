import { existsSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { defineConfig } from '@playwright/test';

function freePort(): Promise<number> {
  return new Promise(resolve => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => resolve(port));
    });
  });
}

// The configuration is read again in every worker: what the first reading chose is handed on in the environment.
process.env.ZINC_E2E_DEMO ??= String(await freePort());
process.env.ZINC_E2E_EMPTY ??= String(await freePort());
process.env.ZINC_E2E_PRESS ??= join(tmpdir(), `zinc-e2e-press-${process.pid}.json`);
const chromium = process.env.CHROME_BIN ?? ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find(existsSync);

const house = (port: string, kind: string, file: string) => ({
  command: `node --import tsx ../scripts/testStack.ts ${port} ${kind} ${file}`,
  url: `http://127.0.0.1:${port}/api/health`,
  timeout: 180_000,
  gracefulShutdown: { signal: 'SIGTERM' as const, timeout: 15_000 },
  stdout: 'ignore' as const,
});

export default defineConfig({
  testDir: './tests',
  outputDir: './out',
  // Two cores: the press needs one.
  workers: 1,
  timeout: 240_000,
  expect: { timeout: 20_000 },
  reporter: [['list']],
  use: {
    // What is not there is told soon, and not at the end of the test.
    actionTimeout: 45_000,
    baseURL: `http://127.0.0.1:${process.env.ZINC_E2E_DEMO}`,
    viewport: { width: 1280, height: 800 },
    trace: 'off',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: chromium,
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
        '--disable-quic',
      ],
    },
  },
  webServer: [
    house(process.env.ZINC_E2E_DEMO, 'demo', process.env.ZINC_E2E_PRESS),
    house(process.env.ZINC_E2E_EMPTY, 'empty', `${process.env.ZINC_E2E_PRESS}.empty`),
  ],
});
