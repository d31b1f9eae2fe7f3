import { requirePositive } from '../errors'
import { DAY } from './load'

/** Gas exchange of a surface that nothing stirs (m/s at 20 °C): about 0.6 m a day. Common practice, no source. */
const STILL = 0.6 / DAY
/** Rate for each kelvin more. Source: Churchill, Elmore and Buckingham 1962 (from memory). */
const PER_KELVIN = 1.024
/** Carbon dioxide leaves a little slower than oxygen comes in: √(D ratio), 1.92/2.10 (CRC Handbook, from memory). */
const OF_CARBON_DIOXIDE = Math.sqrt(1.92 / 2.1)
/** Carbon dioxide in water in balance with air at 25 °C (kg/m³). Source: Henry’s law at 420 ppm. */
export const CARBON_DIOXIDE_OF_AIR = 0.6e-3
/** Relative half-width within which gas exchange is believed (95 %; common practice, no source). */
export const EXCHANGE_BAND = 0.5

/** How a surface is stirred: speed of the water along it (m/s), mean depth under it (m), its temperature (°C). */
export interface Surface {
  readonly speed: number
  readonly depth: number
  readonly temperature: number
}

/**
 * Gas exchange of oxygen through a water surface K_L (m/s): 3.93 √(U/H) m/day at 20 °C, never less than a still
 * surface’s; 1.024 for each kelvin more.
 * Source: O’Connor and Dobbins 1958, k₂ = 3.93 U^0.5/H^1.5 (from memory); made for rivers, so a band goes with it.
 * @throws OutOfRange for `depth`.
 */
export function gasExchange({ speed, depth, temperature }: Surface): number {
  const stirred = (3.93 / DAY) * Math.sqrt(Math.max(0, speed) / requirePositive('depth', depth, 'm'))
  return Math.max(STILL, stirred) * PER_KELVIN ** (temperature - 20)
}

/** Oxygen that stays in water (kg/m³) where so much is used (kg/s) under a surface A (m²): C = C* − use/(K_L A). */
export const oxygenLeft = (saturation: number, use: number, exchange: number, area: number): number =>
  saturation - use / (exchange * area)

/** Carbon dioxide in water (kg/m³) that so much is breathed into (kg/s). */
export const carbonDioxideOf = (made: number, exchange: number, area: number): number =>
  CARBON_DIOXIDE_OF_AIR + made / (OF_CARBON_DIOXIDE * exchange * area)

/** Share of dissolved carbon dioxide above that of the air which leaves in an hour, by mean depth (m). */
export const carbonDioxideLost = (exchange: number, depth: number): number =>
  1 - Math.exp((-OF_CARBON_DIOXIDE * exchange * 3600) / depth)
