import { dutyPoint, type Circuit, type DutyPoint } from './circuit'
import { LABEL_EXPONENT, type Pump } from './pump'
import type { Segment } from './segments'

/** How well the pump is known: a fit's covariance of (H0, Q0, n), or only a label's exponent band. */
export type PumpKnowledge =
  | { readonly kind: 'fit'; readonly covariance: readonly (readonly number[])[]; readonly coverage: number }
  | { readonly kind: 'label' }

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

/**
 * Duty point with first-order uncertainty: pump parameters by central differences and their covariance, or the
 * label's exponent band as a rectangular distribution; all losses together ±15 % standard.
 *
 * Source: law of propagation of uncertainty, GUM (JCGM 100) 5.2. Expanded with k = 2, or the fit's t when larger.
 */
export function uncertainDutyPoint(circuit: Circuit, knowledge: PumpKnowledge): UncertainDutyPoint {
  const duty = dutyPoint(circuit)
  if (duty.blocked)
    return { ...duty, standardUncertainty: 0, expandedUncertainty: 0, parts: { pump: 0, losses: 0 } }
  const flowWith = (pump: Pump): number => dutyPoint({ ...circuit, pump }).flow
  const pumpPart =
    knowledge.kind === 'fit'
      ? fitPart(circuit.pump, knowledge.covariance, flowWith)
      : labelPart(circuit.pump, flowWith)
  const losses =
    Math.abs(
      dutyPoint({ ...circuit, segments: scaleLosses(circuit.segments, 1 + LOSS_UNCERTAINTY) }).flow -
        dutyPoint({ ...circuit, segments: scaleLosses(circuit.segments, 1 - LOSS_UNCERTAINTY) }).flow,
    ) / 2
  const standard = Math.hypot(pumpPart, losses)
  const k =
    knowledge.kind === 'fit' && Number.isFinite(knowledge.coverage) ? Math.max(2, knowledge.coverage) : 2
  return {
    ...duty,
    standardUncertainty: standard,
    expandedUncertainty: k * standard,
    parts: { pump: pumpPart, losses },
  }
}

function labelPart(pump: Pump, flowWith: (p: Pump) => number): number {
  const span =
    flowWith({ ...pump, exponent: LABEL_EXPONENT.high }) - flowWith({ ...pump, exponent: LABEL_EXPONENT.low })
  return Math.abs(span) / 2 / Math.sqrt(3)
}

function fitPart(
  pump: Pump,
  covariance: readonly (readonly number[])[],
  flowWith: (p: Pump) => number,
): number {
  const step = 1e-4
  const slope = (key: keyof Pump): number => {
    const h = pump[key] * step
    return (
      (flowWith({ ...pump, [key]: pump[key] + h }) - flowWith({ ...pump, [key]: pump[key] - h })) / (2 * h)
    )
  }
  const g = [slope('shutOffHead'), slope('maxFlow'), slope('exponent')]
  let variance = 0
  g.forEach((gi, i) => g.forEach((gj, j) => (variance += gi * gj * (covariance[i]?.[j] ?? 0))))
  return Math.sqrt(Math.max(0, variance))
}
