import {
  BESIDE_ORGANIC,
  carries,
  carriesEach,
  EXCHANGE_BAND,
  FILM_BAND,
  ORGANIC_BAND,
  type Carried,
  type CarriedByEach,
  type Films,
  type KeepingPerVolume,
  type LimitId,
  usualTank,
} from '../biology'
import { requireRange } from '../errors'
import { logDeviation, NINETY_FIVE, normalCdf } from '../statistics'
import type { Figure } from '../figures'
import { surfaceSpeed, type Outlet } from '../hydraulics/jets'
import { USUAL_ALKALINITY, USUAL_CHANGES } from './usual'
import {
  CAPACITY_RULE,
  FLOOR_BAND,
  isBlind,
  LEADS_OF_CLASS,
  type CapacityRule,
  type CapacitySchool,
} from './rule'
import type { StockClass } from './stock'

/** A value with its expanded uncertainty (95 %), in one unit. */
export interface Known {
  readonly value: number
  readonly uncertainty?: number
}
export type Interval = readonly [low: number, high: number]

/** What a fill brings to a tank. */
export interface CapacityInput {
  /** Flow (m³/s). */
  readonly flow: Known
  /** Good sintered media it is worth (kg), foam and all; null while neither fill nor mass is on record. */
  readonly mass: Known | null
  /** Its films as they lie; null or absent while no fill is on record. */
  readonly films?: Films | null
  /** How the water comes back, and every other way that comes with it; a surface nothing stirs without one. */
  readonly outlet?: Outlet | null
  readonly outlets?: readonly Outlet[]
  /** The top its label claims (m³). */
  readonly claimedMax?: number
}

/** What one school says: a tank (m³) with its band, or why it says nothing. */
export interface SchoolSays {
  readonly school: CapacitySchool
  readonly volume: number | null
  readonly interval: Interval | null
  readonly role: 'leads' | 'binds' | 'beside' | 'silent'
  /** Why it does not apply, for a reader. */
  readonly why: string | null
  /** The limit of the balance that is met first. */
  readonly limit?: LimitId | null
}

/** Tank litres (m³) a fill carries for a stock class by the house’s leading school, within its interval. */
export interface Capacity {
  readonly volume: number
  readonly interval: Interval
  readonly leading: CapacitySchool
  readonly binding: CapacitySchool
  readonly schools: readonly SchoolSays[]
  /** Nobody noted its media, and a school that knows nothing of them speaks for want of better: at most so much. */
  readonly atMost: boolean
}

/**
 * Half-width of a rule's result, in its unit: the relative doubt of what goes in and of the rule, taken as independent.
 * Null: what goes in is printed, and nothing of it is doubted.
 */
export const ruleHalf = (result: number, from: Known | null, ...rules: readonly number[]): number =>
  result * Math.hypot(from && from.value > 0 ? (from.uncertainty ?? 0) / from.value : 0, ...rules)

/** The interval of a rule's result; see {@link ruleHalf}. */
export function ruleInterval(result: number, from: Known | null, ...rules: readonly number[]): Interval {
  const half = ruleHalf(result, from, ...rules)
  return [Math.max(0, result - half), result + half]
}

/** How tanks of a class are kept, stirred by what the filter lets out. */
export const keepingOfClass = (
  stock: StockClass,
  { flow, outlet }: Pick<CapacityInput, 'flow' | 'outlet'>,
): KeepingPerVolume => ({
  feedPerVolume: stock.feedPerVolume,
  protein: stock.protein,
  oxygenOfFeed: stock.oxygenOfFeed,
  plantShare: stock.plantShare,
  temperature: stock.temperature,
  salinity: stock.salinity,
  pH: stock.pH,
  alkalinity: USUAL_ALKALINITY,
  organic: BESIDE_ORGANIC,
  nitrateLimit: stock.nitrateLimit,
  tapNitrate: 0,
  ...USUAL_CHANGES,
  stirred: (volume) =>
    outlet && flow.value > 0 ? surfaceSpeed(outlet, flow.value, usualTank(volume).height) : 0,
})

