/** @type {import('jest').Config} */
export default {
  roots: ['<rootDir>/packages', '<rootDir>/demo'],
  testMatch: ['**/*.test.ts'],
  transform: {
    '^.+\\.(t|j)sx?$': [
      '@swc/jest',
      {
        jsc: { target: 'es2022', parser: { syntax: 'typescript', tsx: false } },
        module: { type: 'commonjs' },
      },
    ],
  },
  globalSetup: '<rootDir>/scripts/jest-setup.mjs',
  testTimeout: 30000,
  modulePathIgnorePatterns: ['/dist/'],
};
