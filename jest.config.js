/** Core, contract and server tests; each file runs in Node. */
const transform = {
  '^.+\\.[cm]?[jt]sx?$': [
    '@swc/jest',
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
export default {
  testMatch: ['<rootDir>/{core,contract,server,demo,rig,web}/**/*.test.{ts,tsx}'],
  testPathIgnorePatterns: ['/node_modules/', '/dist/'],
  transform,
  setupFiles: ['<rootDir>/server/tests/properties.setup.cjs'],
  globalSetup: '<rootDir>/server/tests/cluster.setup.mjs',
  globalTeardown: '<rootDir>/server/tests/cluster.teardown.mjs',
  // Packages that ship as ES modules only are compiled for Jest as well.
  transformIgnorePatterns: [
    '/node_modules/(?!(ml-.*|is-any-array|fastify-type-provider-zod|pure-rand|fast-check)/)',
  ],
  testTimeout: 30000,
}
