import { mad, median } from 'simple-statistics'

/** What pumps give against their labels, bare and empty at no lift: median and 95 % band of measured ÷ rated. */
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

/** What is computed with is what is shown: a whole per cent, so that one more trial rarely moves it. */
const whole = (v: number): number => Math.round(v * 100) / 100
const percent = (v: number): string => (v * 100).toFixed(0)

/**
 * The bias of labels as the shelf's own measured models show it: the median of measured ÷ rated, and twice the spread
 * about it (median absolute deviation, robust against one that flatters itself); a rule of thumb below four models.
 * Source: Huber, Robust Statistics, ch. 5 (MAD as a scale).
 */
export function labelBias(ratios: readonly number[]): LabelBias {
  if (ratios.length < ENOUGH)
    return {
      median: (USUAL.low + USUAL.high) / 2,
      ...USUAL,
      n: 0,
      words: 'pumps give 75 to 100 % of their label bare (rule of thumb)',
    }
  const middle = median([...ratios])
  const half = Math.max(LEAST * middle, 2 * MAD_TO_DEVIATION * mad([...ratios]))
  const [low, high] = [whole(Math.max(0, middle - half)), whole(middle + half)]
  return {
    median: whole(middle),
    low,
    high,
    n: ratios.length,
    words: `the models measured here give ${percent(low)} to ${percent(high)} % of their label bare`,
  }
}
