import { requirePositive, requireRange } from '../errors'

/** Which formula gives the turbulent friction factor. */
export type Correlation = 'colebrook' | 'swamee-jain'

const LN10 = Math.LN10

/** Reynolds number Re = v D / ν (1), from flow Q (m³/s), diameter D (m), kinematic viscosity ν (m²/s). */
export const reynolds = (flow: number, diameter: number, kinematicViscosity: number): number =>
  (4 * Math.abs(flow)) / (Math.PI * diameter * kinematicViscosity)

/**
 * Darcy friction factor f (1) of rough turbulent pipe flow: 1/√f = −2 log₁₀(ε/3.7D + 2.51/(Re √f)).
 *
 * Solved by Newton on x = 1/√f from the Swamee–Jain start; converges to machine precision in four steps or fewer.
 * Source: Colebrook, J. Inst. Civ. Eng. 11 (1939) 133. Valid for Re ≥ 4000, ε/D ≤ 0.05.
 */
export function colebrook(re: number, relativeRoughness: number): number {
  const a = relativeRoughness / 3.7
  const b = 2.51 / re
  let x = 1 / Math.sqrt(swameeJain(re, relativeRoughness))
  for (let i = 0; i < 8; i++) {
    const y = a + b * x
    const step = (x + (2 / LN10) * Math.log(y)) / (1 + ((2 / LN10) * b) / y)
    x -= step
    if (Math.abs(step) < 1e-13 * x) break
  }
  return 1 / (x * x)
}

/**
 * Explicit friction factor f = 0.25 / log₁₀(ε/3.7D + 5.74/Re^0.9)².
 *
 * Source: Swamee and Jain, J. Hydraulics Div. ASCE 102 (1976) 657; the formula EPANET 2.2 uses above Re 4000.
 */
export function swameeJain(re: number, relativeRoughness: number): number {
  return 0.25 / Math.log10(relativeRoughness / 3.7 + 5.74 / re ** 0.9) ** 2
}

/** f and df/dR at Re = 4000, with R = Re/2000, for the transition cubic. */
function endOfTransition(relativeRoughness: number, correlation: Correlation): { f: number; slope: number } {
  const re = 4000
  if (correlation === 'swamee-jain') {
    const f = swameeJain(re, relativeRoughness)
    const tail = 5.74 / re ** 0.9
    const y = relativeRoughness / 3.7 + tail
    // d ln f = −2 d ln|log y|;  dy/dRe = −0.9 tail / Re
    return { f, slope: (2000 * -2 * f * ((-0.9 * tail) / re)) / (y * Math.log(y)) }
  }
  const f = colebrook(re, relativeRoughness)
  const x = 1 / Math.sqrt(f)
  const y = relativeRoughness / 3.7 + (2.51 * x) / re
  const c = ((2 / LN10) * 2.51) / (re * y)
  const dx = (c * x) / re / (1 + c)
  return { f, slope: (-2 * dx * 2000) / x ** 3 }
}

/**
 * Darcy friction factor f (1) over the whole range: 64/Re to Re 2000, the chosen correlation from Re 4000, and
 * between them the cubic that meets both with the turbulent end's slope.
 *
 * Source: Dunlop (1991), as written in the EPANET 2.2 manual (Rossman et al. 2020, section 12.1).
 * @throws OutOfRange for `relativeRoughness` outside 0 to 0.2.
 */
export function frictionFactor(re: number, relativeRoughness: number, correlation: Correlation = 'colebrook'): number {
  requirePositive('reynolds', re)
  requireRange('relativeRoughness', relativeRoughness, { min: 0, max: 0.2 })
  if (re <= 2000) return 64 / re
  if (re >= 4000)
    return correlation === 'colebrook' ? colebrook(re, relativeRoughness) : swameeJain(re, relativeRoughness)
  const { f: fa, slope } = endOfTransition(relativeRoughness, correlation)
  const fb = 2 * (slope + fa)
  const r = re / 2000
  return (
    7 * fa - fb + r * (0.128 - 17 * fa + 2.5 * fb + r * (-0.128 + 13 * fa - 2 * fb + r * (0.032 - 3 * fa + 0.5 * fb)))
  )
}
