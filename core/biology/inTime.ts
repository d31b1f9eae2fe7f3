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

/** How a story goes: day by day, its peaks, when it is safe, and where the nitrogen went (kg). */
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

/**
 * Tells a story day by day: dissolved ammonia, nitrite, nitrate and oxygen of the tank, and the two films of each
 * filter, growing by Monod’s law to what its surface holds. Water changes come at the end of their interval.
 * Source: Metcalf and Eddy (growth), Zhu and Chen 1999 (uptake); from memory.
 * @throws OutOfRange for `days`, `pace` or a field of the keeping.
 */
export function simulate({ keeping: k, filters, happenings, days, pace = 1 }: Scenario): Simulation {
  requireRange('days', days, { min: 1, max: 400, unit: 'days' })
  requireRange('pace', pace, { min: 0.01, max: 100 })
  const mostAlkaline = mostHere(k)
  // A ripe film has settled beside other ripe ones, and knows nothing of a new one yet.
  const ripe = filters.filter((f) => f.ripe > RIPENESS.nothing)
  const settled = settledFilm(
    k,
    (ripe.length ? ripe : filters).map((f) => f.films),
  )
  const saturation = oxygenSaturation(k.temperature, k.salinity)
  const depth = k.volume / k.surface
  const N = 4
  const first = (share: number): number => Math.min(1, Math.max(RIPENESS.nothing, share * settled))
  let feed = 1
  let off = false
  const on = new Set(filters.map((f) => f.id))
  let y: number[] = [
    0,
    0,
    k.tapNitrate,
    saturation,
    ...filters.flatMap((f) => [first(f.ripe), first(f.ripe)]),
    0,
    0,
    ...Array<number>(2).fill(first(Math.max(0, ...filters.filter((f) => !f.from).map((f) => f.ripe)))),
    k.alkalinity,
    ...filters.map(() => saturation),
  ]
  const [MADE, PLANTS] = [N + 2 * filters.length, N + 2 * filters.length + 1]
  /** The tank’s own films: as ripe as the ripest filter that is there from the start. */
  const OWN = PLANTS + 1
  const ALKALINITY = OWN + 2
  /** Oxygen in the water of each filter’s body. */
  const BODY = ALKALINITY + 1
  const { ownArea = 0, food = 1 } = k
  const running = (f: TimedFilter, t: number): boolean => on.has(f.id) && !off && t >= (f.from ?? 0) - 1e-9
  const surfaces = filters.map((f) => reachedSurface(f.films))
  /** Seeding of filter i a day by what the others that run lose, as a share of a full film. */
  const seeded = (kind: keyof typeof GROWTH, t: number, i: number, films: readonly number[]): number => {
    const from = filters.reduce(
      (sum, f, j) => sum + (j !== i && running(f, t) ? (films[j] ?? 0) * (surfaces[j] ?? 0) : 0),
      0,
    )
    const room = 1 - Math.min(1, films[i] ?? 0) ** FULL
    const own = surfaces[i] ?? 0
    return own > 0 ? (TAKES_HOLD * decay(kind, k.temperature) * room * from) / own : 0
  }
  const slope = (t: number, v: readonly number[]): number[] => {
    const [s = 0, s2 = 0, , oxygen = 0] = v
    const most = mostAlkaline * keptByAlkalinity(v[ALKALINITY] ?? 0)
    const { temperature } = k
    const load = loadOf({ ...k, feed: k.feed * feed })
    const plants = load.ammonia * k.plantShare
    const d = v.map(() => 0)
    const ammoniaFilms = filters.map((_, i) => v[N + 2 * i] ?? 0)
    const nitriteFilms = filters.map((_, i) => v[N + 2 * i + 1] ?? 0)
    let [taken, taken2] = [0, 0]
    filters.forEach((f, i) => {
      const [x = 0, x2 = 0] = v.slice(N + 2 * i, N + 2 * i + 2)
      if (!running(f, t)) {
        if (!off || !on.has(f.id) || t < (f.from ?? 0) - 1e-9) return
        // Stopped on the tank: nothing to eat comes, and of oxygen there is what the body holds.
        const inBody = Math.max(0, v[BODY + i] ?? 0)
        const breathes = Math.min(1, inBody / SCARCE)
        if (f.body !== undefined && f.body < Infinity)
          d[BODY + i] = (-breathes * (stopped[i] ?? 0) * OXYGEN_OF_NITROGEN * DAY) / Math.max(f.body, 1e-6)
        const loses = WITHOUT_OXYGEN + (1 - WITHOUT_OXYGEN) * breathes
        d[N + 2 * i] = -pace * loses * decay('ammonia', k.temperature) * x
        d[N + 2 * i + 1] = -pace * loses * decay('nitrite', k.temperature) * x2
        return
      }
      // No more than the oxygen that comes with the water allows, as at rest.
      const allowed = (metFlow(f.films) * Math.max(0, oxygen - FILM_OXYGEN)) / OXYGEN_OF_NITROGEN
      taken += Math.min(allowed, takenBy(food * Math.max(0, s), f.films, x * most))
      taken2 += Math.min(allowed, takenBy(food * Math.max(0, s2), f.films, x2 * most))
      d[N + 2 * i] =
        pace *
        (growth('ammonia', food * Math.max(0, s), x, { temperature, works: 1 }) +
          seeded('ammonia', t, i, ammoniaFilms))
      d[N + 2 * i + 1] =
        pace *
        (growth('nitrite', food * Math.max(0, s2), x2, { temperature, works: 1 }) +
          seeded('nitrite', t, i, nitriteFilms))
    })
    if (ownArea > 0) {
      const [x = 0, x2 = 0] = v.slice(OWN, OWN + 2)
      // No current brings them oxygen either: they breathe what the water has.
      const breathes = Math.min(1, Math.max(0, oxygen) / FILM_OXYGEN)
      taken += breathes * takenByTank(food * Math.max(0, s), ownArea, x * most)
      taken2 += breathes * takenByTank(food * Math.max(0, s2), ownArea, x2 * most)
      d[OWN] = pace * growth('ammonia', food * Math.max(0, s), x, { temperature, works: breathes })
      d[OWN + 1] = pace * growth('nitrite', food * Math.max(0, s2), x2, { temperature, works: breathes })
    }
    const exchange = gasExchange({ speed: off ? 0 : k.stirred, depth, temperature: k.temperature })
    const use = load.oxygen + load.rotting + (plants + taken) * OXYGEN_OF_NITROGEN
    const breathed = use * Math.min(1, Math.max(0, oxygen) / SCARCE)
    d[0] = ((load.ammonia - plants - taken) / k.volume) * DAY
    d[1] = ((taken - taken2) / k.volume) * DAY
    d[2] = (taken2 / k.volume) * DAY
    d[3] = ((exchange * k.surface * (saturation - oxygen) - breathed) / k.volume) * DAY
    d[ALKALINITY] = (-alkalinitySpent(taken, load.ammonia - plants) / k.volume) * DAY
    d[MADE] = load.ammonia * DAY
    d[PLANTS] = plants * DAY
    return d
  }
  const points: TimedPoint[] = []
  const keep = (t: number, v: readonly number[]): void => {
    const [ammonia = 0, nitrite = 0, nitrate = 0, oxygen = 0] = v
    points.push({
      day: t,
      ammonia,
      nitrite,
      nitrate,
      oxygen,
      films: filters.map((_, i) => v[N + 2 * i] ?? 0),
      bodies: filters.map((_, i) => v[BODY + i] ?? 0),
    })
  }
  let now = 0
  let changed = 0
  const change = (): void => {
    const [a = 0, b = 0, c = 0] = y
    changed += k.changeShare * k.volume * (a + b + c - k.tapNitrate)
    const left = 1 - k.changeShare
    y = [a * left, b * left, c * left + k.changeShare * k.tapNitrate, ...y.slice(3)]
    y[ALKALINITY] = (y[ALKALINITY] ?? 0) * left + k.changeShare * k.alkalinity
  }
  const set = (id: string, of: (x: number) => number): void => {
    const i = filters.findIndex((f) => f.id === id)
    y = y.map((v, j) =>
      i >= 0 && (j === N + 2 * i || j === N + 2 * i + 1) ? Math.max(RIPENESS.nothing, of(v)) : v,
    )
  }
  /** Uptake of each filter’s films when it stopped (kg/s): so they breathe on. */
  let stopped: readonly number[] = []
  const stop = (): void => {
    const [s = 0, , , oxygen = 0] = y
    const most = mostAlkaline * keptByAlkalinity(y[ALKALINITY] ?? 0)
    stopped = filters.map((f, i) =>
      running(f, now) ? takenBy(food * Math.max(0, s), f.films, (y[N + 2 * i] ?? 0) * most) : 0,
    )
    y = y.map((v, j) => {
      if (j < BODY) return v
      const { body } = filters[j - BODY] as TimedFilter
      return body === undefined ? 0 : oxygen
    })
    off = true
  }
  const stops: { readonly day: number; readonly act: () => void }[] = happenings.flatMap((h) => {
    switch (h.what) {
      case 'take-out':
        return [{ day: h.day, act: () => void on.delete(h.filter) }]
      case 'replace':
        return [{ day: h.day, act: () => set(h.filter, (x) => x * (1 - h.share)) }]
      case 'rinse':
        return [{ day: h.day, act: () => set(h.filter, (x) => x * h.keeps) }]
      case 'feed':
        return [{ day: h.day, act: () => void (feed *= h.times) }]
      case 'off':
        return [
          { day: h.day, act: stop },
          { day: h.day + h.hours / 24, act: () => void (off = false) },
        ]
    }
  })
  if (k.changeShare > 0)
    for (let t = k.changeDays; t < days; t += k.changeDays) stops.push({ day: t, act: change })
  for (const f of filters) if (f.from) stops.push({ day: f.from, act: () => undefined })
  stops.sort((a, b) => a.day - b.day)
  keep(0, y)
  for (const stop of [...stops.filter((s) => s.day <= days), { day: days, act: () => undefined }]) {
    const times: number[] = []
    for (let i = Math.floor(now * A_DAY) + 1; i / A_DAY < stop.day; i++) times.push(i / A_DAY)
    const { end, at } = integrate(slope, y, [now, stop.day], times)
    at.forEach((v, i) => keep(times[i] ?? now, v))
    const isFilm = (j: number): boolean => (j >= N && j < MADE) || (j >= OWN && j < ALKALINITY)
    y = end.map((v, j) => (isFilm(j) ? Math.min(1, Math.max(0, v)) : Math.max(0, v)))
    if (stop.day > now) keep(stop.day, y)
    now = stop.day
    stop.act()
  }
  const peak = (of: (p: TimedPoint) => number, sign = 1): Peak => {
    const p = points.reduce((a, b) => (sign * of(b) > sign * of(a) ? b : a))
    return { day: p.day, value: of(p) }
  }
  const unsafe = points.findLast((p) => p.ammonia > KIT_ZERO || p.nitrite > KIT_ZERO)
  const after = unsafe ? points.find((p) => p.day > unsafe.day) : points[0]
  const [a = 0, b = 0, c = 0] = y
  return {
    points,
    peakAmmonia: peak((p) => p.ammonia),
    peakNitrite: peak((p) => p.nitrite),
    leastOxygen: peak((p) => p.oxygen, -1),
    safeFrom: after?.day ?? null,
    foulFrom: points.find((p) => p.bodies.some((o) => o < SCARCE / 10))?.day ?? null,
    nitrogen: {
      made: y[MADE] ?? 0,
      plants: y[PLANTS] ?? 0,
      changes: changed,
      stored: (a + b + c - k.tapNitrate) * k.volume,
    },
  }
}

/**
 * Hours until the oxygen in a closed body of still water is gone: t = V · DO ÷ use, its films breathing as they did
 * while it ran.
 */
export const hoursOfOxygen = (bodyWater: number, oxygen: number, oxidised: number): number =>
  oxidised > 0 ? (bodyWater * oxygen) / (oxidised * OXYGEN_OF_NITROGEN) / 3600 : Infinity
