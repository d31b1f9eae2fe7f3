import { requirePositive, requireRange } from '../errors'
import { STANDARD_GRAVITY } from '../water'
import { geometricSurface, type Medium } from '../media'

/** Boltzmann’s constant (J/K; SI, exact). */
const BOLTZMANN = 1.380649e-23
/** Share of a reticulated foam that is strut (common practice, no source: 97 % is void). */
const STRUT = 0.03
/** Window between two cells of a foam, as a share of the cell (from memory: 0.4 to 0.5). */
const WINDOW = 0.45
const INCH = 0.0254
/** Diameter of the largest ball that passes between three touching ones, as a share of theirs: 2/√3 − 1. */
export const THROAT = 2 / Math.sqrt(3) - 1
/** The same between four that touch in a square: √2 − 1. */
const SQUARE = Math.SQRT2 - 1
/** Voids of balls in closest and in cubic packing: 1 − π/(3√2) and 1 − π/6. */
const CLOSEST = 1 - Math.PI / (3 * Math.SQRT2)
const CUBIC = 1 - Math.PI / 6
/** Share of an unknown bed that is water. */
const USUAL_VOIDAGE = 0.5
/** No floc falls faster than this (m/s; faeces of fish sink at 2 to 4 cm/s, from memory). */
const FASTEST = 0.03

/** Collectors in a medium: fibres or grains of a diameter (m), share of solid, opening between (m). */
export interface Collector {
  readonly kind: 'fibres' | 'grains'
  readonly diameter: number
  readonly solidity: number
  readonly opening: number
}

/**
 * Collector of a medium; null for what moves or turns, and for what nothing is known of. Fibres of a mat stand as a
 * square grid of the same solidity, so their opening is d (√(π/4c) − 1); struts of a foam follow from its surface, its
 * opening is the window between two cells; between grains a ball of 0.155 d passes where they lie closest, of 0.414 d
 * where they lie as loose as in a cubic packing, and in proportion to their voids between. Source: geometry.
 */
export function collectorOf(m: Medium): Collector | null {
  if (m.form === 'moving' || m.form === 'contactor') return null
  const surface = geometricSurface(m)
  if (m.form === 'foam' && m.poresPerInch !== null)
    return {
      kind: 'fibres',
      diameter: surface ? (4 * STRUT) / surface : 0.1 * (INCH / m.poresPerInch),
      solidity: STRUT,
      opening: (WINDOW * INCH) / m.poresPerInch,
    }
  if (m.fibre !== null && m.solidity !== null)
    return {
      kind: 'fibres',
      diameter: m.fibre,
      solidity: m.solidity,
      opening: m.fibre * (Math.sqrt(Math.PI / (4 * m.solidity)) - 1),
    }
  if (m.grain !== null)
    return {
      kind: 'grains',
      diameter: m.grain,
      solidity: 1 - (m.voidage ?? USUAL_VOIDAGE),
      opening: throatAt(m.voidage ?? USUAL_VOIDAGE) * m.grain,
    }
  return null
}
function throatAt(voids: number): number {
  const loose = Math.min(1, Math.max(0, (voids - CLOSEST) / (CUBIC - CLOSEST)))
  return THROAT + loose * (SQUARE - THROAT)
}

/** Conditions of capture in a medium, besides particle size and the speed of the water. */
export interface Suspension {
  /** Dynamic viscosity (Pa s) and absolute temperature (K) of the water. */
  readonly viscosity: number
  readonly temperature: number
  /** Density of a floc over that of the water (kg/m³), and the share of what touches that sticks. */
  readonly heavier: number
  readonly sticks: number
}

/** Velocity (m/s) at which a floc of a size (m) sinks: Stokes, and never faster than faeces do. */
export const sinking = (size: number, { viscosity, heavier }: Suspension): number =>
  Math.min(FASTEST, (heavier * STANDARD_GRAVITY * size ** 2) / (18 * viscosity))

/**
 * Share of the particles coming at one collector that touch it, by interception, sinking and diffusion.
 *
 * Grains: η = 3/2 (d_p/d_c)² + v_s/v + 0.9 (kT/(μ d_p d_c v))^⅔. Source: Yao, Habibian and O’Melia, Environ. Sci.
 * Technol. 5 (1971) 1105.
 *
 * Fibres: η = (1 − c) R²/(Ku (1 + R)) + v_s/v, R = d_p/d_f, Ku = −½ ln c − ¾ + c − c²/4. Source: Hinds, Aerosol
 * Technology, ch. 9 (from memory; the flow field is the same for water).
 * @throws OutOfRange for `size` or `velocity` not above zero.
 */
export function touching(c: Collector, size: number, velocity: number, s: Suspension): number {
  requirePositive('size', size, 'm')
  requirePositive('velocity', velocity, 'm/s')
  const sinks = sinking(size, s) / velocity
  if (c.kind === 'grains') {
    const peclet = (s.viscosity * size * c.diameter * velocity) / (BOLTZMANN * s.temperature)
    return Math.min(1, 1.5 * (size / c.diameter) ** 2 + sinks + 0.9 * peclet ** (-2 / 3))
  }
  const { solidity } = c
  const kuwabara = -0.5 * Math.log(solidity) - 0.75 + solidity - solidity ** 2 / 4
  const r = size / c.diameter
  return Math.min(1, ((1 - solidity) * r * r) / (kuwabara * (1 + r)) + sinks)
}

/**
 * Filter coefficient λ (1/m) of dC/dx = −λ C in a clean medium: λ = 3/2 (1 − ε) α η/d_c for grains, 4 c α η/(π d_f (1 −
 * c)) for fibres. Source: Iwasaki, J. AWWA 29 (1937) 1591, with Yao et al. (1971) and Hinds.
 * @throws OutOfRange as {@link touching}, and for `sticks` outside 0 to 1.
 */
export function filterCoefficient(c: Collector, size: number, velocity: number, s: Suspension): number {
  requireRange('sticks', s.sticks, { min: 0, max: 1, unit: '(share)' })
  const caught = s.sticks * touching(c, size, velocity, s)
  return c.kind === 'grains'
    ? (1.5 * c.solidity * caught) / c.diameter
    : (4 * c.solidity * caught) / (Math.PI * c.diameter * (1 - c.solidity))
}

/** Share that comes through a depth (m) at a filter coefficient (1/m): e^(−λL). Source: Iwasaki 1937. */
export const penetration = (coefficient: number, depth: number): number => Math.exp(-coefficient * depth)

/**
 * Permeability (m²) of a cake of flocs of a size (m) with a share of water between them: k = ε³ d²/(180 (1 − ε)²).
 * Source: Carman, Trans. Inst. Chem. Eng. 15 (1937) 150.
 */
export const cakePermeability = (size: number, voids: number): number =>
  (voids ** 3 * size ** 2) / (180 * (1 - voids) ** 2)
