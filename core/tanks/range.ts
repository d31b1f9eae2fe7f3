import { requirePositive } from '../errors'
import { capacityOf, ruleInterval, type CapacityInput, type Interval, type SchoolSays } from './capacity'
import type { CapacitySchool } from './rule'
import { stockKey, type StockClass } from './stock'

/** Tanks (m³) a model supports for a stock class; `impossible` when even its own low end is above its top. */
export interface SupportedRange {
  /** The class by its key. */
  readonly stockClass: string
  readonly min: number
  readonly max: number
  readonly minInterval: Interval
  readonly maxInterval: Interval
  readonly schools: readonly SchoolSays[]
  readonly leading: CapacitySchool
  readonly binding: CapacitySchool
  readonly impossible: boolean
}

/** Turnovers per hour of a tank V (m³) at flow Q (m³/s). */
export const turnover = (flow: number, volume: number): number =>
  (flow * 3600) / requirePositive('volume', volume, 'm³')

/** The tank (m³) below which a flow (m³/s) makes too strong a current: Q·3600 ÷ most turnovers an hour. */
export const smallestTank = (flow: number, stock: StockClass): number => (flow * 3600) / stock.maxTurnover

/**
 * The tanks a model will really carry for a stock class, with one fill.
 *
 * Top: {@link capacityOf}. Bottom: {@link smallestTank}; it takes the whole flow, whatever meets the media.
 * @throws OutOfRange as {@link capacityOf}.
 */
export function supportedRange(model: CapacityInput, stock: StockClass): SupportedRange {
  const { volume, interval, leading, binding, schools } = capacityOf(model, stock)
  const min = smallestTank(model.flow.value, stock)
  return {
    stockClass: stockKey(stock),
    min,
    max: volume,
    minInterval: ruleInterval(min, model.flow, stock.marks.maxTurnover.band),
    maxInterval: interval,
    schools,
    leading,
    binding,
    impossible: min > volume,
  }
}
