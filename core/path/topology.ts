import { nameOf } from '../figures'
import { FILTERS } from '../kinds'
import { isBeside, placeFill, type PlacedChamber, type PlacedLayer } from '../fills'
import { bodyPosition } from '../kinds'
import { boreArea, type Segment } from '../hydraulics'
import { STANDARD_GRAVITY } from '../water'
import { netStaticHead } from '../duty'
import { resistanceOf, SLOT_ENTRY_EXIT } from '../media'
import { CoreError, requireRange } from '../errors'
import { segmentElement, takesHead, type Element, type Network } from '../network'
import { waterProperties } from '../water'
import type { PathCase } from './case'

/** Part of the filter that an element of the network stands for. */
export type PathPart =
  | { readonly what: 'pump' | 'rest' | 'second' }
  | { readonly what: 'segment'; readonly segmentId: string }
  | { readonly what: 'layer'; readonly layerId: string; readonly chamberId: string }
  | { readonly what: 'gap'; readonly chamberId: string; readonly layerIds: readonly string[] }
  | { readonly what: 'wall'; readonly chamberId: string; readonly layerIds: readonly string[] }
  | { readonly what: 'spill'; readonly chamberId: string }

/** A filter as networks: the pumped one and, in a sump, the one that runs by gravity at the pump's flow. */
export interface Topology {
  readonly pumped: Network
  /** Media the water falls through on its own; its flow comes in at `inlet`. */
  readonly gravity: { readonly network: Network; readonly inlet: string } | null
  readonly parts: ReadonlyMap<string, PathPart>
  readonly chambers: readonly PlacedChamber[]
  readonly lost: readonly { readonly id: string }[]
  readonly staticHead: number
}

/** Bore (m) in whose velocity heads a body's own loss is counted. */
export const BODY_BORE = 0.016

/** Loss of trays and grids (m per (m³/s)²) in velocity heads of {@link BODY_BORE}: K = 2g A² · rest. */
export const restCoefficient = (rest: number): number =>
  rest * 2 * STANDARD_GRAVITY * boreArea(BODY_BORE) ** 2

/** Opening of a weir once it spills (m) and its discharge coefficient (common practice, no source). */
const SPILL = { opening: 0.01, discharge: 0.6 } as const

/** Inertial coefficient (1/m) beyond which nothing changes in a flow that slow. */
const MOST_INERTIA = 1e7

/** Share of its permeability a layer keeps when `fouled` of its dirt capacity is used: (1 − σ/σ_max)³. */
export const fouledShare = (fouled: number): number => (1 - fouled) * (1 - fouled) * (1 - fouled)

/**
 * Turns chambers, fill and hookup into a network: hose pieces before the body, chambers in flow order with the pump in
 * its place, each layer with the gap beside it, each chamber with the gap round it and its weir, then the pieces after.
 * @throws OutOfRange naming `layers[id].field`, `media[id].permeability` or `chambers[id].field`.
 */
