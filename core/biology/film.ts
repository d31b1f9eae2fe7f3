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
/** Share of the rate left in sea water. Source: Chen, Ling and Blancheton 2006, about a third slower (from memory). */
const SEA_LEAVES = 2 / 3
/** Salinity at which that was found. */
const SEA = 35

/** Below this a film does not keep itself (kg/m³). Source: Zhu and Chen 2001 (from memory). */
export const FILM_FLOOR = 0.07e-3
/** Below this oxygen in the water a film stops (kg/m³). Source: common in recirculating aquaculture (from memory). */
export const FILM_OXYGEN = 2e-3
/** Oxygen and alkalinity (as CaCO₃) that a kilogram of nitrogen costs (kg/kg). Source: stoichiometry, EPA 1993. */
export const OXYGEN_OF_NITROGEN = 4.57
const ALKALINITY_OF_NITROGEN = 7.14
/** Relative half-width within which the rate of a film is believed (95 %; common practice, no source). */
export const FILM_BAND = 0.5

/**
 * Alkalinity (kg CaCO₃ for each kg N) that an animal gives back with the ammonia it lets out, and a plant takes with
 * the ammonium it eats: one equivalent, half of what oxidising takes. Source: charge balance, NH₃ + CO₂ + H₂O → NH₄⁺ +
 * HCO₃⁻, 50.04/14.007.
 */
const ALKALINITY_OF_AMMONIA = ALKALINITY_OF_NITROGEN / 2
/** Alkalinity that goes (kg CaCO₃) where so much nitrogen is oxidised of what is let out and no plant takes (kg). */
export const alkalinitySpent = (oxidised: number, given: number): number =>
  oxidised * ALKALINITY_OF_NITROGEN - given * ALKALINITY_OF_AMMONIA

/** Carbon dioxide set free for each nitrogen oxidised (kg/kg). Source: Timmons and Ebeling (from memory). */
export const CARBON_DIOXIDE_OF_NITROGEN = 5.85

/** A layer as its film sees it: usable surface that water reaches (m²) and the water through it (m³/s). */
export interface FilmLayer {
  readonly area: number
  readonly flow: number
  /** Mass transfer through the standing water over the film (m/s) at that flow; as in the laboratory when absent. */
  readonly transfer?: number
}

/** Ammonium in water at 25 °C: its diffusion (m²/s, CRC Handbook, from memory) and the water’s viscosity (m²/s). */
export const DIFFUSION = 1.96e-9
const VISCOSITY = 0.893e-6

/**
 * Mass transfer coefficient of a packed bed (m/s) at 25 °C: k = 1.09/ε · u · Re^(−2/3) · Sc^(−2/3), or
 * 0.25/ε · u · Re^(−0.31) · Sc^(−2/3) where that is more, Re = d u/ν; u superficial (m/s), d the pieces (m), ε the
 * voidage.
 * Source: Wilson and Geankoplis 1966, for liquids, Re to 55 and beyond (from memory).
 */
export function bedTransfer(
  u: number,
  { d, voidage }: { readonly d: number; readonly voidage: number },
): number {
  if (!(u > 0)) return 0
  const re = (d * u) / VISCOSITY
  const sc = VISCOSITY / DIFFUSION
  return (Math.max(1.09 * re ** (-2 / 3), 0.25 * re ** -0.31) * u) / voidage / sc ** (2 / 3)
}

/**
 * Uptake of the measured films at little ammonia (m/s): r_max/K. Standing water was over them too, and is in
 * it: no less than this can have passed.
 */
const PASSED_MEASURED = MOST / HALF_SATURATION

/**
 * Mass transfer beyond that of the measured films (m/s), 1/(1/k − K/r_max): a slow bed takes
 * no more than k S, one as fast as theirs is held back by nothing more.
 */
const passesBeyond = (k: number): number =>
  k < PASSED_MEASURED ? 1 / (1 / k - 1 / PASSED_MEASURED) : Infinity