/** What the balance carries for a class (m³), and its first limit. */
export const carriedBy = (input: CapacityInput, stock: StockClass): Carried | null =>
  input.films ? carries(keepingOfClass(stock, input), input.films) : null

/** A relative half-width (95 %) as the standard deviation of a logarithm. */
const spread = (band: number): number => logDeviation(band / 2)

/**
 * The 95 % interval of what the balance carries (m³): the first of two limits, each log-normal. Ammonia is as sure as
 * media, the rate of films, what organic carbon leaves of it and the feed; oxygen as feed and gas exchange move it,
 * which is by about their cube. P(V > v) = P(ammonia’s > v) · P(oxygen’s > v).
 * Source: GUM 5.1 for each, the distribution of the lesser of two independent quantities for both.
 */
function balanceInterval(input: CapacityInput, films: Films, stock: StockClass): Interval {
  const per = keepingOfClass(stock, input)
  const feed = spread(stock.marks.feedPerVolume.band)
  const each = (fed: number, exchanged: number): CarriedByEach =>
    carriesEach({ ...per, feedPerVolume: per.feedPerVolume * fed, exchanged }, films)
  const now = each(1, 1)
  const known = input.mass && input.mass.value > 0 ? (input.mass.uncertainty ?? 0) / input.mass.value : 0
  const move = (what: (by: number) => number, sigma: number): number =>
    Math.abs(Math.log(what(Math.exp(sigma)) / what(Math.exp(-sigma)))) / 2 || 0
  const exchange = spread(EXCHANGE_BAND)
  const limits = [
    {
      middle: now.ammonia,
      sigma: Math.hypot(
        spread(known),
        spread(FILM_BAND),
        spread(ORGANIC_BAND),
        move((by) => each(by, 1).ammonia, feed),
      ),
    },
    {
      middle: now.oxygen,
      sigma: Math.hypot(
        move((by) => each(by, 1).oxygen, feed),
        move((by) => each(1, by).oxygen, exchange),
      ),
    },
  ]
  if (!(now.volume > 0)) return [0, each(Math.exp(-NINETY_FIVE * feed), 1).volume]
  const beyond = (v: number): number =>
    limits.reduce(
      (p, { middle, sigma }) => p * (1 - normalCdf(Math.log(v / middle) / Math.max(sigma, 1e-9))),
      1,
    )
  const at = (p: number): number => {
    let [low, high] = [Math.log(now.volume) - 10, Math.log(now.volume) + 10]
    while (high - low > 1e-9) {
      const middle = (low + high) / 2
      if (beyond(Math.exp(middle)) > p) low = middle
      else high = middle
    }
    return Math.exp(low)
  }
  return [at(0.975), at(0.025)]
}

type Saying = Pick<SchoolSays, 'volume' | 'interval' | 'why' | 'limit'>
const silent = (why: string): Saying => ({ volume: null, interval: null, why })
const says = (volume: number, from: Known | null, ...rules: readonly number[]): Saying => ({
  volume,
  interval: ruleInterval(volume, from, ...rules),
  why: null,
})

/** What each school has to say of a fill. All are rules of thumb but the balance, whose constants carry bands. */
const SCHOOLS: Readonly<Record<CapacitySchool, (i: CapacityInput, s: StockClass) => Saying>> = {
  'media-mass': ({ mass }, { litresPerKilogram, marks }) => {
    if (!mass) return silent('no media on record')
    requireRange('mass', mass.value, { min: 0, max: 1000, unit: 'kg' })
    return says((mass.value * litresPerKilogram) / 1000, mass, marks.litresPerKilogram.band)
  },
  balance: (input, stock) => {
    if (!input.films) return silent('no fill on record')
    const { volume, binding } = carries(keepingOfClass(stock, input), input.films)
    return { volume, interval: balanceInterval(input, input.films, stock), why: null, limit: binding }
  },
  turnover: ({ flow }, { rule = CAPACITY_RULE }) =>
    says((flow.value * 3600) / rule.turnoverFloor, flow, FLOOR_BAND),
  oversizing: ({ claimedMax }, { oversizing, marks }) =>
    claimedMax === undefined
      ? silent('the label claims no tank')
      : says(claimedMax / oversizing, null, marks.oversizing.band),
  minima: ({ flow }, { minTurnover, marks }) =>
    says((flow.value * 3600) / minTurnover, flow, marks.minTurnover.band),
}

