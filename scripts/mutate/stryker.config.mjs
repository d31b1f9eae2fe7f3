const folder = process.env.MUTATE_FOLDER ?? '*'
const out = 'node_modules/.cache/mutate'
/** A second round: these places only, each `file:line:column-line:column`, against all of the core's tests. */
const places = process.env.MUTATE_PLACES?.split(',')
const name = places ? `${folder}.far` : folder

export default {
  testRunner: 'mocha',
  plugins: ['@stryker-mutator/mocha-runner'],
  mochaOptions: {
    // A mutant that only a far test notices is not held where it stands: the folder's own tests come first.
    // Not those that count how often an interval holds: thousands of fits a run are minutes for each mutant.
    spec: [`core/${places ? '**' : `${folder}/**`}/!(coverage).test.ts`],
    file: ['scripts/mutate/harness.cjs'],
    extension: ['ts'],
    'no-config': true,
    'no-package': true,
  },
  testRunnerNodeArgs: ['--import', 'tsx'],
  coverageAnalysis: 'perTest',
  mutate: places ?? [
    `core/${folder}/**/*.ts`,
    '!core/**/*.test.ts',
    '!core/**/tests/**',
    '!core/**/*.fixture.ts',
  ],
  // Words are read by people, not by tests; what a constant says once at the start is seen by every test or by none.
  mutator: { excludedMutations: ['StringLiteral', 'ObjectLiteral', 'Regex'] },
  ignoreStatic: true,
  incremental: true,
  incrementalFile: `${out}/${name}.incremental.json`,
  reporters: ['progress-append-only', 'json'],
  jsonReporter: { fileName: `${out}/${name}.json` },
  concurrency: 2,
  timeoutMS: 10000,
  tempDirName: '.mutate',
  disableTypeChecks: true,
  ignorePatterns: ['.data', '.test', 'web', 'server', 'docs', 'e2e', 'rig', 'test-results'],
}
