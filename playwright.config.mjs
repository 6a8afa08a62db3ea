import { defineConfig } from '@playwright/test';
import { browserPath } from './scripts/lib.mjs';

export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.spec.ts',
  outputDir: 'test-results',
  workers: 1,
  // What is waited for is an event; a busy machine may take long to come to it.
  timeout: 600_000,
  expect: { timeout: 120_000 },
  reporter: [['list']],
  globalSetup: './e2e/start.mjs',
  use: {
    baseURL: process.env.LAMBENT_ADDRESS,
    viewport: { width: 1280, height: 800 },
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: browserPath(),
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
