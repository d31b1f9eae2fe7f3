import { CoreError, OutOfRange } from '../errors'
import type { Fluid } from '../hydraulics/segments'
import { branchesOf, evaluate, lost, type Branch } from './branches'
import { checkElement, lossOf, type Element, type Loss } from './elements'

/** A graph of elements. Nodes are named by the elements' ends; those in `heads` (m) are open water of a known level. */
export interface Network {
  readonly elements: readonly Element[]
  readonly heads: Readonly<Record<string, number>>
  /** Flow (m³/s) that is let in at a node from outside, whatever its head; negative where it is drawn off. */
  readonly inflows?: Readonly<Record<string, number>>
  readonly fluid: Fluid
}

/** Flow (m³/s) and head lost (m, negative where a pump gives) of an element. */
export interface ElementResult {
  readonly element: Element
  readonly flow: number
  readonly loss: number
}

/** Heads (m) at the nodes, flows in the elements, and how the solution came about. */
export interface Solution {
  readonly heads: Readonly<Record<string, number>>
  readonly results: readonly ElementResult[]
  readonly iterations: number
}

/** A network that cannot be solved, and the element or node at fault. */
export class BadNetwork extends CoreError {
  constructor(field: string, message: string) {
    super('BadNetwork', field, null, { words: message }, message)
  }
}

const START_VELOCITY = 0.1
const MAX_ITERATIONS = 200
/** Newton squares the error: a change this small leaves nothing to gain. */
const SETTLED = 3e-8

/**
 * Heads and flows of a network by the global gradient method: Newton's method on all flows and heads at once, reduced to
 * a symmetric positive system in the unknown heads. Elements in a row are one branch.
 *
 * Source: Todini and Pilati, in Computer Applications in Water Supply (1988); Todini and Rossman, J. Hydraul. Eng. 139
 * (2013) 511; as in the EPANET 2.2 manual, section 12.1.
 * @throws OutOfRange naming `elements[id].field`; BadNetwork naming the element or node that makes it singular.
 */
export const solveNetwork = (network: Network): Solution => prepareNetwork(network)()

