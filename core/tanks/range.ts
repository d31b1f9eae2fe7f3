import { requirePositive } from '../errors'
import { capacityOf, RULE_BAND, ruleInterval, type CapacityInput, type Interval } from './capacity'
import type { StockClass } from './stock'

/** What a model brings with a named fill, and the top its label claims (m³); undefined when it claims none. */
export interface ModelCapability extends CapacityInput {
  readonly claimedMax?: number
}

export type Constraint = 'turnover' | 'media-mass' | 'oversizing'

/** One limit on the tank (m³) and where it comes from. */
export interface Limit {
  readonly constraint: Constraint
  readonly volume: number
  readonly binding: boolean
  /** True for a rule set beside the others for comparison, which does not bind. */
  readonly beside?: boolean
}

/** Tanks (m³) a model supports for a stock class; `impossible` when even its own low end is above its top. */
export interface SupportedRange {
  readonly stockClass: string
  readonly min: number
  readonly max: number
  readonly minInterval: Interval
  readonly maxInterval: Interval
  readonly limits: readonly Limit[]
  readonly binding: Exclude<Constraint, 'oversizing'>
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
 * Top: {@link capacityOf}. Bottom: {@link smallestTank}; it takes the whole flow, whatever meets the media. The
 * oversizing rule (label top / factor) stands beside them and does not bind, because it rests on the label alone. All
 * are rules of thumb, each with its band.
 * @throws OutOfRange as {@link capacityOf}.
 */
export function supportedRange(model: ModelCapability, stock: StockClass): SupportedRange {
  const { volume, interval, byMass, byTurnover, binding } = capacityOf(model, stock)
  const min = smallestTank(model.flow.value, stock)
  const limits: Limit[] = [{ constraint: 'turnover', volume: byTurnover, binding: binding === 'turnover' }]
  if (byMass !== null)
    limits.push({ constraint: 'media-mass', volume: byMass, binding: binding === 'media-mass' })
  if (model.claimedMax !== undefined)
    limits.push({
      constraint: 'oversizing',
      volume: model.claimedMax / stock.oversizing,
      binding: false,
      beside: true,
    })
  return {
    stockClass: stock.id,
    min,
    max: volume,
    minInterval: ruleInterval(min, model.flow, RULE_BAND.turnover),
    maxInterval: interval,
    limits,
    binding,
    impossible: min > volume,
  }
}
