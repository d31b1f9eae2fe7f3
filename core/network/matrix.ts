import { BadNetwork } from './bad'
import { evaluate, lost, resum, type Between, type Member } from './branches'
import type { Graph } from './graph'
import { LEAST_SLOPE, step, type Method } from './method'

/**
 * Newton's steps for any network, reduced to a symmetric positive system in the unknown heads.
 *
 * @throws BadNetwork, on looking ahead, naming the node whose head nothing determines.
 */
export function byHeads(
  branches: readonly Between[],
  { names, level, letIn }: Graph,
  usual: (members: readonly Member[]) => number,
): Method {
  const index: number[] = []
  const free: number[] = []
  for (const { from, to } of branches)
    for (const node of [from, to])
      if (level[node] === null && index[node] === undefined) index[node] = free.push(node) - 1
  const n = free.length
  const count = branches.length
  const from = Int32Array.from(branches, (b) => index[b.from] ?? -1)
  const to = Int32Array.from(branches, (b) => index[b.to] ?? -1)
  const known = Float64Array.from(branches, (b) => (level[b.from] ?? 0) - (level[b.to] ?? 0))
  const start = Float64Array.from(branches, (b) => usual(b.branch.members))
  const fed = Float64Array.from(free, (node) => letIn[node] ?? 0)
  const first = skyline(from, to, n)
  const flows = new Float64Array(count)
  const before = new Float64Array(count)
  const matrix = new Float64Array(n * n)
  const right = new Float64Array(n)
  const head = new Float64Array(n)
  const p = new Float64Array(count)
  const y = new Float64Array(count)

  const assemble = (): void => {
    matrix.fill(0)
    right.set(fed)
    for (let i = 0; i < count; i++) {
      const q = flows[i] as number
      evaluate((branches[i] as Between).branch, q)
      const inverse = 1 / Math.max(lost.slope, LEAST_SLOPE)
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

  return {
    reset: () => flows.set(start),
    step: () => {
      assemble()
      if (n > 0) cholesky(matrix, right, head, n, first, (i) => names[free[i] as number] ?? '')
      step.changed = 0
      step.total = 0
      before.set(flows)
      for (let i = 0; i < count; i++) {
        const a = from[i] as number
        const b = to[i] as number
        const drop =
          (known[i] as number) + (a >= 0 ? (head[a] as number) : 0) - (b >= 0 ? (head[b] as number) : 0)
        const change = (p[i] as number) * drop - (y[i] as number)
        flows[i] = (flows[i] as number) + change
        step.changed += Math.abs(change)
        step.total += Math.abs(flows[i] as number)
      }
    },
    halve: () => {
      for (let i = 0; i < count; i++) flows[i] = ((flows[i] as number) + (before[i] as number)) / 2
    },
    relay: (linear, quadratic) => {
      for (const { branch } of branches) resum(branch, linear, quadratic)
    },
    read: () => {
      const out: number[] = []
      for (let i = 0; i < count; i++)
        for (const m of (branches[i] as Between).branch.members) out[m.index] = m.sign * (flows[i] as number)
      return out
    },
  }
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

/**
 * Solves the symmetric positive system in place by Cholesky within its skyline. @throws BadNetwork naming the node
 * without a way out.
 */
function cholesky(
  m: Float64Array,
  b: Float64Array,
  x: Float64Array,
  n: number,
  first: Int32Array,
  name: (i: number) => string,
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
        `nodes.${name(i)}`,
        `The head at ${name(i)} is not determined: every way to it is shut.`,
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
