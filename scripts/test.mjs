// `npm test`: installs what is missing, then types, lint, Jest, Playwright. Ends with `N passed, N failed`.
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureInstalled, root, run } from './install.mjs';
import { step } from './say.mjs';
import { ensureSystemPackages } from './system-packages.mjs';

const bin = (name) => join(root, 'node_modules', '.bin', name);
const results = join(root, 'test-results');
let passed = 0;
let failed = 0;

async function check(what, command, args) {
  const code = await step(what, () => run(command, args));
  if (code === 0) passed++;
  else failed++;
}

/** Reads a runner's own count; a runner that left none, or ran nothing, counts as failed. */
function count(file, read) {
  const path = join(results, file);
  const found = existsSync(path) ? read(JSON.parse(readFileSync(path, 'utf8'))) : { passed: 0, failed: 1 };
  passed += found.passed;
  failed += found.failed + (found.passed + found.failed === 0 ? 1 : 0);
}

try {
  await ensureInstalled();
  ensureSystemPackages();
  rmSync(results, { recursive: true, force: true });
  rmSync(join(root, '.cache/e2e.json'), { force: true });
  mkdirSync(results, { recursive: true });
  await Promise.all([
    check('Checking types', bin('oxlint'), []),
    check('Linting', bin('eslint'), ['.', '--max-warnings', '0']),
  ]);
  const jest = await step('Running the unit and HTTP tests', () =>
    run(bin('jest'), ['--json', `--outputFile=${join(results, 'jest.json')}`]),
  );
  count('jest.json', (r) => ({
    passed: r.numPassedTests,
    failed: r.numFailedTests + r.numPendingTests + r.numRuntimeErrorTestSuites,
  }));
  const e2e = await step('Walking through the real interface', () =>
    run(bin('playwright'), ['test'], {
      env: { ...process.env, OSIER_LAID: join(root, '.cache/test-library') },
    }),
  );
  count('../.cache/e2e.json', (r) => ({
    passed: r.stats.expected,
    failed: r.stats.unexpected + r.stats.flaky + r.stats.skipped,
  }));
  if (failed === 0 && (jest !== 0 || e2e !== 0)) failed++;
} catch (error) {
  process.stderr.write(`${error.message}\n`);
  failed++;
}
process.stdout.write(`\n${passed} passed, ${failed} failed\n`);
process.exit(failed === 0 ? 0 : 1);