export function topologyOf(c: PathCase): Topology {
  const { chambers, lost } = placeFill(c.kind, c.chambers, c.fill, c.media)
  const parts = new Map<string, PathPart>()
  const { kinematicViscosity } = waterProperties({ temperature: c.temperature, salinity: c.salinity ?? 0 })
  const fluid = { kinematicViscosity }
  const staticHead = c.hookup ? netStaticHead(c.hookup).head : 0
  const byGravity = FILTERS[c.kind].byGravity ?? false
  const pumped = new Line('source')
  const add = (line: Line, e: Element, part: PathPart): void => {
    line.elements.push(e)
    parts.set(e.id, part)
  }
  const segments = (c.hookup?.segments ?? []).filter(takesHead)
  const split = byGravity ? 0 : bodyPosition(c.kind, segments)
  const put = (s: Segment): void => {
    add(pumped, segmentElement(s, { id: `seg:${s.id}`, ...pumped.step() }), {
      what: 'segment',
      segmentId: s.id,
    })
  }
  segments.slice(0, split).forEach(put)
  const before = pumped.at
  const gravity = new Line('inlet')
  const media = byGravity ? gravity : pumped
  const pump = (): void =>
    add(
      pumped,
      { kind: 'pump', id: 'pump', label: 'Pump', pump: c.drive.pump, ...pumped.step() },
      { what: 'pump' },
    )
  let driven = byGravity
  if (byGravity) pump()
  for (const group of groups(c.kind, chambers)) {
    const from = media.at
    const to = media.next()
    let filled = false
    for (const chamber of group) {
      if (chamber.chamber.role === 'pump-well' && !driven) {
        driven = true
        media.at = from
        pump()
        filled = true
        continue
      }
      if (!chamber.layers.length) continue
      filled = true
      chamberElements(media, chamber, from, to, add)
    }
    if (!filled) media.at = from
    else if (group.every((g) => g.chamber.role !== 'pump-well')) media.at = to
  }
  if (!driven) pump()
  if (c.rest > 0) {
    add(
      pumped,
      {
        kind: 'fitting',
        id: 'rest',
        label: 'Filter body',
        lossCoefficient: restCoefficient(c.rest),
        diameter: BODY_BORE,
        count: 1,
        ...pumped.step(),
      },
      { what: 'rest' },
    )
  }
  if (c.second) addSecond(pumped, c.second, before, add)
  segments.slice(split).forEach(put)
  if (pumped.elements.at(-1)) renameEnd(pumped, 'return')
  if (byGravity && gravity.elements.length) renameEnd(gravity, 'well')
  return {
    pumped: { elements: pumped.elements, heads: { source: 0, return: staticHead }, fluid },
    gravity: gravity.elements.length
      ? { network: { elements: gravity.elements, heads: { well: 0 }, fluid }, inlet: 'inlet' }
      : null,
    parts,
    chambers,
    lost,
    staticHead,
  }
}

/** Elements in a row, with a name for each node between them. */
class Line {
  readonly elements: Element[] = []
  private count = 0
  constructor(public at: string) {}
  next(): string {
    return `${this.at === 'inlet' || this.at.startsWith('g') ? 'g' : 'n'}${++this.count}`
  }
  step(): { readonly from: string; readonly to: string } {
    const from = this.at
    this.at = this.next()
    return { from, to: this.at }
  }
}

/** The last node becomes open water. */
function renameEnd(line: Line, name: string): void {
  const end = line.at
  line.elements.forEach((e, i) => {
    line.elements[i] = {
      ...e,
      from: e.from === end ? name : e.from,
      to: e.to === end ? name : e.to,
    }
  })
  line.at = name
}

/** Chambers that stand beside each other share their two ends. */
export function groups(
  kind: PathCase['kind'],
  chambers: readonly PlacedChamber[],
): readonly (readonly PlacedChamber[])[] {
  const out: PlacedChamber[][] = []
  chambers.forEach((chamber, i) => {
    const last = out.at(-1)
    if (last && isBeside(kind, chamber.chamber, chambers[i - 1]?.chamber)) last.push(chamber)
    else out.push([chamber])
  })
  return out
}

function chamberElements(
  line: Line,
  placed: PlacedChamber,
  from: string,
  to: string,
  add: (line: Line, e: Element, part: PathPart) => void,
): void {
  const { chamber, layers } = placed
  const chamberId = chamber.id
  let at = from
  const ends: (readonly [from: string, to: string])[] = []
  layers.forEach((l, i) => {
    const end = i === layers.length - 1 ? to : line.next()
    ends.push([at, end])
    layerElement(line, l, at, end, add, chamberId)
    at = end
  })
  gapSlots(line, layers, ends, add, chamberId)
  if (chamber.wallGap) wallSlots(line, placed, from, to, add)
  if (chamber.overflowSill) {
    const width = Math.max(0.01, placed.perimeter / 4)
    const open = SPILL.discharge * width * SPILL.opening
    add(
      line,
      {
        kind: 'weir',
        id: `spill:${chamberId}`,
        label: `Overflow of ${nameOf(chamber.name)}`,
        from,
        to,
        sill: chamber.overflowSill,
        resistance: 1 / (2 * STANDARD_GRAVITY * open * open),
      },
      { what: 'spill', chamberId },
    )
  }
}

/**
 * The gaps beside layers. Where one runs on at the same width past the next layer, both share one slot, entered and
 * left once: a bed is the same however many layers it is entered as.
 */
