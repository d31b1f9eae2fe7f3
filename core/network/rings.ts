import { append, emptyBranch, turn, type Between, type Branch } from './branches'
import type { Graph } from './graph'

/** Rows side by side between two nodes: near their common flow q they lose a + b q. */
export interface Group {
  readonly rows: readonly Row[]
  a: number
  b: number
  /** Its loss, roughly: linear q + quadratic q². */
  linear: number
  quadratic: number
}

/** Elements and groups in a row: they carry one flow q, and near it lose a + b q. */
export interface Row {
  readonly branch: Branch
  readonly groups: Group[]
  /** How far (m) the open water at its end stands above that at its beginning. */
  known: number
  a: number
  b: number
  q: number
  before: number
  /** Nothing but a linear and a quadratic loss stands in it. */
  plain: boolean
  /** Water goes one way only in it. */
  oneWay: boolean
  /** Its loss, roughly: linear q + quadratic q² − lift. */
  linear: number
  quadratic: number
  lift: number
  /** A first flow where these give none. */
  usual: number
}

const rowOf = (branch: Branch, known: number): Row => ({
  branch,
  groups: [],
  known,
  a: 0,
  b: 0,
  q: 0,
  before: 0,
  plain: false,
  oneWay: false,
  linear: 0,
  quadratic: 0,
  lift: 0,
  usual: 0,
})

/** A row between two nodes; open water, whatever its level, is one node. */
interface Edge {
  from: number
  to: number
  readonly row: Row
}

const OPEN = -1

function turnRow(r: Row): void {
  turn(r.branch)
  r.known = -r.known
  for (const g of r.groups) for (const side of g.rows) turnRow(side)
}

function turnEdge(e: Edge): void {
  const { from } = e
  e.from = e.to
  e.to = from
  turnRow(e.row)
}

/**
 * Joins branches in rows and side by side until nothing is left but closed rings, each from open water to open water;
 * null where a network does not come apart so: a bridge between two ways, a dead end. The branches are used up.
 */
export function ringsOf(branches: readonly Between[], { level }: Graph): Row[] | null {
  const edges: Edge[] = branches.map(({ from, to, branch }) => {
    const [a, b] = [level[from] ?? null, level[to] ?? null]
    return {
      from: a === null ? from : OPEN,
      to: b === null ? to : OPEN,
      row: rowOf(branch, (b ?? 0) - (a ?? 0)),
    }
  })
  for (let before = NaN; edges.length !== before;) {
    before = edges.length
    sideBySide(edges, false)
    inRow(edges)
    // Pumps last: in a row with the rest, the first flow of the ring is theirs.
    if (edges.length === before) sideBySide(edges, true)
  }
  for (const e of edges) if (e.from !== e.to) return null
  return edges.map((e) => e.row)
}

const touches = (e: Edge, node: number): boolean => e.from === node || e.to === node

const drives = (e: Edge): boolean => e.row.branch.lifts.length > 0

/**
 * Is an edge the one of several by which the water goes on, where they are all there is at one of their ends? Were it
 * joined with the others, the way would end there. A pump goes on before anything else.
 */
function isWayOn(edges: readonly Edge[], e: Edge): boolean {
  const ends = (node: number, other: number): boolean =>
    node !== OPEN && edges.every((o) => !touches(o, node) || touches(o, other))
  if (!ends(e.from, e.to) && !ends(e.to, e.from)) return false
  const same = edges.filter((o) => touches(o, e.from) && touches(o, e.to))
  return e === (same.find(drives) ?? same[0])
}

/** Joins edges that share both ends; those with a pump only if `all`. */
function sideBySide(edges: Edge[], all: boolean): void {
  for (let i = 0; i < edges.length; i++) {
    const e = edges[i] as Edge
    if (e.from === e.to || (drives(e) && !all) || isWayOn(edges, e)) continue
    let rows: Row[] | null = null
    for (let k = edges.length - 1; k > i; k--) {
      const o = edges[k] as Edge
      if (drives(o) && !all) continue
      if (o.from === e.to && o.to === e.from) turnEdge(o)
      if (o.from !== e.from || o.to !== e.to) continue
      ;(rows ??= [e.row]).push(o.row)
      edges.splice(k, 1)
    }
    if (!rows) continue
    const row = rowOf(emptyBranch(e.row.branch.correlation), 0)
    row.groups.push({ rows, a: 0, b: 0, linear: 0, quadratic: 0 })
    edges[i] = { from: e.from, to: e.to, row }
  }
}

/** Joins the two edges of every node that has just two. */
function inRow(edges: Edge[]): void {
  for (let i = 0; i < edges.length; i++) {
    const e = edges[i] as Edge
    for (let node = e.to, turned = 0; turned < 2; node = e.to) {
      const k = node === OPEN || e.from === e.to ? -1 : onlyOther(edges, node, i)
      if (k < 0) {
        // Its other end may be joined as well.
        turnEdge(e)
        turned++
        continue
      }
      const o = edges[k] as Edge
      if (o.from !== node) turnEdge(o)
      append(e.row.branch, o.row.branch)
      e.row.groups.push(...o.row.groups)
      e.row.known += o.row.known
      e.to = o.to
      edges.splice(k, 1)
      if (k < i) i--
    }
  }
}

/** The one other edge at a node, or −1 where there is none or more than one, or one that leads back to it. */
function onlyOther(edges: readonly Edge[], node: number, i: number): number {
  let found = -1
  for (let k = 0; k < edges.length; k++) {
    const o = edges[k] as Edge
    if (k === i || !touches(o, node)) continue
    if (found >= 0 || o.from === o.to) return -1
    found = k
  }
  return found
}
