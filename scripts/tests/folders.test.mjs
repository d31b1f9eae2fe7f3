import assert from 'node:assert/strict'
import { test } from 'node:test'
import { circles } from '../lib/folders.mjs'

test('folders that lean on one another are found, however long the way round; leaning down is no circle', () => {
  const down = [['core/judging/a.ts', 'core/trials/b.ts'], ['core/trials/b.ts', 'core/bench/c.ts'], ['core/judging/a.ts', 'core/bench/c.ts']] // prettier-ignore
  assert.deepEqual(circles(down), [])
  const [circle, ...rest] = circles([...down, ['core/bench/d.ts', 'core/judging/e.ts']])
  assert.deepEqual(rest, [])
  assert.deepEqual([...circle.subjects].sort(), ['core/bench', 'core/judging', 'core/trials'])
  assert.ok(circle.imports.includes('core/bench/d.ts → core/judging/e.ts'))
})

test('within a subject files may call one another; a program at the top is a subject of its own', () => {
  assert.deepEqual(circles([['core/trials/find.ts', 'core/trials/dye/find.ts'], ['core/trials/dye/find.ts', 'core/trials/find.ts']]), []) // prettier-ignore
  assert.equal(circles([['server/app.ts', 'server/threads/x.ts'], ['server/threads/x.ts', 'server/app.ts']]).length, 1) // prettier-ignore
  assert.deepEqual(circles([['core/water/a.ts', 'node_modules/x/index.js'], ['node_modules/x/index.js', 'core/water/a.ts']]), []) // prettier-ignore
})
