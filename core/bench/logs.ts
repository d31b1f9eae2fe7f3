import { OutOfRange, requireRange, TooFew } from '../errors'
import { summary } from '../statistics/summary'

/** Summary of a long series: count, span (s), mean, sample deviation, energy mean for levels (dB), extremes. */
export interface LogSummary {
  readonly n: number
  readonly span: number
  readonly mean: number
  readonly deviation: number
  readonly energyMean: number
  readonly min: number
  readonly max: number
}

/** Most points one log may have. */
export const MAX_LOG = 20000

/**
 * Sums up a log of `values` at `times` (s, rising).
 * @throws TooFew when empty; OutOfRange naming `times[i]` or `values[i]`.
 */
export function logSummary(times: readonly number[], values: readonly number[]): LogSummary {
  const n = values.length
  if (!n) throw new TooFew('values', 0, 1, 'The log is empty.')
  if (n > MAX_LOG) throw new OutOfRange('values', n, { words: `at most ${MAX_LOG} points` })
  if (times.length !== n)
    throw new OutOfRange('times', times.length, { words: `as many as there are values (${n})` })
  let [min, max] = [Infinity, -Infinity]
  for (let i = 0; i < n; i++) {
    const [t, v, before] = [times[i] ?? NaN, values[i] ?? NaN, times[i - 1]]
    if (!Number.isFinite(t) || (before !== undefined && t <= before))
      throw new OutOfRange(`times[${i}]`, t, { words: 'later than the point before' })
    requireRange(`values[${i}]`, v, { min: -1e9, max: 1e9 })
    if (v < min) min = v
    if (v > max) max = v
  }
  // Energies relative to the highest level: no series of finite levels leaves the numbers, up or down.
  const energy = values.reduce((sum, v) => sum + 10 ** ((v - max) / 10), 0)
  return {
    ...summary(values),
    span: (times[n - 1] ?? 0) - (times[0] ?? 0),
    energyMean: max + 10 * Math.log10(energy / n),
    min,
    max,
  }
}

/**
 * Fewer points of the same shape, for drawing: in each of `buckets` spans of equal count the lowest and the highest, in
 * their order, with the first and last kept. Peaks survive, unlike with every n-th point.
 */
export function thinned<T extends { readonly time: number; readonly value: number }>(
  points: readonly T[],
  buckets: number,
): readonly T[] {
  if (points.length <= buckets * 2) return points
  const size = points.length / buckets
  const out: T[] = []
  for (let b = 0; b < buckets; b++) {
    const part = points.slice(Math.floor(b * size), Math.floor((b + 1) * size))
    const first = part[0]
    if (!first) continue
    const [low, high] = part.reduce(
      ([lo, hi], p) => [p.value < lo.value ? p : lo, p.value > hi.value ? p : hi],
      [first, first],
    )
    out.push(...(low.time <= high.time ? [low, high] : [high, low]))
  }
  const [start, end] = [points[0], points[points.length - 1]]
  if (start && out[0] !== start) out.unshift(start)
  if (end && out[out.length - 1] !== end) out.push(end)
  return out.filter((p, i) => i === 0 || p !== out[i - 1])
}
