import { defineConfig } from '@playwright/test';

/**
 * Three libraries with their servers, and the journeys shared out among them: those in one library go one after the other, in the order of their files.
 * Which is whose is told by the first two; all others are in the third, a file added later too. A journey waits for a part of its time, so there is
 * one more than the processors of a small machine.
 */
const FIRST = /\/(headings|journey)\.spec\.ts$/;
const SECOND = /\/(copies|find|find-lists|looks)\.spec\.ts$/;
const LIBRARIES = [
  { name: 'one', port: 4680, outside: 4691, testMatch: FIRST },
  { name: 'two', port: 4681, outside: 4711, testMatch: SECOND },
  { name: 'three', port: 4682, outside: 4731, testIgnore: [FIRST, SECOND] },
];

export default defineConfig({
  testDir: 'e2e',
  workers: LIBRARIES.length,
  timeout: 300_000,
  expect: { timeout: 60_000 },
  reporter: [['list'], ['json', { outputFile: '.cache/e2e.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    // Recording every step takes a sixth of the time; what a failing test tells of its page stands in helpers.ts.
    trace: 'off',
    // Nothing moves for those who ask for it, and nothing is waited for.
    contextOptions: { reducedMotion: 'reduce' },
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
  projects: LIBRARIES.map(({ name, port, outside: _, ...files }) => ({
    name,
    ...files,
    workers: 1,
    use: { baseURL: `http://127.0.0.1:${port}` },
  })),
  webServer: LIBRARIES.map(({ name, port, outside }) => ({
    command: `mkdir -p .cache && node scripts/demo.mjs --fresh > .cache/e2e-server-${name}.log 2>&1`,
    url: `http://127.0.0.1:${port}/api/health`,
    timeout: 900_000,
    env: {
      OSIER_PORT: String(port),
      OSIER_OUTSIDE_PORT: String(outside),
      OSIER_DATA: `.cache/e2e-data-${name}`,
      OSIER_NIGHT_HOUR: 'off',
    },
    reuseExistingServer: false,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 5000 },
  })),
});
