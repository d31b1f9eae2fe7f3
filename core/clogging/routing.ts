import type { Waterways } from './waterways'

/** Water runs back through an element where its flow is below this (m³/s). */
const BACK = -1e-12
/** Rounds of going over the elements where water runs in a ring. */
const MOST_ROUNDS = 40

/** Concentrations along the ways of the water, relative to the water that comes in. */
export interface Routed {
  /** For each layer, and each thing carried: what comes at it. */
  readonly before: Float64Array
  /** Concentration that leaves at the end. */
  readonly out: Float64Array
}

/**
 * Carries `things` along the network: mixed at every node in proportion to the flows, lessened in each layer by what it
 * lets pass. Water beside a layer is not lessened. The function that comes back takes flows and, for each layer and
 * thing, the share that passes.
 */
export function routeOf(
  w: Waterways,
  things: number,
): (flows: readonly number[], pass: Float64Array) => Routed {
  const names = new Map<string, number>()
  const node = (name: string): number => {
    const known = names.get(name)
    if (known !== undefined) return known
    names.set(name, names.size)
    return names.size - 1
  }
  const from = w.elements.map((e) => node(e.from))
  const to = w.elements.map((e) => node(e.to))
  const source = node(w.source)
  const sink = node(w.sink)
  const count = names.size
  const layerAt = w.elements.map((_, i) => w.at.indexOf(i))
  const order = inOrder(from, to, count)
  const before = new Float64Array(w.layers.length * things)
  const out = new Float64Array(things)
  const sum = new Float64Array(count * things)
  const water = new Float64Array(count)
  const at = new Float64Array(count * things)

  const over = (flows: readonly number[], pass: Float64Array): void => {
    sum.fill(0)
    water.fill(0)
    for (const i of order) {
      const q = flows[i] as number
      const [a, b] = q < BACK ? [to[i] as number, from[i] as number] : [from[i] as number, to[i] as number]
      if (!(Math.abs(q) > 0)) continue
      const size = Math.abs(q)
      const layer = layerAt[i] as number
      const w0 = water[a] as number
      for (let k = 0; k < things; k++) {
        const place = a * things + k
        const c = a === source ? 1 : w0 > 0 ? (sum[place] as number) / w0 : (at[place] as number)
        if (layer >= 0) before[layer * things + k] = c
        const left = layer >= 0 ? c * (pass[layer * things + k] as number) : c
        sum[b * things + k] = (sum[b * things + k] as number) + size * left
      }
      water[b] = (water[b] as number) + size
    }
    for (let n = 0; n < count; n++)
      for (let k = 0; k < things; k++)
        at[n * things + k] =
          (water[n] as number) > 0 ? (sum[n * things + k] as number) / (water[n] as number) : 0
  }
  return (flows, pass) => {
    at.fill(1)
    over(flows, pass)
    if (flows.some((q) => q < BACK)) for (let i = 1; i < MOST_ROUNDS; i++) over(flows, pass)
    for (let k = 0; k < things; k++) out[k] = at[sink * things + k] as number
    return { before, out }
  }
}

/** The elements, each after all those that bring water to where it begins. */
function inOrder(from: readonly number[], to: readonly number[], count: number): readonly number[] {
  const waits = new Int32Array(count)
  for (const n of to) waits[n] = (waits[n] as number) + 1
  const leaving: number[][] = Array.from({ length: count }, () => [])
  from.forEach((n, i) => leaving[n]?.push(i))
  const order: number[] = []
  const todo = Array.from({ length: count }, (_, n) => n).filter((n) => waits[n] === 0)
  for (let n = todo.shift(); n !== undefined; n = todo.shift())
    for (const i of leaving[n] ?? []) {
      order.push(i)
      const b = to[i] as number
      waits[b] = (waits[b] as number) - 1
      if (waits[b] === 0) todo.push(b)
    }
  return order.length === from.length ? order : from.map((_, i) => i)
}
