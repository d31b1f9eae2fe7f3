#!/usr/bin/env node
// `npm run mutate [folder …]`: breaks the core by small mutants, a folder at a time, and counts those that a test
// notices: first the folder's own tests, then, for what is left, all of the core's. It takes minutes to an hour a
// folder and is not part of `npm test`.
import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT } from '../lib/system.mjs'

const FOLDERS = [
  'hydraulics',
  'network',
  'media',
  'path',
  'bench',
  'statistics',
  'tanks',
  'biology',
  'judging',
]
const folders = process.argv.slice(2).length ? process.argv.slice(2) : FOLDERS
const OUT = join(ROOT, 'node_modules', '.cache', 'mutate')
mkdirSync(OUT, { recursive: true })

const KILLED = ['Killed', 'Timeout']
const LEFT = ['Survived', 'NoCoverage']

/** Runs the mutants of a folder, or of some places in it, and reads them back, each with its file's text. */
function round(folder, places) {
  spawnSync(join(ROOT, 'node_modules', '.bin', 'stryker'), ['run', 'scripts/mutate/stryker.config.mjs'], {
    cwd: ROOT,
    stdio: 'inherit',
    env: {
      ...process.env,
      MUTATE_FOLDER: folder,
      ...(places && { MUTATE_PLACES: places.join(',') }),
    },
  })
  const report = JSON.parse(readFileSync(join(OUT, `${folder}${places ? '.far' : ''}.json`), 'utf8'))
  return Object.entries(report.files).flatMap(([file, { mutants, source }]) =>
    mutants.map((m) => ({ ...m, file, lines: source.split('\n') })),
  )
}

const placeOf = ({ file, location: { start, end } }) =>
  `${file}:${start.line}:${start.column - 1}-${end.line}:${end.column - 1}`
const keyOf = (m) => `${placeOf(m)} ${m.mutatorName} ${m.replacement}`

function words({ file, lines, location: { start, end }, status, mutatorName, replacement }) {
  const to = start.line === end.line ? end.column - 1 : undefined
  const was = lines[start.line - 1].slice(start.column - 1, to).trim()
  return `${file}:${start.line} ${status} ${mutatorName}: ${was} → ${replacement?.replace(/\s+/g, ' ').slice(0, 90)}`
}

const table = []
for (const folder of folders) {
  if (!existsSync(join(ROOT, 'core', folder))) throw new Error(`There is no folder core/${folder}.`)
  const near = round(folder)
  const kept = near.filter((m) => LEFT.includes(m.status))
  const far = kept.length ? round(folder, [...new Set(kept.map(placeOf))]) : []
  const seen = new Set(far.filter((m) => KILLED.includes(m.status)).map(keyOf))
  const left = kept.filter((m) => !seen.has(keyOf(m)))
  const own = near.filter((m) => KILLED.includes(m.status)).length
  table.push({ folder, all: own + kept.length, own, killed: own + kept.length - left.length })
  console.log(left.map(words).join('\n'))
}
const share = (part, all) => `${((100 * part) / all).toFixed(1)} %`
for (const t of table)
  console.log(
    `${t.folder.padEnd(12)} ${share(t.killed, t.all)} of ${t.all} noticed, ${share(t.own, t.all)} by its own tests`,
  )
