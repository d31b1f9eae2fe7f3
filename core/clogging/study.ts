import type { Mark } from '../tanks'
import { CONSTANTS, VALUES, type Values } from './constants'
import { NINETY_FIVE } from '../statistics'
import { posterior, type Belief, type Seen } from './learn'
import { forecast, type ClogCase, type ClogDay, type ClogRun } from './run'

/** Flow left at which a filter is called due (share of the first): ours, nothing in the trade fixes it. */
export const DUE_AT = 0.7
/** Dirt of 100 to 250 µm caught of each pass, against the first, at which it is due though it still flows: ours. */
const CATCHES_AT = 0.5
/** A layer is called blind when it keeps less of its permeability. */
const BLIND = 0.05

/** When something comes about, in days of a run: between two days by a straight line; null within its days: not. */
function firstDay(days: readonly ClogDay[], size: (d: ClogDay) => number, least: number): number | null {
  for (let i = 1; i < days.length; i++) {
    const [a, b] = [size(days[i - 1] as ClogDay), size(days[i] as ClogDay)]
    if (b < least && a > b) return i - 1 + Math.min(1, Math.max(0, (a - least) / (a - b)))
  }
  return null
}

/** Is it due by a day, its first being known? Ends a forecast of which nothing else is asked. */
export const isDue = (first: ClogDay, day: ClogDay, dueAt = DUE_AT): boolean =>
  day.flow < dueAt * first.flow || day.catches < CATCHES_AT * first.catches

/** Answers of a run. */
export interface ClogAnswers {
  /** Days until the flow is down to {@link dueAt}, and until a pass catches half as much as at first. */
  readonly toFall: number | null
  readonly toPast: number | null
  /** Shares at which it is due: of the first flow, and of what a pass first caught. */
  readonly dueAt: number
  readonly catchesAt: number
  /** The earlier of the two, and why. */
  readonly due: { readonly day: number; readonly why: 'flow' | 'past' } | null
  /** The layer that blinds first, and when; the one nearest to it where none does. */
  readonly blind: { readonly layer: number; readonly day: number | null } | null
  /** Share of the dirt caught that comes to rest in biological media. */
  readonly toMedia: number
  /** Shares of the dirt caught, layer by layer. */
  readonly shares: readonly number[]
}

export function answersOf(run: ClogRun, dueAt = DUE_AT): ClogAnswers {
  const { days, waterways, caught } = run
  const first = days[0] as ClogDay
  const toFall = firstDay(days, (d) => d.flow, dueAt * first.flow)
  const toPast = firstDay(days, (d) => d.catches, CATCHES_AT * first.catches)
  const both = [
    ...(toFall === null ? [] : [{ day: toFall, why: 'flow' as const }]),
    ...(toPast === null ? [] : [{ day: toPast, why: 'past' as const }]),
  ].sort((a, b) => a.day - b.day)
  const all = caught.reduce((a, b) => a + b, 0)
  const shares = caught.map((m) => (all > 0 ? m / all : 0))
  return {
    toFall,
    toPast,
    dueAt,
    catchesAt: CATCHES_AT,
    due: both[0] ?? null,
    blind: blindest(run),
    toMedia: waterways.layers.reduce((sum, l, i) => sum + (l.counts ? (shares[i] ?? 0) : 0), 0),
    shares,
  }
}

function blindest({ days, waterways }: ClogRun): ClogAnswers['blind'] {
  const each = waterways.layers.map((_, layer) => ({
    layer,
    day: firstDay(days, (d) => d.layers[layer]?.keeps ?? 1, BLIND),
    left: days.at(-1)?.layers[layer]?.keeps ?? 1,
  }))
  each.sort((a, b) => (a.day ?? Infinity) - (b.day ?? Infinity) || a.left - b.left)
  return each[0] ? { layer: each[0].layer, day: each[0].day } : null
}

/** The constants that make a filter foul faster or slower as a whole. */
const OF_PACE = ['solidsOfFeed', 'lies', 'floc', 'sticks', 'rots'] as const
/** How much of each of their bands comes through in the days until a filter is due (common practice, no source). */
const COMES_THROUGH = 0.8

/** Standard deviation of the logarithm of how fast a filter fouls, before anything was seen of it. */
export function priorOfPace(feed: Pick<Mark, 'band'>): number {
  const bands = [...OF_PACE.map((k) => Math.log(CONSTANTS[k].band)), Math.log(1 + feed.band)]
  return (COMES_THROUGH * Math.sqrt(bands.reduce((sum, b) => sum + b * b, 0))) / NINETY_FIVE
}

/**
 * Floor of a forecast’s doubt, however often it was seen (standard uncertainty of the share of flow left; ours).
 * It is the same error each time, so n visits count as one as far as it goes: it enters each as √n times as much.
 */
export const MODEL_SCATTER = 0.05

/** Paces a forecast is worked out at, in prior standard deviations. */
const PACES = [-4, -3, -2, -1.5, -1, -0.5, 0, 0.5, 1, 1.5, 2, 3, 4] as const

