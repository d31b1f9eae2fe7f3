import { mad, median, sum } from 'simple-statistics'
import { studentQuantile } from '../statistics'

/** Label bias of pumps, bare and empty at no lift: median and 95 % band of measured ÷ rated. */
export interface LabelBias {
  readonly median: number
  readonly low: number
  readonly high: number
  /** Models it was found on; 0 for the rule of thumb. */
  readonly n: number
  readonly words: string
}

/** Bare flow ÷ rated flow before the bench has models of its own to go by (common practice, no source). */
const USUAL = { low: 0.75, high: 1 } as const
/** Models that the bench's own median stands on at least. */
const ENOUGH = 4
/** Standard deviation of a normal sample by its median absolute deviation. */
const MAD_TO_DEVIATION = 1.4826
/** A label's bias is never believed surer than this share, however alike a shelf's models are (common practice). */
const LEAST = 0.03
/**
 * How makers differ from each other where few show it: standard deviation of measured ÷ rated, and the degrees of
 * freedom that is worth (common practice, no source).
 */
const MAKERS = { deviation: 0.06, freedom: 3 } as const
/** A scale by median absolute deviation is worth so much of one by squares. Source: Huber, Robust Statistics, ch. 5. */
const EFFICIENCY = 0.37
/** Outliers are cut off at so many scales: one that flatters itself moves little. */
const FAR = 3
/** Variance of a median over that of a mean, for a normal sample: π/2. */
const OF_MEDIAN = Math.PI / 2

/** Bias rounded as it is shown: a whole per cent, so that one more trial rarely moves it. */
const whole = (v: number): number => Math.round(v * 100) / 100
const percent = (v: number): string => (v * 100).toFixed(0)

/** Scale of ratios that one far off hardly moves: by median absolute deviation, pooled with what makers differ by. */
function scaleOf(ratios: readonly number[]): number {
  const shown = EFFICIENCY * (ratios.length - 1)
  const own = MAD_TO_DEVIATION * mad([...ratios])
  return Math.sqrt((MAKERS.freedom * MAKERS.deviation ** 2 + shown * own ** 2) / (MAKERS.freedom + shown))
}

/**
 * The bias of labels as the shelf's own measured models show it: the median of measured ÷ rated, and where one more
 * will be found in 95 of 100 cases: t(n − 1) · s √(1 + π/2n), what stands far off pulled in. A rule of thumb below four
 * models.
 * Source: prediction of one more of a normal sample (any statistics text); Huber, Robust Statistics, ch. 5 (pulled-in
 * residuals, MAD as a scale).
 */
export function labelBias(ratios: readonly number[]): LabelBias {
  if (ratios.length < ENOUGH)
    return {
      median: (USUAL.low + USUAL.high) / 2,
      ...USUAL,
      n: 0,
      words: 'pumps give 75 to 100 % of their rated flow, empty and without hoses (rule of thumb)',
    }
  const middle = median([...ratios])
  const n = ratios.length
  const limit = FAR * scaleOf(ratios)
  const squares = sum(ratios.map((r) => Math.min(limit, Math.abs(r - middle)) ** 2))
  const s = Math.sqrt(squares / (n - 1))
  const half = Math.max(LEAST * middle, studentQuantile(0.975, n - 1) * s * Math.sqrt(1 + OF_MEDIAN / n))
  const [low, high] = [whole(Math.max(0, middle - half)), whole(middle + half)]
  return {
    median: whole(middle),
    low,
    high,
    n: ratios.length,
    words: `the models measured here give ${percent(low)} to ${percent(high)} % of their rated flow, empty and without hoses`,
  }
}
