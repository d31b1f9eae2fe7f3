import { requirePositive } from '../errors'

/** ISO 9906:2012 acceptance grades: tolerance of flow and head as shares of the guaranteed values. */
export interface AcceptanceGrade {
  readonly id: '1B' | '2B' | '3B' | 'small'
  readonly label: string
  readonly flow: number
  readonly head: number
}

/** Source: ISO 9906:2012, tables 8 and 9 (drivers under 10 kW); from memory. */
export const ACCEPTANCE_GRADES: readonly AcceptanceGrade[] = [
  { id: '1B', label: 'grade 1B (±5 %)', flow: 0.05, head: 0.03 },
  { id: '2B', label: 'grade 2B (±8 %)', flow: 0.08, head: 0.05 },
  { id: '3B', label: 'grade 3B (±9 %)', flow: 0.09, head: 0.07 },
  { id: 'small', label: 'small-pump tolerance (±10 %)', flow: 0.1, head: 0.08 },
]

/** The finding on a rated flow: what is short, whether that can be chance, and the best grade met. */
export interface LabelFinding {
  /** (measured − label)/label: negative is a shortfall. */
  readonly difference: number
  readonly uncertainty: number
  readonly outsideUncertainty: boolean
  /** Best grade whose tolerance holds the difference, or null. */
  readonly grade: AcceptanceGrade | null
  /** The whole 95 % interval lies on the same side of that grade's limits (or outside all of them). */
  readonly certain: boolean
}

/**
 * Compares a measured flow with the label at the *same* conditions (zero head, empty body, same mains frequency).
 * Flows in m³/s, `expandedUncertainty` of the measured one at 95 %.
 *
 * Source: ISO 9906:2012 acceptance tolerances, used here as a yardstick; a label promises no grade.
 * @throws OutOfRange for a label or measurement not above zero.
 */
export function compareWithLabel(label: number, measured: number, expandedUncertainty: number): LabelFinding {
  requirePositive('label', label, 'm³/s')
  requirePositive('measured', measured, 'm³/s')
  const difference = measured / label - 1
  const uncertainty = Math.abs(expandedUncertainty) / label
  const grade = ACCEPTANCE_GRADES.find((g) => Math.abs(difference) <= g.flow) ?? null
  const limit = grade?.flow ?? Math.max(...ACCEPTANCE_GRADES.map((g) => g.flow))
  const near = Math.max(0, Math.abs(difference) - uncertainty)
  const far = Math.abs(difference) + uncertainty
  return {
    difference,
    uncertainty,
    outsideUncertainty: Math.abs(difference) > uncertainty,
    grade,
    certain: grade ? far <= limit : near > limit,
  }
}

/** "Take 40 to 50 % off the label": the flow (m³/s) that rule of thumb leaves. Common practice, no source. */
/**
 * Shares of a label between which 95 % of filters lie once they stand, whatever stands round them: the rule of 40 to
 * 50 % is their middle, not their spread (common practice, no source).
 */
export const INSTALLED_SHARES = { low: 0.25, high: 0.85 } as const

/** Half-width (m³/s, 95 %) of a flow of which no more is known than its label. */
export const installedHalf = (flow: number, label: number): number =>
  Math.max(0, Math.min(INSTALLED_SHARES.high * label - flow, flow - INSTALLED_SHARES.low * label))

export const thumbFlow = (
  label: number,
): { readonly low: number; readonly high: number; readonly mid: number } => ({
  low: label * 0.5,
  high: label * 0.6,
  mid: label * 0.55,
})
