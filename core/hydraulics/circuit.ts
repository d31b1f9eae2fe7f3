import { OutOfRange, requirePositive } from '../errors'
import { pumpHead, type Pump } from './pump'
import { checkSegments, segmentLoss, type Fluid, type Segment } from './segments'

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

/**
 * Solves pump head = static head + losses for the flow, to 1e-12 of the pump's largest flow.
 *
 * The left side falls and the right side rises with flow, so the root is unique; it is bracketed and found by the
 * Illinois variant of false position (Dowell and Jarratt 1971).
 * @throws OutOfRange naming the pump or segment field at fault.
 */
export function dutyPoint(circuit: Circuit): DutyPoint {
  const { pump, segments, staticHead, fluid } = circuit
  requirePositive('pump.shutOffHead', pump.shutOffHead, 'm')
  requirePositive('pump.maxFlow', pump.maxFlow, 'm³/s')
  requirePositive('pump.exponent', pump.exponent)
  requirePositive('fluid.kinematicViscosity', fluid.kinematicViscosity, 'm²/s')
  if (!Number.isFinite(staticHead)) throw new OutOfRange('staticHead', staticHead, { words: 'a number of metres' })
  checkSegments(segments)
  const excess = (q: number): number => pumpHead(q, pump) - staticHead - circuitLoss(q, segments, fluid)
  if (excess(0) <= 0) return { flow: 0, head: pump.shutOffHead, blocked: true }
  let high = pump.maxFlow
  while (excess(high) > 0 && high < pump.maxFlow * 1024) high *= 2
  if (excess(high) > 0) throw new OutOfRange('staticHead', staticHead, { words: 'balanced by some resistance' })
  const flow = illinois(excess, 0, high, pump.maxFlow * 1e-12)
  return { flow, head: staticHead + circuitLoss(flow, segments, fluid), blocked: false }
}

/** Root of a continuous f with f(a) > 0 ≥ f(b), to `tolerance` in x. */
function illinois(f: (x: number) => number, a: number, b: number, tolerance: number): number {
  let fa = f(a)
  let fb = f(b)
  for (let i = 0; i < 200; i++) {
    if (fb === 0 || Math.abs(b - a) < tolerance) return b
    const c = b - (fb * (b - a)) / (fb - fa)
    const fc = f(c)
    if (fc === 0 || Math.abs(c - b) < tolerance) return c
    if (fc * fb < 0) {
      a = b
      fa = fb
    } else fa /= 2
    b = c
    fb = fc
  }
  return b
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
  if (circuit.staticHead > 0) lines.push({ id: 'static', label: 'Lift', kind: 'static', head: circuit.staticHead })
  const total = lines.reduce((sum, l) => sum + l.head, 0)
  return lines.map((l) => ({ ...l, share: total > 0 ? l.head / total : 0 }))
}
