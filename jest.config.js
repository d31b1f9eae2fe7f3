const transform = {
  '^.+\\.[cm]?[jt]sx?$': [
    '<rootDir>/scripts/lib/jestTransform.cjs',
    {
      jsc: {
        parser: { syntax: 'typescript', tsx: true },
        target: 'es2022',
        transform: { react: { runtime: 'automatic' } },
      },
      module: { type: 'commonjs' },
    },
  ],
}
/** Tests without a page run in the process's own context, with packages that it has read once. */
const inProcess = {
  testEnvironment: '<rootDir>/scripts/lib/jestHost.cjs',
  transform: { '/node_modules/(?!jest-|@jest/)': '<rootDir>/scripts/lib/jestPackages.cjs', ...transform },
  transformIgnorePatterns: [],
}
/** Packages that ship as ES modules only. */
const MODULES = 'ml-.*|is-any-array|fastify-type-provider-zod|pure-rand|fast-check|temporal-.*|uuid|ical.js'

/** Three projects, so that the core alone starts no PostgreSQL: `npm run unit -- --selectProjects core`. */
const project = (displayName, folders, more = {}) => ({
  displayName,
  testMatch: [`<rootDir>/${folders}/**/*.test.{ts,tsx}`],
  testPathIgnorePatterns: ['/node_modules/', '/dist/'],
  // Copies that mutants are made in.
  modulePathIgnorePatterns: ['<rootDir>/.mutate/'],
  transform,
  setupFiles: ['<rootDir>/scripts/lib/properties.setup.cjs'],
  ...more,
})

export default {
  projects: [
    project('core', '{core,contract,demo,rig}', inProcess),
    project('server', 'server', {
      ...inProcess,
      globalSetup: '<rootDir>/server/tests/cluster.setup.mjs',
      globalTeardown: '<rootDir>/server/tests/cluster.teardown.mjs',
    }),
    project('web', 'web', {
      testEnvironment: '<rootDir>/scripts/lib/jestView.cjs',
      setupFilesAfterEnv: ['<rootDir>/scripts/lib/views.setup.cjs'],
      transformIgnorePatterns: [`/node_modules/(?!(${MODULES})/)`],
    }),
  ],
  // Tests of the server wait for the database now and then: three keep two cores busy.
  maxWorkers: 3,
  testTimeout: 30000,
}
