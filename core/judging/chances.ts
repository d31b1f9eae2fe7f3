import { logDeviation, monteCarlo, type Dice } from '../statistics'
import {
  capacityInput,
  capacityOf,
  doubtsOf,
  isBlind,
  UNSCALED,
  ruleOf,
  SCHOOLS,
  volumeBySchool,
  type Capacity,
  type CapacityFigures,
  type CapacitySchool,
  type Doubts,
  type Factors,
  type StockClass,
} from '../tanks'
import { OVERCLAIM_THRESHOLDS } from './thresholds'

/** A quantity as the draws have it: middle and 95 % of them. */
interface Spread {
  readonly low: number
  readonly middle: number
  readonly high: number
}

/** Draws under one condition: the leading school, or all that judge by their weights. */
export interface DrawnClaim {
  /** Tank carried (m³). */
  readonly carried: Spread
  /** Claimed ÷ carried; null without a claim. */
  readonly ratio: Spread | null
  /** Chance that the claim is more than it carries, and more than each threshold of the words; null without a claim. */
  readonly tooHigh: number | null
  readonly beyond: Readonly<Record<keyof typeof OVERCLAIM_THRESHOLDS, number>> | null
}

/** How sure a verdict is: by the leading school alone, and over the schools, each with its weight. */
export interface Chances extends DrawnClaim {
  readonly draws: number
  readonly leading: CapacitySchool
  readonly overSchools: DrawnClaim
  /** The schools drawn over, with their weights (adding up to 1), the leading one first. */
  readonly schools: readonly { readonly school: CapacitySchool; readonly weight: number }[]
  /**
   * Share of the draws in each of twenty equal steps of log(ratio) or log(carried), over all schools and of each of
   * them in the order of `schools`, for a picture.
   */
  readonly steps: readonly {
    readonly from: number
    readonly to: number
    readonly share: number
    readonly by: readonly number[]
  }[]
  /** Sources of the leading school’s spread: the part of its variance that each input brings, largest first. */
  readonly from: readonly { readonly what: string; readonly share: number }[]
}

/** Draws of a verdict. Source: JCGM 101 asks for about 10⁴ at 95 %. */
export const DRAWS = 10_000

function drawn(doubts: Doubts, d: Dice): Factors {
  const out = { ...UNSCALED } as Record<keyof Doubts, number>
  for (const k of Object.keys(doubts) as (keyof Doubts)[]) {
    const { relative } = doubts[k]
    out[k] = Math.exp(d.normal() * logDeviation(relative))
  }
  return out
}

const STEPS = 20
/** Draws of a school that does not lead: enough for its part of a histogram. */
const BESIDE = 0.25

/** Draws of one school, sorted, and the weight it has among all. */
interface SchoolDraws {
  readonly school: CapacitySchool
  readonly weight: number
  readonly sorted: readonly number[]
}

/**
 * Weights of the schools that judge this fill: as the house gives them, else equal with the leading one double. What
 * knows nothing of the media, and what takes the label at its word, is drawn only where it leads.
 */
function drawnOver(
  capacity: Capacity,
  stock: StockClass,
): readonly { school: CapacitySchool; weight: number }[] {
  const { weights } = ruleOf(stock)
  const over = capacity.schools
    .filter((s) => s.role === 'leads' || (s.volume !== null && s.volume > 0 && !isBlind(s.school)))
    .map(({ school, role }) => ({ school, weight: weights?.[school] ?? (role === 'leads' ? 2 : 1), role }))
    .sort((a, b) => Number(b.role === 'leads') - Number(a.role === 'leads'))
  const all = over.reduce((sum, s) => sum + s.weight, 0)
  return over.map(({ school, weight }) => ({ school, weight: all > 0 ? weight / all : 1 / over.length }))
}

/** Smallest value that a share of the weighted draws lies at or below. */
function quantile(draws: readonly SchoolDraws[], p: number): number {
  const all = draws
    .flatMap((d) => d.sorted.map((v) => ({ v, w: d.weight / d.sorted.length })))
    .sort((a, b) => a.v - b.v)
  let sum = 0
  for (const { v, w } of all) if ((sum += w) >= p - 1e-12) return v
  return all.at(-1)?.v ?? NaN
}

const above = (draws: readonly SchoolDraws[], limit: number): number =>
  draws.reduce((sum, d) => sum + d.weight * (d.sorted.filter((v) => v > limit).length / d.sorted.length), 0)

