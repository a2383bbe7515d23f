import js from '@eslint/js';
import importX from 'eslint-plugin-import-x';
import { createTypeScriptImportResolver } from 'eslint-import-resolver-typescript';
import hooks from 'eslint-plugin-react-hooks';
import ts from 'typescript-eslint';

/** Folders of core in the order in which they may use each other: each only those before it. */
const CORE = [
  'text',
  'changes',
  'marc',
  'format',
  'address',
  'barcodes',
  'callnumbers',
  'house',
  'access',
  'query',
  'labels',
  'checks',
  'editing',
  'find',
  'recipes',
  'headings',
  'reading',
  'links',
  'matching',
  'holdings',
  'piles',
  'duplicates',
  'neighbours',
  'deliveries',
  'withdrawals',
  'stocktake',
  'acts',
  'kinds',
  'sru',
];

/** SQL in a text: a statement with its tables. */
const SQL = String.raw`/\b(SELECT\s[^]+?\sFROM|INSERT\s+(OR\s+\w+\s+)?INTO|UPDATE\s+\w+\s+SET|DELETE\s+FROM|JOIN\s+\w+\s+(AS\s+)?\w*\s*ON)\b/`;
const NO_SQL = 'SQL stands in store/, projections/ and queries.ts, in named functions.';

const NO_TEXT = 'Texts of the interface stand in the words.ts of their area.';

const zones = [
  ...CORE.slice(0, -1).map((folder, i) => ({
    target: `packages/core/${folder}/**/!(*.test).ts`,
    from: CORE.slice(i + 1).map((f) => `packages/core/${f}/**/*`),
    message: 'Core folders use only those before them.',
  })),
  {
    target: 'packages/core/**/*',
    from: [
      'packages/contract/**/*',
      'packages/server/**/*',
      'packages/web/**/*',
      'packages/cli/**/*',
      'packages/standins/**/*',
    ],
    message: 'Core imports nothing of the rest.',
  },
  {
    target: 'packages/contract/**/*',
    from: ['packages/server/**/*', 'packages/web/**/*'],
    message: 'The contract stands below server and web.',
  },
  {
    target: 'packages/web/**/*',
    from: ['packages/server/**/*', 'packages/standins/**/*'],
    message: 'The web knows the server by the contract only.',
  },
  {
    target: 'packages/server/**/!(*.test|running).ts',
    from: ['packages/web/**/*', 'packages/standins/**/*', 'demo/**/*'],
    message: 'The server knows neither web nor stand-ins nor demo.',
  },
  {
    target: 'packages/cli/**/!(*.test).ts',
    from: ['packages/server/**/*', 'packages/web/**/*', 'packages/contract/**/*'],
    message: 'The command line is core on files.',
  },
];

/** What needs the types of a file, types themselves and circles of files are the other linter's (.oxlintrc.json), which needs a quarter of the time for it. */
export default ts.config(
  { ignores: ['**/dist', '**/node_modules', '.cache', 'data', 'test-results', 'playwright-report'] },
  js.configs.recommended,
  ...ts.configs.recommended.map((c) => ({ ...c, files: ['**/*.ts', '**/*.tsx'] })),
  {
    files: ['**/*.ts', '**/*.tsx'],
    plugins: { 'import-x': importX },
    settings: {
      // Without these the rules see no imports in TypeScript, and none of them ever fires.
      'import-x/extensions': ['.ts', '.tsx'],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts', '.tsx'] },
      'import-x/resolver-next': [
        createTypeScriptImportResolver({
          noWarnOnMultipleProjects: true,
          project: ['tsconfig.json', 'packages/core/tsconfig.json', 'packages/web/tsconfig.json'],
        }),
      ],
    },
    rules: {
      'import-x/no-restricted-paths': ['error', { zones }],
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true },
      ],
      '@typescript-eslint/no-unused-expressions': ['error', { allowTernary: true, allowShortCircuit: true }],
      'no-control-regex': 'off',
      'no-sparse-arrays': 'off',
    },
  },
  {
    files: ['packages/core/**/*.ts'],
    ignores: ['**/*.test.ts', 'packages/core/testing/**'],
    rules: {
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'Buffer', 'fetch', 'setTimeout'],
      'no-restricted-imports': ['error', { patterns: ['node:*', '@osier/*'] }],
      'no-restricted-syntax': [
        'error',
        {
          selector: "CallExpression[callee.object.name='Math'][callee.property.name='random']",
          message: 'Core has no randomness.',
        },
        { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'Core has no clock.' },
      ],
    },
  },
  {
    files: ['packages/server/**/*.ts'],
    ignores: [
      'packages/server/store/**',
      'packages/server/projections/**',
      'packages/server/testing/**',
      '**/queries.ts',
      '**/queries.*.ts',
      '**/*.test.ts',
    ],
    rules: {
      'no-restricted-syntax': [
        'error',
        { selector: `Literal[value=${SQL}]`, message: NO_SQL },
        { selector: `TemplateElement[value.raw=${SQL}]`, message: NO_SQL },
        {
          selector: "CallExpression[callee.property.name='select']",
          message: `${NO_SQL} Elsewhere: store.find.`,
        },
      ],
    },
  },
  {
    files: ['packages/web/**/*.tsx', 'packages/web/**/*.ts'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    files: ['packages/web/**/*.tsx'],
    ignores: ['**/*.test.tsx', 'packages/web/testing/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        // Marks in fixed type (a key, an example of syntax) are no words.
        {
          selector: `JSXElement:not([openingElement.name.name=/^(kbd|code)$/]) > JSXText[value=/[A-Za-z]{2}/]`,
          message: NO_TEXT,
        },
        {
          selector: `JSXAttribute[name.name=/^(title|label|aria-label|placeholder|help|verb|caption|alt)$/] > Literal[value=/[A-Za-z]{2}/]`,
          message: NO_TEXT,
        },
      ],
    },
  },
  {
    files: ['**/*.mjs', '**/*.js'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        setInterval: 'readonly',
        clearInterval: 'readonly',
        setTimeout: 'readonly',
        Buffer: 'readonly',
        performance: 'readonly',
      },
    },
  },
);
