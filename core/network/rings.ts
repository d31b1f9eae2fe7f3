import { joined, nothing, turned, type Branch } from './branches'

/**
 * Elements and groups in a row: they carry one flow. In a group, parts stand side by side and share one loss. `known` (m)
 * is how far the open water at its end stands above that at its beginning.
 */
export interface Part {
  readonly branch: Branch
  readonly groups: readonly (readonly Part[])[]
  readonly known: number
}

/** A part between two nodes; open water, whatever its level, is one node (null). */
interface Edge {
  readonly from: string | null
  readonly to: string | null
  readonly part: Part
}

/** The same part, looked at from its other end. */
const back = (p: Part): Part => ({
  branch: turned(p.branch),
  groups: p.groups.map((g) => g.map(back)),
  known: -p.known,
})

const along = (e: Edge, from: string | null): Part => (e.from === from ? e.part : back(e.part))

/**
 * Joins branches in rows and side by side until nothing is left but closed rings, each from open water to open water; null
 * where a network does not come apart so: a bridge between two ways, a dead end.
 */
export function ringsOf(
  branches: readonly Branch[],
  fixed: Readonly<Record<string, number>>,
): readonly Part[] | null {
  const end = (n: string): string | null => (n in fixed ? null : n)
  let edges: readonly Edge[] = branches.map((branch) => ({
    from: end(branch.from),
    to: end(branch.to),
    part: { branch, groups: [], known: (fixed[branch.to] ?? 0) - (fixed[branch.from] ?? 0) },
  }))
  for (;;) {
    const before = edges.length
    edges = inRow(sideBySide(edges))
    if (edges.length === before) break
  }
  return edges.every((e) => e.from === e.to) ? edges.map((e) => e.part) : null
}

/** Joins edges that share both ends. */
function sideBySide(edges: readonly Edge[]): Edge[] {
  const out: Edge[] = []
  const left = new Set(edges)
  for (const e of edges) {
    if (!left.delete(e)) continue
    const like = [...left].filter(
      (o) =>
        e.from !== e.to && ((o.from === e.from && o.to === e.to) || (o.from === e.to && o.to === e.from)),
    )
    for (const o of like) left.delete(o)
    const group = [e, ...like].map((o) => along(o, e.from))
    out.push(like.length ? { ...e, part: { branch: nothing(e.part.branch), groups: [group], known: 0 } } : e)
  }
  return out
}

/** Joins the two edges of every node that has just two. */
function inRow(edges: readonly Edge[]): Edge[] {
  const out = new Set(edges)
  for (const n of new Set(edges.flatMap((e) => [e.from, e.to]))) {
    if (n === null) continue
    const [first, second, ...more] = [...out].filter((e) => e.from === n || e.to === n)
    if (!first || !second || more.length || first.from === first.to || second.from === second.to) continue
    const from = first.from === n ? first.to : first.from
    const to = second.from === n ? second.to : second.from
    const [a, b] = [along(first, from), along(second, n)]
    out.delete(first)
    out.delete(second)
    out.add({
      from,
      to,
      part: {
        branch: joined(a.branch, b.branch),
        groups: [...a.groups, ...b.groups],
        known: a.known + b.known,
      },
    })
  }
  return [...out]
}
