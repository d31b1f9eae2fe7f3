import {
  layerCounts,
  listCost,
  shoppingList,
  weighFill,
  type FillWeights,
  type PlacedChamber,
  type PlacedLayer,
  type ShoppingLine,
} from '../fills'
import { isStraining } from '../media'
import type { Element, ElementResult } from '../network'
import { capacityOf, type Capacity, type StockClass } from '../tanks'
import { volumeAudit } from '../volumes'
import type { PathCase } from './case'
import { expandedUncertainty } from './doubt'
import { filmsOf, filmWorth, type FilmWorth } from './films'
import { outletOf } from './outlet'
import { solved, type Solved } from './flow'
import { meets } from './meets'
import { heldFlow, reachingTo } from './supposed'
import { topologyOf, type PathPart, type Topology } from './topology'

/** Water through one layer and past it. Flows m³/s, heads m. */
export interface LayerFlow {
  readonly placed: PlacedLayer
  readonly chamber: PlacedChamber
  readonly through: number
  readonly past: number
  /** Share of the water of its chamber that goes round it. */
  readonly bypassFraction: number
  readonly head: number
  /** Velocity before the layer (m/s) and seconds in it as if it were empty. */
  readonly velocity: number
  readonly contact: number
  /** Kinematic viscosity of the water (m²/s). */
  readonly viscosity: number
  /** Does it count towards capacity? */
  readonly counts: boolean
}

/** One way of the water beside the media: a gap, the wall, a weir. */
export interface SideFlow {
  readonly part: Extract<PathPart, { what: 'gap' | 'wall' | 'spill' }>
  readonly label: string
  readonly flow: number
  readonly share: number
}

/** A line of the head budget. */
export interface PathLine {
  readonly id: string
  readonly label: string
  readonly part: PathPart | { readonly what: 'lift' }
  readonly head: number
}

/** Everything a fill comes to on a hookup. */
export interface Outcome {
  readonly case: PathCase
  readonly topology: Topology
  readonly flow: number
  readonly uncertainty: number
  /** Head the pump gives; with that of a second one in the same run. */
  readonly pumpHead: number
  readonly layers: readonly LayerFlow[]
  readonly sides: readonly SideFlow[]
  readonly budget: readonly PathLine[]
  /** Flow through the second filter; negative where it runs back. */
  readonly second: number | null
  readonly weights: FillWeights
  readonly shopping: readonly ShoppingLine[]
  readonly cost: ReturnType<typeof listCost>
  /** Share of the water that meets biological media. */
  readonly meetsMedia: number
  /** Largest share that goes round a straining layer no other straining layer of its job makes good; 0 without any. */
  readonly unstrained: number
  /** Kilograms of good sintered media it is worth, and what a weighed mass made of the computed one. */
  readonly worth: Worth
  readonly capacity: Capacity
}

/** Films on the scale of all fills, and weighed ÷ computed mass of its media where they were weighed. */
export interface Worth extends FilmWorth {
  readonly calibration: number | null
}

/** A weighed mass says how much of the media the litres really hold: their usable surface goes with it. */
function calibrationOf(c: PathCase, w: FillWeights): number | null {
  const weighed = c.weighed?.fillId === c.fill.id && w.biologicalMass > 0 ? c.weighed.mass : null
  return weighed === null ? null : weighed / w.biologicalMass
}

/** A case solved as it stands; over a usual run nobody described, with its curve brought to what may be said of it. */
function standing(c: PathCase): {
  readonly case: PathCase
  readonly topology: Topology
  readonly solution: Solved
  readonly held: number | null
} {
  const topology = topologyOf(c)
  const solution = solved(topology)
  if (!c.supposed || c.told || !(solution.flow > 0)) return { case: c, topology, solution, held: null }
  const { flow, uncertainty } = heldFlow(solution.flow, c.supposed.within)
  const brought = reachingTo(c, flow)
  const over = topologyOf(brought)
  return { case: brought, topology: over, solution: solved(over), held: uncertainty }
}

/**
 * Works a fill through: the network solved, the water shared out, the head spent, litres, kilograms, cost, capacity.
 * `quick` leaves the flow’s uncertainty out, for drags and searches.
 * @throws OutOfRange, BadNetwork: see {@link topologyOf} and solveNetwork.
 */
