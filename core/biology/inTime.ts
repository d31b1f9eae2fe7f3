import { requireRange } from '../errors'
import { oxygenSaturation } from '../water'
import { balance, KIT_ZERO, type Keeping } from './balance'
import {
  alkalinitySpent,
  FILM_FLOOR,
  FILM_OXYGEN,
  metFlow,
  OXYGEN_OF_NITROGEN,
  reachedSurface,
  takenBy,
  type Films,
} from './film'
import { keptByAlkalinity, mostHere } from './heldBack'
import { integrate } from './integrate'
import { DAY, loadOf } from './load'
import { gasExchange } from './oxygen'
import { takenByTank } from './tankFilm'

/**
 * Growth of the two films: most growth a day at 20 °C and the concentration of half of it (kg/m³). Source: Metcalf and
 * Eddy, Wastewater Engineering, kinetics of nitrification in the activated sludge process (from memory). The decay is
 * set so that a film neither grows nor shrinks at its floor (Zhu and Chen 2001).
 */
const GROWTH = {
  ammonia: { most: 0.9, half: 0.5e-3 },
  nitrite: { most: 1, half: 0.2e-3 },
} as const
/** Growth for each kelvin more. Source: Metcalf and Eddy (from memory). */
const PER_KELVIN = 1.07
/** A film stops growing as it is full; the higher, the more suddenly (numerical). */
const FULL = 12

/** Shares of a settled film that things begin with or keep. Common practice, no source. */
export const RIPENESS = {
  /** Ripeness by what comes with tap water, plants and fish: such a filter takes four to six weeks. */
  nothing: 1e-6,
  /** From a bottle. */
  starter: 0.02,
  /** Ripeness that media keep when rinsed under a chlorinated tap. */
  tapRinsed: 0.3,
} as const

/** A filter on the tank and the share of a settled film it begins with. */
export interface TimedFilter {
  readonly id: string
  readonly films: Films
  readonly ripe: number
  /**
   * Water that its body shuts in when it stops (m³): the oxygen in it is all its films have. Infinity where its films
   * lie open in the tank; unknown, and then taken as none, when absent.
   */
  readonly body?: number
  /** Day it is put on; from the start when absent. */
  readonly from?: number
}

/** Happenings on a day. */
export type Happening =
  | { readonly day: number; readonly what: 'take-out'; readonly filter: string }
  | { readonly day: number; readonly what: 'replace'; readonly filter: string; readonly share: number }
  | { readonly day: number; readonly what: 'rinse'; readonly filter: string; readonly keeps: number }
  | { readonly day: number; readonly what: 'feed'; readonly times: number }
  | { readonly day: number; readonly what: 'off'; readonly hours: number }

/** A tank, its filters and what happens to them over some days. */
export interface Scenario {
  readonly keeping: Keeping
  readonly filters: readonly TimedFilter[]
  readonly happenings: readonly Happening[]
  readonly days: number
  /** How many times as fast as by the constants films grow and shrink; 1 when absent. */
  readonly pace?: number
}

/** The water on a day (kg/m³, nitrogen as N) and how much of its film each filter has, 0 to 1. */
export interface TimedPoint {
  readonly day: number
  readonly ammonia: number
  readonly nitrite: number
  readonly nitrate: number
  readonly oxygen: number
  readonly films: readonly number[]
  /** Oxygen of the water in each filter’s body. */
  readonly bodies: readonly number[]
}

interface Peak {
  readonly day: number
  readonly value: number
}

/** How a scenario goes: day by day, its peaks, when it is safe, and where the nitrogen went (kg). */
export interface Simulation {
  readonly points: readonly TimedPoint[]
  readonly peakAmmonia: Peak
  readonly peakNitrite: Peak
  readonly leastOxygen: Peak
  /** First day from which ammonia and nitrite stay within what a kit reads as zero; null while they do not. */
  readonly safeFrom: number | null
  /** Day on which a stopped body first has no oxygen left; null where none runs out. */
  readonly foulFrom: number | null
  readonly nitrogen: {
    readonly made: number
    readonly plants: number
    readonly changes: number
    readonly stored: number
  }
}

/**
 * Of what a filter’s film loses, the share that takes hold in another that runs beside it. Set so that a new filter is
 * ripe after the four to six weeks beside a ripe one that practice gives (common practice, no source): by what it finds
 * to eat alone it never would be, as the ripe one leaves it no more than keeps a film alive.
 */
