import {
  BESIDE_ORGANIC,
  carries,
  carriesEach,
  EXCHANGE_BAND,
  FILM_BAND,
  mostHere,
  ORGANIC_BAND,
  reachedSurface,
  transferAt,
  usualTank,
  type Carried,
  type CarriedByEach,
  type Films,
  type KeepingPerVolume,
  type LimitId,
} from '../biology'
import { requireRange } from '../errors'
import { put, putFigure, type Figure, type WorkingLine } from '../figures'
import { surfaceSpeed, type Outlet } from '../hydraulics/jets'
import { logDeviation, NINETY_FIVE, normalCdf } from '../statistics'
import { CAPACITY_RULE, FLOOR_BAND, type CapacitySchool } from './rule'
import type { StockClass, StockNumber } from './stock'
import { USUAL_ALKALINITY, USUAL_CHANGES } from './usual'

/** A value with its expanded uncertainty (95 %), in one unit. */
export interface Known {
  readonly value: number
  readonly uncertainty?: number
}
export type Interval = readonly [low: number, high: number]

/** Contribution of a fill to a tank. */
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

/** Answer of one school: a tank (m³) with its band, or why it says nothing. */
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

/** Capacity by the balance for a class (m³), and its first limit. */
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

/** One input that is doubted: its name and relative standard uncertainty. */
interface Doubt {
  readonly what: string
  readonly relative: number
}
/** Doubts of a capacity, each input by itself. */
export type Doubts = Readonly<
  Record<
    'flow' | 'mass' | 'litres' | 'feed' | 'film' | 'organic' | 'exchange' | 'floor' | 'minima' | 'oversizing',
    Doubt
  >
>

const half = (band: number): number => band / 2
const markOf = (s: StockClass, n: StockNumber): number => half(s.marks[n].band)

/** How sure each input of a capacity is. */
export function doubtsOf(input: CapacityInput, stock: StockClass): Doubts {
  const known = (k: CapacityInput['mass']): number =>
    k && k.value > 0 ? half((k.uncertainty ?? 0) / k.value) : 0
  return {
    flow: { what: 'flow', relative: known(input.flow) },
    mass: { what: 'media', relative: known(input.mass) },
    litres: { what: 'litres one kilogram supports', relative: markOf(stock, 'litresPerKilogram') },
    feed: { what: 'feed', relative: markOf(stock, 'feedPerVolume') },
    film: { what: 'how fast bacteria work', relative: half(FILM_BAND) },
    organic: { what: 'how much organic waste slows them', relative: half(ORGANIC_BAND) },
    exchange: { what: 'gas exchange at the surface', relative: half(EXCHANGE_BAND) },
    floor: { what: 'minimum circulation', relative: half(FLOOR_BAND) },
    minima: { what: 'recommended turnover', relative: markOf(stock, 'minTurnover') },
    oversizing: { what: 'oversizing', relative: markOf(stock, 'oversizing') },
  }
}

/** Factors that the inputs are drawn by: log-normal, so that none turns negative. */
export type Factors = Readonly<Record<keyof Doubts, number>>
/** Inputs as they are. */
export const UNSCALED: Factors = {
  flow: 1,
  mass: 1,
  litres: 1,
  feed: 1,
  film: 1,
  organic: 1,
  exchange: 1,
  floor: 1,
  minima: 1,
  oversizing: 1,
}

const scaledFilms = ({ flow, layers }: Films, f: Factors): Films => ({
  flow: flow * f.flow,
  // The rate of a film, what is left of it and its surface come as a product.
  layers: layers.map((l) => ({
    ...transferAt(l, f.flow),
    area: l.area * f.mass * f.film * f.organic,
  })),
})

type Saying = Pick<SchoolSays, 'volume' | 'interval' | 'why' | 'limit'>
const silent = (why: string): Saying => ({ volume: null, interval: null, why })
const says = (volume: number, from: Known | null, ...rules: readonly number[]): Saying => ({
  volume,
  interval: ruleInterval(volume, from, ...rules),
  why: null,
})

const percent = (v: number): string => `± ${Math.round(v * 100)} %`
const rule = (symbol: string, words: string, stock: StockClass, n: StockNumber): WorkingLine =>
  put(symbol, `${words}, ${percent(stock.marks[n].band)}`, stock[n], 'ratio', 'rule')

