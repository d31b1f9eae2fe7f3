import type { Figure } from '../figures'
import { capacityInput, capacityOf } from './capacity'
import { SCHOOLS, type CapacityFigures, type Interval, type SchoolSays } from './schools'
import { stockKey, type StockClass } from './stock'

/** An interval as it is judged by: its wider half, and both where they differ. */
export const asUsed = (value: number, [low, high]: Interval): Pick<Figure, 'uncertainty' | 'interval'> => ({
  uncertainty: Math.max(value - low, high - value),
  ...(Math.abs(high - value - (value - low)) > 1e-3 * Math.max(value, high - low) && {
    interval: [low, high],
  }),
})

/** Tank by a school for a fill as a number with its working; null where it says nothing. */
export function schoolFigure(
  says: SchoolSays,
  of: Omit<CapacityFigures, 'fill'>,
  stock: StockClass,
  claimedMax: number | null,
): Figure | null {
  if (says.volume === null || says.interval === null) return null
  return {
    id: `limit-${stockKey(stock)}-${says.school}`,
    label: `Largest tank by ${SCHOOLS[says.school].words}, ${stock.label.toLowerCase()}`,
    value: says.volume,
    ...asUsed(says.volume, says.interval),
    dimension: 'volume',
    provenance: says.school === 'balance' ? 'computed' : 'rule',
    ...SCHOOLS[says.school].shown(of, stock, claimedMax),
  }
}

/** Tank litres a fill carries for a stock class, with the numbers that went in. */
export function capacityFigure(
  of: CapacityFigures,
  stock: StockClass,
  claimedMax: number | null = null,
): Figure {
  const { volume, interval, leading, binding } = capacityOf(capacityInput(of, claimedMax), stock)
  return {
    id: `carries-${stockKey(stock)}-${of.fill.id}`,
    label: `Supports (${stock.label.toLowerCase()} stocking)`,
    value: volume,
    ...asUsed(volume, interval),
    shared: [
      { what: `${SCHOOLS[binding].words}, ${stockKey(stock)}`, relative: SCHOOLS[binding].band(stock) },
    ],
    dimension: 'volume',
    provenance: binding === 'balance' ? 'computed' : 'rule',
    conditions: [
      of.fill.name,
      binding === leading
        ? `by ${SCHOOLS[leading].words}, first in the house rules`
        : `limited by ${SCHOOLS[binding].words} before ${SCHOOLS[leading].words}`,
      'tank litres',
    ],
    ...SCHOOLS[binding].shown(of, stock, claimedMax),
  }
}
