/** Modules that stand in one file. */
export interface Cluster {
  readonly modules: readonly string[]
  readonly bytes: number
  /** The views that need it. */
  readonly views: ReadonlySet<string>
  /** The files it was built as, and those that these import. */
  readonly files: ReadonlySet<string>
  readonly imports: ReadonlySet<string>
}

export const union = (a: ReadonlySet<string>, b: ReadonlySet<string>): Set<string> => new Set([...a, ...b])
export const together = (a: Cluster, b: Cluster): Cluster => ({
  modules: [...a.modules, ...b.modules],
  bytes: a.bytes + b.bytes,
  views: union(a.views, b.views),
  files: union(a.files, b.files),
  imports: union(a.imports, b.imports),
})

/**
 * Files that import one another in a circle are one file: which of them would run first is left to chance, and a class
 * of one that extends a class of another is then undone.
 */
export function withoutCircles(given: readonly Cluster[]): readonly Cluster[] {
  const leansOn = (a: Cluster, b: Cluster): boolean => [...a.imports].some((f) => b.files.has(f))
  const reached = (from: Cluster): ReadonlySet<Cluster> => {
    const seen = new Set<Cluster>()
    const next = [from]
    for (let c = next.pop(); c; c = next.pop())
      for (const d of given) if (d !== c && !seen.has(d) && leansOn(c, d)) next.push((seen.add(d), d))
    return seen
  }
  const reach = new Map(given.map((c) => [c, reached(c)]))
  for (const a of given)
    for (const b of given)
      if (a !== b && reach.get(a)?.has(b) && reach.get(b)?.has(a))
        return withoutCircles([...given.filter((c) => c !== a && c !== b), together(a, b)])
  return given
}
