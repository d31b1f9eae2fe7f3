import { layerCounts, type PlacedLayer } from '../fills'
import { FILTERS } from '../kinds'
import { prepareNetwork, type Element, type LayerElement, type Network } from '../network'
import { topologyOf, type PathCase, type Topology } from '../path'
import { isStraining, resistanceOf, type Medium } from '../media'
import { collectorOf, type Collector } from './capture'

/** A sponge over the intake, or a layer of a pre-filter on the hose: one more ahead of all others (m). */
export interface IntakeLayer {
  readonly medium: Medium
  readonly thickness: number
  readonly area: number
  /** Does it stand in the tank, where plants and animals eat of it? */
  readonly inTank: boolean
}
/** Id of the layers ahead of the body, in the order of the water. */
export const intakeId = (i: number): string => `intake-${i + 1}`

/** A layer as the dirt meets it. */
export interface DirtyLayer {
  readonly id: string
  readonly label: string
  readonly medium: Medium
  readonly placed: PlacedLayer | null
  readonly chamberId: string | null
  readonly thickness: number
  readonly area: number
  readonly collector: Collector | null
  /** Share of the bed that is water, and can fill with dirt. */
  readonly voids: number
  readonly strains: boolean
  /** Does it count as biological? */
  readonly counts: boolean
  readonly inTank: boolean
  /** Share of what it holds that was in it when the forecast begins. */
  readonly fouled: number
}

/** Water and head at one moment; flows by the element’s place in `elements`. */
export interface FlowState {
  readonly flow: number
  readonly flows: readonly number[]
  /** Head lost (m) in an element, by its place in `elements`. */
  readonly lossIn: (i: number) => number
}

/** A filter whose layers can be made denser, and the order in which its water comes by. */
export interface Waterways {
  readonly topology: Topology
  readonly layers: readonly DirtyLayer[]
  readonly elements: readonly Element[]
  /** For each layer its element’s place in `elements`. */
  readonly at: readonly number[]
  /** Node where the water of the tank comes in, and where it leaves. */
  readonly source: string
  readonly sink: string
  /** Solves it with each layer keeping a share of its clean permeability. */
  readonly run: (keeps: readonly number[]) => FlowState
}

/** Water stands so high in a chamber it falls through before it goes over the top, where no weir was noted (m). */
const OVER_THE_TOP = 0.1

/** Voids between fibres, struts or grains. */
function voidsOf(m: Medium, c: Collector | null): number {
  if (c) return 1 - c.solidity
  return m.voidage ?? 0.5
}

/**
 * Lays a filter out for a forecast: its network, with the layers ahead of it where there are some, and all clean.
 * @throws OutOfRange, BadNetwork: see `topologyOf`.
 */
