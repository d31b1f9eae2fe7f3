import { OutOfRange, requireRange, type At } from '../errors'
import { FILTERS, type FilterKind } from '../kinds'
import { packVolume, type Medium } from '../media'
import {
  fillableHeight,
  sectionWidths,
  solidVolume,
  type Chamber,
  type ChamberRole,
  type Way,
} from '../volumes'

/** How the amount of a layer is given: its thickness (m), litres (m³), kilograms dry, or whole packs as they come. */
export const MEASURES = ['height', 'volume', 'mass', 'packs'] as const
export type Measure = (typeof MEASURES)[number]

/** A layer of one medium in a chamber. Layers of a chamber stand in the order the water meets them. */
export interface FillLayer {
  readonly id: string
  readonly chamberId: string
  readonly mediumId: string
  readonly measure: Measure
  readonly amount: number
  readonly bagged: boolean
  /** Gap between the layer and the chamber's wall, all round (m). */
  readonly gap: number
  /** False when the gap runs on beside the next layer; true when the next layer covers it. */
  readonly crossed: boolean
  /** True when it is cut to reach the wall outside its chamber and closes the gap round it. */
  readonly sealed: boolean
  /** Share of the dirt it can hold that is in it, 0 clean to below 1 blind. */
  readonly fouled: number
}

export const FILL_BASES = ['as-shipped', 'proposed', 'variant'] as const
export type FillBasis = (typeof FILL_BASES)[number]

/** A named arrangement of media. */
export interface Fill {
  readonly id: string
  readonly name: string
  readonly basis: FillBasis
  readonly layers: readonly FillLayer[]
}

/** Chambers that may be filled. */
const FILLABLE: readonly ChamberRole[] = [
  'pre-filter',
  'tray',
  'cartridge-slot',
  'compartment',
  'settling-void',
]
export const isFillable = (c: Pick<Chamber, 'role'>): boolean => FILLABLE.includes(c.role)

/** Which way water runs through a chamber of a kind unless it is said otherwise. */
export function wayOf(kind: FilterKind, c: Chamber): Way {
  if (c.way) return c.way
  const { byGravity, way } = FILTERS[kind]
  return byGravity && c.role === 'pre-filter' ? 'down' : way
}

/** Does a chamber stand beside the one before it? The sponges of an air sponge do. */
export const isBeside = (kind: FilterKind, c: Chamber, before: Chamber | undefined): boolean =>
  c.beside ??
  (FILTERS[kind].pairedSponges === true && c.role === 'pre-filter' && before?.role === 'pre-filter')

/** A chamber as the water meets it: length L along the flow and area A across it, m; perimeter P of A. */
export interface ChamberWay {
  readonly way: Way
  readonly length: number
  readonly area: number
  readonly perimeter: number
  /** Litres that may be filled (m³). */
  readonly usable: number
}

/**
 * Length, area and perimeter of a chamber across its flow; tapered chambers are taken as even over their height.
 * @throws OutOfRange naming the length at fault.
 */
export function chamberWay(kind: FilterKind, c: Chamber): ChamberWay {
  const way = wayOf(kind, c)
  const whole = solidVolume(c.solid)
  const limit = fillableHeight(c)
  const width = Math.max(sectionWidths(c.solid).foot, sectionWidths(c.solid).top)
  const area = whole / c.solid.height
  const depth = area / width
  const round = c.solid.shape === 'cylinder' || c.solid.shape === 'cone'
  const usable = Math.max(0, whole - (c.displaced ?? 0)) * (limit / c.solid.height)
  if (way === 'across')
    return { way, length: width, area: depth * limit, perimeter: 2 * (depth + limit), usable }
  if (way === 'inward') {
    const length = Math.min(width, depth) / 2
    return { way, length, area: usable / length, perimeter: 0, usable }
  }
  const perimeter = round ? Math.PI * Math.sqrt((4 * area) / Math.PI) : 2 * (width + depth)
  return { way, length: limit, area: usable / limit, perimeter, usable }
}

