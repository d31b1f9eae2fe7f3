import { requirePositive, requireRange } from '../errors'
import { AMMONIA_OF_NITROGEN, oxygenSaturation, UNIONISED_LIMIT, unionisedShare } from '../water'
import {
  alkalinitySpent,
  CARBON_DIOXIDE_OF_NITROGEN,
  FILM_FLOOR,
  FILM_OXYGEN,
  metFlow,
  OXYGEN_OF_NITROGEN,
  reachedSurface,
  takenBy,
  type Films,
} from './film'
import { HALF_ALKALINITY, keptByAlkalinity, mostHere, type HeldBack } from './heldBack'
import { CARBON_DIOXIDE_OF_OXYGEN, DAY, loadOf, type Feeding, type Load } from './load'
import { carbonDioxideOf, gasExchange, oxygenLeft } from './oxygen'
import { takenByTank } from './tankFilm'

/** A tank as it is kept: water (m³) and its surface (m²), what is fed, plants, water changes, the water itself. */
export interface Keeping extends Feeding, HeldBack {
  readonly volume: number
  readonly surface: number
  /** Speed of the water along its surface (m/s): what the return does to it. */
  readonly stirred: number
  /** Alkalinity of the water put in (kg CaCO₃/m³). */
  readonly alkalinity: number
  /** Nitrate nitrogen in the water put in (kg/m³). */
  readonly tapNitrate: number
  /** Share of the ammonia that plants take. */
  readonly plantShare: number
  /** Share of the water changed, and every how many days. */
  readonly changeShare: number
  readonly changeDays: number
  /** Films of the tank’s own glass, substrate and décor (m²), which no current runs through; none when absent. */
  readonly ownArea?: number
  /** Share of the ammonia that films find as food; 1 when absent, less where a conditioner binds it. */
  readonly food?: number
  /** Nitrate nitrogen (kg/m³) that who lives there should not pass; none when absent. */
  readonly nitrateLimit?: number
}

/** Share of its food that an ammonia-binding conditioner leaves a film (common practice, no source: 40 to 50 %). */
export const CONDITIONER_LEAVES = 0.45

/** Half of a colour kit’s first step of 0.25 mg/L, as N: what it reads as zero. Common practice, no source. */
export const KIT_ZERO = 0.12e-3
/** Oxygen fish want at night (kg/m³). Common practice; EIFAC 1973 says the same of carp (from memory). */
export const OXYGEN_LIMIT = 5e-3
/**
 * Limits of animals that breathe no oxygen from the water: all but that one. Nitrate and alkalinity go by what is
 * changed, not by the filter.
 */
const LIMITS = ['ammonia', 'unionised', 'nitrite', 'oxygen', 'alkalinity', 'nitrate'] as const
/** Limits that are least values; the others are most values. */
export const AT_LEAST: ReadonlySet<LimitId> = new Set(['oxygen', 'alkalinity'])
export type LimitId = (typeof LIMITS)[number]

/** Limits of the balance (kg/m³): oxygen and alkalinity not fall below it, the others not rise above. */
export interface WaterLimit {
  readonly id: LimitId
  readonly value: number
  readonly limit: number
  readonly met: boolean
}

/** Nitrogen on its way (kg/s): all that is made goes somewhere. */
export interface NitrogenBudget {
  readonly made: number
  readonly plants: number
  readonly changes: number
  readonly oxidised: number
  /** Of what is oxidised, what goes on to nitrate. */
  readonly nitrified: number
  /** Of what is oxidised, what the tank’s own films take. */
  readonly own: number
}

