import { availableParallelism } from 'node:os';

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
  setupFiles: ['<rootDir>/scripts/jest-each.cjs', '<rootDir>/packages/web/testing/browser.ts'],
  // The validator of OpenAPI documents and the icons come as ES modules.
  transformIgnorePatterns: ['/node_modules/(?!(@seriousme|@ant-design)/)'],
  runtime: '<rootDir>/scripts/jest-runtime.cjs',
  testEnvironment: '<rootDir>/scripts/jest-environment.cjs',
  globalSetup: '<rootDir>/scripts/jest-setup.mjs',
  // Far above what any of them takes: a machine that others use too stalls now and then.
  testTimeout: 120000,
  // A test file waits a third of its time for the store's threads and for timers: half as many again as there are processors.
  maxWorkers: Math.ceil(availableParallelism() * 1.5),
  // What tests leave behind in a process makes the collector of garbage slower with each of them.
  workerIdleMemoryLimit: '400MB',
  modulePathIgnorePatterns: ['/dist/'],
};
