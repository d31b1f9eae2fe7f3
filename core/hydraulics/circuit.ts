import { OutOfRange, requirePositive } from '../errors'
import { friction, USUAL_FRICTION } from './friction'
import { pumpHead, type Pump } from './pump'
import {
  checkSegments,
  minorLoss,
  segmentLoss,
  sprayBarLoss,
  STANDARD_GRAVITY,
  type Fluid,
  type Segment,
} from './segments'

/** A pump feeding segments in series against a net static head (m). */
export interface Circuit {
  readonly pump: Pump
  readonly segments: readonly Segment[]
  readonly staticHead: number
  readonly fluid: Fluid
}

/** Heights that decide whether lift counts, in m from the tank's water surface, upwards positive. */
export interface CircuitGeometry {
  /** Where the return lets go: above the surface positive, under water negative. */
  readonly outletAboveWater: number
  /** How far the surface the pump draws from lies below the tank's: 0 when it draws from the tank itself. */
  readonly sourceBelowWater: number
}

/** The net static head and why. */
export interface StaticHead {
  readonly head: number
  readonly circuit: 'closed' | 'open'
  readonly fromOutlet: number
  readonly fromSource: number
}

/**
 * Net static head (m) the pump works against: the level at which the water is let go less the level it is taken from.
 *
 * In a closed siphon loop (both ends under the same water) the falling leg pays for the rising one and the answer is
 * zero however deep the cabinet; lift counts only where the circuit is open: a return above the surface, a sump, a lip.
 * Source: steady-flow energy equation (Bernoulli between the two free surfaces).
 */
export function netStaticHead({ outletAboveWater, sourceBelowWater }: CircuitGeometry): StaticHead {
  const fromOutlet = Math.max(0, outletAboveWater)
  const head = fromOutlet + sourceBelowWater
  return { head, circuit: head === 0 ? 'closed' : 'open', fromOutlet, fromSource: sourceBelowWater }
}

/** Friction and fitting head (m) of all segments at flow Q (m³/s), without the static head. */
export const circuitLoss = (flow: number, segments: readonly Segment[], fluid: Fluid): number =>
  segments.reduce((sum, s) => sum + segmentLoss(flow, s, fluid), 0)

/** Where the pump curve and the circuit meet: flow Q (m³/s) and head H (m). Blocked: the lift exceeds the shut-off head. */
export interface DutyPoint {
  readonly flow: number
  readonly head: number
  readonly blocked: boolean
}

/** Like hoses joined to one: h = f · perFriction · Q², Re = perFlow · Q. */
interface Run {
  readonly diameter: number
  readonly roughness: number
  readonly perFlow: number
  perFriction: number
}

/** A circuit reduced for solving: one quadratic coefficient for fittings and spray bars, one run per kind of hose. */
function reduce(
  segments: readonly Segment[],
  nu: number,
  gravity: number,
): { readonly quadratic: number; readonly runs: readonly Run[] } {
  let quadratic = 0
  const runs: Run[] = []
  for (const s of segments) {
    if (s.kind === 'fitting') quadratic += minorLoss(1, s, gravity)
    else if (s.kind === 'spray-bar') quadratic += sprayBarLoss(1, s, gravity)
    else {
      const { diameter, roughness } = s
      const a = Math.PI * diameter * diameter
      const perFriction = (8 * s.length) / (gravity * a * a * diameter)
      const like = runs.find((r) => r.diameter === diameter && r.roughness === roughness)
      if (like) like.perFriction += perFriction
      else runs.push({ diameter, roughness, perFlow: 4 / (Math.PI * diameter * nu), perFriction })
    }
  }
  return { quadratic, runs }
}

/**
 * Solves pump head = static head + losses for the flow, to about 1e-13 of itself.
 *
 * The left side falls and the right side rises with flow, so the root is unique. Newton's method with the exact slope
 * of every loss, kept inside a bracket that only shrinks.
 * @throws OutOfRange naming the pump or segment field at fault.
 */