function claimOf(draws: readonly SchoolDraws[], claim: number | null): DrawnClaim {
  const [low, middle, high] = [0.025, 0.5, 0.975].map((p) => quantile(draws, p)) as [number, number, number]
  const more = (times: number): number => (claim ? 1 - above(draws, claim / times) : 0)
  return {
    carried: { low, middle, high },
    ratio: claim ? { low: claim / high, middle: claim / middle, high: claim / low } : null,
    tooHigh: claim ? more(1) : null,
    beyond: claim
      ? {
          holds: more(OVERCLAIM_THRESHOLDS.holds),
          stretched: more(OVERCLAIM_THRESHOLDS.stretched),
          overclaimed: more(OVERCLAIM_THRESHOLDS.overclaimed),
        }
      : null,
  }
}

/**
 * How sure the verdict of a class is, by drawing flow, media, the bands of the rules, feed and film together, for each
 * school that judges. Null where nothing is carried at all.
 * Source: JCGM 101:2008; inputs log-normal with the relative standard uncertainty of half their band.
 */
export function claimChances(
  of: CapacityFigures,
  stock: StockClass,
  claimedMax: number | null,
  seed = 4680,
  draws = DRAWS,
): Chances | null {
  const input = capacityInput(of, claimedMax)
  const capacity = capacityOf(input, stock)
  if (!(capacity.volume > 0)) return null
  const binding = capacity.schools.filter((s) => s.role === 'binds')
  const doubts = doubtsOf(input, stock)
  const base = (school: CapacitySchool): number => volumeBySchool(capacity, school) ?? 0
  const volumeAt = (school: CapacitySchool, f: Factors): number =>
    Math.max(
      1e-9,
      Math.min(
        ...[school, ...binding.map((b) => b.school)].map((s) => SCHOOLS[s].scaled(base(s), f, input, stock)),
      ),
    )
  const over = drawnOver(capacity, stock)
  const all = over.map(({ school, weight }, i): SchoolDraws => {
    const n = i === 0 ? draws : Math.max(10, Math.round(draws * BESIDE))
    return {
      school,
      weight,
      sorted: monteCarlo((d) => volumeAt(school, drawn(doubts, d)), n, seed + i).sorted,
    }
  })
  const [leader] = all
  if (!leader) return null
  return {
    draws,
    leading: leader.school,
    ...claimOf([{ ...leader, weight: 1 }], claimedMax),
    overSchools: claimOf(all, claimedMax),
    schools: over,
    steps: stepsOf(all, claimedMax),
    from: sharesOf(doubts, (f) => volumeAt(leader.school, f)),
  }
}

function stepsOf(all: readonly SchoolDraws[], claim: number | null): Chances['steps'] {
  const values = all.map((d) => d.sorted.map((v) => Math.log(claim ? claim / v : v)))
  const ends = values.flatMap((v) => [v[0] ?? 0, v.at(-1) ?? 0])
  const [first, last] = [Math.min(...ends), Math.max(...ends)]
  const step = Math.max(1e-9, (last - first) / STEPS)
  const counts = values.map((v, i) => {
    const each = (all[i]?.weight ?? 0) / v.length
    const bins = Array<number>(STEPS).fill(0)
    for (const x of v) {
      const at = Math.min(STEPS - 1, Math.floor((x - first) / step))
      bins[at] = (bins[at] ?? 0) + each
    }
    return bins
  })
  return Array.from({ length: STEPS }, (_, i) => {
    const by = counts.map((c) => c[i] ?? 0)
    return {
      from: Math.exp(first + i * step),
      to: Math.exp(first + (i + 1) * step),
      share: by.reduce((sum, v) => sum + v, 0),
      by,
    }
  })
}

/** Each input moved by its standard uncertainty alone: its part of the variance (GUM, first order). */
function sharesOf(doubts: Doubts, volumeAt: (f: Factors) => number): Chances['from'] {
  const parts = (Object.keys(doubts) as (keyof Doubts)[]).map((k) => {
    const { what, relative } = doubts[k]
    const move = (by: number): number => Math.log(volumeAt({ ...UNSCALED, [k]: by }))
    return { what, square: ((move(1 + relative) - move(1 / (1 + relative))) / 2) ** 2 }
  })
  const all = parts.reduce((sum, p) => sum + p.square, 0)
  return parts
    .filter((p) => p.square > 0)
    .map((p) => ({ what: p.what, share: p.square / all }))
    .sort((a, b) => b.share - a.share)
}