/** As much more dirt as a pace says. */
const paced = (c: ClogCase, x: number): ClogCase => {
  const values: Values = c.values ?? VALUES
  return { ...c, values: { ...values, solidsOfFeed: values.solidsOfFeed * Math.exp(x) } }
}

/** A forecast with what is believed of its pace before and after what was seen. */
export interface Learnt {
  readonly prior: Belief
  readonly posterior: Belief
  /** As the constants ship, and with what was seen; the low and high runs hold 95 %. */
  readonly asShipped: ClogRun
  readonly run: ClogRun
  readonly slow: ClogRun
  readonly fast: ClogRun
  /** Left alone: without the services, at the middle pace. What is due is told of it. */
  readonly alone: ClogRun
  /** Days until due at the low, middle and high pace; null: not within its days. */
  readonly due: {
    readonly soonest: number | null
    readonly middle: number | null
    readonly latest: number | null
  }
  readonly seen: readonly (Seen & { readonly predicted: number })[]
}

/** Share of the first flow left on a day, as it was found. */
export function leftOn({ days, found }: Pick<ClogRun, 'days' | 'found'>, day: number): number {
  const first = days[0] as ClogDay
  const at = (i: number): number => (found.get(i) ?? days[Math.min(i, days.length - 1)] ?? first).flow
  // Where nothing flowed to begin with, nothing is lost.
  if (!(first.flow > 0)) return 1
  const low = Math.floor(day)
  const t = day - low
  return ((1 - t) * at(low) + (t > 0 ? t * at(low + 1) : 0)) / first.flow
}

/**
 * Posterior from flows seen under a prior of this standard deviation: forecasts at 13 paces, straight lines between
 * them.
 */
function learntFrom(c: ClogCase, sd: number, seen: readonly Seen[], asShipped?: ClogRun): Belief {
  // No further than what was seen.
  const days = Math.max(1, ...seen.map((s) => Math.ceil(s.day)))
  const upTo = { ...c, days, services: (c.services ?? []).filter((s) => s.day <= days) }
  const runs = PACES.map((p) => ({
    x: p * sd,
    run: p === 0 && asShipped && days <= c.days ? asShipped : forecast(paced(upTo, p * sd)),
  }))
  const told = runs.map((r) => seen.map((s) => leftOn(r.run, s.day)))
  const predicted = (x: number): readonly number[] => {
    const i = Math.min(
      runs.length - 2,
      Math.max(
        0,
        runs.findLastIndex((r) => r.x <= x),
      ),
    )
    const [a, b] = [runs[i], runs[i + 1]]
    if (!a || !b) return []
    const t = (x - a.x) / (b.x - a.x)
    return seen.map((_, j) => (1 - t) * (told[i]?.[j] ?? 0) + t * (told[i + 1]?.[j] ?? 0))
  }
  return posterior(
    { mean: 0, sd },
    predicted,
    seen.map((s) => ({
      value: s.left,
      uncertainty: Math.hypot(s.uncertainty, MODEL_SCATTER * Math.sqrt(seen.length)),
    })),
  )
}

/**
 * Days until a filter left alone is due at the middle of what is believed of its pace; null: not within its days. The
 * same number as the middle of {@link learn}, without its interval, at a fifth of the work.
 * @throws as {@link forecast}.
 */
export function dueMiddle(
  c: ClogCase,
  feed: Pick<Mark, 'band'>,
  seen: readonly Seen[],
  dueAt = DUE_AT,
): number | null {
  const { mean } = seen.length ? learntFrom(c, priorOfPace(feed), seen) : { mean: 0 }
  const run = forecast({ ...paced(c, mean), services: [] }, (first, day) => isDue(first, day, dueAt))
  return answersOf(run, dueAt).due?.day ?? null
}

/**
 * Learns how fast one filter fouls from flows seen on it: one unknown, the pace, normal in its logarithm; Bayes’
 * rule on a fine grid. With nothing seen it gives the prior’s interval.
 * @throws as {@link forecast}.
 */
export function learn(c: ClogCase, feed: Pick<Mark, 'band'>, seen: readonly Seen[], dueAt = DUE_AT): Learnt {
  const sd = priorOfPace(feed)
  const asShipped = forecast(c)
  const prior: Belief = { mean: 0, sd, low: -NINETY_FIVE * sd, high: NINETY_FIVE * sd }
  const belief = seen.length ? learntFrom(c, sd, seen, asShipped) : prior
  const run = seen.length ? forecast(paced(c, belief.mean)) : asShipped
  const slow = forecast(paced(c, belief.low))
  const fast = forecast(paced(c, belief.high))
  const served = (c.services ?? []).length > 0
  const left = (r: ClogRun, pace: number): ClogRun =>
    served ? forecast({ ...paced(c, pace), services: [] }) : r
  const alone = left(run, belief.mean)
  const due = (r: ClogRun): number | null => answersOf(r, dueAt).due?.day ?? null
  return {
    prior,
    posterior: belief,
    asShipped,
    run,
    slow,
    fast,
    alone,
    due: { soonest: due(left(fast, belief.high)), middle: due(alone), latest: due(left(slow, belief.low)) },
    seen: seen.map((s) => ({ ...s, predicted: leftOn(run, s.day) })),
  }
}
