import { requireRange } from '../errors'
import { seeded } from './random'

/** Random numbers of a draw: a uniform one in [0, 1) and a standard normal one. */
export interface Dice {
  readonly uniform: () => number
  readonly normal: () => number
}

/** A seeded pair of dice; normal numbers by Box and Muller (1958). */
export function dice(seed: number): Dice {
  const uniform = seeded(seed)
  return {
    uniform,
    normal: () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform()),
  }
}

/** A distribution by its draws, sorted; its ends of 95 % coverage, equal in probability, and its middle. */
export interface Drawn {
  readonly sorted: readonly number[]
  readonly low: number
  readonly middle: number
  readonly high: number
}

const at = (sorted: readonly number[], p: number): number =>
  sorted[Math.min(sorted.length - 1, Math.max(0, Math.ceil(p * sorted.length) - 1))] ?? NaN

/**
 * Propagates distributions through a model by `n` draws. Source: JCGM 101:2008, clauses 5 and 7 (probabilistically
 * symmetric coverage interval).
 * @throws OutOfRange for `n`, 10 to 1 000 000.
 */
export function monteCarlo(draw: (d: Dice) => number, n: number, seed: number): Drawn {
  requireRange('n', n, { min: 10, max: 1e6 })
  const d = dice(seed)
  const sorted = Array.from({ length: n }, () => draw(d)).sort((a, b) => a - b)
  return { sorted, low: at(sorted, 0.025), middle: at(sorted, 0.5), high: at(sorted, 0.975) }
}

/** Share of the draws above a value. */
export const shareAbove = ({ sorted }: Drawn, value: number): number =>
  sorted.length ? sorted.filter((v) => v > value).length / sorted.length : 0