export const TAKES_HOLD = 0.2

/**
 * Decay without oxygen as a share of that with it: 0.06 to 0.1 a day against 0.2. Source: Salem,
 * Moussa and van Loosdrecht 2006 (from memory). Fouling of a stopped body may cost it more; nobody has a rate for that.
 */
const WITHOUT_OXYGEN = 0.4

/** Decay of a film a day, as a share of itself. */
function decay(kind: keyof typeof GROWTH, temperature: number): number {
  const { most, half } = GROWTH[kind]
  return (most * PER_KELVIN ** (temperature - 20) * FILM_FLOOR) / (half + FILM_FLOOR)
}

/** Growth a day of a film at S (kg/m³), of which x is there and a share works; negative where it shrinks. */
function growth(kind: keyof typeof GROWTH, s: number, x: number, { temperature, works }: Place): number {
  const { most, half } = GROWTH[kind]
  const mu = works * most * PER_KELVIN ** (temperature - 20)
  return x * ((mu * s * (1 - x ** FULL)) / (half + s) - decay(kind, temperature))
}
/** Where a film grows: °C, and the share of its rate that oxygen leaves it. */
interface Place {
  readonly temperature: number
  readonly works: number
}

/** Share of a full film that a settled filter has: as much as the load keeps alive at the floor. */
export function settledFilm(keeping: Keeping, all: readonly Films[]): number {
  const b = balance(keeping, ...all)
  if (!(b.nitrogen.oxidised > 0) || b.ammonia === Infinity) return all.length ? 1 : 0
  const most = mostHere(keeping) * b.kept
  let [low, high] = [0, 1]
  const { ownArea = 0, food = 1 } = keeping
  const taken = (x: number): number =>
    all.reduce(
      (sum, f) => sum + takenBy(food * b.ammonia, f, x * most),
      takenByTank(food * b.ammonia, ownArea, x * most),
    )
  if (taken(1) <= b.nitrogen.oxidised) return 1
  while (high - low > 1e-9) {
    const middle = (low + high) / 2
    if (taken(middle) > b.nitrogen.oxidised) high = middle
    else low = middle
  }
  return high
}

/** Where there is so little oxygen (kg/m³), less is used: nothing breathes what is not there (numerical). */
const SCARCE = 0.5e-3

/** Points a day that are kept. */
const A_DAY = 4

/** Everything that moves, as the integrator has it; what stands where: {@link Places}. */
type State = readonly number[]

/** Places in a state: N in three forms and oxygen, two films a filter, the books, the tank’s own films, the bodies. */
interface Places {
  readonly films: number
  readonly made: number
  readonly plants: number
  readonly own: number
  readonly alkalinity: number
  readonly bodies: number
}
function placesFor(filters: number): Places {
  const films = 4
  const made = films + 2 * filters
  return { films, made, plants: made + 1, own: made + 2, alkalinity: made + 4, bodies: made + 5 }
}

/** What is eaten of ammonia and of nitrite (kg/s). */
type Eaten = [ammonia: number, nitrite: number]

class TankInTime {
  readonly #k: Keeping
  readonly #filters: readonly TimedFilter[]
  readonly #pace: number
  readonly #at: Places
  readonly #surfaces: readonly number[]
  readonly #mostAlkaline: number
  readonly #saturation: number
  readonly #own: number
  readonly #food: number
  #feed = 1
  #off = false
  readonly #on: Set<string>
  #y: State
  /** Uptake of each filter’s films when it stopped (kg/s): so they breathe on. */
  #stopped: readonly number[] = []
  readonly #points: TimedPoint[] = []
  #changed = 0

