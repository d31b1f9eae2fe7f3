import { studentQuantile } from './distributions'

/** A part of a combined variance with the freedom it is known with; Infinity where it is not from a sample. */
export interface VariancePart {
  readonly variance: number
  readonly degreesOfFreedom: number
}

/**
 * Effective degrees of freedom of a combined variance: u⁴ ÷ Σ uᵢ⁴/νᵢ over the parts that come from samples.
 * Source: Welch–Satterthwaite, GUM (JCGM 100) G.4.
 */
export function effectiveFreedom(variance: number, parts: readonly VariancePart[]): number {
  const sum = parts.reduce((s, p) => s + p.variance ** 2 / p.degreesOfFreedom, 0)
  return sum > 0 ? variance ** 2 / sum : Infinity
}

/**
 * Half-width of the 95 % interval of a quantity of combined variance: t(0.975, ν_eff) · u, in the quantity's unit. ν is
 * kept at 1 or more.
 */
export const expanded = (variance: number, parts: readonly VariancePart[] = []): number =>
  variance > 0
    ? studentQuantile(0.975, Math.max(1, effectiveFreedom(variance, parts))) * Math.sqrt(variance)
    : 0

/**
 * Standard deviation of ln x for a log-normal x of a relative standard uncertainty: √ln(1 + u²). So what is doubted by
 * much never turns negative. Source: any statistics text.
 */
export const logDeviation = (relative: number): number => Math.sqrt(Math.log1p(relative * relative))
