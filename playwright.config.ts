import { defineConfig } from '@playwright/test';

const port = 4680;

export default defineConfig({
  testDir: 'e2e',
  workers: 1,
  timeout: 300_000,
  expect: { timeout: 60_000 },
  reporter: [['list'], ['json', { outputFile: '.cache/e2e.json' }]],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    // Recording every step takes a sixth of the time; what a failing test tells of its page stands in helpers.ts.
    trace: 'off',
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
    command: 'mkdir -p .cache && node scripts/demo.mjs --fresh > .cache/e2e-server.log 2>&1',
    url: `http://127.0.0.1:${port}/api/health`,
    timeout: 900_000,
    env: {
      OSIER_PORT: String(port),
      OSIER_OUTSIDE_PORT: '4691',
      OSIER_DATA: '.cache/e2e-data',
      OSIER_NIGHT_HOUR: 'off',
    },
    reuseExistingServer: false,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 5000 },
  },
});