  constructor({ keeping, filters, pace = 1 }: Scenario) {
    const k = keeping
    this.#k = k
    this.#filters = filters
    this.#pace = pace
    this.#at = placesFor(filters.length)
    this.#surfaces = filters.map((f) => reachedSurface(f.films))
    this.#mostAlkaline = mostHere(k)
    this.#saturation = oxygenSaturation(k.temperature, k.salinity)
    this.#own = k.ownArea ?? 0
    this.#food = k.food ?? 1
    this.#on = new Set(filters.map((f) => f.id))
    // A ripe film has settled beside other ripe ones, and knows nothing of a new one yet.
    const ripe = filters.filter((f) => f.ripe > RIPENESS.nothing)
    const settled = settledFilm(
      k,
      (ripe.length ? ripe : filters).map((f) => f.films),
    )
    const first = (share: number): number => Math.min(1, Math.max(RIPENESS.nothing, share * settled))
    // The tank’s own films: as ripe as the ripest filter that is there from the start.
    const own = first(Math.max(0, ...filters.filter((f) => !f.from).map((f) => f.ripe)))
    this.#y = [
      0,
      0,
      k.tapNitrate,
      this.#saturation,
      ...filters.flatMap((f) => [first(f.ripe), first(f.ripe)]),
      0,
      0,
      own,
      own,
      k.alkalinity,
      ...filters.map(() => this.#saturation),
    ]
  }

  #isOn = (f: TimedFilter, t: number): boolean => this.#on.has(f.id) && t >= (f.from ?? 0) - 1e-9
  #runs = (f: TimedFilter, t: number): boolean => !this.#off && this.#isOn(f, t)

