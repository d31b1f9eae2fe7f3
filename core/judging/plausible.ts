import { FILTERS } from '../kinds'
import type { Sentence } from '../figures'
import type { Dimension } from '../units'
import { CLAIM_LIMITS, type ClaimQuantity, type FilterKind } from '../trials/records'

/** Range (SI) a printed figure usually lies in; outside it the app asks, and takes yes for an answer. */
const USUAL: Readonly<
  Record<ClaimQuantity, { readonly dimension: Dimension; readonly low: number; readonly high: number }>
> = {
  'rated-flow': { dimension: 'flow', low: 20 / 3.6e6, high: 12000 / 3.6e6 },
  'max-head': { dimension: 'head', low: 0.1, high: 8 },
  power: { dimension: 'power', low: 0.5, high: 200 },
  'tank-min': { dimension: 'volume', low: 0.005, high: 1 },
  'tank-max': { dimension: 'volume', low: 0.01, high: 3 },
  'media-volume': { dimension: 'volume', low: 0.05e-3, high: 0.06 },
  noise: { dimension: 'sound', low: 10, high: 70 },
}

/** Most that a printed figure can be (SI). */
export const mostClaimed = (quantity: ClaimQuantity): number => CLAIM_LIMITS[quantity].max

/** The dimension a printed quantity is typed in. */
export const claimDimension = (quantity: ClaimQuantity): Dimension => USUAL[quantity].dimension

/** Why a printed figure (SI) cannot be taken at all, or null. */
export function claimProblem(quantity: ClaimQuantity, value: number): Sentence | null {
  const max = mostClaimed(quantity)
  if (value <= 0) return ['Enter more than zero.']
  return value > max ? ['Maximum ', { si: max, dimension: USUAL[quantity].dimension }, '.'] : null
}

/**
 * A question to ask before taking an unusual printed figure, or null when it is usual. `value` in SI.
 * Limits are common practice, no source; they never refuse, they ask.
 */
export function doubt(quantity: ClaimQuantity, value: number, kind: FilterKind): Sentence | null {
  const { dimension, low, high } = USUAL[quantity]
  const top = quantity === 'rated-flow' ? (FILTERS[kind].largestFlow ?? high) : high
  if (value >= low && value <= top) return null
  return [
    'Check the unit: ',
    { si: value, dimension },
    ` is ${value > top ? 'above' : 'below'} the usual `,
    { si: low, dimension },
    ' to ',
    { si: top, dimension },
    ' for this kind.',
  ]
}
