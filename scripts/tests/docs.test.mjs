// What the documentation says stands where: every file and folder that it names is there.
import assert from 'node:assert/strict'
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { test } from 'node:test'
import { ROOT } from '../lib/system.mjs'

const PACKAGES = ['core', 'contract', 'server', 'web', 'demo', 'rig', 'scripts', 'e2e', 'docs', 'examples']
const pages = [
  'README.md',
  ...readdirSync(join(ROOT, 'docs')).filter((f) => f.endsWith('.md')).map((f) => `docs/${f}`),
] // prettier-ignore

/** Paths in backticks that begin with a package of this repository; a pattern or a placeholder is none. */
const pathsOf = (text) =>
  [...text.matchAll(/`([\w.-]+\/[\w./-]*)`/g)]
    .map((m) => m[1])
    .filter((p) => PACKAGES.includes(p.split('/')[0]) && !p.startsWith('web/dist'))

test('every file that a page of the documentation names is there', () => {
  const missing = pages.flatMap((page) =>
    pathsOf(readFileSync(join(ROOT, page), 'utf8'))
      .filter((p) => !existsSync(join(ROOT, p)))
      .map((p) => `${page}: ${p}`),
  )
  assert.deepEqual(missing, [])
})

test('the table of where to add what names files that are there, and a row for each thing that can be added', () => {
  const text = readFileSync(join(ROOT, 'docs/architecture.md'), 'utf8')
  const table = text.slice(text.indexOf('## Where to add what'), text.indexOf('A new kind or column needs'))
  const rows = table.split('\n').filter((l) => /^\| (?!what|-)/.test(l))
  assert.ok(rows.length >= 15, `${rows.length} rows`)
  for (const row of rows) assert.ok(pathsOf(row).length > 0, row)
})