/**
 * A class’s rule: what its house says, but where a class has a school of its own (turtles are rated against rated) that
 * leads, unless the house has it silent.
 */
export function ruleOf({ rule = CAPACITY_RULE, code }: Pick<StockClass, 'rule' | 'code'>): CapacityRule {
  const own = code === null ? undefined : LEADS_OF_CLASS[code]
  return own && rule.order.includes(own)
    ? { ...rule, order: [own, ...rule.order.filter((s) => s !== own)] }
    : rule
}

/**
 * The tank a fill carries: what the first school of the house’s order that applies says of it, no more than those it
 * lets bind. Where none of its order applies the floor of turnover is all there is. A filter that nothing comes through
 * carries nothing, whatever is in it. Every screen and endpoint asks here.
 * @throws OutOfRange naming `flow` or `mass`.
 */
export function capacityOf(input: CapacityInput, stock: StockClass): Capacity {
  requireRange('flow', input.flow.value, { min: 0, unit: 'm³/s' })
  const { order, bind } = ruleOf(stock)
  const spoken = [...order, ...bind.filter((s) => !order.includes(s))].map((school) => ({
    school,
    ...SCHOOLS[school](input, stock),
  }))
  const first = spoken.find((s) => order.includes(s.school) && s.volume !== null)
  const leader = first ?? { school: 'turnover' as const, ...SCHOOLS.turnover(input, stock) }
  const all = first || spoken.some((s) => s.school === 'turnover') ? spoken : [...spoken, leader]
  const roleOf = (s: (typeof all)[number]): SchoolSays['role'] => {
    if (s.volume === null) return 'silent'
    if (s.school === leader.school) return 'leads'
    return bind.includes(s.school) ? 'binds' : 'beside'
  }
  const schools = all.map((s): SchoolSays => ({ ...s, role: roleOf(s) }))
  const counted = schools.filter((s) => s.role === 'leads' || s.role === 'binds')
  const least = counted.reduce((a, b) => ((b.volume ?? Infinity) < (a.volume ?? Infinity) ? b : a))
  if (input.flow.value === 0)
    return {
      volume: 0,
      interval: [0, 0],
      leading: leader.school,
      binding: 'turnover',
      schools,
      atMost: false,
    }
  const end = (i: 0 | 1): number => Math.min(...counted.map((s) => s.interval?.[i] ?? Infinity))
  // A school that knows nothing of the media, leading because nobody noted them, says at most how much.
  const ahead = schools.slice(
    0,
    schools.findIndex((s) => s.school === leader.school),
  )
  const atMost = isBlind(leader.school) && ahead.some((s) => !isBlind(s.school))
  return {
    volume: least.volume ?? 0,
    interval: [atMost ? 0 : end(0), end(1)],
    leading: leader.school,
    binding: least.school,
    schools,
    atMost,
  }
}

/** What one school says of it (m³); null where it says nothing. */
export const volumeBySchool = (c: Pick<Capacity, 'schools'>, school: CapacitySchool): number | null =>
  c.schools.find((s) => s.school === school)?.volume ?? null

/** The numbers a capacity is shown with. */
export interface CapacityFigures {
  /** Which fill, or what is known instead of one. */
  readonly fill: { readonly id: string; readonly name: string }
  readonly flow: Figure
  readonly meets: Figure
  readonly mass: Figure | null
  /** Share of that mass which is foam. */
  readonly foam: number
  readonly films: Films | null
  readonly outlet: Outlet | null
  /** Every way for the water to come back that comes with it; only the one in use where none is noted. */
  readonly outlets?: readonly Outlet[]
}

/** What the sums need of those numbers. */
export const capacityInput = (
  { flow, mass, films, outlet, outlets }: Omit<CapacityFigures, 'fill'>,
  claimedMax?: number | null,
): CapacityInput => ({
  flow,
  mass,
  films,
  outlet,
  ...(outlets && { outlets }),
  ...(claimedMax && { claimedMax }),
})
