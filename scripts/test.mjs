#!/usr/bin/env node
// `npm test`: everything checked, from the packages up. The last line is "N passed, N failed".
import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import {
  checkNode,
  CHROMIUM,
  command,
  ensureBuild,
  ensureDebian,
  ensurePackages,
  POSTGRES,
  ROOT,
  say,
} from './lib/system.mjs'

const OUT = join(ROOT, '.test')
let passed = 0
let failed = 0

/** Runs one check; it counts as one test unless it reports its own numbers. */
function check(name, file, args, count) {
  const from = Date.now()
  const r = spawnSync(file, args, {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, FORCE_COLOR: '0', CI: '1' },
  })
  const own = count?.()
  if (own) {
    passed += own.passed
    failed += own.failed
    if (r.status !== 0 && own.failed === 0) failed += 1
  } else if (r.status === 0) passed += 1
  else failed += 1
  say(`${r.status === 0 ? 'ok  ' : 'FAIL'} ${name} (${((Date.now() - from) / 1000).toFixed(1)} s)`)
}

const jestNumbers = () => {
  const path = join(OUT, 'jest.json')
  if (!existsSync(path)) return { passed: 0, failed: 1 }
  const r = JSON.parse(readFileSync(path, 'utf8'))
  return { passed: r.numPassedTests, failed: r.numFailedTests + r.numRuntimeErrorTestSuites }
}
const e2eNumbers = () => {
  const path = join(OUT, 'e2e.json')
  if (!existsSync(path)) return { passed: 0, failed: 1 }
  const { stats } = JSON.parse(readFileSync(path, 'utf8'))
  if (stats.flaky) say(`${stats.flaky} of the browser tests passed only at the second try`)
  return { passed: stats.expected + stats.flaky, failed: stats.unexpected }
}

const testFiles = () =>
  readdirSync(join(ROOT, 'scripts', 'tests')).map((name) => join('scripts', 'tests', name))

await command(async () => {
  checkNode()
  ensurePackages()
  ensureDebian([POSTGRES, CHROMIUM])
  rmSync(OUT, { recursive: true, force: true })
  mkdirSync(OUT, { recursive: true })
  const bin = (name) => join(ROOT, 'node_modules', '.bin', name)
  check('format', bin('prettier'), ['--check', '--log-level', 'warn', '.'])
  check('lint', bin('eslint'), ['.'])
  check('types', bin('tsc'), ['-p', 'tsconfig.json'])
  check('core without DOM or Node types', bin('tsc'), ['-p', 'core/tsconfig.json'])
  check('imports go downward', bin('depcruise'), [
    'core',
    'contract',
    'server',
    'web/src',
    'demo',
    '--config',
    '.dependency-cruiser.cjs',
    '--output-type',
    'err',
  ])
  check('nothing unused', bin('knip'), [])
  check('unit', bin('jest'), ['--json', `--outputFile=${join(OUT, 'jest.json')}`, '--silent'], jestNumbers)
  ensureBuild()
  check('start, and what survives a kill', process.execPath, ['--test', ...testFiles()])
  check('browser', bin('playwright'), ['test'], e2eNumbers)
  say(`${passed} passed, ${failed} failed`)
  process.exitCode = failed ? 1 : 0
})
