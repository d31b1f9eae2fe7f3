import { OutOfRange, type Allowed } from '../errors'
import { STANDARD_GRAVITY } from '../water'
import type { FittingId } from './tables'
import { frictionFactor, reynolds, type Correlation } from './friction'

export { STANDARD_GRAVITY }

/** A length of hose or tube: length L, inner diameter D and wall roughness ε, all in m. */
export interface Hose {
  readonly kind: 'hose'
  readonly id: string
  readonly label: string
  readonly length: number
  readonly diameter: number
  readonly roughness: number
  /** Light comes through its wall; absent where nobody has said. */
  readonly clear?: boolean | undefined
}

/** Anything that costs K velocity heads in a bore of diameter D (m): strainer, bend, tap, barb, lip, exit. */
export interface Fitting {
  readonly kind: 'fitting'
  readonly id: string
  readonly label: string
  readonly lossCoefficient: number
  readonly diameter: number
  readonly count: number
  /** Its id in the catalogue of fittings; null or absent when nobody has said. */
  readonly catalogue?: FittingId | null | undefined
}

/** Several equal holes that share the flow: N holes of diameter d (m), discharge coefficient Cd. */
export interface SprayBar {
  readonly kind: 'spray-bar'
  readonly id: string
  readonly label: string
  readonly holes: number
  readonly holeDiameter: number
  readonly dischargeCoefficient: number
}

export type Segment = Hose | Fitting | SprayBar

/** The fluid and the conventions a loss is computed with. */
export interface Fluid {
  readonly kinematicViscosity: number
  readonly gravity?: number
  readonly correlation?: Correlation
}

/** Area (m²) of a round bore D (m). */
export const boreArea = (diameter: number): number => (Math.PI * diameter * diameter) / 4

/** Mean velocity v (m/s) of flow Q (m³/s) in a round bore D (m). */
export const velocity = (flow: number, diameter: number): number => flow / boreArea(diameter)

/**
 * Head lost in a hose, h = f (L/D) v²/2g (m): Darcy–Weisbach. Flow Q in m³/s; sign follows the flow.
 *
 * Source: Darcy–Weisbach as in any handbook, e.g. White, Fluid Mechanics, ch. 6.
 */
export function hoseLoss(flow: number, hose: Hose, fluid: Fluid): number {
  if (flow === 0) return 0
  const v = velocity(flow, hose.diameter)
  const f = frictionFactor(
    reynolds(flow, hose.diameter, fluid.kinematicViscosity),
    hose.roughness / hose.diameter,
    fluid.correlation,
  )
  return (f * (hose.length / hose.diameter) * v * Math.abs(v)) / (2 * (fluid.gravity ?? STANDARD_GRAVITY))
}

/** Head lost in a fitting, h = count · K v²/2g (m). */
export function minorLoss(flow: number, fitting: Fitting, gravity = STANDARD_GRAVITY): number {
  const v = velocity(flow, fitting.diameter)
  return (fitting.count * fitting.lossCoefficient * v * Math.abs(v)) / (2 * gravity)
}

/**
 * Head that pushes the flow through the holes, h = (Q / (Cd N a))² / 2g (m), a the area of one hole; the jets'
 * velocity head is in it, so no exit loss is added.
 *
 * Source: orifice discharge, e.g. Idelchik, Handbook of Hydraulic Resistance; Cd about 0.62 for a sharp hole.
 * Momentum recovery along the bar is neglected (bar area well above the holes' sum).
 */
export function sprayBarLoss(flow: number, bar: SprayBar, gravity = STANDARD_GRAVITY): number {
  const v = flow / (bar.dischargeCoefficient * bar.holes * boreArea(bar.holeDiameter))
  return (v * Math.abs(v)) / (2 * gravity)
}

/** Head lost (m) in any segment at flow Q (m³/s). */
export function segmentLoss(flow: number, segment: Segment, fluid: Fluid): number {
  switch (segment.kind) {
    case 'hose':
      return hoseLoss(flow, segment, fluid)
    case 'fitting':
      return minorLoss(flow, segment, fluid.gravity)
    case 'spray-bar':
      return sprayBarLoss(flow, segment, fluid.gravity)
  }
}

const inside = (v: number, min: number, max: number): boolean => v >= min && v <= max

/** Bores (m) that hoses, fittings and risers may have. */
export const BORE = { min: 0.002, max: 0.2, unit: 'm' } as const

/** Limits of each field of a segment, in SI, the one source of them: contract and screens take theirs from here. */
export const SEGMENT_LIMITS = {
  length: { min: 0, max: 100, unit: 'm' },
  diameter: BORE,
  lossCoefficient: { min: 0, max: 1e6, unit: 'velocity heads' },
  count: { min: 0, max: 100, unit: 'of them' },
  holes: { min: 1, max: 500, unit: 'holes' },
  holeDiameter: { min: 0.0005, max: 0.05, unit: 'm' },
  dischargeCoefficient: { min: 0.1, max: 1.2, unit: '(no unit)' },
} as const
/** A hose's roughness is at most this share of its bore: beyond a fifth there is no wall left to speak of. */
export const ROUGHEST = 0.2
const ROUGH: Allowed = { min: 0, words: 'at least 0 and at most a fifth of the bore' }
const FIELDS = {
  hose: ['length', 'diameter'],
  fitting: ['diameter', 'lossCoefficient', 'count'],
  'spray-bar': ['holes', 'holeDiameter', 'dischargeCoefficient'],
} as const

/** True when a wall of this roughness fits a bore (both m). */
export const roughnessFits = ({ roughness, diameter }: Pick<Hose, 'roughness' | 'diameter'>): boolean =>
  inside(roughness, 0, diameter * ROUGHEST)

/** The first field of a segment that cannot be computed with and what it may be, or null. */
function badField(s: Segment): readonly [field: string, allowed: Allowed] | null {
  const values: Readonly<Record<string, unknown>> = { ...s }
  for (const field of FIELDS[s.kind]) {
    const { min, max } = SEGMENT_LIMITS[field]
    if (!inside(Number(values[field]), min, max)) return [field, SEGMENT_LIMITS[field]]
  }
  return s.kind === 'hose' && !roughnessFits(s) ? ['roughness', ROUGH] : null
}

/** Throws OutOfRange naming the field, as `segments[i].field`, if a segment cannot be computed. */
export function checkSegments(segments: readonly Segment[]): void {
  for (let i = 0; i < segments.length; i++) {
    const s = segments[i]
    const bad = s && badField(s)
    if (bad) {
      const [field, allowed] = bad
      const value = Object.entries(s).find(([k]) => k === field)?.[1]
      throw new OutOfRange(`segments[${i}].${field}`, Number(value ?? NaN), allowed)
    }
  }
}
