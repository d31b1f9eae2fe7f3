/** Packages that do most of the servers' work: compiled for Jest with what they look up bound. */
const BUSY = 'drizzle-orm|zod|fastify'
/** Packages that ship as ES modules only. */
const MODULES = 'ml-.*|is-any-array|fastify-type-provider-zod|pure-rand|fast-check|temporal-.*|uuid|ical.js'

/** Three projects, so that the core alone starts no PostgreSQL: `npm run unit -- --selectProjects core`. */
const transform = {
  [`/node_modules/(${BUSY})/.*\\.c?js$`]: '<rootDir>/scripts/lib/jestPackages.cjs',
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

const project = (displayName, folders, more = {}) => ({
  displayName,
  testMatch: [`<rootDir>/${folders}/**/*.test.{ts,tsx}`],
  testPathIgnorePatterns: ['/node_modules/', '/dist/'],
  // Copies that mutants are made in.
  modulePathIgnorePatterns: ['<rootDir>/.mutate/'],
  transform,
  setupFiles: ['<rootDir>/scripts/lib/properties.setup.cjs'],
  transformIgnorePatterns: [`/node_modules/(?!(${BUSY}|${MODULES})/)`],
  ...more,
})

export default {
  projects: [
    project('core', '{core,contract,demo,rig}'),
    project('server', 'server', {
      globalSetup: '<rootDir>/server/tests/cluster.setup.mjs',
      globalTeardown: '<rootDir>/server/tests/cluster.teardown.mjs',
    }),
    project('web', 'web'),
  ],
  maxWorkers: 2,
  testTimeout: 30000,
}