export function outcomeOf(given: PathCase, stock: StockClass, quick = false): Outcome {
  const { case: c, topology, solution, held } = standing(given)
  const { claimedMax } = c
  const { flow: net, results } = solution
  // What would run back through a pump that cannot lift is not delivered.
  const flow = Math.max(0, net)
  const passed = (id: string): number => Math.max(0, results.get(id)?.flow ?? 0)
  const ways = [...topology.parts].flatMap(([id, p]) =>
    p.what === 'wall' || p.what === 'gap' ? [{ id, layerIds: p.layerIds }] : [],
  )
  const beside = (layerId: string): number =>
    ways.reduce((sum, w) => sum + (w.layerIds.includes(layerId) ? passed(w.id) : 0), 0)
  const sides: SideFlow[] = []
  const layers: LayerFlow[] = []
  for (const chamber of topology.chambers) {
    const id = chamber.chamber.id
    for (const placed of chamber.layers) {
      const through = passed(`layer:${placed.layer.id}`)
      const past = passed(`spill:${id}`) + beside(placed.layer.id)
      const all = through + past
      layers.push({
        placed,
        chamber,
        through,
        past,
        bypassFraction: all > 0 ? past / all : 0,
        head: results.get(`layer:${placed.layer.id}`)?.loss ?? 0,
        velocity: through / placed.area,
        contact: through > 0 ? placed.volume / through : Infinity,
        viscosity: topology.pumped.fluid.kinematicViscosity,
        counts: layerCounts(c.kind, placed.medium),
      })
    }
  }
  for (const [id, part] of topology.parts) {
    if (part.what !== 'gap' && part.what !== 'wall' && part.what !== 'spill') continue
    const q = passed(id)
    const label = results.get(id)?.element.label ?? ''
    sides.push({ part, label, flow: q, share: flow > 0 ? q / flow : 0 })
  }
  const weights = weighFill(c.kind, topology.chambers, c.body, volumeAudit(c.chambers, c.body).water)
  const shopping = shoppingList(topology.chambers)
  const uncertainty = held ?? (quick || !(flow > 0) ? 0 : expandedUncertainty(c, flow))
  const calibration = calibrationOf(c, weights)
  const filled = { flow, layers, worth: { calibration } }
  const worth = { ...filmWorth(filled), calibration }
  const meetsMedia = meets(c.kind, topology, passed, flow)
  const straining = layers.filter((l) => isStraining(l.placed.medium))
  const jobs = [...new Set(straining.map((l) => l.placed.medium.job))]
  const gives = (id: string): number => Math.max(0, -(results.get(id)?.loss ?? 0))
  const inRow = c.second?.arrangement === 'series'
  const pumpHead = gives('pump') + (inRow ? gives('second-pump') : 0)
  return {
    case: c,
    topology,
    flow,
    uncertainty,
    pumpHead,
    layers,
    sides,
    budget: budget(topology, results, inRow),
    second: results.get('second-body')?.flow ?? null,
    weights,
    shopping,
    cost: listCost(shopping),
    meetsMedia,
    unstrained: Math.max(
      0,
      ...jobs.map((job) =>
        Math.min(...straining.filter((l) => l.placed.medium.job === job).map((l) => l.bypassFraction)),
      ),
    ),
    worth,
    capacity: capacityOf(
      {
        flow: { value: flow, uncertainty },
        mass: { value: worth.mass, uncertainty: worth.uncertainty },
        films: filmsOf(filled),
        outlet: outletOf(c.kind, c.hookup),
        ...(claimedMax && { claimedMax }),
      },
      stock,
    ),
  }
}

/** Layers along a way, in the order of the water: not round it, and not through another filter’s branch. */
function budget(
  topology: Topology,
  results: ReadonlyMap<string, ElementResult>,
  inRow: boolean,
): readonly PathLine[] {
  const lines: PathLine[] = []
  const onWay = (part: PathPart | undefined): boolean =>
    part !== undefined && !['gap', 'wall', 'spill'].includes(part.what) && (part.what !== 'second' || inRow)
  const next = new Map<string, Element>()
  // Where chambers stand side by side, the first stands for all: they take the same head.
  for (const e of topology.pumped.elements)
    if (!next.has(e.from) && onWay(topology.parts.get(e.id))) next.set(e.from, e)
  for (let e = next.get('source'); e; e = next.get(e.to)) {
    const part = topology.parts.get(e.id)
    if (part && e.kind !== 'pump')
      lines.push({ id: e.id, label: e.label, part, head: results.get(e.id)?.loss ?? 0 })
  }
  if (topology.staticHead > 0)
    lines.push({ id: 'lift', label: 'Lift', part: { what: 'lift' }, head: topology.staticHead })
  return lines
}
