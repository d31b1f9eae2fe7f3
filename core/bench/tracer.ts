import { OutOfRange, TooFew } from '../errors'

/** Concentration (any unit) against time (s) at one point after a pulse of dye. */
export interface TracerPoint {
  readonly time: number
  readonly concentration: number
}

/**
 * US EPA baffling classes by t10/τ. Source: EPA Disinfection Profiling and Benchmarking Guidance Manual (1999), table.
 */
export const BAFFLING = [
  { factor: 0.1, label: 'unbaffled' },
  { factor: 0.3, label: 'poor' },
  { factor: 0.5, label: 'average' },
  { factor: 0.7, label: 'superior' },
  { factor: 1, label: 'plug flow' },
] as const

/** What a pulse tells: times in s, the rest without unit. */
export interface TracerResult {
  readonly meanResidence: number
  readonly variance: number
  readonly tanksInSeries: number
  readonly t10: number
  readonly t50: number
  readonly t90: number
  /** t90/t10: 1 is plug flow, about 22 one mixed tank. */
  readonly morrill: number
  /** Given the volume and flow: 1 − mean/(V/Q), never below 0. */
  readonly deadShare: number | null
  readonly baffling: { readonly factor: number; readonly label: string; readonly t10Share: number } | null
  /** Share of the last to the highest concentration: a tail cut off early makes all times too short. */
  readonly tail: number
}

/**
 * Residence-time figures of a pulse response by the trapezium rule: mean ∫tC/∫C, variance ∫t²C/∫C − mean², tanks in
 * series mean²/variance, and times at which 10, 50 and 90 % have passed.
 * `nominal` is V/Q (s) where both are known. Source: Levenspiel, Chemical Reaction Engineering, ch. 11 and 14.
 * @throws TooFew below three points; OutOfRange naming `points[i]` where time does not rise or dye is negative.
 */
export function tracerFigures(points: readonly TracerPoint[], nominal: number | null = null): TracerResult {
  if (points.length < 3)
    throw new TooFew('points', points.length, 3, 'A dye curve needs at least three points.')
  points.forEach((p, i) => {
    const before = points[i - 1]
    if (!Number.isFinite(p.time) || (before && p.time <= before.time))
      throw new OutOfRange(`points[${i}].time`, p.time, { words: 'later than the point before' })
    if (!(p.concentration >= 0) || !Number.isFinite(p.concentration))
      throw new OutOfRange(`points[${i}].concentration`, p.concentration, { words: 'at least 0' })
  })
  const passed = [0]
  let moment1 = 0
  let moment2 = 0
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]]
    if (!a || !b) continue
    const dt = b.time - a.time
    passed.push((passed[i - 1] ?? 0) + ((a.concentration + b.concentration) / 2) * dt)
    moment1 += ((a.time * a.concentration + b.time * b.concentration) / 2) * dt
    moment2 += ((a.time ** 2 * a.concentration + b.time ** 2 * b.concentration) / 2) * dt
  }
  const area = passed.at(-1) ?? 0
  if (!(area > 0)) throw new OutOfRange('points', 0, { words: 'some dye: every concentration is zero' })
  const mean = moment1 / area
  const variance = Math.max(0, moment2 / area - mean ** 2)
  const when = (share: number): number => {
    const target = share * area
    const i = passed.findIndex((v) => v >= target)
    const [p0, p1] = [passed[i - 1] ?? 0, passed[i] ?? area]
    const [t0, t1] = [points[i - 1]?.time ?? 0, points[i]?.time ?? 0]
    return t0 + ((target - p0) / (p1 - p0)) * (t1 - t0)
  }
  const [t10, t50, t90] = [when(0.1), when(0.5), when(0.9)]
  const share = nominal ? t10 / nominal : 0
  const nearest = BAFFLING.reduce((best, b) =>
    Math.abs(b.factor - share) < Math.abs(best.factor - share) ? b : best,
  )
  const highest = Math.max(...points.map((p) => p.concentration))
  return {
    meanResidence: mean,
    variance,
    tanksInSeries: variance > 0 ? mean ** 2 / variance : Infinity,
    t10,
    t50,
    t90,
    morrill: t10 > 0 ? t90 / t10 : Infinity,
    deadShare: nominal ? Math.max(0, 1 - mean / nominal) : null,
    baffling: nominal ? { ...nearest, t10Share: share } : null,
    tail: (points.at(-1)?.concentration ?? 0) / highest,
  }
}
