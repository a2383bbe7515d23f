// `node scripts/check-code.mjs web|rest`: checks the types of a half of the sources (core with the web, or all else) and lints it. Both are done on one reading of the files,
// which is most of the work; the halves go side by side (scripts/test.mjs).
import { ESLint } from 'eslint';
import ts from 'typescript';
import { root } from './install.mjs';
import { step } from './say.mjs';

const WEB = ['packages/web/**/*.{ts,tsx}', 'packages/core/**/*.ts'];
// Tests are part of the project of the rest.
const TESTS = ['packages/{web,core}/**/*.test.{ts,tsx}', 'packages/{web,core}/testing/**'];
const HALVES = {
  web: { projects: ['packages/core', 'packages/web'], files: WEB, ignores: TESTS },
  rest: { projects: ['.'], files: ['.'], ignores: [...WEB, ...TESTS.map((t) => `!${t}`)] },
};

/** A program of a project, as the compiler would build it. */
function programOf(project) {
  const config = ts.getParsedCommandLineOfConfigFile(
    `${project}/tsconfig.json`,
    { noEmit: true },
    {
      ...ts.sys,
      onUnRecoverableConfigFileDiagnostic: (d) => {
        throw new Error(ts.flattenDiagnosticMessageText(d.messageText, '\n'));
      },
    },
  );
  return ts.createProgram({ rootNames: config.fileNames, options: config.options });
}

/** Prints what is wrong with the types of the files of its own project, of which others are imported; gives how much that is. */
function typeErrors(program) {
  const own = program.getRootFileNames().map((name) => program.getSourceFile(name));
  const wrong = [
    ...program.getConfigFileParsingDiagnostics(),
    ...program.getOptionsDiagnostics(),
    ...program.getGlobalDiagnostics(),
    ...own.flatMap((file) => [
      ...program.getSyntacticDiagnostics(file),
      ...program.getSemanticDiagnostics(file),
    ]),
  ];
  if (wrong.length)
    process.stdout.write(
      ts.formatDiagnosticsWithColorAndContext(wrong, {
        getCurrentDirectory: () => root,
        getCanonicalFileName: (name) => name,
        getNewLine: () => '\n',
      }),
    );
  return wrong.length;
}

const half = process.argv[2];
if (!(half in HALVES)) throw new Error('Say which half is checked: web or rest.');
const { projects, files, ignores } = HALVES[half];
process.chdir(root);
const programs = projects.map(programOf);
const wrong = await step(`Checking types (${half})`, async () =>
  programs.reduce((n, p) => n + typeErrors(p), 0),
);
const found = await step(`Linting (${half})`, async () => {
  const eslint = new ESLint({
    overrideConfig: [
      { ignores },
      { files: ['**/*.ts', '**/*.tsx'], languageOptions: { parserOptions: { project: null, programs } } },
    ],
  });
  const results = await eslint.lintFiles(files);
  const text = await (await eslint.loadFormatter('stylish')).format(results);
  if (text) process.stdout.write(text);
  process.stdout.write(`  ${results.length} files linted (${half})\n`);
  return results.reduce((n, r) => n + r.errorCount + r.warningCount, 0);
});
process.exit(wrong + found === 0 ? 0 : 1);
