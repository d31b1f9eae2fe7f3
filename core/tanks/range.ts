import { requirePositive, requireRange } from '../errors'
import { carriedByMass, type StockClass } from './stock'

/** What a model brings, in SI: installed flow with its expanded uncertainty (m³/s), media mass (kg), label top (m³). */
export interface ModelCapability {
  readonly flow: number
  readonly flowUncertainty?: number
  /** Biological media it holds (kg); undefined when not yet weighed. */
  readonly mediaMass?: number
  /** Largest tank the label claims (m³); undefined when it claims none. */
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
  readonly maxInterval: readonly [number, number] | null
  readonly limits: readonly Limit[]
  readonly binding: Constraint
  readonly impossible: boolean
}

/** Turnovers per hour of a tank V (m³) at flow Q (m³/s). */
export const turnover = (flow: number, volume: number): number =>
  (flow * 3600) / requirePositive('volume', volume, 'm³')

/**
 * The tanks a model will really carry for a stock class.
 *
 * Top: the smaller of turnover (Q·3600 / min turnover) and media mass (m · litres per kg). Bottom: Q·3600 / max
 * turnover, below which the current is too strong. The oversizing rule (label top / factor) stands beside them and does
 * not bind, because it rests on the label alone. All three are rules of thumb applied to the given flow and mass.
 * @throws OutOfRange for `flow` or `mediaMass`.
 */
export function supportedRange(model: ModelCapability, stock: StockClass): SupportedRange {
  const perHour = requirePositive('flow', model.flow, 'm³/s') * 3600
  const half = (model.flowUncertainty ?? 0) * 3600
  const byTurnover = perHour / stock.minTurnover
  const byMass =
    model.mediaMass === undefined
      ? undefined
      : carriedByMass(requireRange('mediaMass', model.mediaMass, { min: 0, max: 200, unit: 'kg' }), stock)
  const massBinds = byMass !== undefined && byMass < byTurnover
  const max = massBinds ? byMass : byTurnover
  const min = perHour / stock.maxTurnover
  const limits: Limit[] = [{ constraint: 'turnover', volume: byTurnover, binding: !massBinds }]
  if (byMass !== undefined) limits.push({ constraint: 'media-mass', volume: byMass, binding: massBinds })
  if (model.claimedMax !== undefined)
    limits.push({
      constraint: 'oversizing',
      volume: model.claimedMax / stock.oversizing,
      binding: false,
      beside: true,
    })
  const capped = (v: number): number => Math.max(0, byMass === undefined ? v : Math.min(v, byMass))
  return {
    stockClass: stock.id,
    min,
    max,
    maxInterval:
      half > 0
        ? [capped((perHour - half) / stock.minTurnover), capped((perHour + half) / stock.minTurnover)]
        : null,
    limits,
    binding: massBinds ? 'media-mass' : 'turnover',
    impossible: min > max,
  }
}
