import { chromium, type Browser } from '@playwright/test';
import { ensureProgram } from './debian.ts';

/** Flags that keep Debian's Chromium quiet and able to run as root. */
export const CHROMIUM_FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--no-first-run',
  '--disable-quic',
];

/** Debian's headless Chromium, installed when it is missing. */
export function launchChromium(): Promise<Browser> {
  return chromium.launch({ executablePath: ensureProgram('chromium', 'chromium'), args: CHROMIUM_FLAGS });
}
