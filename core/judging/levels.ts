import { OVERCLAIM_THRESHOLDS } from './thresholds'

/** How a claim stands, in steps of claimed ÷ supported. */
export type VerdictLevel = 'open' | 'holds' | 'stretched' | 'overclaimed' | 'far-overclaimed'

/** The step of a ratio claimed ÷ supported; open where there is none. */
export function levelOf(ratio: number | null): VerdictLevel {
  if (ratio === null) return 'open'
  if (ratio <= OVERCLAIM_THRESHOLDS.holds) return 'holds'
  if (ratio <= OVERCLAIM_THRESHOLDS.stretched) return 'stretched'
  return ratio <= OVERCLAIM_THRESHOLDS.overclaimed ? 'overclaimed' : 'far-overclaimed'
}
