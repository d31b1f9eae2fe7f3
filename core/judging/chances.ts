import { carries, EXCHANGE_BAND, FILM_BAND, type Films } from '../biology'
import { monteCarlo, shareAbove, type Dice } from '../statistics'
import {
  capacityInput,
  capacityOf,
  FLOOR_BAND,
  keepingOfClass,
  type CapacityFigures,
  type CapacityInput,
  type CapacitySchool,
  type StockClass,
  type StockNumber,
} from '../tanks'
import { OVERCLAIM_THRESHOLDS } from './thresholds'

/** How sure a verdict is: what is drawn, and what comes of it. */
export interface Chances {
  readonly draws: number
  /** Tank carried (m³): middle and 95 % of the draws. */
  readonly carried: { readonly low: number; readonly middle: number; readonly high: number }
  /** Claimed ÷ carried likewise; null without a claim. */
  readonly ratio: { readonly low: number; readonly middle: number; readonly high: number } | null
  /** Chance that the claim is more than it carries, and more than each threshold of the words. */
  readonly tooHigh: number | null
  readonly beyond: Readonly<Record<keyof typeof OVERCLAIM_THRESHOLDS, number>> | null
  /** Share of the draws in each of twenty equal steps of log(ratio) or log(carried), for a picture. */
  readonly steps: readonly { readonly from: number; readonly to: number; readonly share: number }[]
  /** What the spread comes from: the part of the variance of log(carried) that each input brings, largest first. */
  readonly from: readonly { readonly what: string; readonly share: number }[]
}

/** Draws of a verdict. Source: JCGM 101 asks for about 10⁴ at 95 %. */
export const DRAWS = 10_000

/** One input that is doubted: its name and relative standard uncertainty. */
interface Doubt {
  readonly what: string
  readonly relative: number
}
type Doubts = Readonly<
  Record<'flow' | 'mass' | 'litres' | 'feed' | 'film' | 'exchange' | 'floor' | 'minima' | 'oversizing', Doubt>
>

const half = (band: number): number => band / 2
const markOf = (s: StockClass, n: StockNumber): number => half(s.marks[n].band)

function doubtsOf(input: CapacityInput, stock: StockClass): Doubts {
  const known = (k: CapacityInput['mass']): number =>
    k && k.value > 0 ? half((k.uncertainty ?? 0) / k.value) : 0
  return {
    flow: { what: 'flow', relative: known(input.flow) },
    mass: { what: 'media', relative: known(input.mass) },
    litres: { what: 'litres one kilogram carries', relative: markOf(stock, 'litresPerKilogram') },
    feed: { what: 'feed', relative: markOf(stock, 'feedPerVolume') },
    film: { what: 'what a film takes', relative: half(FILM_BAND) },
    exchange: { what: 'gas exchange of the surface', relative: half(EXCHANGE_BAND) },
    floor: { what: 'floor of turnover', relative: half(FLOOR_BAND) },
    minima: { what: 'turnovers asked for', relative: markOf(stock, 'minTurnover') },
    oversizing: { what: 'oversizing', relative: markOf(stock, 'oversizing') },
  }
}

/** Factors that the inputs are drawn by: log-normal, so that none turns negative. */
type Factors = Readonly<Record<keyof Doubts, number>>
const ONE: Factors = {
  flow: 1,
  mass: 1,
  litres: 1,
  feed: 1,
  film: 1,
  exchange: 1,
  floor: 1,
  minima: 1,
  oversizing: 1,
}

function drawn(doubts: Doubts, d: Dice): Factors {
  const out = { ...ONE } as Record<keyof Doubts, number>
  for (const k of Object.keys(doubts) as (keyof Doubts)[]) {
    const { relative } = doubts[k]
    const sigma = Math.sqrt(Math.log(1 + relative * relative))
    out[k] = Math.exp(d.normal() * sigma)
  }
  return out
}

const scaled = ({ flow, layers }: Films, f: Factors): Films => ({
  flow: flow * f.flow,
  // The rate of a film and its surface come as a product.
  layers: layers.map((l) => ({ area: l.area * f.mass * f.film, flow: l.flow * f.flow })),
})

