import { defineConfig } from '@playwright/test'

const port = Number(process.env.E2E_PORT ?? 4691)

export default defineConfig({
  testDir: 'e2e',
  fullyParallel: false,
  workers: 1,
  timeout: 60000,
  expect: { timeout: 10000 },
  // A second try on a busy machine is counted and named as such.
  retries: 1,
  reporter: [['list'], ['json', { outputFile: '.test/e2e.json' }]],
  outputDir: 'test-results',
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    actionTimeout: 15000,
    viewport: { width: 1280, height: 800 },
    // Requests answered by a service worker cannot be cut off by a test; the one that wants it allows it.
    serviceWorkers: 'block',
    trace: 'on-first-retry',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
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
  webServer: {
    command: 'node scripts/e2e-server.mjs',
    url: `http://127.0.0.1:${port}/api/v1/health`,
    env: { E2E_PORT: String(port) },
    timeout: 60000,
    reuseExistingServer: false,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 5000 },
  },
})
