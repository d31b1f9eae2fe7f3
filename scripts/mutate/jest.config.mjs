import all from '../../jest.config.js'

/**
 * The tests of the folder that is mutated, or in the second round those of the whole core: a mutant that only a far
 * test notices is not held where it stands.
 */
const [core] = all.projects
const folder = process.env.MUTATE_PLACES ? '**' : `${process.env.MUTATE_FOLDER ?? '**'}/**`
export default {
  ...core,
  displayName: undefined,
  rootDir: process.cwd(),
  testMatch: [`<rootDir>/core/${folder}/*.test.ts`],
  // Thousands of fits a run: minutes for each mutant.
  testPathIgnorePatterns: [...core.testPathIgnorePatterns, 'coverage\\.test'],
  globals: { NETWORKS: 10 },
  testTimeout: 30000,
}