/** What a school gives with its inputs scaled; the same sums as capacityOf, one school at a time. */
function volumeBy(
  school: CapacitySchool,
  base: number,
  i: CapacityInput,
  stock: StockClass,
  f: Factors,
): number {
  switch (school) {
    case 'media-mass':
      return base * f.mass * f.litres
    case 'turnover':
      return (base * f.flow) / f.floor
    case 'minima':
      return (base * f.flow) / f.minima
    case 'oversizing':
      return base / f.oversizing
    case 'balance': {
      if (!i.films) return base
      const per = keepingOfClass(stock, { flow: { value: i.flow.value * f.flow }, outlet: i.outlet ?? null })
      return carries(
        { ...per, feedPerVolume: per.feedPerVolume * f.feed, exchanged: f.exchange },
        scaled(i.films, f),
      ).volume
    }
  }
}

const STEPS = 20

/**
 * How sure the verdict of a class is, by drawing flow, media, the bands of the rules, feed and film together. Null
 * where nothing is carried at all.
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
  const counted = capacity.schools.filter((s) => s.role === 'leads' || s.role === 'binds')
  const doubts = doubtsOf(input, stock)
  const volumeAt = (f: Factors): number =>
    Math.max(1e-9, Math.min(...counted.map((s) => volumeBy(s.school, s.volume ?? 0, input, stock, f))))
  const carried = monteCarlo((d) => volumeAt(drawn(doubts, d)), draws, seed)
  const ratio = claimedMax ? carried.sorted.map((v) => claimedMax / v).reverse() : null
  const of95 = (v: readonly number[]) => ({
    low: v[Math.ceil(0.025 * v.length) - 1] ?? NaN,
    middle: v[Math.ceil(0.5 * v.length) - 1] ?? NaN,
    high: v[Math.ceil(0.975 * v.length) - 1] ?? NaN,
  })
  const above = (limit: number): number => (claimedMax ? 1 - shareAbove(carried, claimedMax / limit) : 0)
  return {
    draws,
    carried: { low: carried.low, middle: carried.middle, high: carried.high },
    ratio: ratio && of95(ratio),
    tooHigh: claimedMax ? above(1) : null,
    beyond: claimedMax
      ? {
          holds: above(OVERCLAIM_THRESHOLDS.holds),
          stretched: above(OVERCLAIM_THRESHOLDS.stretched),
          overclaimed: above(OVERCLAIM_THRESHOLDS.overclaimed),
        }
      : null,
    steps: stepsOf(ratio ?? carried.sorted),
    from: sharesOf(doubts, volumeAt),
  }
}

function stepsOf(sorted: readonly number[]): Chances['steps'] {
  const [first, last] = [Math.log(sorted[0] ?? 1), Math.log(sorted.at(-1) ?? 1)]
  const step = Math.max(1e-9, (last - first) / STEPS)
  const counts = Array<number>(STEPS).fill(0)
  for (const v of sorted) {
    const i = Math.min(STEPS - 1, Math.floor((Math.log(v) - first) / step))
    counts[i] = (counts[i] ?? 0) + 1
  }
  return counts.map((n, i) => ({
    from: Math.exp(first + i * step),
    to: Math.exp(first + (i + 1) * step),
    share: n / sorted.length,
  }))
}

/** Each input moved by its standard uncertainty alone: its part of the variance (GUM, first order). */
function sharesOf(doubts: Doubts, volumeAt: (f: Factors) => number): Chances['from'] {
  const parts = (Object.keys(doubts) as (keyof Doubts)[]).map((k) => {
    const { what, relative } = doubts[k]
    const move = (by: number): number => Math.log(volumeAt({ ...ONE, [k]: by }))
    return { what, square: ((move(1 + relative) - move(1 / (1 + relative))) / 2) ** 2 }
  })
  const all = parts.reduce((sum, p) => sum + p.square, 0)
  return parts
    .filter((p) => p.square > 0)
    .map((p) => ({ what: p.what, share: p.square / all }))
    .sort((a, b) => b.share - a.share)
}