/** Tank and filter at rest. Concentrations kg/m³, as N for ammonia, nitrite and nitrate. */
export interface Balance {
  readonly load: Load
  readonly nitrogen: NitrogenBudget
  /** Total ammonia; by the film’s kinetics alone; and whether the film’s own floor is what shows. */
  readonly ammonia: number
  readonly kinetic: number
  readonly atFloor: boolean
  readonly unionised: number
  readonly nitrite: number
  /** At the end of a change’s interval, in the run of them. */
  readonly nitrate: number
  readonly oxygen: number
  readonly oxygenUse: {
    readonly animals: number
    readonly film: number
    readonly plants: number
    /** Bacteria on what rots. */
    readonly rotting: number
  }
  readonly saturation: number
  /** Gas exchange of its surface, K_L (m/s). */
  readonly exchange: number
  readonly carbonDioxide: number
  /** Alkalinity before a change (kg CaCO₃/m³), never below nothing; the share of their rate it leaves the films. */
  readonly alkalinity: number
  readonly kept: number
  /** The fall of pH it makes between changes, and days it lasts without any. */
  readonly pHFall: number
  readonly alkalinityDays: number
  /** Nitrogen the films take at what a kit reads as zero ÷ what they are given: what is held in reserve. */
  readonly reserve: number
  readonly limits: readonly WaterLimit[]
}

/** At night plants breathe about what oxidising the ammonia they take would have cost. An assumption of ours. */
export const PLANTS_BREATHE = OXYGEN_OF_NITROGEN

/** Concentration (kg/m³) beyond which the search gives up: nothing lives in it. */
const BEYOND = 0.1

/**
 * Most nitrogen that the oxygen coming with the water allows (kg/s). The films lower it themselves: from
 * x = q (DO − 2 mg/L)/4.57 and DO = DO₀ − 4.57 x/(K_L A), DO₀ the oxygen of the tank without them (kg/m³),
 * x = q (DO₀ − 2 mg/L) ÷ (4.57 (1 + q/(K_L A))).
 */
export const oxygenAllows = (films: Films, without: number, exchanged: number): number => {
  const q = metFlow(films)
  return (q * Math.max(0, without - FILM_OXYGEN)) / (OXYGEN_OF_NITROGEN * (1 + q / exchanged))
}

/**
 * Nitrogen that all filters of a tank take of water at S (kg/m³), kg/s: each by {@link takenBy}, but no more than the
 * oxygen coming with its own water allows, q (DO − 2 mg/L)/4.57, where DO = DO₀ − 4.57 x/(K_L A) is what all of them
 * leave. Those that want most of their water run short first. For one filter it is the lesser of {@link takenBy} and
 * {@link oxygenAllows}.
 */
export function takenTogether(
  s: number,
  filters: readonly Films[],
  most: number,
  { without, exchanged }: { readonly without: number; readonly exchanged: number },
): number {
  const wants = filters
    .map((f) => ({ takes: takenBy(s, f, most), q: metFlow(f) }))
    .sort((a, b) => b.takes * a.q - a.takes * b.q)
  let free = wants.reduce((sum, w) => sum + w.takes, 0)
  let short = 0
  const above = Math.max(0, without - FILM_OXYGEN) / OXYGEN_OF_NITROGEN
  for (const w of wants) {
    const all = (free + short * above) / (1 + short / exchanged)
    if (w.takes <= w.q * Math.max(0, above - all / exchanged)) return all
    free -= w.takes
    short += w.q
  }
  return (short * above) / (1 + short / exchanged)
}

/**
 * Concentration at which films and dilution (m³/s) take what is given (kg/s); Infinity where they never do. What is
 * taken is concave in S, so Newton's steps from below never pass the root.
 */
function atRest(given: number, dilution: number, taken: (s: number) => number): number {
  if (!(given > 0)) return 0
  const short = (s: number): number => given - dilution * s - taken(s)
  if (short(BEYOND) > 0) return dilution > 0 ? (given - taken(BEYOND)) / dilution : Infinity
  let s = 1e-9
  for (let i = 0; i < 200; i++) {
    const gap = short(s)
    if (!(gap > given * 1e-10)) break
    const slope = (short(s * 0.9999) - gap) / (s * 1e-4)
    s += gap / slope
  }
  return s
}

/** Ammonia with the film’s floor: it holds for as long as there is enough to feed a film; dilution takes the rest. */
const withFloor = (kinetic: number, given: number, dilution: number, floor: number | null): number =>
  floor !== null && given > 0
    ? Math.min(Math.max(kinetic, floor), dilution > 0 ? given / dilution : Infinity)
    : kinetic

