import { oxygenSaturation, unionisedLimitOf } from '../water'
import { KIT_ZERO, OXYGEN_LIMIT, oxygenAllows, PLANTS_BREATHE, type Keeping, type LimitId } from './balance'
import {
  alkalinitySpent,
  FILM_FLOOR,
  OXYGEN_OF_NITROGEN,
  reachedSurface,
  takenBy,
  transferAt,
  type Films,
} from './film'
import { keptByAlkalinity, mostHere } from './heldBack'
import { DAY, loadOf } from './load'
import { gasExchange, oxygenLeft } from './oxygen'

/** How a tank of a class is kept, for each m³ of it (feed in kg/m³/s), and how its surface is stirred by its size. */
export interface KeepingPerVolume extends Omit<Keeping, 'volume' | 'surface' | 'feed' | 'stirred'> {
  readonly feedPerVolume: number
  readonly stirred: (volume: number) => number
  /** Gas exchange as a multiple of what the sums give; 1 when absent. For drawing its doubt. */
  readonly exchanged?: number
}

/** A tank as tanks are made: twice as long as wide and high. Length, width, height (m) of so much water (m³). */
export function usualTank(volume: number): {
  readonly length: number
  readonly height: number
  readonly surface: number
} {
  const height = Math.cbrt(volume / 2)
  return { length: 2 * height, height, surface: 2 * height * height }
}

/** The keeping of one usual tank of a class (m³). */
export function keepingOf(per: KeepingPerVolume, volume: number): Keeping {
  const { feedPerVolume, stirred, exchanged: _exchanged, ...rest } = per
  return {
    ...rest,
    volume,
    surface: usualTank(volume).surface,
    feed: feedPerVolume * volume,
    stirred: stirred(volume),
  }
}

/** Tanks looked at (m³): from a millilitre to a hundred cubic metres. */
const SMALLEST = 1e-6
const LARGEST = 100

/** The largest tank a filter carries by the balance, and which limit is met there. */
export interface Carried {
  /** Tank (m³); 0 where even the smallest passes a limit, {@link LARGEST} where none does. */
  readonly volume: number
  /** The limit met first; null where the largest tank looked at meets none. */
  readonly binding: LimitId | null
}

/** The largest tank (m³) by each limit alone, and by the first of them. */
export interface CarriedByEach extends Carried {
  readonly ammonia: number
  readonly oxygen: number
}

/** Each limit of a class on a tank (m³): is it passed? And the limit’s name. */
interface Limits {
  readonly tooMuch: (volume: number) => boolean
  readonly shortOfOxygen: (volume: number) => boolean
  readonly ammonia: LimitId
}

function limitsOf(per: KeepingPerVolume, films: Films): Limits {
  const ammonia = ammoniaLimit(per)
  const { limit } = ammonia
  const id = alkalinityLeft(per, limit) > 0 ? ammonia.id : 'alkalinity'
  const taken = takenAtLimit(per, films, limit)
  const saturation = oxygenSaturation(per.temperature, per.salinity)
  // All that is fed and taken goes with the volume: worked out once, for each m³.
  const load = loadOf({ ...per, feed: per.feedPerVolume })
  const plants = load.ammonia * per.plantShare
  const given = load.ammonia - plants
  const asked = given - (per.changeShare / (per.changeDays * DAY)) * limit
  const night = load.oxygen + load.rotting + plants * PLANTS_BREATHE
  const use = night + given * OXYGEN_OF_NITROGEN
  const { temperature } = per
  const breathing = (volume: number): { readonly surface: number; readonly exchange: number } => {
    const { surface } = usualTank(volume)
    const depth = volume / surface
    return {
      surface,
      exchange: (per.exchanged ?? 1) * gasExchange({ speed: per.stirred(volume), depth, temperature }),
    }
  }
  return {
    ammonia: id,
    tooMuch: (volume) => {
      const { surface, exchange } = breathing(volume)
      const without = oxygenLeft(saturation, night * volume, exchange, surface)
      return asked * volume > Math.min(taken, oxygenAllows(films, without, exchange * surface))
    },
    shortOfOxygen: (volume) => {
      const { surface, exchange } = breathing(volume)
      return load.oxygen > 0 && oxygenLeft(saturation, use * volume, exchange, surface) < OXYGEN_LIMIT
    },
  }
}

/** Largest tank (m³) that a limit does not pass, of those looked at. */
function largest(passed: (volume: number) => boolean): number {
  if (passed(SMALLEST)) return 0
  if (!passed(LARGEST)) return LARGEST
  let [low, high] = [Math.log(SMALLEST), Math.log(LARGEST)]
  while (high - low > 1e-5) {
    const middle = (low + high) / 2
    if (passed(Math.exp(middle))) high = middle
    else low = middle
  }
  return Math.exp(low)
}

