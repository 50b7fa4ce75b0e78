// Plants small faults in the source and looks whether the unit tests notice: npm run mutate -- PATHS. Not part of CI.
/** @type {import('@stryker-mutator/api/core').PartialStrykerOptions} */
const config = {
  testRunner: 'jest',
  plugins: ['@stryker-mutator/jest-runner'],
  jest: { configFile: 'jest.config.mjs', enableFindRelatedTests: true },
  coverageAnalysis: 'perTest',
  incremental: true,
  incrementalFile: 'node_modules/.cache/ember-rail/mutants.json',
  tempDirName: '.mutate',
  reporters: ['clear-text', 'progress'],
  clearTextReporter: { allowColor: false, reportTests: false, reportScoreTable: true },
  // The machine's own code is written in another dialect.
  disableTypeChecks: '{src,tests}/**/*.{ts,tsx}',
  concurrency: 2,
  timeoutMS: 20000,
  // Words are looked at by eye: a changed sentence is no wrong volt.
  mutator: { excludedMutations: ['StringLiteral', 'Regex'] },
  ignorePatterns: ['.next', 'docs', 'data', 'tests/e2e', 'test-results'],
};
export default config;
