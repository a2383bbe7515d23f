const compile = (tsx) => [
  '@swc/jest',
  {
    jsc: {
      target: 'es2022',
      parser: { syntax: 'typescript', tsx },
      ...(tsx && { transform: { react: { runtime: 'automatic' } } }),
    },
    module: { type: 'commonjs' },
  },
];

/** @type {import('jest').Config} */
export default {
  roots: ['<rootDir>/packages', '<rootDir>/demo'],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  transform: { '^.+\\.tsx$': compile(true), '^.+\\.[tj]s$': compile(false) },
  moduleNameMapper: { '\\.css$': '<rootDir>/packages/web/testing/no-style.ts' },
  setupFiles: ['<rootDir>/packages/web/testing/browser.ts'],
  globalSetup: '<rootDir>/scripts/jest-setup.mjs',
  testTimeout: 30000,
  modulePathIgnorePatterns: ['/dist/'],
};
