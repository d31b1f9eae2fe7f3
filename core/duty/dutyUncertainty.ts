import { expanded, type VariancePart } from '../statistics/uncertainty'
import { quadraticForm, type FittedPump } from '../hydraulics/bands'
import { dutyPoint, solvedCircuit, type Circuit, type DutyPoint } from './circuit'
import { LABEL_EXPONENT, type Pump } from '../hydraulics/pump'
import type { Segment } from '../hydraulics/segments'

/**
 * How well the pump is known: by a fit to the bench, or only by a label: its exponent band, what labels' flows are
 * wrong by (relative half-width, 95 %), and the heads it may have where none is printed (m).
 */
export type PumpKnowledge =
  | { readonly kind: 'fit'; readonly fit: FittedPump }
  | { readonly kind: 'label'; readonly reach?: number; readonly heads?: readonly [low: number, high: number] }

/** Relative standard uncertainty of tabulated loss coefficients (common practice, no source). */
export const LOSS_UNCERTAINTY = 0.15

/** A duty point with the standard uncertainty of its flow (m³/s) and the parts it is made of. */
export interface UncertainDutyPoint extends DutyPoint {
  readonly standardUncertainty: number
  readonly expandedUncertainty: number
  readonly parts: { readonly pump: number; readonly losses: number }
}

const scaleLosses = (segments: readonly Segment[], by: number): readonly Segment[] =>
  segments.map((s) => {
    if (s.kind === 'hose') return { ...s, length: s.length * by }
    if (s.kind === 'fitting') return { ...s, lossCoefficient: s.lossCoefficient * by }
    return { ...s, dischargeCoefficient: s.dischargeCoefficient / Math.sqrt(by) }
  })

/** Variance of a flow by the pump's curve, and the part of that which comes from scatter. */
export interface PumpVariance {
  readonly variance: number
  readonly parts: readonly VariancePart[]
}

/**
 * Variance (m⁶/s²) that the doubt in the pump's curve gives a flow: `shift` is what a changed pump does to it (m³/s).
 * A fit's covariance goes through central differences; a label's exponent band and supposed heads are taken as
 * rectangular, what labels are wrong by as normal.
 * Source: law of propagation of uncertainty, GUM (JCGM 100) 5.2 and F.2.
 */
export function pumpVariance(
  pump: Pump,
  knowledge: PumpKnowledge,
  shift: (changed: Pump) => number,
): PumpVariance {
  if (knowledge.kind === 'label') {
    const { high, low } = LABEL_EXPONENT
    const span = shift({ ...pump, exponent: high }) - shift({ ...pump, exponent: low })
    const { reach = 0, heads } = knowledge
    const { maxFlow } = pump
    const wrong = reach
      ? (shift({ ...pump, maxFlow: maxFlow * (1 + reach) }) -
          shift({ ...pump, maxFlow: maxFlow * (1 - reach) })) /
        4
      : 0
    const higher = heads
      ? shift({ ...pump, shutOffHead: heads[1] }) - shift({ ...pump, shutOffHead: heads[0] })
      : 0
    return { variance: ((span / 2) ** 2 + (higher / 2) ** 2) / 3 + wrong ** 2, parts: [] }
  }
  const gradient = (['shutOffHead', 'maxFlow', 'exponent'] as const).map((key) => {
    const h = pump[key] * 1e-4
    return (shift({ ...pump, [key]: pump[key] + h }) - shift({ ...pump, [key]: pump[key] - h })) / (2 * h)
  })
  const { covariance, scatter, degreesOfFreedom } = knowledge.fit
  return {
    variance: quadraticForm(gradient, covariance),
    parts: [{ variance: quadraticForm(gradient, scatter), degreesOfFreedom }],
  }
}

/**
 * Duty point with first-order uncertainty: the pump by {@link pumpVariance}, all losses together ±15 % standard.
 * Expanded to 95 % with k from the effective degrees of freedom (GUM G.4).
 */
export function uncertainDutyPoint(circuit: Circuit, knowledge: PumpKnowledge): UncertainDutyPoint {
  const duty = dutyPoint(circuit)
  if (duty.blocked)
    return { ...duty, standardUncertainty: 0, expandedUncertainty: 0, parts: { pump: 0, losses: 0 } }
  const { variance, parts } = pumpVariance(
    circuit.pump,
    knowledge,
    (pump) => solvedCircuit({ ...circuit, pump }).flow - duty.flow,
  )
  const withLosses = (by: number): number =>
    solvedCircuit({ ...circuit, segments: scaleLosses(circuit.segments, by) }).flow
  const losses = Math.abs(withLosses(1 + LOSS_UNCERTAINTY) - withLosses(1 - LOSS_UNCERTAINTY)) / 2
  const all = variance + losses ** 2
  return {
    ...duty,
    standardUncertainty: Math.sqrt(all),
    expandedUncertainty: expanded(all, parts),
    parts: { pump: Math.sqrt(variance), losses },
  }
}