  /** Seeding of filter i a day by what the others that run lose, as a share of a full film. */
  #seeded(kind: keyof typeof GROWTH, t: number, i: number, films: State): number {
    const from = this.#filters.reduce(
      (sum, f, j) => sum + (j !== i && this.#runs(f, t) ? (films[j] ?? 0) * (this.#surfaces[j] ?? 0) : 0),
      0,
    )
    const room = 1 - Math.min(1, films[i] ?? 0) ** FULL
    const own = this.#surfaces[i] ?? 0
    return own > 0 ? (TAKES_HOLD * decay(kind, this.#k.temperature) * room * from) / own : 0
  }

  /** Films of the filters: what they eat, how they grow, and how those that stand on the tank decay. */
  #filterSlopes(t: number, v: State, most: number, d: number[]): Eaten {
    const { films: at, bodies } = this.#at
    const [s = 0, s2 = 0, , oxygen = 0] = v
    const { temperature } = this.#k
    const filmsOf = (j: 0 | 1): State => this.#filters.map((_, i) => v[at + 2 * i + j] ?? 0)
    const films = [filmsOf(0), filmsOf(1)] as const
    const eaten: Eaten = [0, 0]
    this.#filters.forEach((f, i) => {
      const [x = 0, x2 = 0] = [films[0][i], films[1][i]]
      const [place, place2] = [at + 2 * i, at + 2 * i + 1]
      if (this.#runs(f, t)) {
        // No more than the oxygen that comes with the water allows, as at rest.
        const allowed = (metFlow(f.films) * Math.max(0, oxygen - FILM_OXYGEN)) / OXYGEN_OF_NITROGEN
        const [found, found2] = [this.#food * Math.max(0, s), this.#food * Math.max(0, s2)]
        eaten[0] += Math.min(allowed, takenBy(found, f.films, x * most))
        eaten[1] += Math.min(allowed, takenBy(found2, f.films, x2 * most))
        const here = { temperature, works: 1 }
        d[place] = this.#pace * (growth('ammonia', found, x, here) + this.#seeded('ammonia', t, i, films[0]))
        d[place2] =
          this.#pace * (growth('nitrite', found2, x2, here) + this.#seeded('nitrite', t, i, films[1]))
      } else if (this.#off && this.#isOn(f, t)) {
        // Stopped on the tank: nothing to eat comes, and of oxygen there is what the body holds.
        const breathes = Math.min(1, Math.max(0, v[bodies + i] ?? 0) / SCARCE)
        if (f.body !== undefined && f.body < Infinity)
          d[bodies + i] =
            (-breathes * (this.#stopped[i] ?? 0) * OXYGEN_OF_NITROGEN * DAY) / Math.max(f.body, 1e-6)
        const loses = this.#pace * (WITHOUT_OXYGEN + (1 - WITHOUT_OXYGEN) * breathes)
        d[place] = -loses * decay('ammonia', temperature) * x
        d[place2] = -loses * decay('nitrite', temperature) * x2
      }
    })
    return eaten
  }

  /** The tank’s own films. No current brings them oxygen either: they breathe what the water has. */
  #ownSlopes(v: State, most: number, d: number[]): Eaten {
    if (!(this.#own > 0)) return [0, 0]
    const [s = 0, s2 = 0, , oxygen = 0] = v
    const { own: at } = this.#at
    const [x = 0, x2 = 0] = v.slice(at, at + 2)
    const [found, found2] = [this.#food * Math.max(0, s), this.#food * Math.max(0, s2)]
    const works = Math.min(1, Math.max(0, oxygen) / FILM_OXYGEN)
    const here = { temperature: this.#k.temperature, works }
    d[at] = this.#pace * growth('ammonia', found, x, here)
    d[at + 1] = this.#pace * growth('nitrite', found2, x2, here)
    return [
      works * takenByTank(found, this.#own, x * most),
      works * takenByTank(found2, this.#own, x2 * most),
    ]
  }

  /** Right-hand side of all of it, a day. */
  #slope = (t: number, v: State): number[] => {
    const k = this.#k
    const [, , , oxygen = 0] = v
    const most = this.#mostAlkaline * keptByAlkalinity(v[this.#at.alkalinity] ?? 0)
    const load = loadOf({ ...k, feed: k.feed * this.#feed })
    const plants = load.ammonia * k.plantShare
    const d = v.map(() => 0)
    const [byFilters, byTank] = [this.#filterSlopes(t, v, most, d), this.#ownSlopes(v, most, d)]
    const [taken, taken2] = [byFilters[0] + byTank[0], byFilters[1] + byTank[1]]
    const exchange = gasExchange({
      speed: this.#off ? 0 : k.stirred,
      depth: k.volume / k.surface,
      temperature: k.temperature,
    })
    const use = load.oxygen + load.rotting + (plants + taken) * OXYGEN_OF_NITROGEN
    const breathed = use * Math.min(1, Math.max(0, oxygen) / SCARCE)
    d[0] = ((load.ammonia - plants - taken) / k.volume) * DAY
    d[1] = ((taken - taken2) / k.volume) * DAY
    d[2] = (taken2 / k.volume) * DAY
    d[3] = ((exchange * k.surface * (this.#saturation - oxygen) - breathed) / k.volume) * DAY
    d[this.#at.alkalinity] = (-alkalinitySpent(taken, load.ammonia - plants) / k.volume) * DAY
    d[this.#at.made] = load.ammonia * DAY
    d[this.#at.plants] = plants * DAY
    return d
  }

  #keep(day: number, v: State): void {
    const [ammonia = 0, nitrite = 0, nitrate = 0, oxygen = 0] = v
    this.#points.push({
      day,
      ammonia,
      nitrite,
      nitrate,
      oxygen,
      films: this.#filters.map((_, i) => v[this.#at.films + 2 * i] ?? 0),
      bodies: this.#filters.map((_, i) => v[this.#at.bodies + i] ?? 0),
    })
  }

  #changeWater = (): void => {
    const k = this.#k
    const [a = 0, b = 0, c = 0] = this.#y
    const left = 1 - k.changeShare
    this.#changed += k.changeShare * k.volume * (a + b + c - k.tapNitrate)
    const y = [a * left, b * left, c * left + k.changeShare * k.tapNitrate, ...this.#y.slice(3)]
    y[this.#at.alkalinity] = (y[this.#at.alkalinity] ?? 0) * left + k.changeShare * k.alkalinity
    this.#y = y
  }

  /** Both films of a filter become what they are times this. */
  #scale(id: string, times: number): void {
    const i = this.#filters.findIndex((f) => f.id === id)
    const at = this.#at.films + 2 * i
    this.#y = this.#y.map((v, j) =>
      i >= 0 && (j === at || j === at + 1) ? Math.max(RIPENESS.nothing, v * times) : v,
    )
  }

  #stop(day: number): void {
    const [s = 0, , , oxygen = 0] = this.#y
    const { films, bodies, alkalinity } = this.#at
    const most = this.#mostAlkaline * keptByAlkalinity(this.#y[alkalinity] ?? 0)
    this.#stopped = this.#filters.map((f, i) =>
      this.#runs(f, day)
        ? takenBy(this.#food * Math.max(0, s), f.films, (this.#y[films + 2 * i] ?? 0) * most)
        : 0,
    )
    this.#y = this.#y.map((v, j) =>
      j < bodies ? v : this.#filters[j - bodies]?.body === undefined ? 0 : oxygen,
    )
    this.#off = true
  }

  /** What happens between stretches that are integrated: each day with what it does. */
  #stops(
    happenings: readonly Happening[],
    days: number,
  ): { readonly day: number; readonly act: () => void }[] {
    const k = this.#k
    const stops = happenings.flatMap((h) => {
      switch (h.what) {
        case 'take-out':
          return [{ day: h.day, act: () => void this.#on.delete(h.filter) }]
        case 'replace':
          return [{ day: h.day, act: () => this.#scale(h.filter, 1 - h.share) }]
        case 'rinse':
          return [{ day: h.day, act: () => this.#scale(h.filter, h.keeps) }]
        case 'feed':
          return [{ day: h.day, act: () => void (this.#feed *= h.times) }]
        case 'off':
          return [
            { day: h.day, act: () => this.#stop(h.day) },
            { day: h.day + h.hours / 24, act: () => void (this.#off = false) },
          ]
      }
    })
    if (k.changeShare > 0)
      for (let t = k.changeDays; t < days; t += k.changeDays) stops.push({ day: t, act: this.#changeWater })
    for (const f of this.#filters) if (f.from) stops.push({ day: f.from, act: () => undefined })
    return stops.sort((a, b) => a.day - b.day).filter((s) => s.day <= days)
  }

  run(happenings: readonly Happening[], days: number): Simulation {
    const { films, made, own, alkalinity } = this.#at
    const isFilm = (j: number): boolean => (j >= films && j < made) || (j >= own && j < alkalinity)
    let now = 0
    this.#keep(0, this.#y)
    for (const stop of [...this.#stops(happenings, days), { day: days, act: () => undefined }]) {
      const times: number[] = []
      for (let i = Math.floor(now * A_DAY) + 1; i / A_DAY < stop.day; i++) times.push(i / A_DAY)
      const { end, at } = integrate(this.#slope, this.#y, [now, stop.day], times)
      at.forEach((v, i) => this.#keep(times[i] ?? now, v))
      this.#y = end.map((v, j) => (isFilm(j) ? Math.min(1, Math.max(0, v)) : Math.max(0, v)))
      if (stop.day > now) this.#keep(stop.day, this.#y)
      now = stop.day
      stop.act()
    }
    return this.#read()
  }

  #read(): Simulation {
    const points = this.#points
    const peak = (of: (p: TimedPoint) => number, sign = 1): Peak => {
      const p = points.reduce((a, b) => (sign * of(b) > sign * of(a) ? b : a))
      return { day: p.day, value: of(p) }
    }
    const unsafe = points.findLast((p) => p.ammonia > KIT_ZERO || p.nitrite > KIT_ZERO)
    const after = unsafe ? points.find((p) => p.day > unsafe.day) : points[0]
    const [a = 0, b = 0, c = 0] = this.#y
    return {
      points,
      peakAmmonia: peak((p) => p.ammonia),
      peakNitrite: peak((p) => p.nitrite),
      leastOxygen: peak((p) => p.oxygen, -1),
      safeFrom: after?.day ?? null,
      foulFrom: points.find((p) => p.bodies.some((o) => o < SCARCE / 10))?.day ?? null,
      nitrogen: {
        made: this.#y[this.#at.made] ?? 0,
        plants: this.#y[this.#at.plants] ?? 0,
        changes: this.#changed,
        stored: (a + b + c - this.#k.tapNitrate) * this.#k.volume,
      },
    }
  }
}

/**
 * Runs a scenario day by day: dissolved ammonia, nitrite, nitrate and oxygen of the tank, and the two films of each
 * filter, growing by Monod’s law to what its surface holds. Water changes come at the end of their interval.
 * Source: Metcalf and Eddy (growth), Zhu and Chen 1999 (uptake); from memory.
 * @throws OutOfRange for `days`, `pace` or a field of the keeping.
 */
export function simulate(scenario: Scenario): Simulation {
  requireRange('days', scenario.days, { min: 1, max: 400, unit: 'days' })
  requireRange('pace', scenario.pace ?? 1, { min: 0.01, max: 100 })
  return new TankInTime(scenario).run(scenario.happenings, scenario.days)
}

/**
 * Hours until the oxygen in a closed body of still water is gone: t = V · DO ÷ use, its films breathing as they did
 * while it ran.
 */
export const hoursOfOxygen = (bodyWater: number, oxygen: number, oxidised: number): number =>
  oxidised > 0 ? (bodyWater * oxygen) / (oxidised * OXYGEN_OF_NITROGEN) / 3600 : Infinity
