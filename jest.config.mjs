/** @type {import('jest').Config} */
const config = {
  testEnvironment: 'node',
  maxWorkers: 2,
  // A busy machine takes longer and says the same.
  testTimeout: 120_000,
  // A test file runs in a sandbox where every look at a global is slow: the solver's are handed in.
  sandboxInjectedGlobals: ['Math', 'Infinity', 'Number', 'Float64Array', 'Int32Array', 'Uint8Array'],
  transform: {
    '^.+\\.m?[jt]sx?$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          target: 'es2022',
          transform: { react: { runtime: 'automatic' } },
        },
      },
    ],
  },
  // These come as ES modules only.
  transformIgnorePatterns: ['/node_modules/(?!(d3-[a-z-]+|internmap|ml-[a-z-]+|is-any-array|flatqueue|pdfjs-dist)/)'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
  setupFiles: ['<rootDir>/tests/unit/setup.ts'],
  testPathIgnorePatterns: ['/node_modules/', '<rootDir>/.mutate/'],
  modulePathIgnorePatterns: ['<rootDir>/.mutate/'],
  // Planting faults may be held to the tests that are meant for a file (scripts/mutate.mjs).
  testRegex: [`/tests/unit/.*(${process.env.MUTATE_TESTS ?? ''}).*\\.test\\.tsx?$`],
};
export default config;
