import { requirePositive, TooFew } from '../errors'

/**
 * Energy mean of sound levels (dB): 10 lg(mean of 10^(L/10)). Source: ISO 3744, 8.2.2. @throws TooFew without levels.
 */
export function energyMean(levels: readonly number[]): number {
  if (!levels.length) throw new TooFew('levels', 0, 1, 'There is no level yet: note at least one.')
  return 10 * Math.log10(levels.reduce((s, l) => s + 10 ** (l / 10), 0) / levels.length)
}

/** A corrected level (dB), the correction, and whether the background leaves it valid. */
export interface NoiseResult {
  readonly raw: number
  readonly background: number | null
  readonly difference: number | null
  readonly correction: number
  readonly level: number
  /**
   * `upper bound`: less than 6 dB over the background; the source is no louder than this. `uncorrected`: no background.
   */
  readonly validity: 'valid' | 'upper bound' | 'uncorrected'
  /** ∂L/∂L of the level with and of the level without: how much a doubt in either weighs in the result. */
  readonly weight: { readonly with: number; readonly without: number }
}

/**
 * Background correction K1 = −10 lg(1 − 10^(−0.1 ΔL)), ΔL = with the filter − without. Above 15 dB none is needed;
 * below 6 dB K1 is held at its value there, 1.3 dB, and the result stands as an upper bound only.
 * Source: ISO 3744:2010, 8.2.3 (from memory).
 */
export function correctedNoise(withFilter: readonly number[], without: readonly number[]): NoiseResult {
  return correctedFromEnergies(energyMean(withFilter), without.length ? energyMean(without) : null)
}

/** The same from energy means (dB); `background` null where none was measured. */
export function correctedFromEnergies(raw: number, background: number | null): NoiseResult {
  if (background === null)
    return {
      raw,
      background: null,
      difference: null,
      correction: 0,
      level: raw,
      validity: 'uncorrected',
      weight: { with: 1, without: 0 },
    }
  const difference = raw - background
  const correction = difference > 15 ? 0 : -10 * Math.log10(1 - 10 ** (-0.1 * Math.max(VALID, difference)))
  return {
    raw,
    background,
    difference,
    correction,
    level: raw - correction,
    validity: difference < VALID ? 'upper bound' : 'valid',
    weight: weightOf(difference),
  }
}

/** Least difference (dB) to the background at which a corrected level is valid. ISO 3744:2010, 4.2 (from memory). */
const VALID = 6

/**
 * L = 10 lg(10^(L₁/10) − 10^(L₂/10)) by L₁ and L₂: 1/(1 − 10^(−ΔL/10)) and 1/(10^(ΔL/10) − 1). None where K1 is held.
 */
function weightOf(difference: number): NoiseResult['weight'] {
  if (difference > 15 || difference < VALID) return { with: 1, without: 0 }
  const share = 10 ** (-0.1 * difference)
  return { with: 1 / (1 - share), without: share / (1 - share) }
}

/** Level (dB) a point source would have at another distance (m): L − 20 lg(r₂/r₁). Free field; a room makes it less. */
export const atDistance = (level: number, from: number, to: number): number =>
  level - 20 * Math.log10(requirePositive('to', to, 'm') / requirePositive('from', from, 'm'))
