// Circles between folders: each of these packages is a heap of subjects, and a subject leans on those below it. What
// lies within a subject counts as the subject; a file at the top of the package, such as a program, stands for itself.
import { cruise } from 'dependency-cruiser'
import extractTSConfig from 'dependency-cruiser/config-utl/extract-ts-config'
import { join } from 'node:path'
import { ROOT } from './system.mjs'

const PACKAGES = ['core', 'contract', 'server', 'web/src']

/** The subject that a file belongs to. */
export function subjectOf(file) {
  const root = PACKAGES.find((p) => file.startsWith(`${p}/`))
  if (!root) return null
  const [first] = file.slice(root.length + 1).split('/')
  return `${root}/${first}`
}

/** Groups of subjects that lean on one another, with the imports that make it so. `imports`: pairs of files. */
export function circles(imports) {
  const edges = new Map()
  for (const [from, to] of imports) {
    const [a, b] = [subjectOf(from), subjectOf(to)]
    if (!a || !b || a === b) continue
    const out = edges.get(a) ?? edges.set(a, new Map()).get(a)
    out.set(b, [...(out.get(b) ?? []), `${from} → ${to}`])
  }
  const reach = (from) => {
    const seen = new Set()
    const stack = [...(edges.get(from)?.keys() ?? [])]
    while (stack.length) {
      const next = stack.pop()
      if (seen.has(next)) continue
      seen.add(next)
      stack.push(...(edges.get(next)?.keys() ?? []))
    }
    return seen
  }
  const reached = new Map([...edges.keys()].map((s) => [s, reach(s)]))
  const found = []
  for (const s of edges.keys()) {
    if (!reached.get(s).has(s) || found.some((c) => c.subjects.includes(s))) continue
    const subjects = [...reached.get(s)].filter((t) => reached.get(t)?.has(s))
    found.push({
      subjects,
      imports: subjects.flatMap((a) => subjects.flatMap((b) => edges.get(a)?.get(b) ?? [])),
    })
  }
  return found
}

/** Imports of the packages' own files, tests left out. */
export async function importsNow() {
  const { output } = await cruise(
    PACKAGES,
    {
      doNotFollow: { path: 'node_modules' },
      exclude: { path: '(\\.test\\.|/tests/|\\.fixture\\.|node_modules)' },
      tsPreCompilationDeps: true,
      baseDir: ROOT,
    },
    {},
    { tsConfig: extractTSConfig(join(ROOT, 'tsconfig.json')) },
  )
  return output.modules.flatMap((m) => m.dependencies.map((d) => [m.source, d.resolved]))
}

if (process.argv[1] === import.meta.filename) {
  const found = circles(await importsNow())
  for (const { subjects, imports } of found)
    console.error(`These lean on one another: ${subjects.join(', ')}\n  ${imports.join('\n  ')}`)
  if (found.length) process.exit(1)
  console.log('No circle between folders.')
}
