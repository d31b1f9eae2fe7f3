import { OutOfRange, requirePositive, requireRange } from '../errors'

/** Inside shapes of a tank, all lengths in m. */
export type TankShape =
  | { readonly shape: 'box'; readonly length: number; readonly width: number; readonly height: number }
  | { readonly shape: 'cylinder'; readonly diameter: number; readonly height: number }
  /** A box whose front bows out: `width` at the ends, `bowWidth` in the middle. */
  | {
      readonly shape: 'bow-front'
      readonly length: number
      readonly width: number
      readonly bowWidth: number
      readonly height: number
    }
  /** Two equal sides against the walls; end panels of `endPanel` (0 for none); the front flat or a quarter round. */
  | {
      readonly shape: 'corner'
      readonly side: number
      readonly endPanel: number
      readonly front: 'flat' | 'curved'
      readonly height: number
    }

/** Contents of the tank besides water. */
export interface TankFill {
  /** Height of the water above the inside bottom (m); the tank's height if absent. */
  readonly waterLevel?: number
  readonly substrateDepth?: number
  /** Share of the substrate that is water between the grains; about 0.4 for gravel and sand. */
  readonly substratePorosity?: number
  /** Volume of rock and wood (m³). */
  readonly decorVolume?: number
}

/** The water in a tank and where the rest went, m³. */
export interface TankVolume {
  readonly floorArea: number
  readonly gross: number
  readonly toLevel: number
  readonly substrate: number
  readonly decor: number
  readonly water: number
}

/** Porosity assumed for gravel and sand (common practice, no source). */
export const GRAVEL_POROSITY = 0.4

const quarter = Math.PI / 4

/**
 * Inside floor area of a tank (m²). The bow is a circular segment: chord the length, rise the extra width.
 * Source: plane mensuration (any handbook); segment area R²(θ − sin θ)/2.
 * @throws OutOfRange naming the dimension.
 */
export function floorArea(tank: TankShape): number {
  const size = { max: 20, unit: 'm' }
  const positive = (field: string, v: number): number =>
    requireRange(field, requirePositive(field, v, 'm'), size)
  switch (tank.shape) {
    case 'box':
      return positive('length', tank.length) * positive('width', tank.width)
    case 'cylinder':
      return quarter * positive('diameter', tank.diameter) ** 2
    case 'bow-front': {
      const chord = positive('length', tank.length)
      const width = positive('width', tank.width)
      const rise = tank.bowWidth - width
      if (rise < 0 || rise > (chord / 2) * (1 + 1e-9))
        throw new OutOfRange('bowWidth', tank.bowWidth, {
          words: 'no less than the width, and at most half the length more',
        })
      return chord * width + segmentArea(chord, rise)
    }
    case 'corner': {
      const side = positive('side', tank.side)
      const end = requireRange('endPanel', tank.endPanel, { min: 0, max: side, unit: 'm' })
      const cut = tank.front === 'flat' ? 0.5 : 1 - quarter
      return side * side - cut * (side - end) ** 2
    }
  }
}

/** Extent of a tank seen from above (m): along and across. */
export function tankExtent(tank: TankShape): { readonly length: number; readonly width: number } {
  switch (tank.shape) {
    case 'box':
      return { length: tank.length, width: tank.width }
    case 'bow-front':
      return { length: tank.length, width: tank.bowWidth }
    case 'cylinder':
      return { length: tank.diameter, width: tank.diameter }
    case 'corner':
      return { length: tank.side, width: tank.side }
  }
}

/** Area (m²) of a circular segment with the given chord and rise (m). */
export function segmentArea(chord: number, rise: number): number {
  if (rise === 0) return 0
  const radius = (chord * chord) / (8 * rise) + rise / 2
  const theta = 2 * Math.asin(Math.min(1, chord / (2 * radius)))
  return (radius * radius * (theta - Math.sin(theta))) / 2
}

/**
 * Water in a tank (m³): floor area × level, less the solid part of the substrate and the décor.
 * @throws OutOfRange naming `waterLevel`, `substrateDepth`, `decorVolume`… when one does not fit in the other.
 */
export function tankVolume(tank: TankShape, fill: TankFill = {}): TankVolume {
  const floor = floorArea(tank)
  const height = requireRange('height', requirePositive('height', tank.height, 'm'), { max: 20, unit: 'm' })
  const level = fill.waterLevel ?? height
  if (!(level > 0 && level <= height))
    throw new OutOfRange('waterLevel', level, {
      words: `above the bottom and no higher than the tank (${height} m)`,
    })
  const depth = fill.substrateDepth ?? 0
  if (!(depth >= 0 && depth < level))
    throw new OutOfRange('substrateDepth', depth, { words: `less than the water level (${level} m)` })
  const porosity = requireRange('substratePorosity', fill.substratePorosity ?? GRAVEL_POROSITY, {
    min: 0,
    max: 0.95,
  })
  const substrate = floor * depth * (1 - porosity)
  const toLevel = floor * level
  const decor = fill.decorVolume ?? 0
  if (!(decor >= 0 && decor < toLevel - substrate))
    throw new OutOfRange('decorVolume', decor, {
      words: `less than the water it stands in (${((toLevel - substrate) * 1000).toFixed(1)} L)`,
    })
  return {
    floorArea: floor,
    gross: floor * height,
    toLevel,
    substrate,
    decor,
    water: toLevel - substrate - decor,
  }
}
