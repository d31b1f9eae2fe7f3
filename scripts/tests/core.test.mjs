// The core as a notebook has it: by plain Node, without a bundler.
import assert from 'node:assert/strict'
import { spawnSync } from 'node:child_process'
import { test } from 'node:test'
import { ROOT } from '../lib/system.mjs'

test('the integrator runs under plain Node: dy/dt = −y from 1 comes to 1/e', () => {
  const program = `import('./core/biology/integrate.ts').then(({ integrate }) =>
    console.log(integrate((t, [y]) => [-y], [1], [0, 1]).end[0]))`
  const { stdout } = spawnSync(process.execPath, ['--import', 'tsx', '-e', program], {
    cwd: ROOT,
    encoding: 'utf8',
  })
  assert.ok(Math.abs(Number(stdout) - Math.exp(-1)) < 1e-6, stdout)
})
