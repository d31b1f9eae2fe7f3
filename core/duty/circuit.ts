import { OutOfRange, requirePositive } from '../errors'
import { segmentElement, takesHead } from '../network/elements'
import { prepareNetwork, type Network } from '../network/solve'
import { pumpHead, type Pump } from '../hydraulics/pump'
import { checkSegments, segmentLoss, type Fluid, type Segment } from '../hydraulics/segments'

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

/**
 * Where the pump curve and the circuit meet: flow Q (m³/s) and head H (m). Blocked: the lift exceeds the shut-off head.
 */
export interface DutyPoint {
  readonly flow: number
  readonly head: number
  readonly blocked: boolean
}

/**
 * The flow at which pump head = static head + losses, by the network's own solver. The left side falls and the right
 * side rises with flow, so it is unique.
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
  return solvedCircuit(circuit)
}

/**
 * {@link dutyPoint} of a circuit whose input has been checked, and may since have been shifted to see what that does.
 */
export function solvedCircuit(circuit: Circuit): DutyPoint {
  const { pump, staticHead } = circuit
  if (pump.shutOffHead <= staticHead) return { flow: 0, head: pump.shutOffHead, blocked: true }
  const flow = prepareNetwork(networkOf(circuit))().flows[0] ?? 0
  return { flow, head: pumpHead(flow, pump), blocked: false }
}

/** The circuit as a network: its pump between two waters, and every piece after it in a row. */
function networkOf({ pump, segments, staticHead, fluid }: Circuit): Network {
  const pieces = segments.filter(takesHead)
  const node = (i: number): string => (i === pieces.length ? 'outlet' : `n${i}`)
  return {
    heads: { source: 0, outlet: staticHead },
    fluid,
    elements: [
      { kind: 'pump', id: 'pump', label: 'Pump', from: 'source', to: node(0), pump },
      ...pieces.map((s, i) => segmentElement(s, { id: s.id, from: node(i), to: node(i + 1) })),
    ],
  }
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
