import type { PlacedChamber, PlacedLayer } from '../fills'
import { layerCounts } from '../fills'
import type { FilterKind } from '../kinds'
import { groups, type PathPart, type Topology } from './topology'

/** Water on its way: its flow (m³/s) and the share of it that has met no biological layer yet. */
interface Stream {
  readonly flow: number
  readonly unmet: number
}
const NONE: Stream = { flow: 0, unmet: 0 }
const mixed = (streams: readonly Stream[]): Stream => {
  let [flow, unmet] = [0, 0]
  for (const s of streams) {
    flow += s.flow
    unmet += s.flow * s.unmet
  }
  return { flow, unmet: flow > 0 ? unmet / flow : 0 }
}
/** So much of a stream; never more than there is. */
const part = (s: Stream, flow: number): Stream => ({
  flow: Math.min(Math.max(0, flow), s.flow),
  unmet: s.unmet,
})
const rest = (s: Stream, taken: Stream): Stream => ({ flow: s.flow - taken.flow, unmet: s.unmet })

/** Flow through an element by its id, and through the gap beside a layer (m³/s). */
interface Flows {
  readonly passed: (id: string) => number
  readonly beside: (l: PlacedLayer) => number
}

type Wall = Extract<PathPart, { what: 'wall' }>

/**
 * Share of the water that meets at least one biological layer. Water is followed from the first layer to the last: what
 * goes round a layer stays a stream of its own beside the next one for as long as the gap runs on, and mixes with the
 * rest only where a layer or an end makes it. So a bed lets the same share past however many layers it is entered as.
 * `passed` gives the flow (m³/s) through an element by its id.
 */
export function meets(
  kind: FilterKind,
  topology: Topology,
  passed: (id: string) => number,
  flow: number,
): number {
  const counts = (l: PlacedLayer): boolean => layerCounts(kind, l.medium)
  if (!(flow > 0) || !topology.chambers.some((c) => c.layers.some(counts))) return 0
  const gapFlow = new Map(
    [...topology.parts].flatMap(([id, p]) =>
      p.what === 'gap' ? p.layerIds.map((l) => [l, passed(id)] as const) : [],
    ),
  )
  const flows: Flows = { passed, beside: (l) => gapFlow.get(l.layer.id) ?? 0 }
  const walls = [...topology.parts].flatMap(([id, p]) => (p.what === 'wall' ? [{ id, part: p }] : []))
  let all: Stream | null = null
  /** Water in the gap round a stack of trays, from one tray to the next. */
  let annulus = NONE
  for (const group of groups(kind, topology.chambers)) {
    const filled = group.filter((c) => c.layers.length > 0)
    if (!filled.length) {
      if (all) all = mixed([all, annulus])
      annulus = NONE
      continue
    }
    const alone = filled.length === 1 && group.length === 1
    const own = filled.map((c) => walls.filter((w) => w.part.chamberId === c.chamber.id))
    const stacked = alone && filled[0]?.chamber.role === 'tray' && (own[0]?.length ?? 0) > 0
    if (annulus.flow > 0 && !stacked) {
      all = mixed([all ?? NONE, annulus])
      annulus = NONE
    }
    const before: number = all?.unmet ?? 1
    const out = filled.map((c, i) => {
      const at =
        entering(c, flows) +
        (own[i] ?? []).filter((w) => startsAt(w.part, c)).reduce((s, w) => s + passed(w.id), 0)
      return through(
        c,
        own[i] ?? [],
        { flow: Math.max(0, at - (stacked ? annulus.flow : 0)), unmet: before },
        stacked ? annulus : NONE,
        flows,
        counts,
      )
    })
    all = mixed(out.map((o) => o.main))
    annulus = stacked ? (out[0]?.annulus ?? NONE) : NONE
    if (!stacked) all = mixed([all, ...out.map((o) => o.annulus)])
  }
  const end = mixed([all ?? NONE, annulus])
  return Math.min(1, ((1 - end.unmet) * end.flow) / flow)
}

/** Flow into a chamber's first layer, the gap beside it and over its weir. */
const entering = (c: PlacedChamber, { passed, beside }: Flows): number => {
  const first = c.layers[0]
  return (first ? passed(`layer:${first.layer.id}`) + beside(first) : 0) + passed(`spill:${c.chamber.id}`)
}
const startsAt = (w: Wall, c: PlacedChamber): boolean => w.layerIds[0] === c.layers[0]?.layer.id
const endsAt = (w: Wall, c: PlacedChamber): boolean => w.layerIds.at(-1) === c.layers.at(-1)?.layer.id

/** Water through one chamber: what comes out of it, and what is still in the gap round it at its end. */
function through(
  c: PlacedChamber,
  walls: readonly { readonly id: string; readonly part: Wall }[],
  into: Stream,
  annulus: Stream,
  flows: Flows,
  counts: (l: PlacedLayer) => boolean,
): { readonly main: Stream; readonly annulus: Stream } {
  const { passed } = flows
  const spill = part(into, passed(`spill:${c.chamber.id}`))
  let main = rest(into, spill)
  let gap = NONE
  let round = annulus
  c.layers.forEach((l, i) => {
    const ending = i > 0 && walls.some((w) => w.part.layerIds.at(-1) === c.layers[i - 1]?.layer.id)
    const starting = walls.find((w) => w.part.layerIds[0] === l.layer.id)
    if (ending) {
      main = mixed([main, gap, round])
      gap = round = NONE
    }
    if (starting) {
      const wanted = passed(starting.id)
      const kept = part(round, wanted)
      main = mixed([main, rest(round, kept)])
      const more = part(main, wanted - kept.flow)
      main = rest(main, more)
      round = mixed([kept, more])
    }
    if (!walls.some((w) => w.part.layerIds.includes(l.layer.id))) {
      main = mixed([main, round])
      round = NONE
    }
    // The stream beside the layer before goes on beside this one as far as there is a gap; the rest joins the layer.
    const beside = flows.beside(l)
    const kept = part(gap, beside)
    const pool = mixed([main, rest(gap, kept)])
    const more = part(pool, beside - kept.flow)
    gap = mixed([kept, more])
    const inLayer = rest(pool, more)
    main = counts(l) ? { flow: inLayer.flow, unmet: 0 } : inLayer
  })
  const out = mixed([main, gap, spill])
  const stays = walls.some((w) => endsAt(w.part, c))
  return stays ? { main: out, annulus: round } : { main: mixed([out, round]), annulus: NONE }
}