/** How a tank is worked out. */
interface Shown {
  readonly formula: string
  readonly working: readonly WorkingLine[]
  readonly source: string
}

/** Where a school comes from: who says it, what it rests on, and what they stand to gain. */
interface SchoolOrigin {
  readonly who: string
  readonly rests: string
  readonly interest: string
}
/** One way to say which tank a filter carries. */
interface School {
  /** Name of the sizing rule. */
  readonly words: string
  /** What it names as the limit, in a word. */
  readonly limit: string
  /** Its argument, for whoever orders the schools of a house. */
  readonly about: string
  /** Knows nothing of the media: what it says is the most a filter can carry. */
  readonly blind: boolean
  /** Ahead of how much a filter carries of a tank that it does not. */
  readonly tooLittle: string
  readonly origin: SchoolOrigin
  says(input: CapacityInput, stock: StockClass): Saying
  /** How it is worked out. */
  shown(of: Omit<CapacityFigures, 'fill'>, stock: StockClass, claimedMax: number | null): Shown
  /** Relative half-width (95 %) of its rule: all that are judged by it are wrong by the same. */
  band(stock: StockClass): number
  /** Its tank with inputs scaled, where it says `base` (m³) of them as they are. */
  scaled(base: number, f: Factors, input: CapacityInput, stock: StockClass): number
}

/**
 * The schools of capacity. All are rules of thumb but the balance, whose constants carry bands; who says them is common
 * practice, no source, but for the laboratory films.
 */
