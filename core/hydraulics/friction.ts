import { requirePositive, requireRange } from '../errors'

/** Which formula gives the turbulent friction factor. */
export type Correlation = 'colebrook' | 'swamee-jain'

/** Darcy friction factor f (1) and its logarithmic slope d ln f / d ln Re, which Newton's method wants. */
export interface Friction {
  readonly f: number
  readonly slope: number
}

/** A friction factor of the size that hoses have, for first guesses (common practice, no source). */
export const USUAL_FRICTION = 0.03

const TWO_BY_LN10 = 2 / Math.LN10

/** Reynolds number Re = v D / ν (1), from flow Q (m³/s), diameter D (m), kinematic viscosity ν (m²/s). */
export const reynolds = (flow: number, diameter: number, kinematicViscosity: number): number =>
  (4 * Math.abs(flow)) / (Math.PI * diameter * kinematicViscosity)

/**
 * Darcy friction factor f (1) of rough turbulent pipe flow: 1/√f = −2 log₁₀(ε/3.7D + 2.51/(Re √f)).
 *
 * Solved by Newton on x = 1/√f from the Swamee–Jain start; machine precision in four steps or fewer.
 * Source: Colebrook, J. Inst. Civ. Eng. 11 (1939) 133. Valid for Re ≥ 4000, ε/D ≤ 0.05.
 */
export const colebrook = (re: number, relativeRoughness: number): number =>
  colebrookFriction(re, Math.log(re), relativeRoughness).f

function colebrookFriction(re: number, lnRe: number, relativeRoughness: number): Friction {
  const a = relativeRoughness / 3.7
  const b = 2.51 / re
  let x = 1 / Math.sqrt(swameeJainFriction(lnRe, relativeRoughness).f)
  let y = a + b * x
  for (let i = 0; i < 8; i++) {
    const step = (x + TWO_BY_LN10 * Math.log(y)) / (1 + (TWO_BY_LN10 * b) / y)
    x -= step
    y = a + b * x
    if (Math.abs(step) < 1e-13 * x) break
  }
  // Implicit differentiation: d ln x / d ln Re = c/(1 + c), c = (2/ln 10) · 2.51/(Re y); and ln f = −2 ln x.
  const c = (TWO_BY_LN10 * b) / y
  return { f: 1 / (x * x), slope: (-2 * c) / (1 + c) }
}

/**
 * Explicit friction factor f = 0.25 / log₁₀(ε/3.7D + 5.74/Re^0.9)².
 *
 * Source: Swamee and Jain, J. Hydraulics Div. ASCE 102 (1976) 657; the formula EPANET 2.2 uses above Re 4000.
 */
export const swameeJain = (re: number, relativeRoughness: number): number =>
  swameeJainFriction(Math.log(re), relativeRoughness).f

function swameeJainFriction(lnRe: number, relativeRoughness: number): Friction {
  // exp(0.9 ln Re) is Re^0.9 at a third of the cost, and this is the innermost loop of every network.
  const tail = 5.74 * Math.exp(-0.9 * lnRe)
  const y = relativeRoughness / 3.7 + tail
  const ln = Math.log(y)
  const root = TWO_BY_LN10 * ln
  return { f: 1 / (root * root), slope: (1.8 * tail) / (y * ln) }
}

const turbulent = (re: number, lnRe: number, relativeRoughness: number, correlation: Correlation): Friction =>
  correlation === 'colebrook'
    ? colebrookFriction(re, lnRe, relativeRoughness)
    : swameeJainFriction(lnRe, relativeRoughness)

/**
 * Friction over the whole range: 64/Re to Re 2000, the chosen correlation from Re 4000, and between them the cubic in
 * Re/2000 that meets both with the turbulent end's slope. No checks: for inner loops, where ln Re may be at hand.
 *
 * Source: Dunlop (1991), as written in the EPANET 2.2 manual (Rossman et al. 2020, section 12.1).
 */
export function friction(
  re: number,
  relativeRoughness: number,
  correlation: Correlation,
  lnRe = Math.log(re),
): Friction {
  if (re >= 4000) return turbulent(re, lnRe, relativeRoughness, correlation)
  return re <= 2000
    ? { f: 64 / re, slope: -1 }
    : between(re, turbulent(4000, Math.log(4000), relativeRoughness, correlation))
}

/** The cubic between Re 2000 and 4000, from the turbulent end. */
function between(re: number, end: Friction): Friction {
  const fa = end.f
  // The cubic's fb = 2 (df/dR + f) at R = Re/2000 = 2, where df/dR = slope · f / 2.
  const fb = (2 + end.slope) * fa
  const r = re / 2000
  const c2 = 0.128 - 17 * fa + 2.5 * fb
  const c3 = -0.128 + 13 * fa - 2 * fb
  const c4 = 0.032 - 3 * fa + 0.5 * fb
  const f = 7 * fa - fb + r * (c2 + r * (c3 + r * c4))
  return { f, slope: (r * (c2 + r * (2 * c3 + r * 3 * c4))) / f }
}

/**
 * Darcy friction factor f (1), checked.
 * @throws OutOfRange for `reynolds` not above zero or `relativeRoughness` outside 0 to 0.2.
 */
export function frictionFactor(
  re: number,
  relativeRoughness: number,
  correlation: Correlation = 'colebrook',
): number {
  requirePositive('reynolds', re)
  requireRange('relativeRoughness', relativeRoughness, { min: 0, max: 0.2 })
  return friction(re, relativeRoughness, correlation).f
}
