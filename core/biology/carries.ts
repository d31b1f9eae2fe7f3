import { balance, type Balance, type Keeping, type LimitId } from './balance'
import type { Films } from './film'

/** How a tank of a class is kept, for each m³ of it (feed in kg/m³/s), and how its surface is stirred by its size. */
export interface KeepingPerVolume extends Omit<Keeping, 'volume' | 'surface' | 'feed' | 'stirred'> {
  readonly feedPerVolume: number
  readonly stirred: (volume: number) => number
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
  const { feedPerVolume, stirred, ...rest } = per
  return {
    ...rest,
    volume,
    surface: usualTank(volume).surface,
    feed: feedPerVolume * volume,
    stirred: stirred(volume),
  }
}

/** Tanks looked at (m³): from a litre to a hundred cubic metres. */
const SMALLEST = 1e-3
const LARGEST = 100

/** The largest tank a filter carries by the balance, and which limit is met there. */
export interface Carried {
  /** Tank (m³); 0 where even the smallest passes a limit, {@link LARGEST} where none does. */
  readonly volume: number
  /** The limit met first; null where the largest tank looked at meets none. */
  readonly binding: LimitId | null
  /** The balance at that tank; null at 0. */
  readonly at: Balance | null
}

const worst = (b: Balance): LimitId | null => b.limits.find((l) => !l.met)?.id ?? null

/**
 * Largest usual tank of a class whose balance keeps every limit: the first limit met as it grows, by halving in the
 * logarithm (limits are looked at from below, so that a tank too small to be kept stands at 0).
 */
export function carries(per: KeepingPerVolume, films: Films): Carried {
  const at = (v: number): Balance => balance(keepingOf(per, v), films)
  const least = at(SMALLEST)
  const first = worst(least)
  if (first) return { volume: 0, binding: first, at: null }
  const most = at(LARGEST)
  if (!worst(most)) return { volume: LARGEST, binding: null, at: most }
  let [low, high] = [Math.log(SMALLEST), Math.log(LARGEST)]
  while (high - low > 1e-5) {
    const middle = (low + high) / 2
    if (worst(at(Math.exp(middle)))) high = middle
    else low = middle
  }
  const volume = Math.exp(low)
  return { volume, binding: worst(at(Math.exp(high))), at: at(volume) }
}

/** What twice the flow and twice the media would each add to the largest tank (relative). */
export interface Leverage {
  readonly flow: number
  readonly media: number
}

/** Doubles flow and media in turn; null where nothing is carried to begin with. */
export function leverage(per: KeepingPerVolume, films: Films, now: Carried): Leverage | null {
  if (!(now.volume > 0) || now.binding === null) return null
  const by = (f: Films): number => carries(per, f).volume / now.volume - 1
  return {
    flow: by({ flow: 2 * films.flow, layers: films.layers.map((l) => ({ ...l, flow: 2 * l.flow })) }),
    media: by({ ...films, layers: films.layers.map((l) => ({ ...l, area: 2 * l.area })) }),
  }
}
