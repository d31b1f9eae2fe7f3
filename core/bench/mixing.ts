import { OutOfRange, TooFew } from '../errors'
import { fitNonlinear } from '../statistics'
import type { TracerPoint } from './tracer'

/** How dye spreads in water that goes round and round: it rises at a point to the mixed strength of the whole tank. */
export interface MixingResult {
  /** Strength the point comes to (any unit), by the fit. */
  readonly final: number
  /** Seconds until any colour, and the time constant of the rise after that. */
  readonly delay: number
  readonly timeConstant: number
  /**
   * Seconds until the point has 10 % of its final strength, and after which it never again leaves the final strength by
   * more than 5 %, read from the points.
   */
  readonly coloured: number
  readonly mixed: number | null
}

/** Does the strength end near its highest, as it does where the water comes round again? */
export const looksMixed = (points: readonly TracerPoint[]): boolean => {
  const highest = Math.max(...points.map((p) => p.concentration))
  return highest > 0 && (points.at(-1)?.concentration ?? 0) > 0.5 * highest
}

const crossing = (points: readonly TracerPoint[], level: number): number | null => {
  const i = points.findIndex((p) => p.concentration >= level)
  const [a, b] = [points[i - 1], points[i]]
  if (!b) return null
  if (!a) return b.time
  return a.time + ((level - a.concentration) / (b.concentration - a.concentration)) * (b.time - a.time)
}

/**
 * Share of the final strength within which a point counts as mixed. Source: usual 95 % mixing time, e.g. Nienow 1997.
 */
const EVEN = 0.05
/** The last time the strength leaves the band about the final one; null while it is still outside at the end. */
function settled(points: readonly TracerPoint[], final: number): number | null {
  const out = points.findLastIndex((p) => Math.abs(p.concentration - final) > EVEN * final)
  const [a, b] = [points[out], points[out + 1]]
  if (!a) return points[0]?.time ?? null
  if (!b) return null
  const edge = final * (a.concentration < final ? 1 - EVEN : 1 + EVEN)
  return a.time + ((edge - a.concentration) / (b.concentration - a.concentration)) * (b.time - a.time)
}

/**
 * Fits C(t) = C∞ (1 − e^(−(t − t₀)/τ)) for t > t₀ to the rise at one point: the response of a well-mixed recirculating
 * vessel behind a plug-flow delay (Levenspiel, Chemical Reaction Engineering, ch. 12, compartment models).
 * @throws TooFew below five points; OutOfRange where there is no dye.
 */
export function mixedResponse(points: readonly TracerPoint[]): MixingResult {
  if (points.length < 5) throw new TooFew('points', points.length, 5, 'A rise needs at least five points.')
  const highest = Math.max(...points.map((p) => p.concentration))
  if (!(highest > 0)) throw new OutOfRange('points', 0, { words: 'some dye: every strength is zero' })
  const end = points.at(-1)?.time ?? 1
  const start = crossing(points, 0.05 * highest) ?? 0
  const fit = fitNonlinear({
    x: points.map((p) => p.time),
    y: points.map((p) => p.concentration),
    weights: points.map(() => 1),
    model: (q) => (t) => (q[0] ?? 0) * (1 - Math.exp(-Math.max(0, t - (q[2] ?? 0)) / (q[1] ?? 1))),
    initial: [highest, Math.max(1e-3, (end - start) / 4), start],
    min: [0.2 * highest, 1e-3, 0],
    max: [5 * highest, end * 10, end],
  })
  const [final = highest, timeConstant = 0, delay = 0] = fit.parameters
  return {
    final,
    delay,
    timeConstant,
    coloured: crossing(points, 0.1 * final) ?? start,
    mixed: settled(points, final),
  }
}
