import { defineConfig } from '@playwright/test';
import { chromiumPath } from './scripts/lib/chromium.mjs';

export default defineConfig({
  testDir: 'tests',
  globalSetup: './tests/support/prepare.ts',
  workers: 2,
  fullyParallel: false,
  // A machine that is busy takes three times as long; what hangs, hangs for good.
  timeout: 300_000,
  expect: { timeout: 30_000 },
  forbidOnly: !!process.env.CI,
  reporter: [['list']],
  outputDir: 'test-results',
  use: {
    viewport: { width: 1280, height: 800 },
    // Recording takes a quarter of the time: asked for where a test is looked into.
    trace: process.env.TRACE ? 'retain-on-failure' : 'off',
    screenshot: 'only-on-failure',
    serviceWorkers: 'block',
    // Nothing is looked at while it fades.
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      executablePath: chromiumPath(),
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
