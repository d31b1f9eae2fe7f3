import { showPercent } from '@ypsometer/core/units/format'

/** So few draws say no more than that it is more, or less, than this. */
const EDGE = 0.01

/** A share of draws in words. */
export const chanceText = (share: number): string => {
  if (share > 1 - EDGE) return 'over 99 %'
  return share < EDGE ? 'under 1 %' : showPercent(share)
}
