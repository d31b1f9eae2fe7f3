import { OutOfRange, requirePositive } from '../errors'

/** Inside shapes of a chamber, all lengths in m. `water-fill`: a volume (m³) measured by the water it holds. */
export type Solid =
  | { readonly shape: 'box'; readonly width: number; readonly depth: number; readonly height: number }
  | { readonly shape: 'cylinder'; readonly diameter: number; readonly height: number }
  | {
      readonly shape: 'annulus'
      readonly diameter: number
      readonly innerDiameter: number
      readonly height: number
    }
  | {
      readonly shape: 'cone'
      readonly diameter: number
      readonly topDiameter: number
      readonly height: number
    }
  | {
      readonly shape: 'pyramid'
      readonly width: number
      readonly depth: number
      readonly topWidth: number
      readonly topDepth: number
      readonly height: number
    }
  /** A box whose height falls from `height` on one side to `lowHeight` on the other. */
  | {
      readonly shape: 'wedge'
      readonly width: number
      readonly depth: number
      readonly height: number
      readonly lowHeight: number
    }
  | { readonly shape: 'water-fill'; readonly width: number; readonly height: number; readonly volume: number }

export type SolidShape = Solid['shape']
export const SOLID_SHAPES = ['box', 'cylinder', 'annulus', 'cone', 'pyramid', 'wedge', 'water-fill'] as const

/** The sizes solids have. */
export type SolidField =
  | 'width'
  | 'depth'
  | 'height'
  | 'diameter'
  | 'innerDiameter'
  | 'topWidth'
  | 'topDepth'
  | 'topDiameter'
  | 'lowHeight'
  | 'volume'

/** The lengths a shape is measured by, in the order they are asked for. */
export const SOLID_FIELDS: Readonly<Record<SolidShape, readonly SolidField[]>> = {
  box: ['width', 'depth', 'height'],
  cylinder: ['diameter', 'height'],
  annulus: ['diameter', 'innerDiameter', 'height'],
  cone: ['diameter', 'topDiameter', 'height'],
  pyramid: ['width', 'depth', 'topWidth', 'topDepth', 'height'],
  wedge: ['width', 'depth', 'height', 'lowHeight'],
  'water-fill': ['width', 'height', 'volume'],
}

/**
 * Volume (m³) of a solid up to its height, from the first formulas of any handbook of solid mensuration: prism,
 * cylinder, hollow cylinder, frustum of a cone πh(R² + Rr + r²)/3, prismoid for the pyramid with rectangular ends,
 * wedge as a prism with a trapezoid section.
 * @throws OutOfRange naming the length at fault.
 */
export function solidVolume(s: Solid): number {
  const h = requirePositive('height', s.height, 'm')
  switch (s.shape) {
    case 'box':
      return requirePositive('width', s.width, 'm') * requirePositive('depth', s.depth, 'm') * h
    case 'cylinder':
      return (Math.PI / 4) * requirePositive('diameter', s.diameter, 'm') ** 2 * h
    case 'annulus':
      requirePositive('diameter', s.diameter, 'm')
      if (!(s.innerDiameter >= 0 && s.innerDiameter < s.diameter))
        throw new OutOfRange('innerDiameter', s.innerDiameter, {
          words: 'at least 0 and less than the outer diameter',
        })
      return (Math.PI / 4) * (s.diameter ** 2 - s.innerDiameter ** 2) * h
    case 'cone': {
      const [a, b] = [
        requirePositive('diameter', s.diameter, 'm') / 2,
        requirePositive('topDiameter', s.topDiameter, 'm') / 2,
      ]
      return (Math.PI * h * (a * a + a * b + b * b)) / 3
    }
    case 'pyramid': {
      const [a, b] = [requirePositive('width', s.width, 'm'), requirePositive('depth', s.depth, 'm')]
      const [c, d] = [
        requirePositive('topWidth', s.topWidth, 'm'),
        requirePositive('topDepth', s.topDepth, 'm'),
      ]
      return (h / 6) * (a * b + (a + c) * (b + d) + c * d)
    }
    case 'wedge': {
      requirePositive('width', s.width, 'm')
      if (!(s.lowHeight >= 0 && s.lowHeight <= h))
        throw new OutOfRange('lowHeight', s.lowHeight, { words: 'at least 0 and no more than the height' })
      return s.width * requirePositive('depth', s.depth, 'm') * ((h + s.lowHeight) / 2)
    }
    case 'water-fill':
      return requirePositive('volume', s.volume, 'm³')
  }
}

/** Tools: half-width of the tape's limits (m, rectangular) and relative standard uncertainty of a water fill. */
export interface MeasuringTools {
  readonly tape: number
  readonly waterFill: number
}

/** A tape read to the millimetre; water weighed on a kitchen scale (common practice, no source). */
export const TAPE_AND_SCALE: MeasuringTools = { tape: 0.001, waterFill: 0.003 }

/**
 * Standard uncertainty (m³) of a solid's volume: every length rectangular within ± tape, by central differences.
 * Source: GUM (JCGM 100) 4.3.7 and 5.1.2.
 */
export function volumeUncertainty(s: Solid, tools: MeasuringTools = TAPE_AND_SCALE): number {
  if (s.shape === 'water-fill') return s.volume * tools.waterFill
  const u = tools.tape / Math.sqrt(3)
  const step = 1e-6
  let variance = 0
  for (const field of SOLID_FIELDS[s.shape]) {
    const value = sizeOf(s, field)
    const at = (v: number): number => rawVolume({ ...s, [field]: v } as Solid)
    variance +=
      (((at(value + step) - at(Math.max(0, value - step))) / (value + step - Math.max(0, value - step))) *
        u) **
      2
  }
  return Math.sqrt(variance)
}

/** A size of a solid (m, or m³ for a volume); 0 for one that its shape does not have. */
export function sizeOf(s: Solid, field: SolidField): number {
  const sizes: Partial<Record<SolidField, number>> = s
  return sizes[field] ?? 0
}

/** The same formulas without their checks, so that a difference may step to the edge of what is allowed. */
function rawVolume(s: Solid): number {
  try {
    return solidVolume(s)
  } catch {
    return 0
  }
}

/** Width (m) of the section through a solid at its foot and at its top: what the cutaway draws. */
export function sectionWidths(s: Solid): { readonly foot: number; readonly top: number } {
  switch (s.shape) {
    case 'cylinder':
    case 'annulus':
      return { foot: s.diameter, top: s.diameter }
    case 'cone':
      return { foot: s.diameter, top: s.topDiameter }
    case 'pyramid':
      return { foot: s.width, top: s.topWidth }
    default:
      return { foot: s.width, top: s.width }
  }
}
