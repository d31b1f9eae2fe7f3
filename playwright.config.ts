import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/cluster.setup.ts',
  // Three keep two cores busy: each waits now and then. Each worker has a server, a database and instruments of its own (e2e/helpers.ts).
  workers: 3,
  // Limits are for what hangs: a busy machine is no failure.
  timeout: 120000,
  expect: { timeout: 20000 },
  // A second try on a busy machine is counted and named as such.
  retries: 1,
  reporter: [['list'], ['json', { outputFile: '.test/e2e.json' }]],
  outputDir: 'test-results',
  use: {
    actionTimeout: 30000,
    viewport: { width: 1280, height: 800 },
    // Requests answered by a service worker cannot be cut off by a test; the one that wants it allows it.
    serviceWorkers: 'block',
    trace: 'on-first-retry',
    launchOptions: {
      executablePath: '/usr/bin/chromium-headless-shell',
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
})
