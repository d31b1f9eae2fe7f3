import { requireRange } from '../errors'

/** Standard gravity, m/s² (CGPM 1901). */
export const STANDARD_GRAVITY = 9.80665

/** The water on the bench: temperature in °C, practical salinity (0 for fresh, about 35 for sea). */
export interface WaterState {
  readonly temperature: number
  readonly salinity?: number
}

/** Density ρ in kg/m³, dynamic viscosity μ in Pa·s, kinematic viscosity ν in m²/s. */
export interface WaterProperties {
  readonly density: number
  readonly viscosity: number
  readonly kinematicViscosity: number
}

/**
 * Density of air-free fresh water ρ (kg/m³) at t (°C), 1 atm, 0 ≤ t ≤ 40.
 *
 * Source: Tanaka, Girard, Davis, Peuto, Bignell, Metrologia 38 (2001) 301, the CIPM formula.
 * @throws OutOfRange for `temperature`.
 */
export function freshWaterDensity(temperature: number): number {
  const t = requireRange('temperature', temperature, { min: 0, max: 40, unit: '°C' })
  return 999.97495 * (1 - ((t - 3.983035) ** 2 * (t + 301.797)) / (522528.9 * (t + 69.34881)))
}

/**
 * Dynamic viscosity of fresh water μ (Pa·s) at t (°C), 0 ≤ t ≤ 40.
 *
 * log₁₀(μ/μ₂₀) = (20 − t)/(t + 96) · {1.2364 − 1.37e-3 (20 − t) + 5.7e-6 (20 − t)²}, μ₂₀ = 1.002 mPa·s.
 * Source: Kestin, Sokolov, Wakeham, J. Phys. Chem. Ref. Data 7 (1978) 941.
 * @throws OutOfRange for `temperature`.
 */
export function freshWaterViscosity(temperature: number): number {
  const t = requireRange('temperature', temperature, { min: 0, max: 40, unit: '°C' })
  const d = 20 - t
  return 1.002e-3 * 10 ** ((d / (t + 96)) * (1.2364 - 1.37e-3 * d + 5.7e-6 * d * d))
}

/**
 * Density of sea water ρ (kg/m³) at t (°C, 0 to 40) and practical salinity S (0 to 42), 1 atm.
 *
 * Source: UNESCO EOS-80 one-atmosphere equation (Millero and Poisson 1981; UNESCO Tech. Pap. Mar. Sci. 44, 1983).
 * @throws OutOfRange for `temperature` or `salinity`.
 */
export function seaWaterDensity(temperature: number, salinity: number): number {
  const t = requireRange('temperature', temperature, { min: 0, max: 40, unit: '°C' })
  const s = requireRange('salinity', salinity, { min: 0, max: 42 })
  const pure = poly(t, 999.842594, 6.793952e-2, -9.09529e-3, 1.001685e-4, -1.120083e-6, 6.536332e-9)
  const a = poly(t, 0.824493, -4.0899e-3, 7.6438e-5, -8.2467e-7, 5.3875e-9)
  const b = poly(t, -5.72466e-3, 1.0227e-4, -1.6546e-6)
  return pure + a * s + b * s ** 1.5 + 4.8314e-4 * s * s
}

/**
 * Dynamic viscosity of sea water μ (Pa·s) at t (°C, 0 to 40) and salinity S (g/kg, 0 to 42).
 *
 * μ = μ_w (1 + A S + B S²), S in kg/kg; A and B quadratic in t.
 * Source: Sharqawy, Lienhard, Zubair, Desalination and Water Treatment 16 (2010) 354, eqs 22 and 23;
 * the fresh-water factor is Kestin's, so that S = 0 agrees with {@link freshWaterViscosity}.
 * @throws OutOfRange for `temperature` or `salinity`.
 */
export function seaWaterViscosity(temperature: number, salinity: number): number {
  const fresh = freshWaterViscosity(temperature)
  const s = requireRange('salinity', salinity, { min: 0, max: 42 }) / 1000
  const a = poly(temperature, 1.541, 1.998e-2, -9.52e-5)
  const b = poly(temperature, 7.974, -7.561e-2, 4.724e-4)
  return fresh * (1 + a * s + b * s * s)
}

