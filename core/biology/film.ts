import { requireRange } from '../errors'
import { DAY } from './load'

/** Half-saturation of a film that takes ammonia (kg/m³). Source: Zhu and Chen 1999 (from memory). */
export const HALF_SATURATION = 1.93e-3
/** Most that a film takes in fresh water at 27 °C (kg N/m²/s): 1859 mg/m²/day. Source: Zhu and Chen 1999. */
const MOST = 1.859e-3 / DAY
/** Temperature at which that was found (°C). */
const FOUND_AT = 27
/** Rate for each kelvin more. Source: none sure; films are less sensitive than free cells (common practice). */
const PER_KELVIN = 1.05
/** What sea water leaves of the rate. Source: Chen, Ling and Blancheton 2006, about a third slower (from memory). */
const SEA_LEAVES = 2 / 3
/** Salinity at which that was found. */
const SEA = 35

/** Below this a film does not keep itself (kg/m³). Source: Zhu and Chen 2001 (from memory). */
export const FILM_FLOOR = 0.07e-3
/** Below this oxygen in the water a film stops (kg/m³). Source: common in recirculating aquaculture (from memory). */
export const FILM_OXYGEN = 2e-3
/** Oxygen and alkalinity (as CaCO₃) that a kilogram of nitrogen costs (kg/kg). Source: stoichiometry, EPA 1993. */
export const OXYGEN_OF_NITROGEN = 4.57
export const ALKALINITY_OF_NITROGEN = 7.14
/** Relative half-width within which the rate of a film is believed (95 %; common practice, no source). */
export const FILM_BAND = 0.5

/** A layer as its film sees it: usable surface that water reaches (m²) and the water through it (m³/s). */
export interface FilmLayer {
  readonly area: number
  readonly flow: number
}

/** A filter’s films in the order of the water, and the flow through the filter (m³/s). */
export interface Films {
  readonly flow: number
  readonly layers: readonly FilmLayer[]
}

/** Water a film lives in: °C and practical salinity. */
export interface FilmWater {
  readonly temperature: number
  readonly salinity: number
}

/** Most nitrogen a square metre of film takes (kg/m²/s): 1859 mg/m²/day at 27 °C, a third less in sea water. */
export function mostOf({ temperature, salinity }: FilmWater): number {
  requireRange('temperature', temperature, { min: 0, max: 40, unit: '°C' })
  requireRange('salinity', salinity, { min: 0, max: 42 })
  return (
    MOST * PER_KELVIN ** (temperature - FOUND_AT) * (1 - ((1 - SEA_LEAVES) * Math.min(salinity, SEA)) / SEA)
  )
}

/**
 * Nitrogen a film takes at a concentration S (kg/m³), kg/m²/s: r = r_max S/(1.93 mg/L + S). Source: Zhu and Chen 1999
 * (from memory).
 */
export const filmRate = (s: number, water: FilmWater): number => (mostOf(water) * s) / (HALF_SATURATION + s)

/**
 * Concentration behind a film (kg/m³) that water passes once, by plug flow: K ln(a/b) + a − b = r_max A/q. For a ≪ K it
 * is a · exp(−kA/q), k = r_max/K, the film’s slope at nothing. Source: Levenspiel, Chemical Reaction Engineering, ch. 3
 * (Michaelis–Menten in plug flow).
 */
export function behindFilm(ahead: number, { area, flow }: FilmLayer, most: number): number {
  if (!(ahead > 0) || !(area > 0) || !(flow > 0)) return ahead
  const x = (most * area) / flow
  // Newton in y = ln b from below: the function falls and is concave in y, so no step passes the root twice.
  let y = Math.log(ahead) - x / HALF_SATURATION
  for (let i = 0; i < 60; i++) {
    const b = Math.exp(y)
    const step = (HALF_SATURATION * (Math.log(ahead) - y) + ahead - b - x) / (HALF_SATURATION + b)
    y += step
    if (Math.abs(step) < 1e-12) break
  }
  return Math.exp(y)
}

/**
 * Nitrogen a filter takes out of water at S (kg/m³), kg/s. Layers stand one after another; what goes round one mixes
 * again behind it. Surface that no water reaches takes nothing.
 */
export function takenBy(s: number, { flow, layers }: Films, most: number): number {
  let c = s
  for (const l of layers) {
    const share = flow > 0 ? Math.min(1, l.flow / flow) : 0
    if (share > 0) c -= share * (c - behindFilm(c, { area: l.area, flow: share * flow }, most))
  }
  return flow * (s - c)
}

/**
 * Nitrogen that the rule of mass asks of a square metre of film (kg/m²/s): a kilogram of good sintered media, 2.29 m²,
 * under 100 L fed 1.5 g a day of 40 % protein, so 55 mg N a day. Common practice, no source.
 */
export const ASKED_OF_FILM = (1.5e-3 * 0.4 * 0.092) / DAY / (1100 / 480)
/** Total ammonia of the water that brings it (kg N/m³): what a kit still reads as zero. Common practice, no source. */
const BROUGHT_AT = 0.12e-3

/**
 * Area of films that water can serve (m²): each layer as much of its area as the nitrogen that its water still brings
 * would keep at what the rule of mass asks of it. What goes round a layer mixes again behind it. Where water is ample
 * this is the whole area; a layer that no water reaches has none.
 */
export function servedArea({ flow, layers }: Films): number {
  let [served, brought] = [0, BROUGHT_AT]
  for (const l of layers) {
    const q = Math.min(l.flow, flow)
    if (!(q > 0) || !(l.area > 0)) continue
    const area = Math.min(l.area, (q * brought) / ASKED_OF_FILM)
    served += area
    brought -= (area * ASKED_OF_FILM) / flow
  }
  return served
}

/** Usable surface that water reaches (m²). */
export const reachedSurface = ({ layers }: Films): number =>
  layers.reduce((sum, l) => sum + (l.flow > 0 ? l.area : 0), 0)

/** The largest share of a filter’s water that meets any of its films (m³/s). */
export const metFlow = ({ flow, layers }: Films): number =>
  Math.min(flow, Math.max(0, ...layers.map((l) => (l.area > 0 ? l.flow : 0))))
