import { together, union, withoutCircles, type Cluster } from './clusters'
import { build, type InlineConfig, type Rollup } from 'vite'

/** Cost of one more file to a view, in bytes of script that would take as long to read. */
const A_FILE = 75_000

/** Bytes of script that standing in one file saves the views: files fewer, less what each reads and does not need. */
function gain(a: Cluster, b: Cluster): number {
  const all = union(a.views, b.views).size
  const both = a.views.size + b.views.size - all
  return A_FILE * both - a.bytes * (all - a.views.size) - b.bytes * (all - b.views.size)
}

/** Puts clusters together, the pair that gains most first, until none gains. */
function merged(given: readonly Cluster[]): readonly Cluster[] {
  const list = [...given]
  for (;;) {
    let best = { gain: 0, i: 0, j: 0 }
    list.forEach((a, i) =>
      list.slice(0, i).forEach((b, j) => {
        const g = gain(a, b)
        if (g > best.gain) best = { gain: g, i, j }
      }),
    )
    const [a, b] = [list[best.i], list[best.j]]
    if (best.gain === 0 || !a || !b) return list
    list.splice(best.i, 1)
    list[best.j] = together(a, b)
  }
}

/** Chunks that a chunk needs before it can run, itself among them. */
function needed(start: Rollup.OutputChunk, chunks: ReadonlyMap<string, Rollup.OutputChunk>): Set<string> {
  const all = new Set([start.fileName])
  for (const name of all) chunks.get(name)?.imports.forEach((i) => all.add(i))
  return all
}

/**
 * The file that each module goes to that several views share, by its id. The app is built once to see which views
 * really need which modules, and what they share is put into few files of little that is not needed.
 */
export async function sharedChunks(config: InlineConfig): Promise<ReadonlyMap<string, string>> {
  const group = { name: 'shared', minShareCount: 2, entriesAware: true }
  const built = (await build({
    ...config,
    configFile: false,
    logLevel: 'error',
    build: {
      ...config.build,
      write: false,
      minify: false,
      rolldownOptions: { output: { codeSplitting: { groups: [group] } } },
    },
  })) as Rollup.RollupOutput
  const chunks = new Map(built.output.flatMap((c) => (c.type === 'chunk' ? [[c.fileName, c] as const] : [])))
  const first = [...chunks.values()].filter((c) => c.isEntry)
  const initial = new Set(first.flatMap((c) => [...needed(c, chunks)]))
  const views = [...chunks.values()].filter((c) => c.isDynamicEntry)
  const clusters = [...chunks.values()]
    .filter((c) => !initial.has(c.fileName) && !c.isDynamicEntry)
    .map((c) => ({
      modules: c.moduleIds,
      bytes: c.code.length,
      views: new Set(views.filter((v) => needed(v, chunks).has(c.fileName)).map((v) => v.fileName)),
      files: new Set([c.fileName]),
      imports: new Set(c.imports),
    }))
  return new Map(
    withoutCircles(merged(clusters)).flatMap((c, i) => c.modules.map((m) => [m, `shared${i}`] as const)),
  )
}
