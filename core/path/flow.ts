import { solveNetwork, type Element, type ElementResult } from '../network'
import type { PathCase } from './case'
import { topologyOf, type Topology } from './topology'

/** A topology solved: the flow delivered (m³/s) and what runs through each element. */
export interface Solved {
  readonly flow: number
  readonly results: ReadonlyMap<string, ElementResult>
}

/** Solves the pumped network and, in a sump, the one that runs by gravity at the pump's flow. */
export function solved(topology: Topology): Solved {
  const main = solveNetwork(topology.pumped)
  const results = new Map(main.results.map((r) => [r.element.id, r]))
  const flow = delivered(results, topology)
  if (topology.gravity) {
    const { network, inlet } = topology.gravity
    for (const r of solveNetwork({ ...network, inflows: { [inlet]: Math.max(flow, 1e-12) } }).results)
      results.set(r.element.id, r)
  }
  return { flow, results }
}

/** Flow delivered: what the last things before the tank pass. */
function delivered(results: ReadonlyMap<string, ElementResult>, topology: Topology): number {
  let sum = 0
  for (const e of topology.pumped.elements) if (e.to === 'return') sum += results.get(e.id)?.flow ?? 0
  return sum
}

/** Flow (m³/s) of a case; `losses` turns all tabulated losses of the run by a factor. */
export function flowOfCase(c: PathCase, losses = 1): number {
  const topology = topologyOf(c)
  if (losses === 1) return solved(topology).flow
  const elements = topology.pumped.elements.map((e) => scaleLoss(e, losses))
  return solved({ ...topology, pumped: { ...topology.pumped, elements } }).flow
}

function scaleLoss(e: Element, by: number): Element {
  if (!e.id.startsWith('seg:')) return e
  if (e.kind === 'hose') return { ...e, length: e.length * by }
  if (e.kind === 'fitting') return { ...e, lossCoefficient: e.lossCoefficient * by }
  return e.kind === 'orifices' ? { ...e, dischargeCoefficient: e.dischargeCoefficient / Math.sqrt(by) } : e
}