function checked(k: Keeping): Keeping {
  requirePositive('volume', k.volume, 'm³')
  requirePositive('surface', k.surface, 'm²')
  requireRange('stirred', k.stirred, { min: 0, max: 10, unit: 'm/s' })
  requireRange('pH', k.pH, { min: 3, max: 11 })
  requireRange('alkalinity', k.alkalinity, { min: 0, max: 2, unit: 'kg/m³' })
  requireRange('plantShare', k.plantShare, { min: 0, max: 1, unit: '(share)' })
  requireRange('changeShare', k.changeShare, { min: 0, max: 1, unit: '(share)' })
  requireRange('changeDays', k.changeDays, { min: 0.1, max: 3650, unit: 'days' })
  requireRange('ownArea', k.ownArea ?? 0, { min: 0, unit: 'm²' })
  requireRange('food', k.food ?? 1, { min: 0.01, max: 1, unit: '(share)' })
  return k
}

/** Where alkalinity is held to (kg CaCO₃/m³): what leaves films half their rate, or half of soft water’s own. */
const leastAlkalinity = (putIn: number): number => Math.min(HALF_ALKALINITY, putIn / 2)

/**
 * The value x from 0 to the top at which what is left of it, `left(x)`, is x itself; `left` falls as x rises. By
 * halving, to a billionth of the top.
 */
function selfConsistent(top: number, left: (x: number) => number): number {
  if (left(top) >= top) return top
  let [low, high] = [0, top]
  while (high - low > 1e-9 * top) {
    const x = (low + high) / 2
    if (left(x) > x) low = x
    else high = x
  }
  return (low + high) / 2
}

/**
 * The balance of a tank and its filters at rest: what the animals put in, what plants, water changes and films take.
 *
 * Ammonia: P (1 − plants) = (f/T) V S + F(S) + G(S), F the films of the filters by {@link takenTogether}, G the tank’s
 * own by {@link takenByTank}; never below the film’s floor. All films keep A/(25 mg/L + A) of their rate, A the
 * alkalinity before a change, which they lower themselves: A = A_in + [3.57 P (1 − plants) − 7.14 N oxidised] T/(f V).
 *
 * Nitrite alike, its films taken to be as quick (assumption). Nitrate before a change: C = C_tap + P_N T/(f V).
 *
 * Oxygen: C* − use/(K_L A), use of animals, films, plants at night and of the bacteria on what rots. Carbon dioxide: of
 * all of these.
 *
 * Source: Timmons and Ebeling; Zhu and Chen 1999, 2001; Henze et al. 2000; Levenspiel’s mixed reactor (from memory).
 * @throws OutOfRange naming the field.
 */
