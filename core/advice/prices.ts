import { minorDigits } from '../units'
import type { Price } from './candidate'
import type { AdviceRule } from './rule'

/** Currency and rates of a house. */
export type Exchange = Pick<AdviceRule, 'currency' | 'rates'>

/** A price in the house’s currency (whole minor units) by its rate of a day; null where no rate has been given. */
export function exchanged(price: Price, { currency, rates }: Exchange): Price | null {
  if (price.currency === currency) return price
  const rate = rates?.[price.currency]?.rate
  if (rate === undefined || !(rate > 0)) return null
  const digits = minorDigits(currency) - minorDigits(price.currency)
  return { ...price, minor: Math.round(price.minor * rate * 10 ** digits), currency }
}

/** One thing that is paid for. */
export interface Item {
  readonly what: string
  readonly price: Price | null
}

/** Currencies that a house has given no rate for, among these. */
export const unratedOf = (currencies: readonly string[], by: Exchange): readonly string[] =>
  [...new Set(currencies)].filter((c) => c !== by.currency && by.rates?.[c] === undefined).sort()

/** A sum in the house’s currency, and what is not in it: what has no price, or one that no rate was given for. */
export interface Sum {
  /** Null where nothing of it has a price. */
  readonly price: Price | null
  /** Missing items, as they are named; the sum is then “from”. */
  readonly missing: readonly string[]
}

/** Adds up what is paid for; nothing is mixed silently, and nothing left out without its name. */
export function sumOf(items: readonly Item[], by: Exchange): Sum {
  const missing: string[] = []
  let [minor, any] = [0, false]
  for (const { what, price } of items) {
    const own = price && exchanged(price, by)
    if (own) {
      minor += own.minor
      any = true
    } else missing.push(price ? `${what} (priced in ${price.currency}, no rate)` : what)
  }
  return { price: any ? { minor, currency: by.currency } : null, missing: [...new Set(missing)] }
}