export function dutyPoint(circuit: Circuit): DutyPoint {
  const { pump, segments, staticHead, fluid } = circuit
  requirePositive('pump.shutOffHead', pump.shutOffHead, 'm')
  requirePositive('pump.maxFlow', pump.maxFlow, 'm³/s')
  requirePositive('pump.exponent', pump.exponent)
  requirePositive('fluid.kinematicViscosity', fluid.kinematicViscosity, 'm²/s')
  if (!Number.isFinite(staticHead))
    throw new OutOfRange('staticHead', staticHead, { words: 'a number of metres' })
  checkSegments(segments)
  if (pump.shutOffHead <= staticHead) return { flow: 0, head: pump.shutOffHead, blocked: true }
  const flow = solve(circuit, pump)
  return { flow, head: pumpHead(flow, pump), blocked: false }
}

function solve({ segments, staticHead, fluid }: Circuit, pump: Pump): number {
  const { quadratic, runs } = reduce(segments, fluid.kinematicViscosity, fluid.gravity ?? STANDARD_GRAVITY)
  const correlation = fluid.correlation ?? 'colebrook'
  const { maxFlow, shutOffHead, exponent } = pump
  // Gives the excess of pump head over circuit head at q, and leaves its slope behind.
  let slope = 0
  const excess = (q: number): number => {
    let value = -staticHead - quadratic * q * q
    slope = -2 * quadratic * q
    if (q < maxFlow) {
      const taken = shutOffHead * Math.exp(exponent * Math.log(q / maxFlow))
      value += shutOffHead - taken
      slope -= (exponent * taken) / q
    }
    for (const r of runs) {
      const { f, slope: s } = friction(r.perFlow * q, r.roughness / r.diameter, correlation)
      const h = f * r.perFriction * q * q
      value -= h
      slope -= ((2 + s) * h) / q
    }
    return value
  }
  let low = 0
  let high = maxFlow
  // With a source above the outlet the water may run past the pump's largest flow.
  while (staticHead < 0 && excess(high) > 0) {
    low = high
    high *= 2
    if (high > maxFlow * 1024)
      throw new OutOfRange('staticHead', staticHead, { words: 'balanced by some resistance' })
  }
  // A start within some per cent: everything taken as quadratic, with a usual friction factor.
  const resistance = runs.reduce((sum, r) => sum + USUAL_FRICTION * r.perFriction, quadratic)
  let q = low > 0 ? high : Math.sqrt((shutOffHead - staticHead) / (shutOffHead / maxFlow ** 2 + resistance))
  q = Math.min(q, high * 0.999)
  for (let i = 0; i < 100; i++) {
    const value = excess(q)
    let next = q - value / slope
    // Newton squares the relative error: a step this small leaves nothing to gain.
    if (Math.abs(next - q) < q * 1e-7) return next
    if (value > 0) low = q
    else high = q
    if (!(next > low && next < high)) next = (low + high) / 2
    q = next
  }
  return q
}

/** One line of the head budget: what took how much of the pump's head. */
export interface BudgetLine {
  readonly id: string
  readonly label: string
  readonly kind: Segment['kind'] | 'static'
  readonly head: number
  readonly share: number
}

/** How the head at flow Q is spent, in flow order, the lift last. Lines sum to static head plus losses. */
export function headBudget(flow: number, circuit: Omit<Circuit, 'pump'>): readonly BudgetLine[] {
  const lines: Omit<BudgetLine, 'share'>[] = circuit.segments.map((s) => ({
    id: s.id,
    label: s.label,
    kind: s.kind,
    head: segmentLoss(flow, s, circuit.fluid),
  }))
  if (circuit.staticHead > 0)
    lines.push({ id: 'static', label: 'Lift', kind: 'static', head: circuit.staticHead })
  const total = lines.reduce((sum, l) => sum + l.head, 0)
  return lines.map((l) => ({ ...l, share: total > 0 ? l.head / total : 0 }))
}
