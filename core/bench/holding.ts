import { Matrix, pseudoInverse } from 'ml-matrix'
import { OutOfRange, TooFew } from '../errors'
import { chiSquareBeyond } from '../statistics'

/** How long a cup or clip held (s); `censored`: it still held when the watch was stopped. */
export interface Holding {
  readonly seconds: number
  readonly censored: boolean
}

/** One step of a survival curve: share still holding after `time`, with Greenwood's standard error. */
export interface SurvivalStep {
  readonly time: number
  readonly atRisk: number
  readonly failed: number
  readonly survival: number
  readonly standardError: number
}

/** The curve, and the time by which half have let go; null while more than half still held. */
export interface Survival {
  readonly steps: readonly SurvivalStep[]
  readonly median: number | null
}

/**
 * Product-limit estimate of holding times; a censored one counts as long as it was watched and is never averaged.
 * Source: Kaplan and Meier, J. Am. Stat. Assoc. 53 (1958) 457; variance after Greenwood (1926).
 * @throws TooFew without times, OutOfRange naming `times[i].seconds`.
 */
export function kaplanMeier(times: readonly Holding[]): Survival {
  if (!times.length) throw new TooFew('times', 0, 1, 'There is no holding time yet.')
  times.forEach((t, i) => {
    if (!(t.seconds >= 0) || !Number.isFinite(t.seconds))
      throw new OutOfRange(`times[${i}].seconds`, t.seconds, { min: 0, unit: 's' })
  })
  const failures = [...new Set(times.filter((t) => !t.censored).map((t) => t.seconds))].sort((a, b) => a - b)
  let survival = 1
  let greenwood = 0
  const steps = failures.map((time): SurvivalStep => {
    const atRisk = times.filter((t) => t.seconds >= time).length
    const failed = times.filter((t) => !t.censored && t.seconds === time).length
    survival *= 1 - failed / atRisk
    greenwood += atRisk > failed ? failed / (atRisk * (atRisk - failed)) : 0
    return { time, atRisk, failed, survival, standardError: survival * Math.sqrt(greenwood) }
  })
  // Products of shares such as 5/6 · 4/5 · 3/4 are one half exactly, and a rounding short of it in binary.
  return { steps, median: steps.find((s) => s.survival <= 0.5 + 1e-9)?.time ?? null }
}

/** Do groups hold alike? χ² on one less than their number, and the chance of as much by luck alone. */
export interface LogRank {
  readonly chiSquare: number
  readonly degreesOfFreedom: number
  readonly p: number
  readonly n: readonly number[]
}

/**
 * Log-rank test of holding times: at each time something let go, what did against what would have if all held alike;
 * hypergeometric variance. Null where there are fewer than two groups, or nothing let go.
 * Source: Mantel, Cancer Chemother. Rep. 50 (1966) 163; Kalbfleisch and Prentice, ch. 1.
 */
export function logRank(groups: readonly (readonly Holding[])[]): LogRank | null {
  const all = groups.flat()
  const times = [...new Set(all.filter((t) => !t.censored).map((t) => t.seconds))]
  if (groups.length < 2 || groups.some((g) => !g.length) || !times.length) return null
  const k = groups.length - 1
  const off = Array<number>(k).fill(0)
  const v = Matrix.zeros(k, k)
  for (const time of times) {
    const risk = groups.map((g) => g.filter((t) => t.seconds >= time).length)
    const failed = groups.map((g) => g.filter((t) => !t.censored && t.seconds === time).length)
    const n = risk.reduce((a, b) => a + b, 0)
    const d = failed.reduce((a, b) => a + b, 0)
    const spread = n > 1 ? (d * (n - d)) / (n - 1) : 0
    for (let i = 0; i < k; i++) {
      const share = (risk[i] ?? 0) / n
      off[i] = (off[i] ?? 0) + (failed[i] ?? 0) - d * share
      for (let j = 0; j < k; j++)
        v.set(i, j, v.get(i, j) + spread * share * ((i === j ? 1 : 0) - (risk[j] ?? 0) / n))
    }
  }
  const o = Matrix.columnVector(off)
  const chiSquare = o.transpose().mmul(pseudoInverse(v)).mmul(o).get(0, 0)
  return {
    chiSquare,
    degreesOfFreedom: k,
    p: chiSquareBeyond(chiSquare, k),
    n: groups.map((g) => g.length),
  }
}