export const SCHOOLS: Readonly<Record<CapacitySchool, School>> = {
  'media-mass': {
    words: 'media weight',
    limit: 'media',
    about:
      'One kilogram of good sintered media supports 100 L at normal stocking. Other media count by their surface. It keeps a reserve.',
    blind: false,
    tooLittle: 'Too little media: ',
    origin: {
      who: 'makers of the medium and those who sell it, and reviewers who weigh',
      rests: 'tanks that ran well with media of known weight; no published study',
      interest: 'those who say it sell media by the kilogram',
    },
    says({ mass }, { litresPerKilogram, marks }) {
      if (!mass) return silent('no media recorded')
      requireRange('mass', mass.value, { min: 0, max: 1000, unit: 'kg' })
      return says((mass.value * litresPerKilogram) / 1000, mass, marks.litresPerKilogram.band)
    },
    shown: ({ mass }, stock) => ({
      formula: 'V = m × litres per kilogram',
      working: [
        ...(mass ? [putFigure('m', mass)] : []),
        rule('L/kg', 'litres one kilogram supports', stock, 'litresPerKilogram'),
      ],
      source: stock.marks.litresPerKilogram.source,
    }),
    band: ({ marks }) => marks.litresPerKilogram.band,
    scaled: (base, f) => base * f.mass * f.litres,
  },
  balance: {
    words: 'bioload balance',
    limit: 'bioload',
    about:
      'Compares the waste of the animals with what bacteria, plants and water changes process. Ends where a test kit shows ammonia or oxygen runs short.',
    blind: false,
    tooLittle: 'Too much bioload: ',
    origin: {
      who: 'laboratory biofilms and fish farms',
      rests: 'biofilms measured in clean water without organic carbon (Zhu and Chen 1999, 2001)',
      interest: 'none in this trade; a biofilm in a tank does less well than one in a laboratory',
    },
    says(input, stock) {
      if (!input.films) return silent('no media setup recorded')
      const { volume, binding } = carries(keepingOfClass(stock, input), input.films)
      return { volume, interval: balanceInterval(input, input.films, stock), why: null, limit: binding }
    },
    shown: (of, stock) => ({
      formula:
        'V: feed · protein · 0.092 · (1 − plants) = changes + films at the first limit;  r = r_max · A/(25 + A) · S/(1.93 + S), A the alkalinity left',
      working: [
        put(
          'A',
          `media surface that water reaches; bacteria ${percent(FILM_BAND)}`,
          of.films ? reachedSurface(of.films) : 0,
          'area',
          'rule',
        ),
        put(
          'r_max',
          'most that bacteria process beside organic carbon, mg N/m² a day',
          of.films ? mostHere(keepingOfClass(stock, of)) * 86400e6 : 0,
          'ratio',
          'rule',
        ),
        put(
          'feed',
          `feed, ${percent(stock.marks.feedPerVolume.band)}`,
          stock.feedPerVolume,
          'feeding',
          'rule',
        ),
        put('protein', 'of the feed', stock.protein, 'ratio', 'rule'),
        put('plants', 'take of the ammonia', stock.plantShare, 'ratio', 'rule'),
        putFigure('Q', of.flow),
      ],
      source: 'Timmons and Ebeling; Zhu and Chen 1999, 2001; EIFAC 1970 (from memory)',
    }),
    band: ({ marks }) => Math.hypot(FILM_BAND, ORGANIC_BAND, marks.feedPerVolume.band),
    scaled(base, f, { films, flow, outlet }, stock) {
      if (!films) return base
      const per = keepingOfClass(stock, { flow: { value: flow.value * f.flow }, outlet: outlet ?? null })
      return carries(
        { ...per, feedPerVolume: per.feedPerVolume * f.feed, exchanged: f.exchange },
        scaledFilms(films, f),
      ).volume
    },
  },
  turnover: {
    words: 'minimum circulation',
    limit: 'circulation',
    about: 'Enough flow to reach every corner. It can rule a filter out, never prove it is enough.',
    blind: true,
    tooLittle: 'Too weak: ',
    origin: {
      who: 'most keepers',
      rests: 'habit: still corners collect dirt; sources disagree on a minimum',
      interest: 'pumps are sold by their flow',
    },
    says: ({ flow }, { rule: house = CAPACITY_RULE }) =>
      says((flow.value * 3600) / house.turnoverFloor, flow, FLOOR_BAND),
    shown: ({ flow }, stock) => ({
      formula: 'V = Q ÷ floor',
      working: [
        putFigure('Q', flow),
        put(
          'floor',
          `turnovers per hour, ${percent(FLOOR_BAND)}`,
          (stock.rule ?? CAPACITY_RULE).turnoverFloor,
          'ratio',
          'rule',
        ),
      ],
      source: 'common practice, no source',
    }),
    band: () => FLOOR_BAND,
    scaled: (base, f) => (base * f.flow) / f.floor,
  },
  oversizing: {
    words: 'oversizing',
    limit: 'oversizing',
    about:
      'The label must be several times the tank. It trusts the label, so it never judges one. Sets the limit for turtles.',
    blind: true,
    tooLittle: 'Rated too small: ',
    origin: {
      who: 'keepers of turtles and other messy animals',
      rests: 'tanks that stayed clear under filters rated for several times their size',
      interest: 'larger filters cost more',
    },
    says: ({ claimedMax }, { oversizing, marks }) =>
      claimedMax === undefined
        ? silent('the label names no tank size')
        : says(claimedMax / oversizing, null, marks.oversizing.band),
    shown: (_, stock, claimedMax) => ({
      formula: 'V = claimed largest tank ÷ factor',
      working: [
        put('claim', 'largest tank on the label', claimedMax ?? 0, 'volume', 'printed'),
        rule('factor', 'times the tank a filter should be rated for', stock, 'oversizing'),
      ],
      source: stock.marks.oversizing.source,
    }),
    band: ({ marks }) => marks.oversizing.band,
    scaled: (base, f) => base / f.oversizing,
  },
  minima: {
    words: 'recommended turnover',
    limit: 'turnover',
    about: 'Minimum turnovers an hour for each stocking. Sources disagree, so it is off by default.',
    blind: true,
    tooLittle: 'Too weak: ',
    origin: {
      who: 'tables in shops and handbooks',
      rests: 'turnovers per hour copied from table to table; sources disagree',
      interest: 'pumps are sold by their flow',
    },
    says: ({ flow }, { minTurnover, marks }) =>
      says((flow.value * 3600) / minTurnover, flow, marks.minTurnover.band),
    shown: ({ flow }, stock) => ({
      formula: 'V = Q ÷ turnovers per hour',
      working: [putFigure('Q', flow), rule('n', 'turnovers per hour asked for', stock, 'minTurnover')],
      source: stock.marks.minTurnover.source,
    }),
    band: ({ marks }) => marks.minTurnover.band,
    scaled: (base, f) => (base * f.flow) / f.minima,
  },
}

/** Schools that know nothing of the media: what they say is the most a filter can carry. */
export const isBlind = (s: CapacitySchool): boolean => SCHOOLS[s].blind
