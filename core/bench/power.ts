import { requireRange, TooFew } from '../errors'
import { expanded } from '../statistics'

/** Hours of a mean year: 365.2425 days. */
const HOURS = 365.2425 * 24
/** Energy of a year at a power P (W), kWh: P · 8765.82 h ÷ 1000. */
export const yearlyEnergy = (watts: number): number => (watts * HOURS) / 1000

/** Mean electrical power (W) with its expanded uncertainty (95 %), and what a year of it takes (kWh). */
export interface PowerResult {
  readonly n: number
  readonly mean: number
  readonly standardUncertainty: number
  readonly expandedUncertainty: number
  readonly yearlyEnergy: number
}

/**
 * Power from a series summed up, its count, mean (W) and sample deviation (W): type A from the scatter, type B from the
 * meter (share of reading, standard). GUM. @throws TooFew when empty.
 */
export function powerFromSummary(
  { n, mean, deviation }: { readonly n: number; readonly mean: number; readonly deviation: number },
  meter = 0.01,
): PowerResult {
  if (!n) throw new TooFew('watts', 0, 1, 'There is no reading yet: note at least one.')
  const typeA = deviation / Math.sqrt(n)
  const variance = typeA ** 2 + (mean * meter) ** 2
  return {
    n,
    mean,
    standardUncertainty: Math.sqrt(variance),
    expandedUncertainty: expanded(variance, n > 1 ? [{ variance: typeA ** 2, degreesOfFreedom: n - 1 }] : []),
    yearlyEnergy: yearlyEnergy(mean),
  }
}

/** Power given to the water P = ρ g Q H (W): density kg/m³, flow m³/s, head m. */
export const hydraulicPower = (density: number, flow: number, head: number): number =>
  density * 9.80665 * flow * head

/** Share of the electrical power that reaches the water. @throws OutOfRange for watts not above zero. */
export const wireToWater = (hydraulic: number, watts: number): number =>
  hydraulic / requireRange('watts', watts, { min: 1e-6, unit: 'W' })

/** Yearly cost in minor units of the currency: kWh × price per kWh in minor units. */
export const yearlyCost = (energy: number, pricePerKwhMinor: number): number =>
  Math.round(energy * pricePerKwhMinor)
