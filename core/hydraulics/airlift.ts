import { OutOfRange, requirePositive } from '../errors'
import { friction, reynolds } from './friction'
import type { Pump } from './pump'
import { boreArea, STANDARD_GRAVITY } from './segments'

/**
 * A riser: bore D, depth of the air's entry below the water S (submergence), height of release above it L, all in m.
 */
export interface Riser {
  readonly diameter: number
  readonly submergence: number
  readonly lift: number
}

/** Distribution parameter of slug flow (Nicklin, Wilkes, Davidson 1962). */
const C0 = 1.2

/** Share of air in the riser: α = j_g / (C0 (j_g + j_l) + 0.35 √(gD)). Superficial velocities in m/s. Nicklin 1962. */
export const voidFraction = (gas: number, liquid: number, diameter: number): number =>
  gas / (C0 * (gas + liquid) + 0.35 * Math.sqrt(STANDARD_GRAVITY * diameter))

/** Water lifted and how: flow m³/s, share of air, and whether the air is too little to lift any. */
export interface AirliftResult {
  readonly flow: number
  readonly voidFraction: number
  readonly stalled: boolean
}

/**
 * Water an airlift moves (m³/s) for an air flow (m³/s at the riser): the column of submergence carries the lighter
 * mixture of the whole riser, its wall friction f (L/D) ρ j_l (j_l + j_g)/2, and the water's velocity head at the
 * entry.
 *
 * Air is taken as incompressible, which at aquarium depths costs a few per cent at most.
 * Source: momentum balance with drift flux, as e.g. Clark and Dabolt, AIChE J. 32 (1986) 56; Nicklin 1962.
 * @throws OutOfRange naming a riser's field or `airFlow`.
 */
export function airlift(riser: Riser, airFlow: number, kinematicViscosity = 0.9e-6): AirliftResult {
  requirePositive('diameter', riser.diameter, 'm')
  requirePositive('submergence', riser.submergence, 'm')
  if (!(riser.lift >= 0)) throw new OutOfRange('lift', riser.lift, { min: 0, unit: 'm' })
  if (!(airFlow >= 0) || !Number.isFinite(airFlow))
    throw new OutOfRange('airFlow', airFlow, { min: 0, unit: 'm³/s' })
  const { diameter: d, submergence, lift } = riser
  const area = boreArea(d)
  const gas = airFlow / area
  const long = submergence + lift
  // Head left over (m) when the water moves at j: falls as j grows, so its root is unique.
  const left = (j: number): number => {
    const column = (1 - voidFraction(gas, j, d)) * long
    if (j === 0) return submergence - column
    const f = friction(Math.max(1, reynolds(area * (j + gas), d, kinematicViscosity)), 0, 'colebrook').f
    const wall = ((f * long) / d) * ((j * (j + gas)) / (2 * STANDARD_GRAVITY))
    return submergence - column - wall - (j * j) / (2 * STANDARD_GRAVITY)
  }
  if (left(0) <= 0) return { flow: 0, voidFraction: voidFraction(gas, 0, d), stalled: true }
  let [low, high] = [0, 0.5]
  while (left(high) > 0) high *= 2
  for (let i = 0; i < 80; i++) {
    const mid = (low + high) / 2
    if (left(mid) > 0) low = mid
    else high = mid
  }
  return { flow: low * area, voidFraction: voidFraction(gas, low, d), stalled: false }
}

/**
 * Flow of an airlift against a head h (m) on its water side, as a pump curve H0 (1 − (Q/Q0)^n): Q0 with nothing
 * before or behind it, H0 where the lighter column no longer overflows, S/(1 − α) − S − L at no flow, and n by the head
 * that halves the flow. A head on the water side acts as so much more lift; up to half of H0 the form is within a tenth
 * of {@link airlift}, near H0 within a quarter.
 * @throws OutOfRange as {@link airlift}, and naming `airFlow` where the air lifts no water at all.
 */
export function airliftCurve(riser: Riser, airFlow: number, kinematicViscosity = 0.9e-6): Pump {
  const open = airlift(riser, airFlow, kinematicViscosity)
  if (open.stalled) throw new OutOfRange('airFlow', airFlow, { words: 'enough air to lift water' })
  const { submergence, lift, diameter } = riser
  const shutOffHead =
    submergence / (1 - voidFraction(airFlow / boreArea(diameter), 0, diameter)) - submergence - lift
  let [low, high] = [0, shutOffHead]
  for (let i = 0; i < 50; i++) {
    const mid = (low + high) / 2
    if (airlift({ ...riser, lift: lift + mid }, airFlow, kinematicViscosity).flow > open.flow / 2) low = mid
    else high = mid
  }
  const exponent = Math.log(1 - low / shutOffHead) / Math.log(0.5)
  return { shutOffHead, maxFlow: open.flow, exponent: Math.min(10, Math.max(0.5, exponent)) }
}
