#!/usr/bin/env node
// `npm test`: everything checked, from the packages up, two things at a time. A check that fails prints what it
// said; all of it is kept under .test/. The last line is "N passed, N failed".
import { spawn } from 'node:child_process'
import { createWriteStream, existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { holdFolder } from './lib/lock.mjs'
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
/** Longest time any check may take (ms): one that hangs is ended and said, not waited for. */
const LIMIT = 15 * 60 * 1000
const began = Date.now()
let passed = 0
let failed = 0

const seconds = (from) => `${((Date.now() - from) / 1000).toFixed(1)} s`
const bin = (name) => join(ROOT, 'node_modules', '.bin', name)

/** Runs a program in a process group of its own, its output into a file; the exit code, or null when it was ended. */
const run = (file, args, log) =>
  new Promise((done) => {
    const out = createWriteStream(log)
    const child = spawn(file, args, {
      cwd: ROOT,
      detached: true,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, FORCE_COLOR: '0', CI: '1' },
    })
    const end = () => {
      try {
        process.kill(-child.pid, 'SIGKILL')
      } catch {
        // Nothing of it is left.
      }
    }
    const timer = setTimeout(end, LIMIT)
    groups.add(end)
    child.stdout.pipe(out, { end: false })
    child.stderr.pipe(out, { end: false })
    child.on('error', (error) => out.write(`${error.message}\n`))
    child.on('close', (code) => {
      clearTimeout(timer)
      end()
      groups.delete(end)
      out.end(() => done(code))
    })
  })
const groups = new Set()
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    groups.forEach((end) => end())
    process.exit(1)
  })

/** Runs one check; it counts as one test unless it reports its own numbers. */
async function check(name, file, args, count) {
  const from = Date.now()
  const log = join(OUT, `${name.replace(/\W+/g, '-')}.log`)
  const code = await run(file, args, log)
  const own = count?.() ?? { passed: code === 0 ? 1 : 0, failed: 0 }
  const bad = own.failed || code === 0 ? own.failed : 1
  passed += own.passed
  failed += bad
  if (bad) {
    say(readFileSync(log, 'utf8').trimEnd())
    if (code === null) say(`ended after ${seconds(from)}: it did not come to an end by itself`)
  }
  const tests = count ? `, ${own.passed} passed${bad ? `, ${bad} failed` : ''}` : ''
  say(`${bad ? 'FAIL' : 'ok  '} ${name} (${seconds(from)}${tests})`)
  if (own.note) say(`     ${own.note}`)
}

const report = (name, read) => () => {
  const path = join(OUT, name)
  return existsSync(path) ? read(JSON.parse(readFileSync(path, 'utf8'))) : { passed: 0, failed: 1 }
}
const jestNumbers = report('jest.json', (r) => ({
  passed: r.numPassedTests,
  failed: r.numFailedTests + r.numRuntimeErrorTestSuites,
}))
const e2eNumbers = report('e2e.json', ({ stats }) => ({
  passed: stats.expected + stats.flaky,
  failed: stats.unexpected,
  ...(stats.flaky && { note: `${stats.flaky} of the browser tests passed only at the second try` }),
}))

/** The native compiler checks the types. Each of its checkers works out anew what others have: two for two cores. */
const TSC = join(ROOT, 'node_modules', 'typescript-native', 'bin', 'tsc')
const types = (name, project) => check(name, process.execPath, [TSC, '-p', project, '--checkers', '2'])

/** Checks that read the sources, in two lanes of about the same length. */
async function sources() {
  const one = async () => {
    await types('types', 'tsconfig.types.json')
    await types('core without DOM or Node types', 'tsconfig.core.json')
    await check('lint', bin('oxlint'), ['.'])
    await check('imports go downward', 'npm', ['run', '-s', 'rules'])
  }
  const other = async () => {
    await check('format', bin('oxfmt'), ['--check', '.'])
    await check('nothing unused', bin('knip'), [])
    const from = Date.now()
    await ensureBuild()
    say(`ok   build (${seconds(from)})`)
  }
  await Promise.all([one(), other()])
}

/** The tests: units and browser keep both cores busy; a start mostly waits, and does so beside the units. */
async function tests() {
  await Promise.all([
    check('unit', bin('jest'), ['--json', `--outputFile=${join(OUT, 'jest.json')}`, '--silent'], jestNumbers),
    check('start, and what survives a kill', process.execPath, ['--test', 'scripts/tests/']),
  ])
  await check('browser', bin('playwright'), ['test'], e2eNumbers)
}

await command(async () => {
  checkNode()
  const building = await holdFolder(ROOT, { wait: true })
  ensurePackages()
  ensureDebian([POSTGRES, CHROMIUM])
  building.release()
  rmSync(OUT, { recursive: true, force: true })
  mkdirSync(OUT, { recursive: true })
  await sources()
  await tests()
  say(`all of it in ${seconds(began)}`)
  say(`${passed} passed, ${failed} failed`)
  process.exitCode = failed ? 1 : 0
})
