import { requirePositive, requireRange } from '../errors'
import { STANDARD_GRAVITY } from '../water'

/** How water comes back into a tank. */
export const OUTLET_KINDS = ['nozzle', 'spray-bar', 'lip', 'airlift'] as const
export type OutletKind = (typeof OUTLET_KINDS)[number]
/** Where it is aimed: along the tank, at a glass, or up at the surface. */
export const OUTLET_AIMS = ['along', 'glass', 'surface'] as const
export type OutletAim = (typeof OUTLET_AIMS)[number]

/** One way for the water to come back (m). What a kind does not have is left alone. */
export interface Outlet {
  readonly kind: OutletKind
  readonly aim: OutletAim
  /** Below the water’s surface (m); 0 or less at or above it. */
  readonly depth: number
  /** Bore of a nozzle or riser, or of one hole of a spray bar. */
  readonly diameter: number
  readonly holes: number
  /** Between the middles of neighbouring holes. */
  readonly spacing: number
  /** Width of a lip. */
  readonly width: number
}

/** Decay of a round jet, u/u₀ = B D/x. Source: Pope, Turbulent Flows, table 5.1: 5.8 to 6.1 (from memory). */
const ROUND = 6
/** Growth of a round jet’s half-width with distance. Source: Pope, Turbulent Flows, §5.1: 0.094 (from memory). */
const SPREAD = 0.094
/** Decay of a plane jet, u/u₀ = 2.47 √(b/x), b the whole slot. Source: Rajaratnam 1976, 3.50/√(x/b₀) (from memory). */
const PLANE = 3.5 / Math.SQRT2
/** Share of its speed that a jet turned at a glass keeps (common practice, no source), with its band. */
export const GLASS_LEAVES = { middle: 0.4, low: 0.25, high: 0.6 } as const
/** Relative half-width of a jet’s velocity (95 %): Pope’s range of B, and tanks that are no open water (ours). */
export const JET_BAND = 0.3

/** A jet as it leaves: speed u₀ (m/s) and momentum flux over density M = Q u₀ (m⁴/s²). */
export interface Leaving {
  readonly speed: number
  readonly momentum: number
}

/**
 * How water leaves an outlet at a flow Q (m³/s): u₀ = Q/A of its bore or holes; over a lip the critical speed
 * (g Q/w)^⅓. Source: continuity; Chow, Open-Channel Hydraulics, critical flow.
 * @throws OutOfRange naming the measure that is missing or wrong.
 */
export function leaving(o: Outlet, flow: number): Leaving {
  requireRange('flow', flow, { min: 0, unit: 'm³/s' })
  const speed =
    o.kind === 'lip'
      ? Math.cbrt((STANDARD_GRAVITY * flow) / requirePositive('width', o.width, 'm'))
      : flow / ((holesOf(o) * Math.PI * requirePositive('diameter', o.diameter, 'm') ** 2) / 4)
  return { speed, momentum: flow * speed }
}

const holesOf = (o: Outlet): number =>
  o.kind === 'spray-bar' ? requireRange('holes', o.holes, { min: 1, max: 500 }) : 1

const round = (u: number, d: number, x: number): number => (x > 0 ? u * Math.min(1, (ROUND * d) / x) : u)
const plane = (u: number, slot: number, x: number): number =>
  x > 0 ? u * Math.min(1, PLANE * Math.sqrt(slot / x)) : u

/**
 * Centre-line speed (m/s) at a distance x (m) from an outlet.
 *
 * Nozzle and riser: round jet. Spray bar: round jets until their half-widths meet, then a plane jet of the same
 * momentum, and far off a round one of the whole momentum. Lip: a plane jet of depth Q/(w u₀), likewise round far off.
 * A glass in the way leaves a share (a rule).
 * Source: Pope, Turbulent Flows, ch. 5; Rajaratnam, Turbulent Jets, 1976 (from memory).
 * @throws OutOfRange as {@link leaving}, and for `spacing`.
 */
export function jetSpeed(o: Outlet, flow: number, x: number): number {
  const { speed, momentum } = leaving(o, flow)
  if (!(speed > 0)) return 0
  const kept = o.aim === 'glass' ? GLASS_LEAVES.middle : 1
  // A round jet of the same momentum: M = u₀² π D²/4.
  const whole = (2 / speed) * Math.sqrt(momentum / Math.PI)
  const far = round(speed, whole, x)
  if (o.kind === 'nozzle' || o.kind === 'airlift') return kept * far
  if (o.kind === 'lip') return kept * Math.min(far, plane(speed, momentum / speed ** 2 / o.width, x))
  const single = round(speed, o.diameter, x)
  const spacing = requirePositive('spacing', o.spacing, 'm')
  if (o.holes === 1 || x < spacing / (2 * SPREAD)) return kept * single
  const slot = (Math.PI * o.diameter ** 2) / 4 / spacing
  return kept * Math.min(far, Math.max(single, plane(speed, slot, x)))
}

/** Distance (m) beyond which a jet is no faster than u (m/s); 0 where it never is, Infinity beyond 20 m. */
export function gentleFrom(o: Outlet, flow: number, u: number): number {
  requirePositive('speed', u, 'm/s')
  if (jetSpeed(o, flow, 0) <= u) return 0
  let [low, high] = [0, 20]
  if (jetSpeed(o, flow, high) > u) return Infinity
  while (high - low > 1e-6) {
    const middle = (low + high) / 2
    if (jetSpeed(o, flow, middle) > u) low = middle
    else high = middle
  }
  return high
}

/** Share of a tank’s length L (m) in which the jet is faster than u (m/s) on its middle line. */
export const strongShare = (o: Outlet, flow: number, u: number, length: number): number =>
  Math.min(1, gentleFrom(o, flow, u) / requirePositive('length', length, 'm'))

/** Share of the surface’s motion by a jet deep under it, against one along it (ours). */
const DEEP = 0.3
/** A jet this far below the surface no longer runs along it (m). */
const SHALLOW = 0.06

/** Does an outlet stir the surface? One at or just under it, or aimed up at it. */
export const stirsSurface = (o: Outlet): boolean =>
  o.depth <= SHALLOW || o.aim === 'surface' || o.kind === 'airlift'

/**
 * Mean speed along the surface of a tank of width W (m): U = 2 √M/W. A jet of momentum M is 0.23 x wide where its speed
 * is 6 √(4M/π)/x, so across the width its mean does not depend on x; what runs back is taken as much again. An estimate
 * of ours, good to a factor of two.
 */
export function surfaceSpeed(o: Outlet, flow: number, width: number): number {
  const { speed, momentum } = leaving(o, flow)
  const kept = o.aim === 'glass' ? GLASS_LEAVES.middle : 1
  const along = kept * Math.min(speed, (2 * Math.sqrt(momentum)) / requirePositive('width', width, 'm'))
  return stirsSurface(o) ? along : DEEP * along
}

/** Speed at which water comes to an inlet of some open area (m²), m/s. */
export const approachSpeed = (flow: number, openArea: number): number =>
  flow / requirePositive('openArea', openArea, 'm²')

/** A spray bar with some of its holes closed or a section taken off. @throws OutOfRange for `holes`. */
export const withHoles = (o: Outlet, holes: number): Outlet => ({
  ...o,
  holes: requireRange('holes', Math.round(holes), { min: 1, max: 500 }),
})