function gapSlots(
  line: Line,
  layers: readonly PlacedLayer[],
  ends: readonly (readonly [from: string, to: string])[],
  add: (line: Line, e: Element, part: PathPart) => void,
  chamberId: string,
): void {
  for (let start = 0; start < layers.length;) {
    const first = layers[start]
    let stop = start + 1
    while (first && layers[stop]?.gap === first.gap) stop++
    const run = layers.slice(start, stop)
    const [from, to] = [ends[start]?.[0], ends[stop - 1]?.[1]]
    if (first && first.gap > 0 && first.perimeter > 0 && from && to)
      add(
        line,
        {
          kind: 'slot',
          id: `gap:${first.layer.id}`,
          label: `Gap at ${nameOf(first.medium.name)}`,
          from,
          to,
          gap: first.gap,
          perimeter: first.perimeter,
          length: run.reduce((sum, l) => sum + l.thickness, 0),
          lossCoefficient: SLOT_ENTRY_EXIT,
        },
        { what: 'gap', chamberId, layerIds: run.map((l) => l.layer.id) },
      )
    start = stop
  }
}

/** The gap round a chamber, beside each run of layers between those that are cut to reach the wall. */
function wallSlots(
  line: Line,
  { chamber, layers, perimeter }: PlacedChamber,
  from: string,
  to: string,
  add: (line: Line, e: Element, part: PathPart) => void,
): void {
  const gap = requireRange({ what: 'chambers', id: chamber.id, field: 'wallGap' }, chamber.wallGap ?? 0, {
    min: 1e-5,
    max: 0.1,
    unit: 'm',
  })
  const ends = layers.map((l) => line.elements.find((e) => e.id === `layer:${l.layer.id}`))
  let start = 0
  layers.forEach((l, i) => {
    if (!l.layer.sealed && i < layers.length - 1) return
    const stop = l.layer.sealed ? i : i + 1
    const run = layers.slice(start, stop)
    const [first, last] = [ends[start], ends[stop - 1]]
    if (run.length && first && last)
      add(
        line,
        {
          kind: 'slot',
          id: `wall:${chamber.id}:${start}`,
          label: `Gap around ${nameOf(chamber.name)}`,
          from: start === 0 ? from : first.from,
          to: stop === layers.length ? to : last.to,
          gap,
          perimeter: perimeter / 2,
          length: run.reduce((sum, x) => sum + x.thickness, 0),
          lossCoefficient: SLOT_ENTRY_EXIT,
        },
        { what: 'wall', chamberId: chamber.id, layerIds: run.map((x) => x.layer.id) },
      )
    start = i + 1
  })
}

function layerElement(
  line: Line,
  l: PlacedLayer,
  from: string,
  to: string,
  add: (line: Line, e: Element, part: PathPart) => void,
  chamberId: string,
): void {
  const layerId = l.layer.id
  let r: ReturnType<typeof resistanceOf>
  try {
    r = resistanceOf(l.medium)
  } catch (error) {
    if (!(error instanceof CoreError)) throw error
    throw error.inside('media', l.medium.id)
  }
  const keeps = fouledShare(l.layer.fouled)
  add(
    line,
    {
      kind: 'layer',
      id: `layer:${layerId}`,
      label: l.medium.name,
      from,
      to,
      thickness: l.thickness,
      area: l.area,
      permeability: r.permeability * keeps,
      // A mat nearly full of dirt is all friction: no more than the network can be given.
      inertia: Math.min(MOST_INERTIA, r.inertia / Math.sqrt(keeps)),
    },
    { what: 'layer', layerId, chamberId },
  )
}

/** A second filter: behind this one, or in a branch from where the suction ends to where the return begins. */
function addSecond(
  line: Line,
  s: NonNullable<PathCase['second']>,
  before: string,
  add: (line: Line, e: Element, part: PathPart) => void,
): void {
  const body = {
    kind: 'fitting',
    label: s.label,
    lossCoefficient: s.lossCoefficient,
    diameter: BODY_BORE,
    count: 1,
  } as const
  const pump = {
    kind: 'pump',
    id: 'second-pump',
    label: `Pump of ${s.label}`,
    pump: { shutOffHead: s.shutOffHead, maxFlow: s.maxFlow, exponent: s.exponent },
  } as const
  if (s.arrangement === 'series') {
    if (s.running) add(line, { ...pump, ...line.step() }, { what: 'second' })
    add(line, { ...body, id: 'second-body', ...line.step() }, { what: 'second' })
    return
  }
  const after = line.at
  const middle = s.running ? line.next() : before
  if (s.running) add(line, { ...pump, from: before, to: middle }, { what: 'second' })
  add(line, { ...body, id: 'second-body', from: middle, to: after }, { what: 'second' })
}