/** Checks and reduces a network once; the function that comes back solves it, from the same start each time. */
export function prepareNetwork(network: Network): () => Solution {
  const { elements, heads: fixed, inflows = {}, fluid } = network
  if (!elements.length) throw new BadNetwork('elements', 'The network has no elements.')
  elements.forEach(checkElement)
  checkTopology(network)
  const branches = branchesOf(elements, (n) => n in fixed || n in inflows, fluid)
  const free = [...new Set(branches.flatMap((b) => [b.from, b.to]))].filter((n) => !(n in fixed))
  const index = new Map(free.map((n, i) => [n, i]))
  const n = free.length
  const count = branches.length
  const from = Int32Array.from(branches, (b) => index.get(b.from) ?? -1)
  const to = Int32Array.from(branches, (b) => index.get(b.to) ?? -1)
  const known = Float64Array.from(branches, (b) => (fixed[b.from] ?? 0) - (fixed[b.to] ?? 0))
  const start = Float64Array.from(branches, (b) => startOf(b, elements))
  const letIn = Float64Array.from(free, (name) => inflows[name] ?? 0)
  const first = skyline(from, to, n)
  const flows = new Float64Array(count)
  const next = new Float64Array(count)
  const matrix = new Float64Array(n * n)
  const right = new Float64Array(n)
  const head = new Float64Array(n)
  const p = new Float64Array(count)
  const y = new Float64Array(count)
  const losses = elements.map((e) => lossOf(e, fluid))

  const assemble = (): void => {
    matrix.fill(0)
    right.set(letIn)
    for (let i = 0; i < count; i++) {
      const q = flows[i] as number
      evaluate(branches[i] as Branch, q)
      const inverse = 1 / Math.max(lost.slope, 1e-6)
      p[i] = inverse
      y[i] = lost.head * inverse
      const a = from[i] as number
      const b = to[i] as number
      const push = q - (y[i] as number) + inverse * (known[i] as number)
      // Continuity at the free ends: what leaves `from` is q, what reaches `to` is q.
      if (a >= 0) {
        matrix[a * n + a] = (matrix[a * n + a] as number) + inverse
        right[a] = (right[a] as number) - push
      }
      if (b >= 0) {
        matrix[b * n + b] = (matrix[b * n + b] as number) + inverse
        right[b] = (right[b] as number) + push
      }
      if (a >= 0 && b >= 0)
        matrix[Math.max(a, b) * n + Math.min(a, b)] =
          (matrix[Math.max(a, b) * n + Math.min(a, b)] as number) - inverse
    }
  }

  return () => {
    flows.set(start)
    let iterations = 0
    let before = Infinity
    for (; iterations < MAX_ITERATIONS; iterations++) {
      assemble()
      if (n > 0) cholesky(matrix, right, head, n, first, free)
      let changed = 0
      let total = 0
      for (let i = 0; i < count; i++) {
        const a = from[i] as number
        const b = to[i] as number
        const drop =
          (known[i] as number) + (a >= 0 ? (head[a] as number) : 0) - (b >= 0 ? (head[b] as number) : 0)
        const q = (flows[i] as number) - (y[i] as number) + (p[i] as number) * drop
        next[i] = q
        changed += Math.abs(q - (flows[i] as number))
        total += Math.abs(q)
      }
      // A step that grows the change again goes half the way: flaps and weirs may otherwise flutter.
      const share = iterations > 20 && changed > before ? 0.5 : 1
      for (let i = 0; i < count; i++)
        flows[i] = (flows[i] as number) + share * ((next[i] as number) - (flows[i] as number))
      before = changed
      if (share === 1 && changed <= SETTLED * total + 1e-15) break
    }
    if (iterations === MAX_ITERATIONS)
      throw new BadNetwork('elements', 'The network does not settle: an element may be far out of the usual.')
    return results(iterations + 1)
  }

  /** Flows and losses of the single elements; the heads along the branches are worked out when asked for. */
  function results(iterations: number): Solution {
    const out = new Array<ElementResult>(elements.length)
    for (let i = 0; i < count; i++) {
      const q = flows[i] as number
      const { members } = branches[i] as Branch
      for (let k = 0; k < members.length; k++) {
        const { index: m, sign } = members[k] as Branch['members'][number]
        out[m] = { element: elements[m] as Element, flow: sign * q, loss: (losses[m] as Loss)(sign * q).h }
      }
    }
    const levels = Float64Array.from(head)
    let heads: Record<string, number> | null = null
    return {
      get heads() {
        return (heads ??= headsAlong(out, levels))
      },
      results: out,
      iterations,
    }
  }

  function headsAlong(solved: readonly ElementResult[], levels: Float64Array): Record<string, number> {
    const heads: Record<string, number> = { ...fixed }
    free.forEach((name, i) => (heads[name] = levels[i] as number))
    for (const b of branches) {
      let level = heads[b.from] as number
      for (const { index: m, sign } of b.members) {
        const { element, loss } = solved[m] as ElementResult
        level -= sign * loss
        const node = sign > 0 ? element.to : element.from
        if (node !== b.to) heads[node] = level
      }
    }
    return heads
  }
}

/** A first flow of a branch: its pump’s, else the mean of what its elements usually carry, along it. */
function startOf(b: Branch, elements: readonly Element[]): number {
  const pump = b.members.find((m) => (elements[m.index] as Element).kind === 'pump')
  const chosen = pump ? [pump] : b.members
  return chosen.reduce((sum, m) => sum + m.sign * startFlow(elements[m.index] as Element), 0) / chosen.length
}

/** First column of each row of the matrix that is not empty: what lies before it stays empty. */
function skyline(from: Int32Array, to: Int32Array, n: number): Int32Array {
  const first = Int32Array.from({ length: n }, (_, i) => i)
  for (let i = 0; i < from.length; i++) {
    const a = from[i] as number
    const b = to[i] as number
    if (a < 0 || b < 0) continue
    const row = Math.max(a, b)
    first[row] = Math.min(first[row] as number, a, b)
  }
  return first
}