/** Density and viscosity of the water in a tank or bucket. Fresh below a salinity of 0.5. */
export function waterProperties({ temperature, salinity = 0 }: WaterState): WaterProperties {
  const fresh = salinity < 0.5
  const density = fresh ? freshWaterDensity(temperature) : seaWaterDensity(temperature, salinity)
  const viscosity = fresh ? freshWaterViscosity(temperature) : seaWaterViscosity(temperature, salinity)
  return { density, viscosity, kinematicViscosity: viscosity / density }
}

const poly = (x: number, ...c: readonly number[]): number => c.reduceRight((sum, k) => sum * x + k, 0)

/** Molal ionic strength of sea water of a practical salinity (mol/kg). Source: EPA 440/5-88-004, 1989 (from memory). */
const ionicStrength = (salinity: number): number => (19.9273 * salinity) / (1000 - 1.005109 * salinity)

/**
 * pKa of ammonia in water of some °C and practical salinity, 0.09018 + 2729.92/T + 0.116 I, I its molal ionic strength.
 *
 * Source: Emerson, Russo, Lund and Thurston 1975 for fresh water; the term of salt from EPA 440/5-88-004, 1989, after
 * Khoo, Culberson and Bates 1977 (from memory).
 */
export const ammoniaPKa = (temperature: number, salinity = 0): number =>
  0.09018 + 2729.92 / (temperature + 273.15) + 0.116 * ionicStrength(salinity)

/** Share of total ammonia that is un-ionised, NH₃/(NH₃ + NH₄⁺) = 1/(1 + 10^(pKa − pH)); see {@link ammoniaPKa}. */
export const unionisedShare = (pH: number, temperature: number, salinity = 0): number =>
  1 / (1 + 10 ** (ammoniaPKa(temperature, salinity) - pH))

/** Ammonia by its own mass for that of its nitrogen: 17.031/14.007 (IUPAC). */
export const AMMONIA_OF_NITROGEN = 17.031 / 14.007
/** Un-ionised ammonia that fish bear for long (kg NH₃/m³). Source: EIFAC 1970. */
export const UNIONISED_LIMIT = 0.025e-3
/** Total ammonia nitrogen (kg/m³) of which that much is un-ionised, at a pH, °C and practical salinity. */
export const unionisedLimitOf = (pH: number, temperature: number, salinity = 0): number =>
  UNIONISED_LIMIT / (unionisedShare(pH, temperature, salinity) * AMMONIA_OF_NITROGEN)

/** Weight of a metre of water at 25 °C (Pa/m): what a gauge shows for a head. */
const PASCALS_PER_METRE = freshWaterDensity(25) * STANDARD_GRAVITY
/** Pressure (Pa) at the foot of a column of fresh water (m) at 25 °C. */
export const pressureOfHead = (head: number): number => head * PASCALS_PER_METRE
/** Column of fresh water at 25 °C (m) that a pressure (Pa) holds. */
export const headOfPressure = (pressure: number): number => pressure / PASCALS_PER_METRE

/**
 * Oxygen dissolved in water in balance with moist air at 1 atm (kg/m³) at t (°C, 0 to 40) and practical salinity
 * (0 to 42).
 *
 * ln C* = −139.34411 + 1.575701e5/T − 6.642308e7/T² + 1.2438e10/T³ − 8.621949e11/T⁴
 * − S (0.017674 − 10.754/T + 2140.7/T²), C* in mg/L, T in K.
 * Source: Benson and Krause 1984, as in APHA Standard Methods 4500-O (from memory).
 * @throws OutOfRange for `temperature` or `salinity`.
 */
export function oxygenSaturation(temperature: number, salinity = 0): number {
  const T = requireRange('temperature', temperature, { min: 0, max: 40, unit: '°C' }) + 273.15
  const s = requireRange('salinity', salinity, { min: 0, max: 42 })
  const fresh = poly(1 / T, -139.34411, 1.575701e5, -6.642308e7, 1.2438e10, -8.621949e11)
  return 1e-3 * Math.exp(fresh - s * poly(1 / T, 0.017674, -10.754, 2140.7))
}