export function balance(keeping: Keeping, ...filters: readonly Films[]): Balance {
  const k = checked(keeping)
  const load = loadOf(k)
  const mostAlkaline = mostHere(k)
  const { ownArea = 0, food = 1 } = k
  const filmed = ownArea > 0 || filters.some((f) => reachedSurface(f) > 0)
  const interval = k.changeDays * DAY
  const dilution = (k.changeShare * k.volume) / interval
  const plants = load.ammonia * k.plantShare
  const given = load.ammonia - plants
  const exchange = gasExchange({ speed: k.stirred, depth: k.volume / k.surface, temperature: k.temperature })
  const saturation = oxygenSaturation(k.temperature, k.salinity)
  const night = load.oxygen + load.rotting + plants * PLANTS_BREATHE
  const without = oxygenLeft(saturation, night, exchange, k.surface)
  const exchanged = exchange * k.surface
  const floor = FILM_FLOOR / food
  /** Films that keep so much of their rate, and the ammonia they come to rest at. */
  const at = (kept: number) => {
    const most = mostAlkaline * kept
    const byTank = (s: number): number => takenByTank(food * s, ownArea, most)
    const taken = (s: number): number => {
      const own = byTank(s)
      // What the tank’s own films breathe is gone before the water comes to a filter.
      const left = without - (own * OXYGEN_OF_NITROGEN) / exchanged
      return own + takenTogether(food * s, filters, most, { without: left, exchanged })
    }
    const kinetic = atRest(given, dilution, taken)
    const ammonia = withFloor(kinetic, given, dilution, filmed ? floor : null)
    const changes = ammonia === Infinity ? 0 : dilution * ammonia
    return {
      byTank,
      taken,
      kinetic,
      ammonia,
      changes,
      oxidised: ammonia === Infinity ? taken(BEYOND) : Math.max(0, given - changes),
    }
  }
  // Water changes bring alkalinity, animals give some back with their ammonia, films take twice as much.
  const spent = (oxidised: number): number => alkalinitySpent(oxidised, given)
  const leftBy = (oxidised: number): number => {
    const lost = spent(oxidised)
    if (dilution > 0) return k.alkalinity - lost / dilution
    return lost > 0 ? -Infinity : k.alkalinity
  }
  const top = dilution > 0 ? Math.max(0, leftBy(0)) : k.alkalinity
  const alkalinity = selfConsistent(top, (a) => leftBy(at(keptByAlkalinity(a)).oxidised))
  const kept = keptByAlkalinity(alkalinity)
  const { byTank, taken, kinetic, ammonia, changes, oxidised } = at(kept)
  const nitrite = withFloor(
    atRest(oxidised, dilution, taken),
    oxidised,
    dilution,
    filmed && oxidised > 0 ? floor : null,
  )
  const onward = nitrite === Infinity ? taken(BEYOND) : Math.max(0, oxidised - dilution * nitrite)
  const film = oxidised * OXYGEN_OF_NITROGEN
  const oxygen = Math.max(0, oxygenLeft(saturation, night + film, exchange, k.surface))
  const changed = k.changeShare * k.volume
  // What a conditioner binds is shown by a kit and harms nobody.
  const unionised = food * ammonia * unionisedShare(k.pH, k.temperature, k.salinity) * AMMONIA_OF_NITROGEN
  const nitrate =
    changed > 0 ? k.tapNitrate + (onward * interval) / changed : onward > 0 ? Infinity : k.tapNitrate
  const breathes = load.oxygen > 0
  const values: Readonly<Record<LimitId, readonly [value: number, limit: number]>> = {
    ammonia: [ammonia, KIT_ZERO],
    unionised: [unionised, UNIONISED_LIMIT],
    nitrite: [nitrite, KIT_ZERO],
    oxygen: [oxygen, OXYGEN_LIMIT],
    alkalinity: [alkalinity, leastAlkalinity(k.alkalinity)],
    nitrate: [nitrate, k.nitrateLimit ?? Infinity],
  }
  // What it lasts without a change: as long as films go on as they do while there is plenty.
  const lost = spent(at(keptByAlkalinity(k.alkalinity)).oxidised)
  return {
    load,
    nitrogen: {
      made: load.ammonia,
      plants,
      changes,
      oxidised,
      nitrified: onward,
      own: Math.min(oxidised, byTank(Math.min(ammonia, BEYOND))),
    },
    ammonia,
    kinetic,
    atFloor: filmed && given > 0 && ammonia > kinetic,
    unionised,
    nitrite,
    nitrate,
    oxygen,
    oxygenUse: { animals: load.oxygen, film, plants: plants * PLANTS_BREATHE, rotting: load.rotting },
    saturation,
    exchange,
    carbonDioxide: carbonDioxideOf(
      (load.oxygen + load.rotting + plants * PLANTS_BREATHE) * CARBON_DIOXIDE_OF_OXYGEN +
        oxidised * CARBON_DIOXIDE_OF_NITROGEN,
      exchange,
      k.surface,
    ),
    alkalinity,
    kept,
    pHFall:
      alkalinity > 0 && k.alkalinity > 0
        ? Math.max(0, Math.log10(k.alkalinity / alkalinity))
        : lost > 0
          ? Infinity
          : 0,
    alkalinityDays: lost > 0 ? (k.alkalinity * k.volume) / lost / DAY : Infinity,
    reserve: given > 0 ? taken(KIT_ZERO) / given : Infinity,
    limits: LIMITS.filter(
      (id) => (id !== 'oxygen' || breathes) && (id !== 'nitrate' || k.nitrateLimit !== undefined),
    ).map((id) => {
      const [value, limit] = values[id]
      return { id, value, limit, met: AT_LEAST.has(id) ? value >= limit : value <= limit }
    }),
  }
}
