import { atFilm, DIFFUSION } from './film'

/**
 * Water that stands on a surface no current runs over (m): 0.5 to 1 mm. Source: diffusive boundary layers over
 * sediments, Jørgensen and Revsbech 1985 (from memory); in a tank stirred by fish and return, common practice.
 */
const STAGNANT = 0.75e-3
/** Film on a bed of gravel for each m² of floor, as water creeps into its top (common practice, no source). */
const GRAVEL_TIMES = 3
/** Rock and wood are rougher than a block of the same volume (common practice, no source). */
const DECOR_TIMES = 2

/** Relative half-width within which what a tank takes by itself is believed (95 %; common practice, no source). */
export const OWN_BAND = 0.6

/** Sizes of a tank that its own films follow from (m, m², m³). */
export interface TankSurfaces {
  /** Water surface, and the way round it. */
  readonly surface: number
  readonly perimeter: number
  readonly waterLevel: number
  readonly substrateDepth: number
  readonly decorVolume: number
}

/**
 * Area of film on glass, substrate and décor (m²): walls below the water, the floor (three times it under gravel),
 * twice a cube’s surface of the décor’s volume. Geometry and common practice, no source.
 */
export function ownArea(t: TankSurfaces): number {
  // Gravel counts as far as there is some: a thin sprinkle is no bed.
  const bed = Math.min(1, t.substrateDepth / 0.02)
  const glass = t.perimeter * Math.max(0, t.waterLevel - t.substrateDepth)
  const floor = t.surface * (1 + bed * (GRAVEL_TIMES - 1))
  return glass + floor + DECOR_TIMES * 6 * Math.cbrt(Math.max(0, t.decorVolume)) ** 2
}

/**
 * Nitrogen that films take through still water (kg/s) at a concentration S (kg/m³): what diffuses through the standing
 * layer, D/δ (S − s), is what the film takes at s, r_max s/(K + s), with r_max `most` (kg/m²/s).
 * Source: Fick’s first law; Zhu and Chen 1999 for the film (from memory).
 */
export function takenByTank(s: number, area: number, most: number): number {
  if (!(s > 0) || !(area > 0)) return 0
  const k = DIFFUSION / STAGNANT
  return area * k * (s - atFilm(s, k, most))
}