/** A layer in its place: where it begins along the flow, how thick it is, what is past the limit (m). */
export interface PlacedLayer {
  readonly layer: FillLayer
  readonly medium: Medium
  readonly from: number
  readonly thickness: number
  readonly area: number
  readonly perimeter: number
  readonly volume: number
  readonly mass: number
  readonly packs: number | null
  /** Gap the water finds beside it: its own, or an uncrossed one from the layer before (m). */
  readonly gap: number
  readonly over: number
}

/** A chamber with its layers in the order of the water and the length still free (m; negative when overfull). */
export interface PlacedChamber extends ChamberWay {
  readonly chamber: Chamber
  readonly layers: readonly PlacedLayer[]
  readonly free: number
}

const TOUCH = 1e-6

/**
 * Puts a fill's layers in their chambers. A layer of a chamber or medium that is gone is left out and named in `lost`.
 * @throws OutOfRange naming `layers[id].field`: an amount or gap that cannot be, as a gap wider than the tray.
 */
export function placeFill(
  kind: FilterKind,
  chambers: readonly Chamber[],
  fill: Pick<Fill, 'layers'>,
  media: readonly Medium[],
): { readonly chambers: readonly PlacedChamber[]; readonly lost: readonly FillLayer[] } {
  const byId = new Map(media.map((m) => [m.id, m]))
  const lost = fill.layers.filter((l) => !byId.has(l.mediumId) || !chambers.some((c) => c.id === l.chamberId))
  return {
    lost,
    chambers: chambers.map((chamber) => {
      const way = chamberWay(kind, chamber)
      let from = 0
      let open = 0
      const layers = fill.layers.flatMap((layer): PlacedLayer[] => {
        const medium = byId.get(layer.mediumId)
        if (layer.chamberId !== chamber.id || !medium) return []
        const placed = placeLayer(layer, medium, way, from, open)
        from += placed.thickness
        open = layer.crossed ? 0 : placed.gap
        return [placed]
      })
      return { ...way, chamber, layers, free: way.length - from }
    }),
  }
}

function placeLayer(
  layer: FillLayer,
  medium: Medium,
  way: ChamberWay,
  from: number,
  open: number,
): PlacedLayer {
  const at = (field: string): At => ({ what: 'layers', id: layer.id, field })
  requireRange(at('gap'), layer.gap, { min: 0, max: 0.5, unit: 'm' })
  requireRange(at('fouled'), layer.fouled, { min: 0, max: 0.999 })
  const area = way.area - layer.gap * way.perimeter
  if (!(area > 0))
    throw new OutOfRange(at('gap'), layer.gap, {
      words: `less than ${Math.round((way.area / way.perimeter) * 1000)} mm: a wider gap leaves nothing of ${medium.name}`,
    })
  requireRange(at('amount'), layer.amount, { min: 1e-9, max: 1000 })
  const pack = packVolume(medium)
  if (layer.measure === 'packs' && pack === null && medium.sheetThickness === null)
    throw new OutOfRange(at('measure'), layer.amount, {
      words: `height, litres or kilograms: no pack size of ${medium.name} is known`,
    })
  const sheet = medium.sheetThickness
  const thickness = {
    height: () => layer.amount,
    volume: () => layer.amount / area,
    mass: () => layer.amount / medium.bulkDensity / area,
    packs: () => (sheet !== null ? layer.amount * sheet : (layer.amount * (pack ?? 0)) / area),
  }[layer.measure]()
  const volume = thickness * area
  return {
    layer,
    medium,
    from,
    thickness,
    area,
    perimeter: way.perimeter,
    volume,
    mass: volume * medium.bulkDensity,
    packs: pack === null ? null : volume / pack,
    gap: Math.max(layer.gap, open),
    over: Math.max(0, from + thickness - way.length - TOUCH),
  }
}