/** As flow changes by a ratio, what passes the standing water changes by its cube root. */
export const transferAt = (layer: FilmLayer, ratio: number): FilmLayer => ({
  ...layer,
  flow: layer.flow * ratio,
  ...(layer.transfer !== undefined && { transfer: layer.transfer * Math.cbrt(ratio) }),
})

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
 * Concentration at a film (kg/m³) under standing water that k (m/s) passes: what comes, k (S − s), is what is eaten,
 * r_max s/(K + s), with r_max `most` (kg/m²/s). Source: Fick’s first law; Zhu and Chen 1999 for the film.
 */
export function atFilm(s: number, k: number, most: number): number {
  if (!(k < Infinity)) return s
  // k s'² + (k K + r − k S) s' − k K S = 0, its positive root, in the form that loses no digits.
  const b = k * HALF_SATURATION + most - k * s
  const c = k * HALF_SATURATION * s
  const root = Math.sqrt(b * b + 4 * k * c)
  return b > 0 ? (2 * c) / (b + root) : (root - b) / (2 * k)
}

/**
 * Uptake from water that passes a film once, S_a − S_b (kg/m³), by plug flow: with s at the film where S stands
 * before it, S = s + r(s)/k,
 *
 * [K ln(s_a/s_b) + s_a − s_b]/r_max + ln[r(s_a)/r(s_b)]/k = A/q, k what passes beyond the laboratory’s standing water.
 *
 * For a ≪ K it is a (1 − exp(−A/q/(1/k_r + 1/k))), k_r = r_max/K, the film’s slope at nothing.
 * Source: Levenspiel, Chemical Reaction Engineering, ch. 3 (Michaelis–Menten in plug flow), a resistance in series.
 */
export function leftAtFilm(
  ahead: number,
  { area, flow, transfer: k = Infinity }: FilmLayer,
  most: number,
): number {
  if (!(ahead > 0) || !(area > 0) || !(flow > 0) || !(most > 0) || !(k > 0)) return 0
  const transfer = passesBeyond(k)
  const x = area / flow
  const from = atFilm(ahead, transfer, most)
  const K = HALF_SATURATION
  // In z = ln(s_a/s_b): what is passed rises with z, with a slope between those of a full film and of a hungry one.
  const passed = (z: number): number => {
    const d = -from * Math.expm1(-z)
    return (K * z + d) / most + (z + Math.log1p(-d / (K + from))) / transfer
  }
  const slope = (s: number): number => (K + s) / most + K / (K + s) / transfer
  let [low, high] = [0, x / (K / most + K / (K + from) / transfer)]
  let z = Math.min(high, x / slope(from))
  for (let i = 0; i < 100; i++) {
    const short = x - passed(z)
    if (short > 0) low = z
    else high = z
    const next = z + short / slope(from * Math.exp(-z))
    const taken = next >= low && next <= high ? next : (low + high) / 2
    const moved = Math.abs(taken - z)
    z = taken
    if (moved <= 1e-14 * z) break
  }
  const s = from * Math.exp(-z)
  const d = -from * Math.expm1(-z)
  // r(s_a) − r(s_b) over k, without taking one from the other.
  return d + (most * K * d) / (K + from) / (K + s) / transfer
}

/** Concentration behind a film (kg/m³) that water passes once; see {@link leftAtFilm}. */
export const behindFilm = (ahead: number, layer: FilmLayer, most: number): number =>
  ahead - leftAtFilm(ahead, layer, most)

/**
 * Nitrogen a filter takes out of water at S (kg/m³), kg/s. Layers stand one after another; what goes round one mixes
 * again behind it. Surface that no water reaches takes nothing.
 */
export function takenBy(s: number, { flow, layers }: Films, most: number): number {
  let taken = 0
  for (const l of layers) {
    const share = flow > 0 ? Math.min(1, l.flow / flow) : 0
    if (share > 0) taken += share * leftAtFilm(s - taken, { ...l, flow: share * flow }, most)
  }
  return flow * taken
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
