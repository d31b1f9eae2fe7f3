import { requireRange } from '../errors'
import { REACHES, type Reach } from './vocabulary'

/** A logged part, in the order it came off: moves of the hand, seconds since the part before, what it opens up. */
export interface LoggedPart {
  readonly name: string
  readonly moves: number
  readonly seconds: number
  readonly reach: Reach | null
}

/** What it takes to get to something: parts, moves and seconds from the closed filter. */
export interface ReachResult {
  readonly reach: Reach
  readonly part: string
  readonly parts: number
  readonly moves: number
  readonly seconds: number
}

/** For each target the first part that gives it, with the moves and seconds up to and with that part; in log order. */
export function reaches(log: readonly LoggedPart[]): readonly ReachResult[] {
  const out: ReachResult[] = []
  let moves = 0
  let seconds = 0
  log.forEach((p, i) => {
    moves += requireRange(`parts[${i}].moves`, p.moves, { min: 0, max: 1000 })
    seconds += requireRange(`parts[${i}].seconds`, p.seconds, { min: 0, max: 86400, unit: 's' })
    if (p.reach && !out.some((r) => r.reach === p.reach))
      out.push({ reach: p.reach, part: p.name, parts: i + 1, moves, seconds })
  })
  return out
}

/**
 * Seconds at which a stage scores 1 and 0, and its weight: what is rinsed often weighs most. Common practice, no
 * source.
 */
export const SERVICE_SCALE: Readonly<
  Record<Reach, { readonly best: number; readonly worst: number; readonly weight: number }>
> = {
  'pre-filter': { best: 10, worst: 180, weight: 4 },
  pad: { best: 20, worst: 300, weight: 3 },
  media: { best: 30, worst: 420, weight: 1 },
  impeller: { best: 30, worst: 420, weight: 2 },
}

/**
 * How easy service is, 0 to 1: the weighted mean over the stages this filter has, each falling linearly in the
 * logarithm of its seconds from best to worst. Null without any stage logged.
 */
export function serviceScore(results: readonly ReachResult[]): number | null {
  const known = REACHES.flatMap((reach) => results.find((r) => r.reach === reach) ?? [])
  if (!known.length) return null
  let sum = 0
  let weights = 0
  for (const r of known) {
    const { best, worst, weight } = SERVICE_SCALE[r.reach]
    const value = 1 - Math.log(Math.max(r.seconds, 1) / best) / Math.log(worst / best)
    sum += weight * Math.min(1, Math.max(0, value))
    weights += weight
  }
  return sum / weights
}

/** How an item of the printed contents was found in the box. */
export const FOUND = ['present', 'missing', 'extra', 'damaged'] as const
export type Found = (typeof FOUND)[number]

/** The printed contents as a list to tick off: "2 trays, coarse pad ×1" → ["2 trays", "coarse pad ×1"]. */
export const printedItems = (contents: string): readonly string[] =>
  contents
    .split(/[,;\n]+/)
    .map((s) => s.trim())
    .filter(Boolean)
