import { requirePositive } from '../errors'
import { gentleFrom, JET_BAND, type Outlet } from '../hydraulics/jets'
import { capacityOf } from './capacity'
import type { CapacityInput, Interval, Known, SchoolSays } from './schools'
import type { CapacitySchool } from './rule'
import { stockKey, type StockClass } from './stock'

/** Tanks (m³) a model supports for a stock class. Its low end may lie above its top: then both are said. */
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
  /** Nobody noted its media: the top is at most so much. */
  readonly atMost: boolean
  /** Too small for its gentlest outlet at every size it carries. */
  readonly lowAboveTop: boolean
}

/** Turnovers per hour of a tank V (m³) at flow Q (m³/s). */
export const turnover = (flow: number, volume: number): number =>
  (flow * 3600) / requirePositive('volume', volume, 'm³')

/** Half of a tank’s length at least must be no faster than its stock bears (common practice, no source). */
export const CALM = 0.5

/** Tank (m³) so long, as tanks are made (twice as long as wide and high), that a length (m) is half of it. */
const tankOfCalm = (gentle: number): number => (gentle / CALM) ** 3 / 4

/** The gentlest of the outlets that a model comes with: the one whose jet is first no faster than a class bears. */
function gentlest(
  outlets: readonly Outlet[],
  flow: number,
  stock: Pick<StockClass, 'strongestCurrent'>,
): { readonly outlet: Outlet; readonly from: number } | null {
  return outlets
    .map((outlet) => ({ outlet, from: gentleFrom(outlet, flow, stock.strongestCurrent) }))
    .reduce<{ outlet: Outlet; from: number } | null>((a, b) => (a && a.from <= b.from ? a : b), null)
}

/**
 * Length (m) over which the gentlest outlet is too fast for a class, at its value and at the ends of its band; null
 * where no outlet is known or nothing flows.
 * @throws OutOfRange as the jets do.
 */
export function fastLength(
  flow: Known,
  outlets: readonly Outlet[],
  stock: Pick<StockClass, 'strongestCurrent' | 'marks'>,
): { readonly at: number; readonly least: number; readonly most: number } | null {
  const found = flow.value > 0 ? gentlest(outlets, flow.value, stock) : null
  if (!found) return null
  const at = Math.min(LARGEST_LENGTH, found.from)
  const relative = Math.hypot(
    JET_BAND,
    (flow.uncertainty ?? 0) / flow.value,
    stock.marks.strongestCurrent.band,
  )
  return { at, least: at * Math.max(0, 1 - relative), most: at * (1 + relative) }
}

/**
 * The smallest usual tank (m³) in which the gentlest outlet it comes with leaves at least half of the length no faster
 * than a class bears, with its interval: a jet’s distance goes with the flow, and litres with its cube. 0 where no
 * outlet is known, or where the jet is gentle from the start.
 * @throws OutOfRange as the jets do.
 */
export function smallestTank(
  flow: Known,
  outlets: readonly Outlet[],
  stock: StockClass,
): { readonly volume: number; readonly interval: Interval } {
  const fast = fastLength(flow, outlets, stock)
  if (!fast || !(fast.at > 0)) return { volume: 0, interval: [0, 0] }
  return {
    volume: tankOfCalm(fast.at),
    interval: [tankOfCalm(fast.least), tankOfCalm(fast.most)],
  }
}
/** Jets are followed no further (m). */
const LARGEST_LENGTH = 20

/** Every way for the water to come back of what a fill brings: those noted, else the one in use. */
export const outletsOf = ({
  outlets,
  outlet,
}: Pick<CapacityInput, 'outlets' | 'outlet'>): readonly Outlet[] =>
  outlets?.length ? outlets : outlet ? [outlet] : []

/**
 * The tanks a model will really carry for a stock class, with one fill. Top: {@link capacityOf}. Bottom:
 * {@link smallestTank}.
 * @throws OutOfRange as {@link capacityOf} and the jets.
 */
export function supportedRange(model: CapacityInput, stock: StockClass): SupportedRange {
  const { volume, interval, leading, binding, schools, atMost } = capacityOf(model, stock)
  const least = smallestTank(model.flow, outletsOf(model), stock)
  return {
    stockClass: stockKey(stock),
    min: least.volume,
    max: volume,
    minInterval: least.interval,
    maxInterval: interval,
    schools,
    leading,
    binding,
    atMost,
    lowAboveTop: least.volume > volume,
  }
}
