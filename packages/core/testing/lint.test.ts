import { execFileSync } from 'node:child_process';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';

/** Each rule of the house fires on a planted breach. */
const root = resolve(__dirname, '../../..');
const planted: string[] = [];
function plant(path: string, text: string): string {
  const at = join(root, path);
  mkdirSync(resolve(at, '..'), { recursive: true });
  writeFileSync(at, text);
  planted.push(at);
  return at;
}
/** What a linter says of files, which is not nothing. */
function said(linter: string, files: readonly string[]): unknown {
  try {
    execFileSync(join(root, 'node_modules/.bin', linter), ['--format', 'json', ...files], {
      cwd: root,
      encoding: 'utf8',
      maxBuffer: 1 << 26,
    });
  } catch (error) {
    return JSON.parse((error as { stdout: string }).stdout);
  }
  throw new Error(`${linter} found nothing.`);
}
afterAll(() => planted.forEach((p) => rmSync(p, { force: true })));
jest.setTimeout(120_000);

test('a wrong type, a promise that nobody waits for, a circle of files, an import that goes up, one out of core, SQL in a subject and a text outside its words each make lint fail', () => {
  const files = [
    plant('packages/core/text/planted-a.ts', "import { b } from './planted-b';\nexport const a = () => b;\n"),
    plant('packages/core/text/planted-b.ts', "import { a } from './planted-a';\nexport const b = () => a;\n"),
    plant(
      'packages/core/text/planted-type.ts',
      "export const n: number = 'a';\nconst f = async () => Promise.resolve(n);\nexport const g = () => {\n  f();\n};\n",
    ),
    plant(
      'packages/core/text/planted-up.ts',
      "import { isData } from '../marc';\nexport const up = isData;\n",
    ),
    plant(
      'packages/core/marc/planted-out.ts',
      "import { may } from '../../contract';\nexport const out = may;\n",
    ),
    plant(
      'packages/server/today/planted-sql.ts',
      'export const sql = (id: number) => `SELECT title\n  FROM records WHERE id = ${id}`;\n',
    ),
    plant(
      'packages/web/parts/planted-text.tsx',
      'export const Planted = () => <p title="Some text">More text</p>;\n',
    ),
    plant('packages/server/today/queries.planted.ts', "export const sql = 'DELETE FROM records';\n"),
  ];
  const ofTypes = said('oxlint', files) as { diagnostics: { code: string; filename: string }[] };
  expect(ofTypes.diagnostics.map((d) => [d.filename, d.code]).sort()).toEqual([
    ['packages/core/text/planted-a.ts', 'import(no-cycle)'],
    ['packages/core/text/planted-b.ts', 'import(no-cycle)'],
    ['packages/core/text/planted-type.ts', 'typescript(TS2322)'],
    ['packages/core/text/planted-type.ts', 'typescript(no-floating-promises)'],
  ]);
  const found = (said('eslint', files) as { filePath: string; messages: { ruleId: string }[] }[]).map(
    (f) => [f.filePath.split('/').at(-1), f.messages.map((m) => m.ruleId)] as const,
  );
  expect(Object.fromEntries(found)).toEqual({
    'planted-a.ts': [],
    'planted-b.ts': [],
    'planted-type.ts': [],
    'planted-up.ts': ['import-x/no-restricted-paths'],
    'planted-out.ts': ['import-x/no-restricted-paths'],
    'planted-sql.ts': ['no-restricted-syntax'],
    'planted-text.tsx': ['no-restricted-syntax', 'no-restricted-syntax'],
    'queries.planted.ts': [],
  });
});
