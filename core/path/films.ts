import { bedTransfer, servedArea, transferAt, type FilmLayer, type Films } from '../biology'
import type { PlacedLayer } from '../fills'
import { filmSurface, piecesOf, SINTERED_SURFACE, USUAL_PIECES, type Medium } from '../media'

/** Does a medium’s surface carry a film that counts? */
export const filmCounts = (m: Medium): boolean => filmSurface(m).perVolume > 0

/** Parts of an outcome that the films follow from: flows m³/s. */
export interface Filled {
  readonly flow: number
  readonly layers: readonly {
    readonly placed: PlacedLayer
    readonly through: number
    readonly counts: boolean
  }[]
  readonly worth: { readonly calibration: number | null }
}

/**
 * Area of the film of one layer (m²): its medium’s, less what dirt covers; weighed media as weighed. `dirtKnown`: how
 * dirty it is stands in `fouled`, and no share of its time is taken off besides.
 */
function areaOf(o: Filled, l: Filled['layers'][number], dirtKnown: boolean): number {
  const { medium, volume, layer } = l.placed
  const { perVolume, working } = filmSurface(medium)
  const clean = 1 - layer.fouled
  const share = dirtKnown ? clean : Math.min(working, clean)
  return volume * perVolume * share * (l.counts ? (o.worth.calibration ?? 1) : 1)
}

/**
 * The films of a fill as it lies, foam and strainers included: the area that works, each with the water that comes
 * through its layer; what goes round does not count.
 */
export function filmsOf(o: Filled, dirtKnown = false): Films {
  const layers = o.layers
    .filter((l) => filmCounts(l.placed.medium))
    .map((l): FilmLayer => ({
      area: areaOf(o, l, dirtKnown),
      flow: l.through,
      transfer: bedTransfer(l.through / l.placed.area, piecesOf(l.placed.medium)),
    }))
  return { flow: o.flow, layers }
}

/** Worth of a fill’s films on the one scale of all fills. */
export interface FilmWorth {
  /** Kilograms of good sintered media of the same effective area, as far as water reaches it. */
  readonly mass: number
  /**
   * Its half-width (95 %, kg). What nobody measured is wrong together: surfaces of one form, shares that work between
   * rinses of one job; what was entered for a medium is that medium’s own.
   */
  readonly uncertainty: number
  /** Share of the area that is foam. */
  readonly foam: number
}

/** Kilograms of good sintered media that films are worth: the area water can serve ÷ the area of one kilogram. */
export const massOfFilms = (films: Films): number => servedArea(films) / SINTERED_SURFACE

/** The worth of a fill’s films, how well it is known, and how much of it is foam. */
export function filmWorth(o: Filled): FilmWorth {
  const mass = massOfFilms(filmsOf(o))
  const doubts = new Map<string, number>()
  let [all, foam] = [0, 0]
  for (const l of o.layers) {
    const { medium } = l.placed
    const area = areaOf(o, l, false)
    all += area
    if (medium.form === 'foam') foam += area
    const { bands } = filmSurface(medium)
    const add = (what: string, by: number): void => void doubts.set(what, (doubts.get(what) ?? 0) + area * by)
    add(medium.surfaceBand === null ? `form ${medium.form}` : `surface ${medium.id}`, bands.surface)
    add(medium.workingBand === null ? `job ${medium.job}` : `working ${medium.id}`, bands.working)
  }
  const relative = all > 0 ? Math.hypot(...doubts.values()) / all : 0
  return { mass, uncertainty: mass * relative, foam: all > 0 ? foam / all : 0 }
}

/** Water along good sintered media where nobody measured the bed (m/s). Common practice, no source. */
const USUAL_SPEED = 4e-3

/** Films of good sintered media (kg) that meet a share of the water, where no fill is on record. */
export const filmsOfMass = (mass: number, flow: number, meets: number): Films => ({
  flow,
  layers: [
    {
      area: mass * SINTERED_SURFACE,
      flow: flow * meets,
      transfer: bedTransfer(USUAL_SPEED, USUAL_PIECES),
    },
  ],
})

/** Films at another flow than the one they were worked out at: each layer keeps its share of the water. */
export function filmsAt({ flow, layers }: Films, at: number): Films {
  const ratio = flow > 0 ? at / flow : 0
  return { flow: at, layers: layers.map((l) => transferAt(l, ratio)) }
}
