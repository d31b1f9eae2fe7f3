import { requireRange } from '../errors'
import { REACHES, type Reach } from '../parts/vocabulary'

/**
 * A logged part, in the order it came off: moves of the hand, seconds since the part before, what it opens up. `after`
 * names, by their ids, the parts that must come off first; null or absent: everything above it in the list. Seconds to
 * clean it and refit (s) where somebody timed them.
 */
export interface LoggedPart {
  readonly id?: string
  readonly name: string
  /** Its place in the order the parts came off; as they are given when absent. */
  readonly position?: number
  readonly moves: number
  readonly seconds: number
  readonly reach: Reach | null
  readonly after?: readonly string[] | null
  readonly cleaning?: number | null
  readonly back?: number | null
}

/** Way to something: the parts on it, moves and seconds from the closed filter. */
export interface ReachResult {
  readonly reach: Reach
  readonly part: string
  readonly parts: number
  readonly moves: number
  readonly seconds: number
  /** Seconds to put the way back together and to clean what was reached; null where nobody timed them. */
  readonly back: number | null
  readonly cleaning: number | null
  readonly way: readonly LoggedPart[]
}

/**
 * The parts that must come off to have one off, itself the last, in the order of the log. Stages form a tree: an
 * impeller under the head needs the head off, and none of the trays.
 */
export function wayTo(log: readonly LoggedPart[], part: LoggedPart): readonly LoggedPart[] {
  const needed = new Set<LoggedPart>()
  const need = (p: LoggedPart): void => {
    if (needed.has(p)) return
    needed.add(p)
    const before = p.after
      ? log.filter((x) => x.id !== undefined && p.after?.includes(x.id))
      : log.slice(0, log.indexOf(p))
    before.forEach(need)
  }
  need(part)
  return log.filter((p) => needed.has(p))
}

const sumOf = (way: readonly LoggedPart[], of: (p: LoggedPart) => number | null | undefined): number | null =>
  way.some((p) => typeof of(p) === 'number') ? way.reduce((s, p) => s + (of(p) ?? 0), 0) : null

/** Parts in the order they came off, whatever order they are kept in. */
const inOrder = (parts: readonly LoggedPart[]): readonly LoggedPart[] =>
  [...parts].sort((a, b) => (a.position ?? 0) - (b.position ?? 0))

/** For each target the first part that gives it, with the way to it; in the order they came off. */
export function reaches(parts: readonly LoggedPart[]): readonly ReachResult[] {
  const log = inOrder(parts)
  log.forEach((p, i) => {
    requireRange(`parts[${i}].moves`, p.moves, { min: 0, max: 1000 })
    requireRange(`parts[${i}].seconds`, p.seconds, { min: 0, max: 86400, unit: 's' })
  })
  const out: ReachResult[] = []
  for (const p of log) {
    if (!p.reach || out.some((r) => r.reach === p.reach)) continue
    const way = wayTo(log, p)
    out.push({
      reach: p.reach,
      part: p.name,
      parts: way.length,
      moves: sumOf(way, (x) => x.moves) ?? 0,
      seconds: sumOf(way, (x) => x.seconds) ?? 0,
      back: sumOf(way, (x) => x.back),
      cleaning: p.cleaning ?? null,
      way,
    })
  }
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
export function serviceScore(results: readonly Pick<ReachResult, 'reach' | 'seconds'>[]): number | null {
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
