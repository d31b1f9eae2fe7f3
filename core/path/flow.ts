import type { Pump } from '../hydraulics'
import { solveNetwork, type Element, type ElementResult } from '../network'
import type { PathCase } from './case'
import { restCoefficient, topologyOf, type Topology } from './topology'

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

/** Things of a case that can be turned without laying it out anew; what is absent stays. */
export interface Turn {
  readonly pump?: Pump
  /** Loss coefficient of trays and grids (m per (m³/s)²); the case must have some. */
  readonly rest?: number
  /** Factor of all tabulated losses of the run. */
  readonly losses?: number
  /** Divisor of a medium’s permeability. */
  readonly denser?: { readonly mediumId: string; readonly by: number }
}

/**
 * A case laid out once; the function that comes back gives the flow delivered (m³/s) with things turned.
 * @throws OutOfRange, BadNetwork: see {@link topologyOf} and solveNetwork.
 */
export function flowsOf(c: PathCase): (turn?: Turn) => number {
  const { pumped } = topologyOf(c)
  const mediumOf = new Map(c.fill.layers.map((l) => [`layer:${l.id}`, l.mediumId]))
  const last = pumped.elements.flatMap((e, i) => (e.to === 'return' ? [i] : []))
  return (turn) => {
    const elements = turn ? pumped.elements.map((e) => turnedElement(e, turn, mediumOf)) : pumped.elements
    const { flows } = solveNetwork({ ...pumped, elements })
    return last.reduce((sum, i) => sum + (flows[i] as number), 0)
  }
}

/** Flow (m³/s) of a case. */
export const flowOfCase = (c: PathCase): number => flowsOf(c)()

function turnedElement(
  e: Element,
  { pump, rest, losses, denser }: Turn,
  mediumOf: ReadonlyMap<string, string>,
): Element {
  if (e.kind === 'pump') return pump && e.id === 'pump' ? { ...e, pump } : e
  if (e.kind === 'layer')
    return denser && mediumOf.get(e.id) === denser.mediumId
      ? { ...e, permeability: e.permeability / denser.by }
      : e
  if (e.id === 'rest' && e.kind === 'fitting')
    return rest === undefined ? e : { ...e, lossCoefficient: restCoefficient(rest) }
  return losses === undefined ? e : scaleLoss(e, losses)
}

function scaleLoss(e: Element, by: number): Element {
  if (!e.id.startsWith('seg:')) return e
  if (e.kind === 'hose') return { ...e, length: e.length * by }
  if (e.kind === 'fitting') return { ...e, lossCoefficient: e.lossCoefficient * by }
  return e.kind === 'orifices' ? { ...e, dischargeCoefficient: e.dischargeCoefficient / Math.sqrt(by) } : e
}
