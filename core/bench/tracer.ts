import { linearRegression } from 'simple-statistics'
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

/** Numbers of a pulse: times in s, the rest without unit. */
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
  /** Share of the last to the highest concentration above the background. */
  readonly tail: number
  /**
   * Dye that was not waited for, put back as an exponential tail: its share of all the dye; 0 where none was needed.
   */
  readonly extrapolated: number
}

/**
 * Residence-time figures of a pulse response by the trapezium rule: mean ∫tC/∫C, variance ∫t²C/∫C − mean², tanks in
 * series mean²/variance, and times at which 10, 50 and 90 % have passed. The background, what was read before the dye
 * came, is taken off first. A tail that was not waited for is carried on as the exponential that its last points fall
 * by, however little is left of it: cut at a tenth, a perfect mixer would else show a quarter of its volume dead.
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
  const curve = aboveBackground(points)
  const passed = [0]
  let moment1 = 0
  let moment2 = 0
  for (let i = 1; i < curve.length; i++) {
    const [a, b] = [curve[i - 1], curve[i]]
    if (!a || !b) continue
    const dt = b.time - a.time
    passed.push((passed[i - 1] ?? 0) + ((a.concentration + b.concentration) / 2) * dt)
    moment1 += ((a.time * a.concentration + b.time * b.concentration) / 2) * dt
    moment2 += ((a.time ** 2 * a.concentration + b.time ** 2 * b.concentration) / 2) * dt
  }
  const seen = passed.at(-1) ?? 0
  if (!(seen > 0)) throw new OutOfRange('points', 0, { words: 'some dye: every concentration is zero' })
  const highest = Math.max(...curve.map((p) => p.concentration))
  const end = curve.at(-1) ?? { time: 0, concentration: 0 }
  const tail = end.concentration / highest
  const rate = tail > 0 ? tailRate(curve, highest) : null
  // ∫ C e^(−k(t − T)) with t⁰, t¹ and t² from T on.
  const after = rate === null ? 0 : end.concentration / rate
  if (rate !== null) {
    moment1 += after * (end.time + 1 / rate)
    moment2 += after * (end.time ** 2 + (2 * end.time) / rate + 2 / rate ** 2)
  }
  const area = seen + after
  const mean = moment1 / area
  const variance = Math.max(0, moment2 / area - mean ** 2)
  const when = (share: number): number => {
    const target = share * area
    if (target > seen && rate !== null) return end.time - Math.log((area - target) / after) / rate
    const i = passed.findIndex((v) => v >= target)
    const [p0, p1] = [passed[i - 1] ?? 0, passed[i] ?? seen]
    const [t0, t1] = [curve[i - 1]?.time ?? 0, curve[i]?.time ?? 0]
    return t0 + ((target - p0) / (p1 - p0)) * (t1 - t0)
  }
  const [t10, t50, t90] = [when(0.1), when(0.5), when(0.9)]
  const share = nominal ? t10 / nominal : 0
  const nearest = BAFFLING.reduce((best, b) =>
    Math.abs(b.factor - share) < Math.abs(best.factor - share) ? b : best,
  )
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
    tail,
    extrapolated: after / area,
  }
}

/** The falling limb is read between these shares of the highest: fainter, it says more of the eye than of the dye. */
const LIMB = { from: 0.03, to: 0.7 } as const

/** The curve above its background: the lowest reading before the highest one, where the dye came after the first. */
function aboveBackground(points: readonly TracerPoint[]): readonly TracerPoint[] {
  const top = points.reduce(
    (best, p, i) => (p.concentration > (points[best]?.concentration ?? 0) ? i : best),
    0,
  )
  const before = points.slice(0, top)
  if (!before.length) return points
  const background = Math.min(...before.map((p) => p.concentration))
  return points.map((p) => ({ ...p, concentration: Math.max(0, p.concentration - background) }))
}

/** Rate (1/s) at which the falling limb ends, by least squares of ln C on t; null when its points do not fall. */
function tailRate(curve: readonly TracerPoint[], highest: number): number | null {
  const top = curve.findIndex((p) => p.concentration === highest)
  const falling = curve.slice(top).filter((p) => p.concentration > 0 && p.concentration <= LIMB.to * highest)
  const seen = falling.filter((p) => p.concentration >= LIMB.from * highest)
  const limb = seen.length < 3 ? falling : seen
  const last = limb.slice(-Math.max(3, Math.ceil(limb.length / 2)))
  if (last.length < 2) return null
  const { m } = linearRegression(last.map((p) => [p.time, Math.log(p.concentration)]))
  return m < 0 ? -m : null
}
