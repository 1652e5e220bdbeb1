import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: 'e2e',
  testMatch: '**/*.e2e.ts',
  globalSetup: './e2e/seed.ts',
  timeout: 480_000,
  // Small shared machines: a limit only ends what hangs, it never measures.
  expect: { timeout: 60_000 },
  workers: 2,
  retries: 0,
  reporter: [['list']],
  outputDir: 'test-results',
  use: {
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--headless',
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
