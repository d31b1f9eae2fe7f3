import type { FilmWater } from './film'
import { mostOf } from './film'

/**
 * Share of its clean-water rate that a film keeps beside organic carbon, which others grow on and lie over it, with its
 * relative half-width (95 %). Source: Zhu and Chen 2001, up to 70 % lost to sucrose at a carbon to nitrogen ratio of 1
 * to 2 (from memory); where tanks stand between that and clean water: 0.3 to 1, common practice, no source.
 */
export const BESIDE_ORGANIC = 0.65
export const ORGANIC_BAND = 0.5

/**
 * Alkalinity that halves the rate (kg CaCO₃/m³): 0.5 mol/m³ of bicarbonate. Source: ASM2d, Henze et al. 2000 (from
 * memory).
 */
export const HALF_ALKALINITY = 25e-3
/** Below this pH films slow down, by so much for each unit. Source: EPA 1993, Downing’s factor (from memory). */
const [SLOWS_BELOW, PER_PH] = [7.2, 0.833]

/** Share of its rate that a film keeps at a pH: 1 − 0.833 (7.2 − pH) below 7.2, nothing from 6.0 down (EPA 1993). */
export const keptAtPH = (pH: number): number => Math.min(1, Math.max(0, 1 - PER_PH * (SLOWS_BELOW - pH)))

/** Share of its rate that a film keeps at an alkalinity A (kg CaCO₃/m³): A/(25 mg/L + A). Source: ASM2d. */
export const keptByAlkalinity = (alkalinity: number): number =>
  Math.max(0, alkalinity) / (HALF_ALKALINITY + Math.max(0, alkalinity))

/** Water of a film beside its temperature and salt: pH, and the share organic carbon leaves of its rate. */
export interface HeldBack extends FilmWater {
  readonly pH: number
  /** Share of its rate that a film keeps beside organic carbon; 1, clean water, when absent. */
  readonly organic?: number
}

/** Most nitrogen a square metre of film takes (kg/m²/s) in water of a pH and with organic carbon, alkalinity aside. */
export const mostHere = (w: HeldBack): number => mostOf(w) * (w.organic ?? 1) * keptAtPH(w.pH)