/** A first flow of every element, of the size its bore or area usually carries. */
function startFlow(e: Element): number {
  switch (e.kind) {
    case 'pump':
      return e.pump.maxFlow / 2
    case 'hose':
    case 'fitting':
      return START_VELOCITY * ((Math.PI * e.diameter ** 2) / 4)
    case 'holes':
      return START_VELOCITY * e.holes * ((Math.PI * e.holeDiameter ** 2) / 4)
    case 'layer':
      return 0.005 * e.area
    case 'slot':
      return 0.05 * e.gap * e.perimeter
    case 'threshold':
      return 1e-6
  }
}

/** Every node must be joined to open water, and something must drive the water. */
function checkTopology({ elements, heads, inflows = {} }: Network): void {
  const ids = new Set<string>()
  for (const e of elements) {
    if (ids.has(e.id)) throw new BadNetwork(`elements[${e.id}]`, `Two elements are called “${e.id}”.`)
    ids.add(e.id)
    if (e.from === e.to)
      throw new BadNetwork(`elements[${e.id}].to`, `“${e.label}” ends where it begins, at ${e.from}.`)
  }
  for (const [name, level] of Object.entries(heads))
    if (!Number.isFinite(level)) throw new OutOfRange(`heads.${name}`, level, { words: 'a level in metres' })
  for (const [name, q] of Object.entries(inflows)) {
    if (!Number.isFinite(q)) throw new OutOfRange(`inflows.${name}`, q, { words: 'a flow in m³/s' })
    if (!elements.some((e) => e.from === name || e.to === name))
      throw new BadNetwork(`inflows.${name}`, `Water is let in at ${name}, where nothing is joined.`)
  }
  const open = Object.keys(heads).filter((h) => elements.some((e) => e.from === h || e.to === h))
  if (!open.length)
    throw new BadNetwork(
      'heads',
      'No open water is joined: name at least one node of a known level, such as the tank.',
    )
  const reached = new Set(open)
  for (let grew = true; grew;) {
    grew = false
    for (const e of elements)
      if (reached.has(e.from) !== reached.has(e.to)) {
        reached.add(e.from)
        reached.add(e.to)
        grew = true
      }
  }
  const lost = elements.find((e) => !reached.has(e.from))
  if (lost)
    throw new BadNetwork(
      `elements[${lost.id}]`,
      `“${lost.label}” is joined to no open water, so nothing fixes its head.`,
    )
  const levels = open.map((h) => heads[h] ?? 0)
  const driven = elements.some((e) => e.kind === 'pump') || Object.values(inflows).some((q) => q !== 0)
  if (!driven && Math.max(...levels) - Math.min(...levels) < 1e-12)
    throw new BadNetwork(
      'elements',
      'Nothing drives the water: there is no pump, and all open water is at one level.',
    )
}

/** Solves the symmetric positive system in place by Cholesky within its skyline. @throws BadNetwork naming the node without a way out. */
function cholesky(
  m: Float64Array,
  b: Float64Array,
  x: Float64Array,
  n: number,
  first: Int32Array,
  names: readonly string[],
): void {
  for (let i = 0; i < n; i++) {
    const from = first[i] as number
    for (let j = from; j < i; j++) {
      let s = m[i * n + j] as number
      for (let k = Math.max(from, first[j] as number); k < j; k++)
        s -= (m[i * n + k] as number) * (m[j * n + k] as number)
      m[i * n + j] = s / (m[j * n + j] as number)
    }
    let d = m[i * n + i] as number
    for (let k = from; k < i; k++) d -= (m[i * n + k] as number) ** 2
    if (!(d > 0))
      throw new BadNetwork(
        `nodes.${names[i]}`,
        `The head at ${names[i]} is not determined: every way to it is shut.`,
      )
    m[i * n + i] = Math.sqrt(d)
  }
  for (let i = 0; i < n; i++) {
    let s = b[i] as number
    for (let k = first[i] as number; k < i; k++) s -= (m[i * n + k] as number) * (x[k] as number)
    x[i] = s / (m[i * n + i] as number)
  }
  for (let i = n - 1; i >= 0; i--) {
    const value = (x[i] as number) / (m[i * n + i] as number)
    x[i] = value
    for (let k = first[i] as number; k < i; k++) x[k] = (x[k] as number) - (m[i * n + k] as number) * value
  }
}
