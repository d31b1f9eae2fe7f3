import jstat from 'jstat'
import { requireRange, TooFew } from '../errors'

/** Student t quantile t(p, ν): p in (0, 1), ν > 0 degrees of freedom (any real; Infinity is the normal). From jStat. */
export function studentQuantile(p: number, degreesOfFreedom: number): number {
  requireRange('p', p, { min: 1e-12, max: 1 - 1e-12 })
  if (degreesOfFreedom > 1e6) return jstat.normal.inv(p, 0, 1)
  return jstat.studentt.inv(p, degreesOfFreedom)
}

/** Standard normal quantile of 97.5 %. */
export const NINETY_FIVE = studentQuantile(0.975, Infinity)

/** Chance that a standard normal number is at most x. From jStat. */
export const normalCdf = (x: number): number => jstat.normal.cdf(x, 0, 1)

/** Chance that χ² of ν degrees of freedom is at least x. From jStat. */
export const chiSquareBeyond = (x: number, degreesOfFreedom: number): number =>
  x > 0 ? 1 - jstat.chisquare.cdf(x, degreesOfFreedom) : 1

/**
 * Critical value of Grubbs' two-sided test for one outlier among n at significance α.
 *
 * G = (n−1)/√n · √(t²/(n−2+t²)), t = t(1 − α/2n, n−2). Source: Grubbs, Technometrics 11 (1969) 1.
 * @throws TooFew below n = 3.
 */
export function grubbsCritical(n: number, alpha = 0.05): number {
  if (n < 3) throw new TooFew('n', n, 3, 'Grubbs’ test needs at least 3 values.')
  const t = studentQuantile(1 - alpha / (2 * n), n - 2)
  return ((n - 1) / Math.sqrt(n)) * Math.sqrt((t * t) / (n - 2 + t * t))
}

const EQUAL = 2048
let equal: Float64Array | null = null
/**
 * 2048 equally probable standard normal numbers, x_i = Φ⁻¹((i + ½)/2048), out to ±3.5: a draw by the million looks one
 * up, and what hangs on it alone is worked out once for each.
 */
export const equalNormals = (): Float64Array =>
  (equal ??= Float64Array.from({ length: EQUAL }, (_, i) => studentQuantile((i + 0.5) / EQUAL, Infinity)))
