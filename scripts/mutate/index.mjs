#!/usr/bin/env node
// `npm run mutate [folder …]`: breaks the core by hand-sized mutants, a folder at a time, and counts those that the
// folder's own tests notice (with MUTATE_ALL=1: any test of the core). It takes minutes to an hour a folder and is not
// part of `npm test`.
import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT } from '../lib/system.mjs'

const FOLDERS = ['hydraulics', 'network', 'media', 'path', 'bench', 'statistics', 'tanks', 'judging']
const folders = process.argv.slice(2).length ? process.argv.slice(2) : FOLDERS
const OUT = join(ROOT, 'node_modules', '.cache', 'mutate')
mkdirSync(OUT, { recursive: true })

const KILLED = ['Killed', 'Timeout']
const COUNTED = [...KILLED, 'Survived', 'NoCoverage']
const table = []
const survivors = []
for (const folder of folders) {
  if (!existsSync(join(ROOT, 'core', folder))) throw new Error(`There is no folder core/${folder}.`)
  spawnSync(join(ROOT, 'node_modules', '.bin', 'stryker'), ['run', 'scripts/mutate/stryker.config.mjs'], {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, MUTATE_FOLDER: folder },
  })
  const report = JSON.parse(readFileSync(join(OUT, `${folder}.json`), 'utf8'))
  const mutants = Object.values(report.files).flatMap((f) => f.mutants)
  for (const [file, { mutants: own, source }] of Object.entries(report.files))
    for (const m of own)
      if (m.status === 'Survived' || m.status === 'NoCoverage') {
        const { start, end } = m.location
        const lines = source.split('\n')
        const was =
          start.line === end.line
            ? lines[start.line - 1].slice(start.column - 1, end.column - 1)
            : lines[start.line - 1].slice(start.column - 1)
        survivors.push(
          `${file}:${start.line} ${m.status} ${m.mutatorName}: ${was.trim()} → ${m.replacement?.replace(/\s+/g, ' ').slice(0, 90)}`,
        )
      }
  const of = (...states) => mutants.filter((m) => states.includes(m.status)).length
  const counted = of(...COUNTED)
  table.push({
    folder,
    mutants: counted,
    killed: of(...KILLED),
    survived: of('Survived'),
    uncovered: of('NoCoverage'),
  })
}
console.log(survivors.join('\n'))
for (const t of table)
  console.log(
    `${t.folder.padEnd(12)} ${((100 * t.killed) / t.mutants).toFixed(1)} % of ${t.mutants} killed, ${t.survived} survived, ${t.uncovered} not covered`,
  )