export function waterwaysOf(c: PathCase, intake: readonly IntakeLayer[]): Waterways {
  const byGravity = FILTERS[c.kind].byGravity ?? false
  const clean: PathCase = {
    ...c,
    fill: { ...c.fill, layers: c.fill.layers.map((l) => ({ ...l, fouled: 0 })) },
    // Media the water falls through cannot hold it back: it goes over the top.
    ...(byGravity && {
      chambers: c.chambers.map((x) => ({ ...x, overflowSill: x.overflowSill ?? OVER_THE_TOP })),
    }),
  }
  const topology = topologyOf(clean)
  const fouled = new Map(c.fill.layers.map((l) => [l.id, l.fouled]))
  const main: Network = (byGravity ? topology.gravity?.network : null) ?? topology.pumped
  const source = byGravity && topology.gravity ? topology.gravity.inlet : 'source'
  const sink = byGravity && topology.gravity ? 'well' : 'return'
  const elements = withIntake(main.elements, source, intake)
  const placed = topology.chambers.flatMap((chamber) =>
    chamber.layers.map((l) => ({ l, chamberId: chamber.chamber.id })),
  )
  const own = placed.map(({ l, chamberId }): DirtyLayer => {
    const collector = collectorOf(l.medium)
    return {
      id: l.layer.id,
      label: l.medium.name,
      medium: l.medium,
      placed: l,
      chamberId,
      thickness: l.thickness,
      area: l.area,
      collector,
      voids: voidsOf(l.medium, collector),
      strains: isStraining(l.medium),
      counts: layerCounts(c.kind, l.medium),
      inTank: false,
      fouled: fouled.get(l.layer.id) ?? 0,
    }
  })
  const layers = [...intake.map(intakeLayer), ...own]
  const at = layers.map((l) => elements.findIndex((e) => e.id === `layer:${l.id}`))
  const solve =
    byGravity && topology.gravity ? falls(topology, elements, source) : pumps({ ...main, elements }, sink)
  const run = (keeps: readonly number[]): FlowState => {
    const now = elements.slice()
    for (let i = 0; i < at.length; i++) {
      const place = at[i] as number
      const e = now[place] as LayerElement
      const keep = keeps[i] as number
      now[place] = { ...e, permeability: e.permeability * keep, inertia: e.inertia / Math.sqrt(keep) }
    }
    return solve(now)
  }
  return { topology, layers, elements, at, source, sink, run }
}

const intakeLayer = (i: IntakeLayer, place: number): DirtyLayer => {
  const collector = collectorOf(i.medium)
  return {
    id: intakeId(place),
    label: i.inTank ? `${i.medium.name} over the intake` : `${i.medium.name} in a pre-filter`,
    medium: i.medium,
    placed: null,
    chamberId: null,
    thickness: i.thickness,
    area: i.area,
    collector,
    voids: voidsOf(i.medium, collector),
    strains: true,
    counts: false,
    inTank: i.inTank,
    fouled: 0,
  }
}

/** Layers ahead of all others: what left the source leaves it behind the last of them. */
function withIntake(
  elements: readonly Element[],
  source: string,
  intake: readonly IntakeLayer[],
): readonly Element[] {
  if (!intake.length) return elements
  const node = (i: number): string => (i === 0 ? source : `${source}+${i}`)
  const ahead = intake.map((l, i): LayerElement => {
    const { permeability, inertia } = resistanceOf(l.medium)
    return {
      kind: 'layer',
      id: `layer:${intakeId(i)}`,
      label: l.medium.name,
      from: node(i),
      to: node(i + 1),
      thickness: l.thickness,
      area: l.area,
      permeability,
      inertia,
    }
  })
  const after = node(intake.length)
  return [...ahead, ...elements.map((e) => (e.from === source ? { ...e, from: after } : e))]
}

/** A filter at one moment, by its elements as they are then. */
type Solve = (elements: readonly Element[]) => FlowState

/** A pumped network: what comes out at its end is the flow. */
function pumps(network: Network, sink: string): Solve {
  const solve = prepareNetwork(network)
  const out = network.elements.flatMap((e, i) => (e.to === sink ? [i] : []))
  return (elements) => {
    const solution = solve(elements)
    const flow = out.reduce((sum, i) => sum + (solution.flows[i] as number), 0)
    return { flow: Math.max(0, flow), flows: solution.flows, lossIn: (i) => solution.lossIn(i) }
  }
}

/** Media the water falls through: the pump’s flow comes in above them, whatever stands in its way. */
function falls(topology: Topology, elements: readonly Element[], inlet: string): Solve {
  const { flow } = pumps(topology.pumped, 'return')(topology.pumped.elements)
  const gravity = topology.gravity as NonNullable<Topology['gravity']>
  const solve = prepareNetwork({
    ...gravity.network,
    elements,
    inflows: { [inlet]: Math.max(flow, 1e-12) },
  })
  return (now) => {
    const solution = solve(now)
    return { flow, flows: solution.flows, lossIn: (i) => solution.lossIn(i) }
  }
}
