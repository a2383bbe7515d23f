// `npm run lines`: code and test lines by part.
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';

const files = execFileSync(
  'git',
  ['ls-files', '--cached', '--others', '--exclude-standard', '*.ts', '*.tsx', '*.mjs', '*.css', '*.pl'],
  { encoding: 'utf8' },
)
  .trim()
  .split('\n');
const parts = new Map();
for (const f of files) {
  const lines = readFileSync(f, 'utf8')
    .split('\n')
    .filter((l) => l.trim()).length;
  const part = f.startsWith('packages/')
    ? f
        .split('/')
        .slice(0, f.startsWith('packages/core') ? 3 : 2)
        .join('/')
    : f.split('/')[0];
  const row = parts.get(part) ?? { code: 0, tests: 0 };
  if (/\.test\.tsx?$|^e2e\/|\/testing\//.test(f)) row.tests += lines;
  else row.code += lines;
  parts.set(part, row);
}
let [code, tests] = [0, 0];
for (const [part, row] of [...parts].sort()) {
  console.log(`${part.padEnd(34)} ${String(row.code).padStart(6)} ${String(row.tests).padStart(6)}`);
  code += row.code;
  tests += row.tests;
}
console.log(
  `${'all'.padEnd(34)} ${String(code).padStart(6)} ${String(tests).padStart(6)}   tests are ${Math.round((tests / (code + tests)) * 100)} % of all lines`,
);