/**
 * Largest usual tank of a class whose balance keeps every limit: the first limit met as it grows.
 *
 * Ammonia: what is fed less what changes take is no more than the films take at the limit, F(L), nor than their oxygen
 * allows; so it needs no search for a concentration. Oxygen: all that is fed is taken as oxidised. Nitrite is met no
 * sooner than ammonia, as its films are taken to be as quick.
 * @throws OutOfRange as {@link balance} does.
 */
export function carries(per: KeepingPerVolume, films: Films): Carried {
  const { tooMuch, shortOfOxygen, ammonia } = limitsOf(per, films)
  const passed = (v: number): boolean => tooMuch(v) || shortOfOxygen(v)
  // Where the films’ own limit is met first, it is known.
  const byFilms = filmsCarry(per, films)
  if (byFilms > SMALLEST && byFilms < LARGEST && !passed(byFilms * (1 - 1e-9)))
    return { volume: byFilms, binding: ammonia }
  return firstOf(largest(passed), (v) => tooMuch(v), ammonia)
}

/** Which limit a largest tank is held by. */
const firstOf = (volume: number, tooMuch: (v: number) => boolean, ammonia: LimitId): Carried => ({
  volume,
  binding: volume >= LARGEST ? null : tooMuch(Math.max(SMALLEST, volume * (1 + 2e-5))) ? ammonia : 'oxygen',
})

/** As {@link carries}, with what each limit alone would carry: an interval needs the second as well. */
export function carriesEach(per: KeepingPerVolume, films: Films): CarriedByEach {
  const { tooMuch, shortOfOxygen } = limitsOf(per, films)
  const byFilms = filmsCarry(per, films)
  const known = byFilms > SMALLEST && byFilms < LARGEST && !tooMuch(byFilms * (1 - 1e-9))
  return {
    ...carries(per, films),
    ammonia: known ? byFilms : largest(tooMuch),
    oxygen: largest(shortOfOxygen),
  }
}

/** Ammonia (kg N/m³) that must not be passed: what a kit shows, or what is un-ionised of it at the tank's pH. */
function ammoniaLimit({
  pH,
  temperature,
  salinity,
}: Pick<KeepingPerVolume, 'pH' | 'temperature' | 'salinity'>): {
  readonly limit: number
  readonly id: LimitId
} {
  const gas = unionisedLimitOf(pH, temperature, salinity)
  return gas < KIT_ZERO ? { limit: gas, id: 'unionised' } : { limit: KIT_ZERO, id: 'ammonia' }
}

/**
 * Alkalinity before a change (kg CaCO₃/m³) where all that is fed but for what changes take is oxidised, whatever the
 * tank: at or below nothing the films of no filter could. Nothing where nothing is changed and some is lost.
 */
function alkalinityLeft(per: KeepingPerVolume, limit: number): number {
  const given = loadOf({ ...per, feed: per.feedPerVolume }).ammonia * (1 - per.plantShare)
  const changed = per.changeShare / (per.changeDays * DAY)
  const lost = alkalinitySpent(Math.max(0, given - changed * limit), given)
  if (!(lost > 0)) return per.alkalinity - (changed > 0 ? lost / changed : 0)
  return changed > 0 ? per.alkalinity - lost / changed : 0
}

/** Nitrogen the films take at the limit (kg/s): nothing where their floor is above it, or no alkalinity is left. */
const takenAtLimit = (per: KeepingPerVolume, films: Films, limit: number): number =>
  reachedSurface(films) > 0 && limit >= FILM_FLOOR
    ? takenBy(limit, films, mostHere(per) * keptByAlkalinity(alkalinityLeft(per, limit)))
    : 0

/**
 * Largest tank (m³) whose ammonia the films keep under its limit, whatever its surface does for oxygen: F(L) ÷ (what
 * is fed less what changes take, for each m³). Infinity where changes alone do.
 */
export function filmsCarry(per: KeepingPerVolume, films: Films): number {
  const { limit } = ammoniaLimit(per)
  const given = loadOf({ ...per, feed: per.feedPerVolume }).ammonia * (1 - per.plantShare)
  const changed = (per.changeShare / (per.changeDays * DAY)) * limit
  return given > changed ? takenAtLimit(per, films, limit) / (given - changed) : Infinity
}

/** Gain of what the films carry by twice the flow and by twice the media (relative). */
export interface Leverage {
  readonly flow: number
  readonly media: number
}

/** Doubles flow and media in turn; null where nothing is carried to begin with, or anything. */
export function leverage(per: KeepingPerVolume, films: Films): Leverage | null {
  const now = filmsCarry(per, films)
  if (!(now > 0) || now === Infinity) return null
  const by = (f: Films): number => filmsCarry(per, f) / now - 1
  return {
    flow: by({ flow: 2 * films.flow, layers: films.layers.map((l) => transferAt(l, 2)) }),
    media: by({ ...films, layers: films.layers.map((l) => ({ ...l, area: 2 * l.area })) }),
  }
}
